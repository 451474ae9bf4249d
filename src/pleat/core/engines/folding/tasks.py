"""What is done to build a thing, in an order that works: every piece is cut before it is shaped, shaped
before it is scored, scored before it is folded, and a panel is joined once what it lies on is there. What is
only tucked waits for all glue."""

from __future__ import annotations

from dataclasses import dataclass, replace
from graphlib import TopologicalSorter
from typing import Literal

from pleat.core.engines.folding.convex import is_rectangle
from pleat.core.engines.folding.programme import Add, FoldOperation, Programme
from pleat.core.engines.folding.sheet import Piece, scores

TaskKind = Literal["shape", "score", "fold", "join", "tuck"]


@dataclass(frozen=True)
class Task:
    """One thing to do: the pieces it is done to, the numbers of the programme's operations it carries out,
    and the tasks it waits for."""

    kind: TaskKind
    pieces: tuple[str, ...]
    operations: tuple[int, ...] = ()
    after: tuple[int, ...] = ()


def shaped(sheet: Piece) -> bool:
    """Whether more is cut away than the rectangle it comes from."""
    return len(sheet.outlines) != 1 or not is_rectangle(sheet.outlines[0])


def scored(sheet: Piece) -> bool:
    return bool(scores(sheet) or scores(sheet, upright=False))


def tasks(programme: Programme) -> tuple[Task, ...]:
    """All tasks of the building, each after those it waits for: a fold or a join waits for everything before
    it that has a piece in common with it."""
    found: list[Task] = []
    last: dict[str, list[int]] = {}
    for sheet in programme.pieces:
        last[sheet.name] = []
        kinds: dict[TaskKind, bool] = {"shape": bool(shaped(sheet)), "score": bool(scored(sheet))}
        for kind, needed in kinds.items():
            if needed:
                found.append(Task(kind, (sheet.name,), after=tuple(last[sheet.name])))
                last[sheet.name] = [len(found) - 1]
    for number, one in enumerate(programme.build):
        if isinstance(one, Add):
            continue
        kind_: TaskKind = "fold"
        if isinstance(one, FoldOperation):
            names: tuple[str, ...] = (one.piece,)
        else:
            names = tuple(dict.fromkeys((one.laid[0], one.host[0])))
            kind_ = "tuck" if one.by == "tuck" else "join"
        after = {task for name in names for task in last[name]}
        found.append(Task(kind_, names, (number,), tuple(sorted(after))))
        if kind_ == "tuck":
            continue  # nothing waits for what is slid in
        for name in names:
            last[name] = [len(found) - 1]
    dry = {number for number, task in enumerate(found) if task.kind == "join"}
    return tuple(
        replace(task, after=tuple(sorted({*task.after, *dry}))) if task.kind == "tuck" else task
        for task in found
    )


def in_order(found: tuple[Task, ...]) -> tuple[int, ...]:
    """The numbers of the tasks in an order that works, all shaping first, then all scoring, then as the
    programme has it."""
    rank = {"shape": 0, "score": 1, "fold": 2, "join": 2, "tuck": 3}
    graph = TopologicalSorter({number: task.after for number, task in enumerate(found)})
    graph.prepare()
    ready: list[int] = []
    order: list[int] = []
    while graph.is_active():
        ready = sorted((*ready, *graph.get_ready()), key=lambda number: (rank[found[number].kind], number))
        first = ready.pop(0)
        order.append(first)
        graph.done(first)
    return tuple(order)
