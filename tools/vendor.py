#!/usr/bin/env python3
"""Copies the scripts, styles and fonts that ship with Pleat out of their packages, with their licences.

Run by hand after changing a version below; needs npm and the development requirements. What it writes is
committed, so that neither running nor testing Pleat fetches anything. (static/vendor/alpine/LICENSE was
written by hand: the package says MIT in its package.json and carries no licence file.)
"""

import shutil
import subprocess
import tempfile
from pathlib import Path

from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

ROOT = Path(__file__).resolve().parents[1]
STATIC = ROOT / "src/pleat/web/static/vendor"
PRINT_FONTS = ROOT / "src/pleat/printing/fonts"
AXE = ROOT / "tests/vendor"
VERSIONS = {
    "htmx.org": "4.0.1",
    "@alpinejs/csp": "3.17.4",
    "bootstrap": "5.3.8",
    "@fontsource-variable/atkinson-hyperlegible-next": "5.3.0",
    "@fontsource-variable/alegreya": "5.3.0",
    "axe-core": "4.14.1",
}
_READ = "@fontsource-variable/atkinson-hyperlegible-next"
FILES = {
    "htmx.org/dist/htmx.min.js": STATIC / "htmx",
    "htmx.org/dist/ext/hx-alpine-compat.min.js": STATIC / "htmx",
    "htmx.org/LICENSE": STATIC / "htmx",
    "@alpinejs/csp/dist/cdn.min.js": STATIC / "alpine",
    "bootstrap/dist/css/bootstrap.min.css": STATIC / "bootstrap",
    "bootstrap/LICENSE": STATIC / "bootstrap",
    f"{_READ}/files/atkinson-hyperlegible-next-latin-wght-normal.woff2": STATIC
    / "fonts/atkinson-hyperlegible-next",
    f"{_READ}/LICENSE": STATIC / "fonts/atkinson-hyperlegible-next",
    "@fontsource-variable/alegreya/files/alegreya-latin-wght-normal.woff2": STATIC / "fonts/alegreya",
    "@fontsource-variable/alegreya/LICENSE": STATIC / "fonts/alegreya",
    "axe-core/axe.min.js": AXE / "axe-core",
    "axe-core/LICENSE": AXE / "axe-core",
}


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        subprocess.run(["npm", "init", "-y"], cwd=folder, check=True, capture_output=True)
        subprocess.run(
            ["npm", "install", "--no-audit", "--no-fund", *(f"{n}@{v}" for n, v in VERSIONS.items())],
            cwd=folder,
            check=True,
        )
        modules = Path(folder) / "node_modules"
        for source, target in FILES.items():
            target.mkdir(parents=True, exist_ok=True)
            shutil.copyfile(modules / source, target / Path(source).name)
        (STATIC / "VERSIONS.txt").write_text(
            "".join(f"{n} {v}\n" for n, v in VERSIONS.items() if n != "axe-core")
        )
        print_font(modules, "atkinson-hyperlegible-next", 400, "Pleat Figures")
        print_font(modules, "atkinson-hyperlegible-next", 700, "Pleat Figures")
        print_font(modules, "alegreya", 600, "Pleat Names")


def print_font(modules: Path, name: str, weight: int, family: str) -> None:
    """One weight of a variable web font as TrueType, under a name of our own: the PDF writer uses system
    fonts."""
    source = modules / f"@fontsource-variable/{name}/files/{name}-latin-wght-normal.woff2"
    font = instantiateVariableFont(TTFont(source), {"wght": weight})
    font.flavor = None
    bold = weight >= 700
    for record in font["name"].names:
        text = {
            1: family,
            2: "Bold" if bold else "Regular",
            4: family,
            6: family.replace(" ", ""),
            16: family,
            17: "Bold" if bold else "Regular",
        }.get(record.nameID)
        if text:
            record.string = text
    font["OS/2"].usWeightClass = 700 if bold else 400
    font["OS/2"].fsSelection = (font["OS/2"].fsSelection & ~0x61) | (0x20 if bold else 0x40)
    font["head"].macStyle = 1 if bold else 0
    PRINT_FONTS.mkdir(parents=True, exist_ok=True)
    font.save(PRINT_FONTS / f"{name}-{weight}.ttf")
    shutil.copyfile(modules / f"@fontsource-variable/{name}/LICENSE", PRINT_FONTS / f"{name}-LICENSE.txt")


if __name__ == "__main__":
    main()
