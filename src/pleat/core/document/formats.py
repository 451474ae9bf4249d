"""Book files of older formats: one step a format, from plain data to plain data, chained up to the present
one.

What is not as expected is left as it is, for validation to name. A step is never changed once files of its
format are about.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final

from pydantic import ValidationError

from pleat.core.materials.items import Board, Paper
from pleat.core.materials.thickness import thickness
from pleat.core.pleats.binding.kinds.own import closed

Data = dict[str, Any]


def upgraded(data: Data) -> Data:
    """Plain data of a book of any format as the present one."""
    made_by = data.get("format")
    if isinstance(made_by, bool) or not isinstance(made_by, int) or not 1 <= made_by <= len(_STEPS):
        return data
    for step in _STEPS[made_by - 1 :]:
        data = step(data)
    return {**data, "format": len(_STEPS) + 1}


def upgraded_paper(paper: Data) -> Data:
    """A paper of format 1, among the materials or in a book: its one reading becomes the first of several."""
    measured = paper.get("measured_mm")
    rest = {name: value for name, value in paper.items() if name != "measured_mm"}
    return rest if measured is None else {**rest, "readings_mm": [measured]}


def _several_readings(data: Data) -> Data:
    """1 to 2: a paper holds several readings of its stack."""
    papers = data.get("paper")
    if not isinstance(papers, dict):
        return data
    return {
        **data,
        "paper": {
            role: upgraded_paper(paper) if isinstance(paper, dict) else paper
            for role, paper in papers.items()
        },
    }


def _as_it_was(data: Data) -> Data:
    """2 to 3 added fold-outs of a pile's sheets, 3 to 4 which way round pieces lie and where windows are, 7
    to 8 single leaves and what holds them, 8 to 9 folded structures, 9 to 10 what is put in, 11 to 12
    pieces that lie either way and offcuts that stay whole: nothing was renamed."""
    return data


def _members(data: Data) -> Data:
    """4 to 5: pages, binding and cover name their member; a pile's sheets point to their papers; cutting is
    by stock."""
    brief, binding, cutting = data.get("brief"), data.get("binding", {}), data.get("cutting")
    data = {**data}
    if isinstance(brief, dict) and "kind" in brief:
        data["brief"] = {name: value for name, value in brief.items() if name != "kind"}
        data["binding"] = {**binding, "kind": brief["kind"]} if isinstance(binding, dict) else binding
    if isinstance(cutting, dict):
        data["cutting"] = _by_stock(cutting)
    return _pointing(data)


def _by_stock(cutting: Data) -> Data:
    rest = {name: value for name, value in cutting.items() if not name.endswith(("_leaf", "_cover", "_lies"))}
    counted = {key: cutting[f"counted_{key}"] for key in ("leaf", "cover") if f"counted_{key}" in cutting}
    lies = {key: cutting[f"{key}_lies"] for key in ("leaf", "cover") if f"{key}_lies" in cutting}
    return {**rest, **({"counted": counted} if counted else {}), **({"lies": lies} if lies else {})}


def _pointing(data: Data) -> Data:
    """Equal papers of a pile's sheets are stored once, under a key that the sheets name."""
    pages, papers = data.get("pages"), data.get("paper", {})
    if not isinstance(pages, dict) or not isinstance(papers, dict):
        return data
    pile = pages.get("pile")
    if not isinstance(pile, list) or not all(isinstance(one, dict) for one in pile):
        return data
    more: Data = {}
    sheets = []
    for sheet in pile:
        paper = sheet.get("paper")
        if not isinstance(paper, dict):
            sheets.append(sheet)
            continue
        key = next((key for key, one in more.items() if _same(one, paper)), f"p{len(more) + 1}")
        more.setdefault(key, paper)
        sheets.append({**sheet, "paper": key})
    return {**data, "pages": {**pages, "pile": sheets}, "paper": {**papers, "more": more} if more else papers}


def _same(one: Data, other: Data) -> bool:
    """Whether two papers are one; those from the materials are counted there, whatever the book last knew of
    their number."""
    counted = one.get("stock_id") and one.get("stock_id") == other.get("stock_id")
    return one == other or bool(counted and {**one, "owned": None} == {**other, "owned": None})


