"""A flap on a hinge: folded out at an edge, lifted from a line on the page, flipped on a joint strip, or
folded up as a holder."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.extras.base import (
    ExtraKind,
    Face,
    Layer,
    LeftOfExtras,
    Stocked,
    Swing,
    Thing,
    WorkWords,
)
from pleat.core.pleats.extras.goesin import Filled, goes_in
from pleat.core.trade.extras import FLAP_GUTTER_MM

WAYS: Final = (
    ("foldout", "fold-out, beyond the edge"),
    ("lift", "lift-up, its hinge on the page"),
    ("flip", "flip, on a joint strip"),
    ("up", "folded up, a holder"),
)


class Flap(Filled):
    """A flap: its size without its hinge tab, and the side of it that the hinge is on."""

    kind: Literal["flap"] = "flap"
    way: Annotated[Literal["foldout", "lift", "flip", "up"], ChoiceRule("it is a", WAYS)] = "lift"
    hinge: Annotated[
        Literal["head", "left", "right", "tail"],
        ChoiceRule("hinged at", (("head", "head"), ("left", "left"), ("right", "right"), ("tail", "tail"))),
    ] = "head"
    width_mm: Annotated[float, LengthRule("the flap, wide", 15, 600)] | None = None
    height_mm: Annotated[float, LengthRule("the flap, high", 15, 600)] | None = None
    tab_mm: Annotated[float, LengthRule("its hinge tab", 6, 60)] = 15.0
    under_mat: Annotated[
        Literal["yes", "no"], ChoiceRule("its tab is hidden", (("yes", "under a mat"), ("no", "no")))
    ] = "no"
    stock: Stocked = "card"


def compute(record: Flap, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The flap as it lies folded in on the page."""
    ruler, goes = left.brief.ruler, goes_in(record)
    wide, high = (
        (goes.width_mm + 6, goes.height_mm + 6) if goes else (face.width_mm * 0.6, face.height_mm * 0.5)
    )
    width, height = record.width_mm or ruler.snap_up(wide), record.height_mm or ruler.snap_up(high)
    caliper = left.paper.stock(record.stock).caliper
    upright = record.hinge in ("left", "right")
    tab = record.tab_mm
    columns = [
        Span("hinge tab", tab if record.hinge == "left" else 0.0),
        Span("", width),
        Span("hinge tab", tab if record.hinge == "right" else 0.0),
    ]
    rows = [
        Span("hinge tab", tab if record.hinge == "head" else 0.0),
        Span("", height),
        Span("hinge tab", tab if record.hinge == "tail" else 0.0),
    ]
    sheet = piece(key, record.stock, columns, rows, glued=["hinge tab"])
    places = {
        "left": (0.0, 0.0, tab, height),
        "right": (width - tab, 0.0, tab, height),
        "head": (0.0, 0.0, width, tab),
        "tail": (0.0, height - tab, width, tab),
    }
    layers = [Layer(0.0, 0.0, width, height, caliper), Layer(*places[record.hinge], caliper)]
    if goes:
        layers.append(
            Layer(
                (width - goes.width_mm) / 2,
                (height - goes.height_mm) / 2,
                goes.width_mm,
                goes.height_mm,
                goes.thick,
            )
        )
    reach = width if upright else height
    return Thing(
        title={
            "foldout": "fold-out",
            "lift": "lift-up flap",
            "flip": "flip on a joint",
            "up": "fold-up holder",
        }[record.way],
        width_mm=width,
        height_mm=height,
        pieces=(sheet,),
        layers=tuple(layers),
        swing=Swing(record.hinge, reach),
        stuck=_box(places[record.hinge]),
        figures=_figures(record, (width, height), reach),
        checks=_checks(record, key, (width, height), face, left),
        work=_words(tab, ruler, record),
        sheet_stock=record.stock,
    )


def _words(tab: float, ruler: Ruler, record: Flap) -> WorkWords:
    """What is said of it at the bench."""
    return WorkWords(
        f"Score {ruler.show(tab)} for its hinge and fold it both ways once.",
        "Glue the tab only, never on the score. "
        + (
            "It goes on before the mat that hides it."
            if record.under_mat == "yes"
            else "Try its swing before the glue takes."
        ),
        "Open and shut it: it must lie flat by itself.",
        cautions=(GLUE,),
        tags=frozenset({"glue", "mat"} if record.under_mat == "yes" else {"glue"}),
    )


def _figures(record: Flap, size: tuple[float, float], reach: float) -> tuple[Figure, ...]:
    return (
        Figure(
            key="flap",
            label="flap",
            value=size,
            show="size",
            how="Without its hinge tab, as it lies folded in.",
            rules=(
                Rule(
                    "chosen by you" if record.width_mm else "flap_wide",
                    "what lies on it and a little round it",
                ),
            ),
        ),
        Figure(
            key="reach",
            label="opened, it reaches",
            value=reach,
            show="length",
            how=f"Past its hinge at the {record.hinge}.",
            rules=(Rule("arithmetic", "the flap, turned over"),),
        ),
    )


def _box(place: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    x, y, wide, high = place
    return x, y, x + wide, y + high


def _checks(
    record: Flap, key: str, size: tuple[float, float], face: Face, left: LeftOfExtras
) -> tuple[Check, ...]:
    """C6: a fold-out that comes into the gutter."""
    ruler, own = left.brief.ruler, f"extras.items.{key}"
    checks = []
    if record.way == "foldout" and face.spine != "none" and record.hinge in ("left", "right"):
        most = face.width_mm - FLAP_GUTTER_MM
        if size[0] > most + 0.05:
            fits = ruler.snap_down(most)
            checks.append(
                Check(
                    code="C6",
                    level="stop" if size[0] > face.width_mm else "watch",
                    title=f"The fold-out of {ruler.show(size[0])} reaches into the gutter: its page is "
                    f"{ruler.show(face.width_mm)} wide.",
                    why=f"Folded in, it needs {ruler.show(FLAP_GUTTER_MM)} less than the page, or it jams at "
                    "the spine and springs open.",
                    offers=(Offer(label=f"{ruler.show(fits)} wide", changes=((f"{own}.width_mm", fits),)),),
                )
            )
    return tuple(checks)


KIND: Final = ExtraKind(
    name="flap",
    title="flap",
    summary="Folds out, lifts up, flips on a joint or folds up as a holder.",
    record=Flap,
    compute=compute,
    group="flaps",
)
