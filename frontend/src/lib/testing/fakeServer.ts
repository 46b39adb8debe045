/** For tests: a server that answers from a script, and a browser's two stores. */
import { vi } from "vitest";

export interface Asked {
  method: string;
  path: string;
  body: unknown;
  /** What makes a write that is sent again count once; "" for none. */
  token: string;
}
type Answer = { status: number; body: unknown } | { lines: readonly unknown[] } | "away";
export type Route = (asked: Asked) => Answer | Promise<Answer>;

class MemoryStore {
  #kept = new Map<string, string>();
  get length(): number {
    return this.#kept.size;
  }
  getItem(key: string): string | null {
    return this.#kept.get(key) ?? null;
  }
  setItem(key: string, value: string): void {
    this.#kept.set(key, value);
    Object.defineProperty(this, key, { value, configurable: true, enumerable: true });
  }
  removeItem(key: string): void {
    this.#kept.delete(key);
    delete (this as Record<string, unknown>)[key];
  }
}

export class FakeServer {
  asked: Asked[] = [];
  local = new MemoryStore();
  session = new MemoryStore();
  #routes = new Map<string, Route>();

  constructor() {
    vi.stubGlobal("localStorage", this.local);
    vi.stubGlobal("sessionStorage", this.session);
    vi.stubGlobal(
      "fetch",
      async (
        url: string,
        options: { method: string; body?: string | Blob; headers?: Record<string, string> },
      ) => {
        const asked = {
          method: options.method,
          path: url.replace("/api", ""),
          // A file is as it is.
          body: typeof options.body === "string" ? (JSON.parse(options.body) as unknown) : options.body,
          token: options.headers?.["Idempotency-Key"] ?? "",
        };
        this.asked.push(asked);
        const route = this.#routes.get(`${asked.method} ${asked.path}`);
        const answer = route ? await route(asked) : { status: 404, body: { status: 404, detail: "none" } };
        if (answer === "away") throw new TypeError("connection refused");
        if ("lines" in answer)
          return new Response(answer.lines.map((line) => JSON.stringify(line) + "\n").join(""));
        return new Response(answer.status === 204 ? null : JSON.stringify(answer.body), {
          status: answer.status,
        });
      },
    );
  }

  on(method: string, path: string, route: Route): void {
    this.#routes.set(`${method} ${path}`, route);
  }
  /** What answers now. */
  route(method: string, path: string): Route {
    return this.#routes.get(`${method} ${path}`) ?? (() => "away");
  }
  /** An answer that comes line by line. */
  lines(path: string, sent: readonly unknown[]): void {
    this.#routes.set(`POST ${path}`, () => ({ lines: sent }));
  }
  count(method: string, path: string): number {
    return this.asked.filter((a) => a.method === method && a.path === path).length;
  }
}

/** A new browser window over the same kept drafts: its own session, the same local store. */
export function newWindow(server: FakeServer): void {
  server.session = new MemoryStore();
  vi.stubGlobal("sessionStorage", server.session);
}

export function problem(status: number, detail: string, more: object = {}): Answer {
  return {
    status,
    body: { type: `urn:vianda:problem:${status}`, title: "no", status, detail, fields: [], ...more },
  };
}
