/**
 * What stands of each task after all that was said of an evening. The core decides by the same rules (timetable/run.py, and
 * the same cases); here they draw what was said a moment ago, or while the line is down.
 */
import type { Said, Timetable, UnderwayRequest } from "../../lib/api/client";

/** Minutes are from the hour on the plate. */
export interface Mark {
  task: string;
  begun_min: number;
  /** When it ended; null while it is under way. */
  ended_min: number | null;
  /** Until when the cook said it still takes; null for as long as planned. */
  until_min: number | null;
}

/** Whole minutes from the hour on the plate of a day. */
export function minuteNow(day: string, ready_min: number, now: Date): number {
  const plate = new Date(`${day}T00:00`);
  plate.setMinutes(ready_min);
  return Math.floor((now.getTime() - plate.getTime()) / 60_000);
}

/** What time it is here, as a kitchen's clock shows it. */
export const clockText = (): string => new Date().toTimeString().slice(0, 5);

/** What time it is: minutes from the hour on the plate, and as a clock shows it. */
export function clockNow(day: string, ready_min: number): { now: number; clock: string } {
  return { now: minuteNow(day, ready_min, new Date()), clock: clockText() };
}

/** The second of the minute: some cores are held for seconds. */
export const secondNow = (): number => new Date().getSeconds();

/** What marks follow from: said here a moment ago, or known to the server. */
export type SaidOfTask = Pick<Said, "token" | "kind" | "minute" | "task" | "of"> & {
  value?: number | null | undefined;
};

export function marksOf(events: readonly SaidOfTask[]): readonly Mark[] {
  const takenBack = events.filter((e) => e.kind === "take-back").map((e) => e.of);
  let marks: readonly Mark[] = [];
  for (const event of events) {
    if (takenBack.includes(event.token)) continue;
    const known = marks.find((m) => m.task === event.task);
    const others = marks.filter((m) => m !== known);
    if (event.kind === "restart") marks = [];
    else if (event.kind === "begin" && !known) {
      marks = [...marks, { task: event.task, begun_min: event.minute, ended_min: null, until_min: null }];
    } else if (event.kind === "longer" && known?.ended_min === null) {
      marks = marks.map((m) => (m === known ? { ...m, until_min: event.value ?? null } : m));
    } else if (event.kind === "end" && known?.ended_min == null) {
      const begun = known?.begun_min ?? event.minute - Math.max(0, event.value ?? 0);
      const ended = event.minute;
      marks = [
        ...others,
        { task: event.task, begun_min: Math.min(begun, ended), ended_min: ended, until_min: null },
      ];
    }
  }
  return marks;
}

/** What the core is asked: the marks as minutes that are left, and where each task stood when it was planned. */
export function asked(
  marks: readonly Mark[],
  now: number,
  planned: Pick<Timetable, "tasks">,
): Pick<UnderwayRequest, "now_min" | "marks" | "stood"> {
  return {
    now_min: now,
    marks: marks
      // A clock that was set back must not make yesterday's mark lie in the future.
      .map((m) => ({
        task: m.task,
        begun_min: Math.min(m.begun_min, now),
        ended_min: m.ended_min == null ? null : Math.min(m.ended_min, now),
        still_min: m.ended_min == null && m.until_min != null ? Math.max(0, m.until_min - now) : null,
      })),
    stood: stoodOf(planned.tasks),
  };
}

/** Where tasks stand, as the core takes them. */
export const stoodOf = (tasks: Timetable["tasks"]): UnderwayRequest["stood"] =>
  tasks.map((t) => ({ task: t.key, start_min: t.start_min, end_min: t.end_min, lanes: t.lanes }));

type Shown = { key: string; status: string };
/** Tasks as the core answered last, with what was said since: begun is at work, ended is done. */
export function shownBy<Task extends Shown>(tasks: readonly Task[], marks: readonly Mark[]): Task[] {
  return tasks.map((task) => {
    const mark = marks.find((m) => m.task === task.key);
    const status = !mark ? "to-do" : mark.ended_min === null ? "running" : "done";
    return status === task.status ? task : { ...task, status };
  });
}

const isMark = (m: unknown): m is Mark =>
  typeof m === "object" &&
  m !== null &&
  typeof (m as Mark).task === "string" &&
  Number.isInteger((m as Mark).begun_min) &&
  ((m as Mark).ended_min === null || Number.isInteger((m as Mark).ended_min)) &&
  ((m as Mark).until_min === null || Number.isInteger((m as Mark).until_min));

/** What a version that kept it in this browser alone had kept of a service; found once, and then forgotten here. */
export function takeOldMarks(service_id: number, day: string): readonly Mark[] {
  const key = `vianda.underway.${service_id}.${day}`;
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? "[]") as unknown;
    localStorage.removeItem(key);
    return Array.isArray(kept) ? kept.filter(isMark) : [];
  } catch {
    return [];
  }
}
