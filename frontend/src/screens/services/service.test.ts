/** A service in a window: changed at once, kept a moment later, and never over what another window saved. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Service } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import type { ServiceBench as ServiceBenchClass } from "./service.svelte";

const SERVICE: Service = {
  name: "Friday",
  day: "",
  dishes: [],
  remark: "",
  repeat: "" as const,
  until: "",
  counts: [],
  timing: { ready_min: 1110, cooks: 1, opens_min: -1, own: [], pins: [], away: [] },
};
const stored = (service: Service, revision: number) => ({
  id: 3,
  revision,
  updated_at: "2026-11-28T00:00:00Z",
  service,
});
let server: FakeServer;
let ServiceBench: typeof ServiceBenchClass;
let bench: ServiceBenchClass;
const puts = () => server.asked.filter((a) => a.method === "PUT");
const settled = (ms = 500) => vi.advanceTimersByTimeAsync(ms);

beforeEach(async () => {
  vi.useFakeTimers();
  server = new FakeServer();
  ({ ServiceBench } = await import("./service.svelte"));
  server.on("GET", "/services/3", () => ({ status: 200, body: stored(SERVICE, 4) }));
  server.on("PUT", "/services/3", (asked) => {
    const { service, revision } = asked.body as { service: Service; revision: number };
    return { status: 200, body: stored(service, revision + 1) };
  });
  bench = new ServiceBench(3);
  await bench.load();
});
afterEach(() => {
  bench.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a service in a window", () => {
  it("changes at once and is kept a moment later, several changes as one", async () => {
    bench.change({ name: "Saturday" });
    bench.change({ day: "2026-12-05" });
    expect(bench.service?.name).toBe("Saturday");
    expect(bench.save).toBe("unsaved");
    await settled();
    expect(puts()).toHaveLength(1);
    expect(puts()[0]?.body).toMatchObject({ revision: 4, service: { name: "Saturday", day: "2026-12-05" } });
    expect(bench.save).toBe("saved");
    bench.change({ name: "Sunday" });
    await settled();
    expect(puts()[1]?.body).toMatchObject({ revision: 5 });
  });

  it("keeps what was typed while it was saving", async () => {
    let answer: () => void = () => undefined;
    server.on("PUT", "/services/3", async (asked) => {
      const { service, revision } = asked.body as { service: Service; revision: number };
      await new Promise<void>((resolve) => (answer = resolve));
      return { status: 200, body: stored(service, revision + 1) };
    });
    bench.change({ name: "One" });
    await settled();
    bench.change({ name: "Two" });
    answer();
    await settled();
    expect(bench.service?.name).toBe("Two");
    answer();
    await settled();
    expect(puts().map((p) => (p.body as { service: Service }).service.name)).toEqual(["One", "Two"]);
  });

  it("keeps both of two hours typed before the first was answered", async () => {
    server.on("POST", "/services/edit", async (asked) => {
      const { service, edit } = asked.body as { service: Service; edit: { what: string; text: string } };
      await new Promise((resolve) => setTimeout(resolve, edit.what === "opens" ? 200 : 10));
      const part = edit.what === "opens" ? { opens_min: 780 } : { cooks: 2 };
      return { status: 200, body: { ...service, timing: { ...service.timing, ...part } } };
    });
    void bench.edit({ kind: "type-timing", what: "opens", text: "13:00" });
    void bench.edit({ kind: "type-timing", what: "cooks", text: "2" });
    await settled(1500);
    expect(bench.service?.timing).toMatchObject({ opens_min: 780, cooks: 2 });
    expect(puts().at(-1)?.body).toMatchObject({ service: { timing: { opens_min: 780, cooks: 2 } } });
  });

  it("does not let a refused hour hold up the next", async () => {
    server.on("POST", "/services/edit", (asked) => {
      const { service, edit } = asked.body as { service: Service; edit: { what: string; text: string } };
      return edit.text === "noon-ish"
        ? problem(422, "“noon-ish” is no time.")
        : { status: 200, body: { ...service, timing: { ...service.timing, cooks: 2 } } };
    });
    void bench.edit({ kind: "type-timing", what: "opens", text: "noon-ish" });
    await bench.edit({ kind: "type-timing", what: "cooks", text: "2" });
    expect(bench.service?.timing.cooks).toBe(2);
    expect(bench.refusal).toBe("“noon-ish” is no time.");
  });

  it("saves one after the other on a slow line, and never conflicts with itself", async () => {
    let revision = 4;
    server.on("PUT", "/services/3", async (asked) => {
      await new Promise((resolve) => setTimeout(resolve, 3000));
      const sent = asked.body as { service: Service; revision: number };
      if (sent.revision !== revision)
        return problem(409, "saved elsewhere", { current: stored(SERVICE, revision) });
      return { status: 200, body: stored(sent.service, ++revision) };
    });
    for (const name of ["One", "Two", "Three", "Four"]) {
      bench.change({ name });
      await settled(700);
    }
    await settled(20_000);
    expect(bench.theirs).toBeNull();
    expect(bench.save).toBe("saved");
    expect((puts().at(-1)?.body as { service: Service }).service.name).toBe("Four");
  });

  it("takes an edit of the hour from the core, and leaves what was typed beside it", async () => {
    server.on("POST", "/services/edit", () => ({
      status: 200,
      body: { ...SERVICE, timing: { ...SERVICE.timing, ready_min: 1200 } },
    }));
    const going = bench.edit({ kind: "type-timing", what: "ready", text: "8 pm" });
    bench.change({ name: "Late" });
    await going;
    expect(bench.service).toMatchObject({ name: "Late", timing: { ready_min: 1200 } });
  });

  it("says why an edit is refused and changes nothing", async () => {
    server.on("POST", "/services/edit", () => problem(422, "“6” could be morning or evening."));
    await bench.edit({ kind: "type-timing", what: "ready", text: "6" });
    expect(bench.refusal).toContain("morning or evening");
    expect(bench.service).toEqual(SERVICE);
    expect(puts()).toHaveLength(0);
    bench.change({ name: "Else" });
    expect(bench.refusal).toBeNull();
  });

  it("does not overwrite another window, and lets the cook choose", async () => {
    const theirs = stored({ ...SERVICE, name: "Theirs" }, 9);
    server.on("PUT", "/services/3", () => ({
      status: 409,
      body: { status: 409, code: "conflict", title: "", detail: "saved elsewhere", current: theirs },
    }));
    bench.change({ name: "Mine" });
    await settled();
    expect(bench.theirs?.service.name).toBe("Theirs");
    await settled(10_000);
    expect(puts()).toHaveLength(1);
    server.on("PUT", "/services/3", (asked) => {
      const { service, revision } = asked.body as { service: Service; revision: number };
      return { status: 200, body: stored(service, revision + 1) };
    });
    bench.settle("mine");
    await settled();
    expect(puts().at(-1)?.body).toMatchObject({ revision: 9, service: { name: "Mine" } });
    expect(bench.save).toBe("saved");
  });

  it("takes theirs when the cook says so", async () => {
    server.on("PUT", "/services/3", () => ({
      status: 409,
      body: { status: 409, detail: "", current: stored({ ...SERVICE, name: "Theirs" }, 9) },
    }));
    bench.change({ name: "Mine" });
    await settled();
    bench.settle("theirs");
    expect(bench.service?.name).toBe("Theirs");
    expect(bench.save).toBe("saved");
  });

  it("tries again when the server is away, and says so", async () => {
    server.on("PUT", "/services/3", () => "away");
    bench.change({ name: "Kept" });
    await settled();
    expect(bench.save).toBe("unsaved");
    expect(bench.problem).not.toBeNull();
    server.on("PUT", "/services/3", (asked) => {
      const { service, revision } = asked.body as { service: Service; revision: number };
      return { status: 200, body: stored(service, revision + 1) };
    });
    await settled(3500);
    expect(bench.save).toBe("saved");
    expect(bench.problem).toBeNull();
  });

  it("does not keep what was typed into a service that is deleted", async () => {
    server.on("DELETE", "/services/3", () => ({ status: 200, body: { deleted: true } }));
    bench.change({ name: "Last" });
    await bench.remove();
    bench.close();
    await settled(5000);
    expect(puts()).toHaveLength(0);
  });

  it("knows that it is gone", async () => {
    server.on("GET", "/services/4", () => problem(404, "There is no such thing."));
    const gone = new ServiceBench(4);
    await gone.load();
    expect(gone.missing).toBe(true);
    gone.close();
  });
});
