/** Kinds of dish as lists name them. */
const TITLES: Record<string, string> = {
  burger: "Burgers",
  meatball: "Meatballs",
  meatloaf: "Meatloaves",
  sauce: "Meat sauces",
};
export const dishTitle = (key: string): string => TITLES[key] ?? key;
