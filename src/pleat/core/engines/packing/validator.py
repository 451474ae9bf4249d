"""Whether a plan can be cut, asked of its figures alone: it shares no code with what made the plan."""

from __future__ import annotations

from collections import Counter

from pleat.core.engines.packing.problem import Box, Packing, PlacedPiece, Problem


def faults(problem: Problem, packing: Packing) -> list[str]:
    """What is wrong with a plan, for whoever works on the planner; nothing where it can be cut."""
    found: list[str] = []
    used: Counter[int] = Counter()
    placed: Counter[int] = Counter()
    for number, layout in enumerate(packing.layouts):
        where = f"sheet {number}"
        if not 0 <= layout.source < len(problem.sources) or layout.times < 1 or not layout.placed:
            found.append(f"{where}: of no source, cut no time, or empty")
            continue
        used[layout.source] += layout.times
        for piece in layout.placed:
            if not 0 <= piece.demand < len(problem.demands):
                found.append(f"{where}: a piece of no demand")
                continue
            placed[piece.demand] += layout.times
            found += [f"{where}: {fault}" for fault in _piece(problem, layout.source, layout.length, piece)]
        boxes = [(one.x, one.y, one.width, one.height) for one in layout.placed]
        if any(_overlap(a, b) for i, a in enumerate(boxes) for b in boxes[:i]):
            found.append(f"{where}: pieces lie over each other")
        elif not _edge_to_edge(boxes, problem.kerf):
            found.append(f"{where}: no cut from edge to edge parts its pieces")
    found += _counts(problem, packing, used, placed)
    return found + _twins(problem, packing)


def _piece(problem: Problem, source: int, length: int, piece: PlacedPiece) -> list[str]:
    demand, sheet = problem.demands[piece.demand], problem.sources[source]
    size = (piece.width, piece.height)
    words = []
    if size != (demand.width, demand.height) and not (
        demand.may_turn and size == (demand.height, demand.width)
    ):
        words.append("a piece of another size, or turned")
    left, top, right, bottom = sheet.margins
    high = length if sheet.roll else sheet.height
    if not (
        left <= piece.x
        and top <= piece.y
        and piece.x + piece.width <= sheet.width - right
        and piece.y + piece.height <= high - bottom
    ):
        words.append("a piece past the edge")
    if sheet.roll and length > sheet.height:
        words.append("more than the roll is long")
    if any(_overlap((piece.x, piece.y, *size), box) for box in sheet.blocked):
        words.append("a piece on what cannot be used")
    return words


def _overlap(one: Box, other: Box) -> bool:
    return (
        one[0] < other[0] + other[2]
        and other[0] < one[0] + one[2]
        and one[1] < other[1] + other[3]
        and other[1] < one[1] + one[3]
    )


def _edge_to_edge(boxes: list[Box], kerf: int) -> bool:
    """Whether one cut after the other, each right through what is there, parts the boxes from each other."""
    if len(boxes) < 2:
        return True
    for axis in (0, 1):
        ordered = sorted(boxes, key=lambda box: box[axis])
        reach = ordered[0][axis] + ordered[0][axis + 2]
        for number, box in enumerate(ordered[1:], 1):
            if box[axis] >= reach + kerf:
                return _edge_to_edge(ordered[:number], kerf) and _edge_to_edge(ordered[number:], kerf)
            reach = max(reach, box[axis] + box[axis + 2])
    return False


def _counts(problem: Problem, packing: Packing, used: Counter[int], placed: Counter[int]) -> list[str]:
    words = []
    for number, source in enumerate(problem.sources):
        if source.count is not None and used[number] > source.count:
            words.append(f"{used[number]} sheets of source {number}, and there are {source.count}")
    for number, demand in enumerate(problem.demands):
        if placed[number] + packing.unplaced[number] != demand.count:
            words.append(f"demand {number}: {placed[number]} placed, {packing.unplaced[number]} not")
    cost = 0.0
    for layout in packing.layouts:
        source = problem.sources[layout.source]
        cost += layout.times * source.price * (layout.length / source.height if source.roll else 1)
    if abs(cost - packing.cost) > 1e-6 * max(1.0, cost):
        words.append(f"it costs {cost}, not {packing.cost}")
    if packing.complete and packing.bound > packing.cost * (1 + 1e-9) + 1e-9:
        words.append("its bound lies above its cost")
    return words


def _twins(problem: Problem, packing: Packing) -> list[str]:
    words = []
    for name in {demand.twins for demand in problem.demands if demand.twins}:
        numbers = {number for number, demand in enumerate(problem.demands) if demand.twins == name}
        sheets = [
            layout.times for layout in packing.layouts if any(one.demand in numbers for one in layout.placed)
        ]
        if sum(sheets) > 1:
            words.append(f"the twins {name} come from several sheets")
    return words
