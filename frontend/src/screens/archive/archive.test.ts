/** An archive that was chosen: looked at with each choice, and brought in as it was looked at. */
import { beforeEach, expect, it } from "vitest";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { ChosenArchive, LARGEST } from "./archive.svelte";

let server: FakeServer;
beforeEach(() => (server = new FakeServer()));
const report = (into: string, digest: string, done = false) => ({
  kitchen: "Yard Galley",
  made_at: "2026-12-04T10:00:00Z",
  into,
  differing: "keep",
  parts: [],
  digest,
  done,
  kitchen_id: 2,
});
const file = (size = 10) =>
  new File([new Uint8Array(size)], "yard.vianda.zip", { type: "application/x-zip-compressed" });

it("is looked at again with each choice, and brought in with what was seen", async () => {
  server.on("POST", "/archive/look/new/keep", () => ({ status: 200, body: report("new", "aaa") }));
  server.on("POST", "/archive/look/here/keep", () => ({ status: 200, body: report("here", "bbb") }));
  server.on("POST", "/archive/bring/here/keep/bbb", () => ({
    status: 200,
    body: report("here", "bbb", true),
  }));
  const chosen = new ChosenArchive();
  chosen.choose(file());
  await expect.poll(() => chosen.looked.value?.digest).toBe("aaa");
  chosen.into = "here";
  chosen.look();
  await expect.poll(() => chosen.looked.value?.digest).toBe("bbb");
  await chosen.bring();
  expect(chosen.done?.done).toBe(true);
  expect(server.asked.at(-1)?.token).toBeTruthy();
});

it("says when the kitchen changed since, and looks again", async () => {
  let digest = "aaa";
  server.on("POST", "/archive/look/new/keep", () => ({ status: 200, body: report("new", digest) }));
  server.on("POST", "/archive/bring/new/keep/aaa", () => problem(409, "changed"));
  const chosen = new ChosenArchive();
  chosen.choose(file());
  await expect.poll(() => chosen.looked.value?.digest).toBe("aaa");
  digest = "ccc";
  await chosen.bring();
  expect(chosen.done).toBeNull();
  await expect.poll(() => chosen.looked.value?.digest).toBe("ccc");
});

it("refuses a file that is too large before it is sent, and says how it goes in", () => {
  const chosen = new ChosenArchive();
  const large = file();
  Object.defineProperty(large, "size", { value: LARGEST + 1 });
  chosen.choose(large);
  expect(chosen.refused).toContain("vianda import");
  expect(server.asked).toEqual([]);
});
