"""Bench: all steps in an order that works, which of them are done, and what was ticked before what it needs
(slips D1, E6, F3, F4, G1, G2)."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final, NamedTuple

from pleat.core.base.plan import Check, Figure, Offer, PleatResult, Rule, Step, shortened
from pleat.core.base.staged import looked
from pleat.core.base.words import by_count, lasting
from pleat.core.pleats.bench.order import in_order, waits_for
from pleat.core.pleats.bench.record import Bench
from pleat.core.pleats.cutting.compute import CuttingResult
from pleat.core.pleats.cutting.left import LeftOfCutting

FOLDED: Final = ("folio", "concertina", "pad")
"""What has no leaves that are held one by one."""
NAMED: Final = 3
"""Steps that a sentence names; of more it says how many."""


@dataclass(frozen=True)
class LeftOfBench(LeftOfCutting):
    """All the other pleats."""

    cutting: CuttingResult

    @property
    def steps(self) -> tuple[Step, ...]:
        """The steps of all pleats, and the last of all; where the order leaves a choice, those of the pleat
        named first come first."""
        pleats = (self.cutting, self.pages, self.extras, self.cover, self.binding)
        return (*(step for pleat in pleats for step in pleat.steps), self._last)

    @property
    def _last(self) -> Step:
        shut = "nothing stands out past the cover, " if self.cover.steps else ""
        filled = [state for step in self.extras.steps for state in step.gives]
        look = f", {shut}{self.binding.look}" if self.binding.look else shut and f", {shut.rstrip(', ')}"
        subject = "Everything" if self.pages.unit in FOLDED else "Every leaf"
        return Step(
            key="check",
            title="Open and close it",
            detail=f"{subject} held{look}. Note what you would change.",
            needs=("book.bound", *filled),
            gives=("book.done",),
            kind="tidy",
            shows=lambda: looked(
                self.cover.front_width_mm or self.pages.leaf_width_mm,
                self.cover.front_height_mm or self.pages.leaf_height_mm,
                max(self.cover.spine.likely, self.pages.thickness.likely),
                "leaf",
            ),
        )


@dataclass(frozen=True)
class BenchStep:
    """A step with its place in the work: done or not, and whether its figures changed since it was ticked."""

    number: int
    step: Step
    done: bool
    changed: bool


@dataclass(frozen=True, kw_only=True)
class BenchResult(PleatResult):
    """The steps in order; ``current`` is the first one open, None when all are done. ``waits`` are minutes,
    all waits added up."""

    work: tuple[BenchStep, ...]
    current: BenchStep | None
    waits: int

    @property
    def idle(self) -> bool:
        return not any(step.done for step in self.work)


def compute(bench: Bench, left: LeftOfBench) -> BenchResult:
    """The work at the bench, with what was ticked."""
    quantity = left.brief.quantity
    each = f" Each of the {quantity} books." if quantity > 1 else ""
    order = in_order(_whole(left))
    ticks = _Ticks.of(bench.ticks, order, left)
    work = tuple(
        BenchStep(
            number,
            step if step.for_all or not each else replace(step, detail=step.detail + each),
            step.key in ticks.done,
            shortened(ticks.done.get(step.key, step.signature)) != step.signature,
        )
        for number, step in enumerate(order, 1)
    )
    done, waits = sum(step.done for step in work), sum(step.wait_minutes for step in order)
    progress = Figure(
        key="done",
        label="steps done",
        value=f"{done} / {len(work)}",
        show="text",
        how=f"{done} of {len(work)} steps are ticked. Waiting times come to about "
        f"{lasting(60 * round(waits / 60))}.",
        rules=(Rule("waits", "waiting times; your paper may need longer"),),
    )
    return BenchResult(
        key_figure=progress,
        figures=(progress,),
        checks=(*_too_early(work, ticks), *_changed(work, ticks.kept)),
        work=work,
        current=next((step for step in work if not step.done), None),
        waits=waits,
    )


def _whole(left: LeftOfBench) -> list[Step]:
    """All steps: each with what it fixes by name, ``cover.*`` being what no other step of the cover's pieces
    does, and with what follows it at once."""
    steps = left.steps
    pleats = {"pages": left.pages, "extras": left.extras, "binding": left.binding, "cover": left.cover}
    every = [f"{name}.{piece.key}" for name, result in pleats.items() for piece in result.parts]
    named = {key for step in steps for key in step.fixes}
    keys = {step.key for step in steps}
    return [
        replace(
            step, fixes=_fixed(step, every, named), then=tuple(key for key in step.then if key in keys)[:1]
        )
        if step.fixes or step.then
        else step
        for step in steps
    ]


def _fixed(step: Step, every: Sequence[str], named: Collection[str]) -> tuple[str, ...]:
    words: list[str] = []
    for key in step.fixes:
        pleat = key.removesuffix("*")
        words += (
            [one for one in every if one.startswith(pleat) and one not in named]
            if key.endswith("*")
            else [key]
        )
    return tuple(words)


def ticked(ticks: Mapping[str, str], steps: Sequence[Step]) -> dict[str, str]:
    """The ticks as they are now, by the steps' keys: one that was made for several steps together stands for
    each of them."""
    whole = {
        step.key: step.signature
        for step in steps
        if step.was[0] in ticks and shortened(ticks[step.was[0]]) == step.was[1]
    }
    return {**ticks, **whole}


class _Ticks(NamedTuple):
    """The ticks by the steps' keys: ``kept`` in the book; ``done`` with the steps whose every piece was cut
    out, since sheets that were cut are facts of which no tick is kept; ``made`` by the maker, without those
    whose pieces only came out of a sheet with others."""

    kept: Mapping[str, str]
    done: Mapping[str, str]
    made: Collection[str]

    @classmethod
    def of(cls, ticks: Mapping[str, str], steps: Sequence[Step], left: LeftOfBench) -> _Ticks:
        kept, out = ticked(ticks, steps), left.cutting.out
        cut = {step.key: step.signature for step in steps if step.cuts and out.issuperset(step.cuts)}
        by_tick = {fact.step for fact in left.tools.shelf.cut}
        return cls(kept, {**kept, **cut}, {*kept, *(by_tick & cut.keys())})


def _too_early(work: Sequence[BenchStep], ticks: _Ticks) -> list[Check]:
    """Steps that are ticked before what they need: one check for each slip that has a name, and one for all
    others."""
    if not ticks.made:
        return []
    steps = {step.step.key: step.step for step in work}
    order = waits_for(tuple(steps.values()))
    early = {
        key: [first for first in order[key] if first not in ticks.done] for key in steps if key in ticks.made
    }
    named = {
        first: [key for key in early if first in early[key]] for first, step in steps.items() if step.missing
    }
    checks = [_slip(steps, first, keys, ticks.kept) for first, keys in named.items() if keys]
    others = {
        key: [first for first in firsts if not steps[first].missing]
        for key, firsts in early.items()
        if not steps[key].missing
    }
    if any(others.values()):
        checks.append(_out_of_order(steps, {key: firsts for key, firsts in others.items() if firsts}, ticks))
    return checks


def _slip(steps: Mapping[str, Step], first: str, early: Sequence[str], ticks: Mapping[str, str]) -> Check:
    missing = steps[first].missing
    assert missing is not None
    late = _all_after(steps, first)
    kept = {key: value for key, value in ticks.items() if key not in late}
    return Check(
        code=missing.slip,
        level="stop",
        title=f"“{steps[early[0]].title}” is ticked, but {missing.words}.",
        why=missing.why,
        offers=(
            Offer(label=missing.done, changes=(("bench.ticks", {**ticks, first: steps[first].signature}),)),
            *([Offer(label=missing.undo, changes=(("bench.ticks", kept),))] if kept != ticks else []),
        ),
    )


def _all_after(steps: Mapping[str, Step], first: str) -> set[str]:
    """Every step that waits for this one, or for one that does; of those that stay ticked after the rest is
    unticked, none would ask for it again."""
    order = waits_for(tuple(steps.values()))
    found: set[str] = set()
    for key in steps:
        if any(other == first or other in found for other in order[key]):
            found.add(key)
    return found


def _out_of_order(steps: Mapping[str, Step], early: Mapping[str, Sequence[str]], ticks: _Ticks) -> Check:
    """What is ticked although steps before it are not; ticking them too may show the next ones missing, so
    all are ticked at once."""
    order = waits_for(tuple(steps.values()))
    open_ = [first for firsts in early.values() for first in firsts]
    before: list[str] = []
    while open_:
        first = open_.pop()
        if first not in before and first not in ticks.done:
            before.append(first)
            open_ += order[first]
    unnamed = [key for key in steps if key in before and not steps[key].missing]
    listed = ", ".join(f"“{steps[key].title}”" for key in unnamed[:NAMED]) + (
        f" and {len(unnamed) - NAMED} more" if len(unnamed) > NAMED else ""
    )
    late = next(iter(early))
    rest = {key: mark for key, mark in ticks.kept.items() if key not in early}
    untick = Offer(label="untick what came too early", changes=(("bench.ticks", rest),))
    return Check(
        code="order",
        level="note",
        title=f"“{steps[late].title}” is ticked, and {listed} {by_count(len(unnamed), 'is', 'are')} not.",
        why="It comes after that. If you did it and only did not tick it, tick it now; else something may be "
        "missing.",
        offers=(
            Offer(
                label="all that is done, tick it",
                changes=(("bench.ticks", {**ticks.kept, **{key: steps[key].signature for key in unnamed}}),),
            ),
            *([untick] if rest != ticks.kept else []),
        ),
    )


def _changed(work: Sequence[BenchStep], ticks: Mapping[str, str]) -> list[Check]:
    """Steps whose figures are others than when they were ticked."""
    return [
        Check(
            code="changed",
            of=step.step.key,
            level="watch",
            title=f"“{step.step.title}” was ticked, and its figures have changed since.",
            why=f"It now says: {step.step.detail}",
            offers=(
                Offer(
                    label="still right as it is",
                    changes=(("bench.ticks", {**ticks, step.step.key: step.step.signature}),),
                ),
                Offer(
                    label="untick, to do it again",
                    changes=(("bench.ticks", {k: v for k, v in ticks.items() if k != step.step.key}),),
                ),
            ),
        )
        for step in work
        if step.changed
    ]
