"""Side by side: the same joint seasoned in several ways, and what each does, before any meat is cut."""

from collections.abc import Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.cautions import Caution
from ravska_core.coat.reading import CoatReading, read_stack
from ravska_core.coat.stack import Seasoned
from ravska_core.coat.steps import BIND_S, MIX_S, WIPE_S, usual_steps
from ravska_core.coat.wetness import SurfaceReading, surface_at_fire
from ravska_core.diffusion import reach_share
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.working import Figure, Step, figure

DEEP_CM = 0.5
"""Salt deeper than this counts as in the meat, not in its crust [cm] (estimate)."""


@dataclass(frozen=True)
class Side:
    """One way to season the joint: its reading, salt deeper than 5 mm [% of what stays], surface, time [s], risks.

    `ahead` is the time from mixing to the fire, `hands` the part of it that keeps hands busy [s].
    """

    key: str
    reading: CoatReading
    deeper: Figure
    centre_percent: float
    surface: SurfaceReading
    ahead: Figure
    hands_s: float
    stops: int
    cautions: int
    worst: tuple[Caution, ...]


_HANDS_S = MappingProxyType(
    {
        "mix": MIX_S,
        "inject": 20 * 60.0,
        "bind": BIND_S,
        "coat": WIPE_S,
        "bag": WIPE_S / 2,
        "wipe": WIPE_S,
        "salt": WIPE_S / 2,
    }
)
"""How long a step keeps hands busy [s] (estimates)."""

OF_EVERY_COOK = ("minimum-centre", "allergens", "sodium-share", "cold-hold")
"""Notes that do not tell one way from another."""


def side(key: str, seasoned: Seasoned, spoon_set: SpoonSet = SPOON_SETS["us"]) -> Side:
    """Determine what one way to season a joint does.

    Raises
    ------
    BadInput
        As `read_coat` does.
    """
    read, stack = read_stack(seasoned, spoon_set)
    moment = stack.follow()
    cells = moment.cells @ stack.salt_g
    total = float(sum((fate.stays * salt for fate, salt in zip(moment.fates, stack.salt_g, strict=True)), 0.0))
    inside = 0.0
    if stack.middle is not None and cells.sum() > 0:
        near = min(DEEP_CM, stack.middle.half_cm / 2)
        inside = reach_share(stack.middle, cells, near) * float(cells.sum())
    deeper = inside / total * 100 if total else 0.0
    sample = read.sample
    steps = usual_steps(seasoned.layers, 0.0, 0.0)
    ahead = sum(step.lasts_s for step in steps)
    hands = sum(_HANDS_S.get(step.kind, 0.0) for step in steps)
    telling = [caution for caution in read.cautions if caution.id not in OF_EVERY_COOK]
    return Side(
        key=key,
        reading=read,
        deeper=figure(
            [
                Step("Salt that stays", "all layers", total, "g"),
                Step(
                    f"Deeper than {DEEP_CM * 10:.0f} mm", "by diffusion, or put there by a needle", inside, "g", "crank"
                ),
                Step("Of the salt that stays", "share", deeper, "%"),
            ],
            "diffusivity halved and doubled moves it by a third",
            spread=0.33 if deeper < 60 else 0.1,
        ),
        centre_percent=sample.percent[-1] if sample else 0.0,
        surface=surface_at_fire(stack),
        ahead=figure(
            [Step("From mixing to the fire", "every hold and the work between", ahead, "s", "trade")], "as set"
        ),
        hands_s=hands,
        stops=sum(caution.level == "stop" for caution in telling),
        cautions=sum(caution.level == "caution" for caution in telling),
        worst=tuple(caution for caution in telling if caution.level != "note")[:3],
    )


def sides(pieces: Sequence[tuple[str, Seasoned]], spoon_set: SpoonSet = SPOON_SETS["us"]) -> tuple[Side, ...]:
    """Determine what several ways to season one joint do, in the order given."""
    return tuple(side(key, seasoned, spoon_set) for key, seasoned in pieces)
