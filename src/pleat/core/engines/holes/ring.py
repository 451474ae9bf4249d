"""How many pages a ring holds: lying square, lying parallel, lying flat when open, and turning.

The ring is a circle of wire seen from the end of the book; a page is a line with a hole in it, and beyond the
hole a bridge of paper that lies inside the ring. The formulas are arithmetic; the tests turn a stack of rigid
pages round the ring in small steps against them.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Final, Literal

from pleat.core.trade.holes import RING_FREE_SHARE

LimitName = Literal["square", "parallel", "flat", "turns"]


@dataclass(frozen=True)
class Limits:
    """The thickest stack of pages in mm that lies square, that lies parallel, that lies flat open at any
    page, and that turns."""

    square: float
    parallel: float
    flat: float
    turns: float

    @property
    def works(self) -> float:
        """The thickest stack that is still a book: its pages lie on each other and turn. That they lie flat
        is a comfort of its own."""
        return min(self.parallel, self.turns)

    @property
    def proposed(self) -> float:
        """What is proposed: what works, less what is left free."""
        return (1 - RING_FREE_SHARE) * self.works


NOTHING: Final = Limits(0.0, 0.0, 0.0, 0.0)


@dataclass(frozen=True)
class Ring:
    """A round ring and the hole it goes through: the ring's inner radius, its wire, the hole's width, and
    from its middle to the page's edge; mm."""

    radius: float
    wire: float
    hole: float
    inset: float

    @property
    def bridge(self) -> float:
        """The paper between hole and edge, in mm."""
        return self.inset - self.hole / 2

    @cached_property
    def reach(self) -> float:
        """The least half chord of the ring in mm at which a page can lie: the bridge fits inside, and the
        hole takes the wire aslant."""
        aslant = (self.wire * (2 * self.radius + self.wire) / self.hole - self.hole) / 2
        return max(self.bridge / 2, aslant)

    @property
    def passes(self) -> bool:
        """Whether the wire goes through the hole and a page lies on the ring at all."""
        return self.wire <= self.hole and self.bridge > 0 and self.reach <= self.radius

    def height(self, half_chord: float) -> float:
        """How far from the middle of the ring its half chord is so long, in mm; 0 where it is nowhere."""
        return math.sqrt(max(self.radius**2 - half_chord**2, 0.0))

    @property
    def limits(self) -> Limits:
        """The four limits (arithmetic)."""
        return _limits(self)

    def _worked_out(self) -> Limits:
        if not self.passes:
            return NOTHING
        most = self.height(self.reach)
        flat = self.height(max(self.bridge, self.reach))
        square = 2 * self.height(max(self.reach, self.radius + self.wire - self.hole))
        lies = min(most + flat, 4 * flat) if self.bridge <= self.radius else 0.0
        return Limits(square, 2 * most, lies, self._turns(most))

    def _turns(self, most: float) -> float:
        """The upper pages, however many, turned over the rest. A page goes round the end of the bridge below
        it. Where the ring is smaller than the bridge, a single page has to get over all the others: steep it
        hangs beside them, low it clears them, and somewhere it changes from one to the other; and half of
        them together stand upright over the other half."""
        if self.reach >= self.bridge:
            return 2 * most
        chord = (self.bridge**2 + self.reach**2) / (2 * self.bridge)
        if chord > self.radius:
            return 0.0
        over = most + self.height(chord)
        if self.radius >= self.bridge:
            return over
        beside = math.acos(self.radius / self.bridge)
        if self.radius * math.sin(beside) > most:
            beside = math.atan((self.bridge - self.height(most)) / most)
        over = min(over, most + self.radius - self.bridge * math.sin(2 * beside))
        if over <= 0 or most - self.bridge + self.radius <= 0:
            return 0.0
        low, high = 0.0, min(over, 4 * self.radius)
        for _ in range(40):
            middle = (low + high) / 2
            fits = middle / 2 <= most - self.bridge + math.sqrt(max(self.radius**2 - middle**2 / 16, 0.0))
            low, high = (middle, high) if fits else (low, middle)
        return low


@lru_cache(maxsize=2048)
def _limits(ring: Ring) -> Limits:
    """Sizes side by side are asked about again and again."""
    return ring._worked_out()
