import { createRouter } from "sv-router";
import BenchScreen from "./screens/bench/BenchScreen.svelte";
import KitchenScreen from "./screens/kitchen/KitchenScreen.svelte";
import LogEntry from "./screens/log/LogEntry.svelte";
import LogScreen from "./screens/log/LogScreen.svelte";
import ShelfScreen from "./screens/shelf/ShelfScreen.svelte";
import StoveScreen from "./screens/stove/StoveScreen.svelte";
import Lost from "./screens/Lost.svelte";

export const { p, navigate, isActive, route } = createRouter({
  "/": ShelfScreen,
  "/formula/:id/:step": BenchScreen,
  "/stove/:id": StoveScreen,
  "/log": LogScreen,
  "/log/:id": LogEntry,
  "/kitchen": KitchenScreen,
  "*": Lost,
});
