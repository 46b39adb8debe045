/** Who is signed in: what a role may, and what is shown when a sign-in ends. */
import { beforeEach, expect, it, vi } from "vitest";
import { api, here, ProblemError } from "./api/client";
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
  session.another = null;
  here.person = 0;
  session.renew = vi.fn();
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
  session.take({ ...signedIn("owner"), by: "pin" } as never);
  expect([session.may("chef"), session.may("owner")]).toEqual([true, false]);
  session.take(signedIn("owner") as never);
  expect(session.may("owner")).toBe(true);
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

const liv = { ...signedIn("cook"), person: { ...person("cook"), id: 2, name: "Liv" } };
const another = () => ({
  status: 401,
  body: { type: "urn:vianda:problem:another-person", title: "", status: 401, detail: "Liv is signed in" },
});

it("says who this window is of, and makes it anew for somebody else", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: signedIn("chef") }));
  await session.load();
  expect(here.person).toBe(1);
  session.take(signedIn("chef") as never);
  expect(session.renew).not.toHaveBeenCalled();
  session.take(liv as never);
  expect(session.renew).toHaveBeenCalledOnce();
  // Until then nothing of this window is Liv's.
  expect([here.person, session.person?.name]).toEqual([1, "Ines"]);
});

it("asks which of two goes on when somebody else came in at this browser", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: signedIn("chef") }));
  await session.load();
  server.on("GET", "/session", () => ({ status: 200, body: liv }));
  server.on("GET", "/formulas", another);
  const refused = await api.formulas().catch((error: unknown) => error);
  expect((refused as ProblemError).away).toBe(true);
  await expect.poll(() => session.lost).toBe(true);
  expect([session.another, session.person?.name, here.person]).toEqual(["Liv", "Ines", 1]);
  // Ines signs in again, here or there: it goes on.
  session.take(signedIn("chef") as never);
  expect([session.another, session.lost]).toEqual([null, false]);
});

it("is not put out by an answer from before somebody came back", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: signedIn("chef") }));
  await session.load();
  server.on("GET", "/formulas", another);
  await api.formulas().catch(() => undefined);
  await expect.poll(() => server.asked.filter((a) => a.path === "/session").length).toBe(2);
  expect(session.lost).toBe(false);
});

it("keeps a window whose sign-in ended, whoever is asked for meanwhile", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: signedIn("chef") }));
  await session.load();
  session.lost = true;
  server.on("GET", "/session", () => ({ status: 200, body: { accounts: true, shift: true, crew: [] } }));
  await session.load();
  expect([session.person?.name, session.needed, here.person]).toEqual(["Ines", false, 1]);
});

it("knows without the line who was here last, until they sign out", async () => {
  server.on("GET", "/session", () => ({ status: 200, body: signedIn("cook") }));
  await session.load();
  session.state = null;
  here.person = 0;
  server.on("GET", "/session", () => "away");
  await session.load();
  expect([here.person, session.may("chef")]).toEqual([1, false]);
  session.leave();
  expect(session.renew).toHaveBeenCalledOnce();
  session.state = null;
  here.person = 0;
  await session.load();
  expect([here.person, session.person]).toEqual([0, null]);
});
