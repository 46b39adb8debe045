"""A memory of bounded size: the newest stay, the oldest go, and threads may share it."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

from vianda.core.heat.engine import Key
from vianda.runtime.engine import MOST_KEPT, MOST_OTHERS, RememberingEngine
from vianda.runtime.newest import Newest


def test_the_one_asked_for_last_stays_and_the_oldest_goes() -> None:
    kept = Newest[str](2)
    kept.keep("a", "A")
    kept.keep("b", "B")
    assert kept.recall("a") == "A"
    kept.keep("c", "C")
    assert (kept.recall("a"), kept.recall("b"), kept.recall("c")) == ("A", None, "C")


def test_work_is_done_once_and_again_when_it_was_let_go() -> None:
    kept, worked = Newest[int](1), []

    def work(n: int) -> int:
        worked.append(n)
        return n

    assert [kept.of(n, lambda n=n: work(n)) for n in (1, 1, 2, 2, 1)] == [1, 1, 2, 2, 1]
    assert worked == [1, 2, 1]


def test_work_that_fails_is_not_kept() -> None:
    kept = Newest[int](2)
    for _ in range(2):
        try:
            kept.of("x", lambda: 1 // 0)
        except ZeroDivisionError:
            continue
        raise AssertionError
    assert kept.of("x", lambda: 7) == 7


def test_forgetting_forgets_all() -> None:
    kept = Newest[int](2)
    kept.keep("a", 1)
    kept.forget()
    assert kept.recall("a") is None


def test_many_threads_never_see_more_than_it_holds_or_a_foreign_answer() -> None:
    kept = Newest[int](5)
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(lambda n: kept.of(n % 9, lambda: n % 9), range(2000)))
    assert found == [n % 9 for n in range(2000)]


def test_an_engine_keeps_each_kind_apart() -> None:
    engine = RememberingEngine()
    few: list[Key] = [("cooked_of", n) for n in range(MOST_KEPT["cooked_of"] + 1)]
    for key in few:
        engine.keep(key, key)
    # Small things of another kind do not push whole runs out.
    for n in range(MOST_OTHERS + 1):
        engine.keep(("other", n), n)
    assert engine.recall(few[0]) is None
    assert engine.recall(few[1]) == few[1]
    assert engine.recall(("other", 0)) is None
    assert engine.recall(("other", 1)) == 1
    assert engine.recall(("third", 1)) is None
