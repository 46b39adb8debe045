/** What was said of the tasks of a service under way: kept in this browser, by service and day. */
import type { Timetable, UnderwayRequest } from "../../lib/api/client";

/** Minutes are from the hour on the plate. */
export interface Mark {
  task: string;
  begun_min: number;
  /** When it ended; null while it is under way. */
  ended_min: number | null;
  /** Until when the cook said it still takes; null for as long as planned. */
  until_min: number | null;
}

const keyOf = (service_id: number, day: string) => `vianda.underway.${service_id}.${day}`;

/** Whole minutes from the hour on the plate, on the service's day; without a day, on today's. */
export function minuteNow(day: string, ready_min: number, now: Date): number {
  const plate = day ? new Date(`${day}T00:00`) : new Date(now.getFullYear(), now.getMonth(), now.getDate());
  plate.setMinutes(ready_min);
  return Math.floor((now.getTime() - plate.getTime()) / 60_000);
}

/** What time it is: minutes from the hour on the plate, and as a clock shows it. */
export function clockNow(day: string, ready_min: number): { now: number; clock: string } {
  const now = new Date();
  return { now: minuteNow(day, ready_min, now), clock: now.toTimeString().slice(0, 5) };
}

/** The marks after a task was begun; what is under way or done already stays as it is. */
export function begin(marks: readonly Mark[], task: string, now: number): readonly Mark[] {
  if (marks.some((m) => m.task === task)) return marks;
  return [...marks, { task, begun_min: now, ended_min: null, until_min: null }];
}

/** The marks after a task ended. One that nobody had begun is said to have begun as long before as it takes. */
export function end(marks: readonly Mark[], task: string, now: number, takes_min: number): readonly Mark[] {
  const known = marks.find((m) => m.task === task);
  if (known?.ended_min != null) return marks;
  const begun_min = known?.begun_min ?? now - Math.max(0, takes_min);
  return [
    ...marks.filter((m) => m.task !== task),
    { task, begun_min: Math.min(begun_min, now), ended_min: now, until_min: null },
  ];
}

/** The marks after a cook said that a running task takes longer than its end as it is planned now. */
export function longer(marks: readonly Mark[], task: string, until_min: number): readonly Mark[] {
  return marks.map((m) => (m.task === task && m.ended_min == null ? { ...m, until_min } : m));
}

/** What the core is asked: the marks as minutes that are left, and where each task stood when it was planned. */
export function asked(
  marks: readonly Mark[],
  now: number,
  planned: Timetable,
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
    stood: planned.tasks.map((t) => ({
      task: t.key,
      start_min: t.start_min,
      end_min: t.end_min,
      lanes: t.lanes,
    })),
  };
}

export function keepMarks(service_id: number, day: string, marks: readonly Mark[]): void {
  try {
    if (marks.length > 0) localStorage.setItem(keyOf(service_id, day), JSON.stringify(marks));
    else localStorage.removeItem(keyOf(service_id, day));
  } catch {
    // The browser's store is full or forbidden: what was said still stands in this window.
  }
}

const isMark = (m: unknown): m is Mark =>
  typeof m === "object" &&
  m !== null &&
  typeof (m as Mark).task === "string" &&
  Number.isInteger((m as Mark).begun_min) &&
  ((m as Mark).ended_min === null || Number.isInteger((m as Mark).ended_min)) &&
  ((m as Mark).until_min === null || Number.isInteger((m as Mark).until_min));

export function findMarks(service_id: number, day: string): readonly Mark[] {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(service_id, day)) ?? "[]") as unknown;
    return Array.isArray(kept) ? kept.filter(isMark) : [];
  } catch {
    return [];
  }
}
