/**
 * Whether the hand is on something, and for the how manyth time: what it moves until it lets go is one step back,
 * however slowly it moves or the browser tells.
 */
let times = 0;
let on = false;

export const hand = {
  take(): void {
    times += 1;
    on = true;
  },
  letGo(): void {
    on = false;
  },
  /** Which hold is under way; null while nothing is held. */
  get hold(): number | null {
    return on ? times : null;
  },
};
