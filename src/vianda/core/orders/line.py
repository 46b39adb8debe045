"""The line: pieces lie on the surface, hands put portions together, and some pieces are held ready."""

from __future__ import annotations

import heapq
from collections import deque
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Kind = Literal["off", "cooked", "old", "arrive", "built"]


@dataclass(frozen=True, slots=True)
class Line:
    """What a kitchen puts portions out with.

    ``places`` pieces lie at once, each ``lies_min``; it can be built ``rests_min`` after it came off and is good for
    ``keeps_min`` from then. A portion has ``pieces``; one of ``cooks`` has it in hand for ``hands_min``.
    """

    places: int
    lies_min: float
    rests_min: float
    keeps_min: float
    pieces: int
    hands_min: float
    cooks: int

    def surface_per_hour(self) -> float:
        """Portions an hour that the surface holds.

        Returns
        -------
        float
            Portions (count an hour).
        """
        return 60.0 * self.places / (self.lies_min * self.pieces)

    def hands_per_hour(self) -> float:
        """Portions an hour that the hands hold.

        Returns
        -------
        float
            Portions (count an hour).
        """
        return 60.0 * self.cooks / self.hands_min


@dataclass(frozen=True, slots=True)
class Served:
    """One service: how long each order waited, min; pieces cooked and thrown away; most orders at once."""

    waits_min: tuple[float, ...]
    cooked: int
    wasted: int
    longest_queue: int


def served(line: Line, orders: Sequence[tuple[float, int]], *, ready: int) -> Served:
    """One service, order by order.

    Parameters
    ----------
    line : Line
        The kitchen.
    orders : Sequence[tuple[float, int]]
        Minute and portions of each, in the order in which they come.
    ready : int
        Pieces (count) that are ready or on the surface beyond what is ordered; they are there when it opens.

    Returns
    -------
    Served
        Orders are served first come, first served; whoever ordered last when the kitchen closes is still served.
    """
    return _Evening(line, orders, ready).run()


class _Evening:
    """The line while it runs."""

    def __init__(self, line: Line, orders: Sequence[tuple[float, int]], ready: int) -> None:
        self.line, self.orders, self.ready = line, orders, ready
        self.events: list[tuple[float, int, Kind, int]] = []
        self.count = 0
        self.free_places, self.free_cooks = line.places, line.cooks
        # Pieces to be laid; pieces ready, by the minute since when; portions that wait for pieces or for hands.
        self.to_lay = 0
        self.shelf: deque[float] = deque()
        self.want_pieces: deque[list[int]] = deque()
        self.want_hands: deque[int] = deque()
        self.left = [portions for _, portions in orders]
        self.done = [0.0] * len(orders)
        self.cooked = self.coming = self.wasted = self.open_orders = self.longest = 0
        self.closed = not orders

    def at(self, minute: float, kind: Kind, number: int = 0) -> None:
        self.count += 1
        heapq.heappush(self.events, (minute, self.count, kind, number))

    def run(self) -> Served:
        line = self.line
        self.shelf.extend([0.0] * self.ready)
        self.cooked += self.ready
        if self.ready:
            self.at(line.keeps_min, "old")
        for n, (minute, _) in enumerate(self.orders):
            self.at(minute, "arrive", n)
        while self.events:
            now, _, kind, number = heapq.heappop(self.events)
            getattr(self, f"_{kind}")(now, number)
            self._lay(now)
            self._build(now)
        return Served(
            tuple(end - minute for end, (minute, _) in zip(self.done, self.orders, strict=True)),
            self.cooked,
            self.wasted + len(self.shelf),
            self.longest,
        )

    def _arrive(self, now: float, number: int) -> None:
        self.open_orders += 1
        self.longest = max(self.longest, self.open_orders)
        portions = self.orders[number][1]
        self.want_pieces.extend([number, self.line.pieces] for _ in range(portions))
        self.to_lay += portions * self.line.pieces
        self._match()
        if number == len(self.orders) - 1:
            self._close()

    def _cooked(self, now: float, number: int) -> None:
        self.coming -= number
        self.shelf.extend([now] * number)
        self._match()
        if self.shelf and self.shelf[-1] == now:
            self.at(now + self.line.keeps_min, "old")

    def _old(self, now: float, number: int) -> None:
        while self.shelf and self.shelf[0] <= now - self.line.keeps_min + 1e-9:
            self.shelf.popleft()
            self.wasted += 1
            self.to_lay += not self.closed

    def _close(self) -> None:
        """Nothing is cooked ahead any more once the last has ordered."""
        self.closed = True
        owed = sum(pieces for _, pieces in self.want_pieces)
        # What was to be laid for the shelf only is not laid any more.
        self.to_lay = min(self.to_lay, max(0, owed - self.coming))

    def _off(self, now: float, number: int) -> None:
        self.free_places += number

    def _built(self, now: float, number: int) -> None:
        self.free_cooks += 1
        self.left[number] -= 1
        if self.left[number] == 0:
            self.done[number] = now
            self.open_orders -= 1

    def _match(self) -> None:
        """The piece that is oldest goes to the portion that waits longest."""
        while self.shelf and self.want_pieces:
            self.shelf.popleft()
            portion = self.want_pieces[0]
            portion[1] -= 1
            if portion[1] == 0:
                self.want_pieces.popleft()
                self.want_hands.append(portion[0])

    def _lay(self, now: float) -> None:
        line = self.line
        # All that can be laid now is laid together and comes off together.
        count = min(self.to_lay, self.free_places)
        if count > 0:
            self.to_lay -= count
            self.free_places -= count
            self.cooked += count
            self.coming += count
            self.at(now + line.lies_min, "off", count)
            self.at(now + line.lies_min + line.rests_min, "cooked", count)

    def _build(self, now: float) -> None:
        while self.want_hands and self.free_cooks > 0:
            self.free_cooks -= 1
            self.at(now + self.line.hands_min, "built", self.want_hands.popleft())
