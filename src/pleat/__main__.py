"""``python -m pleat``."""

from pleat.cli import main

main(prog_name="pleat")
