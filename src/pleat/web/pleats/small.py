"""The small drawing on a folded pleat, drawn the same way for all."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from markupsafe import Markup

from pleat.core.base.plan import PleatResult
from pleat.core.pleats.binding.hinged.record import HingedResult
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.cover.laid import LaidResult
from pleat.core.pleats.cover.wrapped import WrapResult
from pleat.core.pleats.extras.compute import ExtrasResult
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.pleats.paper.compute import PaperResult
from pleat.drawing.shapes import Drawing, Label
from pleat.drawing.svg import Pen, render_screen

SMALL: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=8, edge=2)


def high(result: PleatResult) -> float:
    """How high a result's drawing may be on the folded pleat, px; one that is wide is kept low, so that its
    lines stay as strong as the others'."""
    match result:
        case SectionsBlock():
            return 46 if len(result.sections) == 1 else 80
        case SewnResult():
            return 132 if result.rows == 1 else 60
        case PaperResult():
            return 60
        case ExtrasResult() | WrapResult():
            return 64
        case LaidResult():
            return 84
        case FoldedBlock() | HingedResult():
            return 96
    return 132


def small(drawing: Drawing, height: float = 132, width: float = 44) -> Markup:
    """A drawing without words or numbers, in its own proportions; the pleat's words say what it is."""
    bare = replace(drawing, shapes=tuple(shape for shape in drawing.shapes if not isinstance(shape, Label)))
    svg = render_screen(bare, width, height, SMALL, css="small-drawing").svg
    return Markup(svg.replace('role="img"', 'aria-hidden="true"', 1))
