"""Finding the grain: three tests by hand, and what their answers together say. Common practice, no source.

Bend: a sheet rolled over without creasing is softer when the roll's axis lies along the grain. Tear: paper
tears straight along the grain and ragged across it. Damp: a strip or corner made damp curls so that the
curl's axis lies along the grain.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

Side = Literal["long", "short"]
Sure = Literal["sure", "likely", "guess"]


@dataclass(frozen=True)
class GrainTest:
    """One test: what to do, what to look for, and what it costs the sheet."""

    key: str
    title: str
    do: str
    long: str
    short: str
    weight: int


TESTS: Final = (
    GrainTest(
        "bend",
        "Bend it",
        "Lay the sheet down, lift one edge over to the opposite one and press the loop lightly with a flat "
        "hand, without creasing. Then the other two edges.",
        "softer when the fold would run along the long side",
        "softer when the fold would run along the short side",
        2,
    ),
    GrainTest(
        "tear",
        "Tear it",
        "Tear a corner or an offcut once along each side. One tear runs straight, the other wanders.",
        "straighter along the long side",
        "straighter along the short side",
        2,
    ),
    GrainTest(
        "damp",
        "Damp a strip",
        "Cut a square offcut, mark the long side's direction on it, and breathe on it or damp one face. It "
        "curls into a tube; the tube lies along the grain. Let nothing you need get wet.",
        "the tube lies along the long side",
        "the tube lies along the short side",
        3,
    ),
)
_WEIGHTS: Final = {test.key: test.weight for test in TESTS}


@dataclass(frozen=True)
class GrainFound:
    """The grain as the tests have it, how sure that is, and why in words."""

    grain: Literal["long", "short", "unknown"]
    sure: Sure
    why: str


def conclude(answers: Mapping[str, tuple[Side, bool]]) -> GrainFound:
    """What the tests say: by test, the side and whether it was clear. Tests that disagree leave the grain
    unknown.

    >>> conclude({"bend": ("long", True), "tear": ("long", True)}).sure
    'sure'
    """
    points = {"long": 0, "short": 0}
    for test, (side, clear) in answers.items():
        points[side] += _WEIGHTS[test] if clear else 1
    best: Side = "long" if points["long"] >= points["short"] else "short"
    ahead = abs(points["long"] - points["short"])
    if not answers:
        return GrainFound("unknown", "guess", "No test was made yet.")
    if ahead == 0 or (min(points.values()) and ahead < 2):
        return GrainFound(
            "unknown",
            "guess",
            "The tests disagree. Try the damp strip: it is the clearest; or tear another offcut.",
        )
    sure: Sure = "likely" if ahead >= 2 else "guess"
    if ahead >= 4 or (ahead >= 3 and not min(points.values())):
        sure = "sure"
    s = "s" if len(answers) > 1 else ""
    how_many = f"{len(answers)} test{s}"
    return GrainFound(best, sure, f"{how_many}: along the {best} side, {_WORDS[sure]}.")


_WORDS: Final = {
    "sure": "and they are clear",
    "likely": "fairly clear; a second test would make sure",
    "guess": "but hardly to be seen; make a second test",
}
