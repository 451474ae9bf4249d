"""The request's transaction: explicit in each handler, so that it is committed before an answer is written.

A page says from which epoch it is; a change asked for by a page of an older one is refused within the very
transaction that would make it.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Final

from flask import current_app, g, request
from flask_wtf.csrf import CSRFError, generate_csrf
from markupsafe import Markup
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from pleat.store import epochs
from pleat.store.database import transaction

HEADER: Final = "X-Epoch"
FIELD: Final = "epoch"
SAFE: Final = ("GET", "HEAD", "OPTIONS")


@contextmanager
def reading() -> Iterator[Session]:
    with transaction(current_app.extensions["pleat_engine"], reading=True) as session:
        _hold(session)
        yield session


@contextmanager
def writing() -> Iterator[Session]:
    with transaction(current_app.extensions["pleat_engine"]) as session:
        _hold(session)
        yield session


def _hold(session: Session) -> None:
    """Raises PutBackSince for a page of an older epoch, CSRFError for one of a Pleat that knew none; what is
    read first says of which one the answer is."""
    given = {
        *request.headers.getlist(HEADER),
        *(() if request.method in SAFE else request.form.getlist(FIELD)),
    }
    if not given and request.method not in SAFE:
        raise CSRFError("The page does not say from which epoch it is.")
    if given:
        epochs.hold(session, given)
    g.setdefault("epoch", epochs.current(session))


def epoch() -> str:
    """The epoch of what this answer shows; "" where the database cannot be read, which its page says."""
    if "epoch" not in g:
        try:
            with transaction(current_app.extensions["pleat_engine"], reading=True) as session:
                g.epoch = epochs.current(session)
        except SQLAlchemyError:
            return ""
    return str(g.epoch)


def own() -> Markup:
    """What every form of a page brings along: that it is one of ours, and from which epoch."""
    field = '<input type="hidden" name="{}" value="{}">'
    return Markup(field).format("csrf_token", generate_csrf()) + Markup(field).format(FIELD, epoch())
