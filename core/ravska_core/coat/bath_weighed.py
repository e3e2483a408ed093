"""A bath as it was weighed: what was used, what is left of it and how salt that is, the piece before and after.

Of all salt that of a bath is known least: how far it went in, how much clings and how much bath there was are all
estimates. Weights settle the last two, and a salt meter in what is left over settles the whole.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ravska_core.measure import Amount, parse_amount, parse_mass_g, parse_number
from ravska_core.working import BadInput, say

WEIGHT_OF_RECKONED = 2
"""How many weighings the reckoned uptake counts as, before the cook's own outweigh it (estimate)."""

METER_ERROR = 0.03
"""Relative error of a household's salt meter or hydrometer (common practice, no source)."""

SCALE_SLACK = 1.02
"""How much more than there was may be weighed, by two readings of a kitchen scale (estimate)."""

LOSES, GAINS = 0.2, 0.6
"""How much of its weight meat loses or gains in a bath at most, before a weight is asked about (estimates)."""


@dataclass(frozen=True)
class BathWeighed:
    """What was weighed of a bath: the bath used and left over, the piece before and after [g], the salt of what is
    left [%]; None where nobody did. `times` is how many times as much goes in as is reckoned, of one's own baths.
    """

    used: Amount | None = None
    left: Amount | None = None
    before_g: float | None = None
    after_g: float | None = None
    left_salt_percent: float | None = None
    times: float = 1.0

    @property
    def whole(self) -> bool:
        """Whether it was weighed so that the salt in the meat is known, and not only reckoned better."""
        return self.left_salt_percent is not None and (self.after_g is not None or self.left is not None)


def bath_weighed_of(typed: Mapping[str, Any]) -> BathWeighed:
    """Read what was weighed of a bath, as it was typed.

    Raises
    ------
    BadInput
        At the key of what cannot be read.
    """

    def read(key: str, parse: Callable[[str], Any], otherwise: Any = None) -> Any:
        text = str(typed.get(key) or "").strip()
        return parse(text) if text else otherwise

    found = BathWeighed(
        used=read("used", lambda text: parse_amount(text, "used")),
        left=read("left", lambda text: parse_amount(text, "left")),
        before_g=read("before", lambda text: parse_mass_g(text, "before")),
        after_g=read("after", lambda text: parse_mass_g(text, "after")),
        left_salt_percent=read(
            "left_salt", lambda text: parse_number(text.rstrip("% "), "left_salt", 0, 36, "salt of what is left, in %,")
        ),
        times=read("times", lambda text: parse_number(text.rstrip("x×* "), "times", 0.2, 5, "how many times"), 1.0),
    )
    if found.left_salt_percent is not None and not found.whole:
        raise BadInput(
            "left", "How much bath is left? Weigh it, or weigh the piece after; then its salt says the rest."
        )
    return found


@dataclass(frozen=True)
class BathWas:
    """A bath as it is reckoned, to be set right by its weights.

    `bath_g` went in with `salt_share` of salt [mass fraction]; `goes_in` of that salt is reckoned to be in and on the
    meat, `wiped` to be taken off again [0 to 1]; `clings_g` of the bath stay on the piece.
    """

    bath_g: float
    salt_share: float
    goes_in: float
    wiped: float
    clings_g: float


def uptake(weighed: BathWeighed, was: BathWas, piece_g: float, density_g_ml: float) -> float:
    """Determine what of a bath's salt is in and on the meat [0 to 1], by what was weighed of it.

    With the salt of what is left, s = c_left / c_bath, all that is not on the piece is as salt as that: U = 1 - s (1 -
    gain / bath), or by the bath left over U = 1 - s left / bath - wiped. Without it, what the piece gained beyond the
    salt and the film reckoned is bath that was drawn in whole: U = u + (1 - u) (gain - u salt - film) / bath.

    Raises
    ------
    BadInput
        At ``left``, ``after`` or ``left_salt`` when the weights cannot be.
    """
    before = piece_g if weighed.before_g is None else weighed.before_g
    gain = None if weighed.after_g is None else weighed.after_g - before
    left = None if weighed.left is None else weighed.left.grams(density_g_ml)
    if left is not None and left > was.bath_g * SCALE_SLACK:
        raise BadInput(
            "left", f"{say(left, 3)} g left of {say(was.bath_g, 3)} g is more than there was; write what was used."
        )
    if gain is not None and not -LOSES * before <= gain <= GAINS * before:
        raise BadInput("after", f"It would have gone from {before:.0f} to {weighed.after_g:.0f} g; weigh it again.")
    if gain is not None and gain > was.bath_g * SCALE_SLACK:
        raise BadInput("after", f"It gained {gain:.0f} g, more than the whole bath of {was.bath_g:.0f} g; weigh again.")
    if weighed.left_salt_percent is not None:
        ratio = weighed.left_salt_percent / 100 / was.salt_share
        found = 1 - ratio * (1 - gain / was.bath_g) if gain is not None else (
            1 - ratio * (left or 0.0) / was.bath_g - was.wiped
        )  # fmt: skip
        if found < 0:
            said = f"It was mixed with {say(was.salt_share * 100, 2)} % of salt, so it cannot hold so much afterwards"
            raise BadInput("left_salt", f"{said}; read the meter again, or clear this.")
        return min(1.0, found)
    reckoned = was.goes_in
    if gain is not None:
        extra = gain - reckoned * was.bath_g * was.salt_share - was.clings_g
    elif left is not None:
        extra = (was.bath_g - left) - (reckoned + was.wiped) * was.bath_g * was.salt_share - was.clings_g
    else:
        return min(1.0, reckoned * weighed.times)
    return min(1.0, reckoned + (1 - reckoned) * max(0.0, extra) / was.bath_g)


def learned_times(own: Sequence[float]) -> float:
    """Determine how many times as much of a bath's salt goes in for this cook as is reckoned, shrunk towards once."""
    return (WEIGHT_OF_RECKONED + sum(own)) / (WEIGHT_OF_RECKONED + len(own))
