"""What this maker's tools can do, gathered from the tools among the materials, so that checks know."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from pleat.core.materials.items import Elastic, Hardware, Item, Stick, Tool
from pleat.core.materials.sheet import EMPTY_SHELF, Shelf


@dataclass(frozen=True)
class Tools:
    """Lengths in mm; None where the maker has no such tool or has not said. Of several the largest counts.

    What a book is held with is here too, each with its number among the materials: rings and posts, sticks,
    elastic. The ``shelf`` is what lies there for the book that is planned."""

    trimmer_longest_mm: float | None = None
    trimmer_thickest_mm: float | None = None
    scoring_longest_mm: float | None = None
    punches: tuple[Tool, ...] = ()
    hardware: tuple[tuple[str, Hardware], ...] = ()
    sticks: tuple[tuple[str, Stick], ...] = ()
    elastics: tuple[tuple[str, Elastic], ...] = ()
    shelf: Shelf = EMPTY_SHELF

    @property
    def has_trimmer(self) -> bool:
        return self.trimmer_longest_mm is not None

    def trims(self, edge_mm: float, thickness_mm: float) -> bool:
        """Whether the trimmer cuts an edge so long through a sheet so thick."""
        if self.trimmer_longest_mm is None:
            return False
        return edge_mm <= self.trimmer_longest_mm + 0.05 and (
            self.trimmer_thickest_mm is None or thickness_mm <= self.trimmer_thickest_mm
        )


NO_TOOLS = Tools()


def tools_from(stored: Iterable[tuple[str, Item]]) -> Tools:
    """The tools among (number, item) pairs taken together, and what can hold a book."""
    owned = list(stored)
    tools = [item for _, item in owned if isinstance(item, Tool)]
    trimmers = [tool for tool in tools if tool.shape == "trimmer" and tool.longest_mm]
    boards = [tool for tool in tools if tool.shape == "scoring board" and tool.longest_mm]
    trimmer = max(trimmers, key=lambda tool: tool.longest_mm or 0, default=None)
    board = max(boards, key=lambda tool: tool.longest_mm or 0, default=None)
    return Tools(
        trimmer_longest_mm=trimmer.longest_mm if trimmer else None,
        trimmer_thickest_mm=trimmer.thickest_mm if trimmer else None,
        scoring_longest_mm=board.longest_mm if board else None,
        punches=tuple(tool for tool in tools if tool.shape == "punch"),
        hardware=tuple((key, item) for key, item in owned if isinstance(item, Hardware)),
        sticks=tuple((key, item) for key, item in owned if isinstance(item, Stick)),
        elastics=tuple((key, item) for key, item in owned if isinstance(item, Elastic)),
    )
