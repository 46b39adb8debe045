import type { HeatStage } from "../../lib/api/client";

/** Whether a stage lies before the heat, in a fridge or a freezer. */
export const isCold = (stage: { kind: HeatStage["kind"] }): boolean =>
  stage.kind === "chill" || stage.kind === "freeze";
