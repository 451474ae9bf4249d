"""The bench steps of folded sections: from the first sheet tried to the pressed and measured block."""

from __future__ import annotations

from typing import Final

from pleat.core.base.cautions import KNIFE, WEIGHT
from pleat.core.base.plan import Step, signature
from pleat.core.base.scenes import Distance, LineOn, Lying, Scene
from pleat.core.base.staged import folded, gauged, nested, pressed
from pleat.core.base.units import Ruler
from pleat.core.base.words import many, merged, runs
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.pages.folding import CLOSED, folios_a_sheet
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.trade.pages import STUB_LAP_MM, STUB_MM, TIP_MM


def of(pages: SectionsBlock, brief: BriefResult) -> tuple[Step, ...]:
    """Every step of this block, in the order they are usually done."""
    ruler, made_of = brief.ruler, brief.made_of
    return (
        _try(ruler, pages),
        *_windows(ruler, pages),
        *_narrowing(ruler, pages),
        _fold(pages),
        *_flaps(ruler, pages),
        *_slitting(pages),
        *_joining(ruler, pages),
        _nest(pages),
        _press(pages),
        *_trimming(ruler, pages),
        *(
            (_measure(ruler, pages, made_of.cover.boards),)
            if made_of.cover.roles and not made_of.cover.hung
            else ()
        ),
    )


def _try(ruler: Ruler, pages: SectionsBlock) -> Step:
    return Step(
        key="try",
        title="Try one sheet for size",
        detail="Fold one sheet without creasing it and hold it to the leaf size, "
        f"{ruler.size(pages.leaf_width_mm, pages.leaf_height_mm)}, before any other is folded.",
        tools=("ruler",),
        needs=("stock.gathered",),
        gives=("leaf.tried",),
        signature=signature(pages.leaf_width_mm, pages.leaf_height_mm),
        for_all=True,
        kind="measure",
        shows=lambda: folded(_sheet(pages), pages.folds, tried=True),
    )


def _sheet(pages: SectionsBlock) -> Lying:
    """A sheet before it is folded."""
    across, down = {1: (2, 1), 2: (2, 2), 3: (4, 2)}[pages.folds]
    return Lying("", 0.0, 0.0, across * pages.leaf_width_mm, down * pages.leaf_height_mm, "rests", "leaf")


def _fold(pages: SectionsBlock) -> Step:
    return Step(
        key="fold",
        title="Fold the sheets",
        detail=f"{pages.in_words}. Fold one as a test, then each sheet by itself: "
        f"{_folding(pages.folds)}edges together, crease from the middle outward; the last fold runs along "
        "the grain.",
        tools=("bone folder",),
        needs=("leaf.cut",),
        gives=("leaf.folded",),
        closes=("leaves.flat",),
        minutes=2 + 0.6 * pages.folios,
        pieces=pages.folios,
        signature=signature(pages.folios) if pages.folds == 1 else signature(pages.folios, pages.folds),
        kind="fold",
        set_up=2,
        shows=lambda: folded(_sheet(pages), pages.folds),
    )


def _slitting(pages: SectionsBlock) -> tuple[Step, ...]:
    if pages.folds == 1 or pages.trim_mm:
        return ()
    return (
        Step(
            key="slit",
            title=f"Slit the {' and the '.join(CLOSED[pages.folds])}",
            detail="Open each folded sheet where its folds are closed: a knife laid in the fold, drawn "
            "outward, in one go. The spine stays folded.",
            tools=("knife", "mat"),
            needs=("leaf.folded",),
            gives=("leaf.ready",),
            cautions=(KNIFE,),
            signature=signature(pages.folds),
            kind="cut",
        ),
    )


def _nest(pages: SectionsBlock) -> Step:
    return Step(
        key="nested",
        title="Nest and knock up",
        detail=_nesting(pages),
        needs=("leaf.folded", "leaf.ready"),
        gives=("block.nested",),
        minutes=1 + 0.3 * pages.folios,
        signature=signature(pages.folios)
        if len(pages.sections) == 1 and pages.folds == 1
        else signature(pages.sections, pages.folds),
        kind="nest",
        shows=lambda: nested(pages.sections, pages.leaf_width_mm),
    )


def _press(pages: SectionsBlock) -> Step:
    return Step(
        key="press",
        title="Press the section" if len(pages.sections) == 1 else "Press the sections",
        detail="Under a weight or in a press, fold outward.",
        tools=("boards and a weight",),
        needs=("block.nested",),
        gives=("block.pressed",),
        wait_minutes=60,
        cautions=(WEIGHT,),
        kind="press",
        weights=True,
        shows=lambda: pressed(pages.leaf_width_mm, pages.thickness.likely),
    )


