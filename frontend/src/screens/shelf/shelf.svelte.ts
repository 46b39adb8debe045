/** The shelf in a window: what is looked for, page after page, and what was put away a moment ago. */
import { api, ProblemError, type ShelfItem, type ShelfPage, type ShelfQuery } from "../../lib/api/client";
import { refusalOf } from "../../lib/refusal";
import { Resource } from "../../lib/resource.svelte";

export type Order = ShelfQuery["sort"];

export class Shelf {
  text = $state("");
  dish = $state("");
  sort = $state<Order>("touched");
  archived = $state(false);
  /** What the last tap did, with the way back. */
  done = $state.raw<{ what: "archived" | "copied"; item: { id: number; name: string } } | null>(null);
  problem = $state<string | null>(null);
  readonly first = new Resource<ShelfQuery, ShelfPage>((query, signal) => api.shelf(query, signal), {
    pauseMs: 250,
  });
  /** Pages after the first, of the first page that they belong to. */
  #later = $state.raw<{ of: ShelfPage; pages: readonly ShelfPage[] } | null>(null);

  get query(): ShelfQuery {
    return {
      text: this.text.trim(),
      dish: this.dish,
      archived: this.archived,
      sort: this.sort,
      before: null,
    };
  }
  get narrowed(): boolean {
    return this.text.trim() !== "" || this.dish !== "";
  }
  get #pages(): readonly ShelfPage[] {
    const page = this.first.value;
    if (!page) return [];
    return [page, ...(this.#later?.of === page ? this.#later.pages : [])];
  }
  /** A formula that was touched between two pages stands on both: once is enough. */
  get items(): readonly ShelfItem[] {
    const all = this.#pages.flatMap((page) => page.items);
    return all.filter((item, at) => all.findIndex((one) => one.id === item.id) === at);
  }
  get next(): number | null {
    return this.#pages.at(-1)?.next ?? null;
  }

  ask(): () => void {
    return this.first.ask(this.query);
  }

  /** To what was put away, and back. */
  turn(): void {
    this.archived = !this.archived;
    this.done = null;
  }

  showAll(): void {
    this.text = "";
    this.dish = "";
  }

  async more(): Promise<void> {
    const page = this.first.value;
    if (!page || this.next === null) return;
    const before = this.next;
    this.problem = await refusalOf(async () => {
      const found = await api.shelf({ ...this.query, before });
      this.#later = { of: page, pages: [...this.#pages.slice(1), found] };
    });
  }

  /** Copy, archive, restore: each is seen at once, and said with its way back. */
  async copy(item: ShelfItem): Promise<void> {
    await this.#do(async () => {
      const made = await api.copyFormula(item.id);
      this.done = { what: "copied", item: { id: made.id, name: made.formula.name } };
    });
  }
  async archive(item: { id: number; name: string }): Promise<void> {
    await this.#do(async () => {
      await api.deleteFormula(item.id);
      this.done = { what: "archived", item };
    });
  }
  async restore(item: { id: number; name: string }): Promise<void> {
    await this.#do(async () => {
      await api.restoreFormula(item.id);
      this.done = null;
      // The last one that came back: nothing stands here any more.
      if (this.archived && (this.first.value?.archived ?? 0) <= 1) this.archived = false;
    });
  }

  async #do(work: () => Promise<void>): Promise<void> {
    this.problem = null;
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
    }
    this.ask();
  }
}
