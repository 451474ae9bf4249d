"""A folding programme: pieces added, folded, and laid on each other; where each panel then lies, in which
order, and what cannot be done.

The order of the layers is one list from the table up. It is kept through every operation and never worked out
again from heights: paper has none here. Only the order of layers that overlap means anything.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from pleat.core.engines.folding.convex import (
    POINT_MM,
    Point,
    Polygon,
    bounds,
    clipped,
    common,
    meets,
    middle,
    side_of,
)
from pleat.core.engines.folding.poses import FLAT, Pose, apart, cos_sin, folded
from pleat.core.engines.folding.sheet import Crease, Piece
from pleat.core.trade.folding import LOOP_FITS_MM

Key = tuple[str, str]
"""A panel: the names of its piece and its own."""
Side = Literal["A", "B"]
How = Literal["glue", "tuck", "sew", "ring"]
FaultKind = Literal["caught", "crossed", "through", "apart"]


@dataclass(frozen=True)
class Join:
    """A panel laid on another: which side of it on which side of the host, how, and what it had to be slipped
    under."""

    laid: Key
    face: Side
    host: Key
    side: Side
    by: How
    pose: Pose
    under: tuple[Key, ...] = ()


@dataclass(frozen=True)
class FoldFault:
    """What paper cannot do. ``caught``: a layer lies between the two sides of a fold and reaches past it;
    ``crossed``: two folds on one line take turns; ``through``: a flat sheet passes through a fold; ``apart``:
    what is joined does not meet."""

    kind: FaultKind
    crease: tuple[Key, Key]
    layer: tuple[Key, ...]


@dataclass(frozen=True)
class Misfit:
    """A crease or a join that closes a loop, and by how many mm its two ends miss each other."""

    ends: tuple[Key, Key]
    mm: float


@dataclass(frozen=True)
class State:
    """A named moment: the layers from the table up, where every panel is, and what stands upright between
    layers."""

    name: str
    pile: tuple[Key, ...]
    poses: Mapping[Key, Pose]
    angles: Mapping[tuple[str, str, str], float]
    _shadows: dict[Key, Polygon] = field(default_factory=dict, init=False, compare=False, repr=False)

    def shadow(self, key: Key, pieces: Mapping[str, Piece]) -> Polygon:
        """The outline of a panel on the table; ``pieces`` are those of its assembly."""
        found = self._shadows.get(key)
        if found is None:
            found = self._shadows[key] = self.poses[key].on_table(pieces[key[0]][key[1]].outline)
        return found


def lies(outline: Polygon, at: Point, face: Side, side: Side, turn: int = 0) -> Pose:
    """Where an outline lies, from its host, whose ``side`` its ``face`` is laid on: its least rectangle
    begins ``at`` a point of the host's."""
    cosine, sine = cos_sin(turn)
    flip = -1.0 if face == side else 1.0
    pose = Pose((flip * cosine, flip * sine, 0.0), (-sine, cosine, 0.0), (0.0, 0.0, flip))
    left, top, _, _ = bounds(pose.on_table(outline))
    return pose._replace(at=(at[0] - left, at[1] - top, 0.0))