WHOLE_BLOCK: Final = "Lay them on one another, folds level, and measure the whole block at the folds. "


def _measure(ruler: Ruler, pages: SectionsBlock, boards: bool) -> Step:
    seams = "" if len(pages.sections) == 1 else WHOLE_BLOCK
    next_piece = "the boards follow" if boards else "the cover follows"
    return Step(
        key="measure",
        title="Measure the pressed section at the fold"
        if len(pages.sections) == 1
        else f"Measure the {len(pages.sections)} pressed sections together",
        detail=f"{seams}Estimated "
        f"at {ruler.between(pages.thickness.low, pages.thickness.high)}. Type what you read under Pages, "
        f"and {next_piece}.",
        tools=("ruler or caliper",),
        needs=("block.pressed", "block.trimmed"),
        gives=("block.measured",),
        kind="measure",
        reading="pages.measured_block_mm",
        shows=lambda: gauged(pages.leaf_width_mm, pages.thickness.likely),
    )


def _folding(folds: int) -> str:
    return {
        1: "",
        2: "head to tail first, then the spine; ",
        3: "fore edge first, then head to tail, then the spine; ",
    }[folds]


def _nesting(pages: SectionsBlock) -> str:
    if pages.mixed:
        listed = "; ".join(
            f"{number}: {runs(folio.name for folio in section)}"
            for number, section in enumerate(pages.mixed, 1)
        )
        return (
            f"From the outside in, section {listed}. Creases on one another, small leaves in the middle "
            "of the fold's height."
        )
    by = folios_a_sheet(pages.folds)
    if len(pages.sections) == 1:
        return (
            f"Put {_sheets(pages.folios // by)} into one another, fold on fold, and knock them up on the "
            "fold and the head."
        )
    counts = ", ".join(str(folios // by) for folios in pages.sections)
    return (
        f"{len(pages.sections)} sections, with so many sheets each, front to back: {counts}. Put each "
        "one's into one another, fold on fold, and knock them up on the fold and the head."
    )


def _joining(ruler: Ruler, pages: SectionsBlock) -> tuple[Step, ...]:
    """Single leaves of a pile: on stubs before nesting, or tipped on to their neighbours."""
    single = [folio for section in pages.mixed for folio in section if folio.joined != "folded"]
    if not single:
        return ()
    stubs = merged(folio.name for folio in single if folio.joined == "stub")
    tipped = merged(folio.name for folio in single if folio.joined == "tipped")
    words = []
    if stubs:
        words.append(
            f"On stubs {ruler.show(STUB_MM)} wide and {ruler.show(pages.leaf_height_mm)} high, grain along "
            f"the fold: {stubs}. Glue the leaf on by {ruler.show(STUB_LAP_MM)}, crease the stub beside it"
        )
    if tipped:
        words.append(
            f"Tipped in with a line of glue {ruler.show(TIP_MM)} wide along the gutter of the sheet outside "
            f"it: {tipped}"
        )
    detail = ". ".join(words) + ". Under a weight between waste paper; dry before anything is nested."
    return (
        Step(
            key="join",
            title="Join the single leaves",
            detail=detail,
            tools=("glue", "bone folder", "waste paper"),
            needs=("leaf.folded",),
            gives=("leaf.ready",),
            tags=frozenset({"glue"}),
            wait_minutes=60,
            signature=signature(*(f"{folio.id}{folio.joined}" for folio in single)),
            kind="glue",
            weights=True,
        ),
    )


def _narrowing(ruler: Ruler, pages: SectionsBlock) -> tuple[Step, ...]:
    """Cutting inner sheets narrower for the creep, section by section; sections alike are said once."""
    if not pages.narrower_mm:
        return ()
    listed: dict[str, list[int]] = {}
    for number, section in enumerate(pages.narrower_mm, 1):
        leaves = [folio.leaves for folio in pages.mixed[number - 1]] if pages.mixed else [2] * len(section)
        widths = ", ".join(ruler.number(less * each) for less, each in zip(section, leaves, strict=True))
        listed.setdefault(widths, []).append(number)
    each = "; ".join(
        (f"section {', '.join(str(number) for number in numbers)}: " if len(pages.narrower_mm) > 1 else "")
        + widths
        for widths, numbers in listed.items()
    )
    return (
        Step(
            key="narrow",
            title="Cut the inner sheets narrower",
            detail=f"Off each sheet in all, from the outside in: {each} {ruler.name}. Half of it on each "
            "side, so that the fold stays in the middle; a single leaf only at its fore edge.",
            tools=("steel rule", "knife", "mat"),
            needs=("leaf.cut",),
            uses=("leaves.flat",),
            cautions=(KNIFE,),
            signature=signature(*(round(less, 2) for section in pages.narrower_mm for less in section)),
            kind="cut",
        ),
    )


def _trimming(ruler: Ruler, pages: SectionsBlock) -> tuple[Step, ...]:
    """Trimming, where edges or creep want it."""
    if not pages.trim_mm and pages.creep_how != "trim":
        return ()
    what = (
        f"{ruler.show(pages.trim_mm)} off head, tail and fore edge"
        if pages.trim_mm
        else f"About {ruler.thin(pages.creep.likely)} off the fore edge, flush with the outermost sheet"
    )
    detail = (
        f"{what}, each section clipped between boards along a steel rule. Many light passes; let the "
        "knife do it."
    )
    return (
        Step(
            key="trim",
            title="Trim",
            detail=detail,
            tools=("steel rule", "knife", "mat", "clips"),
            needs=("block.pressed",),
            gives=("block.trimmed",),
            minutes=6 * len(pages.sections),
            pieces=len(pages.sections),
            cautions=(KNIFE,),
            signature=signature(pages.trim_mm, pages.creep_how),
            kind="cut",
            shows=lambda: _trimmed(pages),
        ),
    )


def _trimmed(pages: SectionsBlock) -> Scene:
    """A section with what comes off it."""
    width, height, off = pages.leaf_width_mm, pages.leaf_height_mm, pages.trim_mm
    fore = off or max(pages.creep.likely, 0.5)
    lines = [LineOn("upright", width, 0.0, height + 2 * off, "cut")]
    lines += [LineOn("level", at, 0.0, width + fore, "cut") for at in ((off, off + height) if off else ())]
    block = Lying("", 0.0, 0.0, width + fore, height + 2 * off, "rests", "leaf")
    return Scene(
        kind="mark",
        width=block.width,
        height=block.height,
        lying=(block,),
        lines=tuple(lines),
        distances=(Distance("bottom", 0.0, width), Distance("left", off, off + height)),
    )


def _sheets(count: int) -> str:
    return many(count, "sheet")


def _windows(ruler: Ruler, pages: SectionsBlock) -> tuple[Step, ...]:
    """Cutting the windows whose size was said, while the sheets are flat."""
    folios = [folio for section in pages.mixed for folio in section if folio.window and folio.window_cut]
    if not folios:
        return ()
    each = "; ".join(
        f"{folio.name}: {ruler.size(folio.window[2], folio.window[3])}, "
        f"{ruler.number(folio.window[0])} from the fore edge, {ruler.number(folio.window[1])} from the head"
        for folio in folios
        if folio.window
    )
    return (
        Step(
            key="windows",
            title="Cut the windows" if len(folios) > 1 else "Cut the window",
            detail=f"In the first leaf, while the sheet is flat. {each}. Draw it lightly on the back, cut "
            "from the corners to the middle of each side.",
            tools=("steel rule", "knife", "mat"),
            needs=("leaf.cut",),
            uses=("leaves.flat",),
            cautions=(KNIFE,),
            signature=signature(*(f"{folio.id}:{folio.window}" for folio in folios)),
            kind="cut",
        ),
    )


def _flaps(ruler: Ruler, pages: SectionsBlock) -> tuple[Step, ...]:
    """Folding the fold-outs in, where there are any."""
    with_flap = [
        (f"{number}.{place}", folio)
        for number, section in enumerate(pages.mixed, 1)
        for place, folio in enumerate(section, 1)
        if folio.flap_mm
    ]
    if with_flap:
        each = "; ".join(
            f"{at} {folio.name}: {_panels(ruler, folio.flap_mm, folio.flap_panels)}"
            for at, folio in with_flap
        )
        marked = signature(*((folio.id, folio.flap_mm, folio.flap_panels) for _, folio in with_flap))
    elif pages.flap_mm:
        which = "the innermost sheet" if pages.flap_folios == len(pages.sections) else "every sheet"
        each = f"On {which}: {_panels(ruler, pages.flap_mm, pages.flap_panels)}"
        marked = signature(pages.flap_mm, pages.flap_folios)
    else:
        return ()
    detail = f"{each}; at the fore edge, in over the inner side of the leaf, clear of the gutter."
    title = "Fold the fold-out in" if len(with_flap) < 2 else "Fold the fold-outs in"
    return (
        Step(
            key="flap",
            title=title,
            detail=detail,
            tools=("bone folder",),
            needs=("leaf.folded",),
            gives=("leaf.ready",),
            signature=marked,
            kind="fold",
        ),
    )


def _panels(ruler: Ruler, flap_mm: float, panels: int) -> str:
    return (
        ruler.show(flap_mm)
        if panels == 1
        else f"{panels} panels of {ruler.show(flap_mm)}, back and forth like an accordion"
    )
