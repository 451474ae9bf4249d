"""A mat on the page with an even border, or a frame with an opening for what is seen through it."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import KNIFE
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.engines.folding.convex import Point
from pleat.core.engines.folding.sheet import board
from pleat.core.pleats.extras.base import ExtraKind, Face, Layer, LeftOfExtras, Stocked, Thing, WorkWords
from pleat.core.pleats.extras.goesin import Filled, Goes, goes_in
from pleat.core.trade.extras import FRAME_LAP_MM


class Mat(Filled):
    """A mat: its size, or an even border on the page; a frame has an opening."""

    kind: Literal["mat"] = "mat"
    way: Annotated[Literal["mat", "frame"], ChoiceRule("it is a", (("mat", "mat"), ("frame", "frame")))] = (
        "mat"
    )
    border_mm: Annotated[float, LengthRule("its border on the page", 0, 100)] = 6.0
    width_mm: Annotated[float, LengthRule("the mat, wide", 15, 600)] | None = None
    height_mm: Annotated[float, LengthRule("the mat, high", 15, 600)] | None = None
    stock: Stocked = "mat"


def compute(record: Mat, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The mat, and what lies on it or behind it."""
    goes = goes_in(record)
    width = record.width_mm or max(face.width_mm - 2 * record.border_mm, 15.0)
    height = record.height_mm or max(face.height_mm - 2 * record.border_mm, 15.0)
    caliper = left.paper.stock(record.stock).caliper
    layers = [Layer(0.0, 0.0, width, height, caliper)]
    opening = None
    x = y = 0.0
    checks: tuple[Check, ...] = ()
    if goes:
        x, y = (width - goes.width_mm) / 2, (height - goes.height_mm) / 2
        lap = FRAME_LAP_MM if record.way == "frame" else 0.0
        if min(x + lap, y + lap) < 0:
            checks = (_larger(record, key, (width, height), goes, (face, left)),)
        elif record.way == "frame":
            opening = (
                max(goes.width_mm - 2 * FRAME_LAP_MM, 1.0),
                max(goes.height_mm - 2 * FRAME_LAP_MM, 1.0),
            )
            layers = _frame((width, height), (x + FRAME_LAP_MM, y + FRAME_LAP_MM), opening, caliper)
        layers.append(Layer(x, y, goes.width_mm, goes.height_mm, goes.thick))
    return Thing(
        title=record.way,
        width_mm=width,
        height_mm=height,
        lines=_edges((x + FRAME_LAP_MM, y + FRAME_LAP_MM), opening) if opening else (),
        pieces=(board(key, record.stock, width, height),),
        layers=tuple(layer for layer in layers if min(layer.width_mm, layer.height_mm) > 0),
        figures=_figures(record, (width, height), opening, left),
        checks=checks,
        work=WorkWords(
            "Cut its opening before it is glued." if opening else "",
            "Glue it from the middle outward and press. What sits on it comes after.",
            cautions=(KNIFE,) if opening else (),
            tags=frozenset({"glue", "mat"}),
        ),
        flat_mat=record.way == "mat",
        sheet_stock=record.stock,
    )


def _frame(
    size: tuple[float, float], at: tuple[float, float], opening: tuple[float, float], caliper: Estimate
) -> list[Layer]:
    """The four sides of a frame round its opening."""
    (width, height), (x, y), (wide, high) = size, at, opening
    return [
        Layer(0.0, 0.0, width, y, caliper),
        Layer(0.0, y + high, width, height - y - high, caliper),
        Layer(0.0, y, x, high, caliper),
        Layer(x + wide, y, width - x - wide, high, caliper),
    ]


def _edges(at: tuple[float, float], opening: tuple[float, float]) -> tuple[tuple[Point, Point], ...]:
    """The four edges of an opening."""
    (x, y), (wide, high) = at, opening
    corners = ((x, y), (x + wide, y), (x + wide, y + high), (x, y + high))
    return tuple(zip(corners, (*corners[1:], corners[0]), strict=True))


def _larger(
    record: Mat, key: str, size: tuple[float, float], goes: Goes, on: tuple[Face, LeftOfExtras]
) -> Check:
    """F10: what goes on the mat, or behind the frame, is larger than it."""
    (face, left), own = on, f"extras.items.{key}"
    ruler = left.brief.ruler
    need = (ruler.snap_up(goes.width_mm + 2 * FRAME_LAP_MM), ruler.snap_up(goes.height_mm + 2 * FRAME_LAP_MM))
    turned = "level" if record.lies == "upright" else "upright"
    fits = need[0] <= face.width_mm and need[1] <= face.height_mm
    other = goes.height_mm <= size[0] and goes.width_mm <= size[1]
    position = "behind" if record.way == "frame" else "on"
    return Check(
        code="F10",
        level="stop",
        title=f"What goes {position} it is "
        f"{ruler.size(goes.width_mm, goes.height_mm)}, the {record.way} {ruler.size(*size)}.",
        why="It stands out past the edge.",
        offers=(
            *(
                (
                    Offer(
                        label=f"a {record.way} of {ruler.size(*need)}",
                        changes=((f"{own}.width_mm", need[0]), (f"{own}.height_mm", need[1])),
                    ),
                )
                if fits
                else ()
            ),
            *(
                (Offer(label=f"what goes on it {turned}", changes=((f"{own}.lies", turned),)),)
                if other
                else ()
            ),
            Offer(label="nothing on it", changes=((f"{own}.goes", "none"),)),
        ),
    )


def _figures(
    record: Mat, size: tuple[float, float], opening: tuple[float, float] | None, left: LeftOfExtras
) -> tuple[Figure, ...]:
    ruler = left.brief.ruler
    whole = Figure(
        key="mat",
        label=record.way,
        value=size,
        show="size",
        how=f"The face less a border of {ruler.show(record.border_mm)} a side, or what you typed.",
        rules=(Rule("arithmetic", "face less twice the border"),),
    )
    if opening is None:
        return (whole,)
    shows = f"What shows in it, less {ruler.show(FRAME_LAP_MM)} a side that hold it."
    return (
        whole,
        Figure(
            key="opening",
            label="its opening",
            value=opening,
            show="size",
            how=shows,
            rules=(Rule("FRAME_LAP_MM", "how far it laps over"),),
        ),
    )


KIND: Final = ExtraKind(
    name="mat",
    title="mat or frame",
    summary="A paper with an even border, or a frame round what is seen.",
    record=Mat,
    compute=compute,
    group="mats and pictures",
)
