"""The figures of a hard cover, each with its sum."""

from __future__ import annotations

from functools import partial
from typing import Final

from pleat.core.base.plan import Figure, Rule
from pleat.core.base.units import Ruler
from pleat.core.pleats.cover import turned
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.cover.shell import COLUMNS, Hard, Shell, lining_size
from pleat.core.trade.cases import GIVES_BOARDS, LINING_BORDER_MM, SPINE_LINING_MM

ADDED: Final = Rule("arithmetic", "every width added up")
USUAL_JOINT: Final = Rule("JOINT_MM", "joint 7 to 10 mm, or 2 to 4 board thicknesses; no source")


def figures(
    cover: Hard, left: LeftOfCover, shell: Shell, covering: tuple[float, float], pieces: int
) -> tuple[Figure, ...]:
    """What to cut first, then what decides it."""
    return (
        _covering(left, shell, covering, pieces),
        _boards(cover, left, shell),
        _strip(cover, left, shell),
        _places(left, shell),
        _joint(cover, left, shell),
        turned.corner_figure(left.brief.ruler, shell.corner, shell.board + shell.pad, shell.covering),
        *_lining(cover, left, shell),
    )


def _covering(left: LeftOfCover, shell: Shell, size: tuple[float, float], pieces: int) -> Figure:
    ruler = left.brief.ruler
    shown, wide = ruler.summed([column.size_mm for column in shell.columns])
    names = [
        name.removeprefix("back ").removeprefix("front ") if "turn-in" in name or "joint" in name else name
        for name in COLUMNS
    ]
    across = " + ".join(f"{name} {value}" for name, value in zip(names, shown, strict=True))
    (above, board, below), high = ruler.summed([shell.reach, shell.height, shell.reach])
    if pieces == 1 or size[0] >= shell.width:
        seam = ""
    elif pieces > 1:
        seam = f" It comes in {pieces} pieces that overlap; each has its own size among the parts."
    else:
        seam = ""
    return Figure(
        key="covering",
        label="cut the covering" if pieces == 1 else "the covering, all together",
        value=size if pieces == 1 else (shell.width, shell.wrap_height),
        show="size",
        how=f"Wide: {across} = {wide}. High: turn-in {above} + board {board} + turn-in {below} = {high} "
        f"{ruler.name}.{seam}",
        rules=(ADDED, Rule("TURN_IN_MM", "turn-in 15 to 20 mm, no source")),
        scrap=ruler.size(shell.width, shell.wrap_height),
    )


def _thin(ruler: Ruler, mm: float) -> str:
    """A length on the finest marks, without the unit."""
    return ruler.thin(mm).removesuffix(f" {ruler.name}")


def _boards(cover: Hard, left: LeftOfCover, shell: Shell) -> Figure:
    ruler = left.brief.ruler
    leaf_w, leaf_h = shell.leaf
    fore = cover.square_mm if cover.square_fore_mm is None else cover.square_fore_mm
    (above, leaf, below), high = ruler.summed([shell.square, leaf_h, shell.square])
    exact = leaf_w - shell.set_back + fore
    fine = (
        ruler.number if all(map(ruler.is_on_mark, (leaf_w, shell.set_back, fore))) else partial(_thin, ruler)
    )
    marked = "" if fine(exact) == fine(shell.front) else f", at the next mark {ruler.number(shell.front)}"
    own = ", as you cut them" if cover.back_mm or cover.front_mm else ""
    return Figure(
        key="boards",
        label="cut two boards" if abs(shell.back - shell.front) < 0.05 else "back board (the front is other)",
        value=(shell.back, shell.height),
        show="size",
        how=f"Wide: leaf {fine(leaf_w)} − set-back {fine(shell.set_back)} + square {fine(fore)} = "
        f"{fine(exact)}{marked}{own}. "
        f"High: {above} + leaf {leaf} + {below} = {high} {ruler.name}.",
        rules=(
            Rule("arithmetic", "leaf, set-back and squares"),
            Rule("USUAL_SQUARE_MM", "square 3 mm, no source"),
        ),
        scrap=ruler.size(shell.back, shell.height),
    )


