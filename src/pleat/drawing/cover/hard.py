"""A hard cover: flat from the outside, which is the form; shut and open end on; a corner and an edge close
up."""

from __future__ import annotations

import math
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.pleats.cover.hard import HardResult
from pleat.core.pleats.cover.laid import LaidResult
from pleat.core.pleats.cover.shell import Shell
from pleat.core.pleats.pages.block import Block
from pleat.core.whole.planning import Plan
from pleat.drawing import portraits
from pleat.drawing.cover.laid import ROOM, crosses, shapes_of
from pleat.drawing.handles import Handle, handles
from pleat.drawing.looks import main
from pleat.drawing.outlines import outline, running
from pleat.drawing.portraits import Body
from pleat.drawing.shapes import ControlSpot, Curve, Dim, Drawing, Label, Line, Rect, Shape, moved

NARROW: Final = 0.09
"""Columns narrower than this share of the cover have no room for their width on one line."""
MAGNIFIED: Final = 10.0


@main.register
def flat(result: HardResult, plan: Plan) -> Drawing:
    """The cover flat with boards, joints and turn-ins: widths below, running positions above. Square, joint
    and turn-in are the form."""
    shell, ruler = result.shell, plan.brief.ruler
    width, height = shell.width, shell.wrap_height
    shapes: list[Shape] = [shape for piece in result.laid for shape in shapes_of(piece, plan)]
    at = shell.edges
    shapes += [Line(x, shell.reach, x, height - shell.reach, "bend") for x in at[2:6]]
    middle = height * 0.47
    for name, left, right in (("back", at[1], at[2]), ("front", at[5], at[6])):
        shapes.append(Label((left + right) / 2, middle, name, "panel-name"))
        shapes.append(
            Label((left + right) / 2, middle, ruler.size(right - left, shell.height), "label", shift=(0, 24))
        )
    shapes.append(
        Label(
            (at[3] + at[4]) / 2,
            middle,
            f"spine {ruler.number(shell.strip)}",
            "label",
            turned=True,
            shift=(5, 0),
        )
    )
    shapes += crosses(result)
    shapes += running(at[1:-1], ruler, min(ROOM[0] / width, ROOM[1] / height))
    shown, whole = ruler.summed([column.size_mm for column in shell.columns])
    dims = [
        Dim("bottom", left, right, text)
        for left, right, text in zip(at, at[1:], shown, strict=False)
        if right - left > NARROW * width
    ]
    dims += [
        Dim("top", 0, width, ruler.size(width, height), level=2),
        Dim("left", 0, shell.reach, ""),
        Dim("left", shell.reach, shell.reach + shell.height, ruler.number(shell.height)),
    ]
    shapes.append(Line(at[6], height * 0.2, width * 1.035, height * 0.2, "leader"))
    shapes.append(Line(at[6] + shell.reach / 2, height * 0.72, width * 1.035, height * 0.72, "leader"))
    return Drawing(
        width,
        height,
        f"The cover flat from the outside, {ruler.size(width, height)}: {', '.join(shown)} make {whole} "
        f"{ruler.name}.",
        shapes,
        dims=dims,
        spots=(
            ControlSpot("cover.square_mm", width, height * 0.2, (62, 0)),
            ControlSpot("cover.turn_in_mm", width, height * 0.72, (62, 0)),
            ControlSpot("cover.joint_mm", (at[2] + at[3]) / 2, height, (0, 12)),
        ),
    )


@handles.register
def joint(result: HardResult, plan: Plan) -> tuple[Handle, ...]:
    """The joint is dragged: the board moves away from the strip, and what the cover opens to follows."""
    ruler, shell = plan.brief.ruler, result.shell
    return (
        Handle(
            "cover.joint_mm",
            "joint",
            shell.joint,
            max(ruler.step_mm, ruler.snap_up(1.0)),
            30.0,
            ruler.step_mm,
        ),
    )


