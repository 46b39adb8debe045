/** A write whose answer is lost keeps its token until it is answered; another write has another. */
import { beforeEach, expect, it } from "vitest";
import { api, ProblemError } from "./client";
import { FakeServer, problem } from "../testing/fakeServer";

let server: FakeServer;
beforeEach(() => (server = new FakeServer()));
const tokens = () => server.asked.map((a) => a.token);

it("a write sent again has the token it had, and after its answer a new one", async () => {
  let answer: Parameters<FakeServer["on"]>[2] = () => "away";
  server.on("POST", "/cooks", (asked) => answer(asked));
  await expect(api.beginCook(7)).rejects.toThrow(ProblemError);
  answer = () => problem(503, "the store is away");
  await expect(api.beginCook(7)).rejects.toThrow("the store is away");
  answer = () => ({ status: 201, body: { id: 1 } });
  await api.beginCook(7);
  await api.beginCook(7);
  const [first, second, third, fourth] = tokens();
  expect(first).toMatch(/^[0-9a-f-]{35}$/);
  expect([second, third]).toEqual([first, first]);
  expect(fourth).not.toBe(first);
});

it("a refusal is an answer too, and another body is another write", async () => {
  server.on("POST", "/cooks", () => problem(422, "no such formula"));
  await expect(api.beginCook(7)).rejects.toThrow("no such formula");
  await expect(api.beginCook(7)).rejects.toThrow("no such formula");
  server.on("POST", "/cooks", () => "away");
  await expect(api.beginCook(8)).rejects.toThrow(ProblemError);
  await expect(api.beginCook(9)).rejects.toThrow(ProblemError);
  expect(new Set(tokens()).size).toBe(4);
});

it("what only asks has none", async () => {
  server.on("GET", "/cooks", () => ({ status: 200, body: [] }));
  await api.cooks();
  expect(tokens()).toEqual([""]);
});
