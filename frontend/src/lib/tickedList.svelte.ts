/**
 * A list that is ticked in a window: in a shop, at the bench. What is ticked waits here while the line is down, and the
 * list that was fetched last is shown.
 */
import { api, ProblemError, type Tick, type Ticked } from "./api/client";
import { foundLocally, keepLocally, Outbox } from "./outbox.svelte";

export interface Listing<Found> {
  kitchen: string;
  /** Where it is kept in this browser, so that it opens without a line. */
  key: string;
  fetch: () => Promise<Found>;
  /** Brings what an older version of this application kept up to date. */
  whole?: (kept: Found) => Found;
}
/** Ticks of a version before lists had names. */
interface OldTick {
  from_day: string;
  to_day: string;
  kind: string;
  key: string;
  ticked: boolean;
}
const named = (tick: Tick | OldTick): Tick =>
  "sheet" in tick
    ? tick
    : {
        sheet: `shopping/${tick.from_day}/${tick.to_day}`,
        line: `${tick.kind}/${tick.key}`,
        amount: null,
        ticked: tick.ticked,
      };
const at = (tick: { sheet: string; line: string }) => `${tick.sheet} ${tick.line}`;

export class TickedList<Found extends { ticked: Ticked[] }> {
  found = $state.raw<Found | null>(null);
  problem = $state<string | null>(null);
  /** The list on the screen is one of before: the line is down. */
  old = $state(false);
  readonly outbox: Outbox<Tick>;
  readonly #how: Listing<Found>;
  /** What was ticked and not known to the server when the list was asked for last, or was ticked since. */
  #newer: readonly Tick[] = [];
  #asked = 0;
  /** Of each ticked line, how much more it takes than when it was ticked; 0: it is done. */
  #more = $state.raw<Readonly<Record<string, number>>>({});

  constructor(how: Listing<Found>) {
    this.#how = how;
    const waiting = `vianda.ticks.${how.kitchen}`;
    this.outbox = new Outbox<Tick>({
      send: async (tick) => void (await api.tick(tick)),
      keep: (items) => keepLocally(waiting, items),
      refused: (tick, problem) => {
        this.#newer = this.#newer.filter((one) => one !== tick);
        this.problem = problem.detail;
      },
      idle: () => {
        if (this.old && !this.outbox.away) void this.load();
      },
    });
    this.outbox.restore(foundLocally<Tick | OldTick>(waiting).map(named));
  }

  async load(): Promise<void> {
    const mine = ++this.#asked;
    // A tick that is sent while the answer is on its way may not be in it.
    this.#newer = this.outbox.items;
    try {
      const found = await this.#how.fetch();
      if (mine !== this.#asked) return;
      this.#show(found, false);
      keepLocally(this.#how.key, [found]);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (mine !== this.#asked) return;
      const [before] = error.away ? foundLocally<Found>(this.#how.key) : [];
      if (before) this.#show(this.#how.whole?.(before) ?? before, true);
      else this.problem = error.problem.detail;
    }
  }

  #show(found: Found, old: boolean): void {
    this.found = found;
    this.old = old;
    this.problem = null;
    this.#more = Object.fromEntries(found.ticked.map((line) => [at(line), line.more]));
    for (const tick of this.#newer) this.#mark(tick);
  }

  #mark(tick: Tick): void {
    const others = Object.entries(this.#more).filter(([key]) => key !== at(tick));
    this.#more = Object.fromEntries(tick.ticked ? [...others, [at(tick), 0]] : others);
  }

  /** How many ticks wait for the line; 0 while they are only under way. */
  get waiting(): number {
    return this.outbox.away ? this.outbox.items.length : 0;
  }

  /** How much more a line takes than when it was ticked; 0 for one that is done or was never ticked. */
  more(sheet: string, line: string): number {
    return this.#more[at({ sheet, line })] ?? 0;
  }

  has(sheet: string, line: string): boolean {
    return this.#more[at({ sheet, line })] === 0;
  }

  tick(sheet: string, line: string, amount: number, ticked: boolean): void {
    const tick = { sheet, line, amount, ticked };
    this.#mark(tick);
    this.#newer = [...this.#newer, tick];
    this.outbox.push(tick);
  }

  close(): void {
    this.outbox.close();
  }
}
