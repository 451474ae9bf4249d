"""Where the holes go: stations along the fold, measured from the leaf's head."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, TypeVar

from pleat.core.base.units import Ruler
from pleat.core.pleats.binding.record import Threaded
from pleat.core.trade.sewing import (
    COVER_MARGIN_MM,
    KETTLE_MM,
    LEAF_MARGIN_MM,
    LONGEST_SPAN_MM,
    STATION_SHARES,
)

T = TypeVar("T", bound=Threaded)


@dataclass(frozen=True)
class Layout:
    """How many places are set along the fold, and how far the outermost are from the ends by themselves: a
    share of the height, or kettles. Where ``tape_mm`` is given, all places but the two kettles are the
    middles of tapes so wide, each with a hole either side."""

    places: int
    ends: Literal["share", "kettle"] = "share"
    tape_mm: float = 0.0


def proposed(height_mm: float, counts: Sequence[int], ends: Literal["share", "kettle"] = "share") -> int:
    """The fewest of ``counts`` with which no span between holes is longer than LONGEST_SPAN_MM; the most of
    them where none is enough.

    >>> [proposed(height, (3, 5, 7)) for height in (148, 210, 220, 221, 420, 500)]
    [3, 3, 3, 5, 5, 7]
    """
    for count in counts:
        if ends == "kettle":
            inset = KETTLE_MM
        elif count in STATION_SHARES:
            inset = height_mm * STATION_SHARES[count][0]
        else:
            inset = height_mm / (count + 1)
        if (height_mm - 2 * inset) / max(count - 1, 1) <= LONGEST_SPAN_MM + 0.05:
            return count
    return counts[-1]


def default_insets(
    height_mm: float, layout: Layout, ruler: Ruler, spread: str = "usual"
) -> tuple[float, ...]:
    """Insets from the head, on marks of the ruler, from the outermost to the one next to the middle.

    >>> from pleat.core.base.units import RULERS
    >>> [round(d / 25.4, 6) for d in default_insets(8.25 * 25.4, Layout(3), RULERS["in"])]
    [1.5]
    """
    half = layout.places // 2
    if spread == "usual" and layout.ends == "share" and layout.places in STATION_SHARES:
        shares = [height_mm * share for share in STATION_SHARES[layout.places]]
    else:
        first = {"quarters": height_mm / 4, "even": max(KETTLE_MM, height_mm / 16)}.get(
            spread, KETTLE_MM if layout.ends == "kettle" else height_mm / (layout.places + 1)
        )
        step = (height_mm - 2 * first) / max(layout.places - 1, 1)
        shares = [first + step * number for number in range(half)]
    return tuple(min(max(ruler.snap(share), COVER_MARGIN_MM), height_mm / 2) for share in shares)


def insets_of(binding: Threaded, layout: Layout, height_mm: float, ruler: Ruler) -> tuple[float, ...]:
    """The maker's insets where there are as many as the places need, else the default ones."""
    if binding.insets_mm is not None and len(binding.insets_mm) == layout.places // 2:
        return binding.insets_mm
    return default_insets(height_mm, layout, ruler, binding.spread)


def is_unlocked(binding: Threaded, layout: Layout) -> bool:
    return binding.positions_mm is not None and len(binding.positions_mm) == layout.places


def place(binding: Threaded, layout: Layout, height_mm: float, ruler: Ruler) -> tuple[float, ...]:
    """The places in mm from the head, top to bottom; symmetric about the middle unless unlocked."""
    if is_unlocked(binding, layout):
        assert binding.positions_mm is not None
        return tuple(sorted(binding.positions_mm))
    insets = insets_of(binding, layout, height_mm, ruler)
    middle = (height_mm / 2,) if layout.places % 2 else ()
    return tuple(sorted((*insets, *middle, *(height_mm - inset for inset in insets))))


def holes(places: Sequence[float], layout: Layout) -> tuple[float, ...]:
    """The holes of places: each one, but a tape's middle stands for a hole either side of the tape, hard
    against its edges.

    >>> holes((12.0, 100.0, 188.0), Layout(3, "kettle", 10.0))
    (12.0, 95.0, 105.0, 188.0)
    """
    if not layout.tape_mm:
        return tuple(places)
    half = layout.tape_mm / 2
    return (
        places[0],
        *(hole for middle in places[1:-1] for hole in (middle - half, middle + half)),
        places[-1],
    )


def misfit(binding: Threaded, layout: Layout) -> int | None:
    """How many places were set where the binding has another number of them, so that they do not count; None
    where none were."""
    if binding.positions_mm is not None and len(binding.positions_mm) != layout.places:
        return len(binding.positions_mm)
    if (
        binding.positions_mm is None
        and binding.insets_mm is not None
        and len(binding.insets_mm) != layout.places // 2
    ):
        return 2 * len(binding.insets_mm) + layout.places % 2
    return None


def placed_by_hand(binding: Threaded, layout: Layout) -> bool:
    """Whether the stations lie where the maker put them."""
    return is_unlocked(binding, layout) or (
        binding.insets_mm is not None and len(binding.insets_mm) == layout.places // 2
    )


def move(binding: T, layout: Layout, index: int, to_mm: float, height_mm: float, ruler: Ruler) -> T:
    """The binding with place ``index`` (0 at the head) moved to ``to_mm`` from the head.

    A symmetric layout moves the opposite place too, and its middle stays where it is. Places keep at least
    one ruler mark of distance. Raises IndexError for a place that is not there.
    """
    positions = list(place(binding, layout, height_mm, ruler))
    if not 0 <= index < len(positions):
        raise IndexError(index)
    before = positions[index - 1] + ruler.step_mm if index else 0.0
    after = positions[index + 1] - ruler.step_mm if index + 1 < len(positions) else height_mm
    to_mm = min(max(to_mm, before), after)
    if is_unlocked(binding, layout):
        positions[index] = to_mm
        return binding.model_copy(update={"positions_mm": tuple(positions)})
    half = len(positions) // 2
    if len(positions) % 2 and index == half:
        return binding
    mirrored = min(index, len(positions) - 1 - index)
    insets = list(positions[:half])
    insets[mirrored] = to_mm if index < half else height_mm - to_mm
    return binding.model_copy(update={"insets_mm": tuple(insets)})


@dataclass(frozen=True)
class HoleRange:
    """Where holes may lie, in mm from the leaf's head: within every leaf, and far enough from the cover's
    ends."""

    low_mm: float
    high_mm: float

    @classmethod
    def of(cls, leaf_height_mm: float, heights_mm: Sequence[float], covered: bool) -> HoleRange:
        """The window of leaves of these heights, each centred on the fold, and of a cover where it is sewn
        with them."""
        lowest = min(heights_mm, default=leaf_height_mm)
        inset = max((leaf_height_mm - lowest) / 2 + LEAF_MARGIN_MM, COVER_MARGIN_MM if covered else 0.0)
        return cls(inset, leaf_height_mm - inset)
