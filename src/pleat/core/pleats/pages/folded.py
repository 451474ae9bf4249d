"""Blocks that are folded and glued from sheets: a kind hands its generator, and everything that follows from
it is worked out here."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.kinds import TAG, UnitKind
from pleat.core.base.plan import Changes, Check, Figure, Offer, Piece, Rule, Step
from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.engines.folding.assembly import Key, Side
from pleat.core.engines.folding.flat import Dragged, FieldAnchor, Flat, spots
from pleat.core.engines.folding.programme import Add, Operation, Programme
from pleat.core.pleats.brief.resize import possible, resized
from pleat.core.pleats.pages.block import Block, LeftOfPages, Unit
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.pleats.structures import checks, cut, fastened, figures, pads, work
from pleat.core.pleats.structures.drawn import written
from pleat.core.pleats.structures.dressing import Dressed, Filling, filling
from pleat.core.pleats.structures.fastened import Fastened
from pleat.core.pleats.structures.made import MAT, Build, Made, Room, Sizes, make
from pleat.core.pleats.structures.pads import FromPad

CARD: Final = "card"


@dataclass(frozen=True, kw_only=True)
class FoldedBlock(Block):
    """A block made by a folding programme; ``flats`` are its pieces as they are cut, ``spots`` the fields
    that stand on their drawing. ``gussets`` are the paths of the fields of its gussets by their names,
    ``dragged`` are scores that may be moved."""

    made: Made = field(compare=False)
    programme: Programme
    flats: tuple[Flat, ...]
    spots: tuple[FieldAnchor, ...] = ()
    gussets: Mapping[str, str] = field(default_factory=dict)
    dragged: tuple[Dragged, ...] = ()
    panels: int = 1
    called: str = "panels"

    @property
    def ready(self) -> tuple[str, ...]:
        """The states of the work in which it is made."""
        return tuple(
            dict.fromkeys((*self.cut_states, *(state for step in self.steps for state in step.gives)))
        )

    @property
    def cut_states(self) -> tuple[str, ...]:
        return work.cut_out(self.made)

    @property
    def in_words(self) -> str:
        """Its panels and faces together."""
        return f"{counted_as(self.panels, self.called)}, {2 * self.panels} faces"


def counted_as(number: int, called: str) -> str:
    """So many panels or leaves.

    >>> counted_as(1, "panels"), counted_as(1, "leaves"), counted_as(3, "panels")
    ('1 panel', '1 leaf', '3 panels')
    """
    return many(number, {"panels": "panel", "leaves": "leaf"}.get(called, called), called)


@dataclass(frozen=True)
class FoldedSpec:
    """What a kind says of itself: what it is called, its generator for a leaf of (width, height) in mm, its
    gussets with what was typed of them, and the paths of their fields.

    ``skip`` are the pieces that are not dressed, ``hidden`` the faces that nobody sees, ``later`` the pieces
    that what holds it glues on. ``places`` are the fields that stand on its drawing: (path, piece, panel,
    value by itself). ``figures``, ``checks`` and ``steps`` come before those that all structures have.
    ``unit`` is what bindings hold, ``times`` how many of each sort of piece there are for one book, where the
    programme has one for many. ``less_mm`` is how much smaller its panels are than the leaf, ``least`` how
    wide a gusset has to be at least, ``calipers`` how thick what slides in is. Of a leaf that is made
    ``copies`` times, ``held`` says how thick one is at its held edge, and how much thicker away from it,
    ``hinge_mm`` how wide its hinge is; ``states`` begins the names of the states of the work.
    """

    title: str
    at: Callable[[float, float], Build]
    typed: Mapping[str, float | None] = field(default_factory=dict)
    paths: Mapping[str, str] = field(default_factory=dict)
    places: tuple[tuple[str, str, str, float], ...] = ()
    figures: Callable[[Made], tuple[Figure, ...]] = lambda _made: ()
    checks: Callable[[Made], tuple[Check, ...]] = lambda _made: ()
    steps: Callable[[Made], tuple[Step, ...]] = lambda _made: ()
    offers: tuple[Offer, ...] = ()
    unit: UnitKind = "folio"
    times: Mapping[str, int] = field(default_factory=dict)
    leaves: int = 0
    skip: frozenset[str] = frozenset()
    hidden: frozenset[tuple[Key, Side]] = frozenset()
    later: frozenset[str] = frozenset()
    less_mm: float = 0.0
    calipers: Mapping[str, Estimate] = field(default_factory=dict)
    dragged: tuple[Dragged, ...] = ()
    mend: Callable[[Room, float], Changes] | None = None
    least: Mapping[str, float] = field(default_factory=dict)
    copies: int = 1
    panels: str = "panels"
    states: str = "folio"
    last: Callable[[tuple[str, ...]], tuple[Step, ...]] = lambda _ready: ()
    held: Callable[[Made, LeftOfPages], tuple[Estimate, float]] | None = None
    hinge_mm: float | None = None


def compute(record: FromPad, left: LeftOfPages, spec: FoldedSpec) -> FoldedBlock:
    """A structure as a block."""
    brief, ruler, fill = left.brief, left.brief.ruler, filling(record)
    stocks = {key: left.paper.stock(key) for key in (CARD, MAT, "leaf", "board")}
    size = (brief.leaf_width_mm, brief.leaf_height_mm)
    thick = {key: stock.caliper for key, stock in stocks.items()}
    calipers = {**thick, "offcut": thick[CARD], **spec.calipers}
    programme = _suited(spec.at(*size), stocks)
    skip, hidden, least = spec.skip, spec.hidden, spec.least
    one = make(programme, spec.typed, fill, calipers, ruler, skip=skip, hidden=hidden, least=least)
    made = replace(one, copies=spec.copies)
    flats = cut.flats(made)
    panels = spec.leaves or sum(1 for dressing in made.dressings if dressing.side == "A") * spec.copies or 1
    fits = _fits(
        left,
        fill,
        spec.less_mm,
        lambda offer: bool(made.places) or _takes(offer, spec, stocks, fill, (calipers, ruler)),
    )
    asked = checks.CheckContext(
        made, record, fill, ruler, stocks, spec.paths, fits=fits, mend=spec.mend, leaves=spec.leaves
    )
    count = _count(spec, made, panels)
    edge, more = spec.held(made, left) if spec.held else (made.thick, 0.0)
    return FoldedBlock(
        key_figure=count,
        figures=(count, *_figures(record, spec, made, fill, (ruler, stocks[MAT]))),
        checks=(*spec.checks(made), *checks.find(asked), *_of_papers(record, made, stocks[MAT], ruler)),
        offers=(
            *spec.offers,
            *pads.offers(record, made, stocks[MAT]),
            *fits,
            *_from_sheet(left, spec, stocks, made),
            *_free(record, left, spec, made),
        ),
        parts=_parts(record, left, spec, made, fill),
        steps=_steps(record, spec, made, fill, ruler),
        unit=spec.unit,
        units=(Unit(edge, 1.0),) * spec.copies,
        leaves=panels,
        leaf_width_mm=size[0],
        leaf_height_mm=size[1],
        thickness=edge.times(spec.copies),
        measured=False,
        stands_out_mm=None,
        middle_mm=more * spec.copies,
        middle_each_mm=more,
        leaf_mm=edge.likely,
        own_hinge_mm=spec.hinge_mm,
        swatch=stocks[CARD].swatch,
        sides=stocks[CARD].sides,
        made=made,
        programme=made.programme,
        flats=flats,
        spots=spots(spec.places, flats),
        gussets=spec.paths,
        dragged=spec.dragged,
        panels=panels,
        called=spec.panels,
    )


def _of_papers(record: FromPad, made: Made, mats: Stock, ruler: Ruler) -> tuple[Check, ...]:
    """What is wrong with the papers of a pad, and with fasteners."""
    held = fastened.checks(record, made, ruler) if isinstance(record, Fastened) else ()
    return (*pads.checks(record, made, mats), *held)


def _parts(
    record: FromPad, left: LeftOfPages, spec: FoldedSpec, made: Made, fill: Filling
) -> tuple[Piece, ...]:
    """Its pieces, the papers of its faces, and what keeps it shut."""
    ruler, books = left.brief.ruler, left.brief.quantity
    return (
        *cut.parts(
            made,
            books,
            smaller=lambda width, height: _smaller(left, spec, made, width, height),
            times=spec.times,
        ),
        *(
            cut.papers(made.dressings, books, ruler, spec.copies, partial(_for_paper, left))
            if fill.mats
            else ()
        ),
        *(fastened.parts(record, books) if isinstance(record, Fastened) else ()),
    )


def _figures(
    record: FromPad, spec: FoldedSpec, made: Made, fill: Filling, shown: tuple[Ruler, Stock]
) -> tuple[Figure, ...]:
    """Its own figures, and those that all structures have; ``shown`` are the ruler and the paper of the
    faces."""
    ruler, mat = shown
    return (
        *spec.figures(made),
        *figures.pieces(made, ruler, spec.times),
        *figures.rooms(made, ruler),
        *figures.faces(made, fill, ruler),
        *pads.figures(record, made, mat),
        *(fastened.figures(record, made, ruler) if isinstance(record, Fastened) else ()),
        figures.shut(made, ruler),
    )


def _suited(build: Build, stocks: Mapping[str, Stock]) -> Build:
    """The generator with its sheets as their stocks are: good on one side, or with a pattern that has a
    top."""

    def programme(sizes: Sizes) -> Programme:
        plain = build(sizes)
        if not any(stock.sides == 1 or stock.upright_only for stock in stocks.values()):
            return plain
        return replace(plain, build=tuple(_as_stock(one, stocks) for one in plain.build))

    return programme


def _as_stock(one: Operation, stocks: Mapping[str, Stock]) -> Operation:
    stock = stocks.get(one.piece.stock) if isinstance(one, Add) else None
    if stock is None or not isinstance(one, Add):
        return one
    return replace(
        one, piece=replace(one.piece, good="A" if stock.sides == 1 else "both", directed=stock.upright_only)
    )


def _steps(record: FromPad, spec: FoldedSpec, made: Made, fill: Filling, ruler: Ruler) -> tuple[Step, ...]:
    """The kind's own first steps, those of the programme, and the kind's last ones, which wait for all of
    them."""
    keeps = fastened.steps(record, made, ruler, spec.states) if isinstance(record, Fastened) else ()
    steps = (
        *spec.steps(made),
        *work.steps(
            made, fill, ruler, work.StructureSteps(spec.states, fastened=bool(keeps), later=spec.later)
        ),
        *keeps,
    )
    return (
        *steps,
        *spec.last(
            tuple(dict.fromkeys(state for step in steps for state in step.gives if "insert" not in step.tags))
        ),
    )


def _free(record: Dressed, left: LeftOfPages, spec: FoldedSpec, made: Made) -> tuple[Offer, ...]:
    """The same thing as a drawing of the maker's own, held by nothing else."""
    if spec.mend is not None:
        return ()
    dressed = record.model_dump(mode="json", include=set(Dressed.model_fields) - {TAG})
    try:
        drawn = written(made.programme)
    except ValueError:  # a panel too narrow to be drawn
        return ()
    fields = tuple((f"pages.{name}", value) for name, value in {**dressed, **drawn}.items())
    by_itself = (("binding.kind", "itself"), ("cover.kind", "bare"))
    alone = () if left.brief.made_of.binding.name == "itself" else by_itself
    return (Offer(label="make it free", changes=(("pages.kind", "free"), *fields, *alone), group="free"),)


