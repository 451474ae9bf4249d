"""The materials as a table: out as CSV, in with a preview that says row by row what will be taken."""

from __future__ import annotations

from typing import Literal

from flask import Blueprint, Response, current_app, redirect, render_template, request, url_for
from werkzeug.exceptions import NotFound
from werkzeug.wrappers import Response as AnyResponse

from pleat.core.materials.items import KINDS
from pleat.core.materials.table import BadTable, write_table
from pleat.services.imports import Imports, Table
from pleat.store import items as store
from pleat.web import asked
from pleat.web.database import reading
from pleat.web.downloads import download

pages = Blueprint("tables", __name__, url_prefix="/materials/table")
PER_PAGE = 100


@pages.get("")
def index() -> str:
    return render_template("materials/table.html", problem="")


@pages.get("/materials.csv")
def export() -> Response:
    delimiter: Literal[";", ","] = "," if request.args.get("with") == "comma" else ";"
    decimal: Literal[",", "."] = "," if request.args.get("decimal") == "comma" and delimiter == ";" else "."
    with reading() as session:
        items = [stored.item for stored in store.everything(session)]
    text = "\ufeff" + write_table(items, delimiter, decimal)
    return download(text, "pleat-materials.csv", "text/csv")


@pages.post("")
def take_in() -> AnyResponse | tuple[str, int]:
    file = request.files.get("file")
    try:
        if file is None or not file.filename:
            raise BadTable("Choose a CSV file first.")
        job = _imports().start(file.filename[:80], file.read())
    except BadTable as error:
        return render_template("materials/table.html", problem=error.text), 422
    return redirect(url_for("tables.preview", token=job.token), 303)


@pages.get("/<token>")
def preview(token: str) -> str:
    """The table's state; asked for again by the page while work goes on."""
    job = _job(token)
    state = job.state  # looked at once: work goes on while the page is made
    action, page = request.args.get("show", "all"), asked.number(request.args, "page", 1, 1, 10**6)
    entries = (
        []
        if state in ("asking", "reading")
        else [entry for entry in job.entries if action in ("all", entry.action)]
    )
    template = "materials/_preview.html" if request.headers.get("HX-Request") else "materials/preview.html"
    return render_template(
        template,
        job=job,
        state=state,
        KINDS=KINDS,
        entries=entries[(page - 1) * PER_PAGE : page * PER_PAGE],
        show=action,
        page=page,
        last=max(1, -(-len(entries) // PER_PAGE)),
        counts={name: job.count(name) for name in ("new", "change", "same", "not")}
        if state in ("ready", "done")
        else {},
    )


@pages.post("/<token>/kind")
def say(token: str) -> AnyResponse:
    """What all rows of a table are, where no column says so."""
    _imports().say(_job(token), asked.word(request.form, "kind", 20))
    return redirect(url_for("tables.preview", token=token), 303)


@pages.post("/<token>/agree")
def agree(token: str) -> AnyResponse:
    _imports().agree(_job(token))
    return redirect(url_for("tables.preview", token=token), 303)


@pages.post("/<token>/forget")
def forget(token: str) -> AnyResponse:
    _imports().forget(token)
    return redirect(url_for("tables.index"), 303)


def _imports() -> Imports:
    found: Imports = current_app.extensions["pleat_imports"]
    return found


def _job(token: str) -> Table:
    job = _imports().find(token)
    if job is None:
        raise NotFound(
            "This table is no longer here; Pleat was started afresh since, or other tables came after it. "
            "Choose the file again."
        )
    return job
