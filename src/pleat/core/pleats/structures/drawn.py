"""A folding programme as it is kept in a book: sheets as widths and heights with named panels, folds, joins,
and the groups that shut it. Any programme can be written down so and read back."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import accumulate, pairwise
from typing import Annotated, Any, Final, Literal

from pydantic import Field

from pleat.core.base.fields import LengthRule, Record
from pleat.core.engines.folding.assembly import Key
from pleat.core.engines.folding.convex import POINT_MM, Polygon, bounds, clipped, edges, rectangle, side_of
from pleat.core.engines.folding.programme import (
    Add,
    FoldGroup,
    FoldOperation,
    LayOperation,
    Operation,
    Programme,
    Where,
)
from pleat.core.engines.folding.sheet import Crease, Cut, Panel, Piece, cut_off

MOST_SPANS: Final = 40
Size = Annotated[float, LengthRule("a panel", 0.5, 2000)]
Degrees = Annotated[float, Field(ge=-180, le=180)]
Name = Annotated[str, Field(min_length=1, max_length=60)]
Millimetres = Annotated[float, Field(ge=-5000, le=5000)]


class DrawnPanel(Record):
    """A cell of the sheet that is there: its name, its column and its row."""

    name: Name
    column: Annotated[int, Field(ge=0, lt=MOST_SPANS)]
    row: Annotated[int, Field(ge=0, lt=MOST_SPANS)]


class DrawnCut(Record):
    """A straight cut in mm on the sheet; what lies on the side of ``off`` goes, of the panels in ``only``."""

    start: tuple[Millimetres, Millimetres]
    end: tuple[Millimetres, Millimetres]
    off: tuple[Millimetres, Millimetres]
    only: tuple[Name, ...] = Field(default=(), max_length=40)


class DrawnSheet(Record):
    """A sheet inside up: the widths of its columns and heights of its rows, the cells that are not cut away,
    and straight cuts."""

    name: Name
    stock: Literal["card", "leaf", "board", "mat", "offcut"] = "card"
    widths_mm: tuple[Size, ...] = Field(min_length=1, max_length=MOST_SPANS)
    heights_mm: tuple[Size, ...] = Field(min_length=1, max_length=MOST_SPANS)
    panels: tuple[DrawnPanel, ...] = Field(min_length=1, max_length=120)
    base: Name
    cuts: tuple[DrawnCut, ...] = Field(default=(), max_length=20)
    glued: tuple[Name, ...] = Field(default=(), max_length=60)


class DrawnFold(Record):
    """A fold between two panels of a sheet, in degrees from flat: +180 lies on the inside."""

    sheet: Name
    one: Name
    other: Name
    degrees: Degrees


class DrawnStep(Record):
    """Folds that are made while it is built, and what is then laid where: ``at_mm`` from the corner of the
    host panel; without it what lies there is joined as it lies."""

    folds: tuple[DrawnFold, ...] = Field(default=(), max_length=40)
    laid: tuple[Name, Name] | None = None
    host: tuple[Name, Name] | None = None
    at_mm: tuple[Millimetres, Millimetres] | None = None
    face: Literal["A", "B"] = "B"
    side: Literal["A", "B"] = "A"
    turn: Literal[0, 90, 180, 270] = 0
    by: Literal["glue", "tuck"] = "glue"
    held: tuple[Where, ...] = Field(default=(), max_length=4)


class DrawnGroup(Record):
    """Folds that are made in one go when it is shut."""

    name: Name
    folds: tuple[DrawnFold, ...] = Field(min_length=1, max_length=80)


def piece_of(sheet: DrawnSheet) -> Piece:
    """The sheet as a piece. Panels in columns or rows that are not there are left out; of two in one cell, or
    of one name, the first counts."""
    lefts, tops = ([0.0, *accumulate(sizes)] for sizes in (sheet.widths_mm, sheet.heights_mm))
    cells: dict[tuple[int, int], str] = {}
    for panel in sheet.panels:
        at = (panel.column, panel.row)
        if (
            panel.column < len(sheet.widths_mm)
            and panel.row < len(sheet.heights_mm)
            and at not in cells
            and panel.name not in cells.values()
        ):
            cells[at] = panel.name
    panels = tuple(
        Panel(name, rectangle(lefts[x], tops[y], sheet.widths_mm[x], sheet.heights_mm[y]))
        for (x, y), name in cells.items()
    )
    creases = [
        *(
            Crease(cells[x, y], cells[x + 1, y], (lefts[x + 1], tops[y]), (lefts[x + 1], tops[y + 1]))
            for x, y in cells
            if (x + 1, y) in cells
        ),
        *(
            Crease(cells[x, y], cells[x, y + 1], (lefts[x], tops[y + 1]), (lefts[x + 1], tops[y + 1]))
            for x, y in cells
            if (x, y + 1) in cells
        ),
    ]
    cuts = [
        Cut(cut.start, cut.end, cut.off, frozenset(cut.only)) for cut in sheet.cuts if cut.start != cut.end
    ]
    glued = frozenset(sheet.glued) & {panel.name for panel in panels}
    return cut_off(Piece(sheet.name, sheet.stock, panels, tuple(creases), glued=glued), cuts)


def programme_of(
    sheets: Iterable[DrawnSheet], steps: Iterable[DrawnStep], groups: Iterable[DrawnGroup]
) -> Programme:
    """The programme that was drawn; what names panels or folds that are not there any more is left out."""
    pieces = {sheet.name: piece_of(sheet) for sheet in sheets}
    bases = {sheet.name: sheet.base for sheet in sheets}
    build: list[Operation] = []
    added: set[str] = set()

    def there(key: Key) -> bool:
        return key[0] in pieces and any(panel.name == key[1] for panel in pieces[key[0]].panels)

    def add(name: str) -> None:
        if name in pieces and name not in added:
            added.add(name)
            base = bases[name] if there((name, bases[name])) else pieces[name].panels[0].name
            build.append(Add(pieces[name], base))

    for name in list(pieces)[:1]:
        add(name)
    hung = set(added)
    for step in steps:
        build += _build(step, pieces, add, there, hung)
    closing = []
    for group in groups:
        folds = tuple(fold for fold in _folds(group.folds, pieces) if fold.piece in hung)
        if folds:
            closing.append(FoldGroup(group.name, folds))
    return Programme(tuple(one for one in build if _piece(one) in hung), tuple(closing), turns=True)


def _piece(one: Operation) -> str:
    """The piece that an operation is done to."""
    match one:
        case Add(piece):
            return piece.name
        case FoldOperation(name):
            return name
    return one.laid[0]


def _build(
    step: DrawnStep, pieces: dict[str, Piece], add: Any, there: Any, hung: set[str]
) -> list[Operation]:
    """The operations of one step: its folds, then what it lays."""
    if step.laid:
        add(step.laid[0])
    for fold in step.folds:
        add(fold.sheet)
    found: list[Operation] = list(_folds(step.folds, pieces))
    if not (step.laid and step.host and there(step.laid) and there(step.host) and step.host[0] in hung):
        return found
    if step.at_mm is None:
        return (
            [*found, LayOperation(step.laid, step.host, None, step.face, step.side, by=step.by)]
            if step.laid[0] in hung
            else found
        )
    if step.laid[0] in hung:
        return found  # it hangs there already
    left, top, _, _ = bounds(pieces[step.host[0]][step.host[1]].outline)
    hung.add(step.laid[0])
    at = (left + step.at_mm[0], top + step.at_mm[1])
    return [
        *found,
        LayOperation(step.laid, step.host, at, step.face, step.side, step.turn, step.by, edges=step.held),
    ]


def _folds(folds: Iterable[DrawnFold], pieces: dict[str, Piece]) -> tuple[FoldOperation, ...]:
    """Folds by their sheets, those whose crease is there."""
    by_sheet: dict[str, list[tuple[str, str, float]]] = {}
    for fold in folds:
        piece = pieces.get(fold.sheet)
        if piece and any(crease.between == {fold.one, fold.other} for crease in piece.creases):
            by_sheet.setdefault(fold.sheet, []).append((fold.one, fold.other, fold.degrees))
    return tuple(FoldOperation(name, tuple(angles)) for name, angles in by_sheet.items())


def written(programme: Programme) -> dict[str, list[dict[str, object]]]:
    """A programme as the fields of a book: sheets, steps and groups, as plain data. Rigid pieces, which are
    what goes in, are left out.

    Raises ValueError for one that a book cannot hold, such as with a panel narrower than half a millimetre.
    """
    sheets = [
        operation for operation in programme.build if isinstance(operation, Add) and not operation.piece.rigid
    ]
    names = {sheet.piece.name for sheet in sheets}
    pieces = {sheet.piece.name: sheet.piece for sheet in sheets}
    steps = []
    for one in programme.build:
        if isinstance(one, FoldOperation) and one.piece in names:
            steps.append(DrawnStep(folds=_written_folds((one,))))
        elif isinstance(one, LayOperation) and one.laid[0] in names and one.host[0] in names:
            steps.append(_written_lay(one, pieces))
    groups = [DrawnGroup(name=group.name, folds=_written_folds(group.folds)) for group in programme.closing]
    return {
        "sheets": [_written_sheet(sheet).model_dump(mode="json") for sheet in sheets],
        "steps": [step.model_dump(mode="json") for step in steps],
        "groups": [group.model_dump(mode="json") for group in groups],
    }


def _written_folds(folds: Iterable[FoldOperation]) -> tuple[DrawnFold, ...]:
    return tuple(
        DrawnFold(sheet=fold.piece, one=a, other=b, degrees=degrees)
        for fold in folds
        for a, b, degrees in fold.angles
    )


def _written_lay(operation: LayOperation, pieces: dict[str, Piece]) -> DrawnStep:
    left, top, _, _ = bounds(pieces[operation.host[0]][operation.host[1]].outline)
    at = None if operation.at is None else (round(operation.at[0] - left, 4), round(operation.at[1] - top, 4))
    by: Literal["glue", "tuck"] = "tuck" if operation.by == "tuck" else "glue"
    return DrawnStep(
        laid=operation.laid,
        host=operation.host,
        at_mm=at,
        face=operation.face,
        side=operation.side,
        turn=operation.turn,
        by=by,
        held=operation.edges,
    )


def _written_sheet(operation: Add) -> DrawnSheet:
    """A piece as columns and rows: every upright and level line of its creases and of its outline is one."""
    piece = operation.piece
    left, top, right, bottom = bounds(point for panel in piece.panels for point in panel.outline)
    xs = _lines([left, right, *(c.start[0] for c in piece.creases if c.upright)])
    ys = _lines([top, bottom, *(c.start[1] for c in piece.creases if not c.upright)])
    panels, cuts = [], []
    for panel in piece.panels:
        x0, y0, x1, y1 = bounds(panel.outline)
        column, row = (_between(marks, (a + b) / 2) for marks, a, b in ((xs, x0, x1), (ys, y0, y1)))
        panels.append(DrawnPanel(name=panel.name, column=column, row=row))
        cell = rectangle(xs[column] - left, ys[row] - top, xs[column + 1] - xs[column], ys[row + 1] - ys[row])
        cuts += _slants(panel.name, tuple((x - left, y - top) for x, y in panel.outline), cell)
    return DrawnSheet(
        name=piece.name,
        stock=piece.stock,  # type: ignore[arg-type]
        widths_mm=tuple(b - a for a, b in pairwise(xs)),
        heights_mm=tuple(b - a for a, b in pairwise(ys)),
        panels=tuple(panels),
        base=operation.base or piece.panels[0].name,
        cuts=tuple(cuts),
        glued=tuple(sorted(piece.glued)),
    )


def _between(marks: list[float], at: float) -> int:
    """The number of the span that a place lies in."""
    return next((number for number in range(len(marks) - 1) if at < marks[number + 1]), len(marks) - 2)


def _lines(values: Iterable[float]) -> list[float]:
    found: list[float] = []
    for value in sorted(values):
        if not found or value - found[-1] > 1e-3:
            found.append(value)
    return found


def _slants(name: str, outline: Polygon, cell: Polygon) -> list[DrawnCut]:
    """The cuts that make a cell into a panel: its sides that are not the cell's own."""
    cuts = []
    for start, end in edges(outline):
        off = next(
            (
                corner
                for corner in cell
                if abs(side_of(start, end, corner)) > POINT_MM and _outside(outline, start, end, corner)
            ),
            None,
        )
        if off is not None and clipped(cell, start, end, positive=side_of(start, end, off) > 0):
            cuts.append(DrawnCut(start=start, end=end, off=off, only=(name,)))
    return cuts


def _outside(
    outline: Polygon, start: tuple[float, float], end: tuple[float, float], point: tuple[float, float]
) -> bool:
    """Whether a point lies on the other side of a side than the panel."""
    inner = max((side_of(start, end, corner) for corner in outline), key=abs)
    return inner * side_of(start, end, point) < 0
