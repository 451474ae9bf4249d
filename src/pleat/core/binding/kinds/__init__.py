"""What can hold a block."""

from typing import Final

from pleat.core.binding.kinds import pamphlet
from pleat.core.kinds import BindingKind, Registry

BINDINGS: Final[Registry[BindingKind]] = Registry("binding", (pamphlet.KIND,))
