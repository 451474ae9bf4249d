"""A small book inside the book, or a bought refill in a clip: closed, it is one thick rectangle on its
page."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field

from pleat.core.base.cautions import AWL, GLUE
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, TextRule
from pleat.core.base.plan import Figure, Rule
from pleat.core.pleats.extras.base import Extra, ExtraKind, Face, Layer, LeftOfExtras, Thing, WorkWords


class Booklet(Extra):
    """Its closed size and thickness; ``book_id`` names another of the maker's own books, whose plan they
    follow, and ``title`` is that book's then."""

    kind: Literal["booklet"] = "booklet"
    book_id: int | None = Field(
        default=None, ge=1, le=2**31, description="another book of yours, by its number, that it is"
    )
    title: Annotated[str, TextRule("it is", 80)] = "booklet"
    width_mm: Annotated[float, LengthRule("closed, wide", 15, 600)] = 70.0
    height_mm: Annotated[float, LengthRule("closed, high", 15, 600)] = 100.0
    thick_mm: Annotated[float, LengthRule("closed, thick", 0.1, 80, fine=True)] = 3.0
    doubt_mm: Annotated[float, LengthRule("give or take", 0, 40, fine=True)] = 0.5
    way: Annotated[
        Literal["glued", "clip", "sewn"],
        ChoiceRule(
            "held by",
            (("glued", "its back cover, glued"), ("clip", "a clip"), ("sewn", "thread, through the page")),
        ),
    ] = "glued"


def compute(record: Booklet, _key: str, _face: Face, _left: LeftOfExtras) -> Thing:
    """One thick rectangle."""
    thick, doubt = record.thick_mm, min(record.doubt_mm, record.thick_mm)
    closed = Estimate.ranged(
        thick - doubt, thick, thick + doubt, f"how thick the {record.title or 'booklet'} is"
    )
    flat = "Sew it through the page before the page is bound in." if record.way == "sewn" else ""
    fix = {
        "glued": "Glue its back cover to the page; leave its spine free, so that it opens.",
        "clip": "Fix the clip and hang it in.",
        "sewn": "",
    }[record.way]
    return Thing(
        title=record.title or "booklet",
        width_mm=record.width_mm,
        height_mm=record.height_mm,
        layers=(Layer(0.0, 0.0, record.width_mm, record.height_mm, closed),),
        figures=(
            Figure(
                key="closed",
                label="closed",
                value=closed,
                show="thin",
                how="As the plan of that book has it now." if record.book_id else "As you read or chose it.",
                rules=(
                    Rule("arithmetic", "that book's own plan")
                    if record.book_id
                    else Rule("chosen by you", "its thickness"),
                ),
            ),
        ),
        work=WorkWords(
            "",
            fix,
            flat=flat,
            tags=frozenset({"flat"}) if flat else frozenset({"glue"}),
            cautions=(AWL,) if flat else (GLUE,),
        ),
    )


KIND: Final = ExtraKind(
    name="booklet",
    title="booklet or refill",
    summary="Another book inside this one.",
    record=Booklet,
    compute=compute,
    group="things that stand up",
)
