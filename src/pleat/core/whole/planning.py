"""The whole plan: the eight pleats worked out left to right, each from the book and what stands to its
left."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Any, Final

from pleat.core.base.errors import BadBook
from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Kind, Registry
from pleat.core.base.plan import Changes, Check, Piece, PleatResult
from pleat.core.base.takeable import takeable
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.labels import rule_of
from pleat.core.document.made_of import chosen
from pleat.core.materials.tools import NO_TOOLS, Tools
from pleat.core.pleats import unfit
from pleat.core.pleats.bench import compute as bench
from pleat.core.pleats.binding import suiting
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.binding.result import BindingResult, LeftOfBinding
from pleat.core.pleats.brief import compute as brief
from pleat.core.pleats.cover import suiting as covering
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.pleats.cover.result import CoverResult, LeftOfCover
from pleat.core.pleats.cutting import compute as cutting
from pleat.core.pleats.cutting import otherwise
from pleat.core.pleats.cutting.left import LeftOfCutting, TypedLength
from pleat.core.pleats.extras import compute as extras
from pleat.core.pleats.extras.base import LeftOfExtras
from pleat.core.pleats.pages.block import Block, LeftOfPages
from pleat.core.pleats.pages.kinds import BLOCKS
from pleat.core.pleats.paper import compute as paper
from pleat.core.whole.ways_out import Told, Trial

PLEATS: Final = ("brief", "paper", "pages", "extras", "binding", "cover", "cutting", "bench")
"""The pleats' names in the order of work."""
REGISTRIES: Final[tuple[Registry[Kind], ...]] = (BLOCKS, BINDINGS, COVERS)
"""What a kind of book is made of."""


@dataclass(frozen=True)
class Plan:
    """The results of the eight pleats."""

    brief: brief.BriefResult
    paper: paper.PaperResult
    pages: Block
    extras: extras.ExtrasResult
    binding: BindingResult
    cover: CoverResult
    cutting: cutting.CuttingResult
    bench: bench.BenchResult
    book: Book = field(compare=False, repr=False)
    """What it is the plan of."""
    untried: Plan | None = field(default=None, compare=False, repr=False)
    """The same with every offer that a pleat can think of by itself, from which the next plan starts."""

    def __iter__(self) -> Iterator[tuple[str, PleatResult]]:
        """(name, result) of each pleat, left to right."""
        return ((name, getattr(self, name)) for name in PLEATS)

    def __getitem__(self, name: str) -> PleatResult:
        """The result of the pleat of that name. Raises AttributeError for any other."""
        result: PleatResult = getattr(self, name)
        return result

    @property
    def checks(self) -> tuple[tuple[str, Check], ...]:
        """(pleat, check) for all checks, left to right."""
        return tuple((name, check) for name, result in self for check in result.checks)

    @property
    def parts(self) -> tuple[Piece, ...]:
        return tuple(part for _, result in self for part in result.parts)

    def changed_since(self, before: Plan) -> tuple[str, ...]:
        """The names of the pleats whose result differs from that in ``before``."""
        return tuple(name for name, result in self if result != getattr(before, name))


def make_plan(book: Book, tools: Tools = NO_TOOLS, before: Plan | None = None, *, rounds: int = 0) -> Plan:
    """The plan of ``book`` for a maker with these tools. Never raises for a valid Book: what cannot work
    becomes a check, and what a check offers is a way out.

    ``before`` is a plan of much the same book; what is as it was there is not worked out again. The plan is
    the same without it. Sheets are planned by so many ``rounds`` more than the first plan takes.
    """
    plan = worked_out(book, tools, before.untried if before else None, rounds=rounds)

    def taken(changes: Changes) -> tuple[Told, ...] | None:
        try:
            return worked_out(editing.apply(book, changes), tools, plan, rounds=rounds).checks
        except BadBook:
            return None

    trial = Trial(plan.checks, taken)
    sure: dict[str, Any] = {
        name: _with(result, tuple(trial.sure((name, check)) for check in result.checks))
        for name, result in plan
        if name != "bench"
    }
    return replace(plan, **sure, untried=plan)


def _with(result: PleatResult, checks: tuple[Check, ...]) -> PleatResult:
    return result if checks == result.checks else replace(result, checks=checks)


