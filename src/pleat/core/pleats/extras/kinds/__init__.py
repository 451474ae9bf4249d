"""Everything that can be put into a book, in the order it is offered."""

from __future__ import annotations

from typing import Final

from pleat.core.base.kinds import Registry
from pleat.core.pleats.extras.base import ExtraKind
from pleat.core.pleats.extras.kinds import (
    band,
    booklet,
    corner,
    eyelet,
    fastener,
    flap,
    mat,
    picture,
    pocket,
    spacer,
    tab,
    waterfall,
    window,
)

EXTRAS: Final[Registry[ExtraKind]] = Registry(
    "extras",
    (
        pocket.KIND,
        corner.KIND,
        waterfall.KIND,
        flap.KIND,
        band.KIND,
        mat.KIND,
        picture.KIND,
        window.KIND,
        booklet.KIND,
        spacer.KIND,
        fastener.KIND,
        eyelet.KIND,
        tab.KIND,
    ),
)
