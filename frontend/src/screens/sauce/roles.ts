/** What a thing beside the meat is for, in the order a cook is offered it. */
import type { Role } from "../../lib/api/client";

export const ROLES: { key: Role; title: string }[] = [
  { key: "burger-sauce", title: "Burger sauce" },
  { key: "glaze", title: "Glaze" },
  { key: "cooking-sauce", title: "Cooking sauce" },
  { key: "sauce-base", title: "Base of a meat sauce" },
  { key: "gravy", title: "Gravy" },
  { key: "relish", title: "Relish" },
  { key: "pickle", title: "Pickle" },
  { key: "ferment", title: "Ferment" },
  { key: "soft-onions", title: "Soft onions" },
  { key: "side", title: "Side" },
  { key: "topping", title: "Topping" },
];
