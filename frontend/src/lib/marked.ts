// A text cut into stretches by the pieces that the core marked in it. Nothing is interpreted here.
import type { ReadPiece } from "./api/client";

export interface Segment {
  text: string;
  /** Index of the piece, or null for words between pieces. */
  piece: number | null;
  /** Whether this is the first stretch of its piece, where its meaning is written. */
  first: boolean;
}

/** Commas alone would float between the pieces. */
const says = (text: string) => /[\p{L}\p{N}\p{S}]/u.test(text);

export function segmentsOf(text: string, pieces: readonly ReadPiece[]): Segment[] {
  const stretches = pieces
    .flatMap((piece, at) =>
      piece.status === "noise" ? [] : piece.spans.map((span, n) => ({ ...span, at, first: n === 0 })),
    )
    .sort((a, b) => a.start - b.start);
  const chars = [...text];
  // The core counts characters; JavaScript counts UTF-16 units.
  const cut = (from: number, to: number) => chars.slice(from, to).join("").trim();
  const found: Segment[] = [];
  let last = 0;
  for (const s of stretches) {
    const between = cut(last, s.start);
    if (says(between)) found.push({ text: between, piece: null, first: false });
    found.push({ text: cut(s.start, s.end), piece: s.at, first: s.first });
    last = s.end;
  }
  const rest = cut(last, chars.length);
  if (says(rest)) found.push({ text: rest, piece: null, first: false });
  return found;
}
