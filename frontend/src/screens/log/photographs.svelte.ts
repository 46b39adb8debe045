/** Photographs of a cook: those kept, and those that wait for the line in this window. */
import { api, ProblemError, type Photograph } from "../../lib/api/client";
import { newToken, Outbox } from "../../lib/outbox.svelte";

/** What the browser hands over of a camera; the server says what it can read. */
export const KINDS = ["image/jpeg", "image/png", "image/webp"];
const LARGEST_BYTES = 16_000_000;

interface Waiting {
  name: string;
  data: Blob;
  token: string;
}

export class Photographs {
  kept = $state.raw<Photograph[] | null>(null);
  refused = $state.raw<string[]>([]);
  #cook: number;
  #outbox: Outbox<Waiting>;

  constructor(cook_id: number) {
    this.#cook = cook_id;
    this.#outbox = new Outbox<Waiting>({
      // A picture is too large for what this browser keeps: it waits in this window alone, and the page says so.
      keep: () => undefined,
      send: async ({ data, token }) => {
        this.kept = await api.addPhotograph(this.#cook, { data, token });
      },
      refused: ({ name }, problem) => (this.refused = [...this.refused, `${name}: ${problem.detail}`]),
    });
  }

  get waiting(): readonly Waiting[] {
    return this.#outbox.items;
  }

  get away(): boolean {
    return this.#outbox.away;
  }

  async read(): Promise<void> {
    try {
      this.kept = await api.photographs(this.#cook);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.refused = [error.problem.detail];
    }
  }

  add(files: Iterable<File>): void {
    this.refused = [];
    for (const file of files) {
      const why = whyNot(file);
      if (why) this.refused = [...this.refused, `${file.name}: ${why}`];
      else this.#outbox.push({ name: file.name, data: file, token: newToken() });
    }
  }

  async caption(photograph: Photograph, caption: string): Promise<void> {
    await api.captionPhotograph(photograph.id, caption);
    this.kept = (this.kept ?? []).map((p) => (p.id === photograph.id ? { ...p, caption } : p));
  }

  async remove(photograph: Photograph): Promise<void> {
    await api.deletePhotograph(photograph.id);
    this.kept = (this.kept ?? []).filter((p) => p.id !== photograph.id);
  }

  close(): void {
    this.#outbox.close();
  }
}

/** What is not worth sending; the rest is told by whoever reads it. */
function whyNot(file: File): string | null {
  if (!KINDS.includes(file.type)) return "JPEG, PNG or WebP is read; this is not one of them.";
  if (file.size > LARGEST_BYTES) return `it has ${(file.size / 1e6).toFixed(0)} MB; at most 16 are taken.`;
  return null;
}
