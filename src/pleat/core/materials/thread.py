"""How thick a thread is, by its trade number, its tex, or as measured. Used by the binding and by the
materials."""

from __future__ import annotations

import math
from typing import Final

from pleat.core.materials.items import ThreadSpool
from pleat.core.trade.paper import LINEN_G_PER_CM3

TEX_PER_LEA: Final = 1653.5
"""tex of a single yarn of lea number 1: 1 lea = 300 yd per lb (arithmetic: 453.59237 g / 274.32 m x 1000)."""


def tex_of(lea: int, plies: int) -> float:
    """Grams per kilometre of a plied thread (arithmetic).

    >>> round(tex_of(18, 3))
    276
    """
    return TEX_PER_LEA * plies / lea


def diameter_of_tex(tex: float) -> float:
    """Diameter in mm of a round thread of that mass and linen's density.

    >>> round(diameter_of_tex(tex_of(18, 3)), 2)
    0.62
    """
    return math.sqrt(4 * tex / (1000 * math.pi * LINEN_G_PER_CM3))


def spool_diameter_mm(spool: ThreadSpool) -> float | None:
    """A spool's thread in mm: as measured, else by tex, else by lea and plies; None when nothing is known."""
    if spool.diameter_mm is not None:
        return spool.diameter_mm
    if spool.tex is not None:
        return diameter_of_tex(spool.tex)
    return diameter_of_tex(tex_of(spool.lea, spool.plies)) if spool.lea else None
