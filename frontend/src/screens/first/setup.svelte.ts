// The answers as they stand; the core gives what is left empty its usual value.
import type { FirstKitchen } from "../../lib/api/client";

type Kind = FirstKitchen["surfaces"][number]["kind"];

class Thing {
  has = $state(false);
  width = $state("");
  depth = $state("");
  constructor(
    readonly kind: Kind,
    readonly title: string,
    readonly usual_cm: [string, string],
    readonly usual_in: [string, string],
    has: boolean,
  ) {
    this.has = has;
  }
}

const MONEY = { US: "USD", CA: "CAD", UK: "GBP", other: "EUR" } as const;

export class SetUp {
  name = $state("");
  country = $state<NonNullable<FirstKitchen["country"]>>("other");
  setting = $state<NonNullable<FirstKitchen["setting"]>>("home");
  unit_system = $state<NonNullable<FirstKitchen["unit_system"]>>("metric");
  currency_code = $state("");
  scale_step_g = $state<NonNullable<FirstKitchen["scale_step_g"]>>(1);
  salt = $state<NonNullable<FirstKitchen["salt"]>>("salt-fine");
  readonly things = [
    new Thing("pan", "Pan", ["24 cm", ""], ["9.5 in", ""], true),
    new Thing("oven", "Oven tray", ["44 cm", "35 cm"], ["17 in", "14 in"], true),
    new Thing("grate", "Grill", ["48 cm", "35 cm"], ["19 in", "14 in"], false),
    new Thing("plate", "Flat plate", ["40 cm", "30 cm"], ["16 in", "12 in"], false),
  ];

  get currency(): string {
    return MONEY[this.country];
  }

  countryChanged(): void {
    this.unit_system = this.country === "US" ? "us" : "metric";
  }

  body(): FirstKitchen {
    return {
      name: this.name,
      country: this.country,
      setting: this.setting,
      unit_system: this.unit_system,
      currency_code: this.currency_code,
      scale_step_g: this.scale_step_g,
      salt: this.salt,
      surfaces: this.things
        .filter((t) => t.has)
        .map((t) => ({ kind: t.kind, width: t.width, depth: t.kind === "pan" ? "" : t.depth })),
    };
  }
}
