/** How a surface gives heat, as it is typed, and read by the core when it is kept. */
import { api, type Kitchen, type Units } from "../../lib/api/client";
import { amount } from "../../lib/format";

type Heating = Required<NonNullable<Kitchen["surfaces"][number]["heating"]>>;

export interface HeatingTyped extends Pick<Heating, "metal" | "power" | "fan" | "fuel" | "layout" | "lid"> {
  thickness: string;
  offset: string;
  broiler: string;
  outdoor: string;
  lasts: string;
  factor: string;
}

export function typedHeating(
  was: Partial<Heating> | undefined,
  units: Parameters<typeof amount>[1],
): HeatingTyped {
  const degrees = (value: number) => amount({ kind: "temp_c", value }, units);
  return {
    metal: was?.metal ?? "steel",
    power: was?.power ?? "usual",
    fan: was?.fan ?? true,
    fuel: was?.fuel ?? "charcoal",
    layout: was?.layout ?? "even",
    lid: was?.lid ?? true,
    thickness: was?.thickness_mm ? amount({ kind: "length_mm", value: was.thickness_mm }, units) : "",
    offset: amount({ kind: "delta_temp_k", value: was?.offset_k ?? 0 }, units),
    broiler: degrees(was?.broiler_c ?? 450),
    outdoor: degrees(was?.outdoor_c ?? 20),
    lasts: was?.lasts_min ? String(was.lasts_min) : "",
    factor: String(was?.heat_factor ?? 1),
  };
}

export async function readHeating(typed: HeatingTyped, system: Units): Promise<Heating> {
  const read = async (what: "length_mm" | "number" | "temp_c" | "delta_temp_k", text: string) =>
    (await api.read(what, text, system)).value;
  const { metal, power, fan, fuel, layout, lid } = typed;
  return {
    metal,
    power,
    fan,
    fuel,
    layout,
    lid,
    thickness_mm: typed.thickness ? await read("length_mm", typed.thickness) : 0,
    offset_k: await read("delta_temp_k", typed.offset || "0"),
    broiler_c: await read("temp_c", typed.broiler),
    outdoor_c: await read("temp_c", typed.outdoor),
    lasts_min: typed.lasts ? await read("number", typed.lasts) : 0,
    heat_factor: await read("number", typed.factor),
  };
}
