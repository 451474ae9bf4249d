"""A folded structure worked out: built, its faces dressed, shut, with the room its gussets give and need, its
pockets, and where no glue may go."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Final

from pleat.core.base.estimate import Estimate, total
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.assembly import Assembly, FoldFault, Key, Side, State
from pleat.core.engines.folding.convex import bounds
from pleat.core.engines.folding.pile import Gusset, faces, gussets, tabs, thickest
from pleat.core.engines.folding.pockets import FoldedPocket, Zone, pockets, zones
from pleat.core.engines.folding.programme import (
    Add,
    FoldResult,
    LayOperation,
    Programme,
    half_closed,
    with_boards,
    work,
)
from pleat.core.engines.folding.sheet import board
from pleat.core.pleats.structures.dressing import Dressing, Filling, places
from pleat.core.trade.folding import DRESSED_MM, GUSSET_SPARE_SHARE

MAT, FILLED, BARE = "mat", "mat and more", "more"
"""The stocks of what lies on a face: a paper, one with something on it, or that by itself."""
MOST_STATES: Final = 12
"""Of a thing with more states, only the first and the last are looked at for what shows."""
Sizes = Mapping[str, float]
Dressed = tuple[Key, Side]
"""A face that may be dressed: its panel and the side of it."""
Build = Callable[[Sizes], Programme]
"""A generator: the programme for gussets of these sizes in mm, by their name."""


@dataclass(frozen=True)
class Room:
    """A gusset or spine in mm: what it is called, the room it gives, and what lies between its two panels,
    draped beside it and stiff at the worst place. ``typed`` says that its size was decided and not
    proposed."""

    name: str
    wall: Key
    has_mm: float
    draped: Estimate
    stiff: Estimate
    typed: bool

    def proposed(self, ruler: Ruler) -> float:
        """What it is made by itself."""
        return proposed(self.stiff, ruler)


def proposed(need: Estimate, ruler: Ruler) -> float:
    """The size of a gusset for what lies in it: a tenth more, up to the ruler's next mark; never less than
    one."""
    return max(ruler.snap_up(need.likely * (1 + GUSSET_SPARE_SHARE)), ruler.step_mm)


@dataclass(frozen=True)
class Made:
    """A structure worked out. ``programme`` is the whole of it, dressed; ``shut_mm`` its thickness where it
    is thickest. There are ``copies`` of it in one book."""

    programme: Programme
    dressings: tuple[Dressing, ...]
    rooms: tuple[Room, ...]
    pockets: tuple[FoldedPocket, ...]
    zones: tuple[Zone, ...]
    faults: tuple[FoldFault, ...]
    thick: Estimate
    calipers: Mapping[str, Estimate]
    copies: int = 1
    bare: Programme | None = field(default=None, compare=False, repr=False)
    """The structure without the boards that are ``laid`` on it."""
    laid: tuple[tuple[Add, LayOperation], ...] = field(default=(), compare=False, repr=False)

    @cached_property
    def folded(self) -> FoldResult:
        """The programme done without what is laid on it: where its panels lie."""
        return work(self.bare or self.programme)

    @cached_property
    def worked(self) -> FoldResult:
        """The programme done with all that is on it, for drawings and the moving view: worked out when it is
        asked for."""
        return work(self.programme)

    def half_open(self, share: float) -> tuple[Assembly, State]:
        """The whole with its last group of folds so far done."""
        assembly = half_closed(self.folded, share)
        return with_boards(assembly, assembly.mark("half open"), self.laid)

    @property
    def places(self) -> int:
        """How many things go in, all faces together."""
        return sum(dressing.places for dressing in self.dressings) * self.copies


def _sizes(
    typed: Mapping[str, float | None], needs: Mapping[str, Gusset], least: Mapping[str, float], ruler: Ruler
) -> dict[str, float]:
    """The size of each gusset in mm: the typed one, or what lies in it asks for and ``least`` allows."""
    sizes = {}
    for name, size in typed.items():
        need = proposed(needs[name].stiff, ruler) if name in needs else ruler.step_mm
        sizes[name] = size or max(need, ruler.near(least.get(name, 0.0)))
    return sizes


def make(
    build: Build,
    typed: Mapping[str, float | None],
    filling: Filling,
    calipers: Mapping[str, Estimate],
    ruler: Ruler,
    *,
    skip: frozenset[str] = frozenset(),
    hidden: frozenset[Dressed] = frozenset(),
    least: Mapping[str, float] | None = None,
) -> Made:
    """A structure from its generator: gussets that are not ``typed`` get the size that what lies in them asks
    for. ``calipers`` are those of the stocks; pieces named in ``skip`` are not dressed, nor are the faces
    that are ``hidden``, and gussets are no narrower than ``least`` says. A gusset is called by its panel, or
    as ``panel of piece`` where several pieces have one of that name."""
    thick = dict(calipers)
    thick[FILLED] = total([calipers[MAT], filling.thick])
    thick[BARE] = filling.thick
    guess = {name: size or 3.0 for name, size in typed.items()}
    bare = build(guess)
    plain = work(bare)
    dressings = tuple(
        dressing for dressing in dressed(plain, filling, skip) if (dressing.key, dressing.side) not in hidden
    )
    filled, shut = with_boards(plain.assembly, plain.shut, _laid(dressings, filling))
    needs = {_called(gusset.wall, typed): gusset for gusset in gussets(filled, shut, thick)} if typed else {}
    sizes = _sizes(typed, needs, least or {}, ruler)
    rooms = tuple(
        Room(name, need.wall, sizes[name], need.draped, need.stiff, typed[name] is not None)
        for name, need in ((name, needs[name]) for name in typed if name in needs)
    )
    last = build(sizes) if sizes else bare
    moved = _moved(dressings, bare, last)
    found, laid = pockets(plain), _laid(moved, filling)
    return Made(
        _with(last, laid),
        moved,
        rooms,
        found,
        zones(bare, plain, found),
        tuple(plain.assembly.faults),
        thickest(filled, shut, thick),
        thick,
        bare=last,
        laid=laid,
    )


def _called(wall: Key, names: Mapping[str, float | None]) -> str:
    """What a gusset is called among these names."""
    piece, panel = wall
    return of if (of := f"{panel} of {piece}") in names else panel


def _with(programme: Programme, extras: Sequence[tuple[Add, LayOperation]]) -> Programme:
    return replace(programme, build=(*programme.build, *(one for pair in extras for one in pair)))


def dressed(worked: FoldResult, filling: Filling, skip: frozenset[str] = frozenset()) -> tuple[Dressing, ...]:
    """Every face that shows in some state and is large enough, with its paper and what lies on it. What a
    pocket covers of it is left out."""
    shown: dict[tuple[Key, Side], tuple[float, tuple[float, float, float, float], float]] = {}
    total_: dict[tuple[Key, Side], float] = {}
    last, less = len(worked.states) - 1, tabs(worked.assembly, worked.shut)
    for number, state in enumerate(worked.states):
        if 0 < number < last and last > MOST_STATES:
            continue
        for above in (True, False) if number in (0, last) else (True,):
            for face in faces(worked.assembly, state, above=above, less=less):
                at = (face.key, face.side)
                total_[at] = total_.get(at, 0.0) + face.area_mm2
                before = shown.get(at)
                if before is None or face.share > before[0] + 1e-6:
                    shown[at] = (face.share, bounds(face.largest), face.turn)
    dressings = []
    for (key, side), (_, box, turn) in shown.items():
        piece = worked.assembly.pieces[key[0]]
        left, top, right, bottom = box
        if key[0] in skip or piece.rigid or min(right - left, bottom - top) < DRESSED_MM:
            continue
        border = filling.border_mm
        wide, high = right - left - 2 * border, bottom - top - 2 * border
        if min(wide, high) <= 5:
            continue
        count, each = places(wide, high, filling)
        blank = piece.good == "A" and side == "B"
        dressings.append(
            Dressing(
                key,
                side,
                wide,
                high,
                (left + border, top + border),
                count,
                each,
                blank,
                total_[key, side],
                turn,
            )
        )
    return tuple(dressings)


def _moved(dressings: Sequence[Dressing], before: Programme, after: Programme) -> tuple[Dressing, ...]:
    """The dressings where their panels lie now that the gussets have their sizes: panels keep theirs, only
    their places on the sheet change."""
    old = {piece.name: piece for piece in before.pieces}
    new = {piece.name: piece for piece in after.pieces}
    found = []
    for dressing in dressings:
        was, now = (bounds(sheets[dressing.key[0]][dressing.key[1]].outline) for sheets in (old, new))
        found.append(
            replace(
                dressing, corner=(dressing.corner[0] + now[0] - was[0], dressing.corner[1] + now[1] - was[1])
            )
        )
    return tuple(found)


def _laid(dressings: Sequence[Dressing], filling: Filling) -> tuple[tuple[Add, LayOperation], ...]:
    """The papers and what lies on them, as pieces on their panels: one of each face."""
    found: list[tuple[Add, LayOperation]] = []
    for dressing in dressings:
        if filling.mats:
            wide, high, corner, stock = (
                dressing.width_mm,
                dressing.height_mm,
                dressing.corner,
                FILLED if dressing.places else MAT,
            )
        elif dressing.places:
            (wide, high), stock = dressing.each_mm, BARE
            corner = (
                dressing.corner[0] + (dressing.width_mm - wide) / 2,
                dressing.corner[1] + (dressing.height_mm - high) / 2,
            )
        else:
            continue
        name = f"on {dressing.key[0]} {dressing.key[1]} {dressing.side}"
        sheet = board(name, stock, wide, high)
        found.append(
            (Add(sheet), LayOperation((name, "body"), dressing.key, corner, face="B", side=dressing.side))
        )
    return tuple(found)
