/** What stands on the sheet of a station or a cook: its tasks in the order of the clock. */
import type { Timetable } from "../../lib/api/client";

export type Of = "place" | "cook";
type Task = Timetable["tasks"][number];
export interface StationSheet {
  key: string;
  title: string;
  tasks: { key: string; title: Task["title"]; starts: string; ends: string; beside: string }[];
}

const BENCH = { key: "bench", title: "At the bench" };

export function sheetsOf(timetable: Timetable, of: Of): StationSheet[] {
  const titles = new Map(timetable.lanes.map((lane) => [lane.key, lane]));
  const cooks = timetable.lanes.filter((lane) => lane.kind === "cook");
  const places = timetable.lanes.filter((lane) => lane.kind !== "cook");
  // What takes hands and no place is done at the bench.
  const wanted = of === "cook" ? cooks : [BENCH, ...places];
  const atBench = (task: Task) => task.lanes.every((key) => titles.get(key)?.kind === "cook");
  return wanted
    .map((lane) => ({
      key: lane.key,
      title: lane.title,
      tasks: timetable.tasks
        .filter((task) => (lane === BENCH ? atBench(task) : task.lanes.includes(lane.key)))
        .sort((a, b) => a.start_min - b.start_min)
        .map((task) => ({
          key: task.key,
          title: task.title,
          starts: task.starts,
          ends: task.ends,
          beside: [
            ...task.lanes.filter((key) => key !== lane.key).map((key) => titles.get(key)?.title ?? ""),
            task.dish,
            task.day < 0 ? "the day before" : "",
          ]
            .filter((part) => part !== "")
            .join(" · "),
        })),
    }))
    .filter((sheet) => sheet.tasks.length > 0);
}
