import { describe, expect, it } from "vitest";
import type { ReadPiece } from "./api/client";
import { segmentsOf } from "./marked";

const piece = (status: ReadPiece["status"], ...spans: [number, number][]): ReadPiece => ({
  spans: spans.map(([start, end]) => ({ start, end })),
  text: "",
  status,
  kind: "",
  label: { text: "", amounts: {} },
  alternatives: [],
});

describe("segmentsOf", () => {
  it("keeps every character between and behind the pieces", () => {
    const line = "8 burgers, please, for four";
    const found = segmentsOf(line, [
      piece("understood", [0, 9]),
      piece("noise", [11, 17]),
      piece("understood", [19, 27]),
    ]);
    expect(found.map((s) => [s.text, s.piece])).toEqual([
      ["8 burgers", 0],
      [", please,", null],
      ["for four", 2],
    ]);
  });
  it("writes the meaning of a piece with a hole in it once", () => {
    const found = segmentsOf("700 zorp g", [piece("understood", [0, 3], [9, 10]), piece("unread", [4, 8])]);
    expect(found.map((s) => [s.text, s.piece, s.first])).toEqual([
      ["700", 0, true],
      ["zorp", 1, true],
      ["g", 0, false],
    ]);
  });
  it("counts characters as the core does, not UTF-16 units", () => {
    expect(segmentsOf("🍔 chuck", [piece("understood", [2, 7])])[1]?.text).toBe("chuck");
  });
});
