/**
 * A service under way in a window: what was said of its tasks at any device, what time it is, and what the core makes of
 * both. What is said waits here while the line is down; the evening as it was fetched last opens without one.
 */
import {
  api,
  ProblemError,
  type Run,
  type CheckQuestion,
  type CheckSheet,
  type RunEvent,
  type Said,
  type Service,
  type Timetable,
  type Underway,
  type UnderwayRequest,
} from "../../lib/api/client";
import { keepWho, whoMeasures } from "../../lib/measured";
import { foundLocally, keepLocally, newToken, Outbox } from "../../lib/outbox.svelte";
import { Resource } from "../../lib/resource.svelte";
import { Search } from "../../lib/search.svelte";
import { asked, clockNow, marksOf, secondNow, stoodOf, takeOldMarks } from "./marks";

const TICK_MS = 5000;
/** How often the other devices are asked; a window that nobody sees asks less. */
const FOLLOW_MS = 600;
const HIDDEN_MS = 5000;
const AWAY_MS = 2000;

/** An evening that opens without a line. */
interface Kept {
  service: Service;
  run: Run;
  planned: Pick<Timetable, "tasks"> | null;
  answer: Underway | null;
}
/** What an older version of this application left waiting, too, has all there is to say. */
const whole = (said: Partial<Said> & Pick<Said, "token" | "kind" | "minute">): Said => ({
  ...{
    task: "",
    value: null,
    of: "",
    check: "",
    temp: null,
    unit_system: "metric" as const,
    who: "",
    remark: "",
  },
  ...said,
});
const keptKey = (kitchen: string, service_id: number) => `vianda.evening.${kitchen}.${service_id}`;

export function keptEvening(kitchen: string, service_id: number): Kept | null {
  return foundLocally<Kept>(keptKey(kitchen, service_id))[0] ?? null;
}

export class UnderwayBench {
  readonly service_id: number;
  readonly service: Service;
  readonly day: string;
  now = $state(0);
  clock = $state("");
  /** Devices are not heard: the line is down. */
  away = $state(false);
  problem = $state<string | null>(null);
  readonly answer = new Search<UnderwayRequest, Underway>((question, signal, look) =>
    api.underway(question, look, signal),
  );
  /** What is to be measured, by the plan as it stands. */
  readonly checks: Resource<CheckQuestion, CheckSheet>;
  /** What is typed and not written down yet: a row that moves on the screen keeps it. */
  readonly drafts = $state<Record<string, string>>({});
  readonly outbox: Outbox<Said>;
  /** Who measures at this device; remembered in this browser. */
  who = $state(whoMeasures());
  readonly #kitchen: string;
  #run: Run;
  #events = $state.raw<readonly RunEvent[]>([]);
  /** What was said in this window and can be taken back, the last one last. */
  #mine = $state.raw<readonly string[]>([]);
  #kept: Pick<Kept, "planned" | "answer"> = { planned: null, answer: null };
  #ticking: ReturnType<typeof setInterval> | undefined;
  #following: ReturnType<typeof setTimeout> | undefined;
  #closed = false;

  constructor(service_id: number, service: Service, run: Run, kitchen: string) {
    this.service_id = service_id;
    this.service = service;
    this.day = run.day;
    this.#run = run;
    this.#events = run.events;
    this.#kitchen = kitchen;
    this.#tick();
    this.#ticking = setInterval(() => this.#tick(), TICK_MS);
    const waiting = `vianda.said.${kitchen}.${service_id}.${run.day}`;
    this.checks = new Resource<CheckQuestion, CheckSheet>((question, signal) =>
      api.checkSheet(service_id, question, signal),
    );
    this.outbox = new Outbox<Said>({
      send: async (event) => this.#take(await api.noteRunEvent(service_id, run.day, event)),
      keep: (items) => keepLocally(waiting, items),
      refused: (event, problem) => {
        this.#mine = this.#mine.filter((token) => token !== event.token);
        this.problem = problem.detail;
      },
    });
    this.outbox.restore(foundLocally<Said>(waiting).map(whole));
    this.#takeUpOldMarks();
    this.#soon(FOLLOW_MS);
  }

