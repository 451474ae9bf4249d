"""A part of a sewing from three sides, for sewing along: the spine from outside, the fold from inside, and
aslant.

Every stretch is a group with its step. What was sewn before the part is drawn as it lies; what comes after it
is not there yet.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.engines.sewing.chapters import Chapter
from pleat.core.engines.sewing.walk import Stretch
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.drawing.binding.fold import Commands
from pleat.drawing.shapes import ControlSpot, Curve, Dot, Drawing, Group, Label, Line, Rect, Shape

BEHIND: Final = 3
"""Sections shown below the one that is sewn."""
WIDE: Final = 200.0
"""All three views are this wide in their own mm, whatever the book, so that they stand under each other."""
_LIFT: Final = 7.0


@dataclass(frozen=True)
class Stage:
    """Where things are in all views: places along the fold, and the rows that are shown, the lowest first."""

    xs: tuple[float, ...]
    rows: tuple[int, ...]
    pitch: float

    @classmethod
    def of(cls, result: SewnResult, chapter: Chapter) -> Stage:
        low, high = max(1, min(chapter.low, chapter.high - BEHIND)), min(result.rows, chapter.high + 1)
        low = max(low, high - BEHIND - 2)
        scale = WIDE / result.height_mm
        places = (0.0, *result.positions_mm, result.height_mm)
        return cls(
            tuple(place * scale for place in places),
            tuple(range(low, high + 1)),
            12.0 if high > low else 16.0,
        )

    def x(self, at: float) -> float:
        whole = int(at)
        return self.xs[whole] if at == whole else (self.xs[whole] + self.xs[whole + 1]) / 2

    def y(self, row: int) -> float:
        """The first section lies on top, as on the spine with the head on the left."""
        return (row - self.rows[0] + 0.5) * self.pitch

    @property
    def deep(self) -> float:
        return len(self.rows) * self.pitch

    def shows(self, one: Stretch) -> bool:
        return one.row in self.rows and one.to_row in self.rows


def spine(result: SewnResult, chapter: Chapter) -> Drawing:
    """The spine from outside: thread outside in its colour, thread inside showing through."""
    stage = Stage.of(result, chapter)
    shapes: list[Shape] = []
    for row in stage.rows:
        now = " spine-row-now" if chapter.low <= row <= chapter.high else ""
        shapes += [
            Rect(
                0,
                stage.y(row) - stage.pitch / 2,
                WIDE,
                stage.pitch,
                f"spine-row{now}",
            ),
            Label(0, stage.y(row), str(row), "row-number", "end", (-6, 5)),
        ]
    shapes += _supports(result, stage)
    shapes += _stretches(result, chapter, stage, lambda one: _on_spine(one, stage))
    shapes += [
        Dot(stage.x(hole), stage.y(row), "spine-hole", 1.1)
        for row in stage.rows
        for hole in range(1, len(result.positions_mm) + 1)
    ]
    shapes += [
        Label(stage.x(hole), stage.deep, str(hole), "station-number", shift=(0, 18))
        for hole in range(1, len(result.positions_mm) + 1)
    ]
    shapes += [
        Label(0, stage.deep, "head", "quiet", "start", (-18, 18)),
        Label(WIDE, stage.deep, "tail", "quiet", "end", (18, 18)),
    ]
    spots = [
        ControlSpot(f"hole.{row}.{hole}", stage.x(hole), stage.y(row))
        for row in stage.rows
        for hole in range(1, len(result.positions_mm) + 1)
    ]
    return Drawing(
        WIDE, stage.deep, "The spine from outside, head on the left, front on top.", shapes, spots=spots
    )


def inside(result: SewnResult, chapter: Chapter) -> Drawing:
    """The section that is sewn, opened at its middle: thread along the fold, thread outside showing
    through."""
    stage = Stage.of(result, chapter)
    high, middle = 22.0, 11.0
    shapes: list[Shape] = [Rect(0, 0, WIDE, high, "leaf swatch-white"), Line(0, middle, WIDE, middle, "fold")]
    levels: dict[tuple[str, int], int] = {}

    def along(one: Stretch) -> Commands:
        if one.what == "span" and one.row == chapter.high:
            level = max((levels.get((one.side, gap), 0) for gap in one.gaps), default=0)
            levels.update({(one.side, gap): level + 1 for gap in one.gaps})
            away = (-1 if one.side == "inside" else 1) * (1.4 + 1.6 * level)
            x, to = stage.x(one.start), stage.x(one.end)
            bend = 3 if to > x else -3
            return (
                ("M", (x, middle)),
                ("Q", (x, middle + away, x + bend, middle + away)),
                ("L", (to - bend, middle + away)),
                ("Q", (to, middle + away, to, middle)),
            )
        if one.what == "tail" and one.row == chapter.high and one.side == "inside":
            return (
                ("M", (stage.x(one.start), middle)),
                ("Q", (stage.x(one.start) - 4, middle - 6, stage.x(one.start) - 9, middle - 7)),
            )
        return ()

    shapes += _stretches(result, chapter, stage, along)
    shapes += [
        Dot(stage.x(hole), middle, "spine-hole", 1.1) for hole in range(1, len(result.positions_mm) + 1)
    ]
    words = result.sewing.bed.rows[0].sides[0]
    said = "inside the fold" if words == "inside" else f"in {words}"
    of_section = f" of section {chapter.high}" if result.rows > 1 else ""
    shapes.append(
        Label(
            0,
            0,
            f"{said}{of_section}",
            "side-label",
            "start",
            (0, -6),
        )
    )
    return Drawing(WIDE, high, "The fold from inside, head on the left.", shapes)


def slanted(result: SewnResult, chapter: Chapter) -> Drawing:
    """Aslant: thread outside stands above the spine, thread inside hangs below it."""
    stage = Stage.of(result, chapter)
    lean, flat = 0.9, 0.75

    def spot(place: float, row: float, lift: float = 0.0) -> tuple[float, float]:
        y = (row - stage.rows[0] + 0.5) * stage.pitch
        return 0.82 * stage.x(place) + lean * (stage.deep - y) * 0.6, 12 + flat * y - lift

    def lying(one: Stretch) -> Commands:
        lift = _LIFT if one.side == "outside" else -_LIFT
        start, end = spot(one.start, one.row), spot(one.end, one.to_row)
        if one.what in ("span", "climb"):
            above = spot(one.start, one.row, lift), spot(one.end, one.to_row, lift)
            return (("M", start), ("C", (*above[0], *above[1], *end)))
        if one.what == "passage":
            up, down = spot(one.start, one.row, 2.4), spot(one.start, one.row, -2.4)
            return (("M", down), ("L", up)) if one.side == "outside" else (("M", up), ("L", down))
        if one.what == "catch":
            far = spot(one.end, one.to_row, 1.0)
            return (
                ("M", start),
                ("C", (start[0] - 5, start[1] - _LIFT, far[0] - 6, far[1] - _LIFT / 2, *far)),
                ("C", (far[0] + 6, far[1] + _LIFT / 2, start[0] + 5, start[1] - 1, *start)),
            )
        if one.what == "wrap":
            return (("M", start), ("C", (start[0] - 6, start[1] - 11, start[0] + 6, start[1] - 11, *start)))
        if one.what == "tail":
            return (
                ("M", start),
                ("Q", (start[0] - 5, start[1] - lift, start[0] - 10, start[1] - lift * 0.8)),
            )
        return ()

    shapes: list[Shape] = []
    first, last = stage.rows[0] - 0.5, stage.rows[-1] + 0.5
    corners = [spot(0, first), spot(len(stage.xs) - 1, first), spot(len(stage.xs) - 1, last), spot(0, last)]
    shapes.append(
        Curve((("M", corners[0]), *(("L", corner) for corner in corners[1:]), ("Z", ())), "spine-row")
    )
    shapes += [
        Line(*spot(0, row - 0.5), *spot(len(stage.xs) - 1, row - 0.5), "row-line") for row in stage.rows[1:]
    ]
    shapes += _stretches(result, chapter, stage, lying)
    shapes += [
        Dot(*spot(hole, row), "spine-hole", 0.9)
        for row in stage.rows
        for hole in range(1, len(result.positions_mm) + 1)
    ]
    return Drawing(
        WIDE,
        24 + flat * stage.deep,
        "The spine aslant: thread outside stands up, thread inside hangs below.",
        shapes,
    )


def _on_spine(one: Stretch, stage: Stage) -> Commands:
    x, y, to, to_y = stage.x(one.start), stage.y(one.row), stage.x(one.end), stage.y(one.to_row)
    match one.what:
        case "span":
            return (("M", (x, y)), ("L", (to, y)))
        case "climb":
            outward = 4.0 if one.start > len(stage.xs) / 2 - 0.5 else -4.0
            bow = outward if x == to else 0.0
            return (("M", (x, y)), ("Q", (x + bow, (y + to_y) / 2, to, to_y)))
        case "catch":
            x = to if one.end != int(one.end) else x  # a span is caught in its middle
            wide, far = 0.2 * stage.pitch, to_y + (to_y - y) * 0.16
            return (
                ("M", (x, y)),
                ("Q", (to - wide * 2.4, (y + to_y) / 2, to, far)),
                ("Q", (to + wide * 2.4, (y + to_y) / 2, x, y)),
            )
        case "wrap":
            tall = 0.34 * stage.pitch
            return (("M", (x, y)), ("Q", (x - 4, y - tall, x, y - tall)), ("Q", (x + 4, y - tall, x, y)))
        case "tail":
            return (("M", (x, y)), ("Q", (x - 4, y + 2, x - 9, y + 4))) if one.side == "outside" else ()
    return ()


def _supports(result: SewnResult, stage: Stage) -> list[Shape]:
    shapes: list[Shape] = []
    for support in result.sewing.bed.supports:
        if support.kind == "tape":
            low, high = stage.x(int(support.at)), stage.x(int(support.at) + 1)
            shapes.append(Rect(low, -2, high - low, stage.deep + 4, "tape"))
        elif support.kind == "cord":
            shapes.append(
                Curve(
                    (("M", (stage.x(support.at), -2)), ("L", (stage.x(support.at), stage.deep + 2))),
                    "cord-drawn",
                    2.6,
                )
            )
        elif support.kind == "board" and support.at == 1 and support.rows[0] in stage.rows:
            shapes.append(Rect(0, -2.4 if support.rows[0] == 1 else stage.deep, WIDE, 2.4, "board-edge"))
    return shapes


def _stretches(
    result: SewnResult, chapter: Chapter, stage: Stage, curve: Callable[[Stretch], Commands]
) -> list[Shape]:
    before: dict[str, list[tuple[str, tuple[float, ...]]]] = {}
    now: list[Shape] = []
    for stretch in result.stretches:
        if stretch.step > chapter.last or not stage.shows(stretch):
            continue
        commands = curve(stretch)
        if not commands:
            continue
        style = (
            f"thread thread-{stretch.side}"
            if stretch.side == "inside"
            else f"thread thread-shown colour-{result.thread_swatch}"
        )
        if stretch.step < chapter.first:
            before.setdefault(style, []).extend(commands)
        else:
            now.append(Group("span", (Curve(commands, style),), (("step", str(stretch.step)),)))
    return [*(Curve(tuple(commands), f"{style} before") for style, commands in before.items()), *now]


def three(result: SewnResult, chapter: Chapter) -> Sequence[Drawing]:
    """The views in the order they are shown."""
    return spine(result, chapter), inside(result, chapter), slanted(result, chapter)
