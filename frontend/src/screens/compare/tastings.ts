/** What a tasting is called, what its tasters are asked, and what they answered so far. */
import type { TasterAnswer, Tasting, TastingKind } from "../../lib/api/client";

export const KINDS: Record<TastingKind, { title: string; asks: string; for: string }> = {
  triangle: {
    title: "Triangle",
    asks: "Two of the three are alike. Which is the odd one?",
    for: "Is there a difference at all?",
  },
  paired: { title: "Preference", asks: "Which one do you prefer?", for: "Which of two is liked better?" },
  ranking: {
    title: "Ranking",
    asks: "Put them in order, the best first.",
    for: "Which of three to five is liked best?",
  },
};

/** Version by letter, as it stands on the sheet of whoever serves. */
export const letter = (version: number): string => "ABCDE"[version] ?? "?";

/** The answers after a taster chose a code: one of them, or for a ranking the next in order; again takes it back. */
export function chosen(tasting: Tasting, taster: number, code: number): TasterAnswer[] {
  const answers = tasting.tasting.answers ?? [];
  const mine = answers.find((a) => a.taster === taster)?.codes ?? [];
  const others = answers.filter((a) => a.taster !== taster);
  return mine.length === 1 && mine[0] === code ? others : [...others, { taster, codes: [code] }];
}

/** Ranks as they are tapped, the best first; a ranking counts once all are tapped. */
export function ranked(codes: readonly number[], code: number): number[] {
  return codes.includes(code) ? codes.filter((c) => c !== code) : [...codes, code];
}
