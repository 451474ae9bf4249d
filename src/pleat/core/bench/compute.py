"""Bench: all steps in an order that works, which of them are done, and what was ticked too early (slip D1)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

from pleat.core.bench.record import Bench
from pleat.core.bench.steps import after_sewing, before_sewing
from pleat.core.binding.compute import BindingResult
from pleat.core.binding.kinds.registry import Sewing
from pleat.core.brief.compute import BriefResult
from pleat.core.cover.compute import CoverResult
from pleat.core.cutting.compute import CuttingResult
from pleat.core.pages.compute import PagesResult
from pleat.core.paper.compute import PaperResult
from pleat.core.plan import Check, Figure, Fix, PleatResult, Rule, Step, shortened
from pleat.core.words import lasting

THROUGH_COVER: Final = frozenset({"pierce", "sew"})
"""Steps that go through the cover and cannot be done before it is there."""


@dataclass(frozen=True)
class BenchStep:
    """A step with its place in the work: done or not, and whether its figures changed since it was ticked."""

    number: int
    step: Step
    done: bool
    changed: bool


@dataclass(frozen=True, kw_only=True)
class BenchResult(PleatResult):
    """The steps in order; ``current`` is the first one open, None when all are done."""

    steps: tuple[BenchStep, ...]
    current: BenchStep | None

    @property
    def idle(self) -> bool:
        return not any(step.done for step in self.steps)


def compute(
    bench: Bench,
    brief: BriefResult,
    paper: PaperResult,
    pages: PagesResult,
    binding: BindingResult,
    cover: CoverResult,
    cutting: CuttingResult,
) -> BenchResult:
    sewing = Sewing(
        path=binding.path,
        positions_mm=binding.positions_mm,
        cover_positions_mm=cover.holes_mm,
        thread_mm=binding.need.total_mm,
        thread_name=binding.thread_name,
        strands=binding.strands,
        tail_mm=binding.tail_mm,
        ruler=brief.ruler,
        sections=len(pages.sections),
        quantity=brief.quantity,
    )
    sewn = binding.kind.steps(sewing)
    each = f" Each of the {brief.quantity} books." if brief.quantity > 1 else ""
    order = in_order((*before_sewing(brief.ruler, paper, pages, cover, cutting), *sewn, *after_sewing(sewn[-1].key)))
    steps = tuple(
        BenchStep(
            number,
            step if step.for_all or not each else replace(step, detail=step.detail + each),
            step.key in bench.ticks,
            shortened(bench.ticks.get(step.key, step.signature)) != step.signature,
        )
        for number, step in enumerate(order, 1)
    )
    done = sum(step.done for step in steps)
    progress = Figure(
        key="done",
        label="steps done",
        value=f"{done} / {len(steps)}",
        show="text",
        how=f"{done} of {len(steps)} steps are ticked. Waiting times come to about {lasting(60 * round(sum(step.wait_minutes for step in order) / 60))}.",
        rules=(Rule("house rule", "waiting times; your paper may need longer"),),
    )
    current = next((step for step in steps if not step.done), None)
    return BenchResult(key_figure=progress, figures=(progress,), checks=_checks(steps, bench.ticks, binding), steps=steps, current=current)


def in_order(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """The steps so that each comes after all it names in ``after``, otherwise as given.

    Raises ValueError when a step waits for one that is not there, or two wait for each other.
    """
    placed: list[Step] = []
    waiting = list(steps)
    while waiting:
        done = {step.key for step in placed}
        ready = next((step for step in waiting if done.issuperset(step.after)), None)
        if ready is None:
            raise ValueError(f"these steps wait for each other or for one that is not there: {[step.key for step in waiting]}")
        placed.append(ready)
        waiting.remove(ready)
    return tuple(placed)


def _checks(steps: tuple[BenchStep, ...], ticks: Mapping[str, str], binding: BindingResult) -> tuple[Check, ...]:
    by_key = {one.step.key: one for one in steps}
    found = []
    early = [one for one in steps if one.done and one.step.key in THROUGH_COVER]
    if binding.kind.through_cover and early and not by_key["cover_on"].done:
        kept = {key: value for key, value in ticks.items() if key not in THROUGH_COVER}
        found.append(
            Check(
                "D1",
                "stop",
                f"“{early[0].step.title}” is ticked, but the cover is not round the section.",
                "This stitch goes through leaves and cover together. Sewn without it, the thread has to come out again: it is the classic mistake.",
                (
                    Fix("the cover is on, tick it", (("bench.ticks", {**ticks, "cover_on": by_key["cover_on"].step.signature}),)),
                    Fix("untick, and put the cover on", (("bench.ticks", kept),)),
                ),
            )
        )
    for one in steps:
        if one.changed:
            found.append(
                Check(
                    f"changed_{one.step.key}",
                    "watch",
                    f"“{one.step.title}” was ticked, and its figures have changed since.",
                    f"It now says: {one.step.detail}",
                    (
                        Fix("still right as it is", (("bench.ticks", {**ticks, one.step.key: one.step.signature}),)),
                        Fix("untick, to do it again", (("bench.ticks", {k: v for k, v in ticks.items() if k != one.step.key}),)),
                    ),
                )
            )
    return tuple(found)
