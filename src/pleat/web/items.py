"""What the materials' templates need of an item: its drawings, its fields as they are typed, a line of
facts."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Final

from markupsafe import Markup

from pleat.core.base.errors import LengthError
from pleat.core.base.fields import ChoiceRule, LengthRule, TextRule
from pleat.core.base.plan import Figure
from pleat.core.base.units import RULERS, Ruler, RulerName, parse_length
from pleat.core.materials.editing import WEIGHT_FIELDS, fields_of, label_of, rule_of, text_of
from pleat.core.materials.facts import Facts, facts
from pleat.core.materials.items import (
    KINDS,
    Board,
    BoughtFastener,
    Cloth,
    Elastic,
    Glue,
    Hardware,
    Item,
    Paper,
    Stick,
    Stitch,
    ThreadSpool,
    Tool,
)
from pleat.core.materials.sizes import size_name
from pleat.core.materials.thickness import thickness
from pleat.core.materials.uses import good_for
from pleat.drawing import materials as drawing
from pleat.drawing.svg import Pen, render_screen
from pleat.services import measuring
from pleat.store.items import StoredItem
from pleat.web import asked
from pleat.web.display import drawn

_THUMB: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=8, edge=3)
_PX_PER_MM: Final = 0.13
"""Sheets, boards and cloths in the list are all drawn to this one scale."""
_WIDE, _HIGH = 96.0, 92.0
_FLAT: Final = (Paper, Board, Cloth, BoughtFastener)
"""Kinds whose thickness is shown edge on."""
CAUTIONS: Final = {
    "magnet": "Small magnets are not for small children: swallowed, they are an emergency. Keep them apart "
    "and counted.",
    "hot": "Hot glue burns. Keep water by, let nothing drip, never leave the gun hot; follow its own "
    "instructions.",
    "spray": "Spray glue: outdoors or with much air, gloves and eyes covered, no flame near, not near food; "
    "follow what the can says.",
    "awl": "The awl points away from both hands: pierce into a trough or a pad, and cork it when you put it "
    "down.",
    "trimmer": "Keep its guard on and fingers behind it; follow its own instructions.",
    "punch": "Fingers clear of the lever and the die; no more sheets than it takes.",
    "brad": "Small parts are not for small children.",
    "eyelet": "Small parts are not for small children. Set eyelets on a firm block, fingers clear of the "
    "hammer.",
}
"""By shape, the usual caution, shown with the item."""


@dataclass(frozen=True)
class FieldView:
    """One field of an item's form: the ``text`` in its input, and what the item has ``held`` there as the
    page is made.

    ``choices`` are empty for what is typed.
    """

    name: str
    label: str
    text: str
    held: str
    choices: tuple[tuple[str, str], ...]
    hint: str
    problem: str
    wide: bool
    required: bool


_HINTS: Final = {
    "size": "A4, 12 × 12 in, C6 opened",
    "weight": "90 g/m², 65 lb cover",
    "readings_mm": "1.04; 1.05; 1.03",
    "thickness_mm": "2 mm, 60 pt",
    "tags": "colour and motif",
    "length_left_mm": "1.8 m",
    "lea": "18",
    "margins_mm": "none, or 8, or 8; 0; 8; 0",
    "windows_mm": "from left; from top; wide; high",
    "tex": "276",
}


def fields(
    kind: str, item: Item | None, ruler: RulerName, texts: Mapping[str, str], problems: Mapping[str, str]
) -> dict[str, FieldView]:
    """The fields of a kind in order, by name; what was typed and refused stays in its field."""
    names = [name for name in fields_of(kind) if name not in WEIGHT_FIELDS]
    if kind == "paper":
        names.insert(names.index("sheet_width_mm"), "size")
        names.insert(names.index("owned") + 1, "weight")
    return {name: _field(kind, item, name, ruler, texts, problems) for name in names}


def _field(
    kind: str,
    item: Item | None,
    name: str,
    ruler: RulerName,
    texts: Mapping[str, str],
    problems: Mapping[str, str],
) -> FieldView:
    rule = rule_of(kind, name)
    shown = text_of(item, kind, name, ruler) if item else _default(kind, name)
    choices = rule.words if isinstance(rule, ChoiceRule) else ()
    field = fields_of(kind).get(name)
    required = bool(field and field.is_required())
    hint = _HINTS.get(name, "" if required or not isinstance(rule, LengthRule) else "not known")
    text = texts.get(name, shown) if name in problems or item is None else shown
    return FieldView(
        name,
        label_of(kind, name),
        text,
        shown,
        choices,
        hint,
        problems.get(name, ""),
        isinstance(rule, TextRule),
        required,
    )


def _default(kind: str, name: str) -> str:
    field = fields_of(kind).get(name)
    value = None if field is None or field.is_required() else field.get_default()
    return "" if value in (None, ()) else str(value)


def _long(mm: float, ruler: Ruler) -> str:
    """A length of stuff: in metres or whole inches, since nobody reads 18000 mm."""
    if ruler.name == "mm" and mm >= 1000:
        return f"{mm / 1000:g} m"
    if ruler.name == "mm":
        return ruler.show(mm)
    return f"{mm / 25.4:.0f} in"


def _thick(mm: float, ruler: Ruler) -> str:
    if mm < 1:
        return ruler.fine(mm)
    if ruler.name == "mm":
        return ruler.thin(mm)
    return ruler.fine(mm)


@dataclass(frozen=True)
class Card:
    """An item as it stands in the list; ``edge`` is its thickness drawn, in px, where it is flat."""

    name: str
    thumb: Markup
    facts: tuple[str, ...]
    uses: tuple[str, ...]
    edge: float | None


@lru_cache(maxsize=4096)
def card(item: Item, ruler: RulerName) -> Card:
    """Drawn once for each item as it is: the list is looked at far more often than it is changed."""
    about = facts(item)
    flat = about.thickness_mm if isinstance(item, _FLAT) else None
    return Card(
        item.name,
        thumb(item),
        tuple(line(item, about, RULERS[ruler])),
        about.uses,
        round(min(26.0, max(1.2, flat * 11)), 1) if flat else None,
    )


def thumb(item: Item) -> Markup:
    """A small picture: flat things to one scale, others as large as fits."""
    picture = drawing.picture(item, RULERS["mm"], dims=False)
    if isinstance(item, Paper | Board | Cloth):
        width, height = (
            min(_WIDE, picture.width * _PX_PER_MM + 6),
            min(_HIGH, picture.height * _PX_PER_MM + 6),
        )
    else:
        width, height = 84.0, 68.0
    svg = render_screen(picture, max(width, 10), max(height, 10), _THUMB, css="thumb").svg
    return Markup(
        svg.replace('role="img"', f'aria-hidden="true" width="{width:.0f}" height="{height:.0f}"', 1)
    )


def line(item: Item, about: Facts, ruler: Ruler) -> list[str]:
    """The few facts a maker looks for, in the order of the kind."""
    words: list[str] = []
    if isinstance(item, Paper) and item.form == "roll":
        words.append(f"{ruler.show(item.sheet_width_mm)} wide, {_long(item.sheet_height_mm, ruler)} left")
    elif isinstance(item, Paper | Board):
        name = size_name(item.sheet_width_mm, item.sheet_height_mm) if isinstance(item, Paper) else None
        prefix = name + ", " if name else ""
        words.append(f"{prefix}{ruler.size(item.sheet_width_mm, item.sheet_height_mm)}")
    if isinstance(item, Cloth):
        words.append(f"{ruler.show(item.roll_width_mm)} wide, {_long(item.length_left_mm, ruler)} left")
    if isinstance(item, Hardware):
        words.append(f"{ruler.show(item.inner_mm)} inside")
    if isinstance(item, Stick):
        words.append(f"{ruler.show(item.length_mm)} long")
    if isinstance(item, ThreadSpool | Elastic) and item.length_left_mm is not None:
        words.append(f"{_long(item.length_left_mm, ruler)} left")
    if isinstance(item, Stitch):
        words.append(f"{item.stations} holes")
    if isinstance(item, Tool) and item.longest_mm:
        words.append(f"takes {ruler.show(item.longest_mm)}")
    if isinstance(item, Glue):
        times = [
            f"move it for {item.working_minutes:g} min" if item.working_minutes else "",
            f"dry after {item.drying_minutes:g} min" if item.drying_minutes else "",
        ]
        words.append(", ".join(time for time in times if time) or ("dry" if item.wet == "dry" else "wet"))
    if about.thickness_mm is not None:
        rough = isinstance(item, Paper) and thickness(item).source in ("name", "nothing", "pounds")
        roughly = "about " if rough else ""
        most = " at most" if isinstance(item, Tool) else ""
        words.append(f"{roughly}{_thick(about.thickness_mm, ruler)}{most}")
    if about.owned is not None:
        words.append(f"{about.owned} left")
    return words


def page(
    stored: StoredItem,
    ruler: RulerName,
    texts: Mapping[str, str] | None = None,
    problems: Mapping[str, str] | None = None,
) -> dict[str, object]:
    """Everything an item's page shows."""
    item, on = stored.item, RULERS[ruler]
    sheet = isinstance(item, Paper | Board)
    main = render_screen(drawing.picture(item, on), 520, 400 if sheet else 300)
    shown: dict[str, object] = {
        "stored": stored,
        "words": KINDS[stored.kind],
        "fields": fields(stored.kind, item, ruler, texts or {}, problems or {}),
        "main": drawn(main),
        "problems": problems or {},
        "ruler": on,
        "caution": CAUTIONS.get(str(getattr(item, "shape", "")), ""),
        "facts": line(item, facts(item), on),
    }
    if isinstance(item, Paper):
        thick = thickness(item)
        shown |= {
            "thick": thick,
            "figure": Figure(
                key="sheet",
                label="one sheet is",
                value=thick.sheet,
                show="fine",
                how=f"{thick.how} {thick.narrow}".strip(),
                rules=thick.rules,
            ),
            "uses": good_for(thick.sheet),
            "edge": drawn(render_screen(drawing.edge_on(item, on), 320, 120)),
        }
    return shown