def _count(spec: FoldedSpec, made: Made, panels: int) -> Figure:
    there = f", {made.places} places" if made.places else ""
    return Figure(
        key="count",
        label=spec.title,
        value=counted_as(panels, spec.panels),
        show="text",
        how=f"{spec.panels.capitalize()} large enough to be dressed: {panels}, with "
        f"{len(made.dressings) * spec.copies} faces that show in one opening or another{there}.",
        rules=(Rule("arithmetic", "the panels of its pieces"),),
        aside=f"{len(made.dressings) * spec.copies} faces{there}",
        scrap=f"{counted_as(panels, spec.panels)}, {len(made.dressings) * spec.copies} faces{there}",
    )


def _fits(
    left: LeftOfPages, fill: Filling, less_mm: float, takes: Callable[[Offer], bool]
) -> tuple[Offer, ...]:
    """The leaf sized for what goes in, upright and level: the thing, its border on the paper, the paper's
    border on the panel. Only those that ``takes`` says yes to: where nothing fits yet, hinge and tabs may
    leave it no room on that leaf either."""
    if not fill.any:
        return ()
    brief, more = left.brief, (4 if fill.mats else 2) * max(fill.border_mm, 1.0) + less_mm
    found = []
    for way, (wide, high) in (
        ("upright", (fill.width_mm, fill.height_mm)),
        ("level", (fill.height_mm, fill.width_mm)),
    ):
        size = (brief.ruler.snap_up(wide + more), brief.ruler.snap_up(high + more))
        near = abs(size[0] - brief.leaf_width_mm) < 0.05 and abs(size[1] - brief.leaf_height_mm) < 0.05
        if possible(*size) and not near:
            changes, _ = resized(brief, *size)
            found.append(
                Offer(
                    label=f"made for a {fill.title}, {way}: {brief.ruler.size(*size)}",
                    changes=changes,
                    group="size",
                )
            )
    return tuple(filter(takes, found[: 1 if abs(fill.width_mm - fill.height_mm) < 0.05 else 2]))


