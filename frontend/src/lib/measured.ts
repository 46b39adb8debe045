/** Who measures at this device, and when by its clock, which stands in for the kitchen's. */
import { foundLocally, keepLocally } from "./outbox.svelte";
import { today } from "./format";

const WHO = "vianda.who";

/** The name that was typed last in this browser; "" for none. */
export const whoMeasures = (): string => foundLocally<{ name: string }>(WHO)[0]?.name ?? "";

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
