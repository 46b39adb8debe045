/** An evening opened at the stove: the service, its plan, and its run; without a line, as it was fetched last. */
import { api, ProblemError, type Service, type Timetable, type Underway } from "../../lib/api/client";
import { today } from "../../lib/format";
import { Search } from "../../lib/search.svelte";
import { units } from "../../lib/units.svelte";
import { clockText } from "./marks";
import { keptEvening, UnderwayBench } from "./underway.svelte";

const AGAIN_MS = 2000;
export class Evening {
  run = $state.raw<UnderwayBench | null>(null);
  missing = $state(false);
  /** What was planned from now on when the line was still there. */
  before = $state.raw<Underway | null>(null);
  readonly #plan = new Search<Service, Timetable | null>(async (service, signal, look) => {
    const found = await api.planService(service, units.system, look, signal);
    this.#dishes = found.dishes.find((d) => d.problem)?.problem ?? null;
    return found.timetable ?? null;
  });
  #keptPlan = $state.raw<Pick<Timetable, "tasks"> | null>(null);
  #dishes = $state<string | null>(null);
  #told = $state<string | null>(null);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #closed = false;

  constructor(
    readonly service_id: number,
    readonly kitchen: string,
  ) {}

  async load(): Promise<void> {
    try {
      const { service } = await api.service(this.service_id);
      const run = await api.openRun(this.service_id, `${today()}T${clockText()}`);
      this.#told = null;
      // The run that was opened without a line goes on, unless the service was changed meanwhile.
      const same = this.run?.day === run.day && JSON.stringify(this.run.service) === JSON.stringify(service);
      if (!same) this.#begin(() => new UnderwayBench(this.service_id, service, run, this.kitchen));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.status === 404) this.missing = true;
      else this.#told = error.problem.detail;
      if (!error.away || this.#closed) return;
      const kept = this.run ? null : keptEvening(this.kitchen, this.service_id);
      if (kept) {
        this.before = kept.answer;
        this.#keptPlan = kept.planned;
        this.#begin(() => new UnderwayBench(this.service_id, kept.service, kept.run, this.kitchen));
      }
      this.#timer = setTimeout(() => void this.load(), AGAIN_MS);
    }
  }

  #begin(make: () => UnderwayBench): void {
    if (this.#closed) return;
    this.run?.close();
    this.run = make();
  }

  /** Ask for the plan; the returned function gives up on it. */
  plan(): () => void {
    return this.run ? this.#plan.ask(this.run.service) : () => undefined;
  }
  get timetable(): Timetable | null {
    return this.#plan.value;
  }
  get planned(): Pick<Timetable, "tasks"> | null {
    return this.#plan.value ?? this.#keptPlan;
  }
  /** How many plans were tried so far, where that takes long enough to be told. */
  get tried(): number {
    return (this.#plan.looking ?? this.run?.answer.looking)?.plans ?? 0;
  }
  get name(): string {
    return this.run?.service.name ?? "";
  }
  /** Why something is not as it should be. That the line is down stands elsewhere, once there is an evening. */
  get problem(): string | null {
    const refused = [this.#plan.problem, this.run?.answer.problem].find(
      (p) => p && p.status !== 0 && p.status !== 503,
    );
    return (this.run ? null : this.#told) ?? this.#dishes ?? refused?.detail ?? null;
  }

  close(): void {
    this.#closed = true;
    clearTimeout(this.#timer);
    this.run?.close();
    this.#plan.clear();
  }
}

export function openEvening(service_id: number, kitchen: string): Evening {
  const evening = new Evening(service_id, kitchen);
  void evening.load();
  return evening;
}
