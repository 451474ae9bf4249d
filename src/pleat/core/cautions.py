"""Cautions that stand at more than one step, in plain words; each defers to the tool's own instructions."""

from typing import Final

KNIFE: Final = "Knife: a steel rule, a cutting mat, several light passes, fingers behind the edge and a fresh blade. With a trimmer, follow its own instructions and keep its guard on."
WEIGHT: Final = "Keep fingers clear when you set the weight or close the press."
