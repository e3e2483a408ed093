"""Salt wanted in all: the layer that takes the rest to it, or gives way for it, found on the stack's own total."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from scipy.optimize import brentq

from ravska_core.coat.doses import ADHESION_CEILING, USUAL_SALT
from ravska_core.coat.layers import BATHS, Layer, check_layer
from ravska_core.coat.stack import Put, Seasoned, Stack, put_layers
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.meat import PieceReading, read_piece
from ravska_core.working import BadInput, say

WAY_ON = "choose another layer to give way, or another target."

CLOSE = 0.005
"""A target counts as met within this [points of % of raw edible weight]."""


@dataclass(frozen=True)
class Met:
    """The dose setting that brings all layers to a target, the salt they then come to [%], and what it says.

    `says` is empty where the target is met; else by how much it is missed, why, and what would do it.
    """

    dose_setting: float
    reached: float
    says: str = ""


def solve(total: Callable[[float], float], low: float, high: float, wanted: float) -> float:
    """Determine where a total that never falls meets what is wanted between two ends; the nearer end when it does not.

    References
    ----------
    R. P. Brent, Algorithms for Minimization without Derivatives, 1973, through scipy.optimize.brentq.
    """

    least, most = total(low), total(high)
    if wanted <= least:
        return low
    if wanted >= most:
        return high
    return float(brentq(lambda x: total(x) - wanted, low, high, xtol=1e-9, rtol=1e-10))


def _set_to(seasoned: Seasoned, piece: PieceReading, puts: Sequence[Put], at: int) -> Callable[[float], Stack]:
    """Return how the stack is with another dose setting on one layer."""

    def stack(dose_setting: float) -> Stack:
        return Stack(
            seasoned, piece, [replace(put, dose_setting=dose_setting) if n == at else put for n, put in enumerate(puts)]
        )

    return stack


def meet(seasoned: Seasoned, piece: PieceReading, puts: Sequence[Put], at: int, wanted: float, low: float) -> Met:
    """Determine the dose setting of one layer that brings the salt of all to what is wanted, from `low` to its most.

    What more than sticks would put on is not prescribed: it ends where the surface is full.

    Raises
    ------
    BadInput
        At ``layers.N.blend`` when the layer holds no salt.
    """
    stack = _set_to(seasoned, piece, puts, at)
    kind, blend = puts[at].kind, puts[at].blend
    if blend is None or blend.salt.value <= 0:
        raise BadInput(f"layers.{at}.blend", "This layer holds no salt, so it cannot take up the rest of it.")
    full = stack(kind.high)
    high = max(low, kind.high * full.dosed[at].sticks)
    dose_setting = solve(lambda x: stack(x).total(), low, high, wanted)
    found = stack(dose_setting)
    reached = found.total()
    if reached > wanted + CLOSE:
        without = reached - float(found.percent(found.follow())[at])
        return Met(dose_setting, reached, (
            f"The other layers already hold {without:.2f} %, more than the {wanted:g} % wanted: nothing is left for "
            "this one. Raise the target, or let another layer give way."
        ))  # fmt: skip
    if reached < wanted - CLOSE:
        return Met(dose_setting, reached, _short(found, at, wanted, reached, high < kind.high * 0.999))
    return Met(dose_setting, reached)


def _short(stack: Stack, at: int, wanted: float, reached: float, sticks: bool) -> str:
    """Say by how much a target is missed, why, and what would do it."""
    put, surface = stack.puts[at], stack.surfaces[at]
    missing = wanted - reached
    said = f"It comes to {reached:.2f} %, {missing:.2f} points short of {wanted:g} %: "
    ways = []
    if sticks:
        said += f"no more than {say(put.dose_setting, 2)} g on 100 cm² sticks to this {surface} surface."
        mine = float(stack.percent(stack.follow())[at])
        needs = put.dose_setting * (1 + missing / mine) if mine > 0 else math.inf
        lying = ADHESION_CEILING[surface] - put.dose_setting
        for binder, says in (("oil", "oil under it"), ("mustard", "a mustard binder under it")):
            if ADHESION_CEILING[binder] - lying >= needs and ADHESION_CEILING[binder] > ADHESION_CEILING[surface]:
                ways.append(says)
                break
    else:
        said += f"{put.dose_setting:g} {put.kind.unit} is the most this takes."
    ways.append(f"{missing:.2f} % salt ahead by weight")
    if stack.piece.solid.shape not in ("cubes", "strips"):
        ways.append("an injection")
    do = f"{', '.join(ways[:-1])}{' or ' if len(ways) > 1 else ''}{ways[-1]}"
    return f"{said} {do[0].upper()}{do[1:]} would do it."


def dose_stack(seasoned: Seasoned, spoon_set: SpoonSet) -> tuple[Stack, dict[int, str]]:
    """Read a piece and dose its layers; return the stack, and notes on the layer that takes the rest.

    Raises
    ------
    BadInput
        At ``piece.…``, ``target`` or ``layers.N.…``.
    """
    piece = seasoned.read()
    if seasoned.target_percent is not None and not 0.1 <= seasoned.target_percent <= 5:
        raise BadInput("target", "A salt target lies between 0.1 and 5 % of raw edible weight; 1.5 is usual.")
    puts = put_layers(seasoned, piece, spoon_set)
    rests = [at for at, put in enumerate(puts) if put.layer.takes_rest]
    notes: dict[int, str] = {}
    if rests:
        at = rests[0]
        if len(rests) > 1:
            raise BadInput(f"layers.{rests[1]}.dose", "Only one layer can take the rest; give this one a dose.")
        if seasoned.target_percent is None:
            raise BadInput("target", "Set the salt you want in all, so that there is a rest to take.")
        if seasoned.layers[at].kind in BATHS or seasoned.layers[at].kind == "drippings":
            raise BadInput(f"layers.{at}.dose", "A bath or drippings cannot take the rest; give it a dose.")
        met = meet(seasoned, piece, puts, at, seasoned.target_percent, 0.0)
        notes[at] = met.says
        said = f"the rest to {seasoned.target_percent:g} %: {say(met.dose_setting, 3)} {puts[at].kind.unit}"
        puts[at] = replace(puts[at], dose_setting=met.dose_setting, formula=said)
    return Stack(seasoned, piece, puts), notes


def give_way(seasoned: Seasoned, at: int, spoon_set: SpoonSet = SPOON_SETS["us"]) -> tuple[Layer, str]:
    """Determine the layer that gives way so that all layers together meet the target, and what is to be said.

    A coat, a salt or an injection changes its dose; a bath its hold, within 1 minute and 7 days. Where even the most
    that sticks or goes in falls short, it is that, and the words say what would do it.

    Raises
    ------
    BadInput
        At ``target`` when the other layers hold more already, or no hold of a bath meets it.
    """
    if seasoned.target_percent is None:
        raise BadInput("target", "Set the salt you want in all first.")
    if not 0 <= at < len(seasoned.layers):
        raise BadInput("layer", "That layer is not in the stack any more.")
    layer = seasoned.layers[at]
    target = seasoned.target_percent
    if any(other.takes_rest for other in seasoned.layers):
        raise BadInput("target", "A layer takes the rest already, so the total is met; give it a dose first.")
    kind = check_layer(layer)
    if layer.injection.after_g is not None:
        raise BadInput("layer", "This injection is in and was weighed; let another layer give way.")
    if layer.kind == "drippings":
        raise BadInput("layer", "Drippings follow the other layers; let one of those give way.")
    piece = read_piece(seasoned.piece)
    if layer.kind in BATHS:
        return _hold_for(seasoned, piece, at, target, spoon_set), ""
    puts = put_layers(seasoned, piece, spoon_set)
    if puts[at].salt_g <= 0:
        raise BadInput("target", f"This layer holds no salt, so it brings none; {WAY_ON}")
    met = meet(seasoned, piece, puts, at, target, kind.low)
    if met.reached > target + CLOSE:
        least = met.reached
        said = f"At its least this layer and the others already hold {least:.2f} %, more than {target:g}"
        raise BadInput("target", f"{said}; {WAY_ON}")
    return replace(layer, dose=float(say(met.dose_setting, 3)), portion=None), met.says


def _hold_for(seasoned: Seasoned, piece: PieceReading, at: int, target: float, spoon_set: SpoonSet) -> Layer:
    """Return a bath held as long as meets a target; one that takes salt away is held shorter for more."""
    layer = seasoned.layers[at]

    def total(hold_s: float) -> float:
        layers = tuple(replace(other, hold_s=hold_s) if n == at else other for n, other in enumerate(seasoned.layers))
        changed = replace(seasoned, layers=layers)
        return Stack(changed, piece, put_layers(changed, piece, spoon_set)).total()

    low, high = 60.0, 7 * 86_400.0
    least, most = total(low), total(high)
    if not min(least, most) <= target <= max(least, most):
        if most - least < CLOSE:
            raise BadInput("target", f"This bath moves hardly any salt, however long it is held; {WAY_ON}")
        raise BadInput("target", f"Between 1 min and 7 days this bath brings {least:.2f} to {most:.2f} %; {WAY_ON}")
    rises = 1.0 if least < most else -1.0

    def total_at(log_s: float) -> float:
        return rises * total(min(max(math.exp(log_s), low), high))

    hold = math.exp(solve(total_at, math.log(low), math.log(high), rises * target))
    minutes = max(1, round(hold / 60))
    return replace(layer, hold_s=float(minutes * 60 if minutes < 240 else round(minutes / 15) * 15 * 60))


def usually_gives(layers: Sequence[Layer]) -> int | None:
    """Return the place of the layer that usually gives way: the last salt or coat dosed by the cook, else the last."""
    open_to = [at for at, layer in enumerate(layers) if layer.kind != "drippings"]
    coats = [at for at in open_to if layers[at].kind in ("pre-salt", "rub", "paste", "finishing salt")]
    known = coats or open_to
    return known[-1] if known else None


def usual_coat(seasoned: Seasoned, at: int, spoon_set: SpoonSet = SPOON_SETS["us"]) -> float:
    """Determine what a coat begins with [g/100 cm2]: its own dose, less where that would be saltier than usual.

    Thin pieces, cubes, racks and birds have much surface for their weight; there it begins in the middle of the usual
    zone, or at the least a coat can be where the other layers reach that already.

    Raises
    ------
    BadInput
        As `dose_stack` does.
    """
    piece = read_piece(seasoned.piece)
    puts = [
        replace(put, dose_setting=0.0) if put.layer.takes_rest and n != at else put
        for n, put in enumerate(put_layers(seasoned, piece, spoon_set))
    ]
    dose_setting = puts[at].dose_setting
    if puts[at].salt_g <= 0 or Stack(seasoned, piece, puts).total() <= USUAL_SALT[1]:
        return dose_setting
    least = puts[at].kind.low
    met = meet(replace(seasoned, target_percent=None), piece, puts, at, sum(USUAL_SALT) / 2, least)
    return max(least, math.floor(met.dose_setting * 10) / 10)


@dataclass(frozen=True)
class Evened:
    """How one piece comes to the salt of both: its layers as they are to be, and what changes, in words."""

    layers: tuple[Layer, ...]
    says: str


def common_salt(salts: Sequence[float], wanted: Sequence[float]) -> float:
    """Determine the salt [%] that pieces are to have in common.

    What is wanted of them goes first, its mean when they want different things; without it the saltiest of those that
    lie in the usual zone; with none in it the end of the zone that their mean is nearest to.
    """
    if wanted:
        return sum(wanted) / len(wanted)
    low, high = USUAL_SALT
    inside = [salt for salt in salts if low <= salt <= high]
    return max(inside) if inside else min(max(sum(salts) / len(salts), low), high)


def brought_to(seasoned: Seasoned, salt: float, salting: Layer, place: int) -> Evened:
    """Determine how a piece is brought to a salt [%]: raised by salting it by weight, lowered where it is saltiest.

    Parameters
    ----------
    salting : Layer
        The salt by weight to put in where there is none yet, at `place`.

    Raises
    ------
    BadInput
        At ``what`` when no one layer can bring it there.
    """
    wants = replace(seasoned, target_percent=salt)
    stack, _ = dose_stack(seasoned, SPOON_SETS["us"])
    # a layer that took the rest is dosed from here on, so that the other piece's salt holds
    layers = tuple(
        replace(layer, dose=max(put.dose_setting, put.kind.low)) if layer.takes_rest else layer
        for layer, put in zip(seasoned.layers, stack.puts, strict=True)
    )
    now = stack.total()
    if abs(now - salt) < CLOSE:
        return Evened(seasoned.layers, "")
    if now < salt:
        at = next((n for n, layer in enumerate(layers) if layer.kind == "pre-salt"), None)
        if at is None:
            layers, at = (*layers[:place], replace(salting, dose=0.01), *layers[place:]), place
        candidates = [at]
    else:
        percents = stack.percent(stack.follow())
        candidates = [n for n in sorted(range(len(layers)), key=lambda n: -percents[n]) if percents[n] > 0]
    for at in candidates:
        try:
            changed, says = give_way(replace(wants, layers=layers), at)
        except BadInput:
            continue
        if not says:
            return Evened(tuple(changed if n == at else layer for n, layer in enumerate(layers)), changed.kind)
    verb = "raised" if now < salt else "lowered"
    raise BadInput(
        "what", f"{now:.2f} % cannot be {verb} to {salt:.2f} % by one layer alone; change its doses in Coat."
    )
