/** One cook at the stove: which step, since when, and a queue of reports that survives a lost line. */
import { api, ProblemError, type Cook, type StoveStep } from "../../lib/api/client";

type Kind = "done" | "extra" | "probe" | "back";
interface Happening {
  token: string;
  kind: Kind;
  place: number;
  value: number | null;
  since_start_s: number;
}
interface Report extends Happening {
  sent: boolean;
}

const EXTRA_S = 15;
const RETRY_MS = 2000;

export interface Place {
  step: StoveStep;
  wave: number;
  count: number;
}

export class Stove {
  cook = $state.raw<Cook | null>(null);
  problem = $state<string | null>(null);
  away = $state(false);
  now = $state(0);
  #reports = $state.raw<Report[]>([]);
  #zero = 0;
  #timer: ReturnType<typeof setInterval> | undefined;
  #sending = false;

  constructor(readonly id: number) {}

  get #key(): string {
    return `vianda.stove.${this.id}`;
  }

  async load(): Promise<void> {
    try {
      const cook = await api.cook(this.id);
      this.cook = cook;
      this.problem = null;
      // The server's clock counts; ours only carries on from there, and never jumps with the wall clock.
      this.#zero = performance.now() - cook.elapsed_s * 1000;
      const known = cook.events.map((e) => e.token);
      const mine = (JSON.parse(localStorage.getItem(this.#key) ?? "[]") as Report[]).filter(
        (r) => !known.includes(r.token),
      );
      this.#reports = mine;
      this.tick();
      this.#timer ??= setInterval(() => this.tick(), 200);
      void this.#send();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
      if (error.away) setTimeout(() => void this.load(), RETRY_MS);
    }
  }

  close(): void {
    clearInterval(this.#timer);
  }

  tick(): void {
    this.now = (performance.now() - this.#zero) / 1000;
  }

  places = $derived.by<Place[]>(() => {
    const stove = this.cook?.plan.stove;
    if (!stove) return [];
    const places: Place[] = stove.before.map((step) => ({ step, wave: 1, count: stove.at_once }));
    for (let wave = 1; wave <= stove.waves; wave++) {
      const count = wave === stove.waves ? stove.last_wave : stove.at_once;
      for (const step of stove.each_wave) places.push({ step, wave, count });
    }
    for (const step of stove.after) places.push({ step, wave: stove.waves, count: stove.last_wave });
    return places;
  });

  happenings = $derived<Happening[]>(
    [...((this.cook?.events ?? []) as Happening[]), ...this.#reports].sort(
      (a, b) => a.since_start_s - b.since_start_s,
    ),
  );

  /** Where the cook stands: the place, since when, and the seconds added there. */
  standing = $derived.by(() => {
    let place = 0;
    let since = 0;
    let extra = 0;
    for (const h of this.happenings) {
      if (h.kind === "done" || h.kind === "back") {
        place = h.kind === "done" ? h.place + 1 : h.place;
        since = h.since_start_s;
        extra = 0;
      } else if (h.kind === "extra" && h.place === place) extra += h.value ?? EXTRA_S;
    }
    return { place, since, extra };
  });

  current = $derived<Place | null>(this.places[this.standing.place] ?? null);
  over = $derived(this.places.length > 0 && this.standing.place >= this.places.length);
  timerS = $derived(
    this.current && this.current.step.timer_s > 0 ? this.current.step.timer_s + this.standing.extra : 0,
  );
  spentS = $derived(Math.max(0, this.now - this.standing.since));
  leftS = $derived(this.timerS - this.spentS);

  done(): void {
    this.#report("done", this.standing.place, null);
  }
  back(): void {
    if (this.standing.place > 0) this.#report("back", this.standing.place - 1, null);
  }
  more(): void {
    this.#report("extra", this.standing.place, EXTRA_S);
  }
  probe(core_c: number): void {
    this.#report("probe", this.standing.place, core_c);
  }

  #report(kind: Kind, place: number, value: number | null): void {
    this.tick();
    const token = `${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 10)}`;
    this.#reports = [...this.#reports, { token, kind, place, value, since_start_s: this.now, sent: false }];
    this.#keep();
    void this.#send();
  }

  #keep(): void {
    try {
      if (this.#reports.length > 0) localStorage.setItem(this.#key, JSON.stringify(this.#reports));
      else localStorage.removeItem(this.#key);
    } catch {
      // The browser's store is full or forbidden: the reports still wait in this window and are still sent.
    }
  }

  async #send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    try {
      for (let next = this.#reports[0]; next; next = this.#reports[0]) {
        this.tick();
        const { token, kind, place, value } = next;
        const late_s = Math.min(86_400, Math.max(0, this.now - next.since_start_s));
        this.cook = await api.cookEvent(this.id, { token, kind, place, value, late_s });
        this.#reports = this.#reports.filter((r) => r.token !== token);
        this.#keep();
        this.away = false;
      }
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.away) {
        this.away = true;
        setTimeout(() => void this.#send(), RETRY_MS);
      } else {
        // A report the server will never take must not block the ones behind it.
        this.problem = error.problem.detail;
        this.#reports = this.#reports.slice(1);
        this.#keep();
      }
    } finally {
      this.#sending = false;
    }
  }
}