def worked_out(book: Book, tools: Tools = NO_TOOLS, before: Plan | None = None, *, rounds: int = 0) -> Plan:
    """The plan with all that its pleats offer, each by itself and not tried: for whoever asks for figures,
    pieces, checks or steps alone."""
    rules = partial(rule_of, book=book)
    brief_ = takeable(brief.compute(book.brief, chosen(book)), rules)
    sheets = before and brief_ == before.brief and book.paper == before.book.paper
    paper_ = before.paper if before and sheets else takeable(paper.compute(book.paper, brief_), rules)
    papers, typed = book.paper.papers, _typed(book)
    to_pages = LeftOfPages(brief_, paper_, papers)
    pages_ = (
        before.pages
        if before and sheets and book.pages == before.book.pages
        else takeable(_block(book, to_pages), rules)
    )
    extras_ = takeable(
        extras.compute(book.extras, LeftOfExtras(brief_, paper_, pages_), before.extras if before else None),
        rules,
    )
    to_binding = LeftOfBinding(brief_, paper_, papers, pages_, extras_, tools)
    binding_ = takeable(_binding(book, to_binding), rules)
    to_cover = LeftOfCover(brief_, paper_, papers, pages_, extras_, tools, binding_)
    cover_ = takeable(_cover(book, to_cover), rules)
    to_cutting = LeftOfCutting(brief_, paper_, papers, pages_, extras_, tools, binding_, cover_, typed)
    cutting_ = takeable(cutting.compute(book.cutting, to_cutting, rounds), rules)
    if book.brief.marks:
        made = worked_out(book.model_copy(update={"brief": book.brief.on(book.brief.marks)}), tools)
        so_far = [brief_, paper_, pages_, extras_, binding_, cover_, cutting_]
        told = otherwise.find(so_far, [one for _, one in made][:-1], brief_.ruler, made.brief.ruler)
        cutting_ = replace(cutting_, checks=(*cutting_.checks, *told))
    to_bench = bench.LeftOfBench(
        brief_,
        paper_,
        papers,
        pages_,
        extras_,
        tools,
        binding_,
        cover_,
        typed,
        cutting_,
    )
    bench_ = bench.compute(book.bench, to_bench)
    return Plan(brief_, paper_, pages_, extras_, binding_, cover_, cutting_, bench_, book)


def _block(book: Book, left: LeftOfPages) -> Block:
    kind, record = BLOCKS.of(book.pages)
    block = kind.compute(record, left)
    unknown = unfit.unknown(BLOCKS, book.pages)
    return replace(block, checks=(*unknown, *block.checks)) if unknown else block


def _binding(book: Book, left: LeftOfBinding) -> BindingResult:
    kind, record = BINDINGS.of(book.binding)
    if left.pages.unit not in kind.takes:
        result = unfit.binding(kind, BINDINGS, left)
        return replace(result, checks=(*unfit.unknown(BINDINGS, book.binding), *result.checks))
    result = kind.compute(record, left)
    proposed = suiting.proposals(BINDINGS, left)
    checks = (*unfit.unknown(BINDINGS, book.binding), *suiting.check(proposed, COVERS, left), *result.checks)
    return replace(result, checks=checks, offers=(*result.offers, *suiting.offers(proposed, COVERS, left)))


def _cover(book: Book, left: LeftOfCover) -> CoverResult:
    kind, record = COVERS.of(book.cover)
    result = kind.compute(record, left) if left.binding.at in kind.takes else unfit.cover(kind, COVERS, left)
    unknown = unfit.unknown(COVERS, book.cover)
    ways = (*result.offers, *covering.offers(COVERS, BINDINGS, left))
    return replace(result, checks=(*unknown, *result.checks), offers=ways)


def _typed(book: Book) -> tuple[TypedLength, ...]:
    """How the book's lengths were typed, with the bounds of their fields."""
    rules = ((path, text, rule_of(path)) for path, text in book.typed.items())
    return tuple(
        TypedLength(path, text, rule.low_mm, rule.high_mm)
        if isinstance(rule, LengthRule)
        else TypedLength(path, text, float("inf"), float("-inf"))
        for path, text, rule in rules
    )
