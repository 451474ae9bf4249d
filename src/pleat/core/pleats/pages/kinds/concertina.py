"""A concertina: strips cut from sheets, joined by tabs, folded to and fro. Which way a sheet is cut decides
whether what is left of it makes a tab."""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.kinds import End, Traits
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.engines.folding.assembly import Key, Side
from pleat.core.engines.folding.programme import (
    Add,
    FoldGroup,
    FoldOperation,
    LayOperation,
    Operation,
    Programme,
)
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import CARD, FoldedBlock, FoldedSpec
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.made import Build, Made, Sizes
from pleat.core.pleats.structures.pads import FromPad
from pleat.core.trade.folding import LEAST_TAB_MM, MOST_TAB_MM


class Concertina(FromPad):
    """Pleat 3, a concertina: its panels, and along which side of the sheet its strips are cut."""

    kind: Literal["concertina"] = "concertina"
    amount: Annotated[int, NumberRule("how many panels", 2, 120, whole=True)] = 8
    counted_in: Annotated[
        Literal["leaves", "pages", "unsaid"],
        ChoiceRule("counted in", (("leaves", "panels"), ("pages", "faces"), ("unsaid", "not said"))),
    ] = "leaves"
    cut: Annotated[
        Literal["auto", "long", "short"],
        ChoiceRule(
            "strips run along",
            (("auto", "whichever is better"), ("long", "the sheet's long side"), ("short", "its short side")),
        ),
    ] = "auto"
    tab_mm: Annotated[float, LengthRule("the joining tabs", 3, 60)] | None = None


@dataclass(frozen=True)
class StripCutting:
    """One way of cutting: how many panels a strip has, what is left for its tab in mm, strips a sheet, strips
    and sheets in all, and whether grain runs along the folds."""

    way: str
    panels: int
    left_mm: float
    a_sheet: int
    strips: int
    sheets: int
    with_grain: bool | None

    @property
    def folds(self) -> str:
        """How its folds lie to the grain, in words; nothing where that is not known."""
        return {True: ", folds along the grain", False: ", folds across the grain", None: ""}[self.with_grain]

    @property
    def tabbed(self) -> bool:
        """Whether what is left of the sheet makes a tab, or none is needed."""
        return self.strips == 1 or self.left_mm >= LEAST_TAB_MM - 0.05


