"""What stands in the place of a member that does not go with what is to its left, or that nobody knows: a
stop, and the ways out."""

from __future__ import annotations

from collections.abc import Sequence

from pleat.core.base.kinds import TAG, Kind, Member, Registry
from pleat.core.base.plan import Check, Figure, Offer
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding
from pleat.core.pleats.cover.result import CoverKind, CoverResult, LeftOfCover

_HELD = {
    "section": "folded sections",
    "leaf": "single leaves",
    "pad": "a bought pad",
    "folio": "a folded structure",
    "hinged": "album leaves",
    "pair": "leaves in pairs",
    "concertina": "a concertina",
}
_WHERE = {
    "fold": "through the folds",
    "spine": "with an open spine",
    "block": "as a block for a case",
    "edge": "along an edge",
    "bought": "as it was bought",
    "own": "in its own folds",
    "hinge": "on hinges",
    "row": "side by side on a spine",
    "ends": "by its end panels",
}


def _nothing(label: str, why: str) -> Figure:
    return Figure(key="unfit", label=label, value="does not fit", show="text", how=why, rules=())


def _to(registry: Registry[Kind], members: Sequence[Kind]) -> tuple[Offer, ...]:
    return tuple(
        Offer(label=f"take {member.title}", changes=((f"{registry.pleat}.{TAG}", member.name),))
        for member in members
    )


def unknown(registry: Registry[Kind], record: Member) -> tuple[Check, ...]:
    """The check on a record of a member that this Pleat does not know; empty for one it does."""
    if registry.find(record.kind):
        return ()
    first = registry.members[0]
    return (
        Check(
            code="kind",
            level="stop",
            title=f"This Pleat does not know “{record.kind}”; the plan goes on as if it were {first.title}.",
            why="The file may come from a newer Pleat. What it says is kept, and goes out again with the "
            "book.",
            offers=_to(registry, registry.members),
        ),
    )


def binding(kind: BindingKind, registry: Registry[BindingKind], left: LeftOfBinding) -> BindingResult:
    """A binding that cannot hold what the block is made of."""
    unit = left.pages.unit
    why = f"{kind.title.capitalize()} does not hold {_HELD[unit]}."
    fits = _to(registry, [member for member in registry.members if unit in member.takes])
    no_fix = "" if fits else "Make the block of something else under Pages."
    check = Check(
        code="unfit",
        level="stop",
        title=why,
        why="Nothing to the right can be worked out before it does.",
        offers=fits,
        no_fix=no_fix,
    )
    none = _nothing("held by", why)
    return BindingResult(
        key_figure=none, figures=(none,), checks=(check,), at=kind.at, height_mm=left.pages.leaf_height_mm
    )


def cover(kind: CoverKind, registry: Registry[CoverKind], left: LeftOfCover) -> CoverResult:
    """A cover that does not go with how the block is held."""
    at = left.binding.at
    why = f"{kind.title.capitalize()} does not go with a block that is held {_WHERE[at]}."
    fits = _to(registry, [member for member in registry.members if at in member.takes])
    no_fix = "" if fits else "Hold the block otherwise under Binding."
    none = _nothing("cover", why)
    return CoverResult(
        key_figure=none,
        figures=(none,),
        checks=(
            Check(
                code="unfit",
                level="stop",
                title=why,
                why="Nothing is cut for it before it does.",
                offers=fits,
                no_fix=no_fix,
            ),
        ),
        front_width_mm=left.pages.leaf_width_mm,
        front_height_mm=left.pages.leaf_height_mm,
        spine=left.pages.thickness,
        swatch=left.pages.swatch,
    )
