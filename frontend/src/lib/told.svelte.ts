import { api } from "./api/client";
import { refusalOf } from "./refusal";
import { units } from "./units.svelte";

type Kind = Parameters<typeof api.read>[0];

/** Does what may be refused, and keeps the reason for whoever shows it. */
export class Told {
  problem = $state<string | null>(null);

  async run(what: () => Promise<void>): Promise<void> {
    this.problem = null;
    this.problem = await refusalOf(what);
  }

  /** Reads what was typed as an amount of this kind, in the units in force, and hands it on. */
  read(kind: Kind, text: string, set: (value: number) => void): Promise<void> {
    return this.run(async () => set((await api.read(kind, text, units.system)).value));
  }
}
