"""Strips by themselves: read back by other libraries, they are true to size and hold every hole."""

import io
from typing import Any
from xml.etree import ElementTree

import ezdxf
import pytest
from click.testing import CliRunner

from pleat import examples
from pleat.cli import main
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.planning import make_plan
from pleat.printing.card import TOLD, lines
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import print_sheets
from pleat.printing.templates import templates, to_dxf, to_svg
from tests.printing.test_every_page import words


@pytest.mark.every(3)
@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_a_strip_as_dxf_has_its_length_its_layers_and_every_hole(name):
    plan = make_plan(recipe(name).book())
    for key, strip in templates(plan).items():
        file = ezdxf.read(io.StringIO(to_dxf(strip)))
        assert not file.audit().errors
        assert file.header["$INSUNITS"] == 4, "mm"
        (outline,) = file.modelspace().query("LWPOLYLINE")
        corners = [(x, y) for x, y, *_ in outline.get_points()]
        assert max(y for _, y in corners) - min(y for _, y in corners) == pytest.approx(strip.length_mm)
        holes = sorted(
            (round(one.dxf.center.x, 4), round(one.dxf.center.y, 4))
            for one in file.modelspace().query("CIRCLE")
        )
        marks = [mark.at_mm for mark in strip.marks if mark.hole]
        assert holes == sorted(
            (round(x, 4), round(strip.length_mm - at, 4)) for x in strip.rows_mm for at in marks
        )
        if key in ("stations", "trough-guide", "spine-template"):
            square = plan.cover.square_head_mm
            assert marks == pytest.approx([at + square for at in plan.binding.positions_mm])


def test_the_spine_template_has_a_row_for_every_section_where_the_cover_has_it():
    plan = make_plan(recipe("longstitch").book())
    strip = templates(plan)["spine-template"]
    left = plan.cover.wrap.scores_mm[0] - strip.folded_mm[0]
    assert [left + row for row in strip.rows_mm] == pytest.approx(plan.cover.rows_mm)
    assert "spine-template" not in templates(make_plan(recipe("journal").book()))
    assert "spine-template" not in templates(make_plan(recipe("pleat").book())), "its holes lie in the pleat"


def test_a_strip_as_svg_is_true_to_size():
    strip = templates(make_plan(recipe("tapes").book()))["stations"]
    root = ElementTree.fromstring(to_svg(strip))
    assert float(root.get("height").removesuffix("mm")) == pytest.approx(strip.length_mm + 10)
    assert root.get("viewBox").split()[3] == root.get("height").removesuffix("mm")


@pytest.mark.every(3)
@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("name", ["longstitch", "link", "tapes", "eight", "ties"])
def test_the_step_card_tells_every_move_once_and_what_repeats(name, ruler, tmp_path):
    book = recipe(name).book()
    book = book.model_copy(update={"brief": book.brief.model_copy(update={"ruler": ruler})})
    plan: Any = make_plan(book)
    sheets = print_sheets(plan, book.title, "a4")
    pages = words(to_pdf(sheets, "x"), tmp_path)
    cards = [page for sheet, page in zip(sheets, pages, strict=True) if "step card" in sheet.title]
    text = " ".join(word for page in cards for word, *_ in page)
    assert "Begin" in text
    if plan.binding.rows > TOLD + 2:
        assert "in turn" in text
    told = lines(plan.binding, plan, 90.0)
    steps = [int(one.text) for block, _ in told for one in block if one.text.isdecimal()]
    moves = sum(len(thread) for thread in plan.binding.sewing.threads)
    assert steps[0] == 1
    assert steps[-1] == moves
    if plan.binding.rows <= TOLD + 2:
        assert steps == list(range(1, moves + 1))


def test_the_command_line_gives_a_strip_and_checks_a_stitch(tmp_path):
    file = tmp_path / "book.json"
    file.write_text(examples.text("longstitch"))
    run = CliRunner().invoke
    assert run(main, ["template", str(file), "--what", "spine-template"]).output.startswith("<svg")
    assert "SECTION" in run(main, ["template", str(file), "--as", "dxf"]).output
    assert "trough-guide" in run(main, ["template", str(file), "--what", "x"]).output
    stitch = tmp_path / "stitch.txt"
    for text, code, said in [
        ("2 in | 2 1 3 2 =over", 0, "it holds"),
        ("2 in | 2 1 1 2 =over", 1, "move 4: it goes back"),
        ("3 in | 3 1 4 2 =tail@3", 0, "look: it runs past hole 2"),
        ("nonsense", 1, "A thread begins"),
        ("1.1 out | 1 2 2.2 1 =tail", 0, "2 sections"),
    ]:
        stitch.write_text(text)
        found = run(main, ["stitch", "check", str(stitch)])
        assert (found.exit_code, said in found.output) == (code, True), found.output
    stitch.write_text("1.1 out | 1 2 2.2 1 =tail")
    assert run(main, ["stitch", "check", str(stitch), "--sections", "9"]).exit_code == 1
    stitch.write_bytes(b"\xff\xfe\x00")
    assert run(main, ["stitch", "check", str(stitch)]).exit_code == 1


def test_strips_go_out_of_the_browser_too(client):
    assert client.get("/books/1/templates/stations.svg").mimetype == "image/svg+xml"
    made = client.get("/books/1/templates/stations.dxf")
    assert made.mimetype == "image/vnd.dxf"
    assert ezdxf.read(io.StringIO(made.get_data(as_text=True))).header["$INSUNITS"] == 4
    assert client.get("/books/1/templates/none.dxf").status_code == 404
    assert client.get("/books/1/templates/stations.png").status_code == 404
    assert "templates/stations.svg" in client.get("/books/1/print").get_data(as_text=True)