def panels_of(record: Concertina) -> int:
    return max(2, -(-record.amount // 2)) if record.counted_in in ("pages", "unsaid") else record.amount


def cuts(count: int, width: float, height: float, left: LeftOfPages) -> tuple[StripCutting, ...]:
    """Both ways of cutting so many panels of a size in mm out of the card, and each with a panel less where
    its tab would be too narrow; those that give nothing are left out."""
    card = left.paper.stock(CARD)
    long, short = (
        max(card.usable_width_mm, card.usable_height_mm),
        min(card.usable_width_mm, card.usable_height_mm),
    )
    if card.grain is None:
        grain = None
    elif (card.grain == "h") == (card.usable_height_mm >= card.usable_width_mm):
        grain = "long"
    else:
        grain = "short"
    found = []
    for way, (along, across) in (("long", (long, short)), ("short", (short, long))):
        most, a_sheet = int((along + 0.05) // width), int((across + 0.05) // height)
        for panels in (most, most - 1):
            if panels < 1 or not a_sheet:
                continue
            panels = min(panels, count)
            strips = math.ceil(count / panels)
            # folds run across the strip: the grain is with them where it runs across it too
            found.append(
                StripCutting(
                    way,
                    panels,
                    along - panels * width,
                    a_sheet,
                    strips,
                    math.ceil(strips / a_sheet),
                    None if grain is None else grain != way,
                )
            )
            if found[-1].tabbed:
                break
    return tuple(found)


def chosen(record: Concertina, ways: tuple[StripCutting, ...], count: int) -> StripCutting:
    """The way it is cut: the maker's, at its most panels; else the one with usable tabs, the grain along the
    folds, and fewest sheets. Where nothing comes out of the sheet, one strip of all."""
    own = [strip for strip in ways if record.cut in ("auto", strip.way)]
    if not own:
        return StripCutting(record.cut, count, MOST_TAB_MM, 1, 1, 1, None)
    if record.cut != "auto":
        return own[0]
    return min(
        own, key=lambda strip: (not strip.tabbed, strip.with_grain is False, strip.sheets, strip.strips)
    )


def tab_of(record: Concertina, cut: StripCutting, ruler: Ruler) -> float:
    """The tabs in mm: what is left, at most 20; 0 where one strip is enough."""
    if cut.strips == 1:
        return 0.0
    return record.tab_mm or max(ruler.snap_down(min(cut.left_mm, MOST_TAB_MM)), 3.0)


def build(count: int, cut: StripCutting, tab: float, width: float, height: float) -> Build:
    """All strips joined, then folded to and fro from the far end."""

    def programme(_sizes: Sizes) -> Programme:
        steps: list[Operation] = []
        places: list[tuple[str, str]] = []  # of each panel: its strip and its name
        hinges: list[tuple[str, str, str]] = []  # of each fold: the strip it is in, and its two panels
        for strip in range(cut.strips):
            first = strip * cut.panels
            own = [f"panel {number + 1}" for number in range(first, min(first + cut.panels, count))]
            last = strip == cut.strips - 1
            name = f"strip {strip + 1}"
            spans = [Span(one, width) for one in own] + ([] if last else [Span("tab", tab)])
            steps.append(
                Add(piece(name, CARD, spans, [Span("", height)], glued=() if last else ("tab",)), own[0])
            )
            if strip:
                before = f"strip {strip}"
                steps.append(LayOperation((name, own[0]), (before, "tab"), (cut.panels * width, 0.0)))
                hinges.append((before, places[-1][1], "tab"))
            hinges += [(name, one, other) for one, other in itertools.pairwise(own)]
            places += [(name, one) for one in own]
        groups = [
            FoldGroup(
                f"fold {number + 1}",
                (FoldOperation(strip, ((one, other, 180.0 if number % 2 == 0 else -180.0),)),),
            )
            for number, (strip, one, other) in reversed(list(enumerate(hinges)))
        ]
        return Programme(tuple(steps), tuple(groups))

    return programme


def glued(count: int, cut: StripCutting, ends: tuple[End, ...]) -> frozenset[tuple[Key, Side]]:
    """The outer faces of the end panels that are glued into the cover: of the first its back, of the last the
    side it was folded to."""
    outer: Side = "A" if count % 2 else "B"
    faces: dict[End, tuple[Key, Side]] = {
        "first": (("strip 1", "panel 1"), "B"),
        "last": ((f"strip {cut.strips}", f"panel {count}"), outer),
    }
    return frozenset(face for end, face in faces.items() if end in ends)


def compute(record: Concertina, left: LeftOfPages) -> FoldedBlock:
    """The strips, their tabs, and the whole folded."""
    ruler, count = left.brief.ruler, panels_of(record)
    width, height = left.brief.leaf_width_mm, left.brief.leaf_height_mm
    ways = cuts(count, width, height, left)
    cut = chosen(record, ways, count)
    tab = tab_of(record, cut, ruler)
    return folded.compute(
        record,
        left,
        FoldedSpec(
            "concertina",
            lambda wide, high: build(count, cut, tab, wide, high),
            unit="concertina",
            leaves=count,
            hidden=glued(count, cut, left.brief.made_of.glued_ends),
            figures=lambda _made: (_figure(cut, tab, ruler, left),),
            checks=lambda made: _checks(record, (cut, ways), tab, made, left),
            offers=tuple(
                Offer(
                    label=f"strips along the {strip.way} side: {many(strip.panels, 'panel')} each, "
                    f"{many(strip.a_sheet, 'strip')} a sheet{strip.folds}",
                    changes=(("pages.cut", strip.way),),
                    group="cut",
                )
                for strip in ways
                if strip.way != cut.way and strip.tabbed
            ),
        ),
    )


def _figure(cut: StripCutting, tab: float, ruler: Ruler, left: LeftOfPages) -> Figure:
    card = left.paper.stock(CARD)
    how = (
        f"Along the sheet's {cut.way} side {many(cut.panels, 'panel')} of "
        f"{ruler.show(left.brief.leaf_width_mm)}, {ruler.show(max(cut.left_mm, 0.0))} are left"
    )
    how += (
        f" for the tab; a sheet of {card.name} gives {many(cut.a_sheet, 'strip')} beside each other"
        f"{cut.folds}."
    )
    return Figure(
        key="strips",
        label="joined from",
        value=f"{many(cut.strips, 'strip')}" + (f", tabs {ruler.show(tab)}" if tab else ""),
        show="text",
        how=how,
        rules=(
            Rule("arithmetic", "whole panels along the sheet"),
            Rule("LEAST_TAB_MM", "a tab of 8 mm or more, no source"),
        ),
    )


def _checks(
    record: Concertina,
    cutting: tuple[StripCutting, tuple[StripCutting, ...]],
    tab: float,
    _made: Made,
    left: LeftOfPages,
) -> tuple[Check, ...]:
    found = (_narrow(record, *cutting, tab, left), _unsaid(record))
    return tuple(check for check in found if check)


def _narrow(
    record: Concertina, cut: StripCutting, ways: tuple[StripCutting, ...], tab: float, left: LeftOfPages
) -> Check | None:
    """B2: a joining tab too narrow to glue, since the sheet is cut the other way; or wider than what is
    left."""
    ruler = left.brief.ruler
    if cut.strips == 1 or (tab >= LEAST_TAB_MM - 0.05 and tab <= cut.left_mm + 0.05):
        return None
    others = [strip for strip in ways if strip.tabbed and strip.way != cut.way]
    fewer = [strip for strip in ways if strip.tabbed and strip.way == cut.way]
    offers = [
        Offer(
            label=f"strips along the {other.way} side: {ruler.show(min(other.left_mm, MOST_TAB_MM))} left",
            changes=(("pages.cut", other.way), ("pages.tab_mm", None)),
        )
        for other in others
    ]
    if record.tab_mm is not None and cut.tabbed:
        offers.insert(
            0,
            Offer(
                label=f"tabs of {ruler.show(ruler.snap_down(min(cut.left_mm, MOST_TAB_MM)))}",
                changes=(("pages.tab_mm", None),),
            ),
        )
    if fewer and record.cut != "auto" and not cut.tabbed:
        offers.append(
            Offer(label="whichever is better", changes=(("pages.cut", "auto"), ("pages.tab_mm", None)))
        )
    return Check(
        code="B2",
        level="stop",
        title=f"{ruler.show(max(cut.left_mm, 0.0))} are left of the sheet for a tab of {ruler.show(tab)}"
        if cut.tabbed
        else f"Cut along its {cut.way} side, the sheet leaves {ruler.show(max(cut.left_mm, 0.0))} for the "
        "joining tab: too narrow to glue.",
        why=f"{many(cut.panels, 'panel')} of {ruler.show(left.brief.leaf_width_mm)} use up the rest. A tab "
        f"wants {ruler.show(LEAST_TAB_MM)} or more.",
        offers=tuple(offers),
        no_fix="" if offers else "Take a larger sheet, or a panel that is a little narrower.",
    )


def _unsaid(record: Concertina) -> Check | None:
    """A11: a count without its unit word."""
    if record.counted_in != "unsaid":
        return None
    return Check(
        code="A11",
        level="note",
        title=f"You typed {record.amount} without saying of what: taken as faces, that is "
        f"{many(panels_of(record), 'panel')}.",
        why=f"A panel has two faces. {record.amount} panels would be twice the card.",
        offers=(
            Offer(label=f"yes, {record.amount} faces", changes=(("pages.counted_in", "pages"),)),
            Offer(label=f"I meant {record.amount} panels", changes=(("pages.counted_in", "leaves"),)),
        ),
    )


KIND: Final = BlockKind(
    name="concertina",
    title="concertina",
    summary="Strips joined by tabs and folded to and fro.",
    record=Concertina,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    unit="concertina",
    traits=Traits(opens_flat=True),
)
