"""How sure what a blend comes to is: errors of measuring, of the catalogue's values and of labels, gathered."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ravska_core.blend.estimate import estimate
from ravska_core.blend.label import Label
from ravska_core.blend.lines import Blend, Line
from ravska_core.blend.parts import Mixed, Part
from ravska_core.blend.qualities import QUALITIES, Quality, part_qualities, qualities_of
from ravska_core.catalogue import Grind, Ingredient, while_it_stands
from ravska_core.measure import SCALE_ERROR
from ravska_core.working import say

_VALUE_ERRORS = {"heat": 0.4, "smoke": 0.3, "herb": 0.3, "savoury": 0.3, "cost": 0.3}
"""Relative error of an ingredient's own values, where it is not the usual 5 % (estimates)."""

_VALUE_ERROR = 0.05

_SALT_ERROR = 0.01

_SIEVE_ERROR = 0.3
"""Relative error of the salt in what is sold as salt, and of all that a sieve holds back (estimates)."""


@while_it_stands(None)
def _value_errors(ingredient: Ingredient) -> tuple[float, ...]:
    """Return how far an ingredient's own qualities may lie off, in the order of `QUALITIES`."""
    own = max(ingredient.error, _SALT_ERROR if ingredient.nacl > 0.9 else _VALUE_ERROR)
    return tuple(
        value * (own if key == "salt" else max(ingredient.error, _VALUE_ERRORS.get(key, _VALUE_ERROR)))
        for key, value in zip(QUALITIES, qualities_of(ingredient), strict=True)
    )


Errors = tuple[list[float], list[float]]
"""How far every quality may lie below and above, in the order of `QUALITIES`."""


def _label_errors(label: Label, leaves: Sequence[tuple[Grind, float]], values: Sequence[float]) -> Errors:
    found = estimate(label, tuple(grind for grind, _ in leaves)).qualities
    ranges = [found[key] for key in QUALITIES]
    return (
        [max(0.0, value - r.low) for value, r in zip(values, ranges, strict=True)],
        [max(0.0, r.high - value) for value, r in zip(values, ranges, strict=True)],
    )


def mixture_errors(
    shares: Sequence[float], mass_errors: Sequence[float], values: Sequence[Sequence[float]], own: Sequence[Errors]
) -> Errors:
    """Determine how far the qualities of a mixture may lie off; errors of lines are taken as independent.

    With Q = sum(x q), dQ/dm = x (q - Q) for a relative change of a line's mass and dQ/dq = x; their squares add up.

    Parameters
    ----------
    shares, mass_errors : sequence
        Mass share of every line and the relative error of its mass.
    values, own : sequence
        Every line's qualities, and how far these may lie off themselves.

    References
    ----------
    JCGM 100:2008, Guide to the expression of uncertainty in measurement, 5.1.2.
    """
    share, error = np.array(shares)[:, None], np.array(mass_errors)[:, None]
    value = np.array(values)
    amounts = (share * error * (value - (share * value).sum(axis=0))) ** 2
    ends = ((amounts + (share * np.array([of[end] for of in own])) ** 2).sum(axis=0) for end in (0, 1))
    low, high = (np.sqrt(end).tolist() for end in ends)
    return low, high


@while_it_stands(512)
def _errors_inside(part: Part) -> Errors:
    """Determine how far the qualities of a blend inside may lie off; it is the same one at every key."""
    inner = [part_qualities(of) for of, _, _ in part.inside]
    low, high = mixture_errors(
        [share for _, share, _ in part.inside],
        [error for _, _, error in part.inside],
        inner,
        [part_errors(of, found) for (of, _, _), found in zip(part.inside, inner, strict=True)],
    )
    # what was simmered down holds more of everything in less
    return [x * (1 + part.gone) for x in low], [x * (1 + part.gone) for x in high]


def part_errors(part: Part, values: Sequence[float]) -> Errors:
    """Determine how far the qualities of a line's stuff may lie off: by its ingredients, its recipe or its label."""
    if part.label is not None:
        return _label_errors(part.label, part.leaves, values)
    if part.inside:
        return _errors_inside(part)
    if part.spent:
        # nobody weighed what a sieve keeps of aroma and liquid
        rough = [abs(value) * _SIEVE_ERROR for value in values]
        return rough, rough
    errors = list(_value_errors(part.leaves[0][0].ingredient))
    return errors, errors


