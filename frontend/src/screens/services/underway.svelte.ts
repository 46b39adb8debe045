/** A service under way in a window: what was said of its tasks, what time it is, and what the core makes of both. */
import { api, type Service, type Timetable, type Underway, type UnderwayRequest } from "../../lib/api/client";
import { Resource } from "../../lib/resource.svelte";
import { asked, begin, clockNow, end, findMarks, keepMarks, longer, type Mark } from "./marks";

const TICK_MS = 5000;

export class UnderwayBench {
  readonly service_id: number;
  readonly service: Service;
  marks = $state.raw<readonly Mark[]>([]);
  now = $state(0);
  clock = $state("");
  readonly answer = new Resource<UnderwayRequest, Underway>((question, signal) =>
    api.underway(question, signal),
  );
  #before = $state.raw<readonly (readonly Mark[])[]>([]);
  #ticking: ReturnType<typeof setInterval> | undefined;

  constructor(service_id: number, service: Service) {
    this.service_id = service_id;
    this.service = service;
    this.marks = findMarks(service_id, service.day);
    this.#tick();
    this.#ticking = setInterval(() => this.#tick(), TICK_MS);
  }

  #tick(): void {
    ({ now: this.now, clock: this.clock } = clockNow(this.service.day, this.service.timing.ready_min));
  }

  question(planned: Timetable, unit_system: UnderwayRequest["unit_system"]): UnderwayRequest {
    return { service: this.service, unit_system, ...asked(this.marks, this.now, planned) };
  }

  #say(marks: readonly Mark[]): void {
    if (marks === this.marks) return;
    this.#before = [...this.#before, this.marks];
    this.#set(marks);
  }
  #set(marks: readonly Mark[]): void {
    this.marks = marks;
    keepMarks(this.service_id, this.service.day, marks);
  }

  begin(task: string): void {
    this.#tick();
    this.#say(begin(this.marks, task, this.now));
  }
  end(task: string, takes_min: number): void {
    this.#tick();
    this.#say(end(this.marks, task, this.now, takes_min));
  }
  /** A running task takes so many minutes more than is planned now. */
  longer(task: string, ends_min: number, by_min: number): void {
    this.#say(longer(this.marks, task, ends_min + by_min));
  }
  get canTakeBack(): boolean {
    return this.#before.length > 0;
  }
  /** The last thing said is taken back. */
  takeBack(): void {
    const last = this.#before.at(-1);
    if (!last) return;
    this.#before = this.#before.slice(0, -1);
    this.#set(last);
  }
  /** Begin again with nothing said. */
  forget(): void {
    this.#say([]);
  }

  close(): void {
    clearInterval(this.#ticking);
    this.answer.clear();
  }
}
