import { api } from "./api/client";
import { refusalOf } from "./refusal";
import { units } from "./units.svelte";

type Kind = Parameters<typeof api.read>[0];

/** Does what may be refused, and keeps the reason for whoever shows it. */
export class Told {
  problem = $state<string | null>(null);
  /** What was typed and is being read, one after the other; whether the last one was. */
  #reading: Promise<boolean> | null = null;

  /** Do it once all that was typed is read; where that is refused, it is not done, and the reason stands. */
  async run(what: () => Promise<void>): Promise<void> {
    if (this.#reading && !(await this.#reading)) return;
    await this.#tell(what);
  }

  /** Reads what was typed as an amount of this kind, in the units in force, and hands it on. */
  async read(kind: Kind, text: string, set: (value: number) => void): Promise<void> {
    const before = this.#reading ?? Promise.resolve(true);
    const mine = before
      .catch(() => true)
      .then(() => this.#tell(async () => set((await api.read(kind, text, units.system)).value)));
    this.#reading = mine;
    try {
      await mine;
    } finally {
      if (this.#reading === mine) this.#reading = null;
    }
  }

  async #tell(what: () => Promise<void>): Promise<boolean> {
    this.problem = null;
    this.problem = await refusalOf(what);
    return this.problem === null;
  }
}
