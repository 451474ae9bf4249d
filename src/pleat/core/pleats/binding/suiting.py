"""Which binding suits a block: what each is for against what is there, why one is proposed and why another is
refused."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.kinds import TAG, CoverMember, Registry, Suits
from pleat.core.base.plan import Changes, Check, Offer
from pleat.core.base.words import many
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding

GROUP: Final = "stitches"
_STRENGTH: Final = {"light": 2, "firm": 1, "strong": 0}
_HARD: Final = {"first book": 0, "some practice": 1, "takes care": 2}


@dataclass(frozen=True)
class Proposal:
    """A binding with what speaks for it and against it; ``can`` is False where it cannot hold the block at
    all."""

    kind: BindingKind
    can: bool
    good: bool
    facts: tuple[str, ...]
    against: tuple[str, ...]


def proposals(registry: Registry[BindingKind], left: LeftOfBinding) -> tuple[Proposal, ...]:
    """Every binding with something said of it, the best for this block first: it can be done, it suits, it is
    no harder than needed."""
    deep, places = (
        left.pages.through.likely,
        {member.name: number for number, member in enumerate(registry.members)},
    )
    found = [_proposal(member, member.suits, left, deep) for member in registry.members if member.suits]

    def rank(proposal: Proposal) -> tuple[bool, bool, bool, int, int, int]:
        assert proposal.kind.suits is not None
        wants_cover = left.brief.made_of.cover.sewn_through and proposal.kind.at != "fold"
        suits = proposal.kind.suits
        return (
            not proposal.can,
            not proposal.good,
            wants_cover,
            _HARD[suits.hard],
            _STRENGTH[suits.strength],
            places[proposal.kind.name],
        )

    return tuple(sorted(found, key=rank))


def _proposal(kind: BindingKind, suits: Suits, left: LeftOfBinding, deep: float) -> Proposal:
    ruler, sections = left.brief.ruler, len(left.pages.units)
    against = []
    if left.pages.unit not in kind.takes or not suits.fits(sections):
        against.append(suits.refuses or f"it holds {suits.fewest} to {many(suits.most, 'section')}")
    elif sections > suits.good_to:
        against.append(f"good for {_up_to(suits)}, this has {sections}")
    if deep > suits.thickest_mm:
        against.append(
            f"goes through {ruler.thin(suits.thickest_mm)} at once, a section here is {ruler.thin(deep)}"
        )
    if suits.tough and left.papers["leaf"].toughness == "weak":
        against.append("it pulls at its holes, and these leaves are weak paper")
    facts = (suits.look, suits.strength, suits.hard, f"about {round(suits.minutes * sections)} minutes")
    can = left.pages.unit in kind.takes and suits.fits(sections)
    return Proposal(kind, can, can and not against, tuple(fact for fact in facts if fact), tuple(against))


def _up_to(suits: Suits) -> str:
    return (
        many(suits.good_to, "section")
        if suits.good_to == suits.fewest
        else f"{suits.fewest} to {many(suits.good_to, 'section')}"
    )


def offers(
    proposed: Sequence[Proposal], covers: Registry[CoverMember], left: LeftOfBinding
) -> tuple[Offer, ...]:
    """The bindings that can hold the block, side by side, as ways this pleat can go; with another cover where
    the present one cannot go with it."""
    return tuple(
        Offer(
            label=proposal.kind.title,
            changes=_changes(covers, left, proposal.kind),
            facts=(*proposal.facts, _goes_with(covers, left, proposal.kind), *proposal.against),
            group=GROUP,
            chosen=proposal.kind is left.brief.made_of.binding,
            good=proposal.good,
        )
        for proposal in proposed
        if proposal.can and proposal.kind.name != "own"
    )


def _brings(covers: Registry[CoverMember], left: LeftOfBinding, kind: BindingKind) -> CoverMember | None:
    """The cover that comes along with a binding, where the present one cannot go with it."""
    return (
        None
        if kind.at in left.brief.made_of.cover.takes
        else next((member for member in covers.members if kind.at in member.takes), None)
    )


def _goes_with(covers: Registry[CoverMember], left: LeftOfBinding, kind: BindingKind) -> str:
    """The covers it goes with; where the present one is none of them, which comes along instead."""
    other = _brings(covers, left, kind)
    along = f"; {other.title} comes along instead of {left.brief.made_of.cover.title}" if other else ""
    return (
        f"goes with {' or '.join(cover.title for cover in covers.members if kind.at in cover.takes)}{along}"
    )


def _changes(covers: Registry[CoverMember], left: LeftOfBinding, kind: BindingKind) -> Changes:
    held = ((f"binding.{TAG}", kind.name),)
    other = _brings(covers, left, kind)
    return (*held, (f"{covers.pleat}.{TAG}", other.name)) if other else held


def in_words(offered: Sequence[Offer], sections: int, thickness: str) -> str:
    """What the Brief says of how the book is held: what suits so many sections, and why what it has does not,
    if so.

    >>> ways = [Offer(label=name, changes=(), group=GROUP) for name in ("link stitch", "over tapes")]
    >>> said = ("light", "it holds two")
    >>> ways.append(Offer(label="pamphlet", changes=(), facts=said, group=GROUP, chosen=True, good=False))
    >>> in_words(ways, 5, "9 mm")
    '5 sections, 9 mm: link stitch or over tapes would suit; pamphlet is not the best for it (it holds two).'
    """
    ways = [one for one in offered if one.group == GROUP]
    good = [one.label for one in ways if one.good]
    offer = next((one for one in ways if one.chosen), None)
    size = f"{many(sections, 'section')}, {thickness}"
    if offer and offer.good:
        others = [label for label in good if label != offer.label][:2]
        return f"{size}: {offer.label} suits" + (f"; so would {' or '.join(others)}." if others else ".")
    suited = (
        f"{' or '.join(good[:2])} would suit"
        if good
        else "nothing that Pleat knows suits so much paper in one fold"
    )
    return f"{size}: {suited}" + (
        f"; {offer.label} is not the best for it ({offer.facts[-1]})." if offer else "."
    )


def _taking(covers: Registry[CoverMember], left: LeftOfBinding, kind: BindingKind) -> str:
    """What a tap does: the binding, and the cover that comes along with it."""
    other = _brings(covers, left, kind)
    return f"take {kind.title}" + (f", {other.title} comes along" if other else "")


def check(
    proposed: Sequence[Proposal], covers: Registry[CoverMember], left: LeftOfBinding
) -> tuple[Check, ...]:
    """Why the book's binding is wrong for its block, and what would do; empty where it suits."""
    kind = left.brief.made_of.binding
    proposal = next((one for one in proposed if one.kind is kind), None)
    if proposal is None or proposal.good:
        return ()
    ruler, sections = left.brief.ruler, len(left.pages.units)
    better = [one for one in proposed if one.good and one.kind.name != "own"][:3]
    swaps = tuple(
        Offer(label=_taking(covers, left, one.kind), changes=_changes(covers, left, one.kind))
        for one in better
    )
    size = f"{many(sections, 'section')}, {ruler.thin(left.pages.thickness.likely)}"
    said = "; ".join(proposal.against)
    suited = " or ".join(one.kind.title for one in better[:2])
    verdict = "not the best for it" if proposal.can else "not possible"
    return (
        Check(
            code="sections",
            level="watch" if proposal.can else "stop",
            title=f"{size}: {kind.title} is {verdict}: {said}.",
            why=f"For {size} {suited} would suit."
            if suited
            else "Nothing that Pleat knows suits so much paper in one fold.",
            offers=swaps,
            no_fix="" if swaps else "Split the sheets into more sections under Pages, or take fewer of them.",
        ),
    )
