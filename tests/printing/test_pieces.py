"""Pieces of covers for a cutting machine: read back by other libraries they have the size, the cuts, the
scores and the glue of the plan."""

import io
import itertools
import re
from typing import Any
from xml.etree import ElementTree

import ezdxf
import pytest
from click.testing import CliRunner
from shapely import Polygon as Shape
from shapely.geometry import LineString

from pleat.cli import main
from pleat.core.document.bookfile import write_book
from pleat.core.document.recipes import recipe
from pleat.core.engines.folding.sheet import scores
from pleat.core.whole.planning import make_plan
from pleat.printing import pieces
from pleat.printing.covers import score_lists
from pleat.printing.templates import files, templates, title, written
from tests.core.pleats.cover.test_covers import HARD, LAID, book_of


@pytest.mark.parametrize("name", LAID)
def test_a_piece_as_dxf_is_cut_scored_and_glued_as_planned(name):
    plan = make_plan(recipe(name).book())
    for one in pieces.pieces(plan).values():
        file = ezdxf.read(io.StringIO(pieces.to_dxf(one)))
        assert not file.audit().errors
        assert (file.dxfversion, file.header["$INSUNITS"]) == ("AC1015", 4), "R2000, mm"
        width, height = one.piece.size_mm
        space = file.modelspace()
        cuts = [
            Shape([(x, y) for x, y, *_ in line.get_points()])
            for line in space.query('LWPOLYLINE[layer=="CUT"]')
        ]
        assert sum(shape.area for shape in cuts) == pytest.approx(one.piece.area_mm2, rel=1e-6)
        left, bottom, right, top = cuts[0].bounds
        assert (right - left, top - bottom) == pytest.approx((width, height), abs=1e-3)
        upright = {
            round(line.dxf.start.x, 3)
            for line in space.query('LINE[layer=="SCORE"]')
            if abs(line.dxf.start.x - line.dxf.end.x) < 1e-6
        }
        assert sorted(upright) == pytest.approx(list(scores(one.piece)), abs=1e-3)
        for line in space.query("LINE"):
            assert cuts[0].buffer(1e-3).contains(LineString([line.dxf.start.vec2, line.dxf.end.vec2]))
        glue = [
            Shape([(x, y) for x, y, *_ in line.get_points()])
            for line in space.query('LWPOLYLINE[layer=="GLUE"]')
        ]
        assert len(glue) == len([panel for panel in one.piece.panels if panel.name in one.piece.glued])
        assert all(cuts[0].buffer(1e-3).contains(shape) for shape in glue)
        assert not one.piece.glued or glue


@pytest.mark.parametrize("name", LAID)
def test_a_piece_as_svg_is_true_to_size(name):
    for one in pieces.pieces(make_plan(recipe(name).book())).values():
        root = ElementTree.fromstring(pieces.to_svg(one))
        assert float(root.get("width").removesuffix("mm")) == pytest.approx(
            one.piece.size_mm[0] + 10, abs=1e-2
        )
        cut = root.find(".//*[@id='CUT']")
        numbers = [float(number) for path in cut for number in re.findall(r"-?\d+\.\d+", path.get("d"))]
        assert max(numbers[::2]) - min(numbers[::2]) == pytest.approx(one.piece.size_mm[0], abs=1e-2)


@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("name", LAID)
def test_score_lists_run_from_one_edge_and_the_turned_one_mirrors_them(name, ruler):
    plan: Any = make_plan(book_of(name, ("brief.ruler", ruler)))
    strips = {strip.name: strip for strip in score_lists(plan.cover, plan)}
    for name_, flat in strips.items():
        other = name_.replace("from the head outside up", "from the head turned head over tail").replace(
            "outside up", "inside up"
        )
        turned = (
            flat
            if name_.endswith("either face up")
            else strips[other]
            if name_.endswith("outside up")
            else None
        )
        if turned is None:
            continue
        assert flat.length_mm == turned.length_mm
        assert [flat.length_mm - mark.at_mm for mark in reversed(flat.marks)] == pytest.approx(
            [mark.at_mm for mark in turned.marks]
        )
    names = [strip.name for _, result in plan for strip in templates(plan).values()]
    assert len(set(files(plan))) >= len(set(names)) > 0


@pytest.mark.parametrize("name", HARD)
def test_marks_on_the_covering_are_where_the_boards_lie(name):
    """The boards as they are laid, seen from the edge of the covering that is laid first: all of it, or of a
    quarter case the spine's."""
    plan: Any = make_plan(recipe(name).book())
    cover, strips = plan.cover, templates(plan)
    inside, outside = strips["marks-on-the-covering-inside"], strips["marks-on-the-covering-outside"]
    first = cover.laid[0]
    left, wide = (first.x_mm, first.piece.size_mm[0]) if name == "quarter" else (0.0, cover.shell.width)
    boards = [laid for laid in cover.laid if laid.piece.stock == "board"]
    edges = sorted(at for one in boards for at in (one.x_mm, one.x_mm + one.piece.size_mm[0]))
    on_it = [at - left for at in edges if left < at < left + wide]
    assert [mark.at_mm for mark in outside.marks] == pytest.approx(on_it)
    assert [mark.at_mm for mark in inside.marks] == pytest.approx([wide - at for at in reversed(on_it)])
    assert "front board" in inside.marks[0].text
    layout = strips["spine-layout"]
    at = [mark.at_mm for mark in layout.marks]
    assert [b - a for a, b in itertools.pairwise(at)] == pytest.approx(
        [cover.shell.joint, cover.shell.strip, cover.shell.joint]
    )


@pytest.mark.parametrize("form", ["svg", "dxf"])
def test_every_file_of_a_book_comes_out_of_the_command_line_under_its_name(form, tmp_path):
    for name in ("case", "sheath", "padcover"):
        file = tmp_path / f"{name}.json"
        file.write_text(write_book(recipe(name).book()))
        for key, one in files(make_plan(recipe(name).book())).items():
            result = CliRunner().invoke(main, ["template", str(file), "--what", key, "--as", form])
            assert result.exit_code == 0, result.output
            assert result.output.strip() == written(one, form).strip() or form == "dxf"
            assert title(one)
    missing = CliRunner().invoke(main, ["template", str(tmp_path / "case.json"), "--what", "roof"])
    assert "spine-strip" in missing.output