class Assembly:
    """Pieces put together step by step. Operations that paper cannot do are done all the same and told by
    ``faults``."""

    def __init__(self) -> None:
        self.pieces: dict[str, Piece] = {}
        self.joins: list[Join] = []
        self.faults: list[FoldFault] = []
        self.states: dict[str, State] = {}
        self.poses: dict[Key, Pose] = {}
        self._angles: dict[tuple[str, str, str], float] = {}
        self._up: dict[Key, bool] = {}  # which way side A looked when the panel last lay flat
        self._piles: dict[str, list[Key]] = {}
        self._root: dict[str, str] = {}
        self._base: dict[str, str] = {}
        self._joined: dict[Key, list[Join]] = {}
        self._turns: dict[tuple[str, str, str, float], tuple[Pose, Pose]] = {}

    def copy(self) -> Assembly:
        """As it is now, to go on with in another way."""
        other = Assembly()
        other.pieces, other.joins, other.faults = dict(self.pieces), list(self.joins), list(self.faults)
        other.states, other.poses = dict(self.states), dict(self.poses)
        other._angles, other._up = dict(self._angles), dict(self._up)
        other._piles = {root: list(pile) for root, pile in self._piles.items()}
        other._root, other._base = dict(self._root), dict(self._base)
        other._joined = {key: list(joins) for key, joins in self._joined.items()}
        other._turns = self._turns  # the same creases
        return other

    # what is done

    def add(self, piece: Piece, base: str = "", *, over: bool = False) -> None:
        """A piece, flat and by itself, side A up, or ``over`` with side B up. Its panel ``base`` stays where
        it is when others fold; the first where none is named. Raises ValueError for a name that is taken."""
        if piece.name in self.pieces:
            raise ValueError(f"there is a piece called {piece.name} already")
        self.pieces[piece.name] = piece
        self._root[piece.name] = piece.name
        self._base[piece.name] = base or piece.panels[0].name
        self._piles[piece.name] = [(piece.name, panel.name) for panel in piece.panels]
        start = Pose((-1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, -1.0)) if over else FLAT
        self.poses.update(dict.fromkeys(self._piles[piece.name], start))
        self._up.update(dict.fromkeys(self._piles[piece.name], start.up))

    def fold(self, piece: str, *folds: tuple[str, str, float]) -> None:
        """Fold creases of a piece, each (panel, panel, degrees), to angles from flat: +180 is a valley seen
        from side A, -180 a mountain. All at once, so that two of 90 make a gusset. What hangs on the far side
        moves with it. Raises KeyError for panels without a crease."""
        own = self.pieces[piece]
        root = self._root[piece]
        pile, before = self._piles[root], {key: self.poses[key] for key in self._members(root)}
        half = dict(self._angles)
        for one, other, degrees in folds:
            crease = own.crease(one, other)
            key = (piece, crease.one, crease.other)
            half[key] = (self._angles.get(key, 0.0) + degrees) / 2
            self._angles[key] = degrees
        self._walk(root, half)
        rising = {key: self.poses[key] for key in before}
        self._walk(root, self._angles)
        moved = {key: True for key, was in before.items() if not _same(was, self.poses[key])}
        ends = [(piece, end) for one, other, _ in folds for end in (one, other)]
        stay = [before[key].place(self._inside(key))[2] for key in ends if key not in moved] or [0.0]
        risen = sum(rising[key].place(self._inside(key))[2] for key in moved) - len(moved) * sum(stay) / len(
            stay
        )
        stays = [key for key in pile if key not in moved]
        group = self._come_down([key for key in pile if key in moved])
        if risen >= 0:
            self._piles[root] = stays + group
        else:
            hosts = self._held_with(piece, folds, set(moved))
            at = min((stays.index(key) for key in hosts if key in stays), default=0)
            self._piles[root] = stays[:at] + group + stays[at:]
        self._look(root, piece, [own.crease(one, other) for one, other, _ in folds])

    def lay(
        self,
        laid: Key,
        host: Key,
        at: Point | None = None,
        *,
        face: Side = "B",
        side: Side = "A",
        turn: int = 0,
        by: How = "glue",
        atop: bool = False,
    ) -> Join:
        """Lay the ``face`` of a panel on the ``side`` of a host: its least rectangle begins ``at`` a point of
        the host's own, turned clockwise by ``turn`` degrees, under what lies there already or ``atop`` of it.
        Without ``at`` both are in place already and are only joined there."""
        if at is None:
            return self._join_in_place(laid, host, face, side, by)
        pose = lies(self.pieces[laid[0]][laid[1]].outline, at, face, side, turn)
        root, other = self._root[host[0]], self._root[laid[0]]
        if root == other:
            raise ValueError(f"{laid} hangs together with {host} already: lay it in place")
        turned_over = (self.poses[host].after(pose)).up != self.poses[laid].up
        brought = self._piles.pop(other)
        if turned_over:
            brought.reverse()
        self._remember(Join(laid, face, host, side, by, pose))
        for name, own in self._root.items():
            if own == other:
                self._root[name] = root
        self._spread({host: self.poses[host], laid: self.poses[host].after(pose)}, laid, self._angles)
        self._up.update({key: self.poses[key].up for key in brought if self.poses[key].level})
        pile = self._piles[root]
        above = (side == "A") == self.poses[host].up
        shadows = [self._shadow(key) for key in brought]
        level = [
            pile.index(key)
            for key in self._level_with(host)
            if key in pile and (key == host or self._meets_any(key, shadows))
        ]
        if not level:
            at_ = len(pile)
        elif above:
            at_ = max(level) + 1
        else:
            at_ = min(level)
        if atop:
            at_ = len(pile) if above else 0
        crossed = pile[at_:] if above else pile[:at_]
        under = tuple(key for key in crossed if self.poses[key].level and self._meets_any(key, shadows))
        self._piles[root] = pile[:at_] + brought + pile[at_:]
        if under:
            self.joins[-1] = Join(laid, face, host, side, by, pose, under)
        return self.joins[-1]

    def mark(self, name: str) -> State:
        """Remember this moment under a name."""
        root = next(iter(self._piles))
        state = State(name, tuple(self._flat(root)), dict(self.poses), dict(self._angles))
        self.states[name] = state
        return state

    # what is asked

    @property
    def loose(self) -> tuple[str, ...]:
        """Pieces that do not hang together with the first one."""
        first = next(iter(self._root.values()), "")
        return tuple(name for name, root in self._root.items() if root != first)

    def misfits(self) -> tuple[Misfit, ...]:
        """Every crease and join that closes a loop and does not meet."""
        misfits = []
        for name, piece in self.pieces.items():
            for crease in piece.creases:
                one, other = (name, crease.one), (name, crease.other)
                should = self.poses[one].after(self._turn(name, crease, self._angles)[0])
                miss = apart(should, self.poses[other], (crease.start, crease.end))
                if miss > LOOP_FITS_MM:
                    misfits.append(Misfit((one, other), miss))
        for join in self.joins:
            should = self.poses[join.host].after(join.pose)
            miss = apart(should, self.poses[join.laid], self.pieces[join.laid[0]][join.laid[1]].outline)
            if miss > LOOP_FITS_MM:
                misfits.append(Misfit((join.laid, join.host), miss))
        return tuple(misfits)

    # how it is worked out

    def _flat(self, root: str) -> list[Key]:
        """The layers that lie flat; what stands upright keeps its place among them for when it comes down."""
        return [key for key in self._piles[root] if self.poses[key].level]

    def _come_down(self, moved: list[Key]) -> list[Key]:
        """The layers of what was moved, from below, as they lie now. Those that lie flat came down together;
        where they came down over are they the other way round. What stands upright keeps the order it had
        when it last lay flat. Two that look different ways then stood apart, and their heights tell them
        apart."""
        flat = [key for key in moved if self.poses[key].level]
        over = {key for key in flat if self.poses[key].up != self._up[key]}
        if len(over) == len(flat):
            flat.reverse()
        elif over:
            order = {key: -number if key in over else number for number, key in enumerate(flat)}
            flat.sort(key=lambda key: (round(self.poses[key].place(self._inside(key))[2], 6), order[key]))
        self._up.update({key: self.poses[key].up for key in flat})
        down = iter(flat)
        return [next(down) if self.poses[key].level else key for key in moved]

    def _members(self, root: str) -> list[Key]:
        return [
            (name, panel.name)
            for name, own in self._root.items()
            if own == root
            for panel in self.pieces[name].panels
        ]

    def _inside(self, key: Key) -> tuple[float, float, float]:
        return self.pieces[key[0]][key[1]].middle

    def _shadow(self, key: Key) -> Polygon:
        return self.poses[key].on_table(self.pieces[key[0]][key[1]].outline)

    def _remember(self, join: Join) -> None:
        self.joins.append(join)
        self._joined.setdefault(join.laid, []).append(join)
        self._joined.setdefault(join.host, []).append(join)

    def _join_in_place(self, laid: Key, host: Key, face: Side, side: Side, by: How) -> Join:
        """A join that closes a loop: both lie where they lie; they have to touch there, these sides towards
        each other."""
        one, other = self.poses[laid], self.poses[host]
        touch = one.level and other.level and meets(self._shadow(laid), self._shadow(host))
        facing = touch and (one.up == (face == "B")) == (other.up == (side == "A"))
        pile = self._piles[self._root[host[0]]]
        if facing:
            above = (side == "A") == other.up
            facing = (pile.index(laid) > pile.index(host)) == above
        if not facing:
            self.faults.append(FoldFault("apart", (laid, host), ()))
        join = Join(laid, face, host, side, by, other.back.after(one))
        self._remember(join)
        return join

    def _turn(
        self, name: str, crease: Crease, angles: Mapping[tuple[str, str, str], float]
    ) -> tuple[Pose, Pose]:
        """How the second panel of a crease lies from the first, and the first from the second."""
        degrees = angles.get((name, crease.one, crease.other), 0.0)
        if not degrees:
            return FLAT, FLAT
        asked = (name, crease.one, crease.other, degrees)
        found = self._turns.get(asked)
        if found is None:
            x, y, _ = self.pieces[name][crease.other].middle
            turn = folded(crease.start, crease.end, (x, y), degrees)
            found = self._turns[asked] = (turn, turn.back)
        return found

    def _walk(self, root: str, angles: Mapping[tuple[str, str, str], float]) -> None:
        """Every panel's pose, from the base of the root along creases and joins."""
        first = (root, self._base[root])
        self._spread({first: self.poses[first]}, first, angles)

    def _spread(
        self, found: dict[Key, Pose], start: Key, angles: Mapping[tuple[str, str, str], float]
    ) -> None:
        """The poses of all that hangs on a panel, but for what is ``found`` already."""
        todo = [start]
        while todo:
            key = todo.pop()
            pose, piece = found[key], self.pieces[key[0]]
            for crease, beyond in piece.around[key[1]]:
                on = (key[0], beyond)
                if on not in found:
                    turn = self._turn(key[0], crease, angles)[crease.one != key[1]]
                    found[on] = pose if turn is FLAT else pose.after(turn)
                    todo.append(on)
            for join in self._joined.get(key, ()):
                on = join.laid if join.host == key else join.host
                if on not in found:
                    found[on] = pose.after(join.pose if join.host == key else join.pose.back)
                    todo.append(on)
        self.poses.update(found)

    def _meets_any(self, key: Key, shadows: Iterable[Polygon]) -> bool:
        return any(meets(self._shadow(key), shadow) for shadow in shadows)

    def _level_with(self, host: Key) -> list[Key]:
        """The host and what goes on from it flat, without a fold: one sheet, which lies at one place of the
        pile."""
        found, todo = [host], [host]
        while todo:
            name, panel = todo.pop()
            for crease, beyond in self.pieces[name].around[panel]:
                if not self._angles.get((name, crease.one, crease.other)):
                    on = (name, beyond)
                    if on not in found:
                        found.append(on)
                        todo.append(on)
        return found

    def _held_with(self, piece: str, folds: Iterable[tuple[str, str, float]], moved: set[Key]) -> set[Key]:
        """What lifts with the side of the folds that stays: all that hangs on it without what moves."""
        found = {key for one, other, _ in folds for key in ((piece, one), (piece, other)) if key not in moved}
        todo = list(found)
        while todo:
            key = todo.pop()
            near = [(key[0], beyond) for _, beyond in self.pieces[key[0]].around[key[1]]]
            near += [end for join in self._joined.get(key, ()) for end in (join.laid, join.host)]
            new = {one for one in near if one not in found and one not in moved}
            found |= new
            todo += new
        return found

    def _look(self, root: str, piece: str, new: list[Crease]) -> None:
        """Faults of the folds just made, against every layer and every other fold."""
        pile = self._flat(root)
        place = {key: number for number, key in enumerate(pile)}
        own = [
            (piece, crease)
            for crease in new
            if abs(self._angles.get((piece, crease.one, crease.other), 0.0)) == 180
        ]
        for name, crease in own:
            ends = ((name, crease.one), (name, crease.other))
            if ends[0] not in place or ends[1] not in place:
                continue
            low, high = sorted((place[ends[0]], place[ends[1]]))
            line = self.poses[ends[0]].on_table((crease.start, crease.end))
            for key in pile[low + 1 : high]:
                if _crosses(self._shadow(key), line):
                    self.faults.append(FoldFault("caught", ends, (key,)))
            self.faults += self._on_line(ends, line, (low, high), place)

    def _on_line(
        self, ends: tuple[Key, Key], line: Polygon, span: tuple[int, int], place: Mapping[Key, int]
    ) -> list[FoldFault]:
        """Folds and flat creases on the same line that cannot be there together with this fold."""
        faults = []
        for name, piece in self.pieces.items():
            for crease in piece.creases:
                one, other = (name, crease.one), (name, crease.other)
                if {one, other} == set(ends) or one not in place or other not in place:
                    continue
                if not common(line, self.poses[one].on_table((crease.start, crease.end))):
                    continue
                low, high = sorted((place[one], place[other]))
                between = span[0] < low < span[1], span[0] < high < span[1]
                if self._angles.get((name, crease.one, crease.other), 0.0) == 0:
                    # of a flat sheet only the part on the fold's own side lies between its layers, or not:
                    # the order of the other part says nothing
                    near = one if self._same_side(ends[0], one, line) else other
                    if span[0] < place[near] < span[1]:
                        faults.append(FoldFault("through", ends, (one, other)))
                elif between[0] != between[1] and self._same_side(ends[0], one, line):
                    faults.append(FoldFault("crossed", ends, (one, other)))
        return faults

    def _same_side(self, one: Key, other: Key, line: Polygon) -> bool:
        a, b = (side_of(line[0], line[1], middle(self._shadow(key))) for key in (one, other))
        return a * b > 0


def _same(one: Pose, other: Pose) -> bool:
    return one == other or all(
        abs(a - b) < 1e-9
        for first, second in zip(one, other, strict=True)
        for a, b in zip(first, second, strict=True)
    )


def _crosses(shadow: Polygon, line: Polygon) -> bool:
    """Whether a layer lies on both sides of a line, along some of its length."""
    start, end = line
    halves = [clipped(shadow, start, end, positive=side) for side in (True, False)]
    if not all(halves):
        return False
    along = ((end[0] - start[0]), (end[1] - start[1]))
    long = (along[0] ** 2 + along[1] ** 2) ** 0.5
    places = []
    for half in halves:
        on = [
            ((x - start[0]) * along[0] + (y - start[1]) * along[1]) / long
            for x, y in half
            if abs(side_of(start, end, (x, y))) < 1e-6
        ]
        places += on
    return bool(places) and min(max(places), long) - max(min(places), 0.0) > POINT_MM
