"""What the templates of the pleats without members need beyond their drawings: brief, paper and cutting."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import groupby
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, joined
from pleat.core.materials.sheet import CutSheet, SheetCut
from pleat.core.pleats.binding import suiting
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.cover import suiting as covering
from pleat.core.pleats.cutting.compute import NEARLY_NONE, CuttingResult, how_good
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.moving import can_be_moved, single_pieces
from pleat.core.pleats.cutting.sequence import CutStep
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.pleats.paper.compute import PaperResult
from pleat.core.pleats.paper.record import ROLES
from pleat.drawing import cutting as cutting_drawing
from pleat.drawing import looks
from pleat.drawing import paper as paper_drawing
from pleat.drawing.svg import Rendered, render_screen
from pleat.services.books import Opened, folded_once
from pleat.services.cutting import ticked_before
from pleat.web.display import drawn
from pleat.web.pleats.members import about


@about.register
def brief(result: BriefResult, opened: Opened) -> dict[str, object]:
    """The open book, and the leaf that the paper gives, where that is another."""
    width, height = folded_once(opened.book.paper.leaf)
    plan = opened.plan
    ways = [offer for offer in plan.binding.offers if offer.group == suiting.GROUP]
    thick = result.ruler.thin(plan.pages.thickness.likely)
    return {
        "held": suiting.in_words(ways, len(plan.pages.units), thick)
        if ways and plan.pages.unit == "section"
        else "",
        "covered": covering.in_words(
            tuple(offer for offer in plan.cover.offers if offer.group == covering.GROUP)
        ),
        "ways": [offer for offer in ways if offer.good and not offer.chosen][:2],
        "main": drawn(render_screen(looks.main(result, opened.plan), 820, 400)),
        "paper_fit": (width, height)
        if (width, height) != (result.leaf_width_mm, result.leaf_height_mm)
        else None,
    }


@about.register
def paper(result: PaperResult, opened: Opened) -> dict[str, object]:
    """Each paper that this book uses to scale, and how thick they are; what to pick from is loaded when it is
    opened."""
    papers, brief_ = opened.book.paper.by_key(), opened.plan.brief
    used = result.roles
    return {
        "roles": ROLES,
        "in_materials": [role for role in used if papers[role].stock_id],
        "sheets": [
            (
                role,
                result.stock(role),
                papers[role],
                drawn(
                    render_screen(
                        paper_drawing.sheet(result.stock(role), brief_), 420, 310 if len(used) < 3 else 230
                    )
                ),
            )
            for role in used
        ],
        "main": drawn(render_screen(looks.main(result, opened.plan), 400, 96)),
    }


TEXT_PX: Final = 18
MOST_SETTINGS: Final = 30
"""Settings that are listed on the screen."""


@about.register
def cutting(result: CuttingResult, opened: Opened) -> dict[str, object]:
    """Each material with the sheets that are cut of it, and its pieces by the letters they have there."""
    ruler = opened.plan.brief.ruler
    known = {fact.number for plan in result.plans for fact in plan.done}
    others = [fact for fact in opened.tools.shelf.cut if fact.number not in known]
    return {
        "plans": [_sheets(plan, result, opened) for plan in result.plans],
        "others": [(fact, _fact_words(fact, ruler), drawn(_small(fact, []))) for fact in others],
    }


def _fact_words(fact: CutSheet, ruler: Ruler) -> str:
    """What came out of a sheet that was cut."""
    names = dict(fact.names)
    pieces = {piece.part: piece for piece in fact.sheet.pieces}
    return "; ".join(
        f"{count * fact.sheet.times} × {names[part]}, {ruler.size(*pieces[part].own_size)}"
        for part, count in fact.sheet.counts().items()
    )


def _small(fact: CutSheet, own: Sequence[StockCut]) -> Rendered:
    return render_screen(cutting_drawing.cut_already(fact, own), 130, 110)


def _picture(plan: StockPlan, sheet: SheetCut, own: Sequence[StockCut], ruler: Ruler) -> Rendered:
    shown = cutting_drawing.SCREEN
    high = shown.width * sheet.height_mm / sheet.width_mm + 4 * TEXT_PX  # with the dimension below, no higher
    drawing = cutting_drawing.sheet(plan, sheet, own, ruler)
    return render_screen(drawing, shown.width, min(shown.height, high))


def _drawn(
    plan: StockPlan, sheet: SheetCut, own: Sequence[StockCut], ruler: Ruler, ticked: frozenset[str]
) -> tuple[SheetCut, dict[str, object], list[dict[str, object]]]:
    """A sheet, its drawing, and its pieces as boxes to drag: where they are on the drawing and how large, as
    shares of it."""
    picture, names = _picture(plan, sheet, own, ruler), {cut.part.key: cut.part.name for cut in own}
    left, top = picture.spots["corner"]
    across, down = picture.scale / picture.width, picture.scale / picture.height
    grips = [
        {
            "x": left + piece.x_mm * across,
            "y": top + piece.y_mm * down,
            "wide": piece.width_mm * across,
            "high": piece.height_mm * down,
            "piece": piece,
            "says": f"{names[piece.part]}, {ruler.number(piece.x_mm)} from the left, "
            f"{ruler.number(piece.y_mm)} from the top",
        }
        for piece in single_pieces(sheet)
    ]
    movable = can_be_moved(sheet) and plan.stock.role != "pile" and not ticked.issuperset(sheet.counts())
    return sheet, drawn(picture), grips if movable else []


def pleat_of(part_key: str, opened: Opened) -> str:
    """The pleat that a piece comes from, by the key of its part."""
    found = (name for name, result in opened.plan for part in result.parts if part.key == part_key)
    return next(found, "cutting")


def _settings(plan: StockPlan, steps: Sequence[CutStep], ruler: Ruler) -> list[tuple[str, str]]:
    """The settings of the fence in their order, each with its cuts in words."""
    found: list[tuple[str, str]] = []
    for fence, own in groupby(steps, key=lambda step: round(step.fence_mm, 2)):
        cuts = list(own)
        words = []
        for sheet, same in groupby(cuts, key=lambda step: step.sheet):
            numbers = [str(step.number) for step in same]
            which = f" of sheet {sheet + 1}" if len(plan.sheets) > 1 else ""
            words.append(f"{by_count(len(numbers), 'cut', 'cuts')} {joined(numbers)}{which}")
        stack = min(step.stack for step in cuts)
        at_once = f", {stack} sheets at once" if stack > 1 else ""
        found.append((ruler.show(fence), "; ".join(words) + at_once))
    return found[:MOST_SETTINGS]


def _better(plan: StockPlan, opened: Opened) -> str:
    """Whether a better plan is looked for by itself, on being asked, or not at all."""
    if plan.above <= NEARLY_NONE or plan.stock.roll or plan.problem is None or plan.done:
        return ""
    kept = opened.packings.get(plan.problem.key)
    if kept is None:
        return "begin"
    return "" if kept.done else "go on"


def _sheets(plan: StockPlan, result: CuttingResult, opened: Opened) -> dict[str, object]:
    ruler, ticked = opened.plan.brief.ruler, ticked_before(opened.plan)
    own = [cut for cut in result.cuts if cut.stock in plan.stocks]
    named = cutting_drawing.letters(own)
    return {
        "plan": plan,
        "good": how_good(plan),
        "parts": [(named[cut.part.key], cut, pleat_of(cut.part.key, opened)) for cut in own],
        "counted": list({cut.stock.key: cut for cut in own if "B6" not in cut.part.told}),
        "sheets": [_drawn(plan, sheet, own, ruler, ticked) for sheet in plan.sheets],
        "ticked": {sheet.key for sheet in plan.sheets if ticked.issuperset(sheet.counts())},
        "done": [(fact, _fact_words(fact, ruler), drawn(_small(fact, own))) for fact in plan.done],
        "lacking": [
            (cut, drawn(render_screen(cutting_drawing.alone(cut, ruler), 300, 240)))
            for cut in own
            if cut.part.key in plan.lacking
        ],
        "settings": _settings(plan, [step for step in result.order if step.stock == plan.stock.key], ruler),
        "better": _better(plan, opened),
        "also": opened.tools.shelf.serving([plan.stock.key]) if plan.stock.key in ROLES else None,
        "remnants": [
            (remnant, remnant.number in opened.book.cutting.spared)
            for remnant in opened.tools.shelf.beside(plan.stock.item)
        ],
    }
