/** The only caller of fetch. Every answer is typed by the contract; every refusal is a Problem. */
import type { components } from "./generated/contract";

type S = components["schemas"];
export type Formula = S["Formula"];
export type Evaluation = S["Evaluation"];
export type Phrase = { text: string; amounts: Record<string, Amount> };
export type Amount = Pick<S["Amount"], "kind" | "value"> & Partial<S["Amount"]>;
export type Working = S["Working"];
export type Sheets = S["Sheets"];
export type Counsel = S["Counsel"];
export type Step = S["RailStep"]["step"];
export type Opening = S["Opening"];
export type Edit = NonNullable<S["EvaluateRequest"]["edits"]>[number];
export type Figure = S["TypeFigure"]["figure"];
export type StoredFormula = S["FormulaAnswer"];
export type Version = S["VersionAnswer"];
export type ShelfItem = S["ShelfItem"];
export type Catalogue = S["CatalogueAnswer"];
export type StoredKitchen = S["KitchenAnswer"];
export type Kitchen = S["Kitchen"];
export type KitchenInput = S["Kitchen"];
export type Cook = S["CookAnswer"];
export type CookLine = S["CookLine"];
export type Outcome = S["OutcomeModel"];
export type StoveStep = S["StoveStep"];
export type Units = NonNullable<S["EvaluateRequest"]["unit_system"]>;
export type Meat = S["Meat"];
export type Lot = S["Lot"];
export type KnownLot = S["LotAnswer"];
export type LarderContent = S["LarderAnswer"];
export type FatTest = S["FatTestAnswer"];
export type TypedWeights = S["WeightsModel"];
export type RowReport = S["RowReport"];
export type Solved = S["Solved"];
export type SolveRequest = Omit<S["SolveRequest"], "formula">;
export type Candidate = S["CandidateModel"];
export type DrawnSquare = S["DrawnSquare"];
export type Addition = S["Addition"];
export type MixLine = S["LineFigures"];
export type MixSchool = S["MixSchool"];
export type PantryThing = S["IngredientAnswer"];
export type Ingredient = S["Ingredient"];
export type HouseFigures = S["HouseFigures"];
export type Weighing = S["WeighingAnswer"];
export type WeighingLine = S["WeighingLine"];
export type ScaleDisplay = S["DisplayAnswer"];
export type WeighingAction = S["WeighingAction"];
export type HeatCurve = S["HeatCurve"];
export type HeatProgress = S["Progress"];
export type HeatWays = S["Ways"];
export type HeatStage = S["HeatStage"];
export type StageChoice = S["StageChoice"];
export type HeatAnswer = S["HeatAnswer"];
export type HeatQuestion = S["QuestionRequest"]["kind"];
export type BrownWord = NonNullable<S["QuestionRequest"]["crust"]>;
export type AfterLine = S["AfterLine"];
export type Observed = NonNullable<S["CurveRequest"]["observed"]>;
export type Limit = NonNullable<S["Mix"]["avoid"]>[number];
export type Problem = Omit<S["Problem"], "current"> & { current?: unknown };

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
  detail: "Nothing was lost: your edits stay in this window and are sent when it answers again.",
  fields: [],
};

async function ask<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal,
      headers: body === undefined ? {} : { "Content-Type": "application/json" },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ProblemError(AWAY);
  }
  if (response.status === 204) return undefined as T;
  const text = await response.text();
  let content: unknown;
  try {
    content = JSON.parse(text);
  } catch {
    throw new ProblemError({ ...AWAY, status: response.status >= 500 ? 503 : response.status });
  }
  if (!response.ok) throw new ProblemError(content as Problem);
  return content as T;
}

/** An answer that comes line by line; what is refused is refused as a whole. */
async function lines<T>(path: string, body: unknown, online: (line: T) => void, signal: AbortSignal) {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method: "POST",
      signal,
      headers: { "Content-Type": "application/json" },
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
      if (done) return;
      const parts = (rest + value).split("\n");
      rest = parts.pop() ?? "";
      for (const line of parts) if (line) online(JSON.parse(line) as T);
    }
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    // The server fell over in the middle of its answer.
    throw new ProblemError(AWAY);
  }
}

