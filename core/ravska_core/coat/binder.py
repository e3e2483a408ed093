"""Binder or none: what a coat needs to stick to, what each binder brings, and what of the coat would fall off."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ravska_core.blend import Blend, BlendReading, read_blend
from ravska_core.coat.doses import ADHESION_CEILING, BINDER_DOSES, STICKY_SUGAR, surface_after
from ravska_core.coat.layers import BATHS, LAYER_KINDS, Layer, plain
from ravska_core.coat.reading import CoatReading, read_coat
from ravska_core.coat.stack import Seasoned, put_layers
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.meat import read_piece
from ravska_core.working import BadInput, Figure, Step, figure, say

PLAIN_BINDERS = ("vegetable-oil/liquid", "mustard-prepared/paste", "honey/liquid")
"""What binds without anything mixed."""


@dataclass(frozen=True)
class Binder:
    """A binder to try: its blend with its dose [g/100 cm2]; no blend stands for none."""

    key: str
    blend: Blend | None
    dose: float = 0.0


@dataclass(frozen=True)
class Bound:
    """What a binder does for a coat.

    `grams` of it are needed, it leaves a `surface` that holds at most `ceiling` g on 100 cm2, of which `sticks` of
    the coat do [0 to 1]; it brings `salt_percent` [% of raw edible weight], `fat_g` and flavour in words. `total` is
    the salt of all layers with it, `enough` whether all of the coat sticks.
    """

    key: str
    grams: float
    surface: str
    ceiling: float
    sticks: float
    falls_g: float
    salt_percent: float
    fat_g: float
    flavour: str
    allergens: tuple[str, ...]
    total: Figure
    enough: bool
    chosen: bool


@dataclass(frozen=True)
class BinderReading:
    """What a coat needs to stick [g/100 cm2 of rub], and what every choice does for it.

    `least` is the place of the first choice that holds all of the coat, None when none does.
    """

    needs: Figure
    choices: tuple[Bound, ...]
    least: int | None
    says: str


def usual_binder_g(blend: Blend) -> float:
    """Return how much of a binder usually goes on, by what it is [g/100 cm2]."""
    reading = read_blend(blend)
    if reading.sugar.value > STICKY_SUGAR and "mustard" not in reading.allergens:
        return BINDER_DOSES["moist"]
    return BINDER_DOSES[surface_after(reading)]


def _bathed_until(layers: Sequence[Layer]) -> int:
    """Return the place of the last bath before the fire, which took off what lay on the surface; -1 without one."""
    baths = [at for at, layer in enumerate(layers) if layer.kind in BATHS and LAYER_KINDS[layer.kind].when == "before"]
    return max(baths, default=-1)


def coats_at(layers: Sequence[Layer]) -> list[int]:
    """Return the places of the rubs that lie on the surface when it goes to the fire: those after the last bath."""
    bathed = _bathed_until(layers)
    return [at for at, layer in enumerate(layers) if at > bathed and layer.kind == "rub"]


def _binders_at(layers: Sequence[Layer]) -> list[int]:
    bathed = _bathed_until(layers)
    return [at for at, layer in enumerate(layers) if at > bathed and layer.kind == "binder"]


def bind_at(layers: Sequence[Layer]) -> tuple[list[int], int]:
    """Return the binders that lie on the surface, by place, and where another goes once they are gone.

    Raises
    ------
    BadInput
        At ``layers`` when no rub lies on the surface.
    """
    coats, binders = coats_at(layers), _binders_at(layers)
    if not coats:
        raise BadInput("layers", "No rub lies on the surface here, so there is nothing to bind; put one on first.")
    return binders, coats[0] - sum(at < coats[0] for at in binders)


def with_binder(layers: Sequence[Layer], binder: Binder) -> tuple[Layer, ...]:
    """Return a stack with another binder, or none, under the coats that lie on the surface.

    Raises
    ------
    BadInput
        As `bind_at` does.
    """
    binders, place = bind_at(layers)
    kept = [layer for at, layer in enumerate(layers) if at not in binders]
    if binder.blend is not None:
        kept.insert(place, Layer("binder", binder.blend, binder.dose))
    return tuple(kept)


def flavour_of(reading: BlendReading) -> str:
    """Say what a binder tastes of by itself."""
    quiet = ("", "none", "hardly any", "a trace", "a hint")
    said = [
        f"{scale.word} {scale.label.lower()}" if scale.key == "heat" else f"{scale.label.lower()}, {scale.word}"
        for scale in reading.scales
        if scale.key in ("heat", "sour", "savoury", "smoke", "herb") and scale.word not in quiet
    ]
    if reading.sugar.value > 5:
        said.append(f"{reading.sugar.value:.0f} % sugar")
    return "; ".join(said) or "no taste of its own"


def binders_for(seasoned: Seasoned, binders: Sequence[Binder], spoon_set: SpoonSet = SPOON_SETS["us"]) -> BinderReading:
    """Determine what every binder, and none, does for the coat of a piece.

    Raises
    ------
    BadInput
        At ``layers`` when no rub lies on the surface, else as `read_coat` does.
    """
    coats = coats_at(seasoned.layers)
    tried = [Binder("none", None), *binders]
    found = [_bound(seasoned, binder, spoon_set) for binder in tried]
    own = next((seasoned.layers[at].blend for at in _binders_at(seasoned.layers)), None)
    chosen = next((at for at, binder in enumerate(tried) if binder.blend == own), -1)
    found = [replace(one, chosen=at == chosen) for at, one in enumerate(found)]
    puts = put_layers(seasoned, read_piece(seasoned.piece), spoon_set)
    needs = sum(puts[at].dose_setting for at in coats)
    least = next((at for at, one in enumerate(found) if one.enough), None)
    bare = found[0]
    if least == 0:
        says = f"None is needed: {say(needs, 2)} g of the {bare.ceiling:g} g that this surface holds by itself."
    elif least is None:
        says = f"Nothing here holds {say(needs, 2)} g on 100 cm²: coat lighter, or in two coats with a bath between."
    else:
        says = f"{say(needs, 2)} g is more than the {bare.ceiling:g} g this surface holds by itself; a binder holds it."
    step = Step(
        "Rub on the surface",
        " + ".join(say(puts[at].dose_setting, 2) for at in coats),
        needs,
        "g/100 cm²",
        "trade",
    )
    return BinderReading(figure([step], "as dosed"), tuple(found), least, says)


def _bound(seasoned: Seasoned, binder: Binder, spoon_set: SpoonSet) -> Bound:
    layers = with_binder(seasoned.layers, binder)
    read: CoatReading = read_coat(replace(seasoned, layers=layers), spoon_set, cored=False)
    coats = [read.layers[at] for at in coats_at(layers)]
    laid = [read.layers[at] for at in _binders_at(layers)]
    falls = sum(one.fate.lost.get("did not stick", 0.0) * one.dose_g for one in coats)
    takes = sum(one.dose_g for one in coats)
    blend = None if binder.blend is None else read_blend(binder.blend, spoon_set)
    grams = laid[-1].dose_g if laid and blend is not None else 0.0
    return Bound(
        key=binder.key,
        grams=grams,
        surface=coats[0].surface,
        ceiling=ADHESION_CEILING[coats[0].surface],
        sticks=1 - falls / takes if takes else 1.0,
        falls_g=falls,
        salt_percent=laid[-1].salt.value if laid and blend is not None else 0.0,
        fat_g=grams * blend.fat_share if blend else 0.0,
        flavour=flavour_of(blend) if blend else "nothing beside the rub",
        allergens=blend.allergens if blend else (),
        total=read.salt,
        enough=falls < 0.005 * takes,
        chosen=False,
    )


def plain_binders() -> tuple[Binder, ...]:
    """Return the binders that need nothing mixed."""
    return tuple(Binder(grind, plain(grind), usual_binder_g(plain(grind))) for grind in PLAIN_BINDERS)
