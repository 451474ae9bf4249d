"""The figure that everything after depends on: how thick the block is at the spine and at the fore edge, part
by part, and what measuring would save."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate, total
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Member
from pleat.core.base.plan import Check, Figure, Offer, Rule, Step
from pleat.core.base.staged import gauged
from pleat.core.base.units import Ruler
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.trade.cases import BLOCK_DISAGREES_MM, WEDGE_MM
from pleat.core.trade.pages import BLOCK_READING_MM

SWELLS: Final = {"hinge": "hinge", "row": "room beside them"}
"""What makes a block thicker at its spine, where it is not sewn."""


class Spined(Member):
    """What every cover with a spine of its own may be told: the block as it was measured, and what will be
    put in later."""

    measured_spine_mm: (
        Annotated[float, LengthRule("the sewn and pressed block at the spine", 0.3, 150)] | None
    ) = None
    inserts_mm: Annotated[float, LengthRule("what goes in later, at its thickest", 0, 80)] = 0.0
    inserts_at: Annotated[
        Literal["fore", "all"],
        ChoiceRule("and it lies", (("fore", "away from the spine"), ("all", "at the spine too"))),
    ] = "fore"


@dataclass(frozen=True)
class Spine:
    """The block in mm as it is used, as it is estimated from its ``parts`` (name, thickness), and how thick
    it is at the fore edge."""

    used: Estimate
    estimated: Estimate
    parts: tuple[tuple[str, Estimate], ...]
    fore: Estimate
    measured: bool

    @property
    def wedge_mm(self) -> float:
        """How much thicker the fore edge is than the spine."""
        return self.fore.likely - self.used.likely


def spine_of(cover: Spined, left: LeftOfCover, more: tuple[tuple[str, Estimate], ...] = ()) -> Spine:
    """The spine inside the cover; ``more`` are endpapers and the like that the cover itself adds to the
    block."""
    pages, swell = left.pages, left.binding.swell
    inserts = Estimate.exact(cover.inserts_mm).plus(left.extras.beyond)
    everywhere = [("leaves", pages.thickness), *more]
    if left.extras.added.likely:
        everywhere.append(("extras", left.extras.added))
    if inserts.likely and cover.inserts_at == "all":
        everywhere.append(("what goes in", inserts))
    parts = [*everywhere, (SWELLS.get(left.binding.at, "thread"), swell)] if swell.likely else everywhere
    estimated = total(estimate for _, estimate in parts)
    fore = total(
        [*(estimate for _, estimate in everywhere), inserts]
        if cover.inserts_at == "fore"
        else [estimate for _, estimate in everywhere]
    )
    read = cover.measured_spine_mm
    if read is None:
        return Spine(estimated, estimated, tuple(parts), fore, measured=False)
    measured = Estimate(read, {"your reading of the block": (BLOCK_READING_MM, BLOCK_READING_MM)})
    at_spine = cover.inserts_at == "all"
    used = measured.plus(inserts) if at_spine else measured
    without_thread = Estimate(max(used.likely - swell.likely, 0.0), used.doubts)
    return Spine(
        used,
        estimated,
        tuple(parts),
        without_thread if at_spine else without_thread.plus(inserts),
        measured=True,
    )


def figures(ruler: Ruler, spine: Spine, wider: str = "") -> tuple[Figure, ...]:
    """The spine with its sum and its doubt, and the estimate beside a reading; ``wider`` says what was
    rounded to the safe side."""
    likely = [estimate.likely for _, estimate in spine.parts]
    shown, inside = ruler.summed(likely, finest=True)
    made_of = " + ".join(f"{name} {value}" for (name, _), value in zip(spine.parts, shown, strict=True))
    if spine.measured:
        how = (
            "You measured it. From its parts it is estimated at "
            f"{ruler.between(spine.estimated.low, spine.estimated.high)}: {made_of}."
        )
        rules: tuple[Rule, ...] = (Rule("measured by you", "the sewn and pressed block"),)
    else:
        how = f"{made_of} = {inside} {ruler.name}. {saving(ruler, spine)}"
        rules = (
            Rule("arithmetic", "what lies at the spine, added up"),
            Rule("LAY_FACTORS", "how flat paper lies, the thread's share"),
        )
    figures = [
        Figure(key="spine", label="spine", value=spine.used, show="thin", how=how, rules=rules, aside=wider)
    ]
    if spine.measured:
        beside = (
            f"{made_of} = {inside} {ruler.name}. Your reading is used instead; held against this, it "
            "shows a slip."
        )
        figures.append(
            Figure(
                key="spine_estimated",
                label="spine, estimated",
                value=spine.estimated,
                show="thin",
                how=beside,
                rules=(Rule("arithmetic", "its parts added up"),),
            )
        )
    if abs(spine.wedge_mm) > WEDGE_MM:
        figures.append(_wedge(ruler, spine))
    return tuple(figures)


def saving(ruler: Ruler, spine: Spine) -> str:
    """What makes the range, and what measuring the block would make of it."""
    estimated = spine.estimated
    doubt = estimated.main_doubt()
    if doubt is None:
        return ""
    known = (
        f" Most of it is {doubt}; known exactly, it would be {ruler.thin(estimated.width_without(doubt))}."
        if len(estimated.doubts) > 1
        else ""
    )
    return (
        f"The range is {ruler.thin(estimated.width)} wide.{known} "
        "Measure the pressed, sewn block before you cut: it falls to "
        f"{ruler.thin(min(2 * BLOCK_READING_MM, estimated.width))}."
    )


def _wedge(ruler: Ruler, spine: Spine) -> Figure:
    thick = spine.wedge_mm > 0
    how = (
        "What goes in lies away from the spine: shut, the book is a wedge that gapes by the difference, "
        "unless stubs or spacers fill the spine."
        if thick
        else "What holds the leaves, and what is glued at the spine, does not reach the fore edge: shut, the "
        "covers lean towards each other there."
    )
    return Figure(
        key="fore_edge",
        label="fore edge",
        value=spine.fore,
        show="thin",
        how=f"{how} Spine {ruler.thin(spine.used.likely)}, fore edge {ruler.thin(spine.fore.likely)}.",
        rules=(Rule("arithmetic", "the same parts without those at the spine alone"),),
    )


def measured(left: LeftOfCover, spine: Spine) -> Step:
    """The pressed block is measured before anything is cut for a cover that it is hung into."""
    ruler = left.brief.ruler
    sewn = left.brief.made_of.binding.traits.needle
    ends = " with its endpapers" if any(name == "endpapers" for name, _ in spine.parts) else ""
    return Step(
        key="measure_sewn",
        title="Measure the sewn block" if sewn else "Measure the block",
        detail="Pressed, at the spine, between two boards. Estimated at "
        f"{ruler.between(spine.estimated.low, spine.estimated.high)}{ends}. "
        "Type what you read under Cover, and every piece follows.",
        tools=("ruler or caliper",),
        needs=("block.flat",),
        gives=("block.measured",),
        kind="measure",
        reading="cover.measured_spine_mm",
        shows=lambda: gauged(left.pages.leaf_width_mm, spine.estimated.likely),
    )


def checks(cover: Spined, left: LeftOfCover, spine: Spine) -> tuple[Check, ...]:
    """A9: the block has two sizes, or one that its parts hardly make; and a wedge that gapes."""
    ruler, checks = left.brief.ruler, []
    read, before = cover.measured_spine_mm, left.pages.thickness if left.pages.measured else None
    if read is not None and before is not None:
        most = before.likely + sum(estimate.high for _, estimate in spine.parts[1:])
        if not before.likely - BLOCK_DISAGREES_MM <= read <= most + BLOCK_DISAGREES_MM:
            checks.append(
                Check(
                    code="A9",
                    level="watch",
                    title=f"The block has two sizes: {ruler.thin(before.likely)} measured under Pages, "
                    f"{ruler.thin(read)} here.",
                    why="Thread and endpapers only add to it, and not by that much. One of the two was read "
                    "wrong, or the block was not pressed.",
                    offers=(
                        Offer(label="keep the one under Pages", changes=(("cover.measured_spine_mm", None),)),
                        Offer(label="keep the one here", changes=(("pages.measured_block_mm", None),)),
                    ),
                )
            )
    if read is not None and before is None and spine.estimated.questions(read):
        checks.append(
            Check(
                code="A9",
                level="watch",
                title=f"You measured {ruler.thin(read)} at the spine; its parts make it "
                f"{ruler.between(spine.estimated.low, spine.estimated.high)}.",
                why="The cover follows your reading. Measure the pressed block again, all of it and without "
                "its cover, and count its leaves.",
                offers=(Offer(label="go by the estimate", changes=(("cover.measured_spine_mm", None),)),),
            )
        )
    if cover.inserts_mm and spine.wedge_mm > max(2.0, 0.25 * spine.used.likely):
        checks.append(
            Check(
                code="wedge",
                level="watch",
                title=f"Filled, the fore edge is {ruler.thin(spine.wedge_mm)} thicker than the spine: the "
                "book gapes.",
                why="A stub of paper folded in with each section, or spacers glued at the gutter, make the "
                "spine as thick as what goes in.",
                offers=(
                    Offer(label="it lies at the spine too, on stubs", changes=(("cover.inserts_at", "all"),)),
                ),
            )
        )
    return tuple(checks)
