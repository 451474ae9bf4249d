"""Held by nothing but its own folds and glue: a folded structure that is complete in itself."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.base.kinds import Member
from pleat.core.base.plan import Figure, Rule, Step, signature
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.pleats.structures.work import closing_words


class Itself(Member):
    """Pleat 5 for a folded structure: there is nothing to decide."""

    kind: Literal["itself"] = "itself"


def compute(_binding: Itself, left: LeftOfBinding) -> BindingResult:
    """Its own folds."""
    pages, ruler = left.pages, left.brief.ruler
    held = Figure(
        key="held",
        label="held by",
        value="its own folds",
        show="text",
        how="It is folded and glued from sheets; nothing is sewn or punched.",
        rules=(Rule("chosen by you", "a folded structure"),),
    )
    words = closing_words(pages.made, ruler) if isinstance(pages, FoldedBlock) else ""
    done = Step(
        key="book",
        title="Shut it for the first time",
        detail=f"{words} Slowly, and look into every gusset: what stands up there will press through the "
        "panel over it.",
        needs=pages.ready,
        gives=("book.bound",),
        fixes=("pages.*", "cover.*"),
        tags=frozenset({"shut"}),
        signature=signature(words),
        kind="fold",
    )
    return BindingResult(
        key_figure=held, figures=(held,), checks=(), steps=(done,), at="own", height_mm=pages.leaf_height_mm
    )


KIND: Final = BindingKind(
    name="itself",
    title="its own folds",
    summary="Folded and glued, it holds together by itself.",
    record=Itself,
    compute=compute,
    takes=frozenset({"folio"}),
    at="own",
)
