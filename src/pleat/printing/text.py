"""A plan as tables of plain text, for people at a terminal."""

from __future__ import annotations

import textwrap
from collections.abc import Callable, Sequence
from typing import Final

from pleat.core.base.words import lasting, many
from pleat.core.pleats.cutting.shared import sheets_of
from pleat.core.whole.planning import Plan
from pleat.printing.parts import part_rows

WIDTH: Final = 100
Row = Sequence[str]


def table(heads: Row, rows: Sequence[Row], widths: Sequence[int]) -> str:
    """Rows below their heads, long cells broken over lines. The last column takes what is left of the width.

    >>> print(table(("part", "size"), [("folio", "297 × 210 mm")], (8,)))
    part    size
    -----   ------------
    folio   297 × 210 mm
    """
    last = WIDTH - sum(widths)
    columns = (*widths, last)
    lines = []
    longest = [
        max(len(line) for row in (heads, *rows) for line in _broken(row[n], columns[n] - 2))
        for n in range(len(columns))
    ]
    for row in (heads, tuple("-" * size for size in longest), *rows):
        cells = [_broken(cell, size - 2) for cell, size in zip(row, columns, strict=True)]
        for number in range(max(len(cell) for cell in cells)):
            shown = [
                (cell[number] if number < len(cell) else "").ljust(size)
                for cell, size in zip(cells, columns, strict=True)
            ]
            lines.append("".join(shown).rstrip())
    return "\n".join(lines)


def _broken(text: str, width: int) -> list[str]:
    return textwrap.wrap(text, width) or [""]


def part_list(plan: Plan) -> str:
    """Every piece and figure, as on the printed part list."""
    return table(("what", "how much"), part_rows(plan), (26,))


def steps(plan: Plan) -> str:
    """The work in order."""
    rows = []
    for step in plan.bench.work:
        waits = f" Wait about {lasting(step.step.wait_minutes)}." if step.step.wait_minutes else ""
        careful = "".join(f" Careful: {caution}" for caution in step.step.cautions)
        rows.append(
            (
                f"{step.number}",
                "x" if step.done else "",
                f"{step.step.title}. {step.step.detail}{waits}{careful}",
            )
        )
    return table(("", "done", "step"), rows, (4, 6))


def checks(plan: Plan) -> str:
    """What will not work, wants watching or is worth knowing, with what would mend it."""
    if not plan.checks:
        return "Nothing speaks against it."
    words = {"stop": "will not work", "watch": "watch", "note": "note"}
    rows = [
        (
            words[check.level],
            name,
            f"{check.title} {check.why} "
            + ("; or ".join(offer.label for offer in check.offers) or check.no_fix),
        )
        for name, check in plan.checks
    ]
    return table(("", "where", "what, why, and what to do"), rows, (15, 10))


def cutting(plan: Plan) -> str:
    """Every piece on its stock."""
    ruler = plan.brief.ruler
    rows = [
        (
            f"{cut.part.count} × {cut.part.name}",
            ruler.size(cut.part.width_mm, cut.part.height_mm),
            cut.grain_words,
            f"{cut.stock.name}: {many(sheets_of(cut.part.key, plan.cutting.plans), 'sheet')}"
            if cut.better.count
            else f"{cut.stock.name}: too small",
        )
        for cut in plan.cutting.cuts
    ]
    return (
        table(("piece", "size", "grain", "from"), rows, (26, 26, 24))
        if rows
        else "Nothing of this book is cut from a sheet."
    )


PARTS: Final[dict[str, Callable[[Plan], str]]] = {
    "list": part_list,
    "steps": steps,
    "checks": checks,
    "cutting": cutting,
}
"""The tables by name."""
