#!/usr/bin/env python3
"""Writes docs/glossary.md from ``pleat.core.base.glossary``: run it with ``make glossary`` after changing a
word."""

from __future__ import annotations

from pathlib import Path

from pleat.core.base.glossary import GLOSSARY

PAGE = Path(__file__).resolve().parents[1] / "docs/glossary.md"


def page() -> str:
    """The whole glossary as Markdown."""
    lines = ["# Glossary", "", "Made from `src/pleat/core/base/glossary.py` by `make glossary`.", ""]
    for group, terms in GLOSSARY.items():
        lines += [f"## {group.capitalize()}", ""]
        for term in sorted(terms, key=lambda term: term.word):
            also = f" (also: {', '.join(term.also)})" if term.also else ""
            lines.append(f"- **{term.word}**{also}: {term.meaning[0].lower()}{term.meaning[1:]}")
        lines.append("")
    return "\n".join(lines)


if __name__ == "__main__":
    PAGE.write_text(page())
