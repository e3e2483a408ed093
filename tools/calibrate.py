"""How good forecasts are: hidden cooks of another model, forecast from what their probes show; docs/calibration.md.

``make calibrate`` runs 300 fresh cooks and prints the tables; ``COOKS`` and ``SEED`` choose others.
"""

import os
import time
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace

import numpy as np
from devices.hidden.cook import HiddenCook, Wanted
from devices.hidden.fire import Burns
from numpy.typing import NDArray
from ravska_core.heat import Forecast, Heated, Live, Phase, Seen, Stretch, by_minute, find_cooker, forecast
from ravska_core.meat import Piece, find_cut, read_piece

Array = NDArray[np.float64]

EVERY_S, TOLD_AT = 30.0, (0.25, 0.5, 0.75)


@dataclass(frozen=True)
class Kind:
    """A kind of cook: cut, weights [g], endpoint [°C] and pit [°C] from and to, and how often it is wrapped."""

    cut: str
    grams: tuple[float, float]
    centre_c: tuple[float, float]
    pit_c: tuple[float, float]
    wraps: float = 0.0


KINDS = (
    Kind("pork-shoulder", (2000, 4500), (90, 95), (105, 130), 0.5),
    Kind("lamb-shoulder", (1500, 2600), (88, 93), (110, 140), 0.3),
    Kind("lamb-leg", (1800, 3000), (54, 63), (120, 175)),
    Kind("pork-loin", (1000, 2200), (62, 66), (120, 170)),
    Kind("turkey-breast", (1500, 2500), (70, 74), (120, 170)),
    Kind("venison-haunch", (1500, 2600), (54, 60), (110, 150)),
)


@dataclass(frozen=True)
class Hidden:
    """A hidden cook: what is known of it, what its probes showed each half minute, and when it was done [s]."""

    piece: Piece
    phase: Phase
    times: Array
    centre: Array
    pit: Array
    done_s: float
    wrapped_s: float | None


def hidden_cook(seed: int) -> Hidden | None:
    """Return a hidden cook of a seed; None where it was not done within 36 h."""
    chance = np.random.default_rng((seed, 77))
    kind = KINDS[seed % len(KINDS)]
    grams, target, pit = (float(chance.uniform(*span)) for span in (kind.grams, kind.centre_c, kind.pit_c))
    target, pit = round(target), round(pit / 5) * 5.0
    wraps_c = 68.0 if chance.random() < kind.wraps else None
    piece = Piece(kind.cut, round(grams))
    solid = read_piece(piece).solid
    wanted = Wanted("A", solid.length_cm, solid.width_cm, solid.thickness_cm)
    steady = chance.random() < 0.35
    cook = HiddenCook(Burns("steady" if steady else "charcoal", pit, h=float(chance.uniform(8, 13))), [wanted], seed)
    rows, wrapped_s = [], None
    while cook.pieces[0].meat.at(cook.pieces[0].centre.off, cook.pieces[0].centre.along) < target:
        cook.go(EVERY_S)
        shown = cook.shown()
        rows.append((cook.seconds, shown.get("A", np.nan), shown.get("pit", np.nan)))
        if wraps_c is not None and wrapped_s is None and shown.get("A", 0.0) >= wraps_c:
            cook.do("wrap", "A")
            wrapped_s = cook.seconds
        if cook.seconds > 36 * 3600:
            return None
    times, centre, pits = np.array(rows).T
    return Hidden(piece, Phase("indirect", pit, "grate", centre_c=target), times, centre, pits, cook.seconds, wrapped_s)


def live_at(cook: Hidden, now_s: float) -> Live:
    """Return what is known of a hidden cook at a time."""
    seen = cook.times <= now_s
    cooker = find_cooker("kettle", "indirect")
    heated = Heated(cook.piece, find_cut(cook.piece.cut), read_piece(cook.piece), (cook.phase,), (cooker,))
    foil = replace(cook.phase, vessel="foil")
    past, ahead = (Stretch(cook.phase, cooker, now_s),), ((cook.phase, cooker),)
    if cook.wrapped_s is not None and cook.wrapped_s < now_s - 1:
        past = (Stretch(cook.phase, cooker, cook.wrapped_s), Stretch(foil, cooker, now_s - cook.wrapped_s))
        ahead = ((foil, cooker),)
    elif cook.wrapped_s is not None:
        ahead = ((replace(cook.phase, centre_c=68.0), cooker), (foil, cooker))
    return Live(
        heated, past, ahead, _seen(cook.times[seen], cook.centre[seen]), _seen(cook.times[seen], cook.pit[seen])
    )


def _seen(times: Array, celsius: Array) -> Seen:
    there = np.isfinite(celsius)
    return Seen(tuple(times[there].tolist()), tuple(celsius[there].tolist()))


