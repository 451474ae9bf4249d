"""Copies of all books and materials: a download, those that are kept by themselves, and putting one back."""

from __future__ import annotations

import tempfile
from dataclasses import dataclass
from datetime import UTC, date, datetime
from pathlib import Path

from flask import (
    Blueprint,
    Response,
    abort,
    current_app,
    redirect,
    render_template,
    request,
    send_file,
    url_for,
)
from werkzeug.wrappers import Response as AnyResponse

from pleat.services.restoring import Parts, Restoring, Restorings
from pleat.store import backups
from pleat.web import asked

pages = Blueprint("copies", __name__, url_prefix="/copies")
SHOWN = 40


@dataclass(frozen=True)
class Kept:
    """A copy beside the database: its name, when it was made, how many bytes it has."""

    name: str
    made_at: datetime
    size: int


@pages.get("")
def index() -> str:
    return _page("")


def _page(problem: str) -> str:
    place = backups.folder(_database())
    kept = [
        Kept(path.name, datetime.fromtimestamp(path.stat().st_mtime, UTC), path.stat().st_size)
        for path in place.glob("*.db")
    ]
    kept.sort(key=lambda one: one.made_at, reverse=True)
    return render_template(
        "library/copies.html", problem=problem, kept=kept[:SHOWN], more=len(kept[SHOWN:]), place=place.name
    )


@pages.get("/pleat.db")
def download() -> Response | tuple[str, int]:
    """A copy as it is this moment, whatever is being changed meanwhile."""
    place = backups.folder(_database())
    try:
        place.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory(prefix=".going-", dir=place) as folder:
            made = Path(folder) / "copy.db"
            backups.backup(_database(), made)
            file = made.open("rb")  # stays readable after its name is gone
    except OSError as error:
        return _page(f"No copy could be made ({error.strerror})."), 503
    except backups.BadBackup as error:
        return _page(error.text), 503
    return send_file(
        file, "application/vnd.sqlite3", as_attachment=True, download_name=f"pleat-{date.today():%Y-%m-%d}.db"
    )


@pages.get("/kept/<name>")
def kept(name: str) -> Response:
    return send_file(_kept(name), "application/vnd.sqlite3", as_attachment=True, download_name=name)


# --- putting one back
# -----------------------------------------------------------------------------------------


@pages.post("")
def put_back() -> AnyResponse | tuple[str, int]:
    """Put an uploaded copy in the place of everything: all of it in one request, which is how large a request
    may be."""
    file = request.files.get("file")
    if file is None or not file.filename:
        return _page("Choose a copy first: it ends in .db."), 422
    try:
        token = _parts().begin(request.content_length or 0)
        file.save(_parts().file(token))
    except backups.BadBackup as error:
        return _page(error.text), 422
    return _begun(file.filename, _parts().file(token), passing=True)


@pages.post("/kept/<name>/back")
def put_kept_back(name: str) -> AnyResponse:
    return _begun(name, _kept(name), passing=False)


@pages.post("/given")
def begin() -> tuple[dict[str, str], int]:
    """A copy is about to come in parts: where they go, or why it cannot be taken."""
    try:
        token = _parts().begin(asked.number(request.form, "size", 0, 0, 10**15))
    except backups.BadBackup as error:
        return {"problem": error.text}, 422
    return {"part": url_for("copies.part", token=token), "whole": url_for("copies.whole", token=token)}, 200


@pages.post("/given/<token>")
def part(token: str) -> tuple[dict[str, str], int]:
    try:
        _parts().add(token, asked.number(request.args, "at", 0, 0, 10**15), request.get_data(cache=False))
    except backups.BadBackup as error:
        return {"problem": error.text}, 422
    return {}, 200


@pages.post("/given/<token>/whole")
def whole(token: str) -> AnyResponse | tuple[str, int]:
    try:
        given = _parts().file(token)
    except backups.BadBackup as error:
        return _page(error.text), 422
    return _begun(asked.word(request.form, "name"), given, passing=True)


def _begun(name: str, given: Path, passing: bool) -> AnyResponse:
    job = _restorings().start(name[:80] or "a copy", given, passing)
    return redirect(url_for("copies.going_back", token=job.token), 303)


@pages.get("/back/<token>")
def going_back(token: str) -> str:
    """How far a copy is on its way; asked for again by the page while it is read."""
    job = _job(token)
    template = "library/_going_back.html" if request.args.get("again") else "library/going_back.html"
    return render_template(template, job=job, state=job.state)


@pages.post("/back/<token>/stop")
def stop(token: str) -> AnyResponse:
    _job(token).stop = True
    return redirect(url_for("copies.going_back", token=token), 303)


def _job(token: str) -> Restoring:
    job = _restorings().find(token)
    if job is None:
        abort(
            404,
            "Pleat was started afresh since this copy was to be put back. Look among your books whether it "
            "is there.",
        )
    return job


def _kept(name: str) -> Path:
    """A copy of the folder beside the database, which is no way to any other file."""
    path = next((one for one in backups.folder(_database()).glob("*.db") if one.name == name), None)
    if path is None or path.is_symlink() or not path.is_file():
        abort(404, "There is no such copy any more.")
    return path


def _database() -> Path:
    return Path(current_app.config["PLEAT_DATABASE"])


def _restorings() -> Restorings:
    found: Restorings = current_app.extensions["pleat_restorings"]
    return found


def _parts() -> Parts:
    found: Parts = current_app.extensions["pleat_parts"]
    return found
