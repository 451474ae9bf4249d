"""The application factory."""

from __future__ import annotations

import os
import secrets
from functools import partial
from pathlib import Path
from typing import Any

from flask import Flask
from flask_compress import Compress
from flask_wtf.csrf import CSRFProtect

from pleat.services.arranging import Arrangings
from pleat.services.imports import Imports
from pleat.services.jobs import Jobs
from pleat.services.proving import Proofs
from pleat.services.restoring import Parts, Restorings
from pleat.store.database import migrate, open_engine, transaction
from pleat.web import (
    copies,
    covers,
    display,
    errors,
    extras,
    folding,
    history,
    library,
    making,
    materials,
    piles,
    printing,
    security,
    sewing,
    sheets,
    starting,
    tables,
    turning,
    workspace,
)
from pleat.web.downloads import stamp

FORM_LIMIT = 8_200_000
"""Bytes of one request: a table of materials of the largest size and its form."""


def create_app(database: Path | str, config: dict[str, Any] | None = None) -> Flask:
    """The application on a database file, which is made or migrated first. ``config`` overrides Flask's
    settings."""
    migrate(database)
    app = Flask(__name__, static_url_path=f"/static/{stamp(Path(__file__).parent / 'static')}")
    app.config.from_mapping(
        SECRET_KEY=_secret(Path(database).parent),
        PLEAT_HOSTS=(),
        PLEAT_PAIRING="",
        PLEAT_PORT=5180,
        SESSION_COOKIE_NAME="pleat",
        MAX_CONTENT_LENGTH=FORM_LIMIT,
        SESSION_COOKIE_SAMESITE="Strict",
        SESSION_COOKIE_HTTPONLY=True,
        PLEAT_CALIPER="127.0.0.1:5186",
        WTF_CSRF_TIME_LIMIT=None,
        COMPRESS_ALGORITHM="gzip",
        COMPRESS_LEVEL=4,
        COMPRESS_MIMETYPES=["text/html", "text/css", "text/javascript", "application/json", "image/svg+xml"],
    )
    app.config.update(config or {})
    if config and "PLEAT_PORT" in config:
        app.config["SESSION_COOKIE_NAME"] = (
            f"pleat_{config['PLEAT_PORT']}"  # two Pleats on one machine keep their own
        )
    put_on(app, database)
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    for part in (security, display, errors):
        part.register(app)
    CSRFProtect(app)
    Compress(app)
    for pages in (
        library,
        starting,
        workspace,
        sewing,
        making,
        covers,
        extras,
        folding,
        turning,
        piles,
        sheets,
        history,
        printing,
        tables,
        materials,
        copies,
    ):
        app.register_blueprint(pages.pages)
    return app


def put_on(app: Flask, database: Path | str) -> None:
    """Put the application on a database file, which is there and migrated, with nothing under way."""
    if "pleat_proofs" in app.extensions:
        app.extensions["pleat_proofs"].end()
    engine = app.extensions["pleat_engine"] = open_engine(database)
    app.config["PLEAT_DATABASE"] = Path(database)
    app.extensions["pleat_imports"] = Imports(
        partial(transaction, engine, reading=True), partial(transaction, engine)
    )
    app.extensions["pleat_arrangings"] = Arrangings()
    app.extensions["pleat_proofs"] = Proofs()
    app.extensions["pleat_prints"] = Jobs("print")
    app.extensions["pleat_restorings"] = Restorings(Path(database))
    app.extensions["pleat_parts"] = Parts(Path(database))


def _secret(folder: Path) -> str:
    """The key that signs cookies, made once beside the database and readable only by its owner; whole or not
    at all."""
    path = folder / "secret.key"
    if path.exists() and len(path.read_text().strip()) >= 32:
        return path.read_text().strip()
    made = folder / f".secret.{os.getpid()}.{secrets.token_hex(4)}"
    with os.fdopen(os.open(made, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as file:
        file.write(secrets.token_hex(32))
    made.replace(path)
    return path.read_text().strip()
