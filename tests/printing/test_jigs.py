"""Jigs and pieces with holes on paper and as files: read back, in both rulers, and as pictures of the
page."""

from __future__ import annotations

import io
import re

import ezdxf
import pytest
from click.testing import CliRunner

from pleat.cli import main
from pleat.core.document import editing
from pleat.core.document.bookfile import write_book
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.planning import make_plan
from pleat.printing import templates
from pleat.printing.parts import part_rows
from pleat.printing.sheets import print_sheets
from pleat.printing.strips import strips_of

HELD = [one.name for one in RECIPES if chosen(one.book()).binding.at == "edge"]


def plan_of(name, *changes):
    return make_plan(editing.apply(recipe(name).book(), changes))


def circles(text):
    """(x, y from the top, width) of every circle of a DXF, the piece's lower left corner at 0."""
    space = ezdxf.read(io.StringIO(text)).modelspace()
    return sorted(
        (round(one.dxf.center.x, 3), round(one.dxf.center.y, 3), round(2 * one.dxf.radius, 3))
        for one in space
        if one.dxftype() == "CIRCLE"
    )


@pytest.mark.parametrize("name", HELD)
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_the_jig_for_a_cutter_has_every_hole_at_its_place_and_width(name, ruler):
    plan = plan_of(name, ("brief.ruler", ruler))
    result = plan.binding
    strip = templates.files(plan)["jig-for-the-leaves"]
    found = circles(templates.written(strip, "dxf"))
    wanted = sorted(
        (round(result.inset_mm, 3), round(result.edge_mm - at, 3), round(result.hole_mm, 3))
        for at in result.positions_mm
    )
    assert found == wanted
    svg = templates.written(strip, "svg")
    assert len(re.findall(r"<circle", svg)) == len(result.positions_mm)
    width = float(re.search(r'width="([\d.]+)mm"', svg)[1])
    assert width >= result.jig_mm + 10


@pytest.mark.parametrize("name", [name for name in HELD if recipe(name).book().cover.kind != "bare"])
def test_covers_for_a_cutter_are_mirrored_with_their_holes(name):
    plan = plan_of(name)
    files = templates.files(plan)
    back, front = (circles(templates.written(files[side], "dxf")) for side in ("back", "front"))
    wide, high = plan.cover.front_width_mm, plan.cover.front_height_mm
    if plan.binding.along == "head":
        mirrored = sorted((x, round(high - y, 3), width) for x, y, width in back)
    else:
        mirrored = sorted((round(wide - x, 3), y, width) for x, y, width in back)
    assert all(a == pytest.approx(b) for a, b in zip(mirrored, front, strict=True))
    assert len(front) == len(plan.binding.positions_mm)
    svg = templates.written(files["front"], "svg")
    assert len(re.findall(r"<circle", svg)) == len(front)


@pytest.mark.parametrize("name", HELD)
@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_pages_of_a_punched_book_hold_its_jigs_and_name_its_holes(name, ruler, paper):
    plan = plan_of(name, ("brief.ruler", ruler))
    pages = print_sheets(plan, "x", paper)
    assert any("true size" in page.title for page in pages)
    scored = [strip for strip in strips_of(plan.cover, plan) if strip.key.startswith("scores")]
    assert len(scored) == (2 if plan.brief.made_of.cover.name == "cards" else 0), "back and front, each once"
    rows = dict(part_rows(plan))
    end = "left" if plan.binding.along == "head" else "head"
    holes = rows[f"holes from the {end}"]
    assert holes.startswith(plan.brief.ruler.number(plan.binding.positions_mm[0]))
    assert holes.endswith("from the edge") or not plan.binding.inset_mm
    counted = [part for part in plan.binding.parts if part.name in rows]
    assert counted or name in ("filing", "planner"), "what holds the leaves stands in the part list"


@pytest.mark.parametrize("name", [*HELD, "sticks", "loop"])
def test_the_command_line_gives_the_figures_templates_and_checks(name, tmp_path):
    file = tmp_path / "book.json"
    file.write_text(write_book(recipe(name).book()))
    run = CliRunner().invoke
    listed = run(main, ["plan", str(file), "--part", "list"]).output
    steps = run(main, ["plan", str(file), "--part", "steps"]).output
    assert "leaves" in listed
    what = "stations" if name in ("sticks", "loop") else "jig-for-the-leaves"
    for form, begins in (("svg", "<svg"), ("dxf", "  0")):
        result = run(main, ["template", str(file), "--what", what, "--as", form])
        assert result.exit_code == 0, result.output
        assert result.output.startswith(begins)
    wrong = run(main, ["template", str(file), "--what", "nonsense", "--as", "svg"])
    assert wrong.exit_code != 0
    assert what in wrong.output
    if name not in ("sticks", "loop"):
        assert "check sheet" in steps
        assert "Careful" in steps


def test_a_row_on_a_long_edge_is_punched_in_strokes_that_say_so():
    plan = plan_of("wire", ("brief.leaf_height_mm", 400.0), ("binding.pins", 20))
    pitch = plan.binding.pitch
    assert len(pitch.strokes) == 3
    assert [stroke.on_last for stroke in pitch.strokes] == [False, True, True]
    stop = next(one for one in plan.binding.figures if one.key == "stop")
    assert "set the last hole over the first pin and punch on, 3 strokes in all" in stop.how
    assert sum(len(stroke.holes_mm) for stroke in pitch.strokes) == len(plan.binding.positions_mm)
