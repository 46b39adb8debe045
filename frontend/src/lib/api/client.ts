/** The only caller of fetch. Every answer is typed by the contract; every refusal is a Problem. */
import type { components, paths } from "./generated/contract";
import type {
  BrownWord,
  Candidate,
  Edit,
  Formula,
  HeatCurve,
  HeatProgress,
  HeatQuestion,
  Ingredient,
  Kitchen,
  LogQuery,
  Looking,
  Lot,
  Meat,
  Observed,
  Orders,
  Outcome,
  Problem,
  Said,
  SauceLine,
  Service,
  ShelfQuery,
  SolveRequest,
  Stocked,
  TasterAnswer,
  TastingKind,
  Tick,
  TimingEdit,
  Trip,
  TypedWeights,
  UnderwayRequest,
  Units,
  WeighingAction,
} from "./schemas";

export type * from "./schemas";

type S = components["schemas"];
type Method = "get" | "post" | "put" | "delete";
/** Addresses of the contract that take a method. */
type PathOf<M extends Method> = {
  [P in keyof paths]: paths[P] extends Record<M, { responses: unknown }> ? P : never;
}[keyof paths];
type Json<T> = T extends { content: { "application/json": infer A } } ? A : undefined;
type Responses<R> = R extends { 200: infer A } ? Json<A> : R extends { 201: infer A } ? Json<A> : undefined;
/** What an operation answers and takes, as the contract says. */
type Answer<P extends keyof paths, M extends Method> = paths[P][M] extends { responses: infer R }
  ? Responses<R>
  : never;
type Body<P extends keyof paths, M extends Method> = paths[P][M] extends { requestBody: infer B }
  ? Json<B>
  : undefined;
type Look = (far: Looking) => void;

/** A refusal with a reason, or — status 0 or 503 — a server that does not answer. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  get away(): boolean {
    return this.problem.status === 0 || this.problem.status === 503 || this.problem.status === 507;
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

/** The kitchen this window was opened in: each request says so, and a record of one never lands in another. */
export const here: { kitchen: number } = { kitchen: 0 };
const meant = (): Record<string, string> => (here.kitchen ? { "Vianda-Kitchen": String(here.kitchen) } : {});

/** An address that a link or a stream opens: headers cannot go with it, so the kitchen stands in the query. */
const inKitchen = (path: string) =>
  here.kitchen ? `${path}${path.includes("?") ? "&" : "?"}kitchen=${here.kitchen}` : path;

interface Asked<B> {
  /** Values of the places in the address. */
  at?: Record<string, string | number>;
  body?: B;
  signal?: AbortSignal;
  /** A write: sent again after its answer was lost, it is done once. */
  once?: boolean;
  /** A file that is sent as it is, and the token that makes a repeat of it count once. */
  file?: { data: Blob; token: string };
}

/** Tokens of writes that have no answer yet, by what they ask. */
const unanswered = new Map<string, string>();
/** Eight letters and digits four times over; ``randomUUID`` is missing where a page came without TLS. */
const newToken = () =>
  Array.from(crypto.getRandomValues(new Uint32Array(4)), (n) => n.toString(16).padStart(8, "0")).join("-");

async function ask<M extends Method, P extends PathOf<M>>(
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
    headers["Idempotency-Key"] = file.token;
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
  if (!response.ok) throw new ProblemError(content as Problem);
  return content as Answer<P, M>;
}

