"""What can cover a block."""

from typing import Final

from pleat.core.cover.kinds import bare, boards, wrap
from pleat.core.kinds import CoverKind, Registry

COVERS: Final[Registry[CoverKind]] = Registry("cover", (wrap.KIND, boards.KIND, bare.KIND))
