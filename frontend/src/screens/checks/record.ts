/** What a record says of its lines, and that they are not the last word. */
import type { CheckSheet } from "../../lib/api/client";

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
