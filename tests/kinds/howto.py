"""The cover of docs/howto, as its reader makes it: the blocks of the page put into one module."""

from __future__ import annotations

import ast
import re
import sys
from pathlib import Path
from types import ModuleType
from typing import Any

PAGE = Path(__file__).parents[2] / "docs/howto/a-cover-of-your-own.md"
NAME = "pleat.core.pleats.cover.kinds.jacket"


def blocks(title: str = "") -> list[str]:
    """The code blocks of the page that have this title."""
    found = re.findall(r"^```python(?: title=(\w+))?\n(.*?)^```$", PAGE.read_text(), re.M | re.S)
    return [code for named, code in found if named == title]


def module() -> ModuleType:
    """The module that the page makes, known by its name, since its record's types are looked up there."""
    made = ModuleType(NAME)
    sys.modules[NAME] = made
    exec(compile("\n\n".join(blocks()), str(PAGE), "exec"), made.__dict__)
    return made


def contract() -> dict[str, Any]:
    """Its line in the contract's table."""
    return dict(ast.literal_eval(blocks("contract")[0]))
