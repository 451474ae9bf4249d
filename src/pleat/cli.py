"""The command line: plan a book file, print the schema, serve the application."""

from __future__ import annotations

import json
import signal
import sys
import threading
import time
from contextlib import suppress
from datetime import date
from pathlib import Path

import click

from pleat.caliper.standin import FAULTS, Settings, StandIn
from pleat.core.base.errors import BadBook
from pleat.core.document.book import Book
from pleat.core.document.bookfile import book_schema, read_book
from pleat.core.document.recipes import RECIPES
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan


@click.group()
def main() -> None:
    """Pleat works out hand-bound books."""


@main.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option(
    "--part",
    type=click.Choice(("list", "steps", "checks", "cutting")),
    help="a table for people instead of JSON",
)
@click.option(
    "--rounds",
    type=click.IntRange(0, 200),
    default=0,
    show_default=True,
    help="rounds of looking for plans of the sheets that take fewer, and for the proof that none does",
)
@click.option("--scenes", is_flag=True, help="the picture of each step as well: what lies where, in mm")
def plan(file: Path, part: str | None, rounds: int, scenes: bool) -> None:
    """Print the whole plan of a book FILE as JSON, lengths in mm, or one table of it. Exit code 2 when the
    file is not a book."""
    made = make_plan(_read(file), rounds=rounds)
    if part:
        from pleat.printing.text import PARTS

        click.echo(PARTS[part](made))
    else:
        click.echo(json.dumps(plan_data(made, scenes=scenes), ensure_ascii=False, indent=2))


def _read(file: Path) -> Book:
    """The book in a file; ends with 2 and a line for each problem where there is none."""
    try:
        return read_book(file.read_bytes())
    except BadBook as error:
        for problem in error.problems:
            click.echo(f"{problem.path or file.name}: {problem.message}", err=True)
        sys.exit(2)


@main.command()
@click.option(
    "--into", type=click.Path(file_okay=False, path_type=Path), help="write the book files into this folder"
)
def examples(into: Path | None) -> None:
    """List the example books, one a recipe, or write their book files into a folder."""
    from pleat.examples import names, text

    for recipe in RECIPES:
        click.echo(f"{recipe.name:12}{recipe.title}: {recipe.says}")
    if into:
        into.mkdir(parents=True, exist_ok=True)
        for name in names():
            (into / f"{name}.pleat.json").write_text(text(name), encoding="utf-8")
        click.echo(
            f"{len(names())} book files are in {into}; try: pleat plan {into / (names()[0] + '.pleat.json')} "
            "--part steps"
        )


@main.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option(
    "--what",
    default="stations",
    show_default=True,
    help="which strip or piece; another name lists those the book has",
)
@click.option("--as", "form", type=click.Choice(["svg", "dxf"]), default="svg", show_default=True)
def template(file: Path, what: str, form: str) -> None:
    """Print one strip or piece of the book in FILE at true size, as SVG or DXF in mm."""
    from pleat.printing import templates

    found = templates.files(make_plan(_read(file)))
    if what not in found:
        raise click.ClickException(
            f"This book has no strip or piece “{what}”. It has: {', '.join(found) or 'none'}."
        )
    click.echo(templates.written(found[what], form))


@main.group()
def stitch() -> None:
    """Stitches of your own."""


@stitch.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option(
    "--stations",
    type=click.IntRange(1, 15),
    default=None,
    help="holes in the fold; without it, as many as the stitch uses",
)
@click.option(
    "--sections",
    type=click.IntRange(1, 60),
    default=None,
    help="sections of the book; without it, as many as it was written for",
)
def check(file: Path, stations: int | None, sections: int | None) -> None:
    """Say what cannot be sewn of the stitch in FILE, a line such as “2 in | 2 1 3 2 =over”. Exits with 1
    where something is wrong."""
    from pleat.core.engines.sewing.own import checked

    try:
        text = file.read_text(encoding="utf-8")
    except UnicodeDecodeError as error:
        raise click.ClickException(f"{file} is not a text file.") from error
    wrong, words = checked(text, stations, sections)
    click.echo("\n".join(words))
    sys.exit(1 if wrong else 0)


@main.command()
def schema() -> None:
    """Print the JSON schema of a book file."""
    click.echo(json.dumps(book_schema(), ensure_ascii=False, indent=2))


_DATABASE = click.option(
    "--database",
    type=click.Path(dir_okay=False, path_type=Path),
    default=Path("pleat.db"),
    show_default=True,
    help="where the books are kept",
)


