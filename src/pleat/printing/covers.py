"""What a cover is made by on paper: score lists from either face, the layout of its spine, corner templates
and board outlines at true size."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from pleat.core.engines.folding.convex import bounds
from pleat.core.engines.folding.sheet import Piece, scores
from pleat.core.pleats.cover.hard import HardResult
from pleat.core.pleats.cover.laid import Laid, LaidResult
from pleat.core.whole.planning import Plan
from pleat.drawing.cover import hard as drawing
from pleat.drawing.outlines import outline
from pleat.drawing.shapes import Drawing, Label, Shape, moved
from pleat.drawing.svg import render_print
from pleat.printing.further import pages_of
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.parts import Row, rows_of
from pleat.printing.pen import PRINT
from pleat.printing.strips import MarkOn, Strip, strips_of

ONTO_MM: Final = 20.0
"""How far the spine layout goes on to the boards."""
GAP_MM: Final = 8.0


@strips_of.register
def score_lists(result: LaidResult, plan: Plan) -> tuple[Strip, ...]:
    """Every piece with folds: its marks from the left edge outside up, and turned over; from the head where
    it folds across. What is the same turned over as another piece is outside up is not printed twice."""
    strips = [strip for piece in result.pieces for strip in _lists(piece.piece, plan)]
    outside = {_same(strip) for strip in strips if not strip.name.endswith(_TURNED)}
    return tuple(strip for strip in strips if not strip.name.endswith(_TURNED) or _same(strip) not in outside)


def _same(strip: Strip) -> tuple[object, ...]:
    """What two strips share that are marked alike, to a hundredth of a millimetre."""
    return round(strip.length_mm, 2), strip.top, tuple(round(mark.at_mm, 2) for mark in strip.marks)


_TURNED: Final = ("inside up", "head over tail")


def _lists(sheet: Piece, plan: Plan) -> tuple[Strip, ...]:
    ruler, strips = plan.brief.ruler, []
    for upright, ends in ((True, ("LEFT EDGE", "right edge")), (False, ("HEAD", "tail"))):
        length = sheet.size_mm[0 if upright else 1]
        places = scores(sheet, upright=upright)
        if not places:
            continue
        across = "" if upright else " from the head"
        faces = [
            (places, "outside up"),
            (
                scores(sheet, upright=upright, mirrored=True),
                "inside up" if upright else "turned head over tail",
            ),
        ]
        if all(abs(face - other) < 0.01 for face, other in zip(faces[0][0], faces[1][0], strict=True)):
            faces = [(places, "either face up")]
        for marks, how in faces:
            lines = tuple(MarkOn(mark, f"score {ruler.number(ruler.snap(mark))}", "score") for mark in marks)
            strips.append(Strip(f"Scores of the {sheet.name}{across} {how}", length, lines, *ends))
    return tuple(strips)


@strips_of.register
def marked_edges(result: HardResult, plan: Plan) -> tuple[Strip, ...]:
    """Where boards and strip lie on the covering, as it is marked inside, and from the outside; and the
    layout of the spine by itself."""
    shell, ruler = result.shell, plan.brief.ruler
    names = ("back board", "back board ends", "strip", "strip ends", "front board", "front board ends")
    outside = [(at, names[number]) for at, number in shell.marks_outside]
    inside = sorted(
        (shell.marked_width - at, name.removesuffix(" ends") if name.endswith("ends") else f"{name} ends")
        for at, name in outside
    )
    strips = [
        Strip(
            f"Marks on the covering {how}",
            shell.marked_width,
            tuple(MarkOn(at, f"{ruler.number(ruler.snap(at))} {name}", "score") for at, name in marks),
            *ends,
        )
        for how, marks, ends in (
            ("inside, front board first", inside, ("LEFT EDGE (front)", "right edge (back)")),
            ("outside, back board first", outside, ("LEFT EDGE (back)", "right edge (front)")),
        )
    ]
    start = shell.edges[2] - ONTO_MM
    layout = [
        MarkOn(at - start, f"{name}: {ruler.number(at - shell.edges[2])}", "score")
        for at, name in zip(shell.edges[2:6], names[1:5], strict=True)
    ]
    length = shell.edges[5] + ONTO_MM - start
    return (*strips, Strip("Spine layout", length, tuple(layout), "back", "front"))


@rows_of.register
def _rows(result: LaidResult, plan: Plan) -> list[Row]:
    """Scores and joints, for the list beside the knife."""
    ruler, rows = plan.brief.ruler, []
    for piece in result.pieces:
        for upright, edge in ((True, "the left edge, outside up"), (False, "the head")):
            places = scores(piece.piece, upright=upright)
            if places and not isinstance(result, HardResult):
                rows.append(
                    (
                        f"scores, {piece.piece.name}",
                        f"{', '.join(ruler.number(ruler.snap(place)) for place in places)} {ruler.name} "
                        f"from {edge}",
                    )
                )
    if isinstance(result, HardResult):
        shell = result.shell
        inside = ", ".join(ruler.number(ruler.snap(at)) for at in shell.marks_inside)
        rows.append(("marks inside", f"{inside} {ruler.name} from the left edge, front board first"))
        down = ", ".join(ruler.number(ruler.snap(at)) for at in (shell.reach, shell.reach + shell.height))
        rows.append(("marks from the head", f"{down} {ruler.name}"))
        rows.append(
            (
                "joint, corners",
                f"joint {ruler.show(shell.joint)}; corners cut {ruler.thin(shell.corner)} off the board",
            )
        )
    return rows


@pages_of.register
def true_size(result: LaidResult, plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    """Corner template and, where they fit on the paper, the outlines of boards, at true size."""
    wide = width - 2 * MARGIN_MM
    shapes: list[Shape] = []
    x, y, tall = 0.0, 6.0, 0.0
    boxes: list[tuple[float, float, list[Shape], str]] = []
    if isinstance(result, HardResult):
        corner = drawing.corner(result.shell, plan.brief.ruler, result.swatch)
        boxes.append(
            (
                corner.width,
                corner.height,
                [_plain(shape) for shape in corner.shapes],
                "corner template, from inside: cut along the slant",
            )
        )
    for piece in _outlines(result):
        left, top, right, bottom = bounds(point for edge in piece.piece.outlines for point in edge)
        lines: list[Shape] = [outline(edge, "edge", -left, -top) for edge in piece.piece.outlines]
        boxes.append(
            (
                right - left,
                bottom - top,
                lines,
                f"{piece.piece.name}, {plan.brief.ruler.size(right - left, bottom - top)}",
            )
        )
    pages: list[tuple[str, str]] = []
    for across, high, lines, name in boxes:
        if across > wide or high + 12 > room:
            continue
        if x + across > wide:
            x, y, tall = 0.0, y + tall + GAP_MM, 0.0
        if y + high + 4 > room:
            pages.append(_page(shapes))
            shapes, x, y, tall = [], 0.0, 6.0, 0.0
        at = (MARGIN_MM + x, MARGIN_MM + HEAD_MM + y)
        shapes += [moved(shape, *at) for shape in lines]
        shapes.append(Label(at[0], at[1] - 1.5, name, "small", "start"))
        x, tall = x + max(across, 60.0) + GAP_MM, max(tall, high)
    return [*pages, _page(shapes)] if shapes else pages


def _outlines(result: LaidResult) -> list[Laid]:
    """The boards of a cover, each size once: the other of a pair is the same turned over."""
    found: dict[tuple[str, float, float], Laid] = {}
    for piece in sorted(
        (one for one in result.pieces if one.what == "board"), key=lambda one: one.piece.size_mm
    ):
        width, height = piece.piece.size_mm
        found.setdefault((piece.part, round(width, 2), round(height, 2)), piece)
    return list(found.values())


def _plain(shape: Shape) -> Shape:
    """A shape of the corner as ink on paper."""
    style = shape.style
    if "swatch-grey" in style:
        return replace(shape, style="edge")
    return replace(
        shape, style={"measure": "cross", "off": "join"}.get(style, "label" if style == "label" else "edge")
    )


def _page(shapes: list[Shape]) -> tuple[str, str]:
    return "true size", render_print(Drawing(1, 1, "pieces", shapes), 0, 0, PRINT)
