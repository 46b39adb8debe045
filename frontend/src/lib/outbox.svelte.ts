/**
 * What was done and waits to reach the server: one queue for edits, for reports from the stove, for weighings.
 * It is sent in order, one at a time; a dropped line or a fault of the server is tried again; what the server will never take is put aside
 * and does not block what waits behind it.
 */
import { ProblemError, type Problem } from "./api/client";
import { foundOwn, keepOwn } from "./ownStore";

export interface Delivery<Item> {
  /** Bring one item to the server; a refusal is thrown. */
  send: (item: Item) => Promise<void>;
  /** Keep what waits, so that a reload finds it. */
  keep: (items: Item[]) => void;
  /** The server took against it: it is not sent again. */
  refused: (item: Item, problem: Problem) => void;
  /** The line is down; it is tried again by itself. */
  lost?: () => void;
  /** Whether the next item may go now. */
  ready?: () => boolean;
  /** Nothing is under way any more. */
  idle?: () => void;
  retryMs?: number;
}

/** So often an item over which the server breaks is sent before it is put aside. */
const BROKEN_MOST = 4;

/** A name that makes a repeated report count once. */
export function newToken(): string {
  return `${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 10)}`;
}

/** Keep items in this browser under a key, for whoever is signed in. */
export function keepLocally<Item>(key: string, items: Item[]): void {
  keepOwn(key, items.length > 0 ? JSON.stringify(items) : null);
}

export function foundLocally<Item>(key: string): Item[] {
  try {
    return JSON.parse(foundOwn(key) ?? "[]") as Item[];
  } catch {
    return [];
  }
}

export class Outbox<Item> {
  items = $state.raw<Item[]>([]);
  away = $state(false);

  #how: Delivery<Item>;
  #sending = false;
  /** How often the server broke over the first item. */
  #broken = 0;
  #closed = false;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(how: Delivery<Item>) {
    this.#how = how;
  }

  get sending(): boolean {
    return this.#sending;
  }

  push(item: Item): void {
    this.#hold([...this.items, item]);
    void this.drain();
  }

  /** The newest item is overtaken by another, such as the next place of a drag. */
  overtake(item: Item): void {
    this.#hold([...this.items.slice(0, -1), item]);
    void this.drain();
  }

  /** What an earlier window left behind. */
  restore(items: Item[]): void {
    this.items = items;
    void this.drain();
  }

  async drain(): Promise<void> {
    if (this.#sending || this.#closed) return;
    this.#sending = true;
    try {
      while (this.items.length > 0 && (this.#how.ready?.() ?? true)) {
        const item = this.items[0] as Item;
        try {
          await this.#how.send(item);
          this.away = false;
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
          // A fault of the server's own may pass; one that comes again and again must not block what waits behind it.
          const broken = error.problem.status >= 500 && !error.away && ++this.#broken < BROKEN_MOST;
          if (error.away || broken) {
            this.away = error.away;
            this.#how.keep(this.items);
            this.#how.lost?.();
            this.#retryLater();
            return;
          }
          this.#how.refused(item, error.problem);
        }
        this.#broken = 0;
        // It may have been overtaken while it was under way; then the newer one still waits.
        if (this.items[0] === item) this.#hold(this.items.slice(1));
      }
    } finally {
      this.#sending = false;
      this.#how.idle?.();
    }
  }

  close(): void {
    this.#closed = true;
    clearTimeout(this.#timer);
  }

  #hold(items: Item[]): void {
    this.items = items;
    this.#how.keep(items);
  }

  #retryLater(): void {
    clearTimeout(this.#timer);
    if (!this.#closed) this.#timer = setTimeout(() => void this.drain(), this.#how.retryMs ?? 2000);
  }
}
