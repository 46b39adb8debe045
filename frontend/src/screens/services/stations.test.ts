import { expect, it } from "vitest";
import type { Timetable } from "../../lib/api/client";
import { sheetsOf } from "./stations";

const task = (key: string, start_min: number, lanes: string[], day = 0) => ({
  key,
  title: { text: key },
  start_min,
  starts: "",
  ends: "",
  lanes,
  day,
  dish: "Loaf",
});
const timetable = {
  lanes: [
    { key: "cook-0", title: "Cook 1", kind: "cook" },
    { key: "oven-0", title: "Oven", kind: "place" },
    { key: "grate-0", title: "Grate", kind: "place" },
  ],
  tasks: [
    task("bake", -60, ["oven-0"]),
    task("shape", -90, ["cook-0"], -1),
    task("load", -65, ["cook-0", "oven-0"]),
  ],
} as unknown as Timetable;

it("gives each station its tasks by the clock, the bench what takes hands alone, and no empty sheet", () => {
  const sheets = sheetsOf(timetable, "place");
  expect(sheets.map((s) => [s.title, s.tasks.map((t) => t.key)])).toEqual([
    ["At the bench", ["shape"]],
    ["Oven", ["load", "bake"]],
  ]);
  expect(sheets[0]?.tasks[0]?.beside).toBe("Cook 1 · Loaf · the day before");
});

it("gives each cook what is theirs, and where", () => {
  const [sheet] = sheetsOf(timetable, "cook");
  expect(sheet?.tasks.map((t) => [t.key, t.beside])).toEqual([
    ["shape", "Loaf · the day before"],
    ["load", "Oven · Loaf"],
  ]);
});