def _takes(
    offer: Offer,
    spec: FoldedSpec,
    stocks: Mapping[str, Stock],
    fill: Filling,
    measures: tuple[Mapping[str, Estimate], Ruler],
) -> bool:
    """Whether what goes in finds a place on a leaf of the size that is offered."""
    sizes, (calipers, ruler) = dict(offer.changes), measures
    wide, high = sizes["brief.leaf_width_mm"], sizes["brief.leaf_height_mm"]
    assert isinstance(wide, float)
    assert isinstance(high, float)
    try:
        return bool(
            make(
                _suited(spec.at(wide, high), stocks),
                spec.typed,
                fill,
                calipers,
                ruler,
                skip=spec.skip,
                hidden=spec.hidden,
                least=spec.least,
            ).places
        )
    except KeyError:  # a leaf of that size has gussets that this one has not
        return True


def _needs(spec: FoldedSpec, sizes: Sizes, width: float, height: float, name: str) -> tuple[float, float]:
    """The size of the piece of that name for another leaf."""
    programme = spec.at(width, height)(sizes)
    return next(piece.size_mm for piece in programme.pieces if piece.name == name)


def _largest(
    left: LeftOfPages, spec: FoldedSpec, made: Made, name: str, sheet: tuple[float, float]
) -> tuple[float, float] | None:
    """The largest leaf whose piece comes out of a sheet, all other relations kept: piece sizes grow evenly
    with the leaf's. The leaf keeps its shape where both sides have to give."""
    sizes = {room.name: room.has_mm for room in made.rooms}
    sizes = {**dict.fromkeys(spec.typed, 3.0), **sizes}
    width, height = left.brief.leaf_width_mm, left.brief.leaf_height_mm
    try:
        base = next(piece.size_mm for piece in made.programme.pieces if piece.name == name)
        wider, higher = (_needs(spec, sizes, width + a, height + b, name) for a, b in ((5, 0), (0, 5)))
    except (KeyError, ValueError, StopIteration):
        return None
    best: tuple[float, tuple[float, float]] | None = None
    for across, down in (sheet, sheet[::-1]):
        grows = ((wider[0] - base[0]) / 5, (higher[1] - base[1]) / 5)
        if min(grows) <= 1e-6:
            continue
        size = tuple(
            left.brief.ruler.snap_down(side + (room - own_) / grow + 1e-6)
            for side, room, own_, grow in zip((width, height), (across, down), base, grows, strict=True)
        )
        change = abs(size[0] - width) + abs(size[1] - height)
        if possible(*size) and (best is None or change < best[0]):
            best = (change, (size[0], size[1]))
    return best[1] if best else None


