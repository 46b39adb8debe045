/** A temperature as a cook taps it in, with the line up or down: a plain figure, in the units beside the field. */

/** Minus, up to three digits, a decimal comma or point. */
const FIGURE = /^[-−]?\d{1,3}(?:[.,]\d{1,2})?$/;

/** The figure, or null for what is none: nothing is guessed. */
export function figure(text: string): number | null {
  const typed = text.trim();
  return FIGURE.test(typed) ? Number(typed.replace("−", "-").replace(",", ".")) : null;
}