# --- measuring and the grain, as their pages send them -----------------------------------------------------


def session_of(given: Mapping[str, str], paper: Paper) -> measuring.Session:
    """How far a measuring has come, from the page; what is no number there counts as not there. No more
    sheets than there are."""
    usual = min(10, paper.owned) if paper.owned else 10
    readings = [
        value
        for value in (_float(word) for word in given.get("readings", "")[:2000].split())
        if value is not None
    ]
    count = asked.number(given, "sheets", usual, 1, 500)
    return measuring.Session(count, _float(given.get("zero", "")), tuple(readings[: measuring.MOST_READINGS]))


def _float(text: str) -> float | None:
    try:
        value = float(text[:40])
    except ValueError:
        return None
    return value if -300 <= value <= 300 else None


def with_reading(state: measuring.Session, mm: float) -> measuring.Session:
    """One reading more. Raises LengthError when there are enough."""
    if len(state.readings_mm) >= measuring.MOST_READINGS:
        raise LengthError("", f"{measuring.MOST_READINGS} readings are enough.")
    return replace(state, readings_mm=(*state.readings_mm, round(mm, 4)))


def small_length(text: str) -> float:
    """A length near nothing, in mm unless a unit is typed. Raises LengthError."""
    return parse_length(text or "?", "mm").mm


def answers_of(given: Mapping[str, str]) -> dict[str, Any]:
    """The grain tests' answers: by test, (side, clear)."""
    found = {}
    for test in ("bend", "tear", "damp"):
        side = given.get(test, "")
        if side in ("long", "short"):
            found[test] = (side, given.get(f"{test}_clear", "1") == "1")
    return found


def bends() -> tuple[Markup, ...]:
    """The two ways to bend a sheet, drawn."""
    return tuple(Markup(render_screen(drawing.bend_test(way), 220, 140).svg) for way in (True, False))
