"""The room on a printed page, in mm."""

from typing import Final

MARGIN_MM: Final = 12.0
HEAD_MM: Final = 16.0