def _smaller(
    left: LeftOfPages, spec: FoldedSpec, made: Made, width: float, height: float
) -> tuple[Offer, ...]:
    """B1: the structure made for the sheet there is, only its free panels changed."""
    names = [piece.name for piece in cut.sheets(made) if piece.stock == CARD]
    found = [size for name in names if (size := _largest(left, spec, made, name, (width, height)))]
    if not found:
        return ()
    size = (
        min(min(one[0] for one in found), left.brief.leaf_width_mm),
        min(min(one[1] for one in found), left.brief.leaf_height_mm),
    )
    changes, _ = resized(left.brief, *size)
    return (Offer(label=f"made for this sheet: {left.brief.ruler.size(*size)}", changes=changes),)


def _for_paper(left: LeftOfPages, paper: tuple[float, float]) -> Callable[[float, float], tuple[Offer, ...]]:
    """B1: the leaf as much smaller as a paper of its faces has to be; other relations are kept."""
    brief, ruler = left.brief, left.brief.ruler

    def smaller(width: float, height: float) -> tuple[Offer, ...]:
        over = [
            tuple(ruler.snap_up(max(0.0, need - there)) for need, there in zip(paper, sheet, strict=True))
            for sheet in ((width, height), (height, width))
        ]
        across, down = min(over, key=sum)
        size = (brief.leaf_width_mm - across, brief.leaf_height_mm - down)
        if not possible(*size):
            return ()
        return (Offer(label=f"made for this sheet: {ruler.size(*size)}", changes=resized(brief, *size)[0]),)

    return smaller


def _from_sheet(
    left: LeftOfPages, spec: FoldedSpec, stocks: Mapping[str, Stock], made: Made
) -> tuple[Offer, ...]:
    """The other way round: how large it can be out of the card there is."""
    card = stocks[CARD]
    largest = max(
        (piece for piece in cut.sheets(made) if piece.stock == CARD),
        key=lambda piece: piece.area_mm2,
        default=None,
    )
    if largest is None:
        return ()
    size = _largest(left, spec, made, largest.name, (card.usable_width_mm, card.usable_height_mm))
    if size is None or (
        abs(size[0] - left.brief.leaf_width_mm) < 0.3 and abs(size[1] - left.brief.leaf_height_mm) < 0.3
    ):
        return ()
    changes, _ = resized(left.brief, *size)
    return (
        Offer(
            label=f"as large as one sheet of {card.name} gives: {left.brief.ruler.size(*size)}",
            changes=changes,
            group="size",
        ),
    )
