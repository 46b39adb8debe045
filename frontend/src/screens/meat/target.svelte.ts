/** What the cook wants of many meats, and the answers of the core. Nothing is computed here. */
import { api, type Candidate, type Catalogue, type Evaluation, type Formula } from "../../lib/api/client";
import { today } from "../../lib/format";
import { Resource } from "../../lib/resource.svelte";
import type { Solved, SolveRequest } from "../../lib/api/client";

type Aim = SolveRequest["aim"];
const MOST_CANDIDATES = 60;

export class ManyMeats {
  candidates = $state<Candidate[]>([]);
  fatLow = $state("");
  fatHigh = $state("");
  confidence = $state("80 %");
  collagen = $state("");
  aim = $state<Aim>("cheapest");
  mostMeats = $state(4);
  wholePacks = $state(false);
  species = $state("");
  speciesLeast = $state("");
  speciesMost = $state("");
  stale = $state(false);

  #solved = new Resource<Formula, Solved>((formula, signal) => api.solve(formula, this.#request(), signal));

  get solved(): Solved | null {
    return this.#solved.problem ? null : this.#solved.value;
  }
  get busy(): boolean {
    return this.#solved.busy;
  }
  get refusal(): { pointer: string; detail: string } | null {
    const problem = this.#solved.problem;
    return problem && { pointer: problem.fields?.[0]?.pointer ?? "", detail: problem.detail };
  }

  constructor(evaluation: Evaluation, catalogue: Catalogue) {
    const percent = (frac: number) => `${Math.round(frac * 100)} %`;
    this.fatLow = percent(evaluation.style.fat_band_frac[0]);
    this.fatHigh = percent(evaluation.style.fat_band_frac[1]);
    this.onlyThese(evaluation);
    this.add("trim-50", catalogue, evaluation);
    this.add("round", catalogue, evaluation);
    this.add("chuck", catalogue, evaluation);
  }

  /** The meats of the blend as it is. */
  onlyThese(evaluation: Evaluation): void {
    this.candidates = evaluation.blend.parts.map((p) => ({
      meat: p.meat,
      lot: p.lot ?? "",
      least: "",
      most: "",
      now_frac: p.share_frac,
    }));
    this.stale = true;
  }

  /** Every meat of a species that is still offered, from its open lot that goes first when there is one. */
  all(species: string, catalogue: Catalogue, evaluation: Evaluation): void {
    for (const meat of catalogue.meats)
      if (meat.species === species && !meat.retired && meat.key !== "mince-unknown")
        this.add(meat.key, catalogue, evaluation);
  }

  add(meat: string, catalogue: Catalogue, evaluation: Evaluation): void {
    if (this.candidates.length >= MOST_CANDIDATES || this.candidates.some((c) => c.meat === meat)) return;
    if (!catalogue.meats.some((m) => m.key === meat)) return;
    const lot = catalogue.lots
      .filter((l) => l.meat === meat && !l.closed)
      .sort((a, b) => (a.use_by || "9").localeCompare(b.use_by || "9"))[0];
    const now = evaluation.blend.parts.find((p) => p.meat === meat)?.share_frac ?? 0;
    this.candidates = [...this.candidates, { meat, lot: lot?.key ?? "", least: "", most: "", now_frac: now }];
    this.stale = true;
  }

  remove(meat: string): void {
    this.candidates = this.candidates.filter((c) => c.meat !== meat);
    this.stale = true;
  }

  bound(meat: string, side: "least" | "most", text: string): void {
    this.candidates = this.candidates.map((c) => (c.meat === meat ? { ...c, [side]: text } : c));
    this.stale = true;
  }

  /** Ask for answers; the returned function gives up on them. */
  solve(formula: Formula, evaluation: Evaluation): () => void {
    const now = Object.fromEntries(evaluation.blend.parts.map((p) => [p.meat, p.share_frac]));
    this.candidates = this.candidates.map((c) => ({ ...c, now_frac: now[c.meat] ?? 0 }));
    this.stale = false;
    return this.#solved.ask(formula);
  }

  #request(): SolveRequest {
    const limit = { species: this.species, least: this.speciesLeast, most: this.speciesMost };
    return {
      candidates: this.candidates,
      typed: {
        fat_low: this.fatLow,
        fat_high: this.fatHigh,
        confidence: this.confidence,
        collagen_most: this.collagen,
      },
      aim: this.aim,
      species: this.species ? [limit as NonNullable<SolveRequest["species"]>[number]] : [],
      most_meats: this.mostMeats,
      least_share_frac: 0.05,
      whole_packs: this.wholePacks,
      use_stock: true,
      today: today(),
    };
  }
}