def _strip(cover: Hard, left: LeftOfCover, shell: Shell) -> Figure:
    ruler, between = left.brief.ruler, cover.strip == "between"
    parts = [shell.spine.used.likely, *([shell.board, shell.board] if between else [])]
    shown, inside = ruler.summed(parts, finest=True)
    sum_ = " + ".join(
        f"{name} {value}" for name, value in zip(("block", "board", "board"), shown, strict=False)
    )
    up = shell.strip - shell.needed
    sum_shown = f" = {inside}" if between else ""
    where = "stands between the boards" if between else "lies over the block alone"
    return Figure(
        key="strip",
        label="spine strip",
        value=shell.strip,
        show="length",
        how=f"{sum_}{sum_shown} {ruler.name}, up to the ruler's next mark, never "
        "down: a strip that is too narrow cannot be mended. "
        f"It {where}, "
        f"{ruler.number(shell.height)} high.",
        rules=(
            Rule("arithmetic", "what it covers, added up"),
            Rule("rounded_up", "rounded up, to the safe side"),
        ),
        aside=f"{ruler.thin(up)} wider than needed" if up >= ruler.thin_mm else "",
        scrap=ruler.size(shell.strip, shell.height),
    )


def _places(left: LeftOfCover, shell: Shell) -> Figure:
    """Running positions of every edge, from the left, as they are marked on the inside: back and front change
    places there."""
    ruler = left.brief.ruler
    words = ", ".join(ruler.number(ruler.snap(at)) for at in shell.marks_inside)
    return Figure(
        key="places",
        label="mark inside, from the left",
        value=f"{words} {ruler.name}",
        show="text",
        how="The edges of boards and strip as they lie on the inside of the covering, front board first, all "
        "from one edge: each is rounded by itself, so no error piles up.",
        rules=(Rule("arithmetic", "running positions"),),
        scrap=f"{words} {ruler.name}",
    )


def _joint(cover: Hard, left: LeftOfCover, shell: Shell) -> Figure:
    ruler = left.brief.ruler
    below = (
        ""
        if cover.strip == "between"
        else f" and the board's thickness {ruler.thin(shell.board)}, since the strip ends below it"
    )
    opens = "opens flat" if shell.opens >= 180 else f"opens to {shell.opens:.0f}°"
    return Figure(
        key="joint",
        label="joint",
        value=shell.joint,
        show="length",
        how=f"The covering goes round the strip's edge {ruler.thin(shell.board)}{below}, then over to the "
        f"board: the board lies {ruler.show(shell.set_back)} from the block's edge. "
        f"With it the cover {opens}.",
        rules=(
            USUAL_JOINT,
            Rule("GIVES_BOARDS", f"a hollow back gives way by {GIVES_BOARDS:g} board thicknesses"),
        ),
        aside="" if shell.opens >= 180 else opens,
    )


def _lining(cover: Hard, left: LeftOfCover, shell: Shell) -> tuple[Figure, ...]:
    ruler, figures = left.brief.ruler, []
    leaf_w, leaf_h = shell.leaf
    if cover.ends == "endpapers":
        figures.append(
            Figure(
                key="endpapers",
                label="endpapers, folded once",
                value=(2 * leaf_w, leaf_h),
                show="size",
                how="Twice the leaf wide, as high as the leaf. Pasted down it leaves "
                f"{ruler.show(shell.square)} of the board at head and tail and "
                f"{ruler.show(max(shell.squares[1], 0))} at the fore edge.",
                rules=(
                    Rule("arithmetic", "twice the leaf"),
                    Rule("LINING_BORDER_MM", "an even border of 3 mm, no source"),
                ),
            )
        )
    if cover.spine_lining == "yes":
        size = lining_size(shell, ruler)
        figures.append(
            Figure(
                key="spine_lining",
                label="spine lining",
                value=size,
                show="size",
                how=f"Strip {ruler.number(shell.strip)} + 2 × joint {ruler.number(shell.joint)} + 2 × "
                f"{ruler.number(ruler.near(SPINE_LINING_MM))} on to the boards = {ruler.number(size[0])}; "
                f"{ruler.number(ruler.near(LINING_BORDER_MM))} short of head and tail.",
                rules=(Rule("SPINE_LINING_MM", "spine, joints and 15 mm on either board; no source"),),
            )
        )
    return tuple(figures)
