/** A sauce on the bench: its lines, how it tastes, and what a word would change. Each change can be taken back. */
import {
  api,
  ProblemError,
  type Handle,
  type NudgeAnswer,
  type Role,
  type SauceLine,
  type SauceSchool,
  type SauceTaste,
  type SwapOffer,
  type Units,
} from "../../lib/api/client";
import { Resource } from "../../lib/resource.svelte";

interface Standing {
  lines: SauceLine[];
  left_frac: number;
  /** What was said and done next, for the trail. */
  round: string;
}

export class TasteBench {
  lines = $state.raw<SauceLine[]>([]);
  /** What cooking down leaves of it; 0: all. */
  left_frac = $state(0);
  role = $state<Role>("burger-sauce");
  school = $state("");
  onlyAdd = $state(false);
  locked = $state.raw<string[]>([]);
  proposed = $state.raw<{ handle: Handle; answer: NudgeAnswer } | null>(null);
  /** What can take the place of one ingredient. */
  offers = $state.raw<{ ingredient: string; offers: SwapOffer[] } | null>(null);
  refused = $state<string | null>(null);
  #left_g = 0;
  #past = $state.raw<Standing[]>([]);
  #taste = new Resource<null, SauceTaste>(async (_, signal) => {
    const answer = await api.tasteSauce(this.#asked(), signal);
    // A yield said in grams is a share from here on: more of everything leaves more.
    if (this.#left_g > 0 && !signal.aborted) {
      this.#left_g = 0;
      this.left_frac = answer.left_frac;
    }
    return answer;
  });

  get taste(): SauceTaste | null {
    return this.#taste.value;
  }
  get problem(): string | null {
    return this.refused ?? this.#taste.problem?.detail ?? null;
  }
  get canUndo(): boolean {
    return this.#past.length > 0;
  }
  /** The rounds so far, the first one first. */
  get rounds(): string[] {
    return this.#past.map((p) => p.round);
  }

  #asked() {
    return {
      lines: this.lines,
      left_g: this.#left_g,
      left_frac: this.left_frac,
      role: this.role,
      school: this.school,
    };
  }

  /** Ask how it tastes now. */
  ask(): void {
    if (this.lines.length > 0) this.#taste.ask(null);
  }

  /** Put a sauce on the bench: one from the pantry with its yield in grams, or where a school starts. */
  begin(
    lines: SauceLine[],
    {
      role,
      left_g = 0,
      left_frac = 0,
      school = "",
    }: { role: Role; left_g?: number; left_frac?: number; school?: string },
  ): void {
    this.lines = lines;
    this.role = role;
    this.#left_g = left_g;
    this.left_frac = left_frac;
    this.school = school;
    this.locked = [];
    this.proposed = null;
    this.offers = null;
    this.refused = null;
    this.#past = [];
    this.ask();
  }

  start(school: SauceSchool): void {
    this.begin(
      school.lines.map(([ingredient, mass_g]) => ({ ingredient, mass_g })),
      { role: school.roles[0] ?? "burger-sauce", left_frac: school.left_frac, school: school.key },
    );
  }

  /** Change the lines as one step that can be taken back. */
  #set(round: string, lines: SauceLine[], left_frac = this.left_frac): void {
    this.#past = [...this.#past, { lines: this.lines, left_frac: this.left_frac, round }];
    this.offers = null;
    this.lines = lines;
    this.left_frac = left_frac;
    this.proposed = null;
    this.refused = null;
    this.ask();
  }

  /** So much of it; nothing takes it out, but the last line stays. */
  setLine(ingredient: string, mass_g: number, round: string): void {
    const kept = this.lines
      .map((line) => (line.ingredient === ingredient ? { ...line, mass_g } : line))
      .filter((line) => line.mass_g > 0);
    if (kept.length === 0) this.refused = "A sauce keeps one line at least.";
    else this.#set(round, kept);
  }

  addLine(ingredient: string, mass_g: number, round: string): void {
    if (this.lines.some((line) => line.ingredient === ingredient))
      this.refused = "It is in the sauce already: change its grams.";
    else this.#set(round, [...this.lines, { ingredient, mass_g }]);
  }

  hold(ingredient: string): void {
    this.locked = this.locked.includes(ingredient)
      ? this.locked.filter((key) => key !== ingredient)
      : [...this.locked, ingredient];
    this.proposed = null;
  }

  undo(): void {
    const before = this.#past.at(-1);
    if (!before) return;
    this.#past = this.#past.slice(0, -1);
    this.lines = before.lines;
    this.left_frac = before.left_frac;
    this.proposed = null;
    this.ask();
  }

  async propose(handle: Handle): Promise<void> {
    await this.#told(async () => {
      const answer = await api.nudgeSauce({
        ...this.#asked(),
        handle,
        locked: this.locked,
        only_add: this.onlyAdd,
      });
      this.offers = null;
      this.proposed = { handle, answer };
    });
  }

  /** Take the proposal. */
  take(round: string): void {
    const answer = this.proposed?.answer;
    if (answer?.nudge) this.#set(round, answer.lines, answer.left_frac);
  }

  /** Bind it with starch instead: it goes in with the water it is stirred into, and stays in the pot. */
  bind(starch: { cornflour_g: number; cold_water_g: number }, round: string): void {
    void this.#told(async () => {
      const { cornflour_g, cold_water_g } = starch;
      const answer = await api.bindSauce({ ...this.#asked(), cornflour_g, cold_water_g });
      this.#set(round, answer.lines, answer.left_frac);
    });
  }

  /** Ask what can take the place of what cannot be had. */
  async lacks(ingredient: string): Promise<void> {
    await this.#told(async () => {
      this.proposed = null;
      this.offers = { ingredient, offers: await api.swaps({ lines: this.lines, ingredient }) };
    });
  }

  swap(offer: SwapOffer, round: string): void {
    this.#set(round, offer.lines);
  }

  /** Everything a line of text names goes in; false when a word of it was not read. */
  async compose(text: string, units: Units): Promise<boolean> {
    await this.#told(async () => {
      const answer = await api.composeSauce(this.lines, text, units);
      this.#set(text.trim(), answer.lines);
    });
    return this.refused === null;
  }

  /** The same sauce to another mass, or to what there is of one ingredient. */
  async scale(to: { whole_g: number; ingredient: string; mass_g: number }, round: string): Promise<void> {
    await this.#told(async () => {
      this.#set(round, await api.scaleSauce({ lines: this.lines, ...to }));
    });
  }

  /** Something was poured without measuring: the scale before and after says how much. */
  async poured(
    ingredient: string,
    before_g: number,
    after_g: number,
    round: (mass_g: number) => string,
  ): Promise<void> {
    await this.#told(async () => {
      const answer = await api.poured({ lines: this.lines, ingredient, before_g, after_g });
      this.#set(round(answer.mass_g), answer.lines);
    });
  }

  async #told(run: () => Promise<void>): Promise<void> {
    this.refused = null;
    try {
      await run();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.refused = error.problem.detail;
    }
  }

  close(): void {
    this.#taste.clear();
  }
}
