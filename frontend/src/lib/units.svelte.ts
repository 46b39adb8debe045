/** The units on the screen: one key flips g/°C/mm and oz/°F/in. Kept in this browser. */
import type { Units } from "./api/client";

const KEY = "vianda.units";

class UnitChoice {
  #system = $state<Units>(localStorage.getItem(KEY) === "us" ? "us" : "metric");
  currency = $state("");

  get system(): Units {
    return this.#system;
  }

  flip(): void {
    this.set(this.#system === "metric" ? "us" : "metric");
  }

  set(system: Units): void {
    this.#system = system;
    localStorage.setItem(KEY, system);
  }
}

export const units = new UnitChoice();
