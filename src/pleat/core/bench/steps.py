"""The steps common to every soft-covered book; those of the binding come from its kind and are put in between."""

from __future__ import annotations

from typing import Final

from pleat.core.cover.compute import CoverResult
from pleat.core.cutting.compute import CuttingResult
from pleat.core.cutting.cut import Cut
from pleat.core.pages.compute import PagesResult
from pleat.core.pages.folding import CLOSED, folios_a_sheet
from pleat.core.pages.limits import STUB_LAP_MM, STUB_MM, TIP_MM
from pleat.core.paper.compute import PaperResult
from pleat.core.plan import Part, Step, signature
from pleat.core.units import Ruler
from pleat.core.words import many, merged, runs

KNIFE: Final = "Knife: a steel rule, a cutting mat, several light passes, fingers behind the edge and a fresh blade. With a trimmer, follow its own instructions and keep its guard on."
WEIGHT: Final = "Keep fingers clear when you set the weight or close the press."


def before_sewing(ruler: Ruler, paper: PaperResult, pages: PagesResult, cover: CoverResult, cutting: CuttingResult) -> tuple[Step, ...]:
    """From the paper on the table to a pressed section and a scored cover."""
    steps = [
        Step(
            "gather",
            "Lay out the paper",
            f"{_gathered(paper, pages, cutting)}. Find the grain of both.",
            signature=signature({role: count for role, count in cutting.sheets.items() if role != "pile"}),
            for_all=True,
        ),
        Step(
            "try",
            "Try one sheet for size",
            f"Fold one sheet without creasing it and hold it to the leaf size, {ruler.size(pages.leaf_width_mm, pages.leaf_height_mm)}, before any other is folded.",
            ("ruler",),
            ("gather",),
            signature=signature(pages.leaf_width_mm, pages.leaf_height_mm),
            for_all=True,
        ),
        _cut_pile(ruler, pages, cutting) if pages.mixed else _cut_leaves(ruler, pages.parts, cutting),
        *_windows(ruler, pages),
        *_narrowing(ruler, pages),
        Step(
            "fold",
            "Fold the sheets",
            f"{pages.in_words}. Fold one as a test, then each sheet by itself: {_folding(pages.folds)}edges together, crease from the middle outward; the last fold runs along the grain.",
            ("bone folder",),
            ("narrow",) if pages.narrower_mm else ("windows",) if _windows(ruler, pages) else ("cut_leaves",),
            signature=signature(pages.folios) if pages.folds == 1 else signature(pages.folios, pages.folds),
        ),
    ]
    flaps = _flaps(ruler, pages)
    steps += flaps
    if pages.folds > 1 and not pages.trim_mm:
        steps.append(
            Step(
                "slit",
                f"Slit the {' and the '.join(CLOSED[pages.folds])}",
                "Open each folded sheet where its folds are closed: a knife laid in the fold, drawn outward, in one go. The spine stays folded.",
                ("knife", "mat"),
                ("flap",) if flaps else ("fold",),
                cautions=(KNIFE,),
                signature=signature(pages.folds),
            )
        )
    joining = _joining(ruler, pages)
    steps += [
        *joining,
        Step(
            "nested",
            "Nest and knock up",
            _nesting(pages),
            (),
            ("join",) if joining else ("slit",) if pages.folds > 1 and not pages.trim_mm else ("flap",) if flaps else ("fold",),
            signature=signature(pages.folios) if len(pages.sections) == 1 and pages.folds == 1 else signature(pages.sections, pages.folds),
        ),
        Step(
            "press",
            "Press the section" if len(pages.sections) == 1 else "Press the sections",
            "Under a weight or in a press, fold outward.",
            ("boards and a weight",),
            ("nested",),
            wait_minutes=60,
            cautions=(WEIGHT,),
        ),
        *_trimming(ruler, pages),
        Step(
            "measure",
            "Measure the pressed section at the fold"
            if len(pages.sections) == 1
            else f"Measure the {len(pages.sections)} pressed sections together",
            f"{'' if len(pages.sections) == 1 else 'Lay them on one another, folds level, and measure the whole block at the folds. '}Estimated at {ruler.between(pages.thickness.low, pages.thickness.high)}. Type what you read under Pages, and the cover follows.",
            ("ruler or caliper",),
            ("trim",) if _trimming(ruler, pages) else ("press",),
        ),
        *_cover(ruler, cover, cutting),
    ]
    return tuple(steps)