_ERRORS = {
    "heat": "chillies of one kind differ by 40 %; pepper, mustard and ginger are counted as what they feel like",
    "smoke": "an estimate of aroma, ±30 % a line",
    "herb": "an estimate of aroma, ±30 % a line",
    "savoury": "free glutamate differs by ripeness and age, ±30 % a line",
    "cost": "±30 % a line until your own prices are in",
}


@dataclass(frozen=True)
class Summed:
    """Lines with what each brings of every quality, by its key: its value, its part of the sum, the sum of all.

    `moves` is how far an error of a line's mass moves the sum: share x error x (value - sum); `counts` says with how
    much a line counts.
    """

    lines: Sequence[Line]
    parts: Sequence[Part]
    shares: Sequence[float]
    values: Mapping[str, Sequence[float]]
    brought: Mapping[str, Sequence[float]]
    mixed: Mapping[str, float]
    moves: Mapping[str, Sequence[float]]
    bought_inside: bool
    counts: Sequence[str]


def summed(
    lines: Sequence[Line], parts: Sequence[Part], shares: Sequence[float], columns: Sequence[Sequence[float]]
) -> Summed:
    """Determine what lines bring of every quality; `columns` are the qualities of each, in the order of `QUALITIES`."""
    value, share = np.array(columns), np.array(shares)[:, None]
    brought = share * value
    mixed = brought.sum(axis=0)
    moves = np.abs(share * np.array([line.mass_error for line in lines])[:, None] * (value - mixed))

    def by_key(of: NDArray[np.float64]) -> dict[str, list[float]]:
        return dict(zip(QUALITIES, of.T.tolist(), strict=True))

    counts = [f"counts with {share * 100:.2f} %" for share in shares]
    inside = any(of.label for part in parts for of, _, _ in part.inside)
    sums = dict(zip(QUALITIES, mixed.tolist(), strict=True))
    return Summed(lines, parts, shares, by_key(value), by_key(brought), sums, by_key(moves), inside, counts)


def error_words(quality: Quality, of: Summed, low: float, high: float, total: float, labelled: bool) -> str:
    """Say how far a scale may lie off and where most of that comes from."""
    if labelled:
        return f"{say(low, 3)} to {say(high, 3)} {quality.unit}: every mixture that fits the label"
    wide = (high - low) / 2 / total * 100
    said = f"±{say(wide, 2)} %" if wide < 9.5 else f"±{wide:.0f} %"
    moves = of.moves[quality.key]
    most = max(moves)
    by = moves.index(most)
    if of.bought_inside:
        said += ", a bought blend inside"
    values = of.values[quality.key]
    bought = [part.name for part, value in zip(of.parts, values, strict=True) if part.label is not None and value > 0]
    if bought:
        return f"{said}: most of it from the label of {' and '.join(bought)}"
    if of.lines[by].error and most > 0.3 * (high - low) / 2:
        return f"{said}: most of it from {of.parts[by].name}, by eye ±{of.lines[by].error * 100:.0f} %"
    if quality.key in _ERRORS:
        return f"{said}: {_ERRORS[quality.key]}"
    if any(line.basis == "spoon" for line in of.lines):
        return f"{said}: level spoons ±10 %, kinds ±5 %, taken as independent"
    return f"{said}: kinds of one ingredient differ by 5 %"


def ends_of(total: float, low: float, high: float) -> tuple[float, float]:
    return max(0.0, total - low), total + high


def amount_error(line: Line) -> str:
    if line.error:
        return f"by eye ±{line.error * 100:.0f} %"
    return "a level spoon ±10 %" if line.basis == "spoon" else f"a scale ±{SCALE_ERROR * 100:.0f} %"


def finished_qualities(mixed: Mixed, prices: Mapping[str, float] | None) -> list[float]:
    """Determine the qualities of a finished blend, in the order of `QUALITIES`."""
    return part_qualities(Part("", 1.0, "", "", mixed.leaves, mixed.strained, mixed.gone, spent=mixed.spent), prices)


def blend_errors(
    blend: Blend, parts: Sequence[Part], shares: Sequence[float], columns: Sequence[Sequence[float]], mixed: Mixed
) -> Errors:
    """Determine how far the qualities of the finished blend may lie off."""
    if blend.label is not None:
        return _label_errors(blend.label, [part.leaves[0] for part in parts], finished_qualities(mixed, None))
    own = [part_errors(part, column) for part, column in zip(parts, columns, strict=True)]
    low, high = mixture_errors(shares, [line.mass_error for line in blend.lines], columns, own)
    return [x / mixed.share for x in low], [x / mixed.share for x in high]
