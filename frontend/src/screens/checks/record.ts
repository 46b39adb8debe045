/** What a record says of its lines, and that they are not the last word. */
import type { CheckKind, CheckSheet } from "../../lib/api/client";

/** What may be measured beyond what a plan asks for. */
export const KINDS: readonly { key: CheckKind; title: string }[] = [
  { key: "cold", title: "Cold holding: a fridge, a display" },
  { key: "hot", title: "Hot holding" },
  { key: "cool", title: "Cooling: the first figure starts its clock" },
  { key: "reheat", title: "Warming up" },
  { key: "core", title: "A core" },
];

const COUNTRIES = {
  US: "the United States",
  CA: "Canada",
  UK: "the United Kingdom",
  other: "another country",
};

/** Whose lines these are. */
export const linesOf = ({ country, setting }: Pick<CheckSheet, "country" | "setting">): string =>
  `Lines of ${COUNTRIES[country]}, ${setting === "home" ? "at home" : "food service"}, as the kitchen stands now.`;

export const DEFERS =
  "The lines are published figures, from memory where the sources page says so. They never replace your local code, " +
  "your licence or your inspector; where those ask for more, they count.";
