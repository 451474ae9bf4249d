"""What can cover a block."""

from typing import Final

from pleat.core.cover.kinds import bare, boards, case, padded, quarter, threepiece, wrap
from pleat.core.kinds import CoverKind, Registry

COVERS: Final[Registry[CoverKind]] = Registry(
    "cover", (wrap.KIND, case.KIND, quarter.KIND, padded.KIND, threepiece.KIND, boards.KIND, bare.KIND)
)
