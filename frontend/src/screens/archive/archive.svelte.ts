/** An archive that was chosen: looked at again with each choice, and brought in as it was looked at. */
import {
  api,
  ProblemError,
  type ArchiveDiffering,
  type ArchiveInto,
  type ArchiveReport,
} from "../../lib/api/client";
import { newToken } from "../../lib/outbox.svelte";
import { Resource } from "../../lib/resource.svelte";

/** What the server takes over the wire. */
export const LARGEST = 100_000_000;
interface Question {
  data: Blob;
  into: ArchiveInto;
  differing: ArchiveDiffering;
}

export class ChosenArchive {
  name = $state("");
  into = $state<ArchiveInto>("new");
  differing = $state<ArchiveDiffering>("keep");
  done = $state.raw<ArchiveReport | null>(null);
  busy = $state(false);
  refused = $state<string | null>(null);
  looked = new Resource<Question, ArchiveReport>(({ data, into, differing }, signal) =>
    api.lookAtArchive(data, into, differing, signal),
  );
  #data: Blob | null = null;
  #token = "";

  choose(file: File): void {
    this.done = null;
    this.refused = null;
    this.looked.clear();
    this.name = file.name;
    if (file.size > LARGEST) {
      this.#data = null;
      this.refused = `The file has ${(file.size / 1e6).toFixed(0)} MB; here it may have ${LARGEST / 1e6} MB. A larger one goes in by the command line: vianda import.`;
      return;
    }
    // Some systems call a zip otherwise, and the server takes one name for it.
    this.#data = new Blob([file], { type: "application/zip" });
    this.look();
  }

  look(): void {
    if (!this.#data) return;
    this.refused = null;
    this.#token = newToken();
    this.looked.ask({ data: this.#data, into: this.into, differing: this.differing });
  }

  async bring(): Promise<void> {
    const report = this.looked.value;
    if (!this.#data || !report) return;
    this.busy = true;
    this.refused = null;
    try {
      this.done = await api.bringArchive(this.#data, report, this.#token);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.status === 409) {
        this.refused = "The kitchen was changed since this was looked at. Look at it again as it is now.";
        this.look();
      } else this.refused = error.problem.detail;
    }
    this.busy = false;
  }
}
