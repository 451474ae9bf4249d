"""Bench: the steps, the one to do now first in sight."""

from __future__ import annotations

from typing import Any, Final

from pleat.drawing import bench as drawing
from pleat.services.books import Opened
from pleat.web.pleats.small import small

READS: Final[frozenset[str]] = frozenset()


def view(opened: Opened) -> dict[str, Any]:
    return {"small": small(drawing.strip(opened.plan.bench))}
