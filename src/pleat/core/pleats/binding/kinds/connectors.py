"""A chain of connector hinges: one between each two leaves and one to either board, each a flange, a gusset
and a flange."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Member, Suits, Traits
from pleat.core.base.plan import Figure, Rule
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import Piece, Span, piece
from pleat.core.pleats.binding.hinged import stack, work
from pleat.core.pleats.binding.hinged.record import (
    CARD,
    CASE,
    LEAF,
    MOST_DRAWN,
    Hinge,
    HingedResult,
    hinge_of,
)
from pleat.core.pleats.binding.hinged.room import Between
from pleat.core.pleats.binding.hinged.work import HingeSpec
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding


class Connectors(Member):
    """Pleat 5: connector hinges. ``shared`` says how what is missing against the case is made up. Whether the
    case opens as far is the cover's to say."""

    kind: Literal["connectors"] = "connectors"
    flange_mm: Annotated[float, LengthRule("the flanges", 8, 80)] = 20.0
    gusset_mm: Annotated[float, LengthRule("the gussets between leaves", 0.5, 80)] | None = None
    end_mm: Annotated[float, LengthRule("the gussets to the boards", 0.5, 80)] | None = None
    shared: Annotated[
        Literal["ends", "all"],
        ChoiceRule(
            "what the case opens more is taken by",
            (("ends", "the two end connectors"), ("all", "all of them alike")),
        ),
    ] = "ends"


def between(record: Connectors, hinge: Hinge) -> Between:
    """What lies between two leaves."""
    return Between(
        hinge.leaf.likely, record.gusset_mm, "binding.gusset_mm", "gusset", "gussets", "two leaves"
    )


def gussets_of(record: Connectors, hinge: Hinge, ruler: Ruler) -> tuple[float, float]:
    """(an inner gusset, one at an end) in mm: the inner ones for a leaf's bulk, the rest of what the case
    opens at the ends, or shared by all."""
    inner = between(record, hinge).size(ruler)
    if record.shared == "all" and record.gusset_mm is None and record.end_mm is None:
        each = hinge.opens(inner) / (hinge.count + 1)
        if each >= inner:
            return each, each
    rest = (hinge.opens(inner) - (hinge.count - 1) * inner) / 2
    return inner, max(rest, ruler.step_mm) if record.end_mm is None else record.end_mm


def connector(name: str, flange: float, gusset: float, height: float) -> Piece:
    """A connector inside up."""
    return piece(
        name,
        CARD,
        [Span("upper flange", flange), Span("gusset", gusset), Span("lower flange", flange)],
        [Span("", height)],
        glued=("upper flange", "lower flange"),
    )


def compute(record: Connectors, left: LeftOfBinding) -> HingedResult:
    """The chain for these leaves: one connector more than leaves."""
    ruler, hinge = left.brief.ruler, hinge_of(left, more=2)
    inner, end = gussets_of(record, hinge, ruler)
    flange = min(record.flange_mm, hinge.width / 3)
    chain = (hinge.count - 1) * inner + 2 * end
    shown = min(hinge.count, MOST_DRAWN)
    pieces = [(connector("end connector", flange, end, hinge.height), 2)]
    if hinge.count > 1:
        pieces.append((connector("connector", flange, inner, hinge.height), hinge.count - 1))
    if abs(inner - end) < 0.01:
        pieces = [(connector("connector", flange, inner, hinge.height), hinge.count + 1)]
    spec = HingeSpec(
        "connector hinges",
        tuple(pieces),
        stack.connectors(
            [end, *[inner] * (shown - 1), end], (hinge.width, hinge.height), flange, (CARD, LEAF, CASE)
        ),
        chain,
        end,
        flange,
        _figures(record, hinge, (inner, end), chain, ruler),
        tuple(check for check in (between(record, hinge).check(hinge, ruler),) if check),
        (("binding.flange_mm", pieces[0][0].name, "upper flange", flange),),
        folded="Both folds of a connector are valleys.",
        glued="A connector's lower flange on the leaf below, the next leaf on its upper flange; flips are "
        "glued to their leaf before.",
    )
    return work.result(left, hinge, spec, at="hinge", swell=hinge.swell(inner))


def _figures(
    record: Connectors, hinge: Hinge, sizes: tuple[float, float], chain: float, ruler: Ruler
) -> tuple[Figure, ...]:
    inner, end = sizes
    opens = hinge.opens(inner)
    off = opens - (hinge.count - 1) * inner
    (inside, ends), whole = ruler.summed([(hinge.count - 1) * inner, 2 * end])
    return (
        Figure(
            key="connectors",
            label="held by",
            value=f"{hinge.count + 1} connectors",
            show="text",
            how=f"One between each two of {hinge.count} leaves, and one to either board: {hinge.count} + 1.",
            rules=(Rule("arithmetic", "one more than leaves"),),
            scrap=f"{hinge.count + 1} connectors, flange {ruler.show(record.flange_mm)}",
        ),
        between(record, hinge).figure(
            "gussets between leaves",
            "Half of what is on the leaf above and half of what is on the one below",
            ruler,
        ),
        Figure(
            key="end",
            label="gussets to the boards",
            value=end,
            show="length",
            how=f"The case opens {ruler.show(opens)} between its boards, spine board and both gaps; the "
            f"inner gussets take {ruler.show((hinge.count - 1) * inner)}: {ruler.show(off)} are shared by "
            "two.",
            rules=(Rule("arithmetic", "what is left, halved"),),
            scrap=ruler.show(end),
        ),
        Figure(
            key="chain",
            label="the chain, from board to board",
            value=chain,
            show="length",
            how=f"Between leaves {inside} + to the boards {ends} = {whole} {ruler.name}.",
            rules=(Rule("arithmetic", "gussets added up"),),
        ),
    )


KIND: Final = BindingKind(
    name="connectors",
    title="connector hinges",
    summary="A folded connector between each two leaves and to either board.",
    record=Connectors,
    compute=compute,
    roles=(CARD,),
    takes=frozenset({"hinged"}),
    at="hinge",
    traits=Traits(glue=True, opens_flat=True),
    suits=Suits(
        fewest=1,
        most=60,
        good_to=20,
        thickest_mm=60.0,
        strength="firm",
        hard="first book",
        minutes=6,
        look="leaves in a chain, each with room",
    ),
)
