"""When the last of many places has been held at a temperature long enough, in machine code."""

from __future__ import annotations

from vianda.core.heat.conduction.jit import compiled
from vianda.core.heat.conduction.meat import Array


@compiled
def last_held(times_s: Array, temp_c: Array, hold_c: float, hold_s: float) -> float:
    """Seconds until the last place (a column) stood at ``hold_c`` for ``hold_s`` without a break; −1: one never does.

    Between samples temperatures run straight.

    Parameters
    ----------
    times_s : Array
        Moments, s, rising, shape ``(n,)``.
    temp_c : Array
        Temperatures, °C, shape ``(n,)``.
    hold_c : float
        Hold, °C.
    hold_s : float
        Hold, s.

    Returns
    -------
    float
        Seconds until the last place (a column) stood at ``hold_c`` for ``hold_s`` without a break.
    """
    last = -1.0
    line = hold_c - 1e-9
    for place in range(temp_c.shape[1]):
        met = -1.0
        since = times_s[0] if temp_c[0, place] >= line else -1.0
        if since >= 0.0 and hold_s == 0.0:
            met = since
        for n in range(1, len(times_s)):
            if met >= 0.0:
                break
            before, now = temp_c[n - 1, place], temp_c[n, place]
            begun, ends = since, times_s[n]
            if before < line <= now:
                begun = times_s[n - 1] + (times_s[n] - times_s[n - 1]) * (hold_c - before) / (now - before)
            elif now < line <= before:
                # It stood there until it fell below.
                ends = times_s[n - 1] + (times_s[n] - times_s[n - 1]) * (hold_c - before) / (now - before)
            if begun >= 0.0 and ends - begun >= hold_s - 1e-9:
                met = begun + hold_s
            since = begun if now >= line else -1.0
        if met < 0.0:
            return -1.0
        last = max(last, met)
    return last
