"""Rectangles that stand for a trapezoid or triangle: half as high where it slants, so that they have its area
and nearly its shape."""

from __future__ import annotations

from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.pleats.extras.base import Layer

STRIPS: Final = 2
"""So many for a tab's mitred ends."""


def across(
    corner: tuple[float, float],
    wide: tuple[float, float],
    high: float,
    thick: Estimate,
    at: float = 0.0,
    strips: int = STRIPS,
) -> tuple[Layer, ...]:
    """Layers of a trapezoid whose level sides are ``wide`` above and below, mm; ``at`` is where its left side
    begins below, from where it begins above."""
    x, y = corner
    if wide[0] == wide[1] and not at:
        return (Layer(x, y, wide[0], high, thick),)
    step = high / strips
    layers = []
    for number in range(strips):
        share = (number + 0.5) / strips
        layers.append(
            Layer(x + at * share, y + number * step, wide[0] + (wide[1] - wide[0]) * share, step, thick)
        )
    return tuple(layers)


def along(
    corner: tuple[float, float],
    high: tuple[float, float],
    wide: float,
    thick: Estimate,
    at: float = 0.0,
    strips: int = STRIPS,
) -> tuple[Layer, ...]:
    """The same for a trapezoid whose upright sides are ``high`` at the left and at the right; ``at`` is where
    its head begins at the right, from where it begins at the left."""
    turned = across(corner[::-1], high, wide, thick, at, strips)
    return tuple(
        Layer(layer.y_mm, layer.x_mm, layer.height_mm, layer.width_mm, layer.thick) for layer in turned
    )
