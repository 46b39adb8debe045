/** The larder room: what the server holds, and one place where each change is tried and refused in words. */
import { api, ProblemError, type LarderContent, type RowReport } from "../../lib/api/client";

export class LarderRoom {
  content = $state.raw<LarderContent | null>(null);
  problem = $state<string | null>(null);
  status = $state("");
  report = $state.raw<RowReport[] | null>(null);

  async load(): Promise<void> {
    await this.attempt(async () => {
      this.content = await api.larder();
    });
  }

  /** Run a change, then look at the larder again. True when it was taken. */
  async attempt(run: () => Promise<void>, status = ""): Promise<boolean> {
    this.problem = null;
    try {
      await run();
      if (status) {
        this.content = await api.larder();
        this.status = status;
      }
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.status = "";
      if (error.problem.status === 409) {
        this.content = await api.larder();
        this.problem =
          "Another window changed it meanwhile. It is shown as it stands now; make your change again.";
      } else this.problem = error.problem.detail;
      return false;
    }
  }

  async takeFile(file: File): Promise<void> {
    this.report = null;
    if (file.size > 900_000) {
      this.problem = "That file is larger than a larder file can be (900 kB).";
      return;
    }
    const text = await file.text();
    await this.attempt(async () => {
      this.report = (await api.importLarder(text)).rows;
    }, "The file was read");
  }
}
