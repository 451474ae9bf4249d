"""The materials as a table: CSV out and in, with the unit of every length in its heading.

Written as RFC 4180 has it, with a semicolon or a comma. Read with either, or a tab; with decimal comma or
point; UTF-8 with or without its mark; lengths in mm, cm, m or in by the heading. A cell that a spreadsheet
would run as a formula is written with an apostrophe before it, which is taken off again when it is read.
"""

from __future__ import annotations

import csv
import difflib
import io
import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from pleat.core.base.errors import BadBook, PleatError
from pleat.core.base.fields import LengthRule, NumberRule, declared, rule_on
from pleat.core.materials.editing import WEIGHT_FIELDS, build, fields_of, label_of
from pleat.core.materials.items import KINDS, Item, kind_of
from pleat.core.materials.weights import BASIS_IN, grammage_of

LARGEST: Final = 8_000_000
"""Bytes of a table; ten thousand rows come to about two million."""
MOST_ROWS: Final = 20_000
MOST_NAMED: Final = 20
"""Headings without a meaning that are told."""
_FORMULA: Final = ("=", "+", "-", "@", "\t", "\r", "＝", "＋", "－", "＠")
_UNITS: Final = ("mm", "cm", "m", "in")
_HEADING: Final = re.compile(r"([^()\[\]]*)(?:\(([^()]*)\)|\[([^\[\]]*)\])?")
_POUNDS: Final = re.compile(
    r"([0-9]{1,6}(?:[.,][0-9]{1,6})?) ?(?:lbs?\.?|#|pounds?)? ?((?!(?:lbs?|pounds?)\b)[a-z]+)"
)
_NUMBER: Final = re.compile(r"[+-]?[0-9]{1,12}(?:[.,][0-9]{1,12})?")


class BadTable(PleatError):
    """A file that is not a table of materials; ``text`` says why and what would do."""

    def __init__(self, text: str) -> None:
        self.text = text
        super().__init__(text)


class KindMissing(PleatError):
    """No column says what kind of item the rows are: the maker has to."""


@dataclass(frozen=True)
class TableRow:
    """One row as it was read: its line in the file, the item it makes, or why it makes none.

    ``sets`` names the fields the row says something of; an item that is among the materials already keeps its
    others.
    """

    line: int
    kind: str
    name: str
    item: Item | None
    problems: tuple[str, ...]
    sets: frozenset[str] = frozenset()

    def over(self, held: Item) -> Item:
        """``held`` as this row changes it."""
        if self.item is None:
            return held
        return held.model_copy(update={name: getattr(self.item, name) for name in self.sets})


def _columns() -> dict[str, str]:
    """Heading by field name, over all kinds; lengths in mm."""
    found = {"kind of item": "kind of item"}
    for kind in KINDS:
        for name, field in fields_of(kind).items():
            rule = rule_on(field)
            if isinstance(rule, LengthRule):
                unit = "mm"
            elif name == "grammage":
                unit = "g/m²"
            elif name == "pounds":
                unit = "lb"
            else:
                unit = ""
            found[name] = name.removesuffix("_mm").replace("_", " ") + (f" ({unit})" if unit else "")
    return found


COLUMNS: Final = _columns()
"""Heading of every column by the name of its field."""
_FIELD_OF: Final = {heading.split(" (")[0].lower(): name for name, heading in COLUMNS.items()} | {
    "weight": "weight",
    "size": "size",
}


def write_table(
    items: Iterable[Item], delimiter: Literal[";", ","] = ";", decimal: Literal[",", "."] = "."
) -> str:
    """The items as CSV, one row each; columns that no item fills are left out."""
    rows = [_texts(item, decimal) for item in items]
    used = [
        name for name in COLUMNS if name in ("kind of item", "name") or any(row.get(name) for row in rows)
    ]
    out = io.StringIO()
    writer = csv.writer(out, delimiter=delimiter, lineterminator="\r\n")
    writer.writerow(COLUMNS[name] for name in used)
    writer.writerows([harmless(row.get(name, "")) for name in used] for row in rows)
    return out.getvalue()


