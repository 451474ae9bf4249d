"""What the pleats hand on and show: figures that can be asked why, pieces, checks with offers, steps."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.scenes import Scene, SceneMaker
from pleat.core.base.slips import LEVELS, Level, SlipCode
from pleat.core.base.states import WorkTag, only_known
from pleat.core.base.yields import Lies
from pleat.core.trade.number import Origin
from pleat.core.trade.rules import origin_of

Mark = Literal["fine", "watch", "stop", "idle"]
Show = Literal["length", "thin", "fine", "size", "count", "text"]
Value = float | int | str | Estimate | tuple[float, float]


@dataclass(frozen=True)
class Rule:
    """Where a figure comes from: the number of the trade or the row of ``trade.rules`` it stands on, and the
    rule in words.

    Raises KeyError for a source that there is not.
    """

    source: str
    text: str

    def __post_init__(self) -> None:
        origin_of(self.source)

    @property
    def origin(self) -> Origin:
        """How sure it is."""
        return origin_of(self.source)


@dataclass(frozen=True, kw_only=True)
class Figure:
    """A number on the screen that can be asked why.

    ``show`` says how the value is set: ``length`` on the ruler, ``thin`` and ``fine`` finer than it (all in
    mm), ``size`` a (width, height) in mm, ``count`` a number with ``unit`` after it, ``text`` as it is.
    ``aside`` is said beside the value, where it must not wait to be asked for. ``scrap`` is what to write
    down of it for the bench.
    """

    key: str
    label: str
    value: Value
    show: Show
    how: str
    rules: tuple[Rule, ...]
    unit: str = ""
    aside: str = ""
    scrap: str = ""


@dataclass(frozen=True)
class Fold:
    """A fold line of a part: upright at a position in mm from its left edge as drawn, or level at one from
    its head."""

    position_mm: float
    direction: Literal["valley", "mountain"]
    axis: Literal["upright", "level"] = "upright"


Changes = tuple[tuple[str, object], ...]
"""What an offer sets: (path in the book, value) pairs."""


@dataclass(frozen=True, kw_only=True)
class Offer:
    """A change to the book that one tap takes: (path, value) pairs, with the facts to compare it by where
    several stand side by side.

    ``group`` names those that do; ``chosen`` marks the one the book goes now, ``good`` is False for one a
    check would speak against.
    """

    label: str
    changes: Changes
    facts: tuple[str, ...] = ()
    group: str = ""
    chosen: bool = False
    good: bool = True

    @property
    def key(self) -> str:
        """What it is found again by: offers that change the same are the same offer, whatever they are
        called."""
        return hashlib.sha256(repr(self.changes).encode()).hexdigest()[:12]


@dataclass(frozen=True, kw_only=True)
class Part:
    """A piece to be cut from stock. Width runs across the spine, height along it; grain ``h`` is along the
    spine.

    ``stock`` is the key of its stock in the palette. ``needs`` are the states of the work in which it may be
    cut, ``advice`` what to do just before; ``lies`` is the way round it has to lie. ``told`` names the slips
    that the pleat it comes from has told already, so that Cutting does not tell them again, and ``across``
    what comes of it when the grain runs across the spine. ``smaller`` gives the changes that would make it
    come out of a sheet of (width, height) in mm. So much as ``allowance_mm`` it is cut larger on every edge,
    to be trimmed off later; so many as ``twins`` have to match and come from one sheet (0: none have to).
    """

    key: str
    name: str
    width_mm: float
    height_mm: float
    count: int
    stock: str
    grain: Literal["w", "h"] = "h"
    folds: tuple[Fold, ...] = ()
    needs: tuple[str, ...] = ()
    advice: str = ""
    told: frozenset[str] = frozenset()
    lies: Lies = "auto"
    across: str = "it may warp"
    allowance_mm: float = 0.0
    twins: int = 0
    smaller: Callable[[float, float], tuple[Offer, ...]] | None = field(
        default=None, compare=False, repr=False
    )


@dataclass(frozen=True, kw_only=True)
class Length:
    """A length to be cut from a reel: thread, cord, elastic or tape; ``count`` of them for all books,
    ``stock`` as the materials name it."""

    key: str
    name: str
    length_mm: float
    count: int
    stock: str
    use: str = "binding"


@dataclass(frozen=True, kw_only=True)
class Count:
    """Things that are counted out: rings, staples, eyelets, magnets; ``count`` of them for all books."""

    key: str
    name: str
    count: int
    stock: str
    use: str = "binding"


Piece = Part | Length | Count
"""Whatever is taken from what the maker owns."""


@dataclass(frozen=True, kw_only=True)
class Check:
    """Something that can go wrong, in the maker's words. ``code`` is its slip's in the catalogue; ``of``
    tells apart what has the same slip: the role of a paper, the key of a part or step.

    A check without an offer says in ``no_fix`` what to do instead. Of offers that read alike only the first
    is kept: they differ by less than is shown, and a tap could not tell which was meant.
    """

    code: SlipCode
    level: Level
    title: str
    why: str
    offers: tuple[Offer, ...] = ()
    no_fix: str = ""
    of: str = ""

    @property
    def key(self) -> str:
        """What it is found again by in its pleat."""
        return f"{self.code}_{self.of}" if self.of else self.code

    def __post_init__(self) -> None:
        if not self.offers and not self.no_fix:
            raise ValueError(f"check {self.key} has neither an offer nor a word on why there is none")
        if len(self.offers) > 1:
            alike = {offer.label: offer for offer in reversed(self.offers)}
            object.__setattr__(
                self, "offers", tuple(offer for offer in self.offers if alike[offer.label] is offer)
            )


@dataclass(frozen=True, kw_only=True)
class Missing:
    """What is said when a step was ticked before this one, which has to come first: the slip, its words and
    why it matters."""

    slip: SlipCode
    words: str
    why: str
    done: str
    undo: str


WorkKind = Literal[
    "cut",
    "fold",
    "nest",
    "pierce",
    "sew",
    "glue",
    "cover",
    "hang",
    "punch",
    "decorate",
    "press",
    "measure",
    "tidy",
]
"""The sorts of work that a maker's pace is learned by."""
DAY_MINUTES: Final = 1440


