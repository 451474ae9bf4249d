"""The room between two neighbours of a hinge: what it is made by itself, why, and when it is too small (slip
F5)."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.pleats.binding.hinged.record import Hinge
from pleat.core.trade.folding import GUSSET_SPARE_SHARE


@dataclass(frozen=True)
class Between:
    """What lies between two neighbours in mm, the size that was typed for it if any, the name of its field,
    what it is called, one and several, and between what it is."""

    need: float
    typed: float | None
    path: str
    one: str
    more: str
    neighbours: str

    def size(self, ruler: Ruler) -> float:
        """As it was typed, else for what lies there and a tenth more."""
        return self.proposed(ruler) if self.typed is None else self.typed

    def proposed(self, ruler: Ruler) -> float:
        return max(ruler.snap_up(self.need * (1 + GUSSET_SPARE_SHARE)), ruler.step_mm)

    def figure(self, label: str, made_of: str, ruler: Ruler) -> Figure:
        """The size with its why; ``made_of`` says what lies there."""
        chosen = (
            " You chose it."
            if self.typed is not None
            else f" With {GUSSET_SPARE_SHARE:.0%} to spare, up to the ruler's next mark."
        )
        return Figure(
            key=self.one,
            label=label,
            value=self.size(ruler),
            show="length",
            how=f"{made_of}: {ruler.thin(self.need)}.{chosen}",
            rules=(
                Rule("arithmetic", f"what lies between {self.neighbours}"),
                Rule("GUSSET_SPARE_SHARE", "a tenth more, no source"),
            ),
            scrap=ruler.show(self.size(ruler)),
        )

    def check(self, hinge: Hinge, ruler: Ruler) -> Check | None:
        """F5: narrower than what lies there, so that the album gapes."""
        if self.typed is None or self.typed >= self.need - ruler.step_mm / 2:
            return None
        gapes = max(hinge.count - 1, 1) * (self.need - self.typed)
        return Check(
            code="F5",
            level="stop",
            title=f"A {self.one} of {ruler.show(self.typed)} is too small: {ruler.thin(self.need)} lie "
            f"between {self.neighbours}.",
            why=f"{hinge.count} leaves of {ruler.thin(hinge.leaf.likely)} push the album open at the fore "
            f"edge: it gapes by {ruler.thin(gapes)}.",
            offers=(
                Offer(
                    label=f"{self.more} of {ruler.show(self.proposed(ruler))}", changes=((self.path, None),)
                ),
            ),
        )