def after_sewing(last: str) -> tuple[Step, ...]:
    """From the knot (step ``last``) to the shut book."""
    return (
        Step(
            "crease",
            "Crease again",
            "Close the book and run the bone folder along the spine: sewing has opened the fold a little.",
            ("bone folder",),
            (last,),
        ),
        Step(
            "press_book",
            "Press the book",
            "Under a weight, overnight if you can.",
            ("boards and a weight",),
            ("crease",),
            wait_minutes=480,
            cautions=(WEIGHT,),
        ),
        Step(
            "check",
            "Open and close it",
            "Every leaf held, nothing stands out past the cover, the knot tight. Note what you would change.",
            (),
            ("press_book",),
        ),
    )


def _folding(folds: int) -> str:
    return {1: "", 2: "head to tail first, then the spine; ", 3: "fore edge first, then head to tail, then the spine; "}[folds]


def _nesting(pages: PagesResult) -> str:
    if pages.mixed:
        listed = "; ".join(f"{number}: {runs(one.name for one in section)}" for number, section in enumerate(pages.mixed, 1))
        return f"From the outside in, section {listed}. Creases on one another, small leaves in the middle of the fold's height."
    by = folios_a_sheet(pages.folds)
    if len(pages.sections) == 1:
        return f"Put {_sheets(pages.folios // by)} into one another, fold on fold, and knock them up on the fold and the head."
    counts = ", ".join(str(folios // by) for folios in pages.sections)
    return f"{len(pages.sections)} sections, with so many sheets each, front to back: {counts}. Put each one's into one another, fold on fold, and knock them up on the fold and the head."


def _joining(ruler: Ruler, pages: PagesResult) -> tuple[Step, ...]:
    """Single leaves of a pile: on stubs before nesting, or tipped on to their neighbours."""
    single = [one for section in pages.mixed for one in section if one.joined != "folded"]
    if not single:
        return ()
    stubs = merged(one.name for one in single if one.joined == "stub")
    tipped = merged(one.name for one in single if one.joined == "tipped")
    words = []
    if stubs:
        words.append(
            f"On stubs {ruler.show(STUB_MM)} wide and {ruler.show(pages.leaf_height_mm)} high, grain along the fold: {stubs}. Glue the leaf on by {ruler.show(STUB_LAP_MM)}, crease the stub beside it"
        )
    if tipped:
        words.append(f"Tipped in with a line of glue {ruler.show(TIP_MM)} wide along the gutter of the sheet outside it: {tipped}")
    detail = ". ".join(words) + ". Under a weight between waste paper; dry before anything is nested."
    return (
        Step(
            "join",
            "Join the single leaves",
            detail,
            ("glue", "bone folder", "waste paper"),
            ("fold",),
            wait_minutes=60,
            signature=signature(*(f"{one.id}{one.joined}" for one in single)),
        ),
    )


def _narrowing(ruler: Ruler, pages: PagesResult) -> tuple[Step, ...]:
    """Cutting inner sheets narrower for the creep, section by section; sections alike are said once."""
    if not pages.narrower_mm:
        return ()
    listed: dict[str, list[int]] = {}
    for number, section in enumerate(pages.narrower_mm, 1):
        leaves = [one.leaves for one in pages.mixed[number - 1]] if pages.mixed else [2] * len(section)
        widths = ", ".join(ruler.number(less * each) for less, each in zip(section, leaves, strict=True))
        listed.setdefault(widths, []).append(number)
    each = "; ".join(
        (f"section {', '.join(str(number) for number in numbers)}: " if len(pages.narrower_mm) > 1 else "") + widths
        for widths, numbers in listed.items()
    )
    return (
        Step(
            "narrow",
            "Cut the inner sheets narrower",
            f"Off each sheet in all, from the outside in: {each} {ruler.name}. Half of it on each side, so that the fold stays in the middle; a single leaf only at its fore edge.",
            ("steel rule", "knife", "mat"),
            ("windows",) if _windows(ruler, pages) else ("cut_leaves",),
            cautions=(KNIFE,),
            signature=signature(*(round(less, 2) for section in pages.narrower_mm for less in section)),
        ),
    )


def _trimming(ruler: Ruler, pages: PagesResult) -> tuple[Step, ...]:
    """Trimming, where edges or creep want it."""
    if not pages.trim_mm and pages.creep_how != "trim":
        return ()
    what = (
        f"{ruler.show(pages.trim_mm)} off head, tail and fore edge"
        if pages.trim_mm
        else f"About {ruler.thin(pages.creep.likely)} off the fore edge, flush with the outermost sheet"
    )
    detail = f"{what}, each section clipped between boards along a steel rule. Many light passes; let the knife do it."
    return (
        Step(
            "trim",
            "Trim",
            detail,
            ("steel rule", "knife", "mat", "clips"),
            ("press",),
            cautions=(KNIFE,),
            signature=signature(pages.trim_mm, pages.creep_how),
        ),
    )


def _gathered(paper: PaperResult, pages: PagesResult, cutting: CuttingResult) -> str:
    """What to lay out: whole sheets of each paper; a paper that no piece comes out of is not laid out."""
    leaves = f"{_sheets(sum(one.sheets for one in pages.pile_takes))} for the pile"
    if not pages.mixed:
        leaves = _of(cutting.sheets.get("leaf", 0), paper.leaf.name)
    return f"{leaves}, {_of(cutting.sheets.get('cover', 0), paper.cover.name)}"


def _of(count: int, name: str) -> str:
    return f"{_sheets(count)} of {name}" if count else f"no {name} yet, since the piece does not come out of it"


def _sheets(count: int) -> str:
    return many(count, "sheet")


def _windows(ruler: Ruler, pages: PagesResult) -> tuple[Step, ...]:
    """Cutting the windows whose size was said, while the sheets are flat."""
    found = [one for section in pages.mixed for one in section if one.window and one.window_cut]
    if not found:
        return ()
    each = "; ".join(
        f"{one.name}: {ruler.size(one.window[2], one.window[3])}, {ruler.number(one.window[0])} from the fore edge, {ruler.number(one.window[1])} from the head"
        for one in found
        if one.window
    )
    return (
        Step(
            "windows",
            "Cut the windows" if len(found) > 1 else "Cut the window",
            f"In the first leaf, while the sheet is flat. {each}. Draw it lightly on the back, cut from the corners to the middle of each side.",
            ("steel rule", "knife", "mat"),
            ("cut_leaves",),
            cautions=(KNIFE,),
            signature=signature(*(f"{one.id}:{one.window}" for one in found)),
        ),
    )


def cutters(cuts: list[Cut]) -> tuple[str, ...]:
    """The trimmer where it takes every edge, else knife, rule and mat."""
    return ("trimmer",) if all(cut.by_trimmer for cut in cuts) else ("steel rule", "knife", "mat")


def pieces(count: int) -> str:
    return many(count, "piece")


def _cut_pile(ruler: Ruler, pages: PagesResult, cutting: CuttingResult) -> Step:
    """Cutting down what is larger than the leaf; the rest of a mixed pile stays as it was found."""
    large = [one for section in pages.mixed for one in section if one.cut]
    flaps = [(one.id, one.flap_mm * one.flap_panels) for one in large if one.flap_mm]
    marked = signature(*(one.id for one in large), pages.leaf_width_mm, pages.leaf_height_mm, *flaps)
    if not large:
        return Step(
            "cut_leaves",
            "Nothing to cut for the leaves",
            "Every sheet of the pile is folded as it is.",
            (),
            ("try",),
            signature=marked,
            takes="leaf",
            for_all=True,
        )
    cuts = [cut for cut in cutting.cuts if cut.stock.role == "pile"]
    each = "; ".join(
        f"{pieces(cut.part.count)} of {ruler.size(cut.part.width_mm, cut.part.height_mm)} "
        + (f"from {_sheets(cut.sheets)} of {cut.stock.name}" if cut.sheets else f"that do not come out of {cut.stock.name}")
        + (", fold-out and all" if len(cut.part.folds) > 1 else "")
        for cut in cuts
    )
    return Step(
        "cut_leaves",
        f"Cut {pieces(sum(cut.part.count for cut in cuts))} for the pile",
        f"{each}. Which way round each lies is drawn under Cutting.",
        cutters(cuts),
        ("try",),
        cautions=(KNIFE,),
        signature=marked,
        takes="leaf",
        for_all=True,
    )


def _cut_leaves(ruler: Ruler, parts: tuple[Part, ...], cutting: CuttingResult) -> Step:
    cuts = [cut for cut in cutting.cuts if cut.part.material == "leaf"]
    marked = signature(*((cut.part.width_mm, cut.part.height_mm, cut.part.count) for cut in cuts))
    if all(cut.needs_no_cut for cut in cuts):
        return Step(
            "cut_leaves",
            "Nothing to cut for the leaves",
            "The sheets are folded as they are. Trimming a side that is right already only adds error.",
            (),
            ("try",),
            signature=marked,
            takes="leaf",
            for_all=True,
        )
    listed = "; ".join(f"{pieces(part.count)} of {ruler.size(part.width_mm, part.height_mm)}" for part in parts)
    return Step(
        "cut_leaves",
        "Cut the sheets",
        f"{listed}, {cuts[0].grain_words}.",
        cutters(cuts),
        ("try",),
        cautions=(KNIFE,),
        signature=marked,
        takes="leaf",
        for_all=True,
    )


def _flaps(ruler: Ruler, pages: PagesResult) -> tuple[Step, ...]:
    """Folding the fold-outs in, where there are any."""
    with_flap = [
        (f"{number}.{place}", one) for number, section in enumerate(pages.mixed, 1) for place, one in enumerate(section, 1) if one.flap_mm
    ]
    if with_flap:
        each = "; ".join(f"{at} {one.name}: {_panels(ruler, one.flap_mm, one.flap_panels)}" for at, one in with_flap)
        marked = signature(*((one.id, one.flap_mm, one.flap_panels) for _, one in with_flap))
    elif pages.flap_mm:
        which = "the innermost sheet" if pages.flap_folios == len(pages.sections) else "every sheet"
        each = f"On {which}: {_panels(ruler, pages.flap_mm, pages.flap_panels)}"
        marked = signature(pages.flap_mm, pages.flap_folios)
    else:
        return ()
    detail = f"{each}; at the fore edge, in over the inner side of the leaf, clear of the gutter."
    title = "Fold the fold-out in" if len(with_flap) < 2 else "Fold the fold-outs in"
    return (Step("flap", title, detail, ("bone folder",), ("fold",), signature=marked),)


def _panels(ruler: Ruler, flap_mm: float, panels: int) -> str:
    return ruler.show(flap_mm) if panels == 1 else f"{panels} panels of {ruler.show(flap_mm)}, back and forth like an accordion"


def _cover(ruler: Ruler, cover: CoverResult, cutting: CuttingResult) -> tuple[Step, ...]:
    wrap = cover.wrap
    scores = " and ".join(ruler.number(score) for score in wrap.scores_mm)
    cut = next(cut for cut in cutting.cuts if cut.part.key == "cover")
    return (
        Step(
            "cut_cover",
            "Cut the cover",
            f"{pieces(cut.part.count)} of {ruler.size(wrap.width_mm, wrap.height_mm)}, {cut.grain_words}. Hold the section against it before you cut.",
            cutters([cut]),
            ("measure",),
            cautions=(KNIFE,),
            signature=signature(wrap.width_mm, wrap.height_mm),
            takes="cover",
            for_all=True,
        ),
        Step(
            "cover_scored",
            "Score and fold the cover",
            f"From the left edge, outside up: {scores} {ruler.name}. Fold away from the score's groove, then press the crease with the bone folder.",
            ("scoring board" if cover.on_board else "rule and scoring tool", "bone folder"),
            ("cut_cover",),
            signature=signature(*wrap.scores_mm),
        ),
    )
