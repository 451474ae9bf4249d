"""A concertina held by its end panels: glued in by one or both, or left free in its wrap."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule
from pleat.core.base.kinds import End, Member, Suits, Traits
from pleat.core.base.plan import Figure, Rule, Step
from pleat.core.pleats.binding.kinds.zigzag import bound
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding

WORDS: Final = {
    "both": "both end panels",
    "back": "its last panel",
    "front": "its first panel",
    "free": "nothing: it lies free",
}


class Ends(Member):
    """Pleat 5 for a concertina: which of its ends are glued."""

    kind: Literal["ends"] = "ends"
    glued: Annotated[
        Literal["both", "back", "front", "free"],
        ChoiceRule(
            "glued in by",
            (
                ("both", "both ends"),
                ("back", "the last panel"),
                ("front", "the first panel"),
                ("free", "neither, it lies free"),
            ),
        ),
    ] = "back"

    @property
    def glued_ends(self) -> tuple[End, ...]:
        """The end panels whose outer face nobody sees."""
        ends: dict[str, tuple[End, ...]] = {
            "both": ("first", "last"),
            "front": ("first",),
            "back": ("last",),
            "free": (),
        }
        return ends[self.glued]


@dataclass(frozen=True, kw_only=True)
class EndsResult(BindingResult):
    """A concertina and which of its ends are glued."""

    panels: int
    first: bool
    last: bool


def compute(record: Ends, left: LeftOfBinding) -> EndsResult:
    """The ends, and what they mean for how it opens."""
    pages = left.pages
    opens = {
        "both": "Glued by both, it opens as a book and does not come out in one piece.",
        "back": "Glued by one end, it draws out to its full length.",
        "front": "Glued by one end, it draws out to its full length, from the front.",
        "free": "Free, it can be taken out and stood up; the wrap's flap keeps it in.",
    }[record.glued]
    held = Figure(
        key="held",
        label="held by",
        value=WORDS[record.glued],
        show="text",
        how=opens,
        rules=(Rule("chosen by you", "which ends are glued"),),
    )
    ready = pages.ready
    steps = [
        Step(
            key="concertina",
            title="Fold it to and fro",
            detail="Every fold pressed with the bone folder, edges level; then under weight overnight.",
            tools=("bone folder", "weight"),
            needs=ready,
            gives=("block.flat", "block.measured"),
            fixes=("pages.*", "binding.*"),
            wait_minutes=480,
            kind="fold",
            weights=True,
        )
    ]
    if not left.brief.made_of.cover.hung:
        glue = (
            "Lay it in, its first fold at the spine."
            if record.glued == "free"
            else f"Glue in {WORDS[record.glued]}, its fold at the spine's edge, all over and never past the "
            "fold."
        )
        steps.append(bound(glue))
    return EndsResult(
        key_figure=held,
        figures=(held,),
        checks=(),
        steps=tuple(steps),
        at="ends",
        height_mm=pages.leaf_height_mm,
        panels=max(pages.leaves, 2),
        first="first" in record.glued_ends,
        last="last" in record.glued_ends,
    )


KIND: Final = BindingKind(
    name="ends",
    title="end panels",
    summary="A concertina glued in by one end or both, or left free.",
    record=Ends,
    compute=compute,
    takes=frozenset({"concertina"}),
    at="ends",
    traits=Traits(glue=True),
    suits=Suits(
        fewest=1,
        most=1,
        good_to=1,
        thickest_mm=200.0,
        strength="firm",
        hard="first book",
        minutes=10,
        look="it draws out in one length",
    ),
)
