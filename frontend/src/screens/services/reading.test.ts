/** What a thumb types as a temperature is a figure or nothing. */
import { expect, it } from "vitest";
import { figure } from "./reading";

it.each([
  ["71", 71],
  [" 71.5 ", 71.5],
  ["71,5", 71.5],
  ["-18", -18],
  ["−18", -18],
  ["0", 0],
  ["165", 165],
])("%j is %d", (text, value) => expect(figure(text)).toBe(value));

it.each(["", " ", "7 1", "71 C", "160F", "1e3", "7100", "71.555", "1.234,5", "--4", "٧١", "NaN"])(
  "%j is none",
  (text) => expect(figure(text)).toBeNull(),
);
