/** A service in a window: what is typed goes to the core and is kept a moment later; two windows do not overwrite each other. */
import {
  api,
  ProblemError,
  type PlannedService,
  type Service,
  type StoredService,
  type TimingEdit,
} from "../../lib/api/client";
import { utcOffsetMin } from "../../lib/days";
import { Search } from "../../lib/search.svelte";
import { units } from "../../lib/units.svelte";

const WAIT_MS = 400;
const AGAIN_MS = 3000;

export class ServiceBench {
  readonly id: number;
  service = $state.raw<Service | null>(null);
  save = $state<"saved" | "saving" | "unsaved">("saved");
  problem = $state<string | null>(null);
  refusal = $state<string | null>(null);
  missing = $state(false);
  /** What another window saved meanwhile. */
  theirs = $state.raw<StoredService | null>(null);
  readonly plan = new Search<Service, PlannedService>((now, signal, look) =>
    api.planService(now, units.system, look, signal),
  );
  #revision = 0;
  #saving: Promise<void> | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #turn: Promise<void> = Promise.resolve();

  constructor(id: number) {
    this.id = id;
  }

  async load(): Promise<void> {
    try {
      this.#accept(await api.service(this.id));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.status === 404) this.missing = true;
      else this.problem = error.problem.detail;
    }
  }

  #accept(stored: StoredService): void {
    this.service = stored.service;
    this.#revision = stored.revision;
    this.save = "saved";
    this.problem = null;
    this.theirs = null;
  }

  /** Change it here at once; it is kept a moment later. */
  change(part: Partial<Service>): void {
    this.refusal = null;
    this.#put(part);
  }

  #put(part: Partial<Service>): void {
    if (!this.service) return;
    this.service = { ...this.service, ...part };
    this.#soon(WAIT_MS);
  }

  #soon(wait: number): void {
    this.save = "unsaved";
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#saveNow(), wait);
  }

  edit(edit: TimingEdit): Promise<void> {
    return this.#timed((before) => api.editService(before, edit, units.system));
  }

  /** What a cook's calendar says of the day: the browser's clock stands in for the kitchen's. */
  calendar(cook: number, text: string): Promise<void> {
    return this.#timed((before) => api.busyCook(before, cook, text, utcOffsetMin(before.day)));
  }

  /** One after the other: two asked of the same hours would each answer without the other. */
  #timed(ask: (before: Service) => Promise<Service>): Promise<void> {
    this.refusal = null;
    const turn = this.#turn.then(async () => {
      let before = this.service;
      try {
        while (before) {
          const after = await ask(before);
          const now = this.service;
          // Whatever was typed beside it meanwhile stays.
          if (!now || now.timing === before.timing) return this.#put({ timing: after.timing });
          before = now;
        }
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        this.refusal = error.problem.detail;
      }
    });
    this.#turn = turn.catch(() => undefined);
    return turn;
  }

  /** One save at a time: two under way would hold the same revision, and the second be refused. */
  async #saveNow(): Promise<void> {
    while (this.#saving) await this.#saving;
    const sent = this.service;
    if (!sent || this.theirs || this.save === "saved") return;
    this.#saving = this.#send(sent);
    try {
      await this.#saving;
    } finally {
      this.#saving = null;
    }
  }

  async #send(sent: Service): Promise<void> {
    this.save = "saving";
    try {
      const stored = await api.saveService(this.id, sent, this.#revision);
      this.#revision = stored.revision;
      this.problem = null;
      if (this.service === sent) this.save = "saved";
      else this.#soon(WAIT_MS);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.save = "unsaved";
      this.problem = error.problem.detail;
      if (error.problem.status === 409) this.theirs = error.problem.current as StoredService;
      else if (error.problem.status === 0 || error.problem.status >= 500) this.#soon(AGAIN_MS);
    }
  }

  /** Two windows: theirs stands, or ours is saved over it. */
  settle(keep: "theirs" | "mine"): void {
    const theirs = this.theirs;
    if (!theirs) return;
    this.theirs = null;
    if (keep === "theirs") this.#accept(theirs);
    else {
      this.#revision = theirs.revision;
      this.#soon(0);
    }
  }

  /** It is deleted for good: nothing waits to be kept. */
  async remove(): Promise<void> {
    clearTimeout(this.#timer);
    this.save = "saved";
    await api.deleteService(this.id);
  }

  close(): void {
    clearTimeout(this.#timer);
    if (this.save === "unsaved" && !this.theirs) void this.#saveNow();
    this.plan.clear();
  }
}