def _texts(item: Item, decimal: str) -> dict[str, str]:
    """Every field of an item as the table has it; fields that stand at their default are left empty only
    where that is nothing."""
    kind = kind_of(item)
    texts = {"kind of item": kind}
    for name in fields_of(kind):
        value = getattr(item, name)
        if isinstance(value, tuple):
            texts[name] = " ".join(_number(one, decimal) for one in value)
        elif isinstance(value, float):
            texts[name] = _number(value, decimal)
        else:
            texts[name] = "" if value is None else str(value)
    return texts


def _number(value: float, decimal: str) -> str:
    text = repr(round(value, 6)).removesuffix(".0")
    return text.replace(".", decimal) if "e" not in text else f"{value:.6f}".rstrip("0").replace(".", decimal)


def harmless(text: str) -> str:
    """A cell that no spreadsheet takes for a formula. A cell that begins with an apostrophe gets another, so
    that it comes back whole."""
    return f"'{text}" if text.startswith((*_FORMULA, "'")) else text


def read_table(data: bytes, kind: str = "") -> tuple[list[str], Iterator[TableRow]]:
    """(headings that mean nothing here, with the nearest that does; the rows one by one as they are read).

    ``kind`` is what all rows are where no column says so. Raises BadTable when there is no table in it,
    KindMissing when it has to be asked.
    """
    if len(data) > LARGEST:
        raise BadTable(
            "The file is over 8 MB, far more than a table of materials needs. Is it the right file?"
        )
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadTable(
            f"The file is not in UTF-8 (byte {error.start + 1} cannot be read). In the spreadsheet choose "
            "“CSV, UTF-8” when saving."
        ) from error
    if "\0" in text:
        raise BadTable("The file is no text: it holds bytes that no table has. Save it as CSV first.")
    first = text.split("\n", 1)[0]
    delimiter = max(";,\t", key=first.count)
    try:
        lines = list(csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=False))
    except csv.Error as error:
        raise BadTable(f"The file cannot be read as CSV: {error}.") from error
    if not lines or not any(cell.strip() for cell in lines[0]):
        raise BadTable("The file is empty. Its first row should hold the headings.")
    if len(lines) - 1 > MOST_ROWS:
        raise BadTable(
            f"The table has {len(lines) - 1} rows; at most {MOST_ROWS} are taken at once. Part it into "
            "several files."
        )
    headings = [_heading(cell) for cell in lines[0]]
    strange = [cell for cell, (name, _) in zip(lines[0], headings, strict=True) if not name and cell.strip()]
    unknown = [_perhaps(cell) for cell in strange[:MOST_NAMED]]
    if "name" not in {name for name, _ in headings}:
        raise BadTable(
            "No column is headed “name”. The first row should hold headings such as: kind of item; name; "
            "sheet width (mm); sheet height (mm)."
        )
    if "kind of item" not in {name for name, _ in headings} and kind not in KINDS:
        raise KindMissing
    rows = (
        _row(number, headings, cells, kind or "paper")
        for number, cells in enumerate(lines[1:], 2)
        if any(cell.strip() for cell in cells)
    )
    return unknown, rows


def _perhaps(cell: str) -> str:
    """A heading that means nothing here, with the nearest one that does."""
    said = " ".join(cell[:60].split())
    near = difflib.get_close_matches(said.split("(")[0].strip().lower(), _FIELD_OF, 1, 0.6)
    return f"{said} (is it “{near[0]}”?)" if near else said


def _heading(cell: str) -> tuple[str, str]:
    """(field name or "", unit or "") of a heading."""
    cell = " ".join(cell[:200].split())
    found = _HEADING.fullmatch(cell)
    if found is None:
        return "", ""
    unit = (found[2] or found[3] or "").strip().lower()
    return _FIELD_OF.get(found[1].strip().lower().replace("_", " ").removesuffix(" mm"), ""), unit


