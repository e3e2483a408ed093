"""Measuring a blend out: what rounding to spoons does to it, the batch that spoons suit best, and its jar."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ravska_core.blend import HIGHEST_BATCH_G, LOWEST_BATCH_G, Blend, masses, mix, part_qualities, parts_of, read_blend
from ravska_core.measure import SPOON_SETS, Spoonfuls, SpoonSet, measure_out
from ravska_core.working import BadInput, Figure, Step, figure, in_range

JARS_ML = (30, 50, 100, 125, 200, 250, 370, 500, 750, 1000, 1500, 2000, 3000, 5000)
"""Jars and bottles that shops sell [ml] (common practice)."""

HEADSPACE = 0.05
"""Share of a jar that stays empty so that it can be shaken (estimate)."""

_CLASS = 0.0025
"""Rounding errors closer than this to each other count as the same."""

_MOST_TRIED = 160


@dataclass(frozen=True)
class LineRounding:
    """One line measured out by spoons: the spoonfuls, their error, and the line's share before and after [%]."""

    name: str
    spoons: Spoonfuls
    share_before: float
    share_after: float


@dataclass(frozen=True)
class Rounding:
    """A whole batch measured out by spoons: line by line, with the batch, also as written, and the salt [%] that makes.

    `worst` is the worst rounding (relative), `count` how many spoonfuls it takes.
    """

    batch: str
    batch_g: float
    lines: tuple[LineRounding, ...]
    worst: float
    count: int
    mass: Figure
    salt_before: Figure
    salt_after: Figure


def _salt(blend: Blend, shares: Sequence[float]) -> float:
    parts = parts_of(blend.lines)
    mixed = mix(blend, shares, parts)
    mixture = sum(share * part_qualities(part)[0] for share, part in zip(shares, parts, strict=True))
    # salt stays whatever the method does; only what it is in gets less
    return mixture / mixed.share


def rounding(blend: Blend, owned: SpoonSet = SPOON_SETS["us"]) -> Rounding:
    """Determine what measuring a batch out by level spoons makes of its shares and its salt.

    Raises
    ------
    BadInput
        As `read_blend`.
    """
    found = read_blend(blend, owned)
    before = [line.mass.value for line in found.lines]
    densities = [mass / line.volume_ml for mass, line in zip(before, found.lines, strict=True)]
    after = [line.spoons.volume_ml * density for line, density in zip(found.lines, densities, strict=True)]
    total = sum(after)
    if total <= 0:
        raise BadInput("batch", "Every line of this batch is less than a pinch; make a larger one.")
    shares = [mass / total for mass in after]
    salt = _salt(blend, shares)
    lines = tuple(
        LineRounding(line.name, line.spoons, line.share.value, share * 100)
        for line, share in zip(found.lines, shares, strict=True)
    )
    salt_steps = [
        Step("Salt by weight", "each line as wanted", found.salt.value, "%"),
        Step("Salt by these spoons", "each line as the spoons hold it", salt, "%"),
    ]
    mass_steps = [
        Step("Batch wanted", "as chosen", blend.batch_g, "g"),
        Step("Batch by these spoons", "sum of the lines' spoonfuls × density", total, "g"),
    ]
    spread = found.salt.high / found.salt.value - 1 if found.salt.value and found.salt.high is not None else 0.0
    return Rounding(
        f"{blend.batch_g:g} g",
        blend.batch_g,
        lines,
        max(abs(line.spoons.error) for line in lines),
        sum(line.spoons.count for line in lines),
        figure(mass_steps, "±10 % of a level spoon comes on top", spread=0.1),
        found.salt,
        figure(salt_steps, "the blend's own error comes on top of the rounding", spread=spread),
    )


def _candidates(volumes: Sequence[float], low_g: float, high_g: float, owned: SpoonSet) -> list[float]:
    """Return batches [g] to try in a range: where a line is a whole number of spoonfuls, and evenly between.

    `volumes` are the lines' volumes in 1 g of batch [ml].
    """
    found = {low_g, high_g}
    for volume in volumes:
        for spoon in owned.spoons:
            step = spoon.volume_ml / volume
            first, last = math.ceil(low_g / step - 1e-9), math.floor(high_g / step + 1e-9)
            found |= {count * step for count in range(max(1, first), min(last, first + 12) + 1)}
    inside = sorted(min(max(mass, low_g), high_g) for mass in found)
    stride = max(1, len(inside) // _MOST_TRIED)
    # between them, where no line is exact but none is far off
    between = [low_g * (high_g / low_g) ** (step / 60) for step in range(61)]
    return [*inside[::stride], *between]


def spoon_batch(
    blend: Blend,
    low_g: float,
    high_g: float,
    owned: SpoonSet = SPOON_SETS["us"],
) -> Rounding:
    """Determine the batch in a range at which the worst rounding error is smallest; fewest spoonfuls on ties.

    Raises
    ------
    BadInput
        At ``low`` or ``high`` for a range that is none, and as `read_blend`.
    """
    for end, mass_g in (("low", low_g), ("high", high_g)):
        in_range(end, mass_g, LOWEST_BATCH_G, HIGHEST_BATCH_G, "A batch lies between 0.5 g and 50 kg.")
    if high_g < low_g:
        raise BadInput("high", "The largest batch is below the smallest; write it the other way round.")
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    parts = parts_of(blend.lines)
    relative = masses(blend.lines, parts)
    total = sum(relative)
    volumes = [mass / total / part.density_g_ml for mass, part in zip(relative, parts, strict=True)]

    def tried(batch_g: float) -> tuple[float, int, float, float]:
        spoons = [measure_out(volume * batch_g, owned) for volume in volumes]
        worst = max(abs(found.error) for found in spoons)
        return worst, sum(found.count for found in spoons), abs(batch_g - blend.batch_g), batch_g

    batches = {min(max(round(mass, 2), low_g), high_g) for mass in _candidates(volumes, low_g, high_g, owned)}
    found = [tried(batch_g) for batch_g in sorted(batches)]
    # as good as the best is whatever lies within a class of it, so that noise never outweighs a spoonful
    best = min(worst for worst, *_ in found) + _CLASS
    _, _, batch_g = min((count, away, batch_g) for worst, count, away, batch_g in found if worst <= best)
    return rounding(replace(blend, batch_g=batch_g), owned)


@dataclass(frozen=True)
class JarFit:
    """The jar a batch goes in [ml], how full it gets (share), and how many of them."""

    jar_ml: float
    count: int
    full: Figure


def jar_fill_percent(left_g: float, density_g_ml: float, size_ml: float) -> float:
    """Return how full a jar is [%] of what is left in it; one that was filled heaped is full."""
    return min(100.0, left_g / density_g_ml / size_ml * 100)


def jar_for(volume: Figure) -> JarFit:
    """Determine the smallest jar that takes a batch with room to shake it, or how many of the largest."""
    most = volume.high if volume.high is not None else volume.value
    needed = most / (1 - HEADSPACE)
    jar = next((size for size in JARS_ML if size >= needed), JARS_ML[-1])
    count = max(1, math.ceil(needed / jar))
    steps = (
        Step("Volume", "the batch", volume.value, "ml"),
        Step("At most", "loosely filled", most, "ml"),
        Step("Jar", "the smallest that holds that with room to shake", float(jar), "ml", "trade"),
        Step("Full to", "volume / jar", volume.value / (jar * count) * 100, "%"),
    )
    low = None if volume.low is None else volume.low / (jar * count) * 100
    return JarFit(float(jar), count, figure(steps, volume.error, low=low, high=most / (jar * count) * 100))
