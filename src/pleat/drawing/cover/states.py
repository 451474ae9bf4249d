"""A cover in each of its states, seen from above: the layers in their order, for print and where nothing
moves."""

from __future__ import annotations

from pleat.core.engines.folding.convex import bounds
from pleat.core.pleats.cover.laid import Motion
from pleat.core.pleats.cover.opening import worked
from pleat.core.pleats.cover.soft import BLOCK
from pleat.drawing.outlines import outline
from pleat.drawing.shapes import Drawing, Shape


def pictures(motion: Motion, cover: str, block: str) -> tuple[Drawing, ...]:
    """One drawing a state, all to one scale; colours are swatches of the cover and of the leaves. The inside
    of the cover is hatched by its style."""
    assembly, states = worked(motion)
    shadows = [
        [(key, state.shadow(key, assembly.pieces), state.poses[key].up) for key in state.pile]
        for state in states
    ]
    left, top, right, bottom = bounds(
        point for state in shadows for _, shadow, _ in state for point in shadow
    )
    drawings = []
    for state, layers in zip(states, shadows, strict=True):
        shapes: list[Shape] = []
        for (name, _), shadow, up in layers:
            if len(shadow) < 3 or _flat(shadow):
                continue
            face = "outside" if up else "inside"
            style = f"filled leaf swatch-{block}" if name == BLOCK else f"filled wrap {face} swatch-{cover}"
            shapes.append(outline(shadow, style, -left, -top))
        drawings.append(Drawing(right - left, bottom - top, f"{state.name}, seen from above", shapes))
    return tuple(drawings)


def _flat(shadow: tuple[tuple[float, float], ...]) -> bool:
    """Whether a panel stands upright, so that from above it is a line."""
    left, top, right, bottom = bounds(shadow)
    return right - left < 0.01 or bottom - top < 0.01
