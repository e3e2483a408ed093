"""How long a marinade may work: the window for its acid and the meat, with both schools."""

from dataclasses import dataclass, replace

from ravska_core.blend import BlendReading
from ravska_core.catalogue import MarinadeWindow, catalogue
from ravska_core.working import say


@dataclass(frozen=True)
class Weaker:
    """What takes a marinade down a class: which one, water to 100 g of it [g], and the long school's end then [min]."""

    acid_class: str
    water_g: float
    long_high_min: float


@dataclass(frozen=True)
class Window:
    """Which acid class a marinade falls in, why, and how long it may work on a class of meat of this thickness.

    `weaker` says what takes it down a class of acid, where that is what limits it.
    """

    acid_class: str
    because: str
    thickness: str
    limits: MarinadeWindow
    weaker: Weaker | None = None


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


_CLASS_LIMITS = {"strong": (0.02, "medium"), "medium": (0.007, "mild")}
"""The share of acid below which a class ends, and the class a thinner marinade then falls in."""


def _weaker(reading: BlendReading, found: str, meat_class: str, thickness: str) -> Weaker | None:
    """Return how much water takes a marinade down a class of acid; None where that is not what limits it."""
    if found not in _CLASS_LIMITS:
        return None
    limit, into = _CLASS_LIMITS[found]
    water = reading.acid.value / 100 / (limit * 0.98) - 1
    return Weaker(into, water * 100, catalogue().windows[into, meat_class, thickness].long_high_min)


COLD_WINDOW_C = 4.0

Q10 = 2.0
"""The windows are told for the fridge; acid and enzyme work twice as fast every 10 C above it (estimate)."""


def faster_than_cold(celsius: float) -> float:
    """Determine how many times as fast a marinade works as in the fridge: 2^((T - 4) / 10), never slower."""
    return float(max(1.0, Q10 ** ((celsius - COLD_WINDOW_C) / 10)))


def hold_window(reading: BlendReading, meat_class: str, thickness: str, celsius: float = COLD_WINDOW_C) -> Window:
    """Determine the window for a marinade on a class of meat of a thickness, held at a temperature [C]."""
    found, because = acid_class(reading)
    window = catalogue().windows[found, meat_class, thickness]
    weaker = _weaker(reading, found, meat_class, thickness)
    faster = faster_than_cold(celsius)
    if faster > 1.05:
        because += f"; at {celsius:.0f} °C it works about {say(faster, 2)} times as fast as in the fridge (estimate)"
        ends = ("cautious_low_min", "cautious_high_min", "long_low_min", "long_high_min")
        window = replace(window, **{end: getattr(window, end) / faster for end in ends})
        weaker = weaker and replace(weaker, long_high_min=weaker.long_high_min / faster)
    return Window(found, because, thickness, window, weaker)


def says_where(window: MarinadeWindow, hold_s: float) -> str:
    """Say where a hold [s] stands on both schools' windows."""
    minutes = hold_s / 60
    if minutes < window.cautious_low_min:
        return "shorter than either school"
    if minutes <= window.cautious_high_min:
        return "inside the cautious school"
    if minutes <= window.long_high_min:
        return "inside the long school only"
    return "longer than either school"
