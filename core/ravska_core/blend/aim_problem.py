"""Aiming as a problem of shares: least change that meets every target, by linear programming."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
import numpy.typing as npt
from scipy.optimize import linprog, minimize

from ravska_core.blend.lines import Line
from ravska_core.blend.parts import Part
from ravska_core.blend.qualities import QUALITIES, SPREAD, heat_scoville, part_qualities
from ravska_core.blend.targets import Bound, Target, say_target

TOLERANCE = 0.001
"""How near a met target is: 0.1 of a percentage point, or a thousandth of the scale."""

LEAST_WEIGHT = 0.05
"""Shares below this count as this much, so that a pinch of cayenne can double before pepper gives way."""

GONE = 2e-5

_WINDOWS = 6

Vector = npt.NDArray[np.float64]


@dataclass(frozen=True)
class _Row:
    """A linear demand row @ x <= limit, said as `name`; `size` makes violations of several comparable."""

    row: Vector
    limit: float
    name: str
    size: float


class ShareProblem:
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

        weight = np.maximum(self.today, LEAST_WEIGHT)
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
