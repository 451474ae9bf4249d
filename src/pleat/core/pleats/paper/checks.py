"""What can go wrong before a sheet is folded: papers that are not known well enough, and pounds read in the
wrong grade (slip B8)."""

from __future__ import annotations

from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import NumberRule, rule_on
from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.materials.items import Board, Paper
from pleat.core.materials.thickness import Thickness, weighed
from pleat.core.materials.weights import BULK_CM3_PER_G, grammage_of, pounds_in_every_grade

NO_GRADE: Final = "That weight makes a paper in none of them: read it off the packet again."
GUESSED: Final = {"name": "only its name", "nothing": "nothing"}


def find(role: str, paper: Paper, thick: Thickness, ruler: Ruler) -> tuple[Check, ...]:
    """Every check of one paper that has something to say; ``role`` is ``leaf`` or ``cover``."""
    found = [
        _unknown(role, paper, thick, ruler),
        _readings(role, paper, thick),
        _grade(role, paper, thick, ruler),
        _wrong_weight(role, paper, thick, ruler),
        _grain(role, paper),
    ]
    return tuple(check for check in found if check)


def of_board(role: str, board: Board) -> tuple[Check, ...]:
    """What can go wrong with a board before it is cut: its grain is not known."""
    if board.grain != "unknown":
        return ()
    return (
        Check(
            code="grain",
            of=role,
            level="note",
            title=f"The grain of {board.name} is not known.",
            why="Boards bend along their grain and warp across it; with the grain along the spine the cover "
            "stays flat.",
            no_fix="Bend the sheet both ways: the grain runs along the softer roll. Then say so here.",
        ),
    )


def grade_fixes(role: str, pounds: float) -> tuple[tuple[str, float, Offer], ...]:
    """(grade, g/m2, the fix that chooses it) for each grade the pounds may be in and that makes a paper at
    all."""
    chosen = []
    weight = rule_on(Paper.model_fields["grammage"])
    assert isinstance(weight, NumberRule)
    for grade in pounds_in_every_grade(pounds):
        grammage = grammage_of(pounds, grade)
        if not weight.low <= grammage <= weight.high:
            continue
        changes = ((f"paper.{role}.grade", grade), (f"paper.{role}.grammage", grammage))
        chosen.append((grade, grammage, Offer(label=f"{grade}: {grammage:.0f} g/m²", changes=changes)))
    return tuple(chosen)


def _unknown(role: str, paper: Paper, thick: Thickness, ruler: Ruler) -> Check | None:
    if thick.source not in GUESSED:
        return None
    return Check(
        code="unknown",
        of=role,
        level="watch",
        title=f"Of {paper.name}, {GUESSED[thick.source]} is known: one sheet is "
        f"{ruler.between(thick.sheet.low, thick.sheet.high, Ruler.fine)}.",
        why=f"Spine and cover follow from it. {thick.how}",
        no_fix="Type its weight from the packet, or measure ten sheets together.",
    )


def _readings(role: str, paper: Paper, thick: Thickness) -> Check | None:
    if thick.judged is None or not thick.judged.problem:
        return None
    return Check(
        code="readings",
        of=role,
        level="watch",
        title=f"The readings of {paper.name} cannot be used.",
        why=thick.judged.problem,
        offers=(Offer(label="clear the readings", changes=((f"paper.{role}.readings_mm", []),)),),
    )


def _grade(role: str, paper: Paper, thick: Thickness, ruler: Ruler) -> Check | None:
    """B8, asked: pounds without their grade."""
    if paper.pounds is None or paper.grade is not None or paper.grammage is not None:
        return None
    if thick.source == "measured":
        fits = [
            f"{grade} ({grammage:.0f} g/m²)"
            for grade, grammage, _ in grade_fixes(role, paper.pounds)
            if _agrees(paper, grammage, thick.sheet)
        ]
        title = (
            f"{paper.pounds:g} lb has no grade; measured as it is, it fits "
            f"{' or '.join(fits) or 'none of them'}."
        )
    else:
        title = (
            f"{paper.pounds:g} lb means little without the grade: "
            f"{ruler.between(thick.sheet.low, thick.sheet.high, Ruler.fine)} a sheet."
        )
    fixes = tuple(fix for _, _, fix in grade_fixes(role, paper.pounds))
    return Check(
        code="grade",
        of=role,
        level="note" if thick.source == "measured" else "watch",
        title=title,
        why="Pounds are weighed on another sheet size in each grade, so the same number may be twice as "
        "heavy. Look for bond, text, cover, index, bristol or tag on the packet.",
        offers=fixes,
        no_fix="" if fixes else NO_GRADE,
    )


def _wrong_weight(role: str, paper: Paper, thick: Thickness, ruler: Ruler) -> Check | None:
    """B8, found out: what was measured does not go with the weight, but would in another grade."""
    by_weight = weighed(paper)
    if (
        thick.source != "measured"
        or by_weight is None
        or paper.grammage is None
        or _agrees(paper, paper.grammage, thick.sheet)
    ):
        return None
    pounds = paper.pounds
    others = (
        []
        if pounds is None
        else [
            (grade, Offer(label=f"the {role} paper is {fix.label}", changes=fix.changes))
            for grade, grammage, fix in grade_fixes(role, pounds)
            if grade != paper.grade and _agrees(paper, grammage, thick.sheet)
        ]
    )
    said = f"{pounds:g} lb {paper.grade}" if pounds and paper.grade else f"{paper.grammage:g} g/m²"
    fit = f" As {others[0][0]} it would fit." if others else ""
    return Check(
        code="B8" if pounds else "weight",
        of="" if pounds else role,
        level="watch" if pounds else "note",
        title=f"{paper.name} measures {ruler.fine(thick.sheet.likely)}, but {said} should be "
        f"{ruler.between(by_weight.low, by_weight.high, Ruler.fine)}.{fit}",
        why="The measured thickness is used; the weight only matters for what the paper is called and costs."
        if not pounds
        else "The weight was probably read in the wrong grade. The measured thickness is used all the same.",
        offers=tuple(fix for _, fix in others)
        or (
            Offer(
                label=f"forget the {role} paper's weight",
                changes=tuple((f"paper.{role}.{name}", None) for name in ("grammage", "pounds", "grade")),
            ),
        ),
    )


def _agrees(paper: Paper, grammage: float, sheet: Estimate) -> bool:
    """Whether a measured sheet can be of that weight, with a little more room than the bulk's span has."""
    low, high = BULK_CM3_PER_G[paper.kind]
    return grammage * low * 0.94 / 1000 <= sheet.high and sheet.low <= grammage * high * 1.06 / 1000


def _grain(role: str, paper: Paper) -> Check | None:
    if paper.grain == "unknown":
        return Check(
            code="grain",
            of=role,
            level="note",
            title=f"The grain of {paper.name} is not known.",
            why="Leaves and covers fold and drape along the grain; across it folds crack and boards warp.",
            no_fix="Bend the sheet both ways without creasing it: the grain runs along the softer roll. Then "
            "tick it here.",
        )
    if paper.grain_sure == "guess":
        return Check(
            code="grain",
            of=role,
            level="note",
            title=f"The grain of {paper.name} is only a guess.",
            why="Leaves and covers fold and drape along the grain; across it folds crack and boards warp.",
            offers=(Offer(label="I am sure of it", changes=((f"paper.{role}.grain_sure", "sure"),)),),
        )
    return None
