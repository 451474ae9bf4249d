"""What slides into pockets: loose papers of a size and a thickness, whether they fit, and how far they stand
out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import LengthRule
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.assembly import Key
from pleat.core.engines.folding.pockets import FoldedPocket
from pleat.core.engines.folding.programme import Add, LayOperation, Operation
from pleat.core.engines.folding.sheet import board
from pleat.core.pleats.structures.cut import said
from pleat.core.pleats.structures.made import Made
from pleat.core.pleats.structures.pads import FromPad
from pleat.core.trade.extras import EASE_MM
from pleat.core.trade.folding import LEAST_TAB_MM

INSERT: Final = "insert"


class Pocketed(FromPad):
    """A structure with pockets: their tabs, and what slides in."""

    tab_mm: Annotated[float, LengthRule("the glue tabs", 0, 60)] = 12.0
    insert_width_mm: Annotated[float, LengthRule("what slides in, wide", 10, 600)] | None = None
    insert_height_mm: Annotated[float, LengthRule("what slides in, high", 10, 600)] | None = None
    insert_thick_mm: Annotated[float, LengthRule("what slides in, thick", 0.05, 40, fine=True)] = 0.5
    stand_mm: Annotated[float, LengthRule("it should stand out", 0, 400)] | None = None


class Deep(Pocketed):
    """One whose pockets are as deep as it is said."""

    pocket_mm: Annotated[float, LengthRule("the pocket's height", 15, 500)] | None = None


@dataclass(frozen=True)
class Insert:
    """What slides into a pocket, in mm."""

    width_mm: float
    height_mm: float
    thick: Estimate


def insert(record: Pocketed) -> Insert | None:
    """What was said to slide in; nothing without both sides."""
    if not record.insert_width_mm or not record.insert_height_mm:
        return None
    thick = record.insert_thick_mm
    return Insert(
        record.insert_width_mm,
        record.insert_height_mm,
        Estimate.ranged(thick * 0.9, thick, thick * 1.1, "what slides in"),
    )


def calipers(record: Pocketed) -> dict[str, Estimate]:
    """How thick what slides in is, by the stock it stands for."""
    what = insert(record)
    return {INSERT: what.thick} if what else {}


def tucked(what: Insert | None, name: str, host: Key, foot: tuple[float, float]) -> tuple[Operation, ...]:
    """The operations that slide it in: it stands on ``foot``, the middle of the pocket's floor on the host's
    own mm."""
    if what is None:
        return ()
    sheet = board(name, INSERT, what.width_mm, what.height_mm)
    corner = (foot[0] - what.width_mm / 2, foot[1] - what.height_mm)
    return (Add(sheet), LayOperation((name, "body"), host, corner, by="tuck"))


def checks(record: Pocketed, made: Made, ruler: Ruler, panel_height_mm: float) -> tuple[Check, ...]:
    """B2 for the tabs; F1, F2 and F9 for what slides in."""
    what, narrow = insert(record), _narrow_tabs(record, ruler)
    if what is None or not made.pockets:
        return narrow
    pocket = min(made.pockets, key=lambda one: one.throat_mm)
    found = (
        _too_long(what, ruler, panel_height_mm),
        _too_wide(record, what, pocket, ruler),
        _stands_out(record, what, pocket, ruler),
    )
    return (*narrow, *(check for check in found if check))


def _narrow_tabs(record: Pocketed, ruler: Ruler) -> tuple[Check, ...]:
    """B2: tabs too narrow to glue, or none, where pockets are wanted."""
    if record.tab_mm >= LEAST_TAB_MM - 0.05 or getattr(record, "pockets", "") == "none":
        return ()
    right = ruler.snap_up(LEAST_TAB_MM)
    return (
        Check(
            code="B2",
            level="stop",
            title=f"A tab of {ruler.show(record.tab_mm)} is too narrow to glue."
            if record.tab_mm
            else "Without tabs nothing holds the pockets.",
            why=f"It wants {ruler.show(LEAST_TAB_MM)} or more, or the pocket comes open at its side.",
            offers=(Offer(label=f"tabs of {ruler.show(right)}", changes=(("pages.tab_mm", right),)),),
        ),
    )


def _too_long(what: Insert, ruler: Ruler, panel_height_mm: float) -> Check | None:
    """F9: longer than the panel that carries it."""
    if what.height_mm <= panel_height_mm + 0.05:
        return None
    shorter = ruler.snap_down(panel_height_mm - EASE_MM)
    return Check(
        code="F9",
        level="stop",
        title=f"What slides in is {ruler.show(what.height_mm)} high, its panel "
        f"{ruler.show(panel_height_mm)}: it stands out past the shut book.",
        why=f"{ruler.show(what.height_mm - panel_height_mm)} would show at the head, and catch.",
        offers=(
            Offer(label=f"{ruler.show(shorter)} high", changes=(("pages.insert_height_mm", shorter),)),
            Offer(
                label="a book that is high enough",
                changes=(("brief.leaf_height_mm", ruler.snap_up(what.height_mm + EASE_MM)),),
            ),
        ),
    )


def _too_wide(record: Pocketed, what: Insert, pocket: FoldedPocket, ruler: Ruler) -> Check | None:
    """F2: behind a glue tab; F1: as wide as the pocket."""
    name, throat, tabs = said(pocket.wall), pocket.throat_mm, 2 * record.tab_mm
    fits = ruler.snap_down(throat - EASE_MM)
    narrower = Offer(label=f"{ruler.show(fits)} wide", changes=(("pages.insert_width_mm", fits),))
    if throat < what.width_mm <= throat + tabs:
        return Check(
            code="F2",
            level="stop",
            title="What slides in is wider than the mouth between the glue tabs: "
            f"{ruler.show(what.width_mm)} against {ruler.show(throat)}.",
            why=f"It slides in behind a tab, or not at all. The {name} looks {ruler.show(throat + tabs)} "
            "wide from outside.",
            offers=(
                narrower,
                *(
                    (Offer(label="tabs half as wide", changes=(("pages.tab_mm", record.tab_mm / 2),)),)
                    if record.tab_mm > 6 and what.width_mm + EASE_MM <= throat + record.tab_mm
                    else ()
                ),
            ),
        )
    if what.width_mm <= throat - EASE_MM + 0.05:
        return None
    return Check(
        code="F1",
        level="watch" if what.width_mm <= throat else "stop",
        title=f"What slides in is as wide as the {name}: {ruler.show(what.width_mm)} against "
        f"{ruler.show(throat)}.",
        why=f"Glue and folds take room at the sides; {ruler.show(EASE_MM)} less lets it slide.",
        offers=(narrower,),
    )


def _stands_out(record: Pocketed, what: Insert, pocket: FoldedPocket, ruler: Ruler) -> Check | None:
    """F1: higher above the mouth than was wanted."""
    out = what.height_mm - pocket.depth_mm
    if record.stand_mm is None or out <= record.stand_mm + ruler.step_mm:
        return None
    deep = ruler.snap_up(what.height_mm - record.stand_mm)
    return Check(
        code="F1",
        level="watch",
        title=f"It stands out {ruler.show(out)} above the mouth, and {ruler.show(record.stand_mm)} was "
        "wanted.",
        why=f"It is {ruler.show(what.height_mm)} high, the pocket {ruler.show(pocket.depth_mm)} deep.",
        offers=(Offer(label=f"a pocket {ruler.show(deep)} high", changes=(("pages.pocket_mm", deep),)),)
        if isinstance(record, Deep)
        else (),
        no_fix=""
        if isinstance(record, Deep)
        else "The pocket is as deep as the page: a lower page, or what slides in standing lower.",
    )


def figures(record: Pocketed, made: Made, ruler: Ruler) -> tuple[Figure, ...]:
    """What fits the pockets, or how what was named lies in them."""
    if not made.pockets:
        return ()
    pocket = min(made.pockets, key=lambda one: one.throat_mm)
    wide = ruler.snap_down(pocket.throat_mm - EASE_MM)
    what = insert(record)
    if what is None:
        return (
            Figure(
                key="fits",
                label="slides into a pocket",
                value=f"up to {ruler.number(wide)} {ruler.name} wide",
                show="text",
                how=f"The mouth between the tabs is {ruler.show(pocket.throat_mm)}; {ruler.show(EASE_MM)} "
                "less lets a paper slide.",
                rules=(
                    Rule("arithmetic", "the mouth less 3 mm"),
                    Rule("EASE_MM", "1/8 in of ease, no source"),
                ),
            ),
        )
    out = what.height_mm - pocket.depth_mm
    return (
        Figure(
            key="fits",
            label="stands out above the mouth",
            value=max(out, 0.0),
            show="length",
            how=f"{ruler.show(what.height_mm)} high in a pocket {ruler.show(pocket.depth_mm)} deep.",
            rules=(Rule("arithmetic", "its height less the depth"),),
        ),
    )
