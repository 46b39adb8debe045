import { afterEach, describe, expect, it, vi } from "vitest";
import type { Formula } from "../../lib/api/client";
import { HeatBench } from "./heat.svelte";

const formula = { name: "Slipway smash", heat: {} } as unknown as Formula;
const curve = (uncertainty: unknown) => JSON.stringify({ kind: "curve", uncertainty, pull_s: { usual: 90 } });

/** A server that answers line by line, each when it is told to. */
function serve(parts: string[], status = 200): void {
  vi.stubGlobal(
    "fetch",
    vi.fn(async (url: string, init: RequestInit) => {
      if (url.endsWith("/ways"))
        return new Response(JSON.stringify({ stages: [], methods: [], signs: [], fats: [] }));
      if (init.signal?.aborted) throw new DOMException("aborted", "AbortError");
      const bytes = parts.map((p) => new TextEncoder().encode(p));
      const body = new ReadableStream({
        async start(out) {
          for (const part of bytes) {
            out.enqueue(part);
            await new Promise((done) => setTimeout(done, 5));
          }
          out.close();
        },
      });
      return new Response(status === 200 ? body : parts.join(""), { status });
    }),
  );
}
/** Wait for what is to come, however slow the machine is. */
const until = (what: () => boolean) => vi.waitFor(() => expect(what()).toBe(true), { timeout: 8000 });

afterEach(() => vi.unstubAllGlobals());

describe("the heat as it comes in", () => {
  it("shows the first curve, then the progress, then the uncertainty, however the lines are cut", async () => {
    const text = `${curve(null)}\n{"kind":"progress","done_frac":0.5}\n${curve([])}\n`;
    serve([text.slice(0, 30), text.slice(30, 90), text.slice(90)]);
    const heat = new HeatBench();
    heat.ask(formula);
    await until(() => heat.curve?.uncertainty != null);
    expect(heat.curve?.uncertainty).toEqual([]);
    expect(heat.done).toBe(1);
    expect(heat.busy).toBe(false);
    expect(heat.problem).toBeNull();
  });

  it("says why it was refused and keeps the curve there was", async () => {
    serve([`${curve([])}\n`]);
    const heat = new HeatBench();
    heat.ask(formula);
    await until(() => heat.curve != null);
    serve([JSON.stringify({ status: 422, detail: "One stage goes on until the core is as wanted." })], 422);
    heat.ask(formula);
    await until(() => heat.problem != null);
    expect(heat.problem).toContain("until the core");
    expect(heat.curve).not.toBeNull();
  });

  it("gives up on a question that a newer one has overtaken", async () => {
    serve([`${curve([])}\n`]);
    const heat = new HeatBench();
    const giveUp = heat.ask(formula);
    giveUp();
    // Another is asked and answered; the first never was.
    const other = new HeatBench();
    other.ask(formula);
    await until(() => other.curve != null);
    expect(heat.curve).toBeNull();
    expect(heat.problem).toBeNull();
  });

  it("keeps readings in the order of their moments and forgets them", () => {
    const heat = new HeatBench();
    expect(heat.observed).toBeNull();
    heat.addProbe(300, 55);
    heat.addProbe(120, 30);
    expect(heat.observed?.probes?.map((p) => p.at_s)).toEqual([120, 300]);
    heat.forget();
    expect(heat.observed).toBeNull();
  });
});