def shut(result: HardResult, plan: Plan) -> Drawing:
    """The shut book end on at true thickness: boards, strip and joints, the block as it is likely, its low
    and high as a shadow."""
    shell, ruler = result.shell, plan.brief.ruler
    b, block = shell.board, shell.spine.used
    top = b
    tall = shell.strip - (2 * b if shell.between else 0.0)
    reach = min(shell.front + shell.set_back, 62.0)
    leaf = (
        min(shell.leaf[0], reach - max(min(shell.squares), 0.0))
        if shell.front + shell.set_back <= 62.0
        else reach
    )
    colour = f"swatch-{plan.paper.stock('board').swatch}"
    middle = top + tall / 2
    shapes: list[Shape] = [
        Rect(0, middle - block.high / 2, leaf, block.high, "shadow"),
        Rect(0, middle - block.likely / 2, leaf, block.likely, f"leaf swatch-{plan.pages.swatch}"),
        Rect(0, middle - block.low / 2, leaf, block.low, "shadow-line"),
    ]
    shapes += [
        Line(
            0,
            middle - block.likely / 2 + block.likely * n / 8,
            leaf,
            middle - block.likely / 2 + block.likely * n / 8,
            "ghost",
        )
        for n in range(1, 8)
    ]
    strip_top = 0.0 if shell.between else b
    shapes.append(Rect(-b, strip_top, b, shell.strip, f"board-end {colour}"))
    for y in (0.0, top + tall):
        shapes.append(Rect(shell.set_back, y, reach - shell.set_back, b, f"board-end {colour}"))
    total = 2 * b + tall
    shapes += [
        Curve(
            (
                ("M", (reach, 0.0)),
                ("L", (shell.set_back, 0.0)),
                ("Q", (shell.set_back / 2, min(b, 2.0), -b, strip_top)),
                ("L", (-b, strip_top + shell.strip)),
                ("Q", (shell.set_back / 2, total - min(b, 2.0), shell.set_back, total)),
                ("L", (reach, total)),
            ),
            "covering-line",
        ),
    ]
    return Drawing(
        reach + b,
        total,
        f"The shut book end on: block {ruler.between(block.low, block.high)}, strip "
        f"{ruler.show(shell.strip)}, joint {ruler.show(shell.joint)}.",
        [moved(shape, b, 0.0) for shape in shapes],
        dims=(
            Dim("left", strip_top, strip_top + shell.strip, ruler.number(shell.strip)),
            Dim("right", middle - block.likely / 2, middle + block.likely / 2, ruler.thin(block.likely)),
            Dim("bottom", b, b + shell.set_back, ruler.number(shell.set_back)),
        ),
    )


def opened(result: HardResult, plan: Plan) -> Drawing:
    """The joint end on as the front board turns back as far as it goes."""
    shell, ruler = result.shell, plan.brief.ruler
    b, degrees = shell.board, shell.opens
    turn = math.radians(degrees)
    below = 0.0 if shell.between else b
    arm, start = (
        math.hypot(b + max(shell.set_back, 0.0), below),
        math.atan2(below, b + max(shell.set_back, 0.0)),
    )
    pivot = (0.0, below)
    length = 26.0
    edge = (pivot[0] + arm * math.cos(turn + start), pivot[1] - arm * math.sin(turn + start))
    along, down = (math.cos(turn), -math.sin(turn)), (math.sin(turn), math.cos(turn))
    corners = [edge, (edge[0] + length * along[0], edge[1] + length * along[1])]
    corners += [(x + b * down[0], y + b * down[1]) for x, y in reversed(corners)]
    colour = f"swatch-{plan.paper.stock('board').swatch}"
    tall = min(shell.strip, 16.0)
    shapes: list[Shape] = [
        Rect(b, b, 24.0, tall - b, f"leaf swatch-{plan.pages.swatch}"),
        Rect(0, below, b, tall - below, f"board-end {colour}"),
        outline(tuple(corners), f"filled board-end {colour}"),
        Curve(
            (
                ("M", pivot),
                ("Q", ((pivot[0] + edge[0]) / 2 - b / 2, (pivot[1] + edge[1]) / 2 - b / 2, *edge)),
            ),
            "covering-line",
        ),
        Curve((("M", (b, b)), ("L", corners[3])), "paste-line"),
    ]
    left = min(x for x, _ in (*corners, (0.0, 0.0))) - 1
    top = min(y for _, y in (*corners, (0.0, 0.0))) - 1
    bottom = max(tall, *(y for _, y in corners)) + 1
    says = (
        "The joint end on: the cover opens flat."
        if degrees >= 180
        else f"The joint end on: the cover opens to {degrees:.0f} degrees."
    )
    return Drawing(
        b + 24.0 - left,
        bottom - top,
        f"{says} Joint {ruler.show(shell.joint)}.",
        [moved(shape, -left, -top) for shape in shapes],
    )


