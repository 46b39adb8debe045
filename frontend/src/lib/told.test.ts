/** What was typed is read before what is pressed after it is done, and never passed over. */
import { beforeEach, expect, it } from "vitest";
import { FakeServer, problem } from "./testing/fakeServer";

let server: FakeServer;
let Told: typeof import("./told.svelte").Told;
let answers: (() => void)[];
const slowly = (answer: (text: string) => ReturnType<typeof problem>) =>
  server.on("POST", "/read", async ({ body }) => {
    await new Promise<void>((resolve) => answers.push(resolve));
    return answer((body as { text: string }).text);
  });
beforeEach(async () => {
  server = new FakeServer();
  answers = [];
  ({ Told } = await import("./told.svelte"));
});

it("waits with what is pressed until what was typed is read", async () => {
  slowly((text) => ({ status: 200, body: { value: Number(text) } }));
  const told = new Told();
  let tasters = 6;
  const made: number[] = [];
  void told.read("number", "7", (n) => (tasters = n));
  const pressed = told.run(async () => void made.push(tasters));
  await expect.poll(() => answers.length).toBe(1);
  expect(made).toEqual([]);
  answers[0]?.();
  await pressed;
  expect(made).toEqual([7]);
  // With nothing under way it is done at once.
  await told.run(async () => void made.push(tasters));
  expect(made).toEqual([7, 7]);
});

it("does not do what is pressed when what was typed is refused, and says why", async () => {
  slowly(() => problem(422, "“seven-ish” is no number."));
  const told = new Told();
  const made: number[] = [];
  void told.read("number", "seven-ish", () => undefined);
  const pressed = told.run(async () => void made.push(1));
  await expect.poll(() => answers.length).toBe(1);
  answers[0]?.();
  await pressed;
  expect(made).toEqual([]);
  expect(told.problem).toContain("seven-ish");
  // Pressed again, it is done with what stands in the field.
  await told.run(async () => void made.push(2));
  expect([made, told.problem]).toEqual([[2], null]);
});

it("reads what was typed in its order, so that the last word stands", async () => {
  slowly((text) => ({ status: 200, body: { value: Number(text) } }));
  const told = new Told();
  let tasters = 6;
  void told.read("number", "7", (n) => (tasters = n));
  const last = told.read("number", "9", (n) => (tasters = n));
  await expect.poll(() => answers.length).toBe(1);
  answers[0]?.();
  await expect.poll(() => answers.length).toBe(2);
  answers[1]?.();
  await last;
  expect(tasters).toBe(9);
});
