"""The scales a blend is read on, each with its word, its working and its error."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.blend.qualities import SPREAD, Quality, grain_percentile, heat_scale
from ravska_core.blend.uncertainty import Summed, error_words
from ravska_core.catalogue import VALUE_SOURCES, Grind
from ravska_core.working import Figure, Step, figure, say


@dataclass(frozen=True)
class Scale:
    """One scale a blend is read on: where it stands, of what full length, in words, with its working."""

    key: str
    label: str
    value: float
    unit: str
    full: float
    word: str
    figure: Figure


_TELLS = 0.01
"""What a line must bring of a scale's total to be named in its working."""


def _word(quality: Quality, value: float) -> str:
    return next((word for limit, word in quality.words if value < limit), "")


def scale_of(
    quality: Quality,
    of: Summed,
    wet: bool,
    total: float,
    ends: tuple[float, float],
    share: float,
    labelled: bool = False,
) -> Scale:
    """Return a scale; `total` and `ends` are of the finished blend, `share` is its mass over what went in."""
    steps: list[Step] = []
    brought, mixed = of.brought[quality.key], of.mixed[quality.key]
    rest, others = 0.0, 0
    for at, mine in enumerate(brought):
        if mine > mixed * _TELLS:
            part, source = of.parts[at], "arithmetic"
            if len(part.leaves) == 1:
                source = VALUE_SOURCES.get(quality.field) or part.leaves[0][0].ingredient.source
            value = of.values[quality.key][at]
            steps.append(Step(f"{quality.label} of {part.name}", of.counts[at], value, quality.unit, source))
        elif mine > 0:
            rest, others = rest + mine, others + 1
    if others:
        steps.append(Step(f"{others} more lines", "each brings under 1 % of it", rest, quality.unit))
    formula = "sum of share × value" if steps else "no line holds any"
    steps.append(Step(f"{quality.label} in the blend", formula, mixed, quality.unit))
    if abs(total - mixed) > 1e-9 * max(1.0, abs(mixed)):
        rule = f"after its method, {say(share * 100, 3)} % of what went in is left"
        steps.append(Step(f"{quality.label} in the finished blend", rule, total, quality.unit))
    low, high = ends
    error = error_words(quality, of, low, high, total, labelled) if total > 0 else "exact"
    value, unit = total, quality.unit
    if quality.key == "heat":
        value, unit = heat_scale(total), "of 10"
    full = max(quality.full[wet], math.ceil(value)) if value > quality.full[wet] else quality.full[wet]
    found = figure(steps, error, low=low, high=high)
    return Scale(quality.key, quality.label, value, unit, float(full), _word(quality, value), found)


def spread_scale(leaves: Sequence[tuple[Grind, float]]) -> Scale:
    low, high = grain_percentile(leaves, 0.1), grain_percentile(leaves, 0.9)
    ratio = high / low if low else 1.0
    steps = (
        Step("Finest tenth ends at", "grains by mass, smallest first", low, "mm", "estimate"),
        Step("Coarsest tenth begins at", "grains by mass, smallest first", high, "mm", "estimate"),
        Step("Grain spread", f"{high:g} mm / {low:g} mm" if low else "nothing solid", ratio, "times"),
    )
    word = "even" if ratio < 2.5 else "mixed" if ratio < 6 else "wide"
    found = figure(steps, "±50 %: middle grain sizes, each with a spread of its own", spread=0.5)
    return Scale(SPREAD, "Grain spread", ratio, "times", max(25.0, math.ceil(ratio)), word if low else "", found)
