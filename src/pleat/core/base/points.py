"""Where a kind plugs in: functions that are found by the type of what a pleat or a material comes to.

A kind that says nothing gets the general answer; ``docs/points.md`` lists the points and who has an answer of
its own, so that what a kind leaves to the general one is seen.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import singledispatch
from typing import TYPE_CHECKING, Any, Final, TypeVar

if TYPE_CHECKING:
    from functools import _SingleDispatchCallable

Answer = TypeVar("Answer")


@dataclass(frozen=True)
class PlugPoint:
    """A point: where it stands, what is asked there, and the function with all its answers."""

    where: str
    asks: str
    answers: _SingleDispatchCallable[Any]

    @property
    def own(self) -> tuple[type, ...]:
        """The types that have an answer of their own, in the order they were made known."""
        return tuple(one for one in self.answers.registry if one is not object)


POINTS: Final[dict[str, PlugPoint]] = {}
"""Every point by its name, once the module it stands in is loaded."""


def point(name: str, asks: str) -> Callable[[Callable[..., Answer]], _SingleDispatchCallable[Answer]]:
    """Makes a function a point, whose own words are the general answer. Raises ValueError for a second point
    of one name."""

    def made(general: Callable[..., Answer]) -> _SingleDispatchCallable[Answer]:
        if name in POINTS:
            raise ValueError(f"there are two points called {name}")
        answers = singledispatch(general)
        POINTS[name] = PlugPoint(f"{general.__module__}.{general.__name__}", asks, answers)
        return answers

    return made
