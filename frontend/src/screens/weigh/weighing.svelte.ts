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
  waiting = $state.raw<Waiting[]>([]);

  #source: EventSource | null = null;
  #watch: ReturnType<typeof setInterval> | undefined;
  #heard = 0;
  #sending = false;
  #closed = false;
  #asking = false;

  constructor(id: number) {
    this.id = id;
  }

  get #key(): string {
    return `vianda.weighing.${this.id}`;
  }

  async open(): Promise<void> {
    this.waiting = this.#found();
    await this.#refresh();
    if (this.#closed || this.missing) return;
    this.#listen();
    this.#watch = setInterval(() => this.#mind(), 500);
    void this.#send();
  }

  close(): void {
    this.#closed = true;
    this.#source?.close();
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
    const token = `${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 10)}`;
    this.waiting = [...this.waiting, { token, action, about, seen_g, at: Date.now() }];
    this.#keep();
    void this.#send();
  }

  #listen(): void {
    this.#source?.close();
    this.#heard = performance.now();
    const source = new EventSource(api.scaleStreamPath(this.id));
    source.onmessage = (event: MessageEvent<string>) => {
      this.#heard = performance.now();
      this.away = false;
      this.#show(JSON.parse(event.data) as ScaleDisplay);
      if (this.waiting.length > 0) void this.#send();
    };
    this.#source = source;
  }

  #show(display: ScaleDisplay): void {
    this.display = display;
    // Another window did something: take over what stands now.
    if (this.run && display.newest !== this.run.newest && !this.#sending) void this.#refresh();
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
      if (this.waiting.length > 0) void this.#send();
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

  #found(): Waiting[] {
    try {
      return JSON.parse(localStorage.getItem(this.#key) ?? "[]") as Waiting[];
    } catch {
      return [];
    }
  }

  #keep(): void {
    try {
      if (this.waiting.length > 0) localStorage.setItem(this.#key, JSON.stringify(this.waiting));
      else localStorage.removeItem(this.#key);
    } catch {
      // The browser's store is full or forbidden: what waits is still in this window and is still sent.
    }
  }

  async #send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    try {
      for (let next = this.waiting[0]; next; next = this.waiting[0]) {
        const { token, action, about, seen_g, at } = next;
        const late_s = Math.min(86_400, Math.max(0, (Date.now() - at) / 1000));
        try {
          this.run = await api.weighingAct(this.id, { token, action, about, seen_g, late_s });
          this.away = false;
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
          if (error.away) {
            this.away = true;
            return;
          }
          // What the server will never take must not block what waits behind it.
          this.problem = error.problem.detail;
        }
        this.waiting = this.waiting.filter((w) => w.token !== token);
        this.#keep();
      }
    } finally {
      this.#sending = false;
    }
  }
}
