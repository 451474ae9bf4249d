"""What a block can be made of."""

from typing import Final

from pleat.core.base.kinds import Registry
from pleat.core.pleats.pages.block import BlockKind
from pleat.core.pleats.pages.kinds import (
    album,
    bagfolio,
    concertina,
    crossfold,
    folder,
    free,
    leaves,
    nested,
    pad,
    pairs,
    pocketpages,
    sections,
)

BLOCKS: Final[Registry[BlockKind]] = Registry(
    "pages",
    (
        sections.KIND,
        leaves.KIND,
        pad.KIND,
        folder.KIND,
        crossfold.KIND,
        nested.KIND,
        bagfolio.KIND,
        concertina.KIND,
        album.KIND,
        pairs.KIND,
        pocketpages.KIND,
        free.KIND,
    ),
)
