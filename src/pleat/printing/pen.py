"""How drawings look on paper: sizes in mm, styles as plain attributes, black and grey so that any printer
does."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from pleat.drawing.shapes import Group, Label, Shape
from pleat.drawing.svg import Pen
from pleat.printing.letters import write

FIGURES: Final = 'font-family="Pleat Figures"'
_TEXT: Final = f'{FIGURES} font-size="3.4" fill="#000"'
SWATCHES: Final = ("white", "cream", "grey", "kraft", "indigo", "rust", "moss")
_WEIGHTS: Final = {"rests": "0.2", "now": "0.6", "later": "0.2"}
"""What moves or is made now is heavy, the rest thin: a poor printer has no colours."""
_GREYS: Final = {
    "white": "#fff",
    "cream": "#f7f7f7",
    "grey": "#ddd",
    "kraft": "#e8e8e8",
    "indigo": "#cfcfcf",
    "rust": "#d8d8d8",
    "moss": "#d8d8d8",
}
_DASHES: Final = {
    "cut": "",
    "mark": ' stroke-dasharray="1 1"',
    "fold": ' stroke-dasharray="4 1 0.6 1"',
    "score": ' stroke-dasharray="4 1 0.6 1"',
}
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
    "face-card": 'fill="#fff" stroke="#000" stroke-width="0.2"',
    "face-paper": 'fill="#ddd" stroke="#888" stroke-width="0.15"',
    "portrait-shade light": 'fill="#000" fill-opacity="0.06" stroke="none"',
    "leaf": 'fill="#fff" stroke="#000" stroke-width="0.25"',
    "head-mark": 'fill="none" stroke="#000" stroke-width="0.5"',
    "page-number": f'{FIGURES} font-weight="bold" font-size="3.6" fill="#000"',
    "portrait-shade": 'fill="#000" fill-opacity="0.12" stroke="none"',
    "portrait-leaf": 'fill="none" stroke="#999" stroke-width="0.15"',
    "portrait-label": 'fill="#fff" stroke="#000" stroke-width="0.25"',
    "portrait-thread": 'fill="none" stroke="#000" stroke-width="0.7"',
    "portrait-tape": 'fill="#eee" stroke="#000" stroke-width="0.2"',
    "spine-row": 'fill="#fff" stroke="#999" stroke-width="0.15"',
    "spine-hole": 'fill="#000" stroke="none"',
    "fold-band": 'fill="#eee" stroke="#000" stroke-width="0.2"',
    "hole-gap": 'fill="#fff" stroke="#000" stroke-width="0.2"',
    "thread thread-inside": 'fill="none" stroke="#000" stroke-width="0.45" stroke-dasharray="1.6 1"',
    "thread thread-outside": 'fill="none" stroke="#000" stroke-width="0.6"',
    "thread thread-inside tail": 'fill="none" stroke="#000" stroke-width="0.45"',
    "thread thread-outside tail": 'fill="none" stroke="#000" stroke-width="0.6"',
    **{
        f"thread thread-shown colour-{name}": 'fill="none" stroke="#000" stroke-width="0.6"'
        for name in SWATCHES
    },
    "thread-arrow": 'fill="none" stroke="#000" stroke-width="0.3"',
    "step-dot": 'fill="#fff" stroke="#000" stroke-width="0.25"',
    "tape": 'fill="#e4e4e4" stroke="#777" stroke-width="0.2"',
    "cord-drawn": 'fill="none" stroke="#bbb"',
    "board-edge": 'fill="#ccc" stroke="#000" stroke-width="0.2"',
    "window-bar": 'fill="#999" stroke="none"',
    "guide": 'fill="none" stroke="#bbb" stroke-width="0.15"',
    "ruler-line": 'fill="none" stroke="#000" stroke-width="0.2"',
    **dict.fromkeys(
        ("side-label", "hole-number", "station-number", "step-number", "quiet", "ruler-number"), _TEXT
    ),
    **{f"portrait-thread colour-{name}": 'fill="none" stroke="#000" stroke-width="0.7"' for name in SWATCHES},
    "portrait-hole": 'fill="#000" stroke="none"',
    "portrait-stick": 'fill="#ccc" stroke="#000" stroke-width="0.2"',
    "portrait-metal": 'fill="#999" stroke="#000" stroke-width="0.2"',
    "portrait-ring": 'fill="none" stroke="#777"',
    "portrait-cloth": 'fill="#999" stroke="#000" stroke-width="0.2"',
    "portrait-strap": 'fill="none" stroke="#bbb"',
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
    **{
        f"scene-piece scene-{when} swatch-{name}": f'fill="{grey}" stroke="#000" stroke-width="{wide}"'
        for when, wide in _WEIGHTS.items()
        for name, grey in _GREYS.items()
    },
    **{
        f"scene-piece scene-{when} scene-tool": f'fill="#e6e6e6" stroke="#000" stroke-width="{wide}"'
        for when, wide in _WEIGHTS.items()
    },
    **{f"leaf swatch-{name}": 'fill="#fff" stroke="#000" stroke-width="0.2"' for name in SWATCHES},
    **{
        f"scene-line scene-{kind} scene-{when}": f'fill="none" stroke="#000" stroke-width="{wide}"{dashes}'
        for when, wide in _WEIGHTS.items()
        for kind, dashes in _DASHES.items()
    },
    **{
        f"scene-line scene-stop scene-{when}": 'fill="none" stroke="#000" stroke-width="1.2"'
        for when in _WEIGHTS
    },
    **{
        f"scene-stroke scene-{when}": f'fill="none" stroke="#000" stroke-width="{wide}"'
        for when, wide in _WEIGHTS.items()
    },
    **{f"scene-hole scene-{when}": 'fill="#000" stroke="#000" stroke-width="0.2"' for when in _WEIGHTS},
    "scene-move": 'fill="none" stroke="#000" stroke-width="0.5"',
    "scene-glued": 'fill="none" stroke="none"',
    "scene-hatch": 'fill="none" stroke="#666" stroke-width="0.15"',
    "scene-free": 'fill="none" stroke="#666" stroke-width="0.15"',
    "scene-name": f'{FIGURES} font-size="3.2" fill="#000"',
    "scene-number": f'{FIGURES} font-weight="bold" font-size="3.4" fill="#000"',
    "dimtext": f'{FIGURES} font-weight="bold" font-size="3.4" fill="#000"',
    "dim": 'fill="none" stroke="#000" stroke-width="0.2"',
    "words": f'{FIGURES} font-size="3.6" fill="#000"',
    "numbers": f'{FIGURES} font-weight="bold" font-size="3.8" fill="#000"',
    "heading": 'font-family="Pleat Names" font-size="5.2" fill="#000"',
    "rule": 'fill="none" stroke="#999" stroke-width="0.15"',
    "grain": 'fill="none" stroke="#000" stroke-width="0.3"',
    "stock": 'fill="none" stroke="#000" stroke-width="0.35"',
    "void": 'fill="#fff" stroke="#000" stroke-width="0.2" stroke-dasharray="0.6 0.6"',
    "offcut": 'fill="#fff" stroke="#999" stroke-width="0.15"',
    "hatch": 'fill="none" stroke="#ccc" stroke-width="0.15"',
    "weave": 'fill="none" stroke="#888" stroke-width="0.15"',
    "cut-line": 'fill="none" stroke="#000" stroke-width="0.5"',
    "cut-number": f'{FIGURES} font-weight="bold" font-size="2.7" fill="#000"',
    "panel-name": 'font-family="Pleat Names" font-size="4.2" fill="#000"',
    **{f"piece swatch-{name}": 'fill="#f1f1f1" stroke="#000" stroke-width="0.25"' for name in SWATCHES},
}
PRINT: Final = Pen(level=7, tick=1.2, gap=1.2, arrow=2, dot=1, text=3.4, edge=3, styles=STYLES, write=write)


_MM_A_PX: Final = 3.4 / 15
"""A text of the screen's pen against one of the printer's."""


def for_paper(shape: Shape) -> Shape:
    """A shape whose texts are moved by mm on paper as they are by px on the screen."""
    if isinstance(shape, Group):
        return Group(shape.style, tuple(for_paper(one) for one in shape.shapes), shape.data)
    if isinstance(shape, Label):
        return replace(shape, shift=(shape.shift[0] * _MM_A_PX, shape.shift[1] * _MM_A_PX))
    return shape
