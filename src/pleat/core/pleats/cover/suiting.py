"""Which covers go with how a block is held, and what would have to be held otherwise for the others."""

from __future__ import annotations

from typing import Final

from pleat.core.base.kinds import TAG, Registry
from pleat.core.base.plan import Offer
from pleat.core.base.words import joined
from pleat.core.pleats.binding.result import BindingKind
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover

GROUP: Final = "covers"
HELD: Final = {
    "fold": "a block sewn through its cover",
    "spine": "an open spine",
    "block": "a block for a case",
    "edge": "held along an edge",
    "bought": "a bought pad",
    "hinge": "leaves on a hinge",
    "row": "leaves in a row on the spine",
    "ends": "a concertina",
    "own": "a folded structure",
}


def offers(
    covers: Registry[CoverKind], bindings: Registry[BindingKind], left: LeftOfCover
) -> tuple[Offer, ...]:
    """Every cover side by side: those that go with the binding, then those that take another one along, which
    they say."""
    made_of, at = left.brief.made_of, left.binding.at
    fits = [
        _offer(
            kind, (), (kind.summary, "goes with it as it is held"), chosen=kind is made_of.cover, good=True
        )
        for kind in covers.members
        if at in kind.takes
    ]
    others = []
    for member in covers.members:
        binding = None if at in member.takes else _held(member, bindings, left)
        if binding is not None:
            needs = joined(HELD[place] for place in HELD if place in member.takes)
            why = f"not as it is held now: it wants {needs}; {binding.title} comes along"
            others.append(
                _offer(
                    member,
                    ((f"{bindings.pleat}.{TAG}", binding.name),),
                    (member.summary, why),
                    chosen=False,
                    good=False,
                )
            )
    return (*fits, *others)


def _offer(
    kind: CoverKind, more: tuple[tuple[str, object], ...], facts: tuple[str, ...], *, chosen: bool, good: bool
) -> Offer:
    return Offer(
        label=kind.title,
        changes=((f"cover.{TAG}", kind.name), *more),
        facts=facts,
        group=GROUP,
        chosen=chosen,
        good=good,
    )


def _held(cover: CoverKind, bindings: Registry[BindingKind], left: LeftOfCover) -> BindingKind | None:
    """The binding that suits this block best of those that go with the cover; None where there is none."""
    units = len(left.pages.units)
    can = [
        member
        for member in bindings.members
        if member.at in cover.takes
        and left.pages.unit in member.takes
        and (member.suits is None or member.suits.fits(units))
        and member.name != "own"
    ]
    return min(can, key=lambda kind: kind.suits is not None and units > kind.suits.good_to, default=None)


def in_words(offered: tuple[Offer, ...]) -> str:
    """What the Brief says of the cover: what it is, and what would go as well.

    >>> from dataclasses import replace
    >>> names = ("soft wrap", "no cover", "case")
    >>> first, bare, case = (Offer(label=name, changes=(), group=GROUP) for name in names)
    >>> in_words((replace(first, chosen=True), bare, replace(case, good=False)))
    'Covered by soft wrap; no cover would go with it too. 1 more take another binding along, under Cover.'
    """
    good = [offer.label for offer in offered if offer.good and not offer.chosen]
    own = next((offer.label for offer in offered if offer.chosen), "")
    also = f"; {' or '.join(good[:3])} would go with it too" if good else ""
    other = sum(not offer.good for offer in offered)
    return f"Covered by {own}{also}." * bool(own) + (
        f" {other} more take another binding along, under Cover." if other and own else ""
    )
