/** Readings as a scale shows them: no decimals that it does not have. */
import { amount, G_PER_OZ } from "./format";
import { units } from "./units.svelte";

/** A reading or a tolerance: whole grams as the display counts, two decimals of an ounce. */
export function reading(grams: number): string {
  if (units.system === "us") return amount({ kind: "mass_g", value: grams }, units);
  const whole = Math.abs(grams - Math.round(grams)) < 0.05;
  return `${(whole ? Math.round(grams).toString() : grams.toFixed(1)).replace("-", "−")}\u00a0g`;
}

/** A mean or a spread: one decimal more than the readings have. */
export function fine(grams: number): string {
  const us = units.system === "us";
  return `${(us ? grams / G_PER_OZ : grams).toFixed(us ? 3 : 1).replace("-", "−")}\u00a0${us ? "oz" : "g"}`;
}

/** The number of the display alone, without its unit. */
export function digits(grams: number): string {
  return (units.system === "us" ? (grams / G_PER_OZ).toFixed(2) : String(grams)).replace("-", "−");
}