  get marks() {
    const known = this.#events.map((e) => e.token);
    return marksOf([...this.#events, ...this.outbox.items.filter((e) => !known.includes(e.token))]);
  }

  #tick(): void {
    ({ now: this.now, clock: this.clock } = clockNow(this.day, this.service.timing.ready_min));
  }

  #take(run: Run): void {
    this.away = false;
    if (!run.changed || run.number < this.#run.number) return;
    this.#run = run;
    this.#events = run.events;
    this.#keep();
  }

  #soon(wait: number): void {
    clearTimeout(this.#following);
    if (!this.#closed) this.#following = setTimeout(() => void this.#follow(), wait);
  }

  async #follow(): Promise<void> {
    let wait = document.visibilityState === "hidden" ? HIDDEN_MS : FOLLOW_MS;
    try {
      this.#take(await api.followRun(this.service_id, this.day, this.#run.number));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.away = error.away;
      if (!error.away) this.problem = error.problem.detail;
      wait = AWAY_MS;
    }
    this.#soon(wait);
  }

  /** What an older version kept in this browser alone is said now, once. */
  #takeUpOldMarks(): void {
    const old = takeOldMarks(this.service_id, this.service.day);
    if (this.#events.length + this.outbox.items.length > 0) return;
    for (const { task, begun_min, ended_min, until_min } of old) {
      this.#push({ kind: "begin", task, minute: begun_min });
      if (ended_min !== null) this.#push({ kind: "end", task, minute: ended_min });
      else if (until_min !== null) this.#push({ kind: "longer", task, minute: begun_min, value: until_min });
    }
  }

  /** Remembered for a window that opens without a line. */
  remember(planned: Pick<Timetable, "tasks">, answer: Underway): void {
    this.#kept = { planned, answer };
    this.#keep();
  }
  #keep(): void {
    keepLocally<Kept>(keptKey(this.#kitchen, this.service_id), [
      { service: this.service, run: this.#run, ...this.#kept },
    ]);
  }

  question(planned: Pick<Timetable, "tasks">, unit_system: UnderwayRequest["unit_system"]): UnderwayRequest {
    return { service: this.service, unit_system, ...asked(this.marks, this.now, planned) };
  }

  /** What is asked of checks: again when the minute is over, the plan has moved, or something was said. */
  checkQuestion(tasks: Underway["tasks"], unit_system: UnderwayRequest["unit_system"]): CheckQuestion {
    void this.#events;
    return { day: this.day, stood: stoodOf(tasks), now_min: this.now, unit_system };
  }
  /** Readings of a check that wait for the line, as they were typed. */
  waitingFor(check: string): readonly Said[] {
    return this.outbox.items.filter((e) => e.check === check);
  }

  #push(said: Partial<Said> & Pick<Said, "kind">): string {
    const event = whole({ minute: this.now, ...said, token: newToken() });
    this.outbox.push(event);
    return event.token;
  }
  #say(said: Partial<Said> & Pick<Said, "kind">): void {
    this.#mine = [...this.#mine, this.#push(said)];
  }

  begin(task: string): void {
    this.#tick();
    if (!this.marks.some((m) => m.task === task)) this.#say({ kind: "begin", task });
  }
  end(task: string, takes_min: number): void {
    this.#tick();
    if (this.marks.find((m) => m.task === task)?.ended_min == null)
      this.#say({ kind: "end", task, value: takes_min });
  }
  /** A running task takes so many minutes more than is planned now. */
  longer(task: string, ends_min: number, by_min: number): void {
    this.#tick();
    this.#say({ kind: "longer", task, value: ends_min + by_min });
  }
  /** A temperature was read, in the units on the screen. */
  measure(check: string, temp: number, unit_system: Said["unit_system"], remark = ""): void {
    this.#tick();
    this.#say({ kind: "measured", check, temp, unit_system, remark, who: this.who, value: secondNow() });
  }
  /** What was done about a check that was missed. */
  act(check: string, remark: string): void {
    this.#tick();
    this.#say({ kind: "acted", check, remark, who: this.who, value: secondNow() });
  }
  /** A check that nobody planned: it has a name of its own. */
  newCheck(kind: string): string {
    return `${kind}/own-${newToken()}`;
  }
  measuredBy(name: string): void {
    this.who = keepWho(name);
  }
  get canTakeBack(): boolean {
    return this.#mine.length > 0;
  }
  /** The last thing said in this window is taken back. */
  takeBack(): void {
    const of = this.#mine.at(-1);
    if (!of) return;
    this.#tick();
    this.takeBackOf(of);
  }
  /** What was said under a token does not count: it was typed wrong. */
  takeBackOf(of: string): void {
    this.#tick();
    this.#mine = this.#mine.filter((token) => token !== of);
    this.#push({ kind: "take-back", of });
  }
  /** Begin again with nothing said. */
  forget(): void {
    this.#tick();
    this.#say({ kind: "restart" });
  }

  close(): void {
    this.#closed = true;
    clearInterval(this.#ticking);
    clearTimeout(this.#following);
    this.outbox.close();
    this.answer.clear();
    this.checks.clear();
  }
}
