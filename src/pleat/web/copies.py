"""Copies of all books and materials: a download, and putting one back."""

from __future__ import annotations

import tempfile
from datetime import date
from pathlib import Path

from flask import Blueprint, Response, current_app, flash, redirect, render_template, request, send_file, url_for
from werkzeug.wrappers import Response as AnyResponse

from pleat.store import backups
from pleat.store.database import CannotOpen, migrate

pages = Blueprint("copies", __name__, url_prefix="/copies")


@pages.get("")
def index() -> str:
    return _page("")


def _page(problem: str) -> str:
    place = backups.folder(current_app.config["PLEAT_DATABASE"])
    kept = sorted((one.name for one in place.glob("*.db")), reverse=True)[:20] if place.exists() else []
    return render_template("library/copies.html", problem=problem, kept=kept, place=place.name)


@pages.get("/pleat.db")
def download() -> Response:
    """A copy as it is this moment, whatever is being changed meanwhile."""
    with tempfile.TemporaryDirectory() as folder:
        made = Path(folder) / "copy.db"
        backups.backup(current_app.config["PLEAT_DATABASE"], made)
        file = made.open("rb")  # stays readable after its name is gone
    return send_file(file, "application/vnd.sqlite3", as_attachment=True, download_name=f"pleat-{date.today():%Y-%m-%d}.db")


@pages.post("")
def put_back() -> AnyResponse | tuple[str, int]:
    """Put an uploaded copy in the place of everything; what is here now is copied first."""
    file = request.files.get("file")
    if file is None or not file.filename:
        return _page("Choose a copy first: it ends in .db."), 422
    database = current_app.config["PLEAT_DATABASE"]
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "given.db"
        file.save(path)
        try:
            backups.verify(path)
            migrate(path)  # a copy of an older Pleat is brought up to date before anything here is touched
            books = backups.restore(database, path)
        except (backups.BadBackup, CannotOpen) as error:
            return _page(f"Nothing was changed. {error.text.replace(str(path), 'The file')}"), 422
    current_app.extensions["pleat_engine"].dispose()
    flash(
        f"{books} {'book is' if books == 1 else 'books are'} back from the copy. What was here before is kept in {backups.folder(database).name}."
    )
    return redirect(url_for("library.index"), 303)
