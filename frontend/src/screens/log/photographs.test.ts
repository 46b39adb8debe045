import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Photographs } from "./photographs.svelte";

const kept = (n: number) =>
  Array.from({ length: n }, (_, id) => ({
    id,
    caption: "",
    width: 4,
    height: 3,
    at: "2026-07-04T18:00:00Z",
  }));
const picture = (name: string, type = "image/jpeg", bytes = 3) =>
  new File([new Uint8Array(bytes)], name, { type });
const answer = (content: unknown, status = 201) =>
  new Response(JSON.stringify(content), { status, headers: { "Content-Type": "application/json" } });

describe("photographs of a cook", () => {
  const fetched = vi.fn<typeof fetch>();
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("fetch", fetched);
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
    fetched.mockReset();
  });

  it("sends them one after the other, each as it is", async () => {
    const album = new Photographs(7);
    fetched.mockImplementation(async () => answer(kept(fetched.mock.calls.length)));
    album.add([picture("a.jpg"), picture("b.png", "image/png")]);
    await vi.waitFor(() => expect(album.waiting).toHaveLength(0));
    expect(album.kept).toHaveLength(2);
    const sent = fetched.mock.calls.map(([address, asked]) => [
      address,
      new Headers(asked?.headers).get("Content-Type"),
      asked?.body instanceof Blob,
    ]);
    expect(sent).toEqual([
      ["/api/cooks/7/photographs", "image/jpeg", true],
      ["/api/cooks/7/photographs", "image/png", true],
    ]);
    album.close();
  });

  it("keeps one in the window while the line is down and sends it again under its token", async () => {
    const album = new Photographs(7);
    fetched.mockRejectedValueOnce(new TypeError("down"));
    fetched.mockImplementation(async () => answer(kept(1)));
    album.add([picture("a.jpg")]);
    await vi.waitFor(() => expect(album.away).toBe(true));
    expect(album.waiting.map((one) => one.name)).toEqual(["a.jpg"]);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(album.waiting).toHaveLength(0);
    const tokens = fetched.mock.calls.map(([, asked]) => new Headers(asked?.headers).get("Idempotency-Key"));
    expect(new Set(tokens).size).toBe(1);
    expect(tokens[0]).toMatch(/^[A-Za-z0-9-]{8,80}$/);
    album.close();
  });

  it("says what it does not send, and what was refused, and goes on with the rest", async () => {
    const album = new Photographs(7);
    fetched.mockResolvedValueOnce(answer({ status: 422, detail: "broken off", title: "", type: "" }, 422));
    fetched.mockImplementation(async () => answer(kept(1)));
    album.add([
      picture("a.heic", "image/heic"),
      picture("b.jpg"),
      picture("c.jpg"),
      picture("d.jpg", "image/jpeg", 16_000_001),
    ]);
    await vi.waitFor(() => expect(album.waiting).toHaveLength(0));
    expect(fetched).toHaveBeenCalledTimes(2);
    expect(album.kept).toHaveLength(1);
    expect(album.refused.map((line) => line.slice(0, 8))).toEqual(["a.heic: ", "d.jpg: i", "b.jpg: b"]);
    album.close();
  });
});
