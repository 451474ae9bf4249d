"""What a check offers is tried before it is offered: taken, the check is gone and nothing new is in the way.

An offer that leads on to another stop is joined with what mends that, where one more change does. What is
only to be watched afterwards is said with it.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from pleat.core.base.plan import Changes, Check, Offer
from pleat.core.base.slips import LEVELS

Told = tuple[str, Check]
"""A check and the pleat that tells it."""
Taken = Callable[[Changes], Sequence[Told] | None]
"""All checks of the book once these changes are made; None where they cannot be."""
MOST_TRIED: Final = 16
"""Books that are tried for the offers of one; what is wrong with a book that asks for more is looked at once
the first is mended."""


@dataclass
class Trial:
    """The checks of a book, and what becomes of them."""

    checks: Sequence[Told]
    taken: Taken
    left: int = MOST_TRIED

    def sure(self, told: Told) -> Check:
        """The check with those of its offers that are ways out; without any it says what each would lead
        to."""
        pleat, check = told
        kept: list[Offer] = []
        led: list[str] = []
        for offer in check.offers:
            way, leads = self._way(pleat, check, offer)
            if way is not None:
                kept.append(way)
            elif leads:
                led.append(f"“{offer.label}” {leads}")
        if tuple(kept) == check.offers:
            return check
        return replace(
            check,
            offers=tuple(kept),
            no_fix=check.no_fix or ("" if kept else " ".join(dict.fromkeys(led)) or NO_WAY),
        )

    def _way(self, pleat: str, check: Check, offer: Offer, joined: bool = False) -> tuple[Offer | None, str]:
        """(the offer, or it joined with another change, as a way out; what is in the way of it in words)"""
        if (
            self.left <= 0
        ):  # what is left untried is offered as its pleat thought of it, but nothing is joined untried
            return None if joined else offer, ""
        self.left -= 1
        after = self.taken(offer.changes)
        if after is None:
            return None, ""
        stays, new = self._stays(pleat, check, offer, after), self._new("stop", after)
        if not stays and not new:
            watched = [one.title for _, one in self._new("watch", after)]
            return replace(
                offer, label=f"{offer.label}; then: {_inside(watched[0])}"
            ) if watched else offer, ""
        if not joined:
            for _, block in (*stays, *new)[:2]:
                for more in block.offers[:2]:
                    way, _ = self._way(pleat, check, _both(offer, more), joined=True)
                    if way is not None:
                        return way, ""
        return None, f"is not enough: {stays[0][1].title}" if stays else f"leads to: {new[0][1].title}"

    def _stays(self, pleat: str, check: Check, offer: Offer, after: Sequence[Told]) -> list[Told]:
        """The checks of its sort that are as bad as before, where they are no fewer; another leaf has to mend
        all of them."""

        def alike(checks: Sequence[Told]) -> list[Told]:
            worst = LEVELS.index(check.level)
            return [
                (name, one)
                for name, one in checks
                if name == pleat and one.key == check.key and LEVELS.index(one.level) <= worst
            ]

        there, leaf = alike(after), any(path.startswith("brief.leaf_") for path, _ in offer.changes)
        least = 1 if leaf else len(alike(self.checks))
        return there if len(there) >= least else []

    def _new(self, level: str, after: Sequence[Told]) -> list[Told]:
        """The checks of a level that were not there before."""
        known = Counter((name, one.key) for name, one in self.checks if one.level == level)
        found = []
        for name, check in after:
            if check.level == level:
                known[name, check.key] -= 1
                if known[name, check.key] < 0:
                    found.append((name, check))
        return found


def _both(first: Offer, more: Offer) -> Offer:
    """Two changes as one; where the second sets all that the first does, it is the second."""
    if {path for path, _ in first.changes} <= {path for path, _ in more.changes}:
        return more
    return Offer(
        label=f"{first.label}, and {more.label}",
        changes=(*first.changes, *more.changes),
        facts=first.facts,
        group=first.group,
    )


NO_WAY: Final = "Each way out that Pleat knows leads to something else that will not work."


def _inside(title: str) -> str:
    """A title within a sentence."""
    return f"{title[0].lower()}{title[1:].rstrip('.')}"
