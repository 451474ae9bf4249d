"""What is decided of folded sheets in sections, of one paper or of a mixed pile."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, Record, Word
from pleat.core.base.kinds import Member
from pleat.core.base.yields import LIES, Lies

MOST_SECTIONS: Final = 60


class PileSheet(Record):
    """One sheet of a mixed pile, folded once: the key of its paper among the book's own, and the window cut
    into it.

    ``pinned`` sheets stay where they lie when the pile is arranged. A fold-out hangs on the fore edge of its
    second leaf, or of its only one. A window without sizes lies in the middle of the first leaf. ``lies``
    says which of the sheet's sides the spine goes along, ``narrow`` which leaf of a sheet that is not wide
    enough is the narrower one.
    """

    id: int = Field(ge=0, le=100000)
    paper: Word
    window: Annotated[
        Literal["no", "yes"], ChoiceRule("window", (("no", "no window"), ("yes", "has a window")))
    ] = "no"
    window_width_mm: Annotated[float, LengthRule("the window's width", 5, 600)] | None = None
    window_height_mm: Annotated[float, LengthRule("the window's height", 5, 600)] | None = None
    window_fore_mm: Annotated[float, LengthRule("the window from the fore edge", 0, 600)] | None = None
    window_head_mm: Annotated[float, LengthRule("the window from the head", 0, 600)] | None = None
    pinned: bool = False
    lies: Annotated[Lies, ChoiceRule("lies", LIES)] = "auto"
    narrow: Annotated[
        Literal["both", "first", "second"],
        ChoiceRule(
            "where it is narrower",
            (("both", "both leaves"), ("first", "the first leaf"), ("second", "the second leaf")),
        ),
    ] = "both"
    flap_mm: Annotated[float, LengthRule("the fold-out flap", 5, 600)] | None = None
    flap_panels: Annotated[int, NumberRule("the number of panels", 1, 6, "panels", whole=True)] = 1


class Sections(Member):
    """Pleat 3, how many leaves and how they lie. With sheets in ``pile`` the book is made of those, whatever
    the count says.

    ``order`` holds the pile's ids section by section, from the outside in; where it does not fit the pile,
    the sheets are dealt out.
    """

    kind: Literal["sections"] = "sections"
    amount: Annotated[int, NumberRule("the count", 1, 2000, whole=True)] = 40
    counted_in: Annotated[
        Literal["pages", "leaves", "folios", "unsaid"],
        ChoiceRule(
            "counted in",
            (("pages", "pages"), ("leaves", "leaves"), ("folios", "folded sheets"), ("unsaid", "not said")),
        ),
    ] = "pages"
    lay: Annotated[
        Literal["flat", "handled", "crumpled"],
        ChoiceRule(
            "how the paper lies",
            (("flat", "new and flat"), ("handled", "handled, dyed or painted"), ("crumpled", "crumpled")),
        ),
    ] = "flat"
    folds: Annotated[
        Literal[1, 2, 3],
        ChoiceRule("each sheet folded", (("1", "once"), ("2", "twice"), ("3", "three times"))),
    ] = 1
    edges: Annotated[
        Literal["slit", "trim"], ChoiceRule("edges", (("slit", "slit open"), ("trim", "trimmed")))
    ] = "slit"
    trim_mm: Annotated[float, LengthRule("the trim", 0.5, 20)] = 3.0
    sections: Annotated[int, NumberRule("sections", 1, MOST_SECTIONS, "sections", whole=True)] = 1
    creep: Annotated[
        Literal["leave", "trim", "narrow"],
        ChoiceRule(
            "the creep",
            (("leave", "left as it is"), ("trim", "trimmed off"), ("narrow", "inner sheets cut narrower")),
        ),
    ] = "leave"
    numbered: Annotated[
        Literal["no", "yes"], ChoiceRule("page numbers", (("no", "blank book"), ("yes", "numbered")))
    ] = "no"
    flap_mm: Annotated[float, LengthRule("the fold-out flap", 5, 600)] | None = None
    flap_panels: Annotated[int, NumberRule("the number of panels", 1, 6, "panels", whole=True)] = 1
    flap_on: Annotated[
        Literal["innermost", "every"],
        ChoiceRule("flap on", (("innermost", "the innermost sheet"), ("every", "every sheet"))),
    ] = "innermost"
    measured_block_mm: Annotated[float, LengthRule("the measured block", 0.1, 100)] | None = None
    pile: tuple[PileSheet, ...] = Field(default=(), max_length=400)
    order: tuple[tuple[int, ...], ...] = Field(default=(), max_length=MOST_SECTIONS)
    stubs: tuple[int, ...] = Field(
        default=(), max_length=400, description="sheets of the pile that are single leaves on a stub"
    )
    tipped: tuple[int, ...] = Field(
        default=(), max_length=400, description="sheets of the pile that are glued in at the gutter"
    )
    pairs: tuple[tuple[int, int], ...] = Field(
        default=(), max_length=200, description="sheets of the pile that should face each other"
    )

    @model_validator(mode="after")
    def _numbered_once(self) -> Sections:
        """Every sheet of the pile has a number of its own."""
        if len({sheet.id for sheet in self.pile}) != len(self.pile):
            raise PydanticCustomError("pile", "Two sheets of the pile have the same number.")
        return self
