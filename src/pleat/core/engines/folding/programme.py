"""A folding programme: the list of operations that a folded thing is made by, and the groups of folds that
close it.

Order of building, order of layers, poses, the ways to close it and the steps at the bench are all read off
this one list.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Final, Literal

from pleat.core.engines.folding.assembly import Assembly, How, Key, Side, State, lies
from pleat.core.engines.folding.convex import Point
from pleat.core.engines.folding.sheet import Piece

Angle = tuple[str, str, float]
"""Two panels and the degrees between them from flat, seen from side A: +180 is a valley."""
Where = Literal["left", "right", "head", "tail"]
Turn = Literal[0, 90, 180, 270]
"""Degrees by which a thing is turned on what it is laid on."""
OPEN: Final = "open"


@dataclass(frozen=True)
class Add:
    """A piece comes to the table; ``base`` is the panel that lies still when others fold."""

    piece: Piece
    base: str = ""


@dataclass(frozen=True)
class FoldOperation:
    """Creases of a piece are folded, all at once."""

    piece: str
    angles: tuple[Angle, ...]


@dataclass(frozen=True)
class LayOperation:
    """A panel is laid on another and stays there, as ``Assembly.lay`` says. Where only some sides of it are
    held, ``edges`` names them in the words of the open piece: left, right, head, tail."""

    laid: Key
    host: Key
    at: Point | None = None
    face: Side = "B"
    side: Side = "A"
    turn: Turn = 0
    by: How = "glue"
    atop: bool = False
    edges: tuple[Where, ...] = ()


Operation = Add | FoldOperation | LayOperation


@dataclass(frozen=True)
class FoldGroup:
    """Folds that are made in one go when the thing is shut: what makers call it."""

    name: str
    folds: tuple[FoldOperation, ...]


@dataclass(frozen=True)
class Programme:
    """How a thing is built, flat on the table and side A up, and how it is then closed. ``turns`` says that
    the closing groups may change places. Where it ``opens``, it is built shut, and its groups open it
    instead."""

    build: tuple[Operation, ...]
    closing: tuple[FoldGroup, ...] = ()
    turns: bool = False
    opens: bool = False

    @property
    def pieces(self) -> tuple[Piece, ...]:
        return tuple(operation.piece for operation in self.build if isinstance(operation, Add))

    def closed_by(self, order: Sequence[str]) -> Programme:
        """The same thing closed in another order; groups that are not named keep their order and come
        last."""
        place = {name: number for number, name in enumerate(order)}
        return replace(
            self, closing=tuple(sorted(self.closing, key=lambda group: place.get(group.name, len(place))))
        )


@dataclass(frozen=True)
class FoldResult:
    """A programme done: the assembly as it is shut, its states, open first and one more a group, and the
    assembly as it was before the last group."""

    programme: Programme
    assembly: Assembly = field(compare=False, repr=False)
    states: tuple[State, ...] = field(compare=False, repr=False)
    nearly: Assembly = field(compare=False, repr=False)

    @property
    def open(self) -> State:
        return self.states[-1 if self.programme.opens else 0]

    @property
    def shut(self) -> State:
        return self.states[0 if self.programme.opens else -1]


def built(programme: Programme) -> Assembly:
    """What is built, before it is closed. Raises KeyError and ValueError where the programme names what is
    not there."""
    assembly = Assembly()
    for one in programme.build:
        match one:
            case Add(piece, base):
                assembly.add(piece, base)
            case FoldOperation(piece, angles):
                assembly.fold(piece, *angles)
            case LayOperation():
                assembly.lay(
                    one.laid,
                    one.host,
                    one.at,
                    face=one.face,
                    side=one.side,
                    turn=one.turn,
                    by=one.by,
                    atop=one.atop,
                )
    return assembly


def half_closed(worked: FoldResult, share: float) -> Assembly:
    """The thing with its last group so far done."""
    assembly = worked.nearly.copy()
    for fold in worked.programme.closing[-1].folds if worked.programme.closing else ():
        assembly.fold(fold.piece, *((one, other, degrees * share) for one, other, degrees in fold.angles))
    return assembly


def closed(assembly: Assembly, closing: Sequence[FoldGroup]) -> tuple[State, ...]:
    """The state after each group, the last of which the assembly is in afterwards."""
    states = []
    for group in closing:
        for fold in group.folds:
            assembly.fold(fold.piece, *fold.angles)
        states.append(assembly.mark(group.name))
    return tuple(states)


@lru_cache(maxsize=48)
def work(programme: Programme) -> FoldResult:
    """The programme done from the first operation to the last. The few done last are remembered: what is read
    off them must not fold them further."""
    assembly = built(programme)
    states = (assembly.mark("shut" if programme.opens else OPEN), *closed(assembly, programme.closing[:-1]))
    nearly = assembly.copy()
    return FoldResult(programme, assembly, (*states, *closed(assembly, programme.closing[-1:])), nearly)


def with_boards(
    bare: Assembly, state: State, laid: Iterable[tuple[Add, LayOperation]]
) -> tuple[Assembly, State]:
    """The thing in a state, with boards that lie within their panels over nothing else: they go where those
    go, so nothing is folded again. Read off only."""
    assembly = bare.copy()
    poses, under, over = (
        dict(state.poses),
        defaultdict[Key, list[Key]](list),
        defaultdict[Key, list[Key]](list),
    )
    for added, lay in laid:
        assembly.pieces[added.piece.name] = added.piece
        host = poses[lay.host]
        poses[lay.laid] = host.after(
            lies(added.piece[lay.laid[1]].outline, lay.at or (0.0, 0.0), lay.face, lay.side, lay.turn)
        )
        if host.level:
            (over if (lay.side == "A") == host.up else under)[lay.host].append(lay.laid)
    pile = tuple(key for own in state.pile for key in (*under[own], own, *over[own]))
    return assembly, replace(state, pile=pile, poses=poses)
