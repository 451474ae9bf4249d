#!/usr/bin/env python3
"""Writes docs/checks.md from ``pleat.core.base.slips``: run it with ``make tables`` after changing a row."""

from __future__ import annotations

from pathlib import Path

from pleat.core.base.slips import SLIPS

CHECKS = Path(__file__).resolve().parents[1] / "docs/checks.md"


def checks() -> str:
    """The catalogue of checks as Markdown."""
    lines = [
        "# What Pleat checks",
        "",
        "Made from `src/pleat/core/base/slips.py` by `make tables`. `stop`: it will not work; `watch`: it may go wrong; `note`: good to know.",
        "A letter and a number name what the trade knows as a mistake; the plan's JSON calls a check by its code, and where there are several of",
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
        lines += [f"| `{one.code}` | {one.what} | {', '.join(one.levels)} | {', '.join(one.pleats)} | {one.source} |" for one in slips]
        lines.append("")
    return "\n".join(lines)


if __name__ == "__main__":
    CHECKS.write_text(checks())
