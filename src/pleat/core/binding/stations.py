"""Where the holes go: stations along the fold, measured from the leaf's head."""

from __future__ import annotations

from typing import Final

from pleat.core.binding.record import Pamphlet
from pleat.core.units import Ruler

LEAF_MARGIN_MM: Final = 5.0
"""A station lies at least this far inside the leaf's own head and tail, or it tears out (common practice)."""
COVER_MARGIN_MM: Final = 10.0
"""No station nearer than this to the cover's head or tail (common practice: 8 to 10 mm)."""
_INSETS: Final[dict[int, tuple[float, ...]]] = {3: (1.5 / 8.25,), 5: (1.5 / 8, 3 / 8)}
"""Insets as shares of the height: 1.5 in on 8.25 in; 1.5 and 3 in on 8 in (common practice)."""


def default_insets(height_mm: float, count: int, ruler: Ruler) -> tuple[float, ...]:
    """Insets from the head for ``count`` stations on a spine of ``height_mm``, on marks of the ruler.

    >>> from pleat.core.units import RULERS
    >>> [round(d / 25.4, 6) for d in default_insets(8.25 * 25.4, 3, RULERS["in"])]
    [1.5]
    """
    shares = _INSETS[count]
    return tuple(min(max(ruler.snap(height_mm * share), COVER_MARGIN_MM), height_mm / 2) for share in shares)


def insets_of(binding: Pamphlet, height_mm: float, ruler: Ruler) -> tuple[float, ...]:
    """The maker's insets where there are as many as the stations need, else the default ones."""
    wanted = binding.station_count // 2
    if binding.insets_mm is not None and len(binding.insets_mm) == wanted:
        return binding.insets_mm
    return default_insets(height_mm, binding.station_count, ruler)


def is_unlocked(binding: Pamphlet) -> bool:
    return binding.positions_mm is not None and len(binding.positions_mm) == binding.station_count


def place(binding: Pamphlet, height_mm: float, ruler: Ruler) -> tuple[float, ...]:
    """Stations in mm from the head, top to bottom; symmetric about the middle unless unlocked."""
    if is_unlocked(binding):
        assert binding.positions_mm is not None
        return tuple(sorted(binding.positions_mm))
    insets = insets_of(binding, height_mm, ruler)
    return tuple(sorted((*insets, height_mm / 2, *(height_mm - inset for inset in insets))))


def misfit(binding: Pamphlet) -> int | None:
    """How many stations were placed where the binding has another number of them, so that they do not count; None where none were."""
    if binding.positions_mm is not None and len(binding.positions_mm) != binding.station_count:
        return len(binding.positions_mm)
    if binding.positions_mm is None and binding.insets_mm is not None and len(binding.insets_mm) != binding.station_count // 2:
        return 2 * len(binding.insets_mm) + 1
    return None


def placed_by_hand(binding: Pamphlet) -> bool:
    """Whether the stations lie where the maker put them."""
    return is_unlocked(binding) or (binding.insets_mm is not None and len(binding.insets_mm) == binding.station_count // 2)


def move(binding: Pamphlet, index: int, to_mm: float, height_mm: float, ruler: Ruler) -> Pamphlet:
    """The binding with station ``index`` (0 at the head) moved to ``to_mm`` from the head.

    A symmetric layout moves the opposite station too, and its middle stays where it is. Stations keep at
    least one ruler mark of distance. Raises IndexError for a station that is not there.
    """
    positions = list(place(binding, height_mm, ruler))
    if not 0 <= index < len(positions):
        raise IndexError(index)
    before = positions[index - 1] + ruler.step_mm if index else 0.0
    after = positions[index + 1] - ruler.step_mm if index + 1 < len(positions) else height_mm
    to_mm = min(max(to_mm, before), after)
    if is_unlocked(binding):
        positions[index] = to_mm
        return binding.model_copy(update={"positions_mm": tuple(positions)})
    middle = len(positions) // 2
    if index == middle:
        return binding
    mirrored = index if index < middle else len(positions) - 1 - index
    insets = list(positions[:middle])
    insets[mirrored] = to_mm if index < middle else height_mm - to_mm
    return binding.model_copy(update={"insets_mm": tuple(insets)})
