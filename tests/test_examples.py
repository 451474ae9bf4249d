"""The examples: each is the book its recipe describes, is planned by the command line, and can be worked."""

import json
from pathlib import Path

import pytest
from click.testing import CliRunner

from pleat import examples
from pleat.cli import main
from pleat.core.document.bookfile import read_book, write_book
from pleat.core.document.recipes import RECIPES
from pleat.core.whole.planning import make_plan
from tests.fits import FITS

ROOT = Path(__file__).parents[1]


@pytest.mark.parametrize("one", RECIPES, ids=lambda one: one.name)
def test_an_example_is_the_book_of_its_recipe_and_nothing_in_it_stops_the_work(one):
    text = examples.text(one.name)
    assert text == write_book(one.book()), (
        "run: pleat examples --into examples, after writing them anew from the recipes"
    )
    FITS.validate(json.loads(text))
    plan = make_plan(read_book(text))
    assert not [check.key for _, check in plan.checks if check.level == "stop"]
    assert one.fewest <= plan.pages.pages <= one.most
    for part in ("list", "steps", "checks", "cutting"):
        said = CliRunner().invoke(
            main, ["plan", str(ROOT / "examples" / f"{one.name}.pleat.json"), "--part", part]
        )
        assert said.exit_code == 0
        assert max(len(line) for line in said.output.splitlines()) <= 100


def test_the_examples_are_listed_and_written(tmp_path):
    said = CliRunner().invoke(main, ["examples", "--into", str(tmp_path / "books")])
    assert said.exit_code == 0
    assert all(one.title in said.output for one in RECIPES)
    assert sorted(path.name for path in (tmp_path / "books").iterdir()) == sorted(
        f"{one.name}.pleat.json" for one in RECIPES
    )


def test_a_book_written_by_hand_names_the_field_and_the_nearest_known_one(tmp_path):
    file = tmp_path / "book.json"
    file.write_text('{"binding": {"kind": "pamphlet", "tails_mm": 90}, "pages": {"amont": 3}}')
    said = CliRunner().invoke(main, ["plan", str(file)])
    assert said.exit_code == 2
    assert "binding.tails_mm" in said.stderr
    assert "Did you mean tail_mm?" in said.stderr
    assert "Did you mean amount?" in said.stderr