def _row(
    number: int, headings: Sequence[tuple[str, str]], cells: Sequence[str], usual: str = "paper"
) -> TableRow:
    given = {
        name: (_plain(cell), unit)
        for (name, unit), cell in zip(headings, cells, strict=False)
        if name and cell.strip()
    }
    kind, name = given.pop("kind of item", (usual, ""))[0].strip().lower(), given.get("name", ("", ""))[0]
    if len(cells) > len(headings) and any(cell.strip() for cell in cells[len(headings) :]):
        return TableRow(
            number,
            kind,
            name,
            None,
            ("There are more cells than headings: is a comma in it that should stand between quotes?",),
        )
    if kind not in KINDS:
        return TableRow(
            number, kind, name, None, (f"There is no kind “{kind[:30]}”. Use one of: {', '.join(KINDS)}.",)
        )
    texts, problems = {}, []
    for field, (text, unit) in given.items():
        if field not in fields_of(kind) and field not in ("weight", "size"):
            problems.append(f"{COLUMNS[field]}: a {KINDS[kind].one} has no such field.")
            continue
        try:
            texts[field] = _with_unit(kind, field, text, unit)
        except BadTable as error:
            problems.append(f"{label_of(kind, field)}: {error.text}")
    if problems:
        return TableRow(number, kind, name, None, tuple(problems))
    try:
        return TableRow(number, kind, name, _built(kind, texts), (), _sets(kind, headings, given))
    except BadBook as error:
        return TableRow(
            number,
            kind,
            name,
            None,
            tuple(f"{problem.label}: {problem.message}" for problem in error.problems),
        )


def _sets(
    kind: str, headings: Sequence[tuple[str, str]], given: Mapping[str, tuple[str, str]]
) -> frozenset[str]:
    """The fields a row sets: those with something in their cell, and those that an empty cell means to
    clear."""
    own = fields_of(kind)
    names = {
        name for name, _ in headings if name in given or (name in own and declared(own[name]).may_be_empty)
    }
    together = {
        "weight": WEIGHT_FIELDS,
        "size": ("sheet_width_mm", "sheet_height_mm"),
        "pounds": WEIGHT_FIELDS,
    }
    return frozenset(
        one for name in names if name in own or name in together for one in together.get(name, (name,))
    )


def _built(kind: str, texts: dict[str, str]) -> Item:
    """The item; pounds with their grade bring their grammage along, also where the grade stands behind them:
    ``65 cover``."""
    said = _POUNDS.fullmatch(" ".join(texts.get("pounds", "").lower().split()))
    if kind == "paper" and said:
        texts = {name: text for name, text in texts.items() if name not in ("pounds", "grade")} | {
            "weight": f"{said[1]} lb {said[2]}"
        }
    pounds, grade = _NUMBER.match(texts.get("pounds", "")), texts.get("grade", "")
    if kind == "paper" and pounds and grade in BASIS_IN and not texts.get("grammage"):
        texts = {**texts, "grammage": f"{grammage_of(float(pounds[0].replace(',', '.')), grade):g}"}
    return build(kind, texts, "mm")


def _plain(cell: str) -> str:
    """A cell's text without the apostrophe that kept a spreadsheet from running it."""
    text = cell.strip()
    return text[1:] if text.startswith(tuple(f"'{sign}" for sign in (*_FORMULA, "'"))) else text


def _with_unit(kind: str, field: str, text: str, unit: str) -> str:
    """A number with its decimal point and its heading's unit, ready to be read as if it had been typed."""
    if field in ("weight", "size"):
        return text
    known = declared(fields_of(kind)[field])
    rule = known.rule
    if not isinstance(rule, LengthRule | NumberRule):
        return text
    if re.search(r"\d[.,]\d{3}[.,]\d", text):
        raise BadTable(f"“{text}” has both a comma and a point; write it without the sign between thousands.")
    words = text.split() if known.many else [text]
    if isinstance(rule, NumberRule):
        return words[0].replace(",", ".") if len(words) == 1 and _NUMBER.fullmatch(words[0]) else text
    if unit and unit not in _UNITS:
        raise BadTable(f"the heading's unit “{unit}” is not known; use mm, cm, m or in.")
    typed = [
        f"{word.replace(',', '.')} {unit or 'mm'}" if _NUMBER.fullmatch(word) else word for word in words
    ]
    return "; ".join(typed)
