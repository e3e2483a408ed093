"""Aiming a blend: the nearest blend that meets targets, within bounds and locks.

Variables are the shares x of the lines (sum 1). Among all blends that meet the targets, the nearest to
today's minimises sum(((x - x0) / max(x0, 0.05))^2): a quadratic objective under linear constraints.

References
----------
SciPy: ``scipy.optimize.linprog`` (HiGHS) for what can be met at all, ``scipy.optimize.minimize`` (SLSQP)
for the nearest blend. Both load when first used, as importing them takes long.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ravska_core.blend.aim_problem import GONE, LEAST_WEIGHT, TOLERANCE, ShareProblem, Vector
from ravska_core.blend.lines import Blend, Line
from ravska_core.blend.parts import Part, check_blend, mix, shares
from ravska_core.blend.qualities import QUALITIES, SPREAD, grain_percentile, heat_scale, part_qualities
from ravska_core.blend.ratios import with_shares
from ravska_core.blend.targets import Bound, Target, check_targets
from ravska_core.working import BadInput, in_range, say


@dataclass(frozen=True)
class Aimed:
    """The nearest blend: its lines, whether every target is met, and what stands against each other if not."""

    lines: tuple[Line, ...]
    met: bool
    conflicts: tuple[str, ...]
    unchanged: bool


def _check_bounds(bounds: Sequence[Bound], lines: int) -> None:
    for at, bound in enumerate(bounds):
        if not 0 <= bound.line < lines:
            raise BadInput(f"bounds.{at}.line", "This line is not there any more.")
        for side, value in (("low", bound.low), ("high", bound.high)):
            in_range(f"bounds.{at}.{side}", value, 0, 1, "A share lies between 0 and 100 %.")
        if bound.low > bound.high:
            raise BadInput(
                f"bounds.{at}.high",
                f"At least {bound.low * 100:g} % and at most {bound.high * 100:g} % of one line cannot both be.",
            )


def _reading(problem: ShareProblem, x: Vector, what: str) -> float:
    if what == SPREAD:
        leaves = [(g, of * share) for p, share in zip(problem.parts, x, strict=True) for g, of in p.leaves if share > 0]
        low = grain_percentile(leaves, 0.1)
        return grain_percentile(leaves, 0.9) / low if low else 1.0
    value = float(problem.columns[what] @ x)
    return heat_scale(value) if what == "heat" else value


def meets(target: Target, value: float, tolerance: float = 1e-6) -> bool:
    """Return whether a value lies within a target."""
    return not (
        (target.low is not None and value < target.low - tolerance)
        or (target.high is not None and value > target.high + tolerance)
    )


def _beyond_all(problem: ShareProblem, target: Target) -> str:
    """Return why no share of these lines can meet a target by itself, or ""."""
    if target.what == SPREAD:
        return ""
    values = [_reading(problem, row, target.what) for row in np.eye(len(problem.lines))]
    label = QUALITIES[target.what].label.lower()
    best, least = int(np.argmax(values)), int(np.argmin(values))
    if target.low is not None and values[best] < target.low:
        if values[best] <= 1e-9:
            return f"No line of this blend brings any {label}; add one that does."
        return (
            f"No line reaches that much {label}: the most is {say(values[best], 3)} in {problem.name(best)}. "
            "Aim lower, or add a line that holds more."
        )
    if target.high is not None and values[least] > target.high:
        return (
            f"Every line holds more {label} than that: the least is {say(values[least], 3)} in {problem.name(least)}. "
            "Aim higher, or add a line that holds less."
        )
    return ""


def aim(
    blend: Blend,
    targets: Sequence[Target],
    bounds: Sequence[Bound] = (),
    prices: Mapping[str, float] | None = None,
) -> Aimed:
    """Find the blend nearest to this one that meets every target.

    Locked lines hold their share, or their ratio to each other. When no blend meets all, the closest that can
    be had is returned with the targets and locks that stand against each other.

    Raises
    ------
    BadInput
        At ``targets.N`` or ``bounds.N`` for what cannot be, at ``lines`` for a blend without lines or locks that
        contradict the bounds.
    """
    check_targets(targets)
    _check_bounds(bounds, len(blend.lines))
    parts = check_blend(blend)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    today = shares(blend.lines, parts)
    gains = _gains(blend, parts, today)
    aimed = _aim(blend.lines, parts, today, targets, bounds, prices, gains)
    # what a reduction takes depends on the shares: aimed again until that stands still
    for _ in range(_MOST_ROUNDS if gains else 0):
        if len(aimed.lines) < len(blend.lines):
            break
        then = _gains(blend, parts, shares(aimed.lines, parts))
        if all(abs(then[key] / gain - 1) < 1e-6 for key, gain in gains.items() if gain and key in then):
            break
        gains = then
        aimed = _aim(blend.lines, parts, today, targets, bounds, prices, gains)
    return aimed


_MOST_ROUNDS = 6


def _gains(blend: Blend, parts: Sequence[Part], at: Sequence[float]) -> dict[str, float]:
    """Return how many times a finished blend holds of every quality what its lines do; nothing without a method."""
    if not blend.method:
        return {}
    mixed = mix(blend, at, parts)
    after = part_qualities(Part("", 1.0, "", "", mixed.leaves, mixed.strained, mixed.gone, spent=mixed.spent))
    before = [0.0] * len(after)
    for share, part in zip(at, parts, strict=True):
        before = [total + share * value for total, value in zip(before, part_qualities(part), strict=True)]
    return {key: b / a if a else 1.0 for key, a, b in zip(QUALITIES, before, after, strict=True)}


def _aim(
    lines: Sequence[Line],
    parts: Sequence[Part],
    today: Sequence[float],
    targets: Sequence[Target],
    bounds: Sequence[Bound],
    prices: Mapping[str, float] | None,
    gains: Mapping[str, float],
) -> Aimed:
    asked = [target for target in targets if target.low is not None or target.high is not None]
    problem = ShareProblem(lines, parts, today, asked, bounds, prices, gains)
    x0 = problem.today
    inside = bool(np.all(x0 >= problem.low - 1e-9) and np.all(x0 <= problem.high + 1e-9))
    if inside and all(meets(target, _reading(problem, x0, target.what)) for target in asked):
        return Aimed(tuple(lines), True, (), True)

    best: tuple[float, float, Vector, tuple[str, ...]] | None = None
    for way in problem.windows():
        start, slack, blame = problem.reach(way)
        if start is None:
            raise BadInput("lines", _contradiction(problem))
        short = float(slack.sum())
        if best is not None and (short > best[0] + 1e-9):
            continue
        x = problem.nearest(start, way, slack)
        far = float((((x - x0) / np.maximum(x0, LEAST_WEIGHT)) ** 2).sum())
        if best is None or (short, far) < (best[0] - 1e-9, best[1]) or (abs(short - best[0]) <= 1e-9 and far < best[1]):
            best = (short, far, x, blame)
    assert best is not None
    _, _, x, blame = best

    met = all(meets(target, _reading(problem, x, target.what), _near(target)) for target in asked)
    conflicts: list[str] = []
    if not met:
        missed = [target for target in asked if not meets(target, _reading(problem, x, target.what), _near(target))]
        conflicts = [why for why in (_beyond_all(problem, target) for target in missed) if why]
        if not conflicts and len(blame) > 1:
            conflicts.append(f"These stand against each other: {'; '.join(blame)}. Loosen one of them.")
        had = ", ".join(_closest(problem, x, target) for target in missed)
        conflicts.append(f"The closest that can be had: {had}.")
    keep = [at for at, share in enumerate(x) if share > GONE]
    final = x[keep] / x[keep].sum()
    left, of = [lines[at] for at in keep], [parts[at] for at in keep]
    scaled = list(final) if len(keep) < len(lines) else list(x)
    return Aimed(with_shares(left, of, scaled), met, tuple(conflicts), False)


def _near(target: Target) -> float:
    return TOLERANCE * (100 if QUALITIES.get(target.what) and QUALITIES[target.what].unit == "%" else 1) * 0.1 + 1e-6


def _closest(problem: ShareProblem, x: Vector, target: Target) -> str:
    value = _reading(problem, x, target.what)
    label = "grain spread" if target.what == SPREAD else QUALITIES[target.what].label.lower()
    unit = " %" if target.what in QUALITIES and QUALITIES[target.what].unit == "%" else ""
    return f"{label} {say(value, 3)}{unit}"


def _contradiction(problem: ShareProblem) -> str:
    locked = [problem.name(at) for at, line in enumerate(problem.lines) if line.lock]
    for at, line in enumerate(problem.lines):
        if line.lock == "share" and not problem.low[at] - 1e-9 <= problem.today[at] <= problem.high[at] + 1e-9:
            return (
                f"{problem.name(at)} is locked at {say(problem.today[at] * 100, 3)} % but bounded between "
                f"{problem.low[at] * 100:g} and {problem.high[at] * 100:g} %; unlock it or widen its bounds."
            )
    if problem.low.sum() > 1:
        return f"The least shares of the lines add up to {say(problem.low.sum() * 100, 4)} %; lower one of them."
    if problem.high.sum() < 1:
        return (
            f"The most that the lines may have adds up to {say(problem.high.sum() * 100, 4)} % only; raise one of them."
        )
    return f"The locks on {', '.join(locked)} and the bounds contradict each other; unlock a line or widen a bound."
