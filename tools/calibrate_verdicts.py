"""How good verdicts across cooks are: books made up with known truths, read by the model; docs/calibration.md.

``make calibrate`` runs them all and prints the tables; ``BOOKS`` (of every scenario) and ``SEED`` choose others. The
truth of a cut is what this table's whole-number scores differ by in expectation: scores are rounded and end at 1 and 9,
which the model does not know.
"""

import os
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from numpy.typing import NDArray
from ravska_core.across import (
    MARGIN,
    SURE,
    Ahead,
    Asked,
    Cards,
    Chances,
    Counted,
    Posterior,
    Statistics,
    asked,
    chances_at,
    decide,
    fit_statistics,
    more_needed,
)
from scipy.special import ndtr

Array = NDArray[np.float64]

LEVEL, LEVEL_SD = 6.0, 0.7
"""Where scores lie and how far tasters' own levels differ [points of 9]."""

LOOKS = 20
BINS = ((1, 1), (2, 2), (3, 5), (6, 10), (11, 20))


@dataclass(frozen=True)
class World:
    """What is true: the difference by cut, spreads, what coming first gives, what is wrong with cooks that have it."""

    cuts: Array
    tasters: Array
    levels: Array
    cook_sd: float
    sigma: float
    order: float = 0.0
    bias: float = 0.0

    def truth(self, cut: int, shares: Array) -> float:
        """Return by how much this table's whole-number scores of a cut differ in expectation."""
        differ = self.cuts[cut] + self.tasters
        sd = np.sqrt(self.sigma**2 / 2 + self.cook_sd**2 / 4)
        return float(shares @ (_whole(self.levels + differ / 2, sd) - _whole(self.levels - differ / 2, sd)))


def _whole(mean: Array, sd: float) -> Array:
    """Return the expectation of a normal that is rounded and cut off at 1 and 9."""
    steps = np.arange(1, 9) + 0.5
    return np.asarray(1 + ndtr((mean[:, None] - steps) / sd).sum(1))


def scored(world: World, plan: Sequence[tuple[int, Sequence[int], float]], chance: np.random.Generator,
           turned: float = 0.5) -> Cards:  # fmt: skip
    """Return the cards of cooks: each of a cut, by some tasters, with something else that differs or not.

    `turned` is how often the second comes first.
    """
    rows: list[tuple[float, int, int, int, float, float]] = []
    for at, (cut, tasters, muddied) in enumerate(plan):
        moved = chance.normal(0, world.cook_sd)
        for taster in tasters:
            first = 0.5 if chance.random() < turned else -0.5
            differ = world.cuts[cut] + world.tasters[taster] + moved + first * world.order + muddied * world.bias
            noise = chance.normal(0, world.sigma / 2**0.5, 2)
            one, other = (
                np.clip(np.floor(world.levels[taster] + side * differ / 2 + wobble + 0.5), 1, 9)
                for side, wobble in zip((-1, 1), noise, strict=True)
            )
            rows.append((other - one, at, taster, cut, first, muddied))
    difference, cook, taster, cut, firsts, z = (np.array(column) for column in zip(*rows, strict=True))
    any_muddied = bool(z.any())
    return Cards(
        difference, cook.astype(np.intp), taster.astype(np.intp), cut.astype(np.intp), len(world.cuts), firsts,
        z[:, None] if any_muddied else np.zeros((len(rows), 0)), np.ones(int(any_muddied)),
    )  # fmt: skip


def up_to(cards: Cards, cooks: int) -> Cards:
    """Return the cards of the first so many cooks."""
    keep = cards.cook < cooks
    used, tasters = np.unique(cards.taster[keep], return_inverse=True)
    del used
    z = cards.confounds[keep]
    return replace(
        cards, difference=cards.difference[keep], cook=cards.cook[keep], taster=tasters.astype(np.intp),
        cut=cards.cut[keep], first=cards.first[keep], confounds=z,
    )  # fmt: skip


def read(cards: Cards, contrast: Array | None = None) -> tuple[Posterior, Asked, list[Chances]]:
    """Return what is believed of every cut for this table, and of a contrast after them."""
    left = Statistics(cards)
    rows = [(1.0, np.eye(cards.cuts)[cut], left.shares) for cut in range(cards.cuts)]
    if contrast is not None:
        rows.append((0.0, contrast, np.zeros(left.tasters)))
    of = asked(rows, cards.cuts, left.tasters)
    found = fit_statistics(left, of)
    above, below = found.below(MARGIN), found.below(-MARGIN)
    return found, of, [chances_at(above, below, at + 1) for at in range(len(rows))]


