import { createRouter } from "sv-router";

// Each screen is fetched when it is first opened.
export const { p, navigate, isActive, route } = createRouter({
  "/": () => import("./screens/shelf/ShelfScreen.svelte"),
  "/formula/:id/:step": () => import("./screens/bench/BenchScreen.svelte"),
  "/stove/:id": () => import("./screens/stove/StoveScreen.svelte"),
  "/weigh/:id": () => import("./screens/weigh/WeighScreen.svelte"),
  "/log": () => import("./screens/log/LogScreen.svelte"),
  "/lots/:key": () => import("./screens/log/TraceScreen.svelte"),
  "/log/:id": () => import("./screens/log/LogEntry.svelte"),
  "/larder": () => import("./screens/larder/LarderScreen.svelte"),
  "/pantry": () => import("./screens/pantry/PantryScreen.svelte"),
  "/build/:id": () => import("./screens/build/BuildScreen.svelte"),
  "/slip/:id": () => import("./screens/slip/SlipScreen.svelte"),
  "/services": () => import("./screens/services/ServicesScreen.svelte"),
  "/shopping": () => import("./screens/shopping/ShoppingScreen.svelte"),
  "/butcher": () => import("./screens/butcher/ButcherScreen.svelte"),
  "/checks": () => import("./screens/checks/ChecksScreen.svelte"),
  "/prep": () => import("./screens/prep/PrepScreen.svelte"),
  "/services/:id/set-out": () => import("./screens/services/SetOutScreen.svelte"),
  "/services/:id/checks/:day": () => import("./screens/services/RecordScreen.svelte"),
  "/services/:id/cook": () => import("./screens/services/UnderwayScreen.svelte"),
  "/services/:id": () => import("./screens/services/ServiceScreen.svelte"),
  "/recipe": () => import("./screens/recipe/RecipeScreen.svelte"),
  "/first": () => import("./screens/first/FirstScreen.svelte"),
  "/kitchen": () => import("./screens/kitchen/KitchenScreen.svelte"),
  "*": () => import("./screens/Lost.svelte"),
});
