import type { Catalogue, Evaluation, Formula, Kitchen, Sheets } from "../lib/api/client";
import type { Bench } from "../lib/bench.svelte";

/** What every step of the bench is given. */
export interface StepProps {
  bench: Bench;
  formula: Formula;
  evaluation: Evaluation;
  catalogue: Catalogue;
  kitchen: Kitchen;
  onworking: (working: string) => void;
}

/** What a tab is given that shows a sheet besides. */
export interface SheetProps extends StepProps {
  sheets: Sheets;
}