def counted(cards: Cards, cut: int, clean: Array) -> Counted:
    """Count a cut's cooks and cards; `clean` says which cooks are."""
    here = cards.cut == cut
    cooks = np.unique(cards.cook[here])
    good = here & clean[cards.cook]
    return Counted(len(cooks), int(here.sum()), len(np.unique(cards.cook[good])), int(good.sum()))


def world_of(chance: np.random.Generator, tasters: int, cuts: Sequence[float], cook_sd: float = 0.35,
             taster_sd: float = 0.5, sigma: float = 1.5) -> World:  # fmt: skip
    """Return a world in which this table's latent differences are just these: tasters' own cancel out."""
    own = chance.normal(0, taster_sd, tasters)
    return World(
        np.array(cuts, float), own - own.mean(), chance.normal(LEVEL, LEVEL_SD, tasters), cook_sd, sigma
    )  # fmt: skip


def drawn(seed: int) -> list[tuple[int, bool, float]]:
    """Return of a book drawn from the priors, cut by cut: its cooks, whether an interval holds the truth, its width."""
    chance = np.random.default_rng((seed, 1))
    world, plan = _from_priors(seed, chance)
    cards = scored(world, plan, chance)
    cards = up_to(cards, len(plan))
    used = np.unique([taster for _, tasters, _ in plan for taster in tasters])
    found, _, _ = read(cards)
    low, high = found.quantile(0.025), found.quantile(0.975)
    shares = np.zeros(len(world.tasters))
    shares[used] = found.statistics.shares
    return [
        (len(plan), bool(low[at] <= world.truth(at - 1, shares) <= high[at]), float(high[at] - low[at]))
        for at in np.unique(cards.cut) + 1
    ]


def _from_priors(seed: int, chance: np.random.Generator) -> tuple[World, list[tuple[int, Sequence[int], float]]]:
    low, high = BINS[seed % len(BINS)]
    cooks = int(chance.integers(low, high + 1))
    cuts, tasters = int(chance.integers(1, 5)), int(chance.integers(3, 9))
    mu, spread = chance.normal(0, 1), np.abs(chance.normal(0, [0.75, 0.5, 0.75]))
    world = World(
        mu + chance.normal(0, spread[0], cuts), chance.normal(0, spread[2], tasters),
        chance.normal(LEVEL, LEVEL_SD, tasters), float(spread[1]), float(1.5 * np.exp(chance.normal(0, 0.35))),
    )  # fmt: skip
    plan: list[tuple[int, Sequence[int], float]] = []
    for _ in range(cooks):
        some = chance.choice(tasters, int(chance.integers(2, tasters + 1)), replace=False)
        plan.append((int(chance.integers(cuts)), [int(one) for one in np.sort(some)], 0.0))
    return world, plan


def looked_at(
    seed: int, truth: float = 0.0, cook_sd: float = 0.35, sigma: float = 1.5, cooks: int = LOOKS
) -> list[str]:
    """Return what is said after each cook of four tasters."""
    chance = np.random.default_rng((seed, 2))
    world = world_of(chance, 4, [truth], cook_sd, sigma=sigma)
    cards = scored(world, [(0, range(4), 0.0)] * cooks, chance)
    return [
        decide(read(up_to(cards, look))[2][0], counted(up_to(cards, look), 0, np.ones(look, bool)))
        for look in range(1, cooks + 1)
    ]


def contrasted(seed: int, planted: float) -> str:
    """Return what twelve cooks of six cuts say of a contrast: three cuts on one side, three on the other."""
    chance = np.random.default_rng((seed, 3))
    sides = np.array([1, 1, 1, -1, -1, -1])
    world = world_of(chance, 4, list(planted * sides))
    cards = scored(world, [(cut % 6, range(4), 0.0) for cut in range(12)], chance)
    chances = read(cards, sides / 3)[2][-1]
    return "second" if chances.second >= SURE else "first" if chances.first >= SURE else ""


def muddied(seed: int, clean: int, biased: int) -> str:
    """Return what is said where some cooks have a bias of a point and nothing is true."""
    chance = np.random.default_rng((seed, 4))
    world = replace(world_of(chance, 4, [0.0]), bias=1.0)
    plan = [(0, range(4), 0.0)] * clean + [(0, range(4), 1.0)] * biased
    cards = scored(world, plan, chance)
    return decide(read(cards)[2][0], counted(cards, 0, np.arange(clean + biased) < clean))


def out_of_balance(seed: int, cooks: int) -> str:
    """Return what is said where what comes first gets 0.6 more, two thirds of cards are one way round, and nothing is
    true."""
    chance = np.random.default_rng((seed, 5))
    world = replace(world_of(chance, 4, [0.0]), order=0.6)
    cards = scored(world, [(0, range(4), 0.0)] * cooks, chance, turned=2 / 3)
    return decide(read(cards)[2][0], counted(cards, 0, np.ones(cooks, bool)))


