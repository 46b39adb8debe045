import { createRouter } from "sv-router";
import BenchScreen from "./screens/bench/BenchScreen.svelte";
import KitchenScreen from "./screens/kitchen/KitchenScreen.svelte";
import LarderScreen from "./screens/larder/LarderScreen.svelte";
import LogEntry from "./screens/log/LogEntry.svelte";
import LogScreen from "./screens/log/LogScreen.svelte";
import PantryScreen from "./screens/pantry/PantryScreen.svelte";
import ShelfScreen from "./screens/shelf/ShelfScreen.svelte";
import SlipScreen from "./screens/slip/SlipScreen.svelte";
import StoveScreen from "./screens/stove/StoveScreen.svelte";
import WeighScreen from "./screens/weigh/WeighScreen.svelte";
import Lost from "./screens/Lost.svelte";

export const { p, navigate, isActive, route } = createRouter({
  "/": ShelfScreen,
  "/formula/:id/:step": BenchScreen,
  "/stove/:id": StoveScreen,
  "/weigh/:id": WeighScreen,
  "/log": LogScreen,
  "/log/:id": LogEntry,
  "/larder": LarderScreen,
  "/pantry": PantryScreen,
  "/slip/:id": SlipScreen,
  "/kitchen": KitchenScreen,
  "*": Lost,
});
