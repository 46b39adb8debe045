/** One change made of a formula as it stands, and kept as a version under the words of the change. */
import { api, type Edit, type Phrase } from "./api/client";
import { phrase } from "./format";
import { units } from "./units.svelte";

/** The names of versions are no longer than this. */
const LONGEST = 80;

export async function newVersion(formula_id: number, change: { label: Phrase; edit: Edit }): Promise<number> {
  const stored = await api.formula(formula_id);
  const next = await api.evaluate(stored.formula, [change.edit], units.system);
  const saved = await api.saveFormula(formula_id, next.formula, stored.revision);
  await api.keepVersion(saved.id, phrase(change.label, units).slice(0, LONGEST));
  return saved.id;
}
