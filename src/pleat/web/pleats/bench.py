"""Bench: the steps, the one to do now first in sight."""

from __future__ import annotations

from typing import Any

from pleat.drawing import bench as drawing
from pleat.services.books import Opened
from pleat.web.pleats.small import small


def view(opened: Opened) -> dict[str, Any]:
    return {"small": small(drawing.strip(opened.plan.bench))}
