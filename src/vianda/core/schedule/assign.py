"""Who stands at what, and which place of a resource a task gets: at fixed times the one free longest suffices."""

from __future__ import annotations

from collections.abc import Mapping

from vianda.core.schedule.model import Problem, Slot


def assigned(
    problem: Problem,
    starts: Mapping[str, int],
    lengths: Mapping[str, int],
    *,
    was: Mapping[str, Slot] | None = None,
    cooks: Mapping[str, int] | None = None,
) -> tuple[Slot, ...]:
    """Slots with cooks and places, in the order in which they begin.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    starts : Mapping[str, int]
        When each begins, minutes from serving.
    lengths : Mapping[str, int]
        How long each is planned to take, minutes.
    was : Mapping[str, Slot] | None, default None
        Who had it and where it lay before: kept where they are free.
    cooks : Mapping[str, int] | None, default None
        Whose a task is, from 0, where that was settled together with the starts.

    Returns
    -------
    tuple[Slot, ...]
        Never two tasks at once for a cook or a place, if no more lie at once than there are.

    References
    ----------
    Colouring an interval graph greedily by start takes no more colours than overlap at once.
    """
    free_cook = [float("-inf")] * problem.cooks
    free_place = {r.key: [float("-inf")] * r.places for r in problem.resources}
    doing: dict[int, str] = {}
    lies: dict[tuple[str, int], str] = {}
    ends_before = {lag.after: lag.before for lag in problem.lags}
    found = []
    for task in sorted(problem.tasks, key=lambda t: (starts[t.key], t.key)):
        start, end = starts[task.key], starts[task.key] + lengths[task.key]
        cook = None
        if task.hands:
            able = [n for n in range(problem.cooks) if free_cook[n] <= start]
            if cooks:
                able = [cooks[task.key]]
            # Whoever did what comes before goes on with it; else whoever has been free longest.
            mine = was[task.key].cook if was and task.key in was else None
            cook = min(able, key=lambda n: (n != mine, doing.get(n) != ends_before.get(task.key), free_cook[n], n))
            free_cook[cook], doing[cook] = end, task.key
        places = []
        for key in task.needs:
            frees = free_place[key]
            able = [n for n, free in enumerate(frees) if free <= start]
            # What goes on where it was keeps its place.
            before = ends_before.get(task.key)
            lay = dict(was[task.key].places).get(key) if was and task.key in was else None
            place = min(able, key=lambda n: (n != lay, lies.get((key, n)) != before, frees[n], n))
            frees[place], lies[key, place] = end, task.key
            places.append((key, place))
        found.append(Slot(task.key, start, end, cook, tuple(places)))
    return tuple(found)
