/** Where bars lie on the picture of a timetable: nothing is computed of the trade, only pixels. */
import type { TimedTask } from "../../lib/api/client";

export interface Bar {
  task: TimedTask;
  /** Lane, and row in it where bars of one lane overlap. */
  lane: string;
  row: number;
}

/** Every bar in its lane; what overlaps there is put in rows below one another. */
export function barsOf(tasks: readonly TimedTask[], lanes: readonly { key: string }[]): Bar[] {
  return lanes.flatMap(({ key }) => {
    const ends: number[] = [];
    return tasks
      .filter((t) => t.lanes.includes(key))
      .sort((a, b) => a.start_min - b.start_min)
      .map((task) => {
        const free = ends.findIndex((end) => end <= task.start_min);
        const row = free < 0 ? ends.length : free;
        ends[row] = task.end_min;
        return { task, lane: key, row };
      });
  });
}

/** How many rows a lane has. */
export const rowsOf = (bars: readonly Bar[], lane: string): number =>
  Math.max(1, ...bars.filter((b) => b.lane === lane).map((b) => b.row + 1));

/** Minutes between marks so that they neither crowd nor get lost. */
export function markEvery(span: number, width: number): number {
  return [5, 10, 15, 30, 60, 120, 240].find((every) => (width * every) / span >= 52) ?? 480;
}

/** Marks on whole steps of the clock, as minutes from serving. */
export function marksOf(from: number, to: number, ready: number, every: number): number[] {
  const first = Math.ceil((ready + from) / every) * every - ready;
  const found = [];
  for (let at = first; at <= to; at += every) found.push(at);
  return found;
}

/** A minute from serving as the clock shows it. */
export function clock(minute: number, ready: number): string {
  const at = (((ready + minute) % 1440) + 1440) % 1440;
  return `${String(Math.floor(at / 60)).padStart(2, "0")}:${String(at % 60).padStart(2, "0")}`;
}

/** "2 days before", where it is not the day itself. */
export const dayName = (day: number): string =>
  day === 0 ? "" : day === -1 ? "the day before" : `${-day} days before`;
