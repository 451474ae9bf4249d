"""What all sewings have in common: from stations, a pattern and a thread to the result. A kind says only what
is its own."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Any, Final

from pleat.core.base.kinds import Edge, Suits, Traits
from pleat.core.base.plan import Check, Length, Piece
from pleat.core.base.units import Ruler
from pleat.core.engines.sewing.faults import Fault
from pleat.core.engines.sewing.moves import Bed, Promise, Row, Sewing, Support, Thread
from pleat.core.engines.sewing.swell import largest, profile
from pleat.core.engines.sewing.walk import walk
from pleat.core.pleats.binding import checks, figures, stations, steps, typed
from pleat.core.pleats.binding.record import Threaded
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.binding.stations import HoleRange, Layout
from pleat.core.pleats.binding.thread import Use, diameter_mm, name_of, thread_need
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.trade.sewing import BOARD_REACH_MM

PLACED: Final = ("insets_mm", "positions_mm")


def _no_supports(
    _record: object, _holes: Sequence[float], _rows: int, _left: LeftOfBinding
) -> tuple[Support, ...]:
    return ()


def _no_pieces(_record: object, _bed: Bed, _left: LeftOfBinding) -> tuple[Piece, ...]:
    return ()


def _no_checks(_record: object, _ruler: Ruler) -> tuple[Check, ...]:
    return ()


def _no_pleat(_record: object) -> float:
    return 0.0


def _as_units(rows: tuple[Row, ...]) -> tuple[Row, ...]:
    return rows


def _right(_record: object, _sewing: Sewing) -> tuple[Fault, ...]:
    return ()


@dataclass(frozen=True)
class SewingKind:
    """What one kind of sewing says of itself.

    ``layout`` is where its places are, ``threads`` the moves on so many rows and stations, ``promise`` what
    they keep. ``supports`` lie across the sections, ``pieces`` is what they are cut from. ``rows`` turns the
    sections into what one thread passes. ``faults`` looks at a path that was not made by a pattern. ``pleat``
    is how deep the cover is folded inward between two sections, in mm, ``checks`` what can go wrong with this
    kind alone.
    """

    layout: Callable[[Any, float], Layout]
    threads: Callable[[Any, Bed], tuple[Thread, ...]]
    promise: Callable[[Any, Bed], Promise]
    suits: Suits
    supports: Callable[[Any, Sequence[float], int, LeftOfBinding], tuple[Support, ...]] = _no_supports
    pieces: Callable[[Any, Bed, LeftOfBinding], tuple[Piece, ...]] = _no_pieces
    rows: Callable[[tuple[Row, ...]], tuple[Row, ...]] = _as_units
    faults: Callable[[Any, Sewing], tuple[Fault, ...]] = _right
    words: steps.SewingWords = field(default_factory=steps.SewingWords)
    pleat: Callable[[Any], float] = _no_pleat
    checks: Callable[[Any, Ruler], tuple[Check, ...]] = _no_checks
    own: bool = False


def compute(stitch: SewingKind, name: str, binding: Threaded, left: LeftOfBinding) -> SewnResult:
    """Stations, path, thread and swell of a sewing. A pattern that cannot be sewn on so many sections has no
    thread."""
    ruler, height = left.brief.ruler, left.pages.leaf_height_mm
    layout = stitch.layout(binding, height)
    places = stations.place(binding, layout, height, ruler)
    bed = _bed(stitch, binding, left, stations.holes(places, layout))
    fits = stitch.suits.fits(len(left.pages.units))
    threads = stitch.threads(binding, bed) if fits else ()
    sewing = Sewing(bed, threads, stitch.promise(binding, bed) if fits else Promise())
    stretches, diameter = walk(threads), diameter_mm(binding.thread)
    gaps = profile(stretches, bed, diameter, binding.strands)
    swell = largest(gaps)
    need = thread_need(
        sewing, stretches, Use(diameter, binding.tail_mm, binding.strands, swell.likely / len(bed.rows))
    )
    window = _window(left)
    shown = figures.Sewn(
        binding, layout, places, bed.positions_mm, sewing, need, swell, window, stitch.layout
    )
    wrong = stitch.faults(binding, sewing) if fits else ()
    result = SewnResult(
        key_figure=figures.count(left, shown),
        figures=figures.figures(left, shown),
        checks=(*checks.find(left, shown, wrong), *stitch.checks(binding, ruler)),
        parts=(*_thread(binding, left, shown), *stitch.pieces(binding, bed, left)),
        at="fold",
        height_mm=height,
        positions_mm=bed.positions_mm,
        usual_mm=min(stations.default_insets(height, layout, ruler, binding.spread), default=None),
        swell=swell,
        cover_holes_mm=binding.cover_holes_mm,
        pleat_mm=stitch.pleat(binding),
        look="the knot tight",
        layout=layout,
        places_mm=places,
        window=window,
        symmetric=not stations.is_unlocked(binding, layout),
        sewing=sewing,
        stretches=stretches,
        faults=wrong,
        pattern=name,
        own=stitch.own,
        need=need,
        swell_by_gap=gaps,
        thread_name=name_of(binding.thread),
        thread_diameter_mm=diameter,
        thread_swatch=binding.thread.swatch,
        strands=binding.strands,
        tail_mm=binding.tail_mm,
    )
    return replace(result, steps=steps.of(shown, left, stitch.words) if threads else ())


def _bed(stitch: SewingKind, binding: Threaded, left: LeftOfBinding, holes: tuple[float, ...]) -> Bed:
    """Each section by what the needle passes in it, with the cover where that is sewn through."""
    pages, cover = left.pages, left.brief.made_of.cover
    card = left.paper.cover.caliper.likely if cover.sewn_through else 0.0
    shares = sum(unit.share for unit in pages.units) or 1.0
    rows = tuple(
        Row(unit.through.likely, pages.thickness.likely * unit.share / shares, card) for unit in pages.units
    )
    rows = stitch.rows(rows)
    reach = BOARD_REACH_MM if cover.boards else 0.0
    return Bed(holes, rows, pages.leaf_height_mm, stitch.supports(binding, holes, len(rows), left), reach)


def _window(left: LeftOfBinding) -> HoleRange:
    pages = left.pages
    pile = [folio for section in pages.mixed for folio in section] if isinstance(pages, SectionsBlock) else []
    folded = [folio.leaf_height_mm for folio in pile if folio.joined == "folded"]
    return HoleRange.of(pages.leaf_height_mm, folded, left.brief.made_of.cover.sewn_through)


def _thread(binding: Threaded, left: LeftOfBinding, shown: figures.Sewn) -> tuple[Piece, ...]:
    if not shown.sewing.threads:
        return ()
    each = left.brief.ruler.snap_up(shown.need.each_mm)
    return (
        Length(
            key="thread",
            name=name_of(binding.thread),
            length_mm=each,
            count=shown.need.cuts * left.brief.quantity,
            stock=binding.thread.stock_id or "",
        ),
    )


def kind(
    stitch: SewingKind,
    *,
    name: str,
    title: str,
    summary: str,
    record: type[Threaded],
    at: Edge = "fold",
    read: typed.Read | None = None,
    needle: bool = True,
) -> BindingKind:
    """The member of a sewing: what it says of itself, worked out as all sewings are."""
    return BindingKind(
        name=name,
        title=title,
        summary=summary,
        record=record,
        compute=partial(_computed, stitch, name, at),
        placed=PLACED,
        traits=Traits(needle=needle, opens_flat=True),
        read=read or typed.reader(stitch.layout),
        takes=frozenset({"section"}),
        at=at,
        suits=stitch.suits,
    )


def _computed(stitch: SewingKind, name: str, at: Edge, binding: Threaded, left: LeftOfBinding) -> SewnResult:
    return replace(compute(stitch, name, binding, left), at=at)
