"""What a blend can be aimed at: targets on its scales, bounds on its lines."""

from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.blend.qualities import QUALITIES, SPREAD
from ravska_core.working import BadInput, in_range

TARGETS = (*QUALITIES, SPREAD)


TARGET_LIMITS = {"heat": 10.0, "smoke": 10.0, "herb": 10.0, "cost": 10_000.0, SPREAD: 1000.0}


@dataclass(frozen=True)
class Target:
    """What a blend should have: at least `low` and at most `high`, in the scale's unit (heat from 0 to 10)."""

    what: str
    low: float | None = None
    high: float | None = None


@dataclass(frozen=True)
class Bound:
    """Limits of one line's share [mass fraction]."""

    line: int
    low: float = 0.0
    high: float = 1.0


def say_target(target: Target) -> str:
    """Return a target in words: ``at least 30 % sugar``."""
    label = "grain spread" if target.what == SPREAD else QUALITIES[target.what].label.lower()
    unit = {"%": " %", "of 10": " of 10", "SHU": " of 10", "per 100 g": ""}.get(
        "times" if target.what == SPREAD else QUALITIES[target.what].unit, " times"
    )
    said = []
    if target.low is not None and target.low == target.high:
        said.append(f"{target.low:g}{unit} {label}")
    else:
        if target.low is not None:
            said.append(f"at least {target.low:g}{unit} {label}")
        if target.high is not None:
            said.append(f"at most {target.high:g}{unit} {label}")
    return " and ".join(said)


def check_targets(targets: Sequence[Target]) -> None:
    """Refuse targets that no blend could meet, at ``targets.N.low`` or ``targets.N.high``."""
    for at, target in enumerate(targets):
        if target.what not in TARGETS:
            raise BadInput(f"targets.{at}.what", f"Aim at one of {', '.join(TARGETS)}.")
        most = TARGET_LIMITS.get(target.what, 100.0)
        for side, value in (("low", target.low), ("high", target.high)):
            if value is not None:
                in_range(f"targets.{at}.{side}", value, 0, most, f"No blend has that: stay between 0 and {most:g}.")
        if target.low is not None and target.high is not None and target.low > target.high:
            sentence = (
                f"At least {target.low:g} and at most {target.high:g} cannot both be; raise this or lower the other."
            )
            raise BadInput(f"targets.{at}.high", sentence)
        if target.what == SPREAD and target.high is not None and target.high < 1:
            raise BadInput(f"targets.{at}.high", "A grain spread is at least 1, where all grains are of one size.")
