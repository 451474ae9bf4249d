#!/usr/bin/env python3
"""Writes docs/checks.md and docs/sources.md from the core's tables: run it with ``make tables`` after
changing a row."""

from __future__ import annotations

from pathlib import Path

from pleat.core import trade
from pleat.core.base.points import POINTS
from pleat.core.base.slips import SLIPS
from pleat.core.trade.number import Number
from pleat.core.trade.rules import RULES
from pleat.web import app as _all  # noqa: F401 - makes every answer known

DOCS = Path(__file__).resolve().parents[1] / "docs"
CHECKS, SOURCES, WHERE = DOCS / "checks.md", DOCS / "sources.md", DOCS / "points.md"


def checks() -> str:
    """The catalogue of checks as Markdown."""
    lines = [
        "# What Pleat checks",
        "",
        "Made from `src/pleat/core/base/slips.py` by `make tables`. `stop`: it will not work; `watch`: it "
        "may go wrong; `note`: good to know.",
        "A letter and a number name what the trade knows as a mistake; the plan's JSON calls a check by its "
        "code, and where there are several of",
        "one sort by the code, `_` and what it is about (`grain_leaf`).",
        "",
    ]
    for subject, slips in SLIPS.items():
        lines += [
            f"## {subject}",
            "",
            "| code | what goes wrong | levels | told at | where its limit comes from |",
            "|---|---|---|---|---|",
        ]
        lines += [
            f"| `{one.code}` | {one.what} | {', '.join(one.levels)} | {', '.join(one.pleats)} | {one.source} "
            "|"
            for one in slips
        ]
        lines.append("")
    return "\n".join(lines)


def sources() -> str:
    """The numbers of the trade and what else rules stand on, as Markdown."""
    lines = [
        "# Where numbers and rules come from",
        "",
        "Made from `src/pleat/core/trade` by `make tables`. On the screen each figure that is asked why "
        "names the origin of its rules; each of",
        "them is a row of this page. *Common practice* and *house rule* have no source; what is *from "
        "memory* wants one. What is checked against",
        "something outside Pleat, and how, is in [oracles.md](oracles.md).",
        "",
        "## Rules",
        "",
        "| name | says | origin | published |",
        "|---|---|---|---|",
    ]
    lines += [f"| `{name}` | {row.says} | {row.origin} | {row.published} |" for name, row in RULES.items()]
    for subject in SUBJECTS:
        named = [name for name in vars(subject) if name in trade.NUMBERS]
        lines += [
            "",
            f"## {(subject.__doc__ or '').rstrip('.')}",
            "",
            "| number | value | what of | origin |",
            "|---|---|---|---|",
        ]
        lines += [_row(trade.NUMBERS[name]) for name in named]
    return "\n".join([*lines, ""])


SUBJECTS = (
    trade.paper,
    trade.pages,
    trade.folding,
    trade.sewing,
    trade.holes,
    trade.covers,
    trade.cases,
    trade.extras,
    trade.making,
)


def _row(row: Number) -> str:
    return f"| `{row.name}` | {_said(row.value)} {row.unit} | {row.meaning} | {row.origin} |"


def _said(value: object) -> str:
    if isinstance(value, dict):
        return "; ".join(f"{name}: {_said(one)}" for name, one in value.items())
    if isinstance(value, tuple):
        parts = [_said(one) for one in value]
        return ", ".join(
            f"({part})" if isinstance(one, tuple) else part for one, part in zip(value, parts, strict=True)
        )
    return f"{value:.4g}"


def points() -> str:
    """Where kinds plug in, and which results have an answer of their own, as Markdown."""
    lines = [
        "# Where a kind plugs in",
        "",
        "Made from the functions marked with `pleat.core.base.points.point`, by `make tables`. Each is found "
        "by the",
        "type of what a pleat comes to. A type without an answer of its own has that of the one it is a sort "
        "of, and in",
        "the end the general one, which is the function's own docstring.",
        "",
        "| point | asks | general answer | own answers of |",
        "|---|---|---|---|",
    ]
    for name, one in sorted(POINTS.items()):
        general = " ".join((one.answers.registry[object].__doc__ or "none: it is an error").split())
        own = ", ".join(
            sorted(f"`{kind.__name__}`" for kind in one.own if kind.__module__.startswith("pleat."))
        )
        lines.append(f"| **{name}** `{one.where.removeprefix('pleat.')}` | {one.asks} | {general} | {own} |")
    return "\n".join([*lines, ""])


if __name__ == "__main__":
    WHERE.write_text(points())
    CHECKS.write_text(checks())
    SOURCES.write_text(sources())
