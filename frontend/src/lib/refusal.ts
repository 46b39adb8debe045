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

/**
 * On a phone the button is far below the field: who has pressed it is led to what was refused, who types elsewhere is
 * left alone. Limits that are folded away come out.
 */
export function leadToRefused(form: HTMLElement | undefined): void {
  const field = form?.querySelector<HTMLElement>("[aria-invalid=true]");
  const now = document.activeElement;
  if (!field || !(now === document.body || now instanceof HTMLButtonElement)) return;
  const folded = field.closest("details");
  if (folded) folded.open = true;
  field.focus();
}
