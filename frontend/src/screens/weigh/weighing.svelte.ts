/**
 * One run of check-weighing: the scale's display as it streams, and what is on record.
 * A dropped line is opened again; a press made meanwhile waits, with what was seen, and is sent when the line is back.
 */
import {
  api,
  ProblemError,
  type ScaleDisplay,
  type Weighing,
  type WeighingAction,
} from "../../lib/api/client";
import { foundLocally, keepLocally, newToken, Outbox } from "../../lib/outbox.svelte";

const RETRY_MS = 1000;
/** A stream that says nothing for so long is taken as dropped. */
const SILENT_MS = 2500;

interface Waiting {
  token: string;
  action: WeighingAction["action"];
  about: number | null;
  seen_g: number | null;
  at: number;
}

export class WeighingRun {
  readonly id: number;
  run = $state.raw<Weighing | null>(null);
  display = $state.raw<ScaleDisplay | null>(null);
  away = $state(false);
  missing = $state(false);
  problem = $state<string | null>(null);

  #source: EventSource | null = null;
  #watch: ReturnType<typeof setInterval> | undefined;
  #heard = 0;
  #closed = false;
  #asking = false;

  #outbox = new Outbox<Waiting>({
    send: async ({ token, action, about, seen_g, at }) => {
      const late_s = Math.min(86_400, Math.max(0, (Date.now() - at) / 1000));
      this.run = await api.weighingAct(this.id, { token, action, about, seen_g, late_s });
      this.away = false;
    },
    keep: (waiting) => keepLocally(this.#key, waiting),
    refused: (_, problem) => (this.problem = problem.detail),
    lost: () => (this.away = true),
    retryMs: RETRY_MS,
  });

  constructor(id: number) {
    this.id = id;
  }

  get waiting(): Waiting[] {
    return this.#outbox.items;
  }

  get #key(): string {
    return `vianda.weighing.${this.id}`;
  }

  async open(): Promise<void> {
    await this.#refresh();
    if (this.#closed || this.missing) return;
    this.#listen();
    this.#watch = setInterval(() => this.#mind(), 500);
    this.#outbox.restore(foundLocally<Waiting>(this.#key));
  }

  close(): void {
    this.#closed = true;
    this.#source?.close();
    this.#outbox.close();
    clearInterval(this.#watch);
  }

  /** Do one thing. What changes the record waits when the line is down; what is done to the scale cannot. */
  act(action: WeighingAction["action"], about: number | null = null): void {
    this.problem = null;
    const keeps = action === "keep" || action === "set-aside" || action === "count";
    if (this.away && !keeps) {
      this.problem = "The scale does not answer just now.";
      return;
    }
    const seen_g = action === "keep" ? (this.display?.reading.shown_g ?? null) : null;
    if (action === "keep" && this.away && this.display?.reading.state !== "steady") {
      this.problem = "The scale had not settled when the line dropped; wait until it is back.";
      return;
    }
    if (action === "keep" && this.waiting.some((w) => w.action === "keep")) {
      this.problem = "This reading waits to be sent already.";
      return;
    }
    this.#outbox.push({ token: newToken(), action, about, seen_g, at: Date.now() });
  }

  #listen(): void {
    this.#source?.close();
    this.#heard = performance.now();
    const source = new EventSource(api.scaleStreamPath(this.id));
    source.onmessage = (event: MessageEvent<string>) => {
      this.#heard = performance.now();
      this.away = false;
      this.#show(JSON.parse(event.data) as ScaleDisplay);
      if (this.waiting.length > 0) void this.#outbox.drain();
    };
    this.#source = source;
  }

  #show(display: ScaleDisplay): void {
    this.display = display;
    // Another window did something: take over what stands now.
    if (this.run && display.newest !== this.run.newest && !this.#outbox.sending) void this.#refresh();
  }

  /** The browser opens a stream that ended again by itself; one that fails or is silent is minded here. */
  #mind(): void {
    if (performance.now() - this.#heard < SILENT_MS) return;
    void this.#ask();
  }

  /** Without a stream the display is asked for; when that works, a stream is tried again. */
  async #ask(): Promise<void> {
    if (this.#asking) return;
    this.#asking = true;
    try {
      const display = await api.scaleDisplay(this.id);
      if (this.#closed) return;
      this.away = false;
      this.#show(display);
      if (this.#source?.readyState === EventSource.CLOSED || performance.now() - this.#heard > 2 * SILENT_MS)
        this.#listen();
      if (this.waiting.length > 0) void this.#outbox.drain();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.away = true;
    } finally {
      this.#asking = false;
    }
  }

  async #refresh(): Promise<void> {
    try {
      this.run = await api.weighing(this.id);
      this.away = false;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.status === 404) this.missing = true;
      else {
        this.away = true;
        if (!this.run && !this.#closed) setTimeout(() => void this.#refresh(), RETRY_MS);
      }
    }
  }
}
