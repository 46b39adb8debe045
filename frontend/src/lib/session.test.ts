/** Who is signed in: what a role may, and what is shown when a sign-in ends. */
import { beforeEach, expect, it } from "vitest";
import { api, ProblemError } from "./api/client";
import { session } from "./session.svelte";
import { FakeServer, problem } from "./testing/fakeServer";

let server: FakeServer;
const person = (role: string) => ({
  id: 1,
  name: "Ines",
  role,
  has_pin: false,
  disabled: false,
  created_at: "2026-12-04T10:00:00Z",
});
const signedIn = (role: string) => ({
  accounts: true,
  person: person(role),
  by: "password",
  shift: false,
  crew: [],
});
beforeEach(() => {
  server = new FakeServer();
  session.state = null;
  session.lost = false;
});

it("lets the one cook of a kitchen without accounts do everything", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: { accounts: false, shift: false, crew: [] } }));
  await session.load();
  expect(session.needed).toBe(false);
  expect(session.may("owner")).toBe(true);
});

it("knows what a role may", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: signedIn("cook") }));
  await session.load();
  expect([session.may("reader"), session.may("cook"), session.may("chef")]).toEqual([true, true, false]);
});

it("asks who is there when a sign-in ended, and is content when somebody is", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: signedIn("chef") }));
  await session.load();
  server.on("GET", "/formulas", () => problem(401, "Sign in"));
  const refused = await api.formulas().catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(ProblemError);
  // What waits to be sent waits on, as for a server that is away.
  expect((refused as ProblemError).away).toBe(true);
  expect(session.lost).toBe(true);
  session.take(signedIn("chef") as never);
  expect(session.lost).toBe(false);
});

it("shows the door where accounts were made meanwhile", async () => {
  let accounts = false;
  server.on("GET", "/session", () => ({ status: 200, body: { accounts, shift: false, crew: [] } }));
  await session.load();
  accounts = true;
  server.on("GET", "/formulas", () => problem(401, "Sign in"));
  await api.formulas().catch(() => undefined);
  await expect.poll(() => session.needed).toBe(true);
  expect(session.lost).toBe(false);
});

it("shows what was fetched before while the line is down", async () => {
  server.on("GET", "/session", () => "away");
  await session.load();
  expect(session.needed).toBe(false);
});
