"""What is said of structures: steps in the maker's words, each thing once; figures whose parts are those that
are cut; faces with the way up they stand."""

from __future__ import annotations

import re

import pytest

from pleat.core.base.plan import Part
from pleat.core.pleats.structures.cut import by_size, said, unnumbered
from pleat.web.folding import shows
from tests.core.pleats.structures.samples import FOLDED, every, plan_of

EVERY = every()
IDS = [f"{name} {texts}" for name, texts in EVERY]


@pytest.mark.every(2)
@pytest.mark.parametrize(("name", "texts"), EVERY, ids=IDS)
def test_steps_are_sentences_said_once_and_name_no_panel_by_its_number(name, texts):
    plan = plan_of(name, texts)
    steps = [one.step for one in plan.bench.work]
    assert len({step.key for step in steps}) == len(steps)
    for step in steps:
        assert step.title[0].isupper()
        assert not step.title.endswith(".")
        assert step.detail.endswith((".", "!")), step.detail
        assert "body" not in step.title + step.detail
        assert "  " not in step.detail
        assert not re.search(r"\bthe the\b|\bof of\b|\b1 times\b|\(\)", step.title + step.detail)
    glued = [step for step in steps if step.title.startswith(("Glue", "Tuck"))]
    assert len({step.title for step in glued}) == len(glued), "what is done alike is said once"
    for step in glued:
        if step.key.startswith(("folio_join", "page_join")) and step.title.startswith("Glue"):
            assert step.cautions
            assert "never the fold" in step.detail


@pytest.mark.every(4)
@pytest.mark.parametrize(("name", "texts"), EVERY, ids=IDS)
@pytest.mark.parametrize("quantity", ["1", "3"])
def test_papers_are_cut_as_often_as_there_are_faces(name, texts, quantity):
    plan = plan_of(name, {**texts, "brief.quantity": quantity})
    made = plan.pages.made
    papers = {
        part.key: part
        for part in plan.pages.parts
        if isinstance(part, Part) and part.key.startswith("paper_")
    }
    mats = texts.get("pages.mats") or ("no" if name in ("bagfolio", "pocketpages") else "yes")
    if mats == "no":
        assert not papers
        return
    faces = len(made.dressings) * made.copies * int(quantity)
    assert sum(part.count for part in papers.values()) == faces
    for letter, (size, on) in by_size(made.dressings, plan.brief.ruler).items():
        part = papers[f"paper_{letter}"]
        assert (part.width_mm, part.height_mm) == size
        assert part.count == len(on) * made.copies * int(quantity)
    largest = [part.width_mm * part.height_mm for part in papers.values()]
    assert largest == sorted(largest, reverse=True)


@pytest.mark.parametrize("name", FOLDED)
def test_every_piece_is_cut_as_often_as_it_is_there(name):
    """Panels counted in the programme against those of the parts."""
    plan = plan_of(name, {"brief.quantity": "2"})
    made = plan.pages.made
    there = (
        sum(piece.area_mm2 for piece in made.programme.pieces if not piece.rigid and piece.stock != "offcut")
        * made.copies
        * 2
    )
    flats = {flat.name: flat.piece for flat in plan.pages.flats}
    cut = sum(
        flats[part.key].area_mm2 * part.count
        for part in plan.pages.parts
        if isinstance(part, Part) and part.key in flats
    )
    assert cut == pytest.approx(there)


def test_faces_are_told_with_the_way_up_they_stand():
    found = dict(shows(plan_of("crossfold", {"pages.mats": "no", "pages.photo": "none"}).pages.made.worked))
    assert (
        found["open"] == "head (inside), left (inside), middle (inside), right (inside) and tail (inside)"
        or "middle (inside)" in found["open"]
    )
    assert "tail (outside, on its head)" in found["tail"]
    assert "gusset" not in " ".join(found.values())
    assert found["right"] == "right (outside)"
    album = shows(plan_of("hills").binding.made.worked)
    assert (
        dict(album)["leaf 3 turned"] == "leaf 4 (its front) and leaf 3 (its back)"
        or "leaf 3 (its back)" in dict(album)["leaf 3 turned"]
    )


def test_panels_in_words():
    assert said(("folder", "back, pocket")) == "pocket of the back"
    assert said(("bag", "left tab, front")) == "left tab of the front"
    assert unnumbered("front 3 of the folder 3") == "front of the folder"


def test_the_other_way_of_cutting_a_concertina_says_how_its_folds_lie_to_the_grain():
    """Six panels of 165.1 × 114.3 from A4 with its grain along the short side: one strip a sheet along the
    long side, two along the short one, but across the grain."""
    plan = plan_of(
        "concertina", {"brief.leaf_width_mm": "165.1", "brief.leaf_height_mm": "114.3", "pages.amount": "6"}
    )
    card = plan.paper.stock("card")
    chosen = next(one for one in plan.pages.figures if one.key == "strips")
    other = next(one for one in plan.pages.offers if one.group == "cut")
    lies = {"folds along the grain", "folds across the grain"}
    assert card.grain is not None
    said = [next(words for words in lies if words in text) for text in (chosen.how, other.label)]
    assert said == ["folds along the grain", "folds across the grain"]
