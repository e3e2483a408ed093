"""How long a marinade may work: the window for its acid and the meat, with both schools."""

from dataclasses import dataclass

from ravska_core.catalogue import MarinadeWindow, catalogue
from ravska_core.composition import BlendReading

LONGEST_MIN = 1440.0
"""Nothing in acid beyond 24 h (common practice, no source)."""


@dataclass(frozen=True)
class Window:
    """Which acid class a marinade falls in, why, and how long it may work on a class of meat."""

    acid_class: str
    because: str
    window: MarinadeWindow


def acid_class(reading: BlendReading) -> tuple[str, str]:
    """Determine the acid class of a blend and the reason, from its titratable acid share.

    Fresh enzyme outranks acid. Dairy is its own class, however strong, unless other acid makes the
    marinade at least mild in its own right; then the acid other than the dairy's decides.
    Limits: mild below 0.7 %, medium to 2 %, strong above (common practice).
    """
    acid = reading.acid.value / 100
    other = acid - reading.dairy_acid_share
    if "protease" in reading.flags:
        return "enzyme", "it holds fresh juice or root whose enzyme digests meat"
    if acid < 0.0005:
        return "none", "it holds no acid"
    if reading.dairy_acid_share >= other and other < 0.007:
        return "dairy", f"most of its {acid * 100:.2f} % acid is the dairy's own"
    if acid < 0.007:
        return "mild", f"{acid * 100:.2f} % acid is below 0.7 %"
    if acid <= 0.02:
        return "medium", f"{acid * 100:.2f} % acid lies between 0.7 and 2 %"
    return "strong", f"{acid * 100:.2f} % acid is above 2 %"


def hold_window(reading: BlendReading, meat_class: str) -> Window:
    """Determine the window for a marinade on a class of meat."""
    found, because = acid_class(reading)
    return Window(found, because, catalogue().windows[found, meat_class])
