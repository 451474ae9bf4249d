"""One example book a recipe, as book files of the documented format."""

from __future__ import annotations

from importlib import resources

from pleat.core.document.recipes import RECIPES


def names() -> tuple[str, ...]:
    """The names of the examples, those of their recipes."""
    return tuple(recipe.name for recipe in RECIPES)


def text(name: str) -> str:
    """The book file of that name as JSON. Raises FileNotFoundError."""
    return (resources.files(__name__) / f"{name}.pleat.json").read_text(encoding="utf-8")
