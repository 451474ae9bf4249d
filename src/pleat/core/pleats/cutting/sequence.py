"""The cuts of a material in the order they are made: every setting of the fence once as far as the sheets
allow, and as many sheets together as the trimmer takes."""

from __future__ import annotations

from dataclasses import dataclass
from math import floor
from typing import Final, Literal

from pleat.core.materials.sheet import SheetCut
from pleat.core.materials.tools import Tools
from pleat.core.pleats.cutting.shared import StockPlan

NEAR_MM: Final = 1e-3
Rectangle = tuple[float, float, float, float]
"""(x, y, width, height) in mm."""


@dataclass(frozen=True)
class CutStep:
    """One cut in the order of work: ``number`` is its own on the ``sheet`` (the place of that in its plan,
    from 0), ``fence_mm`` the distance from the edge that lies against the fence, ``stack`` how many sheets
    lie on each other, and ``pieces`` are the parts, by their keys, of which some come free by it."""

    stock: str
    sheet: int
    number: int
    axis: Literal["upright", "level"]
    fence_mm: float
    stack: int
    pieces: tuple[str, ...]


@dataclass(frozen=True)
class _Made:
    """A cut with the one that has to come before it, by its number; 0 for none."""

    step: CutStep
    after: int


def cut_steps(plan: StockPlan, tools: Tools) -> tuple[CutStep, ...]:
    """Every cut that is still to be made, each setting as long as it serves. A cut waits for the one that
    made the rectangle it goes through."""
    open_ = [made for place, sheet in enumerate(plan.sheets) for made in _of_sheet(plan, place, sheet, tools)]
    done = {(place, 0) for place in range(len(plan.sheets))}
    steps: list[CutStep] = []
    while open_:
        ready = [made for made in open_ if (made.step.sheet, made.after) in done]
        counts: dict[float, int] = {}
        for made in ready:
            counts[_setting(made)] = counts.get(_setting(made), 0) + 1
        waiting = {_setting(made) for made in open_ if made not in ready}
        setting = max(counts, key=lambda one: (one not in waiting, counts[one], one))
        for place in range(len(plan.sheets)):  # a sheet is turned as seldom as can be
            for made in open_.copy():
                step = made.step
                if step.sheet == place and _setting(made) == setting and (place, made.after) in done:
                    steps.append(step)
                    done.add((place, step.number))
                    open_.remove(made)
    return tuple(steps)


def _setting(made: _Made) -> float:
    return round(made.step.fence_mm, 2)


def _of_sheet(plan: StockPlan, place: int, sheet: SheetCut, tools: Tools) -> list[_Made]:
    """The cuts of a sheet with what each waits for: the cut that made the rectangle it parts."""
    rects: list[tuple[Rectangle, int]] = [((0.0, 0.0, sheet.width_mm, sheet.height_mm), 0)]
    found = []
    for cut in sheet.cuts:
        axis = 0 if cut.axis == "upright" else 1
        start = (cut.x_mm, cut.y_mm)
        which = next(
            number
            for number, (rect, _) in enumerate(rects)
            if abs(start[axis] - rect[axis] - cut.fence_mm) < NEAR_MM
            and abs(start[1 - axis] - rect[1 - axis]) < NEAR_MM
            and abs(cut.length_mm - rect[3 - axis]) < NEAR_MM
        )
        rect, after = rects.pop(which)
        off, rest = _parted(rect, axis, cut.fence_mm)
        rects += [(off, cut.number), (rest, cut.number)]
        step = CutStep(
            stock=plan.stock.key,
            sheet=place,
            number=cut.number,
            axis=cut.axis,
            fence_mm=cut.fence_mm,
            stack=stack_of(plan, sheet, cut.length_mm, tools),
            pieces=tuple(dict.fromkeys(_free(sheet, off) + _free(sheet, rest))),
        )
        found.append(_Made(step, after))
    return found


def _parted(rect: Rectangle, axis: int, fence: float) -> tuple[Rectangle, Rectangle]:
    x, y, width, height = rect
    if axis == 0:
        return (x, y, fence, height), (x + fence, y, width - fence, height)
    return (x, y, width, fence), (x, y + fence, width, height - fence)


def _free(sheet: SheetCut, rect: Rectangle) -> list[str]:
    """The part of which a rectangle is one piece."""
    x, y, width, height = rect
    return [
        piece.part
        for piece in sheet.pieces
        if abs(width - piece.width_mm) < NEAR_MM
        and abs(height - piece.height_mm) < NEAR_MM
        and piece.x_mm - NEAR_MM < x < piece.x_mm + piece.across * piece.width_mm
        and piece.y_mm - NEAR_MM < y < piece.y_mm + piece.down * piece.height_mm
    ]


def stack_of(plan: StockPlan, sheet: SheetCut, length_mm: float, tools: Tools) -> int:
    """How many equal sheets are cut together: what the trimmer takes in thickness, as far as it is long
    enough for the cut; one by one with a knife."""
    thick = plan.stock.caliper.high
    if tools.trimmer_thickest_mm is None or not tools.trims(length_mm, thick):
        return 1
    return max(1, min(sheet.times, floor(tools.trimmer_thickest_mm / thick + 1e-9)))
