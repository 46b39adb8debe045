/** The only caller of fetch: a question by the contract's address, its answer or its refusal. */
import type { paths } from "./generated/contract";
import type { Looking, Problem } from "./schemas";

export type Method = "get" | "post" | "put" | "delete";
/** Addresses of the contract that take a method. */
export type PathOf<M extends Method> = {
  [P in keyof paths]: paths[P] extends Record<M, { responses: unknown }> ? P : never;
}[keyof paths];
type Json<T> = T extends { content: { "application/json": infer A } } ? A : undefined;
type Responses<R> = R extends { 200: infer A } ? Json<A> : R extends { 201: infer A } ? Json<A> : undefined;
/** What an operation answers and takes, as the contract says. */
export type Answer<P extends keyof paths, M extends Method> = paths[P][M] extends { responses: infer R }
  ? Responses<R>
  : never;
export type Body<P extends keyof paths, M extends Method> = paths[P][M] extends { requestBody: infer B }
  ? Json<B>
  : undefined;
/** A refusal with a reason, or — status 0 or 503 — a server that does not answer. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  get away(): boolean {
    return this.problem.status === 0 || [401, 503, 507].includes(this.problem.status);
  }
}

const AWAY: Problem = {
  type: "urn:vianda:problem:away",
  title: "Vianda does not answer",
  status: 0,
  detail:
    "Nothing was lost: what you typed stays in this window. The bench and the logbook send it by themselves; " +
    "send any other form again when Vianda answers.",
  fields: [],
};

/**
 * The kitchen this window was opened in and who is signed in here (0: nobody, or there are no accounts). Each request
 * says so: a record of one kitchen never lands in another, and what one did never under another's name.
 */
export const here = { kitchen: 0, person: 0 };
const meant = (): Record<string, string> => ({
  ...(here.kitchen && { "Vianda-Kitchen": String(here.kitchen) }),
  ...(here.person && { "Vianda-Person": String(here.person) }),
});

/** Told when the server asks who is there: a sign-in ended, or somebody else is signed in at this browser now. */
export const signedOut: { tell: (another: boolean) => void } = { tell: () => undefined };
const tellSignedOut = (problem: Partial<Problem> | null) =>
  signedOut.tell(problem?.type === "urn:vianda:problem:another-person");

/** An address that a link or a stream opens: headers cannot go with it, so the kitchen stands in the query. */
export const inKitchen = (path: string) =>
  here.kitchen ? `${path}${path.includes("?") ? "&" : "?"}kitchen=${here.kitchen}` : path;

interface Asked<B> {
  /** Values of the places in the address. */
  at?: Record<string, string | number>;
  body?: B;
  signal?: AbortSignal;
  /** A write: sent again after its answer was lost, it is done once. */
  once?: boolean;
  /** A file that is sent as it is, and the token that makes a repeat of it count once. */
  file?: { data: Blob; token?: string };
}

/** Tokens of writes that have no answer yet, by what they ask. */
const unanswered = new Map<string, string>();
/** Eight letters and digits four times over; ``randomUUID`` is missing where a page came without TLS. */
const newToken = () =>
  Array.from(crypto.getRandomValues(new Uint32Array(4)), (n) => n.toString(16).padStart(8, "0")).join("-");

export async function ask<M extends Method, P extends PathOf<M>>(
  method: M,
  path: P,
  { at = {}, body, signal, once = false, file }: Asked<Body<P, M>> = {},
): Promise<Answer<P, M>> {
  const address = path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(at[name])));
  const sent = body === undefined ? undefined : JSON.stringify(body);
  const asked = `${method} ${here.kitchen} ${address} ${sent ?? ""}`;
  const headers = meant();
  if (sent !== undefined) headers["Content-Type"] = "application/json";
  if (file) {
    headers["Content-Type"] = file.data.type;
    if (file.token) headers["Idempotency-Key"] = file.token;
  }
  if (once) {
    const token = unanswered.get(asked) ?? newToken();
    unanswered.set(asked, token);
    headers["Idempotency-Key"] = token;
  }
  let response: Response;
  try {
    response = await fetch(address, {
      method: method.toUpperCase(),
      signal,
      headers,
      body: file?.data ?? sent,
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ProblemError(AWAY);
  }
  if (response.status === 204) {
    unanswered.delete(asked);
    return undefined as Answer<P, M>;
  }
  let content: unknown;
  try {
    content = JSON.parse(await response.text());
  } catch {
    throw new ProblemError({ ...AWAY, status: response.status >= 500 ? 503 : response.status });
  }
  // Taken or refused, it is answered; what a server that is away says leaves it open.
  if (response.status < 500) unanswered.delete(asked);
  if (response.status === 401) tellSignedOut(content as Problem | null);
  if (!response.ok) throw new ProblemError(content as Problem);
  return content as Answer<P, M>;
}

/** An answer that comes line by line; what is refused is refused as a whole. */
export async function lines<T>(path: string, body: unknown, online: (line: T) => void, signal?: AbortSignal) {
  let response: Response;
  try {
    response = await fetch(path, {
      method: "POST",
      signal,
      headers: { "Content-Type": "application/json", Accept: "application/x-ndjson", ...meant() },
      body: JSON.stringify(body),
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ProblemError(AWAY);
  }
  if (!response.ok || !response.body) {
    const text = await response.text();
    try {
      const problem = JSON.parse(text) as Problem;
      if (response.status === 401) tellSignedOut(problem);
      throw new ProblemError(problem);
    } catch (error) {
      if (error instanceof ProblemError) throw error;
      throw new ProblemError({ ...AWAY, status: 503 });
    }
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  try {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) {
        if (rest) online(JSON.parse(rest) as T);
        return;
      }
      const parts = (rest + value).split("\n");
      rest = parts.pop() ?? "";
      for (const line of parts) if (line) online(JSON.parse(line) as T);
    }
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    // The server fell over in the middle of its answer.
    throw new ProblemError(AWAY);
  }
}

/** An answer that is searched for: how far it is, line by line, and in the end what was found. */
export async function searched<P extends PathOf<"post">>(
  path: P,
  body: Body<P, "post">,
  look: (far: Looking) => void,
  signal?: AbortSignal,
): Promise<Answer<P, "post">> {
  let found: { answer: Answer<P, "post"> } | null = null;
  await lines<{ looking?: Looking; found?: Answer<P, "post">; problem?: Problem }>(
    path,
    body,
    (line) => {
      if (line.problem) throw new ProblemError(line.problem);
      if (line.looking) look(line.looking);
      if (line.found) found = { answer: line.found };
    },
    signal,
  );
  // It broke off before the end.
  if (!found) throw new ProblemError(AWAY);
  return (found as { answer: Answer<P, "post"> }).answer;
}
