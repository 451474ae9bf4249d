"""The house's rule: the core knows nothing of files, web or database, and arrows between packages go one
way."""

import ast
import statistics
import subprocess
import sys
from collections import defaultdict
from functools import cache
from pathlib import Path

import networkx

import pleat

SOURCE = Path(pleat.__file__).parent
MAY_USE = {
    "core": {"core"},
    "drawing": {"core", "drawing"},
    "printing": {"core", "drawing", "printing"},
    "store": {"core", "store"},
    "caliper": {"core", "caliper"},
    "services": {"core", "caliper", "drawing", "store", "services"},
    "web": {"core", "caliper", "drawing", "printing", "store", "services", "web"},
}
ROOMS = ["whole", "document", "pleats", "materials", "engines", "base", "trade"]
"""Of the core, from the top down; their own words say what each knows."""
PLEAT_ORDER = ["brief", "paper", "pages", "extras", "binding", "cover", "cutting", "bench"]


@cache
def read(path: Path) -> tuple[ast.AST, ...]:
    return tuple(ast.walk(ast.parse(path.read_text())))


@cache
def imports(path: Path) -> set[str]:
    found = set()
    for node in read(path):
        if isinstance(node, ast.ImportFrom) and node.module:
            found |= {node.module} | {f"{node.module}.{alias.name}" for alias in node.names}
        elif isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
    return found


def test_the_core_loads_without_web_database_or_templates():
    code = (
        "import sys, pleat.core.whole.planning, pleat.core.document.editing, "
        "pleat.core.document.bookfile; print([m for m in ('flask', 'sqlalchemy', 'jinja2', 'cairosvg', "
        "'sqlite3') if m in sys.modules])"
    )
    out = subprocess.run(
        [sys.executable, "-c", code],
        capture_output=True,
        text=True,
        check=True,
        env={"PYTHONPATH": str(SOURCE.parent)},
    )
    assert out.stdout.strip() == "[]"


def test_packages_import_only_what_stands_below_them():
    for package, allowed in MAY_USE.items():
        for path in (SOURCE / package).rglob("*.py"):
            used = {name.split(".")[1] for name in imports(path) if name.startswith("pleat.")}
            assert used - {"errors"} <= allowed, f"{path.relative_to(SOURCE)} uses {used - allowed}"


def test_a_pleat_reads_only_what_stands_to_its_left():
    shared = {("brief", "paper")}  # the brief names sizes with the table of sheet sizes
    for place, name in enumerate(PLEAT_ORDER):
        for path in (SOURCE / "core/pleats" / name).rglob("*.py"):
            for module in imports(path):
                parts = module.split(".")
                if parts[:3] == ["pleat", "core", "pleats"] and len(parts) > 3 and parts[3] in PLEAT_ORDER:
                    other = parts[3]
                    assert PLEAT_ORDER.index(other) <= place or (name, other) in shared, (
                        f"{path.name} of {name} reads {other}"
                    )


def functions():
    for path in SOURCE.rglob("*.py"):
        for node in read(path):
            if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
                yield path, node


def test_the_habits_of_the_house():
    """No function over 60 lines, none with more than 6 positional parameters, half of the modules under 130
    lines, none over 470 but the table of recipes."""
    for path, node in functions():
        where = f"{path.relative_to(SOURCE)}: {node.name}"
        assert node.end_lineno - node.lineno < 60, where
        names = [
            one.arg for one in (*node.args.posonlyargs, *node.args.args) if one.arg not in ("self", "cls")
        ]
        assert len(names) <= 6, where
    sizes = [
        len(path.read_text().splitlines()) for path in SOURCE.rglob("*.py") if path.name != "__init__.py"
    ]
    assert statistics.median(sizes) < 130
    assert sorted(sizes)[-2] <= 470


def test_a_conditional_stands_by_itself():
    """None inside another, none inside an f-string: it is a line or a function of its own. Migrations stay as
    they were run."""
    inside = []
    for path in SOURCE.rglob("*.py"):
        if "migrations" in path.parts:
            continue
        for node in read(path):
            if isinstance(node, ast.IfExp):
                parts = [node.test, node.body, node.orelse]
            elif isinstance(node, ast.FormattedValue):
                parts = [node.value]
            else:
                continue
            if any(isinstance(under, ast.IfExp) for part in parts for under in ast.walk(part)):
                inside.append(f"{path.relative_to(SOURCE)}:{node.lineno}")
    assert not inside


def test_the_rooms_of_the_core_import_only_downwards():
    """Each room knows those after it in ROOMS and itself; nothing lies loose beside them."""
    assert sorted(path.name for path in (SOURCE / "core").iterdir() if path.name != "__pycache__") == sorted(
        [*ROOMS, "__init__.py"]
    )
    for place, room in enumerate(ROOMS):
        for path in (SOURCE / "core" / room).rglob("*.py"):
            used = {name.split(".")[2] for name in imports(path) if name.startswith("pleat.core.")}
            assert used <= set(ROOMS[place:]), f"{path.relative_to(SOURCE)} uses {used - set(ROOMS[place:])}"


def test_below_the_document_nobody_knows_the_book():
    for room in ROOMS[2:]:
        for path in (SOURCE / "core" / room).rglob("*.py"):
            known = {
                name for name in imports(path) if name.startswith(("pleat.core.document", "pleat.core.whole"))
            }
            assert not known, f"{path.relative_to(SOURCE)} knows {known}"


def test_a_class_has_a_name_of_its_own():
    """One who reads a name, or looks for it, finds one thing."""
    places = defaultdict(set)
    for path in SOURCE.rglob("*.py"):
        for node in read(path):
            if isinstance(node, ast.ClassDef):
                places[node.name].add(str(path.relative_to(SOURCE)))
    assert {name: where for name, where in places.items() if len(where) > 1} == {}


def test_no_packages_import_each_other():
    graph = networkx.DiGraph()
    for path in SOURCE.rglob("*.py"):
        own = ".".join(("pleat", *path.relative_to(SOURCE).with_suffix("").parts)).removesuffix(".__init__")
        for name in imports(path):
            if name.startswith("pleat.") and name != own:
                graph.add_edge(own, name)
    assert not list(networkx.simple_cycles(graph, length_bound=4))
