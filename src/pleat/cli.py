"""The command line: plan a book file, print the schema, serve the application."""

from __future__ import annotations

import json
import sys
from dataclasses import fields, is_dataclass
from pathlib import Path
from typing import Any

import click

from pleat.caliper.standin import FAULTS, Settings, StandIn
from pleat.core.bookfile import book_schema, read_book
from pleat.core.errors import BadBook
from pleat.core.estimate import Estimate
from pleat.core.planning import make_plan


@click.group()
def main() -> None:
    """Pleat works out hand-bound books."""


@main.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
def plan(file: Path) -> None:
    """Print the whole plan of a book FILE as JSON; lengths in mm. Exit code 2 when the file is not a book."""
    try:
        book = read_book(file.read_bytes())
    except BadBook as error:
        for problem in error.problems:
            click.echo(f"{problem.path or file.name}: {problem.message}", err=True)
        sys.exit(2)
    click.echo(json.dumps({name: as_json(result) for name, result in make_plan(book)}, ensure_ascii=False, indent=2))


@main.command()
def schema() -> None:
    """Print the JSON schema of a book file."""
    click.echo(json.dumps(book_schema(), ensure_ascii=False, indent=2))


@main.command()
@click.option(
    "--database",
    type=click.Path(dir_okay=False, path_type=Path),
    default=Path("pleat.db"),
    show_default=True,
    help="where the books are kept",
)
@click.option("--host", default="127.0.0.1", show_default=True, help="the address to listen on; anything but 127.0.0.1 lets others in")
@click.option("--port", default=5180, show_default=True)
@click.option("--caliper", default="127.0.0.1:5186", show_default=True, help="where a digital caliper is read; see docs/caliper.md")
@click.option("--demo", is_flag=True, help="fill an empty shelf with made-up things and books, and bring a stand-in for a caliper")
def serve(database: Path, host: str, port: int, caliper: str, demo: bool) -> None:
    """Serve Pleat to the browser."""
    from waitress import create_server

    from pleat.demo import fill
    from pleat.store.database import transaction
    from pleat.web.app import create_app

    if demo:
        stand_in = StandIn()
        stand_in.start()
        caliper = stand_in.address
    app = create_app(database, {"PLEAT_CALIPER": caliper})
    if demo:
        with transaction(app.extensions["pleat_engine"]) as session:
            fill(session)
    try:
        server = create_server(app, host=host, port=port, threads=8)
    except OSError as error:
        raise click.ClickException(f"Port {port} is taken ({error.strerror}). Try another: --port {port + 1}") from error
    click.echo(f"Pleat is open at http://{host}:{server.effective_port}/  (stop it with Ctrl-C)")
    server.run()


@main.command("caliper-stand-in")
@click.option("--port", default=5186, show_default=True)
@click.option("--sheet", type=float, default=None, help="thickness of one sheet in mm; without it, what Pleat expects")
@click.option("--noise", type=float, default=0.006, show_default=True, help="standard deviation of a reading in mm")
@click.option("--zero", type=float, default=0.0, show_default=True, help="what it shows in mm with closed jaws")
@click.option("--unit", type=click.Choice(["mm", "in"]), default="mm", show_default=True, help="what its unit key is set to")
@click.option("--fault", type=click.Choice(FAULTS), default="none", show_default=True, help="a fault to show")
def caliper_stand_in(port: int, sheet: float | None, noise: float, zero: float, unit: str, fault: str) -> None:
    """Stand in for a digital caliper on a line of this machine; the protocol is in docs/caliper.md."""
    try:
        stand_in = StandIn(port, Settings(sheet, noise, zero, unit, fault))
    except OSError as error:
        raise click.ClickException(f"Port {port} is taken ({error.strerror}). Try another: --port {port + 1}") from error
    click.echo(f"the stand-in listens at {stand_in.address}  (stop it with Ctrl-C)")
    stand_in.serve_forever()


def as_json(value: Any) -> Any:
    """Plain data from results: dataclasses as objects, estimates as low, likely and high, functions left out."""
    if isinstance(value, Estimate):
        return {"low": value.low, "likely": value.likely, "high": value.high, "main_doubt": value.main_doubt()}
    if is_dataclass(value):
        return {field.name: as_json(getattr(value, field.name)) for field in fields(value) if not callable(getattr(value, field.name))}
    if isinstance(value, (tuple, list)):
        return [as_json(one) for one in value]
    if hasattr(value, "items"):
        return {key: as_json(one) for key, one in value.items()}
    return value
