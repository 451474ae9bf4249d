"""A folding programme: the list of operations that a folded thing is made by, and the groups of folds that close it.

Order of building, order of layers, poses, the ways to close it and the steps at the bench are all read off this one list.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Final, Literal

from pleat.core.folding.assembly import Assembly, How, Key, Side, State, lies
from pleat.core.folding.convex import Point
from pleat.core.folding.sheet import Piece

Angle = tuple[str, str, float]
"""Two panels and the degrees between them from flat, seen from side A: +180 is a valley."""
Where = Literal["left", "right", "head", "tail"]
OPEN: Final = "open"


@dataclass(frozen=True)
class Add:
    """A piece comes to the table; ``base`` is the panel that lies still when others fold."""

    piece: Piece
    base: str = ""


@dataclass(frozen=True)
class Fold:
    """Creases of a piece are folded, all at once."""

    piece: str
    angles: tuple[Angle, ...]


@dataclass(frozen=True)
class Lay:
    """A panel is laid on another and stays there, as ``Assembly.lay`` says. Where only some sides of it are held, ``edges`` names them in the words of
    the open piece: left, right, head, tail."""

    laid: Key
    host: Key
    at: Point | None = None
    face: Side = "B"
    side: Side = "A"
    turn: int = 0
    by: How = "glue"
    atop: bool = False
    edges: tuple[Where, ...] = ()


Operation = Add | Fold | Lay


@dataclass(frozen=True)
class Group:
    """Folds that are made in one go when the thing is shut: what makers call it."""

    name: str
    folds: tuple[Fold, ...]


@dataclass(frozen=True)
class Programme:
    """How a thing is built, flat on the table and side A up, and how it is then closed. ``turns`` says that the closing groups may change places.
    Where it ``opens``, it is built shut, and its groups open it instead."""

    build: tuple[Operation, ...]
    closing: tuple[Group, ...] = ()
    turns: bool = False
    opens: bool = False

    @property
    def pieces(self) -> tuple[Piece, ...]:
        return tuple(one.piece for one in self.build if isinstance(one, Add))

    def closed_by(self, order: Sequence[str]) -> Programme:
        """The same thing closed in another order; groups that are not named keep their order and come last."""
        place = {name: number for number, name in enumerate(order)}
        return replace(self, closing=tuple(sorted(self.closing, key=lambda one: place.get(one.name, len(place)))))


@dataclass(frozen=True)
class Worked:
    """A programme done: the assembly as it is shut, and its states, open first and one more a group."""

    programme: Programme
    assembly: Assembly = field(compare=False, repr=False)
    states: tuple[State, ...] = field(compare=False, repr=False)

    @property
    def open(self) -> State:
        return self.states[-1 if self.programme.opens else 0]

    @property
    def shut(self) -> State:
        return self.states[0 if self.programme.opens else -1]


def built(programme: Programme) -> Assembly:
    """What is built, before it is closed. Raises KeyError and ValueError where the programme names what is not there."""
    assembly = Assembly()
    for one in programme.build:
        match one:
            case Add(piece, base):
                assembly.add(piece, base)
            case Fold(piece, angles):
                assembly.fold(piece, *angles)
            case Lay():
                assembly.lay(one.laid, one.host, one.at, face=one.face, side=one.side, turn=one.turn, by=one.by, atop=one.atop)
    return assembly


@lru_cache(maxsize=16)
def _all_but_last(programme: Programme) -> Assembly:
    assembly = built(programme)
    closed(assembly, programme.closing[:-1])
    return assembly


def half_closed(programme: Programme, share: float) -> Assembly:
    """The thing with its last group so far done."""
    assembly = _all_but_last(programme).copy()
    for fold in programme.closing[-1].folds if programme.closing else ():
        assembly.fold(fold.piece, *((one, other, degrees * share) for one, other, degrees in fold.angles))
    return assembly


def closed(assembly: Assembly, closing: Sequence[Group], first: str = OPEN) -> tuple[State, ...]:
    """The states from the first to the last, which the assembly is in afterwards."""
    states = [assembly.mark(first)]
    for group in closing:
        for fold in group.folds:
            assembly.fold(fold.piece, *fold.angles)
        states.append(assembly.mark(group.name))
    return tuple(states)


@lru_cache(maxsize=48)
def work(programme: Programme) -> Worked:
    """The programme done from the first operation to the last. The few done last are remembered: what is read off them must not fold them further."""
    assembly = built(programme)
    return Worked(programme, assembly, closed(assembly, programme.closing, "shut" if programme.opens else OPEN))


def with_boards(worked: Worked, laid: Iterable[tuple[Add, Lay]]) -> tuple[Assembly, State]:
    """The thing shut, with boards that lie within their panels over nothing else: they go where those go, so nothing is folded again. Read off only."""
    assembly, shut = worked.assembly.copy(), worked.shut
    poses, under, over = dict(shut.poses), defaultdict[Key, list[Key]](list), defaultdict[Key, list[Key]](list)
    for added, lay in laid:
        assembly.pieces[added.piece.name] = added.piece
        host = poses[lay.host]
        poses[lay.laid] = host.after(lies(added.piece[lay.laid[1]].outline, lay.at or (0.0, 0.0), lay.face, lay.side, lay.turn))
        if host.level:
            (over if (lay.side == "A") == host.up else under)[lay.host].append(lay.laid)
    pile = tuple(key for own in shut.pile for key in (*under[own], own, *over[own]))
    return assembly, replace(shut, pile=pile, poses=poses)
