"""Fixtures every test may ask for: a fresh database, the application on it, and a served one for the
browser."""

from __future__ import annotations

import os
import shutil
from collections.abc import Callable, Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from flask import Flask
from flask.testing import FlaskClient
from hypothesis import settings
from jinja2 import FileSystemBytecodeCache

from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.whole.planning import Plan, make_plan
from pleat.demo import fill
from pleat.store.database import close, transaction
from pleat.web.app import create_app, put_on
from pleat.web.serving import listening
from tests.process import on_its_page, serving
from tests.profiles import LONG, examples

settings.register_profile("quick", max_examples=examples(60), deadline=None, derandomize=True, database=None)
settings.register_profile("long", max_examples=examples(60), deadline=None, print_blob=True)
settings.load_profile("long" if LONG else "quick")
Flask.jinja_options = {"bytecode_cache": FileSystemBytecodeCache()}


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """Of the cases of a test marked ``every(n)`` the quick run takes one of n, other tests other ones; one
    that is asked for by its name runs."""
    if LONG or any("::" in argument for argument in config.args):
        return
    seen: dict[str, int] = {}
    left: list[pytest.Item] = []
    for item in items:
        mark = item.get_closest_marker("every")
        name = item.nodeid.split("[")[0]
        seen[name] = seen.get(name, -1) + 1
        if mark is None or (seen[name] + len(name)) % mark.args[0] == 0:
            left.append(item)
    kept = set(left)
    config.hook.pytest_deselected(items=[item for item in items if item not in kept])
    items[:] = left


@pytest.fixture
def database(tmp_path: Path) -> Path:
    return tmp_path / "pleat.db"


@pytest.fixture(scope="session")
def quiet_app(demo_database: Path) -> Flask:
    """An application without the token, made once and put on a database of its own for each test."""
    return create_app(demo_database, {"TESTING": True, "WTF_CSRF_ENABLED": False})


@pytest.fixture(scope="session")
def whole_app(demo_database: Path) -> Flask:
    """An application as it is served in earnest, made once and put on a database of its own for each test."""
    return create_app(demo_database)


@pytest.fixture
def app(quiet_app: Flask, demo_database: Path, database: Path) -> Iterator[Flask]:
    shutil.copyfile(demo_database, database)
    config = dict(quiet_app.config)
    put_on(quiet_app, database)
    yield quiet_app
    quiet_app.extensions["pleat_engine"].dispose()
    quiet_app.config.update(config)


@pytest.fixture
def client(app: Flask) -> FlaskClient:
    return on_its_page(app)


@pytest.fixture(scope="session")
def demo_database(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A database with the demo in it, made once and copied by those who change it."""
    path = tmp_path_factory.mktemp("demo") / "pleat.db"
    app = create_app(path)
    with transaction(app.extensions["pleat_engine"]) as session:
        fill(session)
    close(app.extensions["pleat_engine"])
    return path


@pytest.fixture(scope="session")
def port() -> int:
    """A port of this worker's own: at one address a browser keeps what is shipped from test to test."""
    with closing(listening("127.0.0.1", 0)) as found:
        return int(found.getsockname()[1])


@pytest.fixture
def served(whole_app: Flask, demo_database: Path, tmp_path: Path, port: int) -> Iterator[str]:
    """The address of Pleat with the demo's books."""
    path = tmp_path / "served.db"
    shutil.copyfile(demo_database, path)
    put_on(whole_app, path)
    with serving(whole_app, port) as address:
        yield address


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    quiet = [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
    ]
    return {
        **browser_type_launch_args,
        "executable_path": os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell"),
        "args": quiet,
    }


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}}


@pytest.fixture
def planned() -> Callable[..., Plan]:
    """``planned(**{"cover.square_mm": "5"})`` plans the default book with fields typed as a maker would."""

    def make(book: Book | None = None, **texts: str) -> Plan:
        return make_plan(edited(book or Book(), texts))

    return make


def edited(book: Book, texts: dict[str, str]) -> Book:
    """The book with each text typed in turn; ``__`` in a name stands for a dot."""
    for path, text in texts.items():
        book = editing.edit(book, {path.replace("__", "."): text})
    return book
