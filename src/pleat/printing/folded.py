"""What a folded structure is made by on paper: score lists inside up, its sheets small with their sizes, a
picture of every state, and its rows in the part list."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from pleat.core.engines.folding.flat import Flat
from pleat.core.engines.folding.sheet import scores
from pleat.core.pleats.binding.hinged.record import HingedResult
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.pleats.structures.cut import by_size
from pleat.core.pleats.structures.made import Made
from pleat.core.pleats.structures.work import marks
from pleat.core.whole.planning import Plan
from pleat.drawing.pages.folded import look_of, marked
from pleat.drawing.shapes import Drawing, Label, Shape, moved, scaled
from pleat.drawing.structures import states
from pleat.drawing.svg import render_print
from pleat.printing.further import pages_of
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken
from pleat.printing.parts import Row, rows_of
from pleat.printing.pen import PRINT, STYLES
from pleat.printing.strips import MarkOn, Strip, strips_of

ACROSS: Final = 3
"""Pictures side by side on a page."""
NAME_MM: Final = 9.0


def score_lists(flats: Sequence[Flat], plan: Plan) -> tuple[Strip, ...]:
    """Every sort of piece with folds: its marks from the left edge, and from the head where it folds across,
    inside up."""
    ruler, strips = plan.brief.ruler, []
    for flat in flats:
        for upright, ends in ((True, ("LEFT EDGE", "right edge")), (False, ("HEAD", "tail"))):
            places = scores(flat.piece, upright=upright)
            if places:
                lines = tuple(
                    MarkOn(place, f"score {ruler.number(ruler.snap(place))}", "score") for place in places
                )
                across = "" if upright else " from the head"
                strips.append(
                    Strip(
                        f"Scores of the {flat.name}{across} inside up",
                        flat.piece.size_mm[0 if upright else 1],
                        lines,
                        *ends,
                    )
                )
    return tuple(strips)


@strips_of.register
def _strips(result: FoldedBlock, plan: Plan) -> tuple[Strip, ...]:
    return score_lists(result.flats, plan)


def rows(made: Made, flats: Sequence[Flat], plan: Plan) -> list[Row]:
    """Scores, gussets and papers, for the list beside the knife."""
    ruler = plan.brief.ruler
    found = [(f"scores, {flat.name}", marks(flat.piece, ruler)) for flat in flats if marks(flat.piece, ruler)]
    found += [
        (room.name, f"{ruler.show(room.has_mm)} for {ruler.thin(room.stiff.likely)}") for room in made.rooms
    ]
    if made.programme.closing:
        found.append(("shut in this order", ", ".join(group.name for group in made.programme.closing)))
    return found


@strips_of.register
def _hinge_strips(result: HingedResult, plan: Plan) -> tuple[Strip, ...]:
    return score_lists(result.flats, plan)


@rows_of.register
def _hinge_rows(result: HingedResult, plan: Plan) -> list[Row]:
    ruler = plan.brief.ruler
    floor = [] if result.floor_mm is None else [("hinge, from fold to fold", ruler.show(result.floor_mm))]
    return [(f"scores, {flat.name}", marks(flat.piece, ruler)) for flat in result.flats] + floor


@pages_of.register
def _hinge_pictures(result: HingedResult, plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    return pictures(result.made, plan, width, room)


@rows_of.register
def _rows(result: FoldedBlock, plan: Plan) -> list[Row]:
    ruler = plan.brief.ruler
    papers = [
        (f"paper {letter}", f"{len(on)} of {ruler.size(*size)}")
        for letter, (size, on) in by_size(result.made.dressings, ruler).items()
    ]
    return [
        ("panels", result.in_words),
        *rows(result.made, result.flats, plan),
        *(papers if any(part.key.startswith("paper_") for part in result.parts) else []),
    ]


@pages_of.register
def _pictures(result: FoldedBlock, plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    return pictures(result.made, plan, width, room)


def pictures(made: Made, plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    """One picture a state, from above, as many a page as fit; what comes over is named below it."""
    if not made.programme.closing:
        return []
    named, drawn = made.worked.states, states(made.worked, look_of(plan), marked(made, plan), printed=True)
    size = drawn[0][1]
    cell = (width - 2 * MARGIN_MM) / ACROSS
    share = min((cell - 6) / size.width, 58.0 / size.height)
    tall = size.height * share + NAME_MM
    down = max(1, int((room - 8) // tall))
    title = "how it opens" if made.programme.opens else "how it shuts"
    how = (
        "How it opens, leaf by leaf, seen from above."
        if made.programme.opens
        else "How it shuts, seen from above, inside up."
    )
    some = f" {len(drawn)} of its {len(named)} states." if len(drawn) < len(named) else ""
    says = Label(
        MARGIN_MM,
        MARGIN_MM + HEAD_MM,
        f"{how}{some} Grey is paper on a face, a frame a place on it.",
        "label",
        "start",
    )
    pages = []
    for start in range(0, len(drawn), ACROSS * down):
        shapes: list[Shape] = []
        for place, (number, drawing) in enumerate(drawn[start : start + ACROSS * down]):
            x, y = MARGIN_MM + place % ACROSS * cell, MARGIN_MM + HEAD_MM + 6 + place // ACROSS * tall
            shapes += [moved(shape, x, y) for shape in scaled(drawing, share).shapes]
            words = broken(f"{number + 1}. {named[number].name}", STYLES["small"], cell - 4)
            shapes += [
                Label(x, y + size.height * share + 4 + 3.4 * n, line, "small", "start")
                for n, line in enumerate(words[:2])
            ]
        pages.append((title, render_print(Drawing(1, 1, "states", [*shapes, says]), 0, 0, PRINT)))
    return pages