@main.command()
@_DATABASE
@click.option(
    "--host",
    default="127.0.0.1",
    show_default=True,
    help="the address to listen on; others than this machine's own ask for a pairing code",
)
@click.option(
    "--allow-host",
    multiple=True,
    help="another name this machine is asked for under; may be given several times",
)
@click.option("--port", default=5180, show_default=True)
@click.option(
    "--caliper",
    default="127.0.0.1:5186",
    show_default=True,
    help="where a digital caliper is read; see docs/caliper.md",
)
@click.option(
    "--demo",
    is_flag=True,
    help="fill an empty database with made-up materials and books, and bring a stand-in for a caliper",
)
def serve(
    database: Path, host: str, allow_host: tuple[str, ...], port: int, caliper: str, demo: bool
) -> None:
    """Serve Pleat to the browser."""
    from pleat.demo import fill
    from pleat.store.database import CannotOpen, close, transaction
    from pleat.web import pairing
    from pleat.web.app import create_app
    from pleat.web.serving import listening, make_server, tidy_when_quiet

    if demo:
        stand_in = StandIn()
        stand_in.start()
        caliper = stand_in.address
    away = host not in ("127.0.0.1", "localhost", "::1")
    hosts = (
        *((_bracketed(address) for address in pairing.addresses(host)) if away else ()),
        *(name.lower() for name in allow_host),
    )
    config = {
        "PLEAT_CALIPER": caliper,
        "PLEAT_HOSTS": hosts,
        "PLEAT_PAIRING": pairing.new_code() if away else "",
    }
    try:
        made = listening(host, port)
    except (OSError, OverflowError) as error:
        words = getattr(error, "strerror", None) or error
        raise click.ClickException(
            f"Port {port} is taken ({words}). Try another: --port {min(port, 65534) + 1}"
        ) from error
    with made:
        config |= {"PLEAT_PORT": made.getsockname()[1]}
        try:
            app = create_app(database, config)
        except CannotOpen as error:
            raise click.ClickException(error.text) from error
        engine = app.extensions["pleat_engine"]
        if demo:
            with transaction(engine) as session:
                fill(session)
        server = make_server(app, [made])
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        _daily_copies(database)
        click.echo(f"Pleat is open at http://{host}:{config['PLEAT_PORT']}/  (stop it with Ctrl-C)")
        if away:
            click.echo(
                f"Pairing code for other devices: {config['PLEAT_PAIRING']}  (also at "
                f"http://127.0.0.1:{config['PLEAT_PORT']}/pair)"
            )
        try:
            tidy_when_quiet(app)
            server.run()
        finally:
            close(engine)


def _bracketed(address: str) -> str:
    return f"[{address}]" if ":" in address else address.lower()


def _daily_copies(database: Path) -> None:
    """A copy a day, looked for once an hour while Pleat runs."""
    from pleat.store import backups

    def look() -> None:
        while True:
            with suppress(backups.BadBackup, OSError):
                backups.daily(database, date.today())
            time.sleep(3600)

    threading.Thread(target=look, daemon=True, name="pleat-copies").start()


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@_DATABASE
def backup(file: Path, database: Path) -> None:
    """Copy all books and materials to FILE, also while Pleat runs."""
    from pleat.store import backups

    _there(database)
    try:
        books = backups.backup(database, file)
    except backups.BadBackup as error:
        raise click.ClickException(error.text) from error
    click.echo(f"{file} holds {books} books, and was checked")


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@_DATABASE
def restore(file: Path, database: Path) -> None:
    """Put a copy, FILE, in the place of everything in the database, also while Pleat runs. What was there is
    copied first."""
    from pleat.services import copies
    from pleat.store.backups import BadBackup
    from pleat.store.database import CannotOpen, migrate

    try:
        migrate(database)
        back = copies.restore(database, file)
    except CannotOpen as error:
        raise click.ClickException(
            f"{error.text} To put a copy in its place, move it elsewhere first."
        ) from error
    except BadBackup as error:
        raise click.ClickException(f"{error.text} Nothing was changed.") from error
    click.echo(f"{back.books} books are back in {database}; what was there is in {back.kept}")


@main.command()
@click.argument("folder", type=click.Path(file_okay=False, path_type=Path))
@_DATABASE
def export(folder: Path, database: Path) -> None:
    """Write every book as a book file and the materials as a table into FOLDER."""
    from pleat.services import library
    from pleat.store.database import CannotOpen, close, migrate, open_engine, transaction

    _there(database)
    try:
        migrate(database)
    except CannotOpen as error:
        raise click.ClickException(error.text) from error
    engine = open_engine(database)
    try:
        with transaction(engine, reading=True) as session:
            out = library.export_all(session, folder)
    except OSError as error:
        raise click.ClickException(f"{folder} cannot be written to: {error.strerror}") from error
    finally:
        close(engine)
    click.echo(f"{folder} holds {out.books} books and {out.items} materials")
    for one in out.failed:
        click.echo(f"Not written: {one}", err=True)
    sys.exit(1 if out.failed else 0)


def _there(database: Path) -> None:
    if not database.exists():
        raise click.ClickException(f"There is no database at {database}. Name it with --database.")


@main.command("caliper-stand-in")
@click.option("--port", default=5186, show_default=True)
@click.option(
    "--sheet", type=float, default=None, help="thickness of one sheet in mm; without it, what Pleat expects"
)
@click.option(
    "--noise", type=float, default=0.006, show_default=True, help="standard deviation of a reading in mm"
)
@click.option(
    "--zero", type=float, default=0.0, show_default=True, help="what it shows in mm with closed jaws"
)
@click.option(
    "--unit",
    type=click.Choice(["mm", "in"]),
    default="mm",
    show_default=True,
    help="what its unit key is set to",
)
@click.option("--fault", type=click.Choice(FAULTS), default="none", show_default=True, help="a fault to show")
def caliper_stand_in(
    port: int, sheet: float | None, noise: float, zero: float, unit: str, fault: str
) -> None:
    """Stand in for a digital caliper on a line of this machine; the protocol is in docs/caliper.md."""
    try:
        stand_in = StandIn(port, Settings(sheet, noise, zero, unit, fault))
    except OSError as error:
        raise click.ClickException(
            f"Port {port} is taken ({error.strerror}). Try another: --port {port + 1}"
        ) from error
    click.echo(f"the stand-in listens at {stand_in.address}  (stop it with Ctrl-C)")
    stand_in.serve_forever()