/** An answer that comes line by line; what is refused is refused as a whole. */
async function lines<T>(path: string, body: unknown, online: (line: T) => void, signal?: AbortSignal) {
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
      throw new ProblemError(JSON.parse(text) as Problem);
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
async function searched<P extends PathOf<"post">>(
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

export const api = {
  catalogue: () => ask("get", "/api/catalogue"),
  readRecipe: (text: string, summary: string, unit_system: Units, signal?: AbortSignal) =>
    ask("post", "/api/recipe/read", { body: { text, summary, unit_system }, signal }),
  keepRecipe: (text: string, summary: string, unit_system: Units) =>
    ask("post", "/api/recipe/keep", { body: { text, summary, unit_system }, once: true }),
  recipePath: (id: number) => inKitchen(`/api/formulas/${id}/recipe`),
  kitchens: () => ask("get", "/api/kitchens"),
  setUpKitchen: (body: S["FirstKitchenRequest"]) => ask("post", "/api/kitchens", { body, once: true }),
  lookRound: () => ask("post", "/api/kitchens/demo", { once: true }),
  openKitchen: (kitchen_id: number) => ask("post", "/api/kitchens/{kitchen_id}/open", { at: { kitchen_id } }),
  deleteDemo: (kitchen_id: number) => ask("delete", "/api/kitchens/{kitchen_id}", { at: { kitchen_id } }),
  kitchen: () => ask("get", "/api/kitchen"),
  saveKitchen: (kitchen: Kitchen, revision: number) =>
    ask("put", "/api/kitchen", { body: { kitchen, revision }, once: true }),
  opening: (line: string, unit_system: Units) => ask("post", "/api/opening", { body: { line, unit_system } }),
  readMix: (formula: Formula, text: string, unit_system: Units) =>
    ask("post", "/api/read/mix", { body: { formula, text, unit_system } }),
  evaluate: (formula: Formula, edits: Edit[], unit_system: Units) =>
    ask("post", "/api/evaluate", { body: { formula, edits, unit_system } }),
  sheets: (formula: Formula, unit_system: Units, signal?: AbortSignal) =>
    ask("post", "/api/sheets", { body: { formula, unit_system }, signal }),
  timetable: (formula: Formula, unit_system: Units, look: Look, signal?: AbortSignal) =>
    searched("/api/timetable", { formula, unit_system }, look, signal),
  /** The curve and how its uncertainty comes along, one line at a time. */
  heatCurve: (
    formula: Formula,
    more: { surface_now_c: number | null; observed: Observed | null },
    online: (line: HeatCurve | HeatProgress) => void,
    signal: AbortSignal,
  ) => lines<HeatCurve | HeatProgress>("/api/heat/curve", { formula, ...more }, online, signal),
  heatWays: (formula: Formula, signal?: AbortSignal) =>
    ask("post", "/api/heat/ways", { body: { formula, surface_now_c: null }, signal }),
  heatAsk: (
    formula: Formula,
    question: { kind: HeatQuestion; value: number | null; crust: BrownWord | null },
    signal?: AbortSignal,
  ) => ask("post", "/api/heat/ask", { body: { formula, surface_now_c: null, ...question }, signal }),
  heatAfter: (formula: Formula, signal?: AbortSignal) =>
    ask("post", "/api/heat/after", { body: { formula, surface_now_c: null }, signal }),
  heatSigns: (signs: string[], fat: NonNullable<Formula["heat"]["fat"]>) =>
    ask("post", "/api/heat/signs", { body: { signs, fat } }),
  readProbe: (formula: Formula, at_s: number | null, seed: number) =>
    ask("post", "/api/heat/probe", { body: { formula, at_s, seed } }),
  readSurface: (formula: Formula, heated_s: number, seed: number) =>
    ask("post", "/api/heat/surface", { body: { formula, heated_s, seed } }),
  firming: (formula: Formula, edge_mm: number, signal?: AbortSignal) =>
    ask("post", "/api/heat/firming", { body: { formula, edge_mm, freezer_c: -18 }, signal }),
  formulas: () => ask("get", "/api/formulas"),
  shelf: (query: ShelfQuery, signal?: AbortSignal) => ask("post", "/api/shelf", { body: query, signal }),
  copyFormula: (formula_id: number) =>
    ask("post", "/api/formulas/{formula_id}/copy", { at: { formula_id }, once: true }),
  formula: (formula_id: number) => ask("get", "/api/formulas/{formula_id}", { at: { formula_id } }),
  shopping: (span: S["SpanRequest"]) => ask("post", "/api/shopping", { body: span }),
  scarcity: (span: S["SpanRequest"]) => ask("post", "/api/shopping/scarcity", { body: span }),
  prep: (asked: S["PrepRequest"]) => ask("post", "/api/prep", { body: asked }),
  prepCsv: (span: { from_day: string; to_day: string }, day_min: number) =>
    inKitchen(`/api/prep/${span.from_day}/${span.to_day}/list.csv?day_min=${day_min}`),
  tick: (tick: Tick) => ask("put", "/api/ticks", { body: tick, once: true }),
  butcher: (span: S["SpanRequest"]) => ask("post", "/api/butcher", { body: span }),
  butcherCsv: (span: { from_day: string; to_day: string }) =>
    inKitchen(`/api/butcher/${span.from_day}/${span.to_day}/slip.csv`),
  setOut: (service_id: number, today: string, unit_system: Units) =>
    ask("post", "/api/services/set-out", { body: { service_id, today, unit_system } }),
  covers: (counts: Service["counts"], signal?: AbortSignal) =>
    ask("post", "/api/covers", { body: { counts }, signal }),
  shoppingCsv: (span: { from_day: string; to_day: string }) =>
    inKitchen(`/api/shopping/${span.from_day}/${span.to_day}/list.csv`),
  calendar: () => inKitchen("/api/services/calendar.ics"),
  stock: () => ask("get", "/api/stock"),
  keepStocked: (stocked: Stocked) => ask("put", "/api/stock", { body: { stocked }, once: true }),
  receive: (lot: Lot, temp_c: number | null, unit_system: Units, measured: S["MeasuredModel"]) =>
    ask("post", "/api/deliveries", { body: { lot, temp_c, unit_system, measured }, once: true }),
  services: () => ask("get", "/api/services"),
  service: (service_id: number) => ask("get", "/api/services/{service_id}", { at: { service_id } }),
  createService: (service: Service) => ask("post", "/api/services", { body: { service }, once: true }),
  saveService: (service_id: number, service: Service, revision: number) =>
    ask("put", "/api/services/{service_id}", { at: { service_id }, body: { service, revision }, once: true }),
  deleteService: (service_id: number) =>
    ask("delete", "/api/services/{service_id}", { at: { service_id }, once: true }),
  editService: (service: Service, edit: TimingEdit, unit_system: Units) =>
    ask("post", "/api/services/edit", { body: { service, edit, unit_system } }),
  planService: (service: Service, unit_system: Units, look: Look, signal?: AbortSignal) =>
    searched("/api/services/plan", { service, unit_system }, look, signal),
  orders: (formula: Formula, orders: Orders, unit_system: Units, signal?: AbortSignal) =>
    ask("post", "/api/orders", { body: { formula, orders, unit_system }, signal }),
  openRun: (service_id: number, now: string) =>
    ask("post", "/api/services/{service_id}/run", { at: { service_id }, body: { now } }),
  followRun: (service_id: number, day: string, known: number) =>
    ask("post", "/api/services/{service_id}/run/follow", { at: { service_id }, body: { day, known } }),
  noteRunEvent: (service_id: number, day: string, event: Said) =>
    ask("post", "/api/services/{service_id}/run/events", { at: { service_id }, body: { day, event } }),
  checkSheet: (service_id: number, body: S["CheckSheetRequest"], signal?: AbortSignal) =>
    ask("post", "/api/services/{service_id}/run/checks", { at: { service_id }, body, signal }),
  kitchenChecks: (span: S["CheckRecordRequest"], signal?: AbortSignal) =>
    ask("post", "/api/checks", { body: span, signal }),
  noteKitchenCheck: (day: string, event: S["KitchenCheckModel"]) =>
    ask("post", "/api/checks/events", { body: { day, event }, once: true }),
  checksCsv: (span: { from_day: string; to_day: string }) =>
    inKitchen(`/api/checks/${span.from_day}/${span.to_day}/record.csv`),
  checkRecord: (service_id: number, day: string) =>
    inKitchen(`/api/services/${service_id}/checks/${day}/record.csv`),
  underway: (body: UnderwayRequest, look: Look, signal?: AbortSignal) =>
    searched("/api/services/under-way", body, look, signal),
  createFormula: (formula: Formula) => ask("post", "/api/formulas", { body: { formula }, once: true }),
  saveFormula: (formula_id: number, formula: Formula, revision: number) =>
    ask("put", "/api/formulas/{formula_id}", { at: { formula_id }, body: { formula, revision } }),
  deleteFormula: (formula_id: number) => ask("delete", "/api/formulas/{formula_id}", { at: { formula_id } }),
  restoreFormula: (formula_id: number) =>
    ask("post", "/api/formulas/{formula_id}/restore", { at: { formula_id } }),
  versions: (formula_id: number) => ask("get", "/api/formulas/{formula_id}/versions", { at: { formula_id } }),
  keepVersion: (formula_id: number, name: string) =>
    ask("post", "/api/formulas/{formula_id}/versions", { at: { formula_id }, body: { name }, once: true }),
  shortOfTime: (formula: Formula, minutes: number, unit_system: Units, look: Look, signal?: AbortSignal) =>
    searched("/api/short-of-time", { formula, minutes, unit_system }, look, signal),
  carried: (formula: Formula, trip: Trip, unit_system: Units, signal?: AbortSignal) =>
    ask("post", "/api/carried", { body: { formula, trip, unit_system }, signal }),
  ownTasks: () => ask("get", "/api/own-tasks"),
  busyCook: (service: Service, cook: number, calendar: string, utc_offset_min: number) =>
    ask("post", "/api/services/busy", { body: { service, cook, calendar, utc_offset_min } }),
  importService: (file: unknown) => ask("post", "/api/services/import", { body: { file }, once: true }),
  servicePath: (id: number) => inKitchen(`/api/services/${id}/export`),
  importFile: (file: unknown) => ask("post", "/api/formulas/import", { body: { file }, once: true }),
  photographs: (cook_id: number, signal?: AbortSignal) =>
    ask("get", "/api/cooks/{cook_id}/photographs", { at: { cook_id }, signal }),
  addPhotograph: (cook_id: number, file: { data: Blob; token: string }) =>
    ask("post", "/api/cooks/{cook_id}/photographs", { at: { cook_id }, file }),
  captionPhotograph: (photograph_id: number, caption: string) =>
    ask("put", "/api/photographs/{photograph_id}/caption", { at: { photograph_id }, body: { caption } }),
  deletePhotograph: (photograph_id: number) =>
    ask("delete", "/api/photographs/{photograph_id}", { at: { photograph_id } }),
  photographPath: (id: number, size: "small" | "file") => inKitchen(`/api/photographs/${id}/${size}`),
  formulaCooks: (formula_id: number) =>
    ask("get", "/api/formulas/{formula_id}/cooks", { at: { formula_id } }),
  cooks: () => ask("get", "/api/cooks"),
  logbook: (query: LogQuery, signal?: AbortSignal) => ask("post", "/api/logbook", { body: query, signal }),
  trends: (of: S["TrendRequest"], signal?: AbortSignal) =>
    ask("post", "/api/logbook/trends", { body: of, signal }),
  /** The logbook as a file, of what is looked for. */
  logbookPath: (query: LogQuery, ending: "csv" | "json") => {
    const said = Object.entries(query).filter(([key, value]) => value && key !== "before");
    const asked = new URLSearchParams(said.map(([key, value]) => [key, String(value)])).toString();
    return inKitchen(`/api/logbook/cooks.${ending}${asked ? `?${asked}` : ""}`);
  },
  logbookChoices: () => ask("get", "/api/logbook/choices"),
  traceLot: (lot_key: string, signal?: AbortSignal) =>
    ask("get", "/api/lots/{lot_key}/trace", { at: { lot_key }, signal }),
  learning: (signal?: AbortSignal) => ask("get", "/api/learning", { signal }),
  useFactor: (factor: S["UseRequest"]) => ask("post", "/api/learning/use", { body: factor, once: true }),
  notePot: (body: S["PotTookRequest"]) => ask("post", "/api/learning/pot", { body, once: true }),
  noteLeftover: (weighing_id: number, left_g: number) =>
    ask("put", "/api/weighings/{weighing_id}/leftover", { at: { weighing_id }, body: { left_g } }),
  useFat: (body: S["UseFatRequest"]) => ask("post", "/api/learning/use-fat", { body, once: true }),
  leaveOut: (observation: S["AsideRequest"]) => ask("post", "/api/learning/aside", { body: observation }),
  faults: (cook_id: number, asked: S["FaultRequest"], signal?: AbortSignal) =>
    ask("post", "/api/cooks/{cook_id}/faults", { at: { cook_id }, body: asked, signal }),
  compareVersions: (
    formula_id: number,
    before: number,
    after: number,
    unit_system: Units,
    signal?: AbortSignal,
  ) =>
    ask("post", "/api/formulas/{formula_id}/compare", {
      at: { formula_id },
      body: { before, after, unit_system },
      signal,
    }),
  tastings: (formula_id: number) => ask("get", "/api/formulas/{formula_id}/tastings", { at: { formula_id } }),
  setUpTasting: (formula_id: number, kind: TastingKind, versions: number[], tasters: number) =>
    ask("post", "/api/formulas/{formula_id}/tastings", {
      at: { formula_id },
      body: { kind, versions, tasters },
      once: true,
    }),
  tasting: (tasting_id: number, signal?: AbortSignal) =>
    ask("get", "/api/tastings/{tasting_id}", { at: { tasting_id }, signal }),
  answerTasting: (tasting_id: number, answers: TasterAnswer[], revision: number) =>
    ask("put", "/api/tastings/{tasting_id}/answers", { at: { tasting_id }, body: { answers, revision } }),
  beginCook: (formula_id: number) => ask("post", "/api/cooks", { body: { formula_id }, once: true }),
  cook: (cook_id: number) => ask("get", "/api/cooks/{cook_id}", { at: { cook_id } }),
  cookEvent: (cook_id: number, event: S["EventRequest"]) =>
    ask("post", "/api/cooks/{cook_id}/events", { at: { cook_id }, body: event }),
  cookForecast: (cook_id: number) => ask("get", "/api/cooks/{cook_id}/forecast", { at: { cook_id } }),
  simulatedReading: (cook_id: number, of: S["SimulatedReadingRequest"]["of"], since_start_s: number) =>
    ask("post", "/api/cooks/{cook_id}/simulated-reading", { at: { cook_id }, body: { of, since_start_s } }),
  training: () => ask("get", "/api/training"),
  answerRound: (answer: S["TrainingAnswerRequest"]) => ask("post", "/api/training/answers", { body: answer }),
  beginTrainingAnew: () => ask("delete", "/api/training"),
  nextChange: (formula_id: number) =>
    ask("get", "/api/formulas/{formula_id}/next-change", { at: { formula_id } }),
  saveOutcome: (cook_id: number, outcome: Outcome, revision: number) =>
    ask("put", "/api/cooks/{cook_id}/outcome", { at: { cook_id }, body: { outcome, revision }, once: true }),
  read: (kind: S["ReadRequest"]["kind"], text: string, unit_system: Units) =>
    ask("post", "/api/read", { body: { kind, text, unit_system } }),
  larder: () => ask("get", "/api/larder"),
  saveMeat: (meat: Meat, seen: Meat | null) =>
    ask("put", "/api/larder/meats/{key}", { at: { key: meat.key }, body: { meat, seen }, once: true }),
  addLot: (lot: Lot) => ask("post", "/api/larder/lots", { body: { lot }, once: true }),
  saveLot: (lot: Lot, revision: number) =>
    ask("put", "/api/larder/lots/{key}", { at: { key: lot.key }, body: { lot, revision }, once: true }),
  learn: (key: string, kind: S["LearnRequest"]["kind"], fat: string, revision: number) =>
    ask("post", "/api/larder/lots/{key}/evidence", {
      at: { key },
      body: { kind, fat, revision },
      once: true,
    }),
  readFatTest: (weights: TypedWeights, unit_system: Units) =>
    ask("post", "/api/larder/fat-test", { body: { weights, unit_system } }),
  logFatTest: (key: string, weights: TypedWeights, unit_system: Units, revision: number) =>
    ask("post", "/api/larder/lots/{key}/fat-test", {
      at: { key },
      body: { weights, unit_system, revision },
      once: true,
    }),
  forget: (key: string, at: number, revision: number) =>
    ask("post", "/api/larder/lots/{key}/forget", { at: { key }, body: { at, revision }, once: true }),
  pantry: () => ask("get", "/api/pantry"),
  saveIngredient: (ingredient: Ingredient, revision: number) =>
    ask("put", "/api/pantry/{key}", {
      at: { key: ingredient.key },
      body: { ingredient, revision },
      once: true,
    }),
  tryHouse: (ingredient: Ingredient, signal?: AbortSignal) =>
    ask("post", "/api/pantry/house", { body: { ingredient }, signal }),
  sauceSchools: () => ask("get", "/api/sauces/schools"),
  tasteSauce: (sauce: S["SauceRequest"], signal?: AbortSignal) =>
    ask("post", "/api/sauces/taste", { body: sauce, signal }),
  nudgeSauce: (asked: S["NudgeRequest"]) => ask("post", "/api/sauces/nudge", { body: asked }),
  bindSauce: (asked: S["BindRequest"]) => ask("post", "/api/sauces/bind", { body: asked }),
  pickle: (brine: S["BrineRequest"], signal?: AbortSignal) =>
    ask("post", "/api/sauces/brine", { body: brine, signal }),
  thicken: (asked: S["ThickenRequest"], signal?: AbortSignal) =>
    ask("post", "/api/sauces/thicken", { body: asked, signal }),
  ferment: (asked: S["FermentRequest"], signal?: AbortSignal) =>
    ask("post", "/api/sauces/ferment", { body: asked, signal }),
  swaps: (asked: S["SwapRequest"]) => ask("post", "/api/sauces/swaps", { body: asked }),
  shaker: (asked: S["ShakerRequest"], signal?: AbortSignal) =>
    ask("post", "/api/sauces/shaker", { body: asked, signal }),
  composeSauce: (lines: SauceLine[], text: string, unit_system: Units) =>
    ask("post", "/api/sauces/compose", { body: { lines, text, unit_system } }),
  scaleSauce: (asked: S["ScaleRequest"]) => ask("post", "/api/sauces/scale", { body: asked }),
  keepSauce: (asked: S["TrayRequest"], signal?: AbortSignal) =>
    ask("post", "/api/sauces/tray", { body: asked, signal }),
  poured: (asked: S["PouredRequest"]) => ask("post", "/api/sauces/poured", { body: asked }),
  cookDown: (pot: S["PotRequest"], signal?: AbortSignal) =>
    ask("post", "/api/sauces/pot", { body: pot, signal }),
  readAmount: (ingredient: string, text: string, unit_system: Units) =>
    ask("post", "/api/pantry/amount", { body: { ingredient, text, unit_system } }),
  importLarder: (text: string) => ask("post", "/api/larder/file", { body: { text }, once: true }),
  get larderPath() {
    return inKitchen("/api/larder/file.csv");
  },
  solve: (formula: Formula, request: SolveRequest, signal?: AbortSignal) =>
    ask("post", "/api/target/solve", { body: { formula, ...request }, signal }),
  firstSquare: (formula: Formula) => ask("post", "/api/target/square/first", { body: { formula } }),
  square: (one: Candidate, two: Candidate, target: string, signal?: AbortSignal) =>
    ask("post", "/api/target/square", { body: { one, two, target }, signal }),
  mend: (batch: string, fat: string, target: string, unit_system: Units) =>
    ask("post", "/api/target/mend", { body: { batch, fat, target, unit_system } }),
  propose: (formula: Formula, words: string) =>
    ask("post", "/api/target/propose", { body: { formula, words } }),
  weighings: (formula_id: number) =>
    ask("get", "/api/formulas/{formula_id}/weighings", { at: { formula_id } }),
  beginWeighing: (formula_id: number, step_g: number) =>
    ask("post", "/api/weighings", {
      body: { formula_id, step_g: step_g as S["BeginWeighingRequest"]["step_g"] },
      once: true,
    }),
  weighing: (weighing_id: number) => ask("get", "/api/weighings/{weighing_id}", { at: { weighing_id } }),
  weighingAct: (weighing_id: number, action: WeighingAction) =>
    ask("post", "/api/weighings/{weighing_id}/actions", { at: { weighing_id }, body: action }),
  scaleDisplay: (weighing_id: number) =>
    ask("get", "/api/weighings/{weighing_id}/display", { at: { weighing_id } }),
  scaleStreamPath: (id: number) => inKitchen(`/api/weighings/${id}/stream`),
  recordsPath: (id: number) => inKitchen(`/api/weighings/${id}/records.csv`),
  exportPath: (id: number) => inKitchen(`/api/formulas/${id}/export`),
};
