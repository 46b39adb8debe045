/** What the server can be asked, one method each; every answer is typed by the contract, every refusal a Problem. */
import type { components } from "./generated/contract";
import { ask, inKitchen, lines, searched } from "./ask";
import type {
  ArchiveDiffering,
  ArchiveInto,
  ArchiveReport,
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
  Said,
  PersonRole,
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
export { here, ProblemError, signedOut } from "./ask";

type S = components["schemas"];
type Look = (far: Looking) => void;

export const api = {
  catalogue: () => ask("get", "/api/catalogue"),
  readRecipe: (text: string, summary: string, unit_system: Units, signal?: AbortSignal) =>
    ask("post", "/api/recipe/read", { body: { text, summary, unit_system }, signal }),
  keepRecipe: (text: string, summary: string, unit_system: Units) =>
    ask("post", "/api/recipe/keep", { body: { text, summary, unit_system }, once: true }),
  recipePath: (id: number) => inKitchen(`/api/formulas/${id}/recipe`),
  session: () => ask("get", "/api/session"),
  signIn: (name: string, password: string) => ask("post", "/api/session", { body: { name, password } }),
  signOut: () => ask("delete", "/api/session"),
  firstOwner: (name: string, password: string) =>
    ask("post", "/api/session/first-owner", { body: { name, password } }),
  beginShift: () => ask("post", "/api/session/shift"),
  endShift: () => ask("delete", "/api/session/shift"),
  takeUp: (person_id: number, pin: string) => ask("post", "/api/session/pin", { body: { person_id, pin } }),
  changePassword: (old: string, fresh: string) =>
    ask("put", "/api/session/password", { body: { old, new: fresh } }),
  setPin: (password: string, pin: string) => ask("put", "/api/session/my-pin", { body: { password, pin } }),
  places: () => ask("get", "/api/session/places"),
  endPlace: (key: string) => ask("delete", "/api/session/places/{key}", { at: { key } }),
  lookAtInvitation: (token: string) => ask("post", "/api/invitations/look", { body: { token } }),
  acceptInvitation: (token: string, password: string, pin: string) =>
    ask("post", "/api/invitations/accept", { body: { token, password, pin } }),
  people: () => ask("get", "/api/people"),
  invite: (name: string, role: PersonRole) =>
    ask("post", "/api/people/invitations", { body: { name, role } }),
  inviteAgain: (person_id: number) =>
    ask("post", "/api/people/{person_id}/invitation", { at: { person_id } }),
  changeRole: (person_id: number, role: PersonRole) =>
    ask("put", "/api/people/{person_id}/role", { at: { person_id }, body: { role } }),
  disablePerson: (person_id: number, disabled: boolean) =>
    ask("put", "/api/people/{person_id}/disabled", { at: { person_id }, body: { disabled } }),
  removePerson: (person_id: number) => ask("delete", "/api/people/{person_id}", { at: { person_id } }),
  audit: (before: number | null, person = "") => ask("post", "/api/audit", { body: { before, person } }),
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
  labels: (asked: S["LabelsRequest"], signal?: AbortSignal) =>
    ask("post", "/api/services/labels", { body: asked, signal }),
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
  mergeEdits: (
    base: Formula,
    mine: Formula,
    theirs: Formula,
    prefer: "mine" | "theirs",
    signal?: AbortSignal,
  ) => ask("post", "/api/formulas/merge", { body: { base, mine, theirs, prefer }, signal }),
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
  logbookPath: (query: Partial<LogQuery>, ending: "csv" | "json") => {
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
  importPantry: (text: string) => ask("post", "/api/pantry/file", { body: { text }, once: true }),
  get pantryPath() {
    return inKitchen("/api/pantry/file.csv");
  },
  get weighingsPath() {
    return inKitchen("/api/weighings.csv");
  },
  /** The contract itself, which is of no operation. */
  contract: () => ask("get", "/api/openapi.json" as "/api/live") as Promise<unknown>,
  get archivePath() {
    return inKitchen("/api/archive");
  },
  lookAtArchive: (data: Blob, into: ArchiveInto, differing: ArchiveDiffering, signal?: AbortSignal) =>
    ask("post", "/api/archive/look/{into}/{differing}", { at: { into, differing }, file: { data }, signal }),
  bringArchive: (data: Blob, looked: ArchiveReport, token: string) =>
    ask("post", "/api/archive/bring/{into}/{differing}/{digest}", {
      at: { into: looked.into, differing: looked.differing, digest: looked.digest },
      file: { data, token },
    }),
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
