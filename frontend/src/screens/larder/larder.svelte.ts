/** The larder room: what the server holds, and one place where each change is tried and refused in words. */
import { api, ProblemError, type LarderContent } from "../../lib/api/client";
import { TableFile } from "../../lib/tableFile.svelte";

export class LarderRoom {
  content = $state.raw<LarderContent | null>(null);
  problem = $state<string | null>(null);
  status = $state("");
  file = new TableFile(this, "larder", (text) => api.importLarder(text));

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
}
