"""What a coat comes to: a piece with its stack of layers in, doses, a salt ledger, a core sample and cautions out."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ravska_core.additives import nitrite_of, phosphate_percent
from ravska_core.catalogue import US_TEASPOON_ML, Catalogue, Grind
from ravska_core.cautions import Caution, Situation, cautions_for
from ravska_core.core_sample import CoreSample, core_sample, reach_of
from ravska_core.cuts import CutUp, PieceReading, cutting, find_cut
from ravska_core.depth import DIFFUSIVITY_BAND
from ravska_core.doses import salt_zone
from ravska_core.fates import CLINGS_G_CM2, DRIPS, Fate
from ravska_core.injection import InjectionReading, read_injection
from ravska_core.layers import BATHS, INJECTIONS
from ravska_core.ledger import a_serving, ends, servings_of, thin_end, total_salt
from ravska_core.marinade import Window, hold_window, says_where
from ravska_core.needle import THICK_BRIX, brine_share
from ravska_core.sites import face_of
from ravska_core.spoons import SPOON_SETS, Spoonfuls, SpoonSet, measure_out
from ravska_core.stack import Arm, Put, Stack, dose_stack, holding, moved_cm2
from ravska_core.target import usually_gives
from ravska_core.working import BadInput, Figure, Step, figure

STAYS_ERROR = 0.1
"""Relative error of what stays where nobody weighed it (estimate)."""

THIN_CM = 4.0


@dataclass(frozen=True)
class LayerReading:
    """What one layer takes [g, or ml for a liquid], how to measure it out, and where its salt ends.

    `salt` is what stays, `so_far` that of this layer and all before it [% of raw edible weight]; `rest` what is left
    to the target after it; `fate` says where its salt goes [share of what was put on]. `reserve_g` of a bath is set
    aside, `standing` says where its hold stands on its window; `injection` is how one is injected.
    """

    kind: str
    dose: Figure
    dose_g: float
    dial: float
    spoons: Spoonfuls
    spoons_wanted_ml: float
    salt: Figure
    fate: Fate
    so_far: float
    rest: float | None
    surface: str
    note: str = ""
    says: str = ""
    window: Window | None = None
    standing: str = ""
    too_long: bool = False
    reserve_g: float = 0.0
    injection: InjectionReading | None = None
    reach: Figure | None = None
    hold_s: float = 0.0
    begins_s: float = 0.0


@dataclass(frozen=True)
class ArmReading:
    """What an arm comes to: its piece, its layers, the ledger of its salt, a serving, the core sample, cautions.

    `gives` is the place of the layer that usually gives way to a target, None where one takes the rest already.
    """

    label: str
    piece: PieceReading
    cut_up: CutUp | None
    layers: tuple[LayerReading, ...]
    salt: Figure
    zone: str
    target: float | None
    gives: int | None
    thin: Figure
    servings: Figure
    sodium: Figure
    sugar: Figure
    sample: CoreSample | None
    cautions: tuple[Caution, ...]


def read_arm(
    arm: Arm,
    spoon_set: SpoonSet = SPOON_SETS["us"],
    tables: Catalogue | None = None,
    at_s: float | None = None,
    cored: bool = True,
) -> ArmReading:
    """Determine what one arm comes to: doses, where its salt ends, the core sample and cautions.

    Parameters
    ----------
    at_s : float, optional
        Time of the hold that the core sample is taken at [s]; its end when none is given.
    cored : bool
        Whether a core sample is wanted.

    Raises
    ------
    BadInput
        At ``piece.…``, ``target`` or ``layers.N.…``, with a sentence that says what to do.
    """
    return read_stack(arm, spoon_set, tables, at_s, cored)[0]


def read_stack(
    arm: Arm,
    spoon_set: SpoonSet = SPOON_SETS["us"],
    tables: Catalogue | None = None,
    at_s: float | None = None,
    cored: bool = True,
) -> tuple[ArmReading, Stack]:
    """Return what `read_arm` does, with the stack it was read from."""
    stack, notes = dose_stack(arm, spoon_set, tables)
    piece, puts = stack.piece, stack.puts
    cut = find_cut(arm.piece.cut, tables)
    moment = stack.follow()
    percents = stack.percent(moment)
    band = [stack.percent(stack.follow(factor)) for factor in DIFFUSIVITY_BAND]
    servings = servings_of(piece, arm.portion_g)
    layers: list[LayerReading] = []
    so_far = clock = 0.0
    for at, put in enumerate(puts):
        so_far += float(percents[at])
        spread = [float(values[at]) for values in band]
        note = notes.get(at) or stack.notes[at]
        read = _layer_reading(put, stack, at, moment.fates[at], spread, cut.meat_class, spoon_set)
        rest = None if arm.target_percent is None else arm.target_percent - so_far
        injected = _injection(put, stack, arm, at) if put.layer.kind in INJECTIONS else None
        says = _aside(put, stack, moment.fates[at], servings.value)
        layers.append(replace(read, so_far=so_far, rest=rest, note=note, says=says, injection=injected, begins_s=clock))
        if put.kind.when == "before" and put.kind.hold_s:
            clock += put.layer.hold_s
    stays = [fate.stays for fate in moment.fates]
    nitrite = nitrite_of(puts, stays, arm.piece.mass_g, arm.piece.cut)
    salt = total_salt([layer.salt for layer in layers], puts, piece.area_error)
    thin_value, more = stack.thin_percent()
    thin = thin_end(piece, salt, thin_value, more)
    sodium, sugar = a_serving(puts, moment, servings.value)
    reading = ArmReading(
        label=arm.label,
        piece=piece,
        cut_up=cutting(arm.piece, tables),
        layers=tuple(layers),
        salt=salt,
        zone=salt_zone(salt.value),
        target=arm.target_percent,
        gives=None if any(layer.dose is None for layer in arm.layers) else usually_gives(arm.layers),
        thin=thin,
        servings=servings,
        sodium=sodium,
        sugar=sugar,
        sample=core_sample(stack, arm, at_s) if cored else None,
        cautions=_cautions(
            arm, layers, puts, stack,
            Situation(
                animal=cut.animal,
                salt_percent=salt.value,
                thin_percent=thin.value,
                sodium_mg=sodium.value,
                phosphate_percent=phosphate_percent(puts, stays, arm.piece.mass_g),
            ),
            nitrite,
        ),
    )  # fmt: skip
    return reading, stack


def _injection(put: Put, stack: Stack, arm: Arm, at: int) -> InjectionReading:
    """Read how a layer is injected; what its plan cannot be is named at the layer."""
    assert put.blend is not None
    piece = stack.piece
    dt_cm2 = moved_cm2(holding(arm.layers[at:]))
    stays = put.kind.stays if put.layer.stays is None else put.layer.stays
    assert stays is not None
    try:
        return read_injection(
            put.layer.injection, face_of(piece.solid, piece.bones), piece.solid.pieces, put.blend, arm.piece.mass_g,
            piece.edible.value, put.dose_g, stays, put.layer.stays is not None, dt_cm2,
        )  # fmt: skip
    except BadInput as refusal:
        raise refusal.under(f"layers.{at}") from refusal


def _aside(put: Put, stack: Stack, fate: Fate, servings: float) -> str:
    """Say of a layer what its dose does not: what of a bath goes in and clings, how many pinches a serving gets."""
    if put.kind.key == "marinade" and put.dose_g > 0:
        clings = CLINGS_G_CM2 * stack.piece.open_cm2
        said = {
            "wiped": "half of that is wiped off",
            "rinsed": "all of it is rinsed off",
            "as it is": "all of it stays",
        }
        return (
            f"Of {put.salt_g:.1f} g of salt in it {put.salt_g * fate.meat:.1f} g go into the meat; about "
            f"{clings:.0f} g of the bath cling to it, {said[put.layer.after]}."
        )
    if put.kind.when == "after" and put.blend is not None:
        pinches = put.dose_g / put.blend.density_g_ml / (US_TEASPOON_ML / 16) / servings
        return f"{pinches:.2g} pinches of 1/16 tsp on each serving."
    return ""


def _layer_reading(
    put: Put, stack: Stack, at: int, fate: Fate, band: Sequence[float], meat_class: str, spoon_set: SpoonSet
) -> LayerReading:
    """Return what one layer takes and what of its salt stays, with the working of both."""
    layer, kind, piece = put.layer, put.kind, stack.piece
    dose, blend = put.dose_g, put.blend
    edible = piece.edible.value
    if blend is None:
        dose = edible * (1 - piece.cook_yield) * DRIPS
        steps = [
            Step("Drippings", f"{(1 - piece.cook_yield) * 100:.0f} % weight loss × {DRIPS:g}", dose, "g", "estimate")
        ]
        said, density, salt_percent = figure(steps, "±50 %: how much drips depends on the fire", spread=0.5), 1.0, 0.0
        off = (0.0, 0.0)
    else:
        density, salt_percent = blend.density_g_ml, blend.salt.value
        liquid = kind.unit == "ml/kg"
        spread = piece.area_error if kind.by == "area" else {"injection": 0.1}.get(layer.kind, 0.2 if liquid else 0.02)
        steps = [Step(kind.key.capitalize(), put.formula, dose / density if liquid else dose, "ml" if liquid else "g",
                      "trade" if kind.by == "area" else kind.source)]  # fmt: skip
        error = f"±{spread * 100:.0f} %" + {"area": ", as the area"}.get(kind.by, ": a rule of thumb" if liquid else "")
        said = figure(steps, error, spread=spread)
        off = ends(blend.salt)
    kept = fate.stays
    value = put.salt_g * kept / edible * 100
    working = [
        *steps,
        Step("Salt in it", "see the blend", salt_percent, "%"),
        Step("Put on", f"{dose:.1f} g × {salt_percent:.2f} %", put.salt_g, "g"),
        *(Step(f"Less what {where}" if where.startswith("did") else f"Less {where}", "share of it", -share * 100, "%",
               "estimate") for where, share in fate.lost.items()),
        Step("Stays", "on, in and beside the meat", kept * 100, "%", kind.source),
        Step("Of raw edible weight", f"{put.salt_g * kept:.2f} g / {edible:.0f} g", value, "%"),
    ]  # fmt: skip
    area = piece.area_error if kind.by == "area" else 0.0
    stays_error = STAYS_ERROR if kind.stays is not None and kind.stays < 1 and layer.stays is None else 0.0
    moves = [end / value - 1 for end in band] if value else [0.0, 0.0]
    below = math.hypot(area, stays_error, off[0], max(0.0, -min(moves)))
    above = math.hypot(area, stays_error, off[1], max(0.0, max(moves)))
    parts = [f"the blend ±{max(off) * 100:.0f} %"]
    parts += [f"area ±{area * 100:.0f}"] if area else []
    parts += [f"what stays ±{stays_error * 100:.0f}"] if stays_error else []
    parts += ["diffusivity halved and doubled"] if max(map(abs, moves)) > 0.005 else []
    low, high = max(0.0, value * (1 - below)), value * (1 + above)
    salt = figure(working, ", ".join(parts) + "; taken as independent", low=low, high=high)
    window = hold_window(blend, meat_class, piece.thickness) if layer.kind == "marinade" and blend is not None else None
    return LayerReading(
        kind=layer.kind,
        dose=said,
        dose_g=dose,
        dial=put.dial,
        spoons=measure_out(round(dose / density, 3), spoon_set),
        spoons_wanted_ml=dose / density,
        salt=salt,
        fate=fate,
        so_far=0.0,
        rest=None,
        surface=stack.surfaces[at],
        window=window,
        standing="" if window is None else says_where(window.window, layer.hold_s),
        too_long=window is not None and layer.hold_s > window.window.long_high_min * 60,
        reserve_g=_reserve_g(put),
        reach=reach_of([layer]) if kind.hold_s else None,
        hold_s=layer.hold_s if kind.hold_s else 0.0,
    )


def _cautions(
    arm: Arm, layers: Sequence[LayerReading], puts: Sequence[Put], stack: Stack, whole: Situation,
    nitrite: Sequence[float],
) -> tuple[Caution, ...]:  # fmt: skip
    """Return the cautions of all layers and of the `whole`, each sentence once, most serious first."""
    situations = []
    for at, (read, put, dosed) in enumerate(zip(layers, puts, stack.dosed, strict=True)):
        if put.blend is None:
            continue
        before = put.kind.when == "before"
        injected = put.layer.kind in INJECTIONS
        clog = read.injection.clog if read.injection else None
        after, short = _used_after(puts, at)
        situations.append(
            Situation(
                flags=put.blend.flags,
                allergens=put.blend.allergens,
                fat_share=put.blend.fat_share,
                has_marinade=put.layer.kind == "marinade",
                boiled=bool(put.layer.eaten),
                used_after=after,
                reserve_short=short,
                brine_percent=brine_share(put.blend) * 100 if put.layer.kind in BATHS else 0.0,
                injected=injected,
                again=put.layer.kind == "second injection",
                clogs=", ".join(_said(grind) for grind in clog.coarse) if clog else "",
                bore_mm=clog.bore_mm if clog else 2.0,
                thick=clog is not None and clog.brix >= THICK_BRIX * 100,
                nitrite_mg_kg=nitrite[at],
                acid=put.blend.acid.value > 0.05,
                hold_s=read.hold_s if before else 0.0,
                hold_c=put.layer.hold_c if before else 4.0,
                window_high_s=read.window.window.long_high_min * 60 if read.window else None,
                coat_over_ceiling=dosed.sticks < 1,
            )
        )
    situations.append(
        replace(
            whole,
            thin=stack.piece.solid.thickness_cm < THIN_CM,
            warm_s=sum(layer.hold_s for layer in holding(arm.layers) if layer.hold_c > 4.0),
            drippings=any(layer.kind == "drippings" for layer in arm.layers),
            pierced=arm.piece.pierced or any(layer.kind in INJECTIONS for layer in arm.layers),
            endpoint_c=arm.piece.endpoint_c,
        )
    )
    found = {caution.sentence: caution for situation in situations for caution in cautions_for(situation)}
    order = {"stop": 0, "caution": 1, "note": 2}
    return tuple(sorted(found.values(), key=lambda caution: order[caution.level]))


def _said(grind: Grind) -> str:
    return f"{grind.ingredient.name.lower()}, {grind.name} ({grind.grain_mm:g} mm)"


def _reserve_g(put: Put) -> float:
    """Return what is set aside of a marinade before the meat goes in [g]."""
    reserve = put.layer.reserve
    return reserve.grams(put.blend.density_g_ml) if put.layer.kind == "marinade" and reserve and put.blend else 0.0


def _used_after(puts: Sequence[Put], at: int) -> tuple[str, bool]:
    """Return which later layer is of the same blend as a bath, and whether too little of it is set aside for that."""
    bath = puts[at]
    if bath.layer.kind != "marinade":
        return "", False
    later = [put for put in puts[at + 1 :] if put.kind.when != "before" and put.layer.blend == bath.layer.blend]
    later = [put for put in later if put.layer.kind not in BATHS]
    if not later:
        return "", False
    return later[0].layer.kind, _reserve_g(bath) < 0.98 * sum(put.dose_g for put in later)


def salt_to_even(a: ArmReading, b: ArmReading) -> tuple[str, float]:
    """Determine which of two arms holds less salt and how much to add to it [% of its raw edible weight]."""
    return (a.label if a.salt.value < b.salt.value else b.label), abs(a.salt.value - b.salt.value)
