import type { HeatStage } from "../../lib/api/client";

/** Where a stage lies. What may be chosen is the core's to say; these are its words. */
export const WHERE: Record<HeatStage["kind"], string> = {
  chill: "in the fridge",
  freeze: "in the freezer",
  surface: "on the surface",
  indirect: "beside the fire",
  smoke: "in gentle smoke",
  oven: "in the oven",
  broiler: "under the broiler",
  fry: "in the fat",
  simmer: "in the sauce",
};
