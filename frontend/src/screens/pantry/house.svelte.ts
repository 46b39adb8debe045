/** A house formula being written: lines as typed, read by the core one by one, and what it would come to. */
import { api, type HouseFigures, type Ingredient, type PantryThing } from "../../lib/api/client";
import { units } from "../../lib/units.svelte";
import { amount } from "../../lib/format";
import { Resource } from "../../lib/resource.svelte";

export interface TypedLine {
  ingredient: string;
  text: string;
}

const WAIT_MS = 250;

export class HouseDraft {
  name = $state("");
  group = $state<Ingredient["group"]>("spice");
  lines = $state<TypedLine[]>([]);
  yield = $state("");
  keeps = $state("7");
  method = $state("");
  acid = $state(false);
  retired = $state(false);
  cup = $state("0");
  notKept = $state<string | null>(null);

  #from: PantryThing | null;
  #figures = new Resource<null, HouseFigures | null>(
    async (_, signal) => {
      const ingredient = await this.written("draft-of-a-house-formula");
      if (signal.aborted || !ingredient.house?.lines.length) return null;
      return api.tryHouse(ingredient, signal);
    },
    { pauseMs: WAIT_MS },
  );

  get figures(): HouseFigures | null {
    return this.#figures.problem ? null : this.#figures.value;
  }
  /** Why it could not be kept, or cannot be computed. */
  get refused(): string | null {
    return this.notKept ?? this.#figures.problem?.detail ?? null;
  }

  constructor(from: PantryThing | null) {
    this.#from = from;
    const i = from?.ingredient;
    if (!i?.house) return;
    this.name = i.name;
    this.group = i.group;
    this.lines = i.house.lines.map((l) => ({
      ingredient: l.ingredient,
      text: amount({ kind: "mass_g", value: l.mass_g }, units),
    }));
    this.yield = i.house.yield_g ? amount({ kind: "mass_g", value: i.house.yield_g }, units) : "";
    this.keeps = String(i.house.keeps_days);
    this.method = i.house.method ?? "";
    this.acid = i.house.acid ?? false;
    this.retired = i.retired ?? false;
    this.cup = String(i.g_per_cup);
  }

  /** The draft as an ingredient; the core reads every amount. An empty yield means that nothing is lost. */
  async written(key: string): Promise<Ingredient> {
    const lines = await Promise.all(
      this.lines
        .filter((l) => l.ingredient && l.text.trim())
        .map(async (l) => ({
          ingredient: l.ingredient,
          mass_g: (await api.readAmount(l.ingredient, l.text, units.system)).mass_g,
        })),
    );
    const read = async (kind: "mass_g" | "number", text: string) =>
      (await api.read(kind, text, units.system)).value;
    return {
      key: this.#from?.ingredient.key ?? key,
      name: this.name.trim() || "unnamed",
      group: this.group,
      composition: {
        water_g_per_100g: 0,
        protein_g_per_100g: 0,
        fat_g_per_100g: 0,
        carbohydrate_g_per_100g: 0,
        ash_g_per_100g: 0,
        sodium_mg_per_100g: 0,
        sugars_g_per_100g: 0,
      },
      composition_note: "made in the house",
      g_per_cup: await read("number", this.cup || "0"),
      volume_source: "the cook's own",
      pieces: [],
      allergens: [],
      temp_c: this.#from?.ingredient.temp_c ?? 20,
      price_per_kg: "0",
      aliases: this.#from?.ingredient.aliases ?? [],
      remark: this.#from?.ingredient.remark ?? "",
      house: {
        lines,
        yield_g: this.yield.trim() ? await read("mass_g", this.yield) : 0,
        keeps_days: Math.round(await read("number", this.keeps || "0")),
        method: this.method,
        acid: this.acid,
      },
      retired: this.retired,
    };
  }

  /** What it would be, a moment after the last change. */
  compute(): void {
    this.#figures.ask(null);
  }

  close(): void {
    this.#figures.clear();
  }
}
