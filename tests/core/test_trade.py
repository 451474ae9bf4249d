"""The numbers of the trade: each stands once, in one table, and what a figure says of one is what it is."""

from __future__ import annotations

import ast
import itertools
import re
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import pytest

from pleat.core import trade
from pleat.core.base.plan import Rule
from pleat.core.document.bookfile import read_book
from pleat.core.trade.number import number
from pleat.core.trade.rules import RULES
from pleat.core.whole.planning import worked_out
from pleat.examples import names, text
from tools import tables

CORE = Path(trade.__file__).parents[1]
PLACED = {"PITCHES", "KNOWN_BY_NAME", "NEEDLES", "PHOTOS", "BULKS", "LIFT_MM"}
"""Tables of words, or of how something is drawn, that stand beside what reads them; rules name them by
``trade.rules``."""


def constants() -> Iterator[tuple[Path, str, str]]:
    """(module, name, docstring) of the module constants of the core that have a docstring."""
    for path in CORE.rglob("*.py"):
        body = ast.parse(path.read_text()).body
        for node, after in itertools.pairwise(body):
            if (
                isinstance(node, ast.AnnAssign)
                and isinstance(node.target, ast.Name)
                and isinstance(after, ast.Expr)
            ):
                yield path, node.target.id, ast.unparse(after)


def test_a_number_that_is_practice_or_a_house_rule_stands_in_a_table_of_the_trade():
    for path, name, said in constants():
        if (
            re.search("house rule|common practice|from memory", said)
            and name.isupper()
            and not name.startswith("_")
        ):
            assert name in PLACED, f"{path.relative_to(CORE)}: {name}"


def test_a_number_has_one_name_and_no_other_constant_has_it():
    named = Counter(
        target.id
        for path in CORE.rglob("*.py")
        for node in ast.parse(path.read_text()).body
        if isinstance(node, ast.AnnAssign | ast.Assign)
        for target in (node.targets if isinstance(node, ast.Assign) else [node.target])
        if isinstance(target, ast.Name)
    )
    assert {name: named[name] for name in trade.NUMBERS if named[name] != 1} == {}
    assert {row.name: row.name for row in trade.NUMBERS.values()} == {
        name: name for subject in tables.SUBJECTS for name in vars(subject) if name in trade.NUMBERS
    }
    with pytest.raises(ValueError, match="two numbers of the name TIP_MM"):
        number("TIP_MM", 1.0, "mm", "house rule", "twice")


def rules() -> Iterator[Rule]:
    for example in names():
        for _, result in worked_out(read_book(text(example))):
            yield from (rule for figure in result.figures for rule in figure.rules)


def test_every_rule_of_a_figure_leads_to_a_line_of_the_page():
    page = tables.SOURCES.read_text()
    assert page == tables.sources()
    for rule in rules():
        assert f"| `{rule.source}` |" in page
    with pytest.raises(KeyError):
        Rule("moonlight", "there is none")


def test_a_number_in_a_rule_is_the_number_of_its_table():
    """Alone it is the same; a range that is said of a practice holds it."""
    for rule in {rule for rule in rules() if rule.source in trade.NUMBERS}:
        row = trade.NUMBERS[rule.source]
        said = [float(one) for one in re.findall(r"\d+(?:\.\d+)?", re.sub(r"\d+/\d+", "", rule.text))]
        if not said or not isinstance(row.value, float | int):
            continue
        values = (
            row.value,
            100 * row.value,
            100 - 100 * row.value,
            row.value / 1000,
        )  # as it is, in per cent, what is missing to 100, in metres
        assert any(min(said) <= value <= max(said) for value in values), rule


def test_sources_that_are_published_say_what():
    assert all(row.published for row in RULES.values() if row.origin == "standard")
