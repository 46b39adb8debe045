/** What the core or the server refuses, in its own words; anything else that goes wrong is a fault and stays one. */
import { ProblemError } from "./api/client";

/** Run it; the words of its refusal, null when it went through. */
export async function refusalOf(run: () => Promise<unknown>): Promise<string | null> {
  try {
    await run();
    return null;
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    return error.problem.detail;
  }
}
