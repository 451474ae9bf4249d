"""Punching: how many lifts a stack takes, and how a punch with pins at a pitch is set so that no hole breaks
an edge. Lengths are mm."""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass


def lifts(sheets: int, caliper_mm: float, takes_mm: float) -> int:
    """How many lifts a stack takes, each a whole number of sheets; 0 where not even one sheet goes into the
    punch.

    >>> lifts(50, 0.13, 1.0)
    8
    """
    each = in_a_lift(caliper_mm, takes_mm)
    return math.ceil(sheets / each) if each else 0


def in_a_lift(caliper_mm: float, takes_mm: float) -> int:
    """Sheets that go into the punch at once."""
    return math.floor(takes_mm / caliper_mm + 1e-9)


@dataclass(frozen=True)
class Stroke:
    """One stroke: the paper's end lies ``stop_mm`` from the first pin (against the punch's side), these pins
    stay in (counted from 1), and its holes from the paper's head. ``on_last`` strokes are set with the last
    hole punched on the first pin."""

    stop_mm: float
    pins: tuple[int, ...]
    holes_mm: tuple[float, ...]
    on_last: bool = False


@dataclass(frozen=True)
class PitchPlan:
    """How a row of holes at a pitch is punched: stroke by stroke, and the pins to pull of the first one:
    those that touch paper outside the row."""

    strokes: tuple[Stroke, ...]
    pulled: tuple[int, ...]


def pitch_plan(
    edge_mm: float, positions: tuple[float, ...], pitch_mm: float, hole_mm: float, pins: int
) -> PitchPlan:
    """Strokes of a punch with so many pins for a row of holes at its pitch. The row lies where fewest pins
    have to be pulled; a longer one is punched on with its last hole on the first pin."""
    if not positions or pins < 2:
        return PitchPlan((), ())
    count = len(positions)
    if count <= pins:
        ways = []
        for before in range(pins - count + 1):
            stop = before * pitch_mm - positions[0]
            row = range(before + 1, before + count + 1)
            ends = -hole_mm / 2, edge_mm + hole_mm / 2
            ways.append(
                (
                    tuple(
                        pin
                        for pin in range(1, pins + 1)
                        if pin not in row and ends[0] < (pin - 1) * pitch_mm - stop < ends[1]
                    ),
                    stop,
                    tuple(row),
                )
            )
        pulled, stop, used = min(ways, key=lambda way: len(way[0]))
        return PitchPlan((Stroke(stop, used, positions),), pulled)
    strokes = [Stroke(-positions[0], tuple(range(1, pins + 1)), positions[:pins])]
    rest = positions[pins:]
    while rest:
        part, rest = rest[: pins - 1], rest[pins - 1 :]
        strokes.append(Stroke(0.0, tuple(range(2, len(part) + 2)), part, on_last=True))
    last = strokes[-1]
    beyond = edge_mm - last.holes_mm[-1] + hole_mm / 2
    free = range(len(last.pins) + 2, pins + 1)
    pulled = tuple(pin for number, pin in enumerate(free, 1) if number * pitch_mm < beyond)
    return PitchPlan(tuple(strokes), pulled)


def strokes_match(plan: PitchPlan, positions: tuple[float, ...]) -> bool:
    """Whether the strokes make exactly the holes of the row."""
    made = tuple(itertools.chain.from_iterable(stroke.holes_mm for stroke in plan.strokes))
    return made == positions
