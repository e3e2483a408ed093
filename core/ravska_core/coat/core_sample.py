"""The core sample: salt from the surface to the centre at any hour of the hold and on the fire, and that in words."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ravska_core.coat.fates import Moment
from ravska_core.coat.injection import good_sites
from ravska_core.coat.layers import INJECTIONS, Layer
from ravska_core.coat.on_fire import OnFire
from ravska_core.coat.sites import face_of
from ravska_core.coat.spread import least_tenth
from ravska_core.coat.stack import Seasoned, Stack, holding, moved_cm2
from ravska_core.diffusion import DIFFUSIVITY_BAND, Array, reach_cm, reach_share
from ravska_core.units import say_duration
from ravska_core.working import Figure, Step, figure

DEPTHS = 41

NEAR_CM = 0.5


@dataclass(frozen=True)
class CoreSample:
    """Salt from the surface to the centre at one time [% of raw edible weight], with the band of D.

    `time_s` is since the first layer went on: `whole_s` of holds, then `fire_s` on the fire, 0 where that is not known
    or a liquid moves the salt there.
    `percent` takes an injection as even; `least` is the salt of the tenth of the meat that the needle reached least,
    none without an injection. `says` is what this hold does and what twice the time would add, in words.
    """

    time_s: float
    whole_s: float
    fire_s: float
    depths_cm: tuple[float, ...]
    percent: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    least: tuple[float, ...]
    reach: Figure
    says: tuple[str, ...]


def salted(stack: Stack, layers: Sequence[Layer]) -> Sequence[Layer]:
    """Return the layers from the first one with salt on: what was held before it moved none."""
    first = next((at for at, salt in enumerate(stack.salt_g) if salt > 0), len(layers))
    return layers[first:]


def reach_of(layers: Sequence[Layer], fire: OnFire | None = None, fire_s: float = 0.0) -> Figure:
    """Return how far salt has reached over a run of holds and so long on the fire [mm]: 2 sqrt(sum of D t)."""
    held_cm2 = moved_cm2(layers)
    held = say_duration(sum(layer.hold_s for layer in layers))
    steps = [Step("D t", f"{held} of hold", held_cm2 * 100, "mm²", "diffusivity")]
    cooked_cm2 = 0.0
    if fire is not None and fire_s > 0:
        cooked_cm2 = fire.moves_cm2(0.0, fire_s)
        said = f"{say_duration(fire_s)} of it, ∫ D(T) dt of its mean heat"
        steps.append(Step("D t on the fire", said, cooked_cm2 * 100, "mm²", "diffusivity"))
    mm = reach_cm(held_cm2 + cooked_cm2) * 10
    steps.append(Step("Salt has reached", "2 √(D t)", mm, "mm", "crank"))
    root = math.sqrt(DIFFUSIVITY_BAND[1])
    return figure(steps, "±40 %: diffusivity halved and doubled", low=mm / root, high=mm * root)


def reach_by_fire_mm(stack: Stack, seasoned: Seasoned) -> float:
    """Return how far salt has reached by the time a piece goes on the fire [mm], nothing where none of it is salted."""
    return reach_of(holding(salted(stack, seasoned.layers))).value


def core_sample(stack: Stack, seasoned: Seasoned, at_s: float | None) -> CoreSample | None:
    """Return the core sample at a time of the holds and the fire, at the end of both when none is given."""
    held = holding(seasoned.layers)
    if stack.middle is None or not held:
        return None
    whole = sum(layer.hold_s for layer in held)
    fire = None if stack.fire is None or _in_a_pot(seasoned.layers) else stack.fire
    fire_s = fire.lasts_s if fire else 0.0
    at = whole + fire_s if at_s is None else min(max(0.0, at_s), whole + fire_s)
    on_it = max(0.0, at - whole)
    depths = np.linspace(0, 1, DEPTHS) ** 1.6 * stack.middle.half_cm
    low, mid, high = (stack.at_hold(factor, at, whole) for factor in (DIFFUSIVITY_BAND[0], 1.0, DIFFUSIVITY_BAND[1]))
    curves = [stack.curve(moment, depths) for moment in (low, mid, high)]
    ends = np.array(curves)
    least = _least_of_each(stack, seasoned, at, fire.moves_cm2(0.0, on_it) if fire else 0.0)
    says = _in_words(stack, seasoned, whole)
    if fire is not None:
        says = (*says, _of_the_fire(stack, seasoned, whole, fire))
    return CoreSample(
        at,
        whole,
        fire_s,
        tuple(float(depth) for depth in depths),
        tuple(float(value) for value in curves[1]),
        tuple(float(value) for value in ends.min(axis=0)),
        tuple(float(value) for value in ends.max(axis=0)),
        () if least is None else tuple(float(value) for value in stack.curve(mid, depths, least)),
        reach_of(_reaching(stack, seasoned, at), fire, on_it),
        says,
    )


def _in_a_pot(layers: Sequence[Layer]) -> bool:
    return any(layer.kind == "cooking liquid" for layer in layers)


def _of_the_fire(stack: Stack, seasoned: Seasoned, whole_s: float, fire: OnFire) -> str:
    """Say how far salt has moved on the fire, and what its centre has by then."""
    assert stack.middle is not None
    moving = holding(salted(stack, seasoned.layers))
    if not moving:
        return ""
    mm = reach_of(moving, fire, fire.lasts_s).value
    carved = stack.at_hold(1.0, whole_s + fire.lasts_s, whole_s)
    centre = float(stack.curve(carved, np.array([stack.middle.half_cm]))[0])
    return (
        f"The fire moves it on: by the time it is carved, {say_duration(fire.lasts_s)} after it went on, salt reaches "
        f"{mm:.1f} mm and the centre has {_little(centre)}."
    )


def _until(held: Sequence[Layer], at_s: float) -> list[Layer]:
    """Return holds as they are at a time since the first of them began: some over, one begun, some not yet."""
    found = []
    for layer in held:
        found.append(replace(layer, hold_s=min(max(0.0, at_s), layer.hold_s)))
        at_s -= layer.hold_s
    return found


def _reaching(stack: Stack, seasoned: Seasoned, at_s: float) -> list[Layer]:
    """Return the holds that move salt, as they are at a time since the first hold began."""
    held = holding(seasoned.layers)
    moving = holding(salted(stack, seasoned.layers))
    return _until(held, at_s)[len(held) - len(moving) :]


def _least_of_each(stack: Stack, seasoned: Seasoned, at_s: float, cooked_cm2: float = 0.0) -> Array | None:
    """Return for each layer what of its mean the tenth of the meat has that a needle reached least, at a time.

    `cooked_cm2` is the D t of the fire, which comes to that of the holds. Of a layer that no needle puts in it is all;
    None without an injection.
    """
    face = face_of(stack.piece.solid, stack.piece.bones)
    least = np.ones(len(seasoned.layers))
    needled = False
    for n, layer in enumerate(seasoned.layers):
        held = holding(seasoned.layers[n:])
        if layer.kind in INJECTIONS and holding([layer]):
            needled = True
            least[n] = least_tenth(face, good_sites(layer.injection, face), moved_cm2(_until(held, at_s)) + cooked_cm2)
        if holding([layer]):
            at_s -= layer.hold_s
    return least if needled else None


def _little(percent: float) -> str:
    """Say a percentage that may be none to speak of."""
    return f"{percent:.2f} %" if percent >= 0.005 else "next to nothing"


def _in_words(stack: Stack, seasoned: Seasoned, whole_s: float) -> tuple[str, ...]:
    """Say what the hold does, and what twice the time would add."""
    assert stack.middle is not None
    if whole_s == 0:
        return ("It goes straight on: all the salt is still at the surface when the fire takes it.",)
    salt = stack.salt_g
    centre = np.array([stack.middle.half_cm])
    near = min(NEAR_CM, stack.middle.half_cm / 2)

    def told(moment: Moment) -> tuple[float, float, float]:
        cells = moment.cells @ salt
        total = float(cells.sum())
        return reach_share(stack.middle, cells, near), float(stack.curve(moment, centre)[0]), total  # type: ignore[arg-type]

    now, later = stack.at_hold(1.0, whole_s, whole_s), stack.follow(until_s=2 * whole_s, times=2)
    deeper, middle, total = told(now)
    if total <= 0:
        return ("Nothing salty is in the meat yet.",)
    again, middle_again, total_again = told(later)
    longer = replace(seasoned, layers=tuple(replace(layer, hold_s=2 * layer.hold_s) for layer in seasoned.layers))
    moving = holding(salted(stack, seasoned.layers))
    mm, mm_again = reach_of(moving).value, reach_of(holding(salted(stack, longer.layers))).value
    said = say_duration(sum(layer.hold_s for layer in moving))
    least, least_again = _least_of_each(stack, seasoned, whole_s), _least_of_each(stack, longer, 2 * whole_s)
    if least is not None and least_again is not None:
        tenth, tenth_again = (
            float(stack.curve(moment, centre, share)[0]) for moment, share in ((now, least), (later, least_again))
        )
        return (
            f"In {said} salt moves {mm:.1f} mm; {deeper * 100:.0f} % of it lies deeper than {near * 10:.0f} mm, where "
            f"the needle put it. The centre has {middle:.2f} % on the whole, and at most {tenth:.2f} % in the "
            "tenth of it that the needle reached least.",
            f"Twice the time would move it {mm_again:.1f} mm and bring that tenth to {tenth_again:.2f} %.",
            "What is dissolved in the liquid is where the salt is; spices and herbs on the surface stay there.",
        )
    words = [
        f"In {said} salt reaches {mm:.1f} mm; {deeper * 100:.0f} % of it lies deeper than {near * 10:.0f} mm, "
        f"and the centre has {_little(middle)}."
    ]
    more = f", and {(total_again / total - 1) * 100:.0f} % more of it goes in" if total_again > total * 1.02 else ""
    words.append(
        f"Twice the time would reach {mm_again:.1f} mm, put {again * 100:.0f} % deeper than {near * 10:.0f} mm and "
        f"bring the centre to {_little(middle_again)}{more}."
    )
    if mm < 4:
        words.append(
            "So it seasons the surface. Spices and herbs stay there whatever the time: they do not follow the salt."
        )
    else:
        words.append("Spices and herbs do not follow the salt: they stay in the outer few millimetres.")
    return tuple(words)
