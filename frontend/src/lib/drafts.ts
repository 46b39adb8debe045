/** Unsaved work, kept in this browser until the server has it. One draft a formula and window. */
import type { Edit, Formula } from "./api/client";
import { keepOwn, mayTakeUp, ownKey } from "./ownStore";

export interface Draft {
  revision: number;
  formula: Formula;
  /** What stood in the store when the work began; null where that is not known any more. */
  base?: Formula | null;
  waiting: Edit[];
  /** What was sent to be saved and not answered yet; null for none. It may stand in the store already. */
  sent: Formula | null;
  savedAt: number;
}

const TAB_KEY = "vianda.tab";
const ORPHAN_AFTER_MS = 10_000;

function tabId(): string {
  let id = sessionStorage.getItem(TAB_KEY);
  if (!id) {
    id = Math.random().toString(36).slice(2, 10);
    sessionStorage.setItem(TAB_KEY, id);
  }
  return id;
}

const prefix = (id: number) => `vianda.draft.${id}.`;

export function keepDraft(id: number, draft: Omit<Draft, "savedAt">): void {
  keepOwn(prefix(id) + tabId(), JSON.stringify({ ...draft, savedAt: Date.now() }));
}

export function dropDraft(id: number): void {
  keepOwn(prefix(id) + tabId(), null);
}

function read(key: string): Draft | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as Draft | null;
  } catch {
    return null;
  }
}

/** This window's draft, else the newest one a closed window left behind. It is taken over, not copied. */
export function findDraft(id: number): Draft | null {
  const own = read(ownKey(prefix(id) + tabId()));
  if (own) return own;
  const keys = Object.keys(localStorage).filter((key) => key.startsWith(prefix(id)) && mayTakeUp(key));
  let best: { key: string; draft: Draft } | null = null;
  for (const key of keys) {
    const draft = read(key);
    if (!draft || Math.abs(Date.now() - draft.savedAt) < ORPHAN_AFTER_MS) continue;
    if (!best || draft.savedAt > best.draft.savedAt) best = { key, draft };
  }
  if (best) localStorage.removeItem(best.key);
  return best?.draft ?? null;
}
