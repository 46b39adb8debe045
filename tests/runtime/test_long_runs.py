"""Long runs stand in one line, few at once, behind everything else; nobody who has gone is waited for."""

from __future__ import annotations

import contextvars
import os
import threading
from collections.abc import Iterator

import pytest

from vianda.runtime import heavy
from vianda.runtime.heavy import GONE, LongRuns, NobodyWaitsError, TooManyError, in_a_long_run


def test_one_at_a_time_and_behind_all_others() -> None:
    runs = LongRuns(at_once=1, most=8)
    lock, at_work, most = threading.Lock(), [0], [0]

    def work() -> tuple[bool, int]:
        with lock:
            at_work[0] += 1
            most[0] = max(most[0], at_work[0])
        nice = os.getpriority(os.PRIO_PROCESS, threading.get_native_id())
        with lock:
            at_work[0] -= 1
        return in_a_long_run(), nice

    found: list[tuple[bool, int]] = []
    threads = [threading.Thread(target=lambda: found.append(runs.run(work))) for _ in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(30)
    assert (most[0], len(found)) == (1, 8)
    own = os.getpriority(os.PRIO_PROCESS, 0)
    assert all(long and nice == min(19, max(own, heavy.BEHIND)) for long, nice in found)
    assert not in_a_long_run()


def test_what_it_raises_is_raised_where_it_was_asked() -> None:
    with pytest.raises(ZeroDivisionError):
        LongRuns().run(lambda: 1 // 0)


def test_the_line_is_bounded_and_room_comes_back() -> None:
    runs, begun, go = LongRuns(at_once=1, most=2), threading.Event(), threading.Event()

    def held() -> None:
        begun.set()
        go.wait(30)

    waiting = [threading.Thread(target=lambda: runs.run(held)) for _ in range(2)]
    waiting[0].start()
    begun.wait(30)
    waiting[1].start()
    while runs._waiting < 2:
        threading.Event().wait(0.01)
    with pytest.raises(TooManyError):
        runs.run(lambda: 1)
    go.set()
    for thread in waiting:
        thread.join(30)
    assert runs.run(lambda: 1) == 1


def test_one_who_has_gone_is_not_waited_for_and_what_had_not_begun_is_never_done() -> None:
    runs, begun, go, done = LongRuns(at_once=1, most=8), threading.Event(), threading.Event(), []

    def held() -> None:
        begun.set()
        go.wait(30)

    first = threading.Thread(target=lambda: runs.run(held))
    first.start()
    begun.wait(30)
    here = contextvars.copy_context()
    here.run(GONE.set, lambda: True)
    with pytest.raises(NobodyWaitsError):
        here.run(runs.run, lambda: done.append(1))
    go.set()
    first.join(30)
    assert runs.run(lambda: "next") == "next"
    assert done == []


def test_steps_keep_their_place_and_end_as_the_work_does() -> None:
    runs = LongRuns(at_once=1, most=1)

    def three() -> Iterator[tuple[int, bool]]:
        for n in range(3):
            yield n, in_a_long_run()

    steps = runs.steps(three())
    assert next(steps) == (0, True)
    with pytest.raises(TooManyError):
        runs.run(lambda: 1)
    assert list(steps) == [(1, True), (2, True)]
    assert runs.run(lambda: 1) == 1
    # Half read and closed: its place is free again.
    half = runs.steps(three())
    next(half)
    half.close()  # type: ignore[attr-defined]
    assert runs.run(lambda: 1) == 1
