/** The kitchens there are, and the one this window is in. It stays there, whatever other windows open. */
import { api, here, ProblemError, type Kitchens } from "./api/client";
import { units } from "./units.svelte";

const KEY = "vianda.kitchen";

class KitchenChoice {
  list = $state.raw<Kitchens["kitchens"]>([]);
  ready = $state(false);
  /** Whether the list was answered; false while the server is away. */
  known = $state(false);
  #here = $state(0);

  get here(): number {
    return this.#here;
  }
  get current(): Kitchens["kitchens"][number] | undefined {
    return this.list.find((k) => k.id === this.#here);
  }
  get demo(): Kitchens["kitchens"][number] | undefined {
    return this.list.find((k) => k.demo);
  }

  async load(): Promise<void> {
    const kept = Number(sessionStorage.getItem(KEY)) || 0;
    try {
      const answer = await api.kitchens();
      this.#take(answer, answer.kitchens.some((k) => k.id === kept) ? kept : answer.here);
      await this.#money();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      // Each screen says for itself that the server does not answer.
      here.kitchen = this.#here = kept;
    }
    this.ready = true;
  }

  #take(answer: Kitchens, chosen = answer.here): void {
    this.list = answer.kitchens;
    this.known = true;
    here.kitchen = this.#here = chosen;
    if (chosen) sessionStorage.setItem(KEY, String(chosen));
  }

  async #money(): Promise<void> {
    if (!this.#here) return;
    units.currency = (await api.kitchen()).kitchen.currency_code;
  }

  /** Run what opens, makes or deletes a kitchen, and move this window to the one that is open then. */
  async change(run: () => Promise<Kitchens>): Promise<void> {
    this.#take(await run());
    await this.#money();
  }
}

export const kitchens = new KitchenChoice();
