/** The pantry room: what the server holds, and one place where each change is tried and refused in words. */
import { api, ProblemError, type Ingredient, type PantryThing } from "../../lib/api/client";
import { TableFile } from "../../lib/tableFile.svelte";
import { freshKey } from "../../lib/itemKey";

export const GROUPS: Record<Ingredient["group"], string> = {
  crumb: "Dry crumbs",
  bread: "Fresh bread",
  starch: "Rice, potato, flour",
  liquid: "Liquids",
  egg: "Egg and yolk",
  white: "Egg white",
  filling: "For the middle",
  cheese: "Cheese",
  onion: "Onion",
  vegetable: "Vegetables",
  tomato: "Tomato",
  herb: "Herbs",
  spice: "Spices and rubs",
  sauce: "Bottled sauces",
  salt: "Salt",
  fat: "Fats and oils",
  sweet: "Sweet",
  acid: "Sour",
};

export class PantryRoom {
  things = $state.raw<PantryThing[] | null>(null);
  problem = $state<string | null>(null);
  status = $state("");
  file = new TableFile(this, "pantry", (text) => api.importPantry(text));

  get house(): PantryThing[] {
    return (this.things ?? []).filter((t) => t.ingredient.house != null);
  }
  get bought(): PantryThing[] {
    return (this.things ?? []).filter((t) => t.ingredient.house == null);
  }

  /** A key nothing in the pantry has yet. */
  freeKey(name: string): string {
    return freshKey(
      name,
      (this.things ?? []).map((t) => t.ingredient.key),
      "thing",
    );
  }

  async load(): Promise<void> {
    await this.attempt(async () => {
      this.things = (await api.pantry()).ingredients;
    });
  }

  /** Run a change, then look at the pantry again. True when it was taken. */
  async attempt(run: () => Promise<void>, status = ""): Promise<boolean> {
    this.problem = null;
    try {
      await run();
      if (status) {
        this.things = (await api.pantry()).ingredients;
        this.status = status;
      }
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.status = "";
      if (error.problem.status === 409) {
        this.things = (await api.pantry()).ingredients;
        this.problem =
          "Another window changed it meanwhile. It is shown as it stands now; make your change again.";
      } else this.problem = error.problem.detail;
      return false;
    }
  }
}
