"""How drawings look on paper: sizes in mm, styles as plain attributes, black and grey so that any printer does."""

from __future__ import annotations

from typing import Final

from pleat.drawing.svg import Pen
from pleat.printing.letters import write

FIGURES: Final = 'font-family="Pleat Figures"'
_TEXT: Final = f'{FIGURES} font-size="3.4" fill="#000"'
STYLES: Final = {
    "line": 'fill="none" stroke="#000" stroke-width="0.25"',
    "edge": 'fill="none" stroke="#000" stroke-width="0.35"',
    "strip": 'fill="#fff" stroke="#000" stroke-width="0.3"',
    "leaf-end": 'fill="none" stroke="#000" stroke-width="0.3" stroke-dasharray="2 1"',
    "fold": 'fill="none" stroke="#000" stroke-width="0.25" stroke-dasharray="4 1 0.6 1"',
    "score": 'fill="none" stroke="#000" stroke-width="0.3" stroke-dasharray="4 1 0.6 1"',
    "cross": 'fill="none" stroke="#000" stroke-width="0.2"',
    "hole": 'fill="#fff" stroke="#000" stroke-width="0.3"',
    "join": 'fill="none" stroke="#555" stroke-width="0.3" stroke-dasharray="1 1"',
    "bar": 'fill="#000" stroke="none"',
    "bar-empty": 'fill="#fff" stroke="#000" stroke-width="0.2"',
    "label": _TEXT,
    "small": f'{FIGURES} font-size="2.7" fill="#333"',
    "bold": f'{FIGURES} font-weight="bold" font-size="3.6" fill="#000"',
    "title": 'font-family="Pleat Names" font-size="6.4" fill="#000"',
    "leaf": 'fill="#fff" stroke="#000" stroke-width="0.25"',
    "head-mark": 'fill="none" stroke="#000" stroke-width="0.5"',
    "page-number": f'{FIGURES} font-weight="bold" font-size="3.6" fill="#000"',
    "portrait-shade": 'fill="#000" fill-opacity="0.12" stroke="none"',
    "portrait-leaf": 'fill="none" stroke="#999" stroke-width="0.15"',
    "portrait-label": 'fill="#fff" stroke="#000" stroke-width="0.25"',
    "portrait-thread": 'fill="none" stroke="#000" stroke-width="0.7"',
    "portrait-hole": 'fill="#000" stroke="none"',
    **{
        f"portrait-face swatch-{name}": f'fill="{grey}" stroke="#000" stroke-width="0.3"'
        for name, grey in (
            ("white", "#fff"),
            ("cream", "#f6f6f6"),
            ("grey", "#ccc"),
            ("kraft", "#ddd"),
            ("indigo", "#777"),
            ("rust", "#aaa"),
            ("moss", "#bbb"),
        )
    },
    "rule": 'fill="none" stroke="#999" stroke-width="0.15"',
}
PRINT: Final = Pen(level=7, tick=1.2, gap=1.2, arrow=2, dot=1, text=3.4, edge=3, styles=STYLES, write=write)
