/** Keys that work unless the cook is typing. */
import { tinykeys } from "tinykeys";

export type KeyMap = Record<string, (event: KeyboardEvent) => void>;

function typing(event: KeyboardEvent): boolean {
  const target = event.target;
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

/** Bind keys to the window until the returned function is called. Undo works inside a figure too. */
export function bindKeys(map: KeyMap): () => void {
  const guarded = Object.fromEntries(
    Object.entries(map).map(([key, run]) => [
      key,
      (event: KeyboardEvent) => {
        if (typing(event) || event.defaultPrevented) return;
        run(event);
      },
    ]),
  );
  return tinykeys(window, guarded);
}
