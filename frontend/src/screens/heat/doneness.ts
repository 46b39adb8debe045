/** How the doneness bands that the core names are coloured: from raw red to grey brown. */
const FILL: Record<string, string> = {
  rare: "#8f2436",
  "medium-rare": "#a03a44",
  medium: "#a14f48",
  "medium-well": "#8d5c45",
  "well-done": "#7c5a45",
};

export const donenessFill = (key: string): string => FILL[key] ?? "#7c5a45";
