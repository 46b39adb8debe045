/** The only rounding and unit display. The core sends exact figures; here they are cut for the eye. */
import type { Amount, Phrase, Units } from "./api/client";

export interface Display {
  system: Units;
  currency: string;
}

const GROUP = "\u202f"; // narrow no-break space, between groups of digits
const GAP = "\u00a0"; // no-break space, between a number and its unit
export const G_PER_OZ = 28.349523125;
const MM_PER_IN = 25.4;
const ML_PER_CUP = 236.5882365;

function grouped(value: number, digits: number): string {
  const [whole = "0", part] = Math.abs(value).toFixed(digits).split(".");
  const spaced = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, GROUP) : whole;
  const sign = value < 0 && Number(value.toFixed(digits)) !== 0 ? "−" : "";
  return sign + spaced + (part === undefined ? "" : `.${part}`);
}

/** Digits that keep about three meaningful figures for a mass. */
function massDigits(value: number): number {
  return value < 10 && value !== 0 ? 1 : 0;
}

/** Whole per cents stay whole; a tenth is shown where there is one. */
function fineDigits(percent: number): number {
  if (Math.abs(percent - Math.round(percent)) < 0.005) return 0;
  return percent < 0.1 ? 2 : 1;
}

export function time(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole >= 3600) {
    const h = Math.floor(whole / 3600);
    return `${h}:${String(Math.floor((whole % 3600) / 60)).padStart(2, "0")}:${String(whole % 60).padStart(2, "0")}`;
  }
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

type Shown = { number: string; unit: string };

function one(amount: Amount, value: number, show: Display): Shown {
  const us = show.system === "us";
  switch (amount.kind) {
    case "mass_g": {
      if (!us) return { number: grouped(value, massDigits(value)), unit: `${GAP}g` };
      const oz = value / G_PER_OZ;
      if (oz >= 32) {
        const lb = Math.floor(oz / 16 + 1e-9);
        const rest = oz - lb * 16;
        // 15.96 oz would read "16.0 oz"; then it is a pound more.
        if (rest >= 15.95) return { number: `${grouped(lb + 1, 0)}${GAP}lb 0.0`, unit: `${GAP}oz` };
        return { number: `${grouped(lb, 0)}${GAP}lb ${grouped(rest, 1)}`, unit: `${GAP}oz` };
      }
      return { number: grouped(oz, oz < 1 ? 2 : 1), unit: `${GAP}oz` };
    }
    case "temp_c":
      return us
        ? { number: grouped(value * 1.8 + 32, 0), unit: `${GAP}°F` }
        : {
            number: grouped(value, value % 1 > 0.05 && value % 1 < 0.95 && value < 100 ? 1 : 0),
            unit: `${GAP}°C`,
          };
    case "delta_temp_k":
      return us
        ? { number: grouped(value * 1.8, 0), unit: `${GAP}°F` }
        : { number: grouped(value, value > 0 && value < 10 && value % 1 > 0.05 ? 1 : 0), unit: `${GAP}°C` };
    case "length_mm":
      return us
        ? { number: grouped(value / MM_PER_IN, 2), unit: `${GAP}in` }
        : { number: grouped(value, value < 20 && value % 1 > 0.05 ? 1 : 0), unit: `${GAP}mm` };
    case "frac":
      return { number: grouped(value * 100, 0), unit: `${GAP}%` };
    case "fine_frac":
      return { number: grouped(value * 100, fineDigits(value * 100)), unit: `${GAP}%` };
    case "time_s":
      return { number: time(value), unit: "" };
    case "money":
      return { number: grouped(value, 2), unit: show.currency ? `${GAP}${show.currency}` : "" };
    case "price_per_kg":
      return us
        ? { number: grouped(value * 0.45359237, 2), unit: `${GAP}${show.currency}/lb` }
        : { number: grouped(value, 2), unit: `${GAP}${show.currency}/kg` };
    case "count":
      return { number: grouped(value, 0), unit: "" };
    case "number":
      return {
        number: grouped(value, value < 1 ? 2 : 1).replace(/\.0+$/, ""),
        unit: "",
      };
    case "density_g_per_ml":
      return { number: grouped(value, 3), unit: `${GAP}g/ml` };
    case "volume_ml":
      return us
        ? { number: grouped(value / ML_PER_CUP, 2), unit: `${GAP}cups` }
        : { number: grouped(value, value < 10 ? 1 : 0), unit: `${GAP}ml` };
    case "lean_to_fat": {
      const fat = Math.round(value * 100);
      return { number: `${100 - fat}${GAP}:${GAP}${fat}`, unit: "" };
    }
    case "per_hundred":
      return {
        number: grouped(value * 100, value <= 0 || value >= 0.9995 ? 0 : value < 0.00995 ? 2 : 1),
        unit: "",
      };
    case "minutes":
      return value >= 240
        ? { number: grouped(value / 60, 0), unit: `${GAP}h` }
        : { number: grouped(value, 0), unit: `${GAP}min` };
    case "energy_kcal":
      return { number: grouped(value, 0), unit: `${GAP}kcal` };
    case "mass_mg":
      return { number: grouped(value, 0), unit: `${GAP}mg` };
    case "word":
      return { number: amount.text ?? "", unit: "" };
    default:
      return { number: String(value), unit: "" };
  }
}

/** A quantity in the units on the screen; a range becomes "from–to" with one unit. */
export function amount(a: Amount, show: Display): string {
  const low = one(a, a.value ?? 0, show);
  if (a.high == null || a.high === undefined) return low.number + low.unit;
  const high = one(a, a.high, show);
  if (low.number === high.number) return high.number + high.unit;
  return `${low.number}–${high.number}${high.unit}`;
}

/** A quantity split into number and unit, for figures whose unit is set small. */
export function parts(a: Amount, show: Display): Shown {
  return one(a, a.value ?? 0, show);
}

/** A sentence with its quantities filled in. Places are filled once: a cook's own words are never read. */
export function phrase(p: Phrase, show: Display): string {
  return p.text.replace(/\{(\w+)\}/g, (whole, name: string) => {
    const a = p.amounts[name];
    return a ? amount(a, show) : whole;
  });
}

/** Per cent with one decimal on every row, for columns that are read downwards. */
export function percent(frac: number): string {
  return `${grouped(frac * 100, 1)}${GAP}%`;
}

/** A day of the cook's own calendar, with its year where it is not this one. */
export function day(iso: string): string {
  const at = new Date(iso);
  const old = at.getFullYear() !== new Date().getFullYear();
  return at.toLocaleDateString("en-GB", {
    day: "numeric",
    month: "short",
    ...(old && { year: "numeric" }),
  });
}

/** A moment as the cook's own clock and calendar say it. */
export function moment(iso: string): string {
  const clock = new Date(iso).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  return `${day(iso)}, ${clock}`;
}

/** Today's day, by this machine's calendar, as 2026-11-24. */
export function today(): string {
  return new Date().toLocaleDateString("sv-SE");
}
