#!/usr/bin/env python3
"""Writes docs/checks.md and docs/sources.md from the core's tables: run it with ``make tables`` after
changing a row."""

from __future__ import annotations

from pathlib import Path

from pleat.core import trade
from pleat.core.base.slips import SLIPS
from pleat.core.trade.number import Number
from pleat.core.trade.rules import RULES

DOCS = Path(__file__).resolve().parents[1] / "docs"
CHECKS, SOURCES = DOCS / "checks.md", DOCS / "sources.md"


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


if __name__ == "__main__":
    CHECKS.write_text(checks())
    SOURCES.write_text(sources())
