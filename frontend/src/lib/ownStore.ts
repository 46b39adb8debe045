/**
 * What is kept in this browser of whoever is signed in: another person at the same device finds their own, and sends
 * nothing under their name that somebody else did. Without accounts there is one cook, and keys have no owner.
 */
import { here } from "./api/ask";

/** Keys of what was done and waits to be sent; all else can be fetched again. */
const WAITING = ["draft", "ticks", "said", "stove", "weighing", "outcome"].map((name) => `vianda.${name}.`);

const mark = () => (here.person ? `@${here.person}` : "");
const hasOwner = (key: string) => /@\d+$/.test(key);

export const ownKey = (key: string): string => key + mark();
const isOwn = (key: string) => (here.person ? key.endsWith(mark()) : !hasOwner(key));
/** Whether what stands under a key is theirs, or nobody's: from the time before there were accounts. */
export const mayTakeUp = (key: string): boolean => isOwn(key) || !hasOwner(key);

/** Keep a text for whoever uses this browser; false when its store is full or forbidden. */
export function keepHere(key: string, text: string | null): boolean {
  try {
    if (text === null) localStorage.removeItem(key);
    else localStorage.setItem(key, text);
    return true;
  } catch {
    // What waits is still in this window and is still sent.
    return false;
  }
}

/** The same for whoever is signed in alone. */
export const keepOwn = (key: string, text: string | null): boolean => keepHere(ownKey(key), text);

export function foundOwn(key: string): string | null {
  const own = localStorage.getItem(ownKey(key));
  if (own !== null || !here.person) return own;
  // From the time before there were accounts: nobody's yet, and kept once.
  const before = localStorage.getItem(key);
  if (before !== null && keepOwn(key, before)) keepHere(key, null);
  return before;
}

function ownKeys(): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith("vianda.") && isOwn(key));
  } catch {
    // The store is forbidden: nothing is kept there.
    return [];
  }
}
const waits = (key: string) => WAITING.some((name) => key.startsWith(name));

/** How much of theirs waits here to be sent: drafts of formulas, and other things that were done. */
export function unsentHere(): { drafts: number; others: number } {
  const keys = ownKeys().filter(waits);
  const drafts = keys.filter((key) => key.startsWith("vianda.draft.")).length;
  return { drafts, others: keys.length - drafts };
}

/** Forget at this device what was fetched for them, and if they say so what waits as well. */
export function forgetOwn({ unsent }: { unsent: boolean }): void {
  if (!here.person) return;
  for (const key of ownKeys()) if (unsent || !waits(key)) localStorage.removeItem(key);
}
