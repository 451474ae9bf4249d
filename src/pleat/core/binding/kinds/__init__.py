"""What can hold a block."""

from typing import Final

from pleat.core.binding.kinds import (
    asbought,
    cords,
    double,
    link,
    longstitch,
    loop,
    machine,
    own,
    pamphlet,
    pleated,
    spanlinked,
    tapes,
    ties,
    twoon,
)
from pleat.core.kinds import BindingKind, Registry

BINDINGS: Final[Registry[BindingKind]] = Registry(
    "binding",
    (
        pamphlet.KIND,
        ties.KIND,
        pleated.KIND,
        double.KIND,
        longstitch.KIND,
        link.KIND,
        spanlinked.KIND,
        tapes.KIND,
        cords.KIND,
        twoon.KIND,
        loop.KIND,
        machine.KIND,
        own.KIND,
        asbought.KIND,
    ),
)
