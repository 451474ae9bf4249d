"""The command line: the plan and the schema as JSON, bad files named, and no acknowledged edit lost to
SIGKILL."""

from __future__ import annotations

import json
import re
import signal
import subprocess
import sys
from pathlib import Path

import pytest
from click.testing import CliRunner

from pleat.caliper.client import read_caliper
from pleat.cli import main
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.bookfile import book_schema, write_book
from pleat.core.document.recipes import recipe
from tests.process import Window, serve
from tests.profiles import LONG

ROOT = Path(__file__).parents[1]


def test_plan_prints_the_whole_plan(tmp_path):
    file = tmp_path / "book.json"
    file.write_text(write_book(Book()))
    result = CliRunner().invoke(main, ["plan", str(file)])
    plan = json.loads(result.output)
    assert list(plan) == [
        "plan_format",
        "brief",
        "paper",
        "pages",
        "extras",
        "binding",
        "cover",
        "cutting",
        "bench",
    ]
    assert plan["pages"]["pages"] == 40
    assert plan["pages"]["thickness"]["low"] < plan["pages"]["thickness"]["likely"]
    assert plan["binding"]["positions_mm"] == [38, 105, 172]
    assert plan["bench"]["steps"][0]["step"]["key"] == "gather"


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("{", "cannot be read as JSON"),
        ('{"brief": {"leaf_width_mm": 3}}', "brief.leaf_width_mm: 3 mm is too small"),
    ],
)
def test_plan_names_what_is_wrong_with_a_file(tmp_path, text, words):
    file = tmp_path / "book.json"
    file.write_text(text)
    result = CliRunner().invoke(main, ["plan", str(file)])
    assert result.exit_code == 2
    assert words in result.stderr


def test_schema_is_printed_and_the_one_in_the_docs_is_current():
    printed = json.loads(CliRunner().invoke(main, ["schema"]).output)
    assert printed == book_schema()
    assert json.loads((ROOT / "docs/book.schema.json").read_text()) == printed, (
        "run: pleat schema > docs/book.schema.json"
    )


def test_the_stand_in_and_the_server_say_where_they_are_and_when_a_port_is_taken(tmp_path):
    process = subprocess.Popen(
        [sys.executable, "-m", "pleat", "caliper-stand-in", "--port", "0", "--sheet", "0.2", "--noise", "0"],
        stdout=subprocess.PIPE,
        text=True,
        env={"PYTHONPATH": str(ROOT / "src"), "PYTHONUNBUFFERED": "1"},
    )
    try:
        address = re.search(r"127\.0\.0\.1:\d+", process.stdout.readline())[0]
        assert read_caliper(address, "stack of 10").mm == pytest.approx(2.0)
        port = address.rpartition(":")[2]
        for command in (
            ["caliper-stand-in", "--port", port],
            ["serve", "--port", port, "--database", str(tmp_path / "p.db")],
        ):
            taken = CliRunner().invoke(main, command)
            assert taken.exit_code == 1
            assert f"Port {port} is taken" in taken.output
    finally:
        process.kill()
        process.wait()
        process.stdout.close()


def test_no_acknowledged_edit_is_lost_when_the_server_is_killed(tmp_path):
    acknowledged = "3"
    for round_ in range(2 if LONG else 1):
        process, address = serve(tmp_path / "pleat.db")
        try:
            window = Window(address, 5)
            assert window.value("cover.square_mm") == acknowledged
            for number in range(8):
                acknowledged = f"{4 + round_ * 8 + number}"
                window.edit("cover.square_mm", acknowledged)
        finally:
            process.send_signal(signal.SIGKILL)
            process.wait()
    process, address = serve(tmp_path / "pleat.db")
    assert Window(address, 5).value("cover.square_mm") == acknowledged
    process.kill()
    process.wait()
    process.stdout.close()


def test_rounds_prove_what_the_first_plan_does_not(tmp_path):
    """Twelve zigzag books: the first plan of their folding card is not known to be the best; rounds say what
    is, and take no more."""
    book = editing.apply(recipe("zigzag").book(), [("brief.quantity", 12)])
    file = tmp_path / "twelve.pleat.json"
    file.write_text(write_book(book))
    run = [sys.executable, "-m", "pleat", "plan", str(file), "--rounds"]
    first, better = (
        json.loads(subprocess.run([*run, rounds], check=True, capture_output=True).stdout)["cutting"]["plans"]
        for rounds in ("0", "6")
    )  # the solver writes nothing of its own
    assert [own["needed"] for own in better] <= [own["needed"] for own in first]
    assert max(own["above"] for own in first) > 0
    assert max(own["above"] for own in better) < max(own["above"] for own in first)
