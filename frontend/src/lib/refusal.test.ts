import { describe, expect, it } from "vitest";
import { ProblemError, type Problem } from "./api/client";
import { refusalOf } from "./refusal";

const refused = {
  type: "x",
  title: "Out of range",
  status: 422,
  detail: "A plate is 1 to 40 mm thick.",
} as Problem;

describe("what is refused", () => {
  it("is told in its own words, and nothing is told when all went through", async () => {
    expect(await refusalOf(() => Promise.reject(new ProblemError(refused)))).toBe(refused.detail);
    expect(await refusalOf(async () => 3)).toBeNull();
  });

  it("is not what breaks: a fault is passed on", async () => {
    await expect(refusalOf(() => Promise.reject(new TypeError("no such thing")))).rejects.toThrow(
      "no such thing",
    );
  });
});