export const api = {
  catalogue: () => ask<Catalogue>("GET", "/catalogue"),
  kitchen: () => ask<StoredKitchen>("GET", "/kitchen"),
  saveKitchen: (kitchen: KitchenInput, revision: number) =>
    ask<StoredKitchen>("PUT", "/kitchen", { kitchen, revision }),
  opening: (line: string, unit_system: Units) =>
    ask<S["OpeningAnswer"]>("POST", "/opening", { line, unit_system }),
  evaluate: (formula: Formula, edits: Edit[], unit_system: Units) =>
    ask<{ formula: Formula; evaluation: Evaluation }>("POST", "/evaluate", { formula, edits, unit_system }),
  sheets: (formula: Formula, unit_system: Units, signal?: AbortSignal) =>
    ask<Sheets>("POST", "/sheets", { formula, unit_system }, signal),
  /** The curve and how its uncertainty comes along, one line at a time. */
  heatCurve: (
    formula: Formula,
    more: { surface_now_c: number | null; observed: Observed | null },
    online: (line: HeatCurve | HeatProgress) => void,
    signal: AbortSignal,
  ) => lines<HeatCurve | HeatProgress>("/heat/curve", { formula, ...more }, online, signal),
  heatWays: (formula: Formula, signal?: AbortSignal) =>
    ask<HeatWays>("POST", "/heat/ways", { formula }, signal),
  heatAsk: (
    formula: Formula,
    question: { kind: HeatQuestion; value?: number | null; crust?: BrownWord | null },
    signal?: AbortSignal,
  ) => ask<HeatAnswer>("POST", "/heat/ask", { formula, ...question }, signal),
  heatAfter: (formula: Formula, signal?: AbortSignal) =>
    ask<AfterLine[]>("POST", "/heat/after", { formula }, signal),
  heatSigns: (signs: string[], fat: NonNullable<Formula["heat"]["fat"]>) =>
    ask<S["SurfaceGuess"]>("POST", "/heat/signs", { signs, fat }),
  readProbe: (formula: Formula, at_s: number | null, seed: number) =>
    ask<{ at_s: number; shown_c: number }>("POST", "/heat/probe", { formula, at_s, seed }),
  readSurface: (formula: Formula, heated_s: number, seed: number) =>
    ask<{ shown_c: number }>("POST", "/heat/surface", { formula, heated_s, seed }),
  firming: (formula: Formula, edge_mm: number) =>
    ask<{ firm_s: number; solid_s: number }>("POST", "/heat/firming", { formula, edge_mm }),
  formulas: () => ask<ShelfItem[]>("GET", "/formulas"),
  formula: (id: number) => ask<StoredFormula>("GET", `/formulas/${id}`),
  createFormula: (formula: Formula) => ask<StoredFormula>("POST", "/formulas", { formula }),
  saveFormula: (id: number, formula: Formula, revision: number) =>
    ask<StoredFormula>("PUT", `/formulas/${id}`, { formula, revision }),
  deleteFormula: (id: number) => ask<void>("DELETE", `/formulas/${id}`),
  versions: (id: number) => ask<Version[]>("GET", `/formulas/${id}/versions`),
  keepVersion: (id: number, name: string) => ask<Version>("POST", `/formulas/${id}/versions`, { name }),
  importFile: (file: unknown) => ask<S["ImportAnswer"]>("POST", "/formulas/import", { file }),
  formulaCooks: (id: number) => ask<CookLine[]>("GET", `/formulas/${id}/cooks`),
  cooks: () => ask<CookLine[]>("GET", "/cooks"),
  beginCook: (formula_id: number) => ask<Cook>("POST", "/cooks", { formula_id }),
  cook: (id: number) => ask<Cook>("GET", `/cooks/${id}`),
  cookEvent: (id: number, event: S["EventRequest"]) => ask<Cook>("POST", `/cooks/${id}/events`, event),
  saveOutcome: (id: number, outcome: Outcome, revision: number) =>
    ask<Cook>("PUT", `/cooks/${id}/outcome`, { outcome, revision }),
  read: (kind: S["ReadRequest"]["kind"], text: string, unit_system: Units) =>
    ask<{ value: number }>("POST", "/read", { kind, text, unit_system }),
  larder: () => ask<LarderContent>("GET", "/larder"),
  saveMeat: (meat: Meat, seen: Meat | null) =>
    ask<Meat>("PUT", `/larder/meats/${encodeURIComponent(meat.key)}`, { meat, seen }),
  addLot: (lot: Lot) => ask<KnownLot>("POST", "/larder/lots", { lot }),
  saveLot: (lot: Lot, revision: number) =>
    ask<KnownLot>("PUT", `/larder/lots/${encodeURIComponent(lot.key)}`, { lot, revision }),
  learn: (key: string, kind: S["LearnRequest"]["kind"], fat: string, revision: number) =>
    ask<KnownLot>("POST", `/larder/lots/${encodeURIComponent(key)}/evidence`, { kind, fat, revision }),
  readFatTest: (weights: TypedWeights, unit_system: Units) =>
    ask<FatTest>("POST", "/larder/fat-test", { weights, unit_system }),
  logFatTest: (key: string, weights: TypedWeights, unit_system: Units, revision: number) =>
    ask<KnownLot>("POST", `/larder/lots/${encodeURIComponent(key)}/fat-test`, {
      weights,
      unit_system,
      revision,
    }),
  forget: (key: string, at: number, revision: number) =>
    ask<KnownLot>("POST", `/larder/lots/${encodeURIComponent(key)}/forget`, { at, revision }),
  pantry: () => ask<S["PantryAnswer"]>("GET", "/pantry"),
  saveIngredient: (ingredient: Ingredient, revision: number) =>
    ask<PantryThing>("PUT", `/pantry/${encodeURIComponent(ingredient.key)}`, { ingredient, revision }),
  tryHouse: (ingredient: Ingredient, signal?: AbortSignal) =>
    ask<HouseFigures>("POST", "/pantry/house", { ingredient }, signal),
  readAmount: (ingredient: string, text: string, unit_system: Units) =>
    ask<{ mass_g: number }>("POST", "/pantry/amount", { ingredient, text, unit_system }),
  importLarder: (text: string) => ask<{ rows: RowReport[] }>("POST", "/larder/file", { text }),
  larderPath: "/api/larder/file.csv",
  solve: (formula: Formula, request: SolveRequest, signal?: AbortSignal) =>
    ask<Solved>("POST", "/target/solve", { formula, ...request }, signal),
  square: (one: Candidate, two: Candidate, target: string, signal?: AbortSignal) =>
    ask<DrawnSquare>("POST", "/target/square", { one, two, target }, signal),
  mend: (batch: string, fat: string, target: string, unit_system: Units) =>
    ask<{ additions: Addition[] }>("POST", "/target/mend", { batch, fat, target, unit_system }),
  propose: (formula: Formula, words: string) =>
    ask<S["ProposeAnswer"]>("POST", "/target/propose", { formula, words }),
  weighings: (formula: number) => ask<WeighingLine[]>("GET", `/formulas/${formula}/weighings`),
  beginWeighing: (formula_id: number, step_g: 1 | 2 | 5) =>
    ask<Weighing>("POST", "/weighings", { formula_id, step_g }),
  weighing: (id: number) => ask<Weighing>("GET", `/weighings/${id}`),
  weighingAct: (id: number, action: WeighingAction) =>
    ask<Weighing>("POST", `/weighings/${id}/actions`, action),
  scaleDisplay: (id: number) => ask<ScaleDisplay>("GET", `/weighings/${id}/display`),
  scaleStreamPath: (id: number) => `/api/weighings/${id}/stream`,
  recordsPath: (id: number) => `/api/weighings/${id}/records.csv`,
  exportPath: (id: number) => `/api/formulas/${id}/export`,
};
