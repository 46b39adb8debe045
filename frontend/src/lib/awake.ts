/** Keeps the screen from going dark while it is looked at; the returned function lets it. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | null = null;
  let done = false;
  const wake = () =>
    navigator.wakeLock?.request("screen").then(
      (got) => {
        if (done) void got.release();
        else lock = got;
      },
      () => undefined, // Refused on low battery or in the background: everything goes on all the same.
    );
  const again = () => document.visibilityState === "visible" && void wake();
  void wake();
  document.addEventListener("visibilitychange", again);
  return () => {
    done = true;
    document.removeEventListener("visibilitychange", again);
    void lock?.release();
  };
}
