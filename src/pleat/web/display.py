"""How core values stand in a template: figures on the ruler, true fractions, times, drawings with their
spots."""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime
from functools import lru_cache, partial
from typing import Any, Final

from flask import Flask, request, url_for
from markupsafe import Markup, escape

from pleat.core.base.cautions import GENERAL
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule
from pleat.core.base.plan import Figure
from pleat.core.base.texts import shown_list
from pleat.core.base.units import Ruler, written_fractions
from pleat.core.base.words import lasting
from pleat.core.document.labels import label_of, rule_of
from pleat.core.materials.editing import weight_text
from pleat.drawing.svg import Rendered
from pleat.web import asked, database
from pleat.web.forms import entry
from pleat.web.itself import by_itself

_SET: Final = (
    '<span class="frac"><span class="visually-hidden"> {0}/{1}</span><span '
    'aria-hidden="true"><sup>{0}</sup>⁄<sub>{1}</sub></span></span>'
)


def register(app: Flask) -> None:
    app.jinja_env.filters.update(frac=frac, clock=clock, slug=slug)
    app.jinja_env.globals.update(
        action_url=action_url,
        lasting=lasting,
        shown_list=shown_list,
        weight_text=weight_text,
        figure_value=figure_value,
        figure_range=figure_range,
        label_of=label_of,
        choices=choices,
        asset=partial(asset, app),
        own=database.own,
        epoch=database.epoch,
        percent=percent,
        drawn=drawn,
        entry_of=entry,
        by_itself=by_itself,
        exact_mm=exact_mm,
        general_caution=GENERAL,
        money=money,
        looked_at=lambda: asked.looked_at(request.values),
    )


def frac(text: object) -> Markup:
    """A text with its fractions set as fractions; the plain ``8 1/4`` stays readable to a screen reader."""
    escaped = escape(text)
    return _fractions(str(escaped)) if "/" in escaped else escaped


@lru_cache(maxsize=8192)
def _fractions(escaped: str) -> Markup:
    """A page says much again that it said before the last change."""
    return Markup(
        "".join(
            piece if isinstance(piece, str) else _SET.format(*piece) for piece in written_fractions(escaped)
        )
    )


SHOWN: Final[dict[str, Callable[[Ruler, float], str]]] = {
    "length": Ruler.show,
    "thin": Ruler.thin,
    "fine": Ruler.fine,
}
"""How a length is set, by the figure's own way."""


def figure_value(figure: Figure, ruler: Ruler) -> str:
    """The likely value in the figure's own way of being shown, with its unit."""
    value = figure.value.likely if isinstance(figure.value, Estimate) else figure.value
    if isinstance(value, tuple):
        return ruler.size(*value)
    if isinstance(value, float | int) and figure.show in SHOWN:
        return SHOWN[figure.show](ruler, float(value))
    return f"{value} {figure.unit}".strip() if figure.show == "count" else str(value)


def figure_range(figure: Figure, ruler: Ruler) -> str:
    """``2.0 – 2.4 mm`` for an estimate that has a width, else nothing."""
    if not isinstance(figure.value, Estimate) or figure.value.width < 1e-6:
        return ""
    show = ruler.fine if figure.show == "fine" else ruler.thin
    low, high = show(figure.value.low), show(figure.value.high)
    return "" if low == high else f"{low.rsplit(' ', 1)[0]} – {high}"


def choices(path: str) -> tuple[tuple[str, str], ...]:
    rule = rule_of(path)
    return rule.words if isinstance(rule, ChoiceRule) else ()


def clock(time: datetime) -> Markup:
    """A UTC time; the page's script turns it into the maker's own clock."""
    iso = time.replace(tzinfo=UTC).isoformat(timespec="seconds")
    return Markup('<time datetime="{}" data-clock>{} UTC</time>').format(iso, time.strftime("%H:%M"))


@lru_cache(maxsize=2048)
def action_url(action: str, book_id: int) -> str:
    """The address of a change to a book, of the workspace or of one of its pleats (``extras.put``); it stands
    in every form of a page, and is made once."""
    return url_for(action if "." in action else f"workspace.{action}", book_id=book_id)


@lru_cache(maxsize=2048)
def slug(path: str) -> str:
    return path.replace(".", "-").replace("_", "-")


def asset(app: Flask, name: str) -> str:
    """The address of a shipped file, under the stamp of all that is shipped."""
    return f"{app.static_url_path}/{name}"


def money(amount: float) -> str:
    """An amount in the maker's own money, which has no sign here."""
    return f"{amount:.2f}"


def exact_mm(value: float | None) -> str:
    """A length that is finer than the ruler, as its field shows it; nothing for none."""
    return f"{value:g} mm" if value else ""


def percent(share: float) -> str:
    return f"{100 * share:.3f}"


def drawn(rendered: Rendered) -> dict[str, Any]:
    """A rendered drawing for a template: its SVG, safe to insert, and its spots."""
    return {
        "svg": Markup(rendered.svg),
        "spots": rendered.spots,
        "scale": rendered.scale,
        "width": rendered.width,
    }
