"""The pictures of a hard cover's steps: the covering inside up, as it lies on the table, front board on the
left."""

from __future__ import annotations

import math
from dataclasses import replace

from pleat.core.base.scenes import Distance, GlueZone, LineOn, Lying, Moved, PathOn, Scene, When
from pleat.core.base.staged import laid_on, marked, pressed
from pleat.core.pleats.cover.shell import Shell


def _edges(shell: Shell) -> list[float]:
    """Running positions from the left edge, inside up."""
    return [shell.width - edge for edge in reversed(shell.edges)]


def _covering(shell: Shell) -> Lying:
    return Lying("", 0.0, 0.0, shell.width, shell.wrap_height, stock="covering")


def _boards(shell: Shell, when: When) -> list[Lying]:
    """Strip, front and back, in the order they are laid on."""
    edges, high = _edges(shell), shell.height
    places = (
        ("strip", edges[3], shell.strip),
        ("front", edges[1], shell.front),
        ("back", edges[5], shell.back),
    )
    return [Lying(name, x, shell.reach, wide, high, when, "board") for name, x, wide in places if wide > 0]


def covering_marked(shell: Shell) -> Scene:
    """Where the boards will lie."""
    down = (shell.reach, shell.reach + shell.height)
    piece = replace(_covering(shell), width=shell.marked_width)
    return marked(piece, upright=shell.marks_inside, level=down, kind="mark")


def boards_glued(shell: Shell) -> Scene:
    """Strip and boards on the covering, brushed with glue."""
    boards = _boards(shell, "now")
    zones = [GlueZone(one.x, one.y, one.width, one.height) for one in boards]
    return laid_on(_covering(shell), boards, "glue", zones)


def corners_cut(shell: Shell) -> Scene:
    """A cut at each corner, at 45 degrees, off the corner of the board."""
    return cornered(_covering(shell), _boards(shell, "rests"), shell.reach, shell.corner)


def cornered(covering: Lying, boards: list[Lying], reach: float, clear: float) -> Scene:
    """The same of any covering: ``reach`` lies outside the boards, and the cut runs ``clear`` off their
    corner."""
    wide, high, leg = covering.width, covering.height, max(2 * reach - clear * math.sqrt(2), 0.0)
    corners = (
        ((0.0, leg), (leg, 0.0)),
        ((wide - leg, 0.0), (wide, leg)),
        ((0.0, high - leg), (leg, high)),
        ((wide - leg, high), (wide, high - leg)),
    )
    return Scene(
        kind="turn in",
        width=wide,
        height=high,
        lying=(covering, *boards),
        strokes=tuple(PathOn(ends, "now") for ends in corners),
    )


def turned_in(shell: Shell) -> Scene:
    """Head and tail first, then the fore edges."""
    return turned(_covering(shell), _boards(shell, "rests"), shell.reach)


def turned(covering: Lying, boards: list[Lying], reach: float) -> Scene:
    wide, high = covering.width, covering.height
    return Scene(
        kind="turn in",
        width=wide,
        height=high,
        lying=(covering, *boards),
        zones=(
            GlueZone(reach, 0.0, wide - 2 * reach, reach),
            GlueZone(reach, high - reach, wide - 2 * reach, reach),
            GlueZone(0.0, reach, reach, high - 2 * reach),
            GlueZone(wide - reach, reach, reach, high - 2 * reach),
        ),
        moves=(
            Moved((wide / 2, 0.0), (wide / 2, 2.2 * reach)),
            Moved((wide / 2, high), (wide / 2, high - 2.2 * reach)),
        ),
    )


def _case(shell: Shell) -> tuple[Lying, list[Lying]]:
    """The case turned in, inside up: its covering ends with the boards."""
    off = shell.reach
    around = Lying("", 0.0, 0.0, shell.width - 2 * off, shell.height, stock="covering")
    return around, [replace(one, x=one.x - off, y=0.0) for one in _boards(shell, "rests")]


def spine_lined(shell: Shell, wide: float, high: float) -> Scene:
    """The lining over strip and joints, on to either board."""
    around, boards = _case(shell)
    lining = Lying("", (around.width - wide) / 2, (around.height - high) / 2, wide, high, "now", "lining")
    scene = laid_on(around, [*boards, lining], "glue", [GlueZone(lining.x, lining.y, wide, high)])
    return replace(scene, distances=())


def joints_pressed(shell: Shell) -> Scene:
    """Where the cover bends, and nowhere else."""
    around, boards = _case(shell)
    edges = [edge - shell.reach for edge in _edges(shell)]
    middles = [(edges[place] + edges[place + 1]) / 2 for place in (2, 4)]
    lines = [LineOn("upright", at, 0.0, around.height, "score") for at in middles]
    return replace(laid_on(around, boards, "mark", lines=lines), distances=())


def hung_in(shell: Shell) -> Scene:
    """The block on the back board, its squares even."""
    around, boards = _case(shell)
    back = boards[-1]
    width, height = shell.leaf
    fore = max(shell.squares[0], 0.0)
    block = Lying("", back.x + back.width - fore - width, shell.square, width, height, "now", "leaf")
    zone = GlueZone(block.x, block.y, width, height)
    scene = laid_on(around, [*boards, block], "hang in", [zone])
    squares = (
        Distance("right", 0.0, block.y),
        Distance("bottom", block.x + width, back.x + back.width),
    )
    return replace(scene, distances=squares)


def dried_flat(shell: Shell) -> Scene:
    """The cover open between two boards."""
    return pressed(shell.width - 2 * shell.reach, shell.board + 2 * shell.covering)


def dried_shut(shell: Shell) -> Scene:
    """The book shut between two boards."""
    return pressed(shell.front, shell.needed)


def tipped_on(shell: Shell, paste: float) -> Scene:
    """An endpaper on the block, a line of paste along its fold."""
    width, height = shell.leaf
    block = Lying("", 0.0, 0.0, width, height, stock="leaf")
    endpaper = Lying("", 0.0, 0.0, width, height, "now", "lining")
    scene = laid_on(block, [endpaper], "glue", [GlueZone(0.0, 0.0, paste, height)])
    return replace(scene, distances=(Distance("bottom", 0.0, paste),))


def liner_in(board: Lying, wide: float, high: float) -> Scene:
    """A liner in the middle of the inside of a board."""
    x, y = board.x + (board.width - wide) / 2, board.y + (board.height - high) / 2
    return laid_on(
        board, [Lying("", x, y, wide, high, "now", "lining")], "glue", [GlueZone(x, y, wide, high)]
    )
