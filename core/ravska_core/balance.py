"""Aiming a blend: the nearest blend that meets targets, within bounds and locks.

Variables are the shares x of the lines (sum 1). Among all blends that meet the targets, the nearest to
today's minimises sum(((x - x0) / max(x0, 0.05))^2): a quadratic objective under linear constraints.

References
----------
SciPy: ``scipy.optimize.linprog`` (HiGHS) for what can be met at all, ``scipy.optimize.minimize`` (SLSQP)
for the nearest blend. Both load when first used, as importing them takes long.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
import numpy.typing as npt

from ravska_core.blends import Blend, Line, Part, check_blend, mix, shares
from ravska_core.catalogue import Catalogue, catalogue
from ravska_core.composition import QUALITIES, SPREAD, grain_percentile, heat_scale, heat_scoville, part_qualities
from ravska_core.ratios import with_shares
from ravska_core.working import BadInput, in_range, say

TARGETS = (*QUALITIES, SPREAD)
"""What a blend can be aimed at."""

TARGET_LIMITS = {"heat": 10.0, "smoke": 10.0, "herb": 10.0, "cost": 10_000.0, SPREAD: 1000.0}
"""Largest number a target may name; 100 for percentages."""

TOLERANCE = 0.001
"""How near a met target is: 0.1 of a percentage point, or a thousandth of the scale."""

_LEAST_WEIGHT = 0.05
"""Shares below this count as this much, so that a pinch of cayenne can double before pepper gives way."""
_GONE = 2e-5
_WINDOWS = 6

Vector = npt.NDArray[np.float64]


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


@dataclass(frozen=True)
class Aimed:
    """The nearest blend: its lines, whether every target is met, and what stands against each other if not."""

    lines: tuple[Line, ...]
    met: bool
    conflicts: tuple[str, ...]
    unchanged: bool


@dataclass(frozen=True)
class _Row:
    """A linear demand row @ x <= limit, said as `name`; `size` makes violations of several comparable."""

    row: Vector
    limit: float
    name: str
    size: float


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


class _Problem:
    """Targets, locks and bounds of a blend as linear constraints on its shares."""

    def __init__(
        self,
        lines: Sequence[Line],
        parts: Sequence[Part],
        today: Sequence[float],
        targets: Sequence[Target],
        bounds: Sequence[Bound],
        prices: Mapping[str, float] | None,
        gains: Mapping[str, float],
    ) -> None:
        self.lines, self.parts = lines, parts
        self.today: Vector = np.array(today)
        values = np.array([part_qualities(part, prices) for part in parts]).T
        self.columns = {key: column * gains.get(key, 1.0) for key, column in zip(QUALITIES, values, strict=True)}
        self.low: Vector = np.zeros(len(lines))
        self.high: Vector = np.ones(len(lines))
        for bound in bounds:
            self.low[bound.line] = max(self.low[bound.line], bound.low)
            self.high[bound.line] = min(self.high[bound.line], bound.high)
        self.equal: list[tuple[Vector, float, str]] = []
        self._hold_locks()
        self.rows: list[_Row] = []
        self.spread: Target | None = None
        for target in targets:
            if target.what == SPREAD:
                self.spread = target
            else:
                self._demand(target)

    def name(self, at: int) -> str:
        name = self.parts[at].name
        return name if self.lines[at].blend is not None else name.split(",")[0].capitalize()

    def _hold_locks(self) -> None:
        held = [at for at, line in enumerate(self.lines) if line.lock == "ratio"]
        for at, line in enumerate(self.lines):
            if line.lock == "share":
                row = np.zeros(len(self.lines))
                row[at] = 1.0
                self.equal.append((row, float(self.today[at]), f"the lock on {self.name(at)}"))
        for at in held[1:]:
            row = np.zeros(len(self.lines))
            row[at], row[held[0]] = self.today[held[0]], -self.today[at]
            names = " and ".join(self.name(i) for i in (held[0], at))
            self.equal.append((row / max(self.today[at], self.today[held[0]]), 0.0, f"the held ratio of {names}"))

    def _demand(self, target: Target) -> None:
        column = self.columns[target.what]
        low, high = target.low, target.high
        if target.what == "heat":
            low, high = (None if end is None else heat_scoville(end) for end in (low, high))
        size = max(abs(low or 0.0), abs(high or 0.0), float(np.abs(column).max()) * 0.01, 1e-6)
        if low is not None:
            self.rows.append(_Row(-column / size, -low / size, say_target(replace(target, high=None)), size))
        if high is not None:
            self.rows.append(_Row(column / size, high / size, say_target(replace(target, low=None)), size))

    def windows(self) -> list[list[_Row]]:
        """Return the ways to meet a grain spread, the least violated first; one empty way when none is asked for.

        The finest and the coarsest tenth of the solid mass decide: for a window from size a to size b,
        at most a tenth may lie below a and at most a tenth above b.
        """
        if self.spread is None:
            return [[]]
        grains = [(at, g.grain_mm, of) for at, p in enumerate(self.parts) for g, of in p.leaves if g.grain_mm > 0]
        sizes = sorted({size for _, size, _ in grains})
        solid = np.zeros(len(self.lines))
        for at, _, of in grains:
            solid[at] += of

        def beyond(sign: float, most: float, counts: Callable[[float], bool], name: str) -> _Row:
            row = np.zeros(len(self.lines))
            for at, size, of in grains:
                if counts(size):
                    row[at] += of
            return _Row(sign * (row - most * solid), 0.0, name, 1.0)

        ways = []
        for a in sizes:
            way = []
            if self.spread.high is not None:
                b, name = a * self.spread.high, say_target(replace(self.spread, low=None))
                # a hair under a tenth, as the percentile is the first size to reach it
                way.append(beyond(1.0, 0.0999, (a * (1 - 1e-9)).__gt__, name))
                way.append(beyond(1.0, 0.0999, (b * (1 + 1e-9)).__lt__, name))
            if self.spread.low is not None:
                c, name = a * self.spread.low, say_target(replace(self.spread, high=None))
                way.append(beyond(-1.0, 0.1001, (a * (1 + 1e-9)).__ge__, name))
                way.append(beyond(-1.0, 0.1001, (c * (1 - 1e-9)).__le__, name))
            ways.append(way)
        ways.sort(key=lambda way: sum(max(0.0, float(row.row @ self.today) - row.limit) for row in way))
        return ways[:_WINDOWS] or [[]]

    def reach(self, extra: Sequence[_Row]) -> tuple[Vector | None, Vector, tuple[str, ...]]:
        """Find shares that violate the demands least: the shares, each demand's violation, and who is to blame.

        A linear program with one slack a demand. Its dual prices are a certificate: what has a price stands
        against the rest.
        """
        from scipy.optimize import linprog

        rows = [*self.rows, *extra]
        n, m = len(self.lines), len(rows)
        cost = np.concatenate([np.zeros(n), np.ones(m)])
        equal = np.array([np.ones(n), *(row for row, _, _ in self.equal)])
        limits = np.array([1.0, *(limit for _, limit, _ in self.equal)])
        found = linprog(
            cost,
            A_ub=np.hstack([np.array([row.row for row in rows]), -np.eye(m)]) if m else None,
            b_ub=np.array([row.limit for row in rows]) if m else None,
            A_eq=np.hstack([equal, np.zeros((len(equal), m))]),
            b_eq=limits,
            bounds=[*zip(self.low, self.high, strict=True), *[(0, None)] * m],
            method="highs",
        )
        if found.status != 0:
            return None, np.zeros(m), ()
        slack = np.maximum(found.x[n:], 0.0)
        blame: list[str] = []
        if m and slack.sum() > 1e-9:
            blame += [row.name for row, price in zip(rows, found.ineqlin.marginals, strict=True) if abs(price) > 1e-9]
            # the first price is that of "all shares make one whole"
            locks = zip(self.equal, found.eqlin.marginals[1:], strict=True)
            blame += [name for (_, _, name), price in locks if abs(price) > 1e-9]
            for at, (low, high) in enumerate(zip(found.lower.marginals[:n], found.upper.marginals[:n], strict=True)):
                if abs(low) > 1e-9 and self.low[at] > 0:
                    blame.append(f"at least {self.low[at] * 100:g} % {self.name(at)}")
                if abs(high) > 1e-9 and self.high[at] < 1:
                    blame.append(f"at most {self.high[at] * 100:g} % {self.name(at)}")
        return found.x[:n], slack, tuple(dict.fromkeys(blame))

    def nearest(self, start: Vector, extra: Sequence[_Row], slack: Vector) -> Vector:
        """Find the nearest shares that meet every demand but for its slack."""
        from scipy.optimize import minimize

        weight = np.maximum(self.today, _LEAST_WEIGHT)
        rows = [*self.rows, *extra]
        # in steps of the weights the objective is a plain sum of squares, which the solver meets in a few steps
        constraints: list[dict[str, Any]] = []
        equal = np.array([np.ones(len(weight)), *(row for row, _, _ in self.equal)])
        ends = np.array([1.0, *(limit for _, limit, _ in self.equal)])
        a = equal * weight
        constraints.append({"type": "eq", "fun": lambda y: a @ y + equal @ self.today - ends, "jac": lambda y: a})
        if rows:
            b = np.array([row.row for row in rows])
            room = np.array([row.limit for row in rows]) + slack + 1e-10 - b @ self.today
            b = b * weight
            constraints.append({"type": "ineq", "fun": lambda y: room - b @ y, "jac": lambda y: -b})
        found = minimize(
            lambda y: (float(y @ y), 2 * y),
            (start - self.today) / weight,
            jac=True,
            method="SLSQP",
            bounds=list(zip((self.low - self.today) / weight, (self.high - self.today) / weight, strict=True)),
            constraints=constraints,
            options={"maxiter": 200, "ftol": 1e-12},
        )
        shares_: Vector = np.clip(self.today + found.x * weight, self.low, self.high)
        worst = max((float(row.row @ shares_) - row.limit - s for row, s in zip(rows, slack, strict=True)), default=0.0)
        # where rounding leaves the solver stuck, what the linear program found is feasible too
        return shares_ if worst < TOLERANCE / 10 and abs(shares_.sum() - 1) < 1e-6 else start


def _reading(problem: _Problem, x: Vector, what: str) -> float:
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


def _beyond_all(problem: _Problem, target: Target) -> str:
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
    tables: Catalogue | None = None,
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
    parts = check_blend(blend, tables)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    known = tables or catalogue()
    today = shares(blend.lines, parts)
    gains = _gains(blend, parts, today, known)
    aimed = _aim(blend.lines, parts, today, targets, bounds, prices, gains)
    # what a reduction takes depends on the shares: aimed again until that stands still
    for _ in range(_MOST_ROUNDS if gains else 0):
        if len(aimed.lines) < len(blend.lines):
            break
        then = _gains(blend, parts, shares(aimed.lines, parts), known)
        if all(abs(then[key] / gain - 1) < 1e-6 for key, gain in gains.items() if gain and key in then):
            break
        gains = then
        aimed = _aim(blend.lines, parts, today, targets, bounds, prices, gains)
    return aimed


_MOST_ROUNDS = 6


def _gains(blend: Blend, parts: Sequence[Part], at: Sequence[float], tables: Catalogue) -> dict[str, float]:
    """Return how many times a finished blend holds of every quality what its lines do; nothing without a method."""
    if not blend.method:
        return {}
    mixed = mix(blend, at, parts, tables)
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
    problem = _Problem(lines, parts, today, asked, bounds, prices, gains)
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
        far = float((((x - x0) / np.maximum(x0, _LEAST_WEIGHT)) ** 2).sum())
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
    keep = [at for at, share in enumerate(x) if share > _GONE]
    final = x[keep] / x[keep].sum()
    left, of = [lines[at] for at in keep], [parts[at] for at in keep]
    scaled = list(final) if len(keep) < len(lines) else list(x)
    return Aimed(with_shares(left, of, scaled), met, tuple(conflicts), False)


def _near(target: Target) -> float:
    return TOLERANCE * (100 if QUALITIES.get(target.what) and QUALITIES[target.what].unit == "%" else 1) * 0.1 + 1e-6


def _closest(problem: _Problem, x: Vector, target: Target) -> str:
    value = _reading(problem, x, target.what)
    label = "grain spread" if target.what == SPREAD else QUALITIES[target.what].label.lower()
    unit = " %" if target.what in QUALITIES and QUALITIES[target.what].unit == "%" else ""
    return f"{label} {say(value, 3)}{unit}"


def _contradiction(problem: _Problem) -> str:
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