def straight(live: Live, target: float) -> float:
    """Return when a straight line through the last half hour is at the target [s]."""
    times, celsius = by_minute(live.centre)
    near = times > live.now_s - 1800
    if near.sum() < 3:
        return np.inf
    slope, level = np.polyfit(times[near], celsius[near], 1)
    return float(max((target - level) / slope, live.now_s)) if slope > 1e-5 else np.inf


def exponential(live: Live, target: float) -> float:
    """Return when an exponential approach to the pit, through the last hour, is at the target [s]."""
    times, celsius = by_minute(live.centre)
    pit_times, pits = by_minute(live.pit)
    pit = float(pits[pit_times > live.now_s - 3600].mean())
    near = (times > live.now_s - 3600) & (celsius < pit - 1)
    if near.sum() < 3 or pit <= target:
        return np.inf
    slope, level = np.polyfit(times[near], np.log(pit - celsius[near]), 1)
    return float(max((np.log(pit - target) - level) / slope, live.now_s)) if slope < -1e-9 else np.inf


@dataclass(frozen=True)
class Told:
    """A forecast against what came true: share of the cook, what was left and the errors over that."""

    cut: str
    share: float
    left_s: float
    held: bool
    width: float
    off: float
    straight_off: float
    exponential_off: float
    took_s: float


def told_of(seed: int) -> list[Told]:
    """Return the forecasts of a hidden cook at a quarter, half and three quarters of it."""
    cook = hidden_cook(seed)
    if cook is None:
        return []
    found = []
    target = cook.phase.centre_c or 0.0
    for share in TOLD_AT:
        live = live_at(cook, round(cook.done_s * share / EVERY_S) * EVERY_S)
        told = forecast(live)
        began = time.perf_counter()
        forecast(live, told.numbers)
        took = time.perf_counter() - began
        found.append(_against(cook, live, told, share, target, took))
    return found


def _against(cook: Hidden, live: Live, told: Forecast, share: float, target: float, took: float) -> Told:
    left = cook.done_s - live.now_s
    known = [one for one in told.done if one is not None]
    # eight chances in ten lie between the second from below and the second from above
    low, high = told.done[1], told.done[-2]
    middle = told.done_s if told.done_s is not None else (known[-1] if known else live.now_s + 86_400)
    inside = low is not None and low <= cook.done_s and (high is None or cook.done_s <= high)
    width = (
        (high if high is not None else live.now_s + 3 * left) - (low if low is not None else live.now_s + 3 * left)
    ) / left
    return Told(
        cook.piece.cut, share, left, inside, width, (middle - cook.done_s) / left,
        (straight(live, target) - cook.done_s) / left, (exponential(live, target) - cook.done_s) / left, took,
    )  # fmt: skip


def table(told: list[Told]) -> list[str]:
    """Return the figures as a table of docs/calibration.md."""
    rows = [
        "| of the cook | cooks | held by the 80 % band | width over what is left | median error | "
        "80th percentile of the error | straight line | exponential |",
        "|---|---|---|---|---|---|---|---|",
    ]
    for share in TOLD_AT:
        mine = [one for one in told if one.share == share]
        off = np.abs([[one.off, one.straight_off, one.exponential_off] for one in mine])
        rows.append(
            f"| {share:.0%} | {len(mine)} | {np.mean([one.held for one in mine]):.0%} | "
            f"{np.median([one.width for one in mine]):.2f} | {np.median(off[:, 0]):.0%} | "
            + " | ".join(
                f"{one:.0%}" if np.isfinite(one) else "never" for one in np.quantile(off, 0.8, axis=0, method="lower")
            )
            + " |"
        )
    return rows


def main() -> None:
    cooks, seed = int(os.environ.get("COOKS", "300")), int(os.environ.get("SEED", "5000"))
    with ProcessPoolExecutor() as pool:
        told = [one for row in pool.map(told_of, range(seed, seed + cooks), chunksize=4) for one in row]
    print("\n".join(table(told)))
    print()
    for cut in sorted({one.cut for one in told}):
        for share in TOLD_AT:
            mine = [one for one in told if one.cut == cut and one.share == share]
            held, width = np.mean([one.held for one in mine]), np.median([one.width for one in mine])
            off = np.median([one.off for one in mine])
            print(f"{cut} {share:.0%}: {held:.0%} held, width {width:.2f}, middle off by {off:+.0%}")
    took = np.array([one.took_s for one in told]) * 1000
    middle, most = np.median(took), took.max()
    print(f"\nan update: median {middle:.0f} ms, nine in ten {np.quantile(took, 0.9):.0f}, worst {most:.0f}")


if __name__ == "__main__":
    main()
