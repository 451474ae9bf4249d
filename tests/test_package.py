"""What a stranger gets: a wheel that holds all that is served, and papers that are made from what they speak
of."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import zipfile
from pathlib import Path

import pleat
from pleat.core.base.glossary import GLOSSARY
from tests.process import ROOT
from tools import glossary

SOURCE = Path(pleat.__file__).parent
SERVED = """
import pathlib, re, sys, pleat
from pleat.web.app import create_app

here = pathlib.Path(sys.argv[1])
assert pathlib.Path(pleat.__file__).is_relative_to(here), pleat.__file__
app = create_app(here / "books.db")
client = app.test_client()
page = client.get("/books/5").get_data(as_text=True)
linked = re.findall(r'(?:src|href)="(/static/[^"]+)"', page)
assert len(linked) > 10, page
for address in linked:
    assert client.get(address).status_code == 200, address
for script in (here / "pleat/web/static").rglob("*.*"):
    address = f"{app.static_url_path}/{script.relative_to(here / 'pleat/web/static')}"
    assert client.get(address).status_code == 200, script
for view in ("/", "/new", "/materials", "/books/5/print", "/books/12/folding"):
    assert client.get(view).status_code == 200, view
assert client.get("/books/5/print.pdf", follow_redirects=True).status_code == 200
"""


def test_the_wheel_holds_all_that_is_served(demo_database, tmp_path):
    """Built without the network, unpacked beside the source, and served from there."""
    tree, wheels, here = tmp_path / "tree", tmp_path / "wheels", tmp_path / "here"
    shutil.copytree(SOURCE, tree / "src/pleat", ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copytree(ROOT / "requirements", tree / "requirements")
    for name in ("pyproject.toml", "README.md", "LICENSE"):
        shutil.copyfile(ROOT / name, tree / name)
    build = [
        "wheel",
        "--quiet",
        "--no-index",
        "--no-deps",
        "--no-build-isolation",
        "--wheel-dir",
        str(wheels),
        str(tree),
    ]
    subprocess.run([sys.executable, "-m", "pip", *build], check=True, env=os.environ | {"PIP_NO_INPUT": "1"})
    (wheel,) = wheels.iterdir()
    zipfile.ZipFile(wheel).extractall(here)
    there = {
        path.relative_to(SOURCE)
        for path in SOURCE.rglob("*")
        if path.is_file() and "__pycache__" not in path.parts
    }
    assert there == {
        path.relative_to(here / "pleat") for path in (here / "pleat").rglob("*") if path.is_file()
    }
    (metadata,) = here.glob("*.dist-info/METADATA")
    assert "License-Expression: MIT" in metadata.read_text()
    assert (metadata.parent / "licenses/LICENSE").read_text() == (ROOT / "LICENSE").read_text()
    shutil.copyfile(demo_database, here / "books.db")
    subprocess.run(
        [sys.executable, "-c", SERVED, str(here)],
        check=True,
        cwd=here,
        env=os.environ | {"PYTHONPATH": str(here)},
    )


def test_the_glossary_explains_each_word_once_in_one_sentence():
    terms = [term for group in GLOSSARY.values() for term in group]
    words = [word for term in terms for word in (term.word, *term.also)]
    assert len(set(words)) == len(words)
    for term in terms:
        assert re.fullmatch(r"[A-Z][^.]*\.", term.meaning), term.word
    assert glossary.PAGE.read_text() == glossary.page()


def test_every_paper_that_is_linked_is_there():
    papers = [ROOT / name for name in ("README.md", "CONTRIBUTING.md", "CHANGELOG.md")] + [
        *(ROOT / "docs").rglob("*.md")
    ]
    for paper in papers:
        for link in re.findall(r"\]\(([^)#:]+)\)", paper.read_text()):
            assert (paper.parent / link).exists(), f"{paper.relative_to(ROOT)} links to {link}"
    assert all(
        f"({path.name})" in (ROOT / "docs/decisions/README.md").read_text()
        for path in (ROOT / "docs/decisions").glob("[0-9]*.md")
    )