def _own_stitch(data: Data) -> Data:
    """5 to 6: a maker's own order of holes becomes a stitch of its own, tied where it began; a pamphlet says
    how many stations it has."""
    binding, aside = data.get("binding", {}), data.get("aside")
    data = {**data, "binding": _sewn(binding)} if isinstance(binding, dict) else data
    left = aside.get("binding") if isinstance(aside, dict) else None
    if isinstance(aside, dict) and isinstance(left, dict) and isinstance(left.get("pamphlet"), dict):
        kept = _sewn({**left["pamphlet"], "kind": "pamphlet"})
        moved = {name: value for name, value in left.items() if name != "pamphlet"}
        moved[kept["kind"]] = {name: value for name, value in kept.items() if name != "kind"}
        data = {**data, "aside": {**aside, "binding": moved}}
    return data


def _sewn(binding: Data) -> Data:
    if binding.get("kind", "pamphlet") != "pamphlet":
        return binding
    path, side = binding.get("own_path"), binding.get("knot", "inside")
    rest = {name: value for name, value in binding.items() if name != "own_path"}
    if (
        isinstance(path, list)
        and len(path) > 1
        and all(isinstance(hole, int) and 0 < hole < 100 for hole in path)
    ):
        rest = {name: value for name, value in rest.items() if name != "knot"}
        return {
            **rest,
            "kind": "own",
            "station_count": rest.get("station_count", 3),
            "moves": _path_of(path, side),
        }
    return {**rest, "station_count": rest.get("station_count", 3)}


def _path_of(path: list[int], side: Any) -> str:
    """The text of a bare order of holes: one that came back to where it began was tied there; one that did
    not stays untied, and its book says so."""
    text = closed(path, side)
    return text if path[0] == path[-1] else text.partition(" =")[0]


def _board(data: Data) -> Data:
    """6 to 7: the boards of an open sewing were cut from a paper described as one; now they are a board."""
    cover, papers = data.get("cover", {}), data.get("paper")
    own = papers.get("cover") if isinstance(papers, dict) else None
    if (
        not isinstance(cover, dict)
        or cover.get("kind") != "boards"
        or not isinstance(papers, dict)
        or not isinstance(own, dict)
    ):
        return data
    kept = {
        name: own[name]
        for name in ("name", "tags", "price", "sheet_width_mm", "sheet_height_mm", "grain", "owned", "swatch")
        if name in own
    }
    try:
        thick = thickness(Paper.model_validate(own)).sheet.likely
        board = Board.model_validate({**kept, "thickness_mm": round(min(max(thick, 0.3), 12.0), 3)})
    except (ValidationError, TypeError):
        return data  # whatever it was, it was not one; the book says what is wrong with it
    bench = data.get("bench")
    if isinstance(bench, dict) and isinstance(ticks := bench.get("ticks"), dict):  # what was cut is cut
        renamed = {"cut_board" if key == "cut_cover" else key: value for key, value in ticks.items()}
        data = {**data, "bench": {**bench, "ticks": renamed}}
    return {**data, "paper": {**papers, "board": board.model_dump(mode="json")}}


def _made_in_mm(data: Data) -> Data:
    """10 to 11: what nobody typed lies on the marks of the ruler a book was made on; until then it was
    millimetres for every book. Pocket pages have no height of their pockets any more, which nothing ever
    asked for."""
    brief, pages, aside = data.get("brief"), data.get("pages"), data.get("aside")
    if isinstance(brief, dict) and brief.get("ruler") == "in":
        data = {**data, "brief": {**brief, "marks": "mm"}}
    if isinstance(pages, dict) and pages.get("kind") == "pocketpages":
        data = {**data, "pages": _without(pages, "pocket_mm")}
    left = aside.get("pages") if isinstance(aside, dict) else None
    if isinstance(aside, dict) and isinstance(left, dict) and isinstance(left.get("pocketpages"), dict):
        data = {
            **data,
            "aside": {**aside, "pages": {**left, "pocketpages": _without(left["pocketpages"], "pocket_mm")}},
        }
    return data


def _without(record: Data, name: str) -> Data:
    return {key: value for key, value in record.items() if key != name}


_STEPS: Final[tuple[Callable[[Data], Data], ...]] = (
    _several_readings,
    _as_it_was,
    _as_it_was,
    _members,
    _own_stitch,
    _board,
    _as_it_was,
    _as_it_was,
    _as_it_was,
    _made_in_mm,
    _as_it_was,
)