def corner(shell: Shell, ruler: Ruler, swatch: str) -> Drawing:
    """The head corner at the fore edge from the inside: the board's corner, and where the covering is cut off
    it."""
    reach, clear, size = shell.reach, shell.corner, shell.reach + 22.0
    leg = max(2 * reach - clear * math.sqrt(2), 0.0)
    shapes: list[Shape] = [
        outline(
            ((leg, 0.0), (size, 0.0), (size, size), (0.0, size), (0.0, leg)), f"filled wrap swatch-{swatch}"
        ),
        outline(((0.0, 0.0), (leg, 0.0), (0.0, leg)), "off"),
        Rect(reach, reach, size - reach, size - reach, "board-end swatch-grey"),
    ]
    near = (reach - clear / math.sqrt(2), reach - clear / math.sqrt(2))
    shapes.append(Line(reach, reach, *near, "measure", arrow=True))
    shapes.append(Label(*near, ruler.thin(clear), "label", "end", shift=(-6, -3)))
    dims = (Dim("bottom", 0, reach, ruler.number(reach)),)
    return Drawing(
        size,
        size,
        f"A corner: the covering is cut at 45 degrees, {ruler.thin(clear)} off the board's corner.",
        shapes,
        dims=dims,
    )


def edge(result: LaidResult, plan: Plan) -> Drawing:
    """The layers of a cover's edge, ten times magnified, the outside on top."""
    ruler, y = plan.brief.ruler, 0.0
    wide = 46.0
    shapes: list[Shape] = []
    for layer in result.layers:
        high = max(layer.mm * MAGNIFIED, 0.4)
        shapes += [
            Rect(0, y, wide, high, f"layer swatch-{layer.swatch}"),
            Label(wide, y + high / 2, f"{layer.name} {ruler.thin(layer.mm)}", "label", "start", shift=(8, 4)),
        ]
        y += high
    return Drawing(
        wide * 3.4, max(y, 12.0), "The layers of the cover, outside on top, ten times as thick.", shapes
    )


@portraits.behind.register
def _back(cover: HardResult, body: Body) -> list[Shape]:
    """The back board, whose inner face shows past the leaves."""
    w, h, t, b = body.width, body.height, body.thick, cover.shell.board
    face = f"portrait-face swatch-{cover.swatch}"
    return [
        body.face([(0, 0, t - b), (w, 0, t - b), (w, h, t - b), (0, h, t - b)], face),
        body.face([(0, 0, t - b), (w, 0, t - b), (w, 0, t), (0, 0, t)], face),
    ]


@portraits.covered.register
def _shut(cover: HardResult, _block: Block, body: Body) -> list[Shape]:
    """Spine and front, the joint pressed in along it; quarter covering shows its sides."""
    w, h, t, b = body.width, body.height, body.thick, cover.shell.board
    shell, cloth = cover.shell, f"portrait-face swatch-{cover.swatch}"
    spine = [(0.0, 0.0, 0.0), (0.0, 0.0, t), (0.0, h, t), (0.0, h, 0.0)]
    x, y = body.at(0, 0)
    joint = b + shell.set_back
    shapes: list[Shape] = [
        body.face(spine, cloth),
        body.face(spine, "portrait-shade"),
        Rect(x, y, w, h, cloth, cover.rounded_mm),
    ]
    side = next(
        (piece for piece in cover.laid if piece.what == "side" and piece.x_mm > shell.width / 2), None
    )
    if side is not None:
        onto = joint + side.x_mm - shell.edges[5]
        shapes.append(Rect(x + onto, y, w - onto, h, f"portrait-face swatch-{cover.side_swatch}"))
    shapes += [
        Line(x + b * 0.6, y, x + b * 0.6, y + h, "portrait-leaf"),
        Line(x + joint, y, x + joint, y + h, "portrait-leaf"),
    ]
    shapes.append(Rect(x + w * 0.3, y + h * 0.2, w * 0.5, h * 0.14, "portrait-label"))
    if cover.fastener == "elastic":
        shapes.append(Line(x + w - 15, y, x + w - 15, y + h, "portrait-thread"))
    return shapes
