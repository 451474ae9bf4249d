"""A mat on the page with an even border, or a frame with an opening for what is seen through it."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.cautions import KNIFE
from pleat.core.extras.base import ExtraKind, Face, Layer, LeftOfExtras, Stocked, Thing, Work
from pleat.core.extras.goesin import Filled, goes_in
from pleat.core.fields import ChoiceRule, LengthRule
from pleat.core.folding.sheet import board
from pleat.core.plan import Check, Figure, Offer, Rule

LAP_MM: Final = 3.0
"""How far a frame lies over what it holds, on each side."""


class Mat(Filled):
    """A mat: its size, or an even border on the page; a frame has an opening."""

    kind: Literal["mat"] = "mat"
    way: Annotated[Literal["mat", "frame"], ChoiceRule("it is a", (("mat", "mat"), ("frame", "frame")))] = "mat"
    border_mm: Annotated[float, LengthRule("its border on the page", 0, 100)] = 6.0
    width_mm: Annotated[float, LengthRule("the mat, wide", 15, 600)] | None = None
    height_mm: Annotated[float, LengthRule("the mat, high", 15, 600)] | None = None
    stock: Stocked = "mat"


def compute(record: Mat, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The mat, and what lies on it or behind it."""
    ruler, goes = left.brief.ruler, goes_in(record)
    width = record.width_mm or max(face.width_mm - 2 * record.border_mm, 15.0)
    height = record.height_mm or max(face.height_mm - 2 * record.border_mm, 15.0)
    caliper = left.paper.stock(record.stock).caliper
    own, checks = f"extras.items.{key}", []
    layers = [Layer(0.0, 0.0, width, height, caliper)]
    opening = None
    if goes:
        x, y = (width - goes.width_mm) / 2, (height - goes.height_mm) / 2
        layers.append(Layer(x, y, goes.width_mm, goes.height_mm, goes.thick))
        if record.way == "frame":
            opening = (goes.width_mm - 2 * LAP_MM, goes.height_mm - 2 * LAP_MM)
            x, y = x + LAP_MM, y + LAP_MM
            layers[0:1] = [
                Layer(0.0, 0.0, width, y, caliper),
                Layer(0.0, y + opening[1], width, y, caliper),
                Layer(0.0, y, x, opening[1], caliper),
                Layer(x + opening[0], y, x, opening[1], caliper),
            ]
        if min(x, y) < 0:
            need = (ruler.snap_up(goes.width_mm + 6), ruler.snap_up(goes.height_mm + 6))
            turned = "level" if record.lies == "upright" else "upright"
            fits = need[0] <= face.width_mm and need[1] <= face.height_mm
            offers = (
                (Offer(f"a {record.way} of {ruler.size(*need)}", ((f"{own}.width_mm", need[0]), (f"{own}.height_mm", need[1]))),)
                if fits
                else (
                    Offer(f"what goes on it {turned}", ((f"{own}.lies", turned),)),
                    Offer("nothing on it", ((f"{own}.goes", "none"),)),
                )
            )
            checks.append(
                Check(
                    "F10",
                    "stop",
                    f"What goes {'behind' if record.way == 'frame' else 'on'} it is {ruler.size(goes.width_mm, goes.height_mm)}, the {record.way} {ruler.size(width, height)}.",
                    "It stands out past the edge.",
                    offers,
                )
            )
            layers = [
                Layer(0.0, 0.0, width, height, caliper),
                Layer((width - goes.width_mm) / 2, (height - goes.height_mm) / 2, goes.width_mm, goes.height_mm, goes.thick),
            ]
            opening = None
    figures = [
        Figure(
            "mat",
            record.way,
            (width, height),
            "size",
            f"The face less a border of {ruler.show(record.border_mm)} a side, or what you typed.",
            (Rule("arithmetic", "face less twice the border"),),
        )
    ]
    if opening:
        figures.append(
            Figure(
                "opening",
                "its opening",
                opening,
                "size",
                f"What shows in it, less {ruler.show(LAP_MM)} a side that hold it.",
                (Rule("house rule", "3 mm a side"),),
            )
        )
    return Thing(
        title=record.way,
        width_mm=width,
        height_mm=height,
        pieces=(board(key, record.stock, width, height),),
        layers=tuple(layer for layer in layers if min(layer.width_mm, layer.height_mm) > 0),
        figures=tuple(figures),
        checks=tuple(checks),
        work=Work(
            "Cut its opening before it is glued." if opening else "",
            "Glue it from the middle outward and press. What sits on it comes after.",
            flat="",
            cautions=(KNIFE,) if opening else (),
            tags=frozenset({"glue", "mat"}),
        ),
        flat_mat=record.way == "mat",
        sheet_stock=record.stock,
    )


KIND: Final = ExtraKind(
    name="mat",
    title="mat or frame",
    summary="A paper with an even border, or a frame round what is seen.",
    record=Mat,
    compute=compute,
    group="mats and pictures",
)
