/** One cook at the stove: which step, since when, and a queue of reports that survives a lost line. */
import { api, ProblemError, type Cook, type Foretold, type StoveStep } from "../../lib/api/client";
import { foundLocally, keepLocally, newToken, Outbox } from "../../lib/outbox.svelte";

type Kind = "done" | "extra" | "probe" | "surface" | "back";
interface Happening {
  token: string;
  kind: Kind;
  place: number;
  value: number | null;
  since_start_s: number;
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
  now = $state(0);
  /** What is foretold after all that was said; the plan's own times stand until it comes. */
  #foretold = $state.raw<Foretold | null>(null);
  #asking = 0;
  #zero = 0;
  #timer: ReturnType<typeof setInterval> | undefined;

  #outbox = new Outbox<Happening>({
    send: async ({ token, kind, place, value, since_start_s }) => {
      // Its own time goes along: what takes long to arrive must not come after what was said later.
      const { events } = await api.cookEvent(this.id, {
        token,
        kind,
        place,
        value,
        since_start_s,
        late_s: 0,
      });
      if (this.cook) this.cook = { ...this.cook, events };
      this.problem = null;
      // Seconds added are the cook's own: they move nothing that is foretold.
      if (kind !== "extra") void this.#foretell();
    },
    keep: (reports) => keepLocally(this.#key, reports),
    refused: (_, problem) => (this.problem = problem.detail),
    retryMs: RETRY_MS,
  });

  constructor(readonly id: number) {}

  get away(): boolean {
    return this.#outbox.away;
  }

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
      const mine = foundLocally<Happening>(this.#key).filter((r) => !known.includes(r.token));
      this.tick();
      this.#timer ??= setInterval(() => this.tick(), 200);
      this.#outbox.restore(mine);
      void this.#foretell();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
      if (error.away) setTimeout(() => void this.load(), RETRY_MS);
    }
  }

  /** A forecast that does not come leaves the plan's times: it is never waited for. */
  async #foretell(): Promise<void> {
    const asked = ++this.#asking;
    try {
      const found = await api.cookForecast(this.id);
      if (asked === this.#asking) this.#foretold = found;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
    }
  }

  close(): void {
    this.#asking++;
    clearInterval(this.#timer);
    this.#outbox.close();
  }

  tick(): void {
    this.now = (performance.now() - this.#zero) / 1000;
  }

  places = $derived.by<Place[]>(() => {
    const stove = this.cook?.plan.stove;
    if (!stove) return [];
    const places: Place[] = stove.before.map((step) => ({ step, wave: 1, count: stove.first_wave }));
    for (let wave = 1; wave <= stove.waves; wave++) {
      const count = wave === stove.waves ? stove.last_wave : wave === 1 ? stove.first_wave : stove.at_once;
      for (const step of stove.each_wave) places.push({ step, wave, count });
    }
    for (const step of stove.after) places.push({ step, wave: stove.waves, count: stove.last_wave });
    return places;
  });

  happenings = $derived<Happening[]>(
    [...((this.cook?.events ?? []) as Happening[]), ...this.#outbox.items].sort(
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
  /** The wave on the heat, as long as its steps are those the cook stands at. */
  heat = $derived.by(() => {
    const heat = this.#foretold?.forecast.on_the_heat ?? null;
    return heat &&
      heat.ends.some((end) => end.place >= this.standing.place) &&
      this.current?.wave === heat.wave
      ? heat
      : null;
  });
  /** Whether its surface can be read: a plate or a pan. */
  get metal(): boolean {
    return this.#foretold?.forecast.metal ?? false;
  }
  /** What the wave that is laid on next waits for. */
  surface = $derived.by(() => {
    const wait = this.#foretold?.forecast.surface ?? null;
    return wait && wait.place - this.standing.place >= 0 && wait.place - this.standing.place <= 1
      ? wait
      : null;
  });
  /** When this step ends as it is foretold now, seconds from the start; null where it goes as planned. */
  #endS = $derived.by(() => {
    if (!this.heat?.moved) return null;
    return this.heat.ends.find((end) => end.place === this.standing.place)?.timer_end_s ?? null;
  });
  timerS = $derived.by(() => {
    if (!this.current || this.current.step.timer_s <= 0) return 0;
    if (this.#endS !== null) return Math.max(1, this.#endS - this.standing.since + this.standing.extra);
    return this.current.step.timer_s + this.standing.extra;
  });
  /** Until the surface is hot enough, seconds; null where nothing is waited for. */
  hotInS = $derived(this.surface === null ? null : this.surface.hot_at_s - this.now);
  /** When the wave on the heat was laid on, from the start; null before it is. */
  laidS = $derived.by(() => {
    const stove = this.cook?.plan.stove;
    if (!stove || !this.current) return null;
    const lay = stove.before.length + (this.current.wave - 1) * stove.each_wave.length;
    return this.standing.place > lay
      ? (this.happenings.findLast((h) => h.kind === "done" && h.place === lay)?.since_start_s ?? null)
      : null;
  });
  /** Before a wave is on, the surface is what can be read; then the core of a piece. */
  get reads(): "core" | "surface" {
    return this.laidS === null ? "surface" : "core";
  }
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
  /** A thermometer was read, °C. */
  read(of: "core" | "surface", temp_c: number): void {
    this.#report(of === "core" ? "probe" : "surface", this.standing.place, temp_c);
  }

  #report(kind: Kind, place: number, value: number | null): void {
    this.tick();
    this.#outbox.push({ token: newToken(), kind, place, value, since_start_s: this.now });
  }
}
