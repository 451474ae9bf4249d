"""Cautions that stand at more than one step, in plain words; each defers to the tool's own instructions."""

from typing import Final

GENERAL: Final = (
    "Pleat never replaces the instructions of your tools and materials. With children about, put "
    "blades, awls and needles out of reach; when in doubt ask someone qualified."
)
KNIFE: Final = (
    "Knife: a steel rule, a cutting mat, several light passes, fingers behind the edge and a "
    "fresh blade. With a trimmer, follow its own instructions and keep its guard on."
)
WEIGHT: Final = "Keep fingers clear when you set the weight or close the press."
BOARD: Final = (
    "Board: clamp it under a steel rule and cut in many light passes, never by force; keep your "
    "fingers behind the edge. Cut or sand with air about you, for its dust is fine."
)
GLUE: Final = (
    "Glue: open a window, keep it off skin and away from food, and follow what its own label says. "
    "Spray glue only outdoors or with good air, never near a flame."
)
HOT: Final = (
    "Iron and hot glue burn, and so does what they touched. Never leave either on by itself, and "
    "follow the tool's own instructions."
)
MAGNETS: Final = (
    "Small magnets are not for small children: two that are swallowed are an emergency. Keep "
    "spares shut away, and do not give this book to a child who may pick them out."
)
PUNCH: Final = (
    "Eyelet tools and punches: strike on a board that does not slip, with fingers away from the "
    "point, and follow the tool's own instructions."
)
AWL_BOARD: Final = (
    "Awl or drill: clamp the board on a scrap, hold it outside the line of the point, and "
    "follow the tool's own instructions."
)
AWL: Final = (
    "The awl points away from both hands: pierce into a trough or a thick pad, never toward a "
    "finger, and cork it when you put it down."
)
