"""Page one: the whole book at one glance, as the screen shows it while no pleat is open."""

from __future__ import annotations

from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.base.words import lasting
from pleat.core.whole.overview import Overview, Want
from pleat.core.whole.planning import Plan
from pleat.drawing import members as _drawings  # noqa: F401 - makes the drawings of all members known
from pleat.drawing.portraits import portrait
from pleat.drawing.shapes import Drawing, Label, Line, Shape, scaled
from pleat.drawing.svg import render_print
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken, shortened
from pleat.printing.pen import PRINT, STYLES

PORTRAIT_MM: Final = (62.0, 74.0)
_LINE_MM: Final = 5.0
_GAP_MM: Final = 8.0


def glance(plan: Plan, over: Overview, width: float, room: float) -> str:
    """The body of the page on paper of this width with so much room, in mm; what does not fit any more is
    left out, never cut."""
    left, top = MARGIN_MM, MARGIN_MM + HEAD_MM
    shapes: list[Shape] = []
    y = _scrap(shapes, plan, over, left + PORTRAIT_MM[0] + _GAP_MM, top + 2, width - MARGIN_MM)
    y = max(y, top + PORTRAIT_MM[1]) + _GAP_MM
    y = _table(shapes, plan.brief.ruler, over, y, width, top + room - 40)
    _words(shapes, plan, over, y + 3, width, top + room)
    return _portrait(plan, left, top) + render_print(Drawing(1, 1, "the book", shapes), 0, 0, PRINT)


def _portrait(plan: Plan, x: float, y: float) -> str:
    """The portrait, fitted into its place: the one drawing on these pages that is not at true size."""
    drawing = portrait(plan)
    scale = min(PORTRAIT_MM[0] / drawing.width, PORTRAIT_MM[1] / drawing.height)
    return render_print(scaled(drawing, scale), x, y + PORTRAIT_MM[1] - drawing.height * scale, PRINT)


def _scrap(shapes: list[Shape], plan: Plan, over: Overview, x: float, y: float, right: float) -> float:
    """The figures to write on a scrap of paper, one below the other; where they end."""
    shapes.append(Label(x, y + 2, plan.pages.in_words, "label", "start"))
    y += 9
    for figure in over.scrap:
        shapes.append(Label(x, y, figure.label, "small", "start"))
        lines = broken(figure.scrap, STYLES["bold"], right - x)
        shapes += [Label(x, y + 5 + n * _LINE_MM, line, "bold", "start") for n, line in enumerate(lines)]
        y += 6.5 + len(lines) * _LINE_MM
    return y


def _table(shapes: list[Shape], ruler: Ruler, over: Overview, y: float, width: float, bottom: float) -> float:
    """What the run takes, has and lacks; where it ends."""
    columns = (MARGIN_MM, width - 108, width - 80, width - 50, width - MARGIN_MM)
    heads = ("from your materials", "takes", "you have", "buy", "cost")
    shapes += [
        Label(x, y, head, "small", "end" if head == "cost" else "start")
        for x, head in zip(columns, heads, strict=True)
    ]
    shown = [want for n, want in enumerate(over.wants) if y + (n + 1) * 6 < bottom]
    for want in shown:
        y += 6
        shapes.append(Line(MARGIN_MM, y - 4.2, width - MARGIN_MM, y - 4.2, "rule"))
        for x, text, style in zip(
            columns, _row(want, ruler), ("bold", "label", "label", "bold", "label"), strict=True
        ):
            fits = shortened(text, STYLES[style], columns[1] - MARGIN_MM - 3) if x == MARGIN_MM else text
            shapes.append(Label(x, y, fits, style, "end" if x == columns[-1] else "start"))
    if len(shown) < len(over.wants):
        y += 6
        shapes.append(
            Label(
                MARGIN_MM, y, f"and {len(over.wants) - len(shown)} more, on the part list", "label", "start"
            )
        )
    return y + 5


def _row(want: Want, ruler: Ruler) -> tuple[str, ...]:
    return (
        f"{want.name}, {want.use}",
        want.words(want.needed, ruler),
        want.has(ruler),
        want.lacks(ruler),
        "–" if want.cost is None else f"{want.cost:.2f}",
    )


def _words(shapes: list[Shape], plan: Plan, over: Overview, y: float, width: float, bottom: float) -> None:
    """Cost, time, what to look at and what is next, as far as there is room."""
    run = plan.brief.quantity
    cost = "no price is known" if over.cost is None else f"{over.cost:.2f}"
    if over.cost is not None and run > 1:
        cost += f", {over.cost / run:.2f} a book"
    without = f" without {', '.join(over.unpriced)}" if over.cost is not None and over.unpriced else ""
    waits = f", and {lasting(over.waits_about)} of waiting" if over.waits else ""
    in_all = " in all" if run > 1 else ""
    told = [
        ("material", cost + without),
        ("work", f"{over.work_words}{in_all}{waits}; your own time is not priced"),
    ]
    told += [("next", over.next.title)] if over.next else [("next", "nothing: every step is ticked")]
    told += [(f"! {pleat}", check.title) for pleat, check in over.worst if check.level != "note"]
    for name, text in told:
        lines = broken(text, STYLES["label"], width - 2 * MARGIN_MM - 34)
        if y + len(lines) * _LINE_MM > bottom:
            return
        shapes.append(Label(MARGIN_MM, y, name, "bold", "start"))
        shapes += [
            Label(MARGIN_MM + 34, y + n * _LINE_MM, line, "label", "start") for n, line in enumerate(lines)
        ]
        y += len(lines) * _LINE_MM + 2
