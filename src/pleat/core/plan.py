"""What the pleats hand on and show: figures that can be asked why, parts, checks with fixes, steps."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from typing import Final, Literal

from pleat.core.estimate import Estimate

Origin = Literal["standard", "arithmetic", "common practice", "from memory", "measured by you", "house rule", "chosen by you"]
Level = Literal["stop", "watch", "note"]
Mark = Literal["fine", "watch", "stop", "idle"]
Show = Literal["length", "thin", "fine", "size", "count", "text"]
Value = float | int | str | Estimate | tuple[float, float]
LEVELS: Final[tuple[Level, ...]] = ("stop", "watch", "note")


@dataclass(frozen=True)
class Rule:
    """Where a figure comes from: the kind of origin and the rule in words."""

    origin: Origin
    text: str


@dataclass(frozen=True)
class Figure:
    """A number on the screen that can be asked why.

    ``show`` says how the value is set: ``length`` on the ruler, ``thin`` and ``fine`` finer than it
    (all in mm), ``size`` a (width, height) in mm, ``count`` a number with ``unit`` after it, ``text`` as it is.
    ``aside`` is said beside the value, where it must not wait to be asked for.
    """

    key: str
    label: str
    value: Value
    show: Show
    how: str
    rules: tuple[Rule, ...]
    unit: str = ""
    aside: str = ""


@dataclass(frozen=True)
class Fold:
    """A fold line of a part: upright at a position in mm from its left edge as drawn, or level at one from its head."""

    position_mm: float
    direction: Literal["valley", "mountain"]
    axis: Literal["upright", "level"] = "upright"


@dataclass(frozen=True)
class Part:
    """A piece to be cut from stock. Width runs across the spine, height along it; grain ``h`` is along the spine."""

    key: str
    name: str
    width_mm: float
    height_mm: float
    count: int
    material: Literal["leaf", "cover", "pile"]
    grain: Literal["w", "h"] = "h"
    folds: tuple[Fold, ...] = ()


@dataclass(frozen=True)
class Fix:
    """A change to the book that one tap applies: (path, value) pairs."""

    label: str
    changes: tuple[tuple[str, object], ...]


@dataclass(frozen=True)
class Check:
    """Something that can go wrong, in the maker's words. ``key`` is a slip's name such as ``A3`` or a plain word.

    A check without a fix says in ``no_fix`` what to do instead. Of fixes that read alike only the first is kept: they differ by less
    than is shown, and a tap could not tell which was meant.
    """

    key: str
    level: Level
    title: str
    why: str
    fixes: tuple[Fix, ...] = ()
    no_fix: str = ""

    def __post_init__(self) -> None:
        if not self.fixes and not self.no_fix:
            raise ValueError(f"check {self.key} has neither a fix nor a word on why there is none")
        if len(self.fixes) > 1:
            alike = {fix.label: fix for fix in reversed(self.fixes)}
            object.__setattr__(self, "fixes", tuple(fix for fix in self.fixes if alike[fix.label] is fix))


@dataclass(frozen=True)
class Choice:
    """One of several ways a pleat can go, side by side with the others: facts to compare, and the changes that take it.

    ``good`` is False for a way that a check would speak against, ``chosen`` marks the one the book goes now.
    """

    group: str
    label: str
    facts: tuple[str, ...]
    changes: tuple[tuple[str, object], ...]
    chosen: bool
    good: bool = True


@dataclass(frozen=True)
class Step:
    """One thing to do at the bench. ``signature`` changes when the figures in it change, whatever ruler shows them.

    ``takes`` names the stock whose sheets are used up by it. ``for_all`` steps are done once for a whole run of books.
    """

    key: str
    title: str
    detail: str
    tools: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    wait_minutes: int = 0
    cautions: tuple[str, ...] = ()
    signature: str = ""
    takes: Literal["leaf", "cover", ""] = ""
    for_all: bool = False


@dataclass(frozen=True, kw_only=True)
class PleatResult:
    """What every pleat has: its key figure for the folded strip, all its figures, and its checks."""

    key_figure: Figure
    figures: tuple[Figure, ...]
    checks: tuple[Check, ...]
    choices: tuple[Choice, ...] = ()

    @property
    def idle(self) -> bool:
        """Whether there is nothing in this pleat yet."""
        return False

    @property
    def worst_first(self) -> tuple[Check, ...]:
        """The checks, those that stop the work before those to watch and to know."""
        return tuple(sorted(self.checks, key=lambda check: LEVELS.index(check.level)))

    @property
    def mark(self) -> Mark:
        """The worst thing here: a note leaves a pleat fine."""
        levels = {check.level for check in self.checks}
        if "stop" in levels:
            return "stop"
        if "watch" in levels:
            return "watch"
        return "idle" if self.idle else "fine"


def signature(*values: object) -> str:
    """A short text that is equal for equal figures: lengths to a hundredth of a millimetre."""
    return shortened("|".join(f"{value:.2f}" if isinstance(value, float) else str(value) for value in values))


def shortened(text: str) -> str:
    """A signature as it is kept: a long one by its digest, so that a book stays small whatever it is made of."""
    return text if len(text) <= 200 else hashlib.sha256(text.encode()).hexdigest()
