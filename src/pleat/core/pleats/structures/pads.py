"""Papers from a pad for the faces: the designs one likes best where they show most, those liked least where
they are hidden."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated

from pydantic import Field

from pleat.core.base.fields import TextRule, Word
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.base.words import by_count, joined, many
from pleat.core.base.yields import both_ways
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.pleats.structures.cut import said, unnumbered
from pleat.core.pleats.structures.dressing import Dressed, Dressing
from pleat.core.pleats.structures.made import Made


class FromPad(Dressed):
    """What is decided of papers from a pad: ``given`` says which design a face has, by its name, ``liked``
    the numbers of the designs, the one liked best first."""

    given: dict[Word, Annotated[int, Field(ge=1, le=500)]] = Field(
        default_factory=dict, max_length=400, description="the design of each face"
    )
    liked: Annotated[str, TextRule("designs you like, best first", 120, required=False)] = ""


def order_of(liked: str, designs: int) -> tuple[int, ...]:
    """The designs from the one liked best; those that are not named come last.

    >>> order_of("3, 1", 4)
    (3, 1, 2, 4)
    """
    named = [
        int(word)
        for word in liked.replace(",", " ").replace(";", " ").split()
        if word.isdecimal() and len(word) < 4
    ]
    return tuple(dict.fromkeys([one for one in (*named, *range(1, designs + 1)) if 1 <= one <= designs]))


def assigned(dressings: Sequence[Dressing], liked: Sequence[int], papers_each: int) -> dict[str, int]:
    """A design for each face: the faces that show most get the designs liked best, each design as often as
    its sheets give; where the pad does not reach, the least seen faces share the design liked least.
    """
    ranked = sorted(dressings, key=lambda one: (-round(one.shown, 6), one.name))
    share = max(1, -(-len(ranked) // len(liked)))
    a_design = min(share, papers_each) if papers_each else share
    found = {}
    for number, dressing in enumerate(ranked):
        found[dressing.name] = liked[min(number // a_design, len(liked) - 1)]
    return found


def offers(record: FromPad, made: Made, stock: Stock) -> tuple[Offer, ...]:
    """One tap that gives every face its paper; none for a paper of one design."""
    if record.mats == "no" or stock.designs < 2 or not made.dressings:
        return ()
    found = assigned(made.dressings, order_of(record.liked, stock.designs), _each(made, stock))
    taken = (
        (Offer(label="take the papers back", changes=(("pages.given", {}),), group="papers"),)
        if record.given
        else ()
    )
    return (
        *(
            (
                Offer(
                    label=f"give all {len(found)} faces their papers",
                    changes=(("pages.given", found),),
                    group="papers",
                ),
            )
            if found != record.given
            else ()
        ),
        *taken,
    )


def _each(made: Made, stock: Stock) -> int:
    """How many papers one design gives: its sheets, each cut as many times as the largest paper comes out of
    it."""
    largest = max(made.dressings, key=lambda dressing: dressing.width_mm * dressing.height_mm)
    better, _ = both_ways(
        largest.width_mm,
        largest.height_mm,
        stock.usable_width_mm,
        stock.usable_height_mm,
        stock.grain,
        stock.upright_only,
    )
    return max(1, better.count) * stock.each


def figures(record: FromPad, made: Made, stock: Stock) -> tuple[Figure, ...]:
    """Which design each face has, and which papers go on the other way up."""
    there = {dressing.name: dressing for dressing in made.dressings}
    figures = []
    by_design: dict[int, list[str]] = {}
    for name, design in sorted(record.given.items(), key=lambda item: (item[1], item[0])):
        if name in there:
            by_design.setdefault(design, []).append(words(there[name]))
    if by_design:
        listed = "; ".join(f"design {design}: {joined(faces)}" for design, faces in by_design.items())
        figures.append(
            Figure(
                key="given",
                label="papers from the pad",
                value=many(len(by_design), "design"),
                show="text",
                how=f"{listed}. The faces that show most have the designs you like best.",
                rules=(Rule("arithmetic", "how much of a face shows, over all states"),),
                scrap=listed,
            )
        )
    if stock.upright_only and record.mats == "yes":
        turned = [
            (words(dressing), "on its head" if round(dressing.turn) == 180 else "on its side")
            for dressing in made.dressings
            if round(dressing.turn) % 360
        ]
        if turned:
            figures.append(
                Figure(
                    key="way_up",
                    label="papers put on turned",
                    value=f"{len(turned)} of {len(made.dressings)}",
                    show="text",
                    how=f"{stock.name} has a top. Where they show, these faces are turned; put the paper on "
                    f"so: {'; '.join(f'{name} {how}' for name, how in turned)}.",
                    rules=(Rule("arithmetic", "each face followed through the folds"),),
                )
            )
    return tuple(figures)


def words(dressing: Dressing) -> str:
    """A face in words."""
    side = "inside" if dressing.side == "A" else "outside"
    return f"{said(dressing.key)} {side}"


def checks(record: FromPad, made: Made, stock: Stock) -> tuple[Check, ...]:
    """A6: a paper for a face that is not there any more; and one design on more faces than its sheets
    give."""
    there = {dressing.name for dressing in made.dressings}
    gone = [name for name in record.given if name not in there]
    checks = []
    if gone and record.mats == "yes":
        kept = {name: design for name, design in record.given.items() if name in there}
        checks.append(
            Check(
                code="A6",
                level="watch",
                title=f"{many(len(gone), 'paper')} of the pad {by_count(len(gone), 'has', 'have')} no face "
                f"any more: {joined(unnumbered(one) for one in gone[:3])}.",
                why="The structure was changed after they were given; the face that carried them is gone or "
                "hidden.",
                offers=(
                    Offer(label="leave them out", changes=(("pages.given", kept),)),
                    *offers(record, made, stock)[:1],
                ),
            )
        )
    if record.given and made.dressings and stock.designs > 1:
        each = _each(made, stock)
        counts: Mapping[int, int] = {
            design: list(record.given.values()).count(design) for design in set(record.given.values())
        }
        over = max(counts, key=lambda design: counts[design])
        if counts[over] * made.copies > each:
            checks.append(
                Check(
                    code="owned_pad",
                    level="watch",
                    title=f"Design {over} is wanted for {counts[over] * made.copies} faces, its sheets give "
                    f"{each}.",
                    why=f"{many(stock.each, 'sheet')} of each of {stock.designs} designs in the pad.",
                    no_fix="Take another design for some of them, a smaller border's worth of paper, or a "
                    "second pad.",
                )
            )
    return tuple(checks)