@dataclass(frozen=True, kw_only=True)
class Step:
    """One thing to do at the bench. ``signature`` changes when the figures in it change, whatever ruler shows
    them.

    ``needs`` and ``gives`` are states of the work such as ``cover.scored``: a step waits for all steps that
    give what it needs, and a need that no step of this book gives is met. ``tags`` say what sort of work it
    is, for the rules on what comes before what. ``was`` is a key whose tick, with that signature, stands for
    this step too: what is several steps now was one. ``takes`` names the stocks whose sheets are used up by
    it, ``cuts`` the parts that it cuts out. ``for_all`` steps are done once for a whole run of books.
    ``minutes`` are those of the hands for one
    book (house rule); ``set_up`` of them are spent once, however many books follow, and ``pieces`` says how
    many times one book's share may be laid down. ``kind`` is the sort of work, by which a pace is learned.
    ``then`` names what follows at once, while it is wet; ``weights`` that it lies under weights until the
    maker takes it out. ``wait_minutes`` are the likely ones, ``waits`` their range.

    ``fixes`` are the pieces and things that become part of the book by it, as ``pleat.key``. ``uses`` are
    places that it works on and ``closes`` those that nobody gets to any more after it, such as
    ``leaves.flat``: a step that closes a place waits for all that use it. ``reading``
    is the field in which what is measured at it is typed. ``shows`` makes what it looks like,
    once that is asked for; without it a step looks like what it works on.
    """

    key: str
    title: str
    detail: str
    tools: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    gives: tuple[str, ...] = ()
    tags: frozenset[WorkTag] = frozenset()
    wait_minutes: int = 0
    cautions: tuple[str, ...] = ()
    signature: str = ""
    was: tuple[str, str] = ("", "")
    takes: tuple[str, ...] = ()
    cuts: tuple[str, ...] = ()
    for_all: bool = False
    minutes: float = 3
    missing: Missing | None = None
    kind: WorkKind = "tidy"
    set_up: float = 1
    pieces: int = 1
    then: tuple[str, ...] = ()
    weights: bool = False
    fixes: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()
    closes: tuple[str, ...] = ()
    reading: str = ""
    shows: SceneMaker | None = field(default=None, compare=False, repr=False)

    def __post_init__(self) -> None:
        for states in (self.needs, self.gives, self.uses, self.closes):
            only_known(states)

    @cached_property
    def scene(self) -> Scene | None:
        """What it looks like."""
        return self.shows() if self.shows else None

    @property
    def waits(self) -> tuple[int, int]:
        """(fewest, most) minutes until it is dry or pressed: the likely ones are a least, and a day is enough
        (house rule)."""
        return self.wait_minutes, min(4 * self.wait_minutes, DAY_MINUTES)

    def hands(self, books: int) -> float:
        """The minutes of the hands for so many books."""
        set_up = min(self.set_up, self.minutes)
        return self.minutes if self.for_all else set_up + (self.minutes - set_up) * books


@dataclass(frozen=True, kw_only=True)
class PleatResult:
    """What every pleat has: its key figure for the folded strip, all its figures, its checks, the ways it can
    go, the pieces it takes and what is done for it at the bench."""

    key_figure: Figure
    figures: tuple[Figure, ...]
    checks: tuple[Check, ...]
    offers: tuple[Offer, ...] = ()
    parts: tuple[Piece, ...] = ()
    steps: tuple[Step, ...] = ()

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
    """A signature as it is kept: a long one by its digest, so that a book stays small whatever it is made
    of."""
    return text if len(text) <= 200 else hashlib.sha256(text.encode()).hexdigest()
