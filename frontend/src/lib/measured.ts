/** Who measures at this device, and when by its clock, which stands in for the kitchen's. */
import { today } from "./format";
import { foundLocally, keepLocally } from "./outbox.svelte";
import { session } from "./session.svelte";

const WHO = "vianda.who";

/** The name that was typed last in this browser by whoever is signed in, else their own; "" for none. */
export const whoMeasures = (): string =>
  foundLocally<{ name: string }>(WHO)[0]?.name ?? session.person?.name ?? "";

export function keepWho(name: string): string {
  const plain = name.trim();
  keepLocally(WHO, plain ? [{ name: plain }] : []);
  return plain;
}

/** Today, the minute since midnight, and who. */
export function measuredNow(): { day: string; minute: number; who: string } {
  const now = new Date();
  return { day: today(), minute: now.getHours() * 60 + now.getMinutes(), who: whoMeasures() };
}
