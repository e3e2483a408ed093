"""Tasting cards: their scales, and how many a trial states."""

from ravska_core.working import BadInput

LIKING_SCALES = ("overall", "crust", "tenderness", "juiciness", "meat flavour")
"""Nine-point scales of a card, 1 dislike extremely to 9 like extremely."""

SALT_SCALE, JUST_RIGHT = "salt", 3
"""Five-point just-about-right scale: 1 far too little, 3 just right, 5 far too much."""


def scale_limits(scale: str) -> tuple[int, int]:
    """Return the lowest and highest score of a scale, or refuse an unknown one."""
    if scale in LIKING_SCALES:
        return 1, 9
    if scale == SALT_SCALE:
        return 1, 5
    raise BadInput("scale", f"“{scale}” is not on the card; it asks for {', '.join((*LIKING_SCALES, SALT_SCALE))}.")


PLANNED_CARDS, MOST_CARDS = 12, 60
"""How many cards a trial states when nobody says otherwise, and how many it can."""
