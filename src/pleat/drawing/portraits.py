"""The portrait of a book: shut, standing at a slight angle, true in proportion, so that a thick book is
thick.

The front faces the maker; depth goes to the upper left, so that spine and head show. The block, the cover and
the binding each add their part, found by the type of their result.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.points import point
from pleat.core.pleats.binding.result import BindingResult
from pleat.core.pleats.cover.result import CoverResult
from pleat.core.pleats.pages.block import Block
from pleat.core.whole.planning import Plan
from pleat.drawing.shapes import Curve, Dot, Drawing, Line, Rect, Shape, moved

ACROSS: Final = 0.62
UP: Final = 0.42
"""How far a millimetre of thickness goes to the left and up."""
MOST_LEAVES: Final = 24
"""Lines of leaves drawn at the head."""
_THINNEST: Final = 0.6
"""A thinner spine would not be seen at all."""


@dataclass(frozen=True)
class Body:
    """The shut book in mm: its front, how thick it is at the spine, and the corner of the front that depth is
    counted from."""

    width: float
    height: float
    thick: float

    def at(self, x: float, y: float, depth: float = 0.0) -> tuple[float, float]:
        """The place on the picture of a point on the front, so deep behind it."""
        return x + ACROSS * (self.thick - depth), y + UP * (self.thick - depth)

    def face(self, corners: Sequence[tuple[float, float, float]], style: str) -> Curve:
        """A face through corners of (x, y, depth)."""
        places = [self.at(*corner) for corner in corners]
        return Curve((("M", places[0]), *(("L", place) for place in places[1:]), ("Z", ())), style)

    def line(self, start: tuple[float, float, float], end: tuple[float, float, float], style: str) -> Line:
        return Line(*self.at(*start), *self.at(*end), style)


def head(block: Block, cover: CoverResult, body: Body) -> list[Shape]:
    """The leaves as they show at the head: as wide as they are, their edges running back."""
    top, right, near = cover.square_head_mm, min(block.leaf_width_mm, body.width), cover.board_mm
    far = max(body.thick - near, near)
    edges = min(MOST_LEAVES, max(2, block.leaves // 2))
    shapes: list[Shape] = [
        body.face(
            [(0, top, near), (right, top, near), (right, top, far), (0, top, far)],
            f"portrait-face swatch-{block.swatch}",
        )
    ]
    places = [near + (far - near) * n / edges for n in range(1, edges)]
    shapes += [body.line((0, top, place), (right, top, place), "portrait-leaf") for place in places]
    return shapes


@point("portrait: cover", "how a cover looks in the portrait")
def covered(cover: CoverResult, _block: Block, body: Body) -> list[Shape]:
    """The outermost leaves as their own cover: spine and front in the paper's colour."""
    w, h, t = body.width, body.height, body.thick
    return [
        body.face([(0, 0, 0), (0, 0, t), (0, h, t), (0, h, 0)], f"portrait-face swatch-{cover.swatch}"),
        body.face([(0, 0, 0), (0, 0, t), (0, h, t), (0, h, 0)], "portrait-shade"),
        Rect(*body.at(0, 0), w, h, f"portrait-face swatch-{cover.swatch}"),
    ]


@point("portrait: behind", "what of a cover shows behind the leaves")
def behind(_cover: CoverResult, _body: Body) -> list[Shape]:
    """What shows of a cover behind the leaves: nothing where there is none."""
    return []


@point("portrait: binding", "what shows of a binding in the portrait")
def held(binding: BindingResult, cover: CoverResult, body: Body) -> list[Shape]:
    """What shows of a binding: holes through the front near the held edge, or nothing where they lie in the
    fold."""
    if binding.at == "fold":
        return []
    return [
        Dot(*body.at(binding.inset_mm, position + cover.square_head_mm), "portrait-hole", radius_mm=2.0)
        for position in binding.positions_mm
    ]


@point("portrait: beyond", "how far what holds the book stands out of the portrait")
def beyond(_binding: BindingResult, _body: Body) -> tuple[float, float]:
    """How far what holds the book shows to the left of it, and above it, in mm."""
    return 0.0, 0.0


@point("portrait: standing", "a block that is shown otherwise than shut")
def standing(_block: Block, _plan: Plan) -> Drawing | None:
    """A block that is shown otherwise than shut, as folded things are half open; None for most."""
    return None


def portrait(plan: Plan) -> Drawing:
    """The book as it will stand on the table."""
    drawing = standing(plan.pages, plan)
    if drawing is not None:
        return drawing
    cover = plan.cover
    body = Body(cover.front_width_mm, cover.front_height_mm, max(cover.spine.likely, _THINNEST))
    shapes = [*behind(cover, body), *head(plan.pages, cover, body), *covered(cover, plan.pages, body)]
    shapes += [] if cover.hides_spine else held(plan.binding, cover, body)
    size = plan.brief.ruler.size(body.width, body.height)
    says = f"The book shut, {size}, {plan.brief.ruler.thin(cover.spine.likely)} thick at the spine."
    left, above = (0.0, 0.0) if cover.hides_spine else beyond(plan.binding, body)
    shapes = [moved(shape, left, above) for shape in shapes] if left or above else shapes
    return Drawing(
        body.width + ACROSS * body.thick + left, body.height + UP * body.thick + above, says, shapes
    )