def more_came_true(seed: int) -> tuple[float, bool] | None:
    """Return the chance that further cooks settle a cut as it was told, and whether they did; None where known."""
    chance = np.random.default_rng((seed, 6))
    spreads = np.abs(chance.normal(0, [0.5, 0.75]))
    world = world_of(chance, 4, [chance.normal(0, 1.0) + chance.normal(0, abs(chance.normal(0, 0.75)))],
                     float(spreads[0]), float(spreads[1]), float(1.5 * np.exp(chance.normal(0, 0.35))))  # fmt: skip
    begun, most = int(chance.integers(1, 6)), 12
    cards = scored(world, [(0, range(4), 0.0)] * (begun + most), chance)
    now = up_to(cards, begun)
    found, of, chances = read(now)
    clean = np.ones(begun + most, bool)
    if decide(chances[0], counted(now, 0, clean)) != "not yet known":
        return None
    more = more_needed(Ahead(found, of), 1, 0, range(4), counted(now, 0, clean))
    cooks = more.cooks or int(chance.integers(1, most + 1))
    told = more.chance if more.cooks else float(
        Ahead(found, of).settles(1, 0, range(4), counted(now, 0, clean), cooks)[-1]
    )  # fmt: skip
    after = up_to(cards, begun + cooks)
    return told, decide(read(after)[2][0], counted(after, 0, clean)) != "not yet known"


def _share(hits: Sequence[bool]) -> str:
    return f"{100 * sum(hits) / max(1, len(hits)):.1f}"


def _false(said: str) -> bool:
    return said in ("first", "second")


def tables(pool: ProcessPoolExecutor, books: int, seed: int) -> Iterator[str]:
    """Run every scenario and put what came of it into rows."""
    at = range(seed, seed + books)

    def run(what, *given, count: int = books, **named):  # type: ignore[no-untyped-def]
        return list(pool.map(partial(what, *given, **named), range(seed, seed + count), chunksize=8))

    cells = [cell for book in run(drawn, count=4 * books) for cell in book]
    yield f"coverage of 95 % intervals: {_share([held for _, held, _ in cells])} of {len(cells)} cells"
    for low, high in BINS:
        mine = [(held, width) for cooks, held, width in cells if low <= cooks <= high]
        yield f"  {low}-{high} cooks: {_share([held for held, _ in mine])}, width {np.mean([w for _, w in mine]):.2f}"
    for label, given in (("as usual", {}), ("tau_cook 0.8", {"cook_sd": 0.8}), ("sigma 2.2", {"sigma": 2.2})):
        said = run(looked_at, **given)
        at_look = [sum(_false(book[look]) for book in said) / len(said) for look in range(LOOKS)]
        ever = [any(map(_false, book)) for book in said]
        no_matter = _share([book[-1] == "no matter" for book in said])
        yield f"nothing true, {label}: at worst {100 * max(at_look):.1f} at a look, {_share(ever)} ever, {no_matter} " \
              f"say no matter after {LOOKS}"  # fmt: skip
    said = run(looked_at, truth=1.5, cooks=8)
    yield f"true 1.5, 4 tasters, 8 cooks: named {_share([book[-1] == 'second' for book in said])}"
    said = run(looked_at, truth=1.0, cooks=8)
    yield f"true 1.0, 4 tasters, 8 cooks: named {_share([book[-1] == 'second' for book in said])}"
    yield f"contrast of 1.5 planted: found {_share([one == 'second' for one in run(contrasted, planted=1.5)])}"
    yield f"contrast of none: false {_share([bool(one) for one in run(contrasted, planted=0.0)])}"
    yield f"two clean, four biased: false {_share([_false(one) for one in run(muddied, clean=2, biased=4)])}"
    yield f"none clean, six biased: named {_share([one != 'not yet known' for one in run(muddied, clean=0, biased=6)])}"
    for cooks in (4, 8, 16):
        yield f"order 0.6, {cooks} cooks: false {_share([_false(one) for one in run(out_of_balance, cooks=cooks)])}"
    told = sorted(one for one in run(more_came_true, count=2 * books) if one is not None)
    for low in np.arange(0, 1, 0.1):
        mine = [came for chance, came in told if low <= chance < low + 0.1]
        if mine:
            mean = np.mean([chance for chance, _ in told if low <= chance < low + 0.1])
            yield f"  told {100 * mean:.0f}: came true {_share(mine)} of {len(mine)}"
    del at


if __name__ == "__main__":
    with ProcessPoolExecutor(max_workers=os.cpu_count()) as pool:
        for line in tables(pool, int(os.environ.get("BOOKS", "1000")), int(os.environ.get("SEED", "5000"))):
            print(line, flush=True)
