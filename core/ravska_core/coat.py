"""What a coat comes to: one document of arms in, one document of doses, salt and cautions out."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ravska_core.blends import Blend
from ravska_core.catalogue import Catalogue, catalogue
from ravska_core.cautions import Caution, Situation, cautions_for
from ravska_core.composition import BlendReading, read_blend
from ravska_core.cuts import Piece, PieceReading, find_cut, read_piece
from ravska_core.depth import DIFFUSIVITY_BAND, diffusivity_m2_s, reach_cm, sheet_uptake
from ravska_core.doses import (
    ADHESION_CEILING,
    BINDER_GRIND,
    BINDER_WEIGHT,
    RUB_RETENTION,
    VESSELS,
    marinade_volume_ml,
    rub_mass_g,
    salt_zone,
)
from ravska_core.marinade import Window, hold_window
from ravska_core.quantities import say_duration
from ravska_core.spoons import SPOON_SETS, Spoonfuls, SpoonSet, measure_out
from ravska_core.working import BadInput, Figure, Step, figure, in_range

MEAT_WATER_SHARE = 0.745
"""Water in raw lean meat, kg/kg (from memory); what the bath's salt is diluted into."""

_RETENTION_ERROR = 0.1
_THIN_CM = 4.0


@dataclass(frozen=True)
class RubLayer:
    """A dry coat: blend, coat weight [g/100 cm2], the surface it lies on, and its hold [s] at [C]."""

    blend: Blend
    coat_g_100cm2: float
    surface: str
    hold_s: float
    hold_c: float = 4.0


@dataclass(frozen=True)
class MarinadeLayer:
    """A bath: blend, vessel, and its hold [s] at [C]."""

    blend: Blend
    vessel: str
    hold_s: float
    hold_c: float = 4.0


@dataclass(frozen=True)
class SaltLayer:
    """Salt by weight: a grind of salt at a share of the raw edible weight [%]."""

    grind: str
    percent: float


Layer = RubLayer | MarinadeLayer | SaltLayer


@dataclass(frozen=True)
class Arm:
    """One side of a comparison: a piece and its layers in order."""

    label: str
    piece: Piece
    layers: tuple[Layer, ...]


@dataclass(frozen=True)
class LayerReading:
    """What one layer takes [g or ml], how to measure it out, and the salt of it that stays."""

    kind: str
    dose: Figure
    dose_g: float
    spoons: Spoonfuls
    spoons_wanted_ml: float
    salt: Figure
    binder: Figure | None = None
    window: Window | None = None
    reach: Figure | None = None
    hold_s: float = 0.0


@dataclass(frozen=True)
class ArmReading:
    """What an arm comes to: its piece, its layers, salt on the meat as % of raw edible weight, cautions."""

    label: str
    piece: PieceReading
    layers: tuple[LayerReading, ...]
    salt: Figure
    zone: str
    cautions: tuple[Caution, ...]


def _area_spread(piece: PieceReading) -> float:
    high = piece.coatable.high
    return high / piece.coatable.value - 1 if high is not None else 0.0


def _relative_ends(found: Figure) -> tuple[float, float]:
    """Return how far a figure may lie below and above its value, relative to it."""
    if not found.value or found.low is None or found.high is None:
        return 0.0, 0.0
    return 1 - found.low / found.value, found.high / found.value - 1


def _with_ends(found: Figure, below: float, above: float) -> Figure:
    return replace(found, low=max(0.0, found.value * (1 - below)), high=found.value * (1 + above))


def _percent_steps(salt_g: float, piece: PieceReading) -> list[Step]:
    edible = piece.edible.value
    return [
        Step("Raw edible weight", "raw weight less bone", edible, "g"),
        Step("Of raw edible weight", f"{salt_g:.2f} g / {edible:.0f} g", salt_g / edible * 100, "%"),
    ]


def _read_rub(
    layer: RubLayer, piece: PieceReading, blend: BlendReading, spoon_set: SpoonSet, tables: Catalogue
) -> LayerReading:
    in_range(
        "coat", layer.coat_g_100cm2, 0.2, 40,
        "A coat weighs between 0.2 and 40 g on 100 cm²; 5 is a standard one.",
    )  # fmt: skip
    if layer.surface not in ADHESION_CEILING:
        raise BadInput("surface", f"A surface is one of {', '.join(ADHESION_CEILING)}.")
    area = piece.coatable.value
    dose = rub_mass_g(area, layer.coat_g_100cm2)
    spread = _area_spread(piece)
    dose_step = Step("Rub", f"{layer.coat_g_100cm2:g} g/100 cm² × {area:.0f} cm²", dose, "g", "trade")
    ceiling = ADHESION_CEILING[layer.surface]
    sticks = min(layer.coat_g_100cm2, ceiling) * area / 100
    salt_share = blend.salt.value / 100
    salt = sticks * salt_share * RUB_RETENTION
    steps = [dose_step]
    if sticks < dose:
        steps.append(
            Step("Of which sticks", f"at most {ceiling:g} g/100 cm² on {layer.surface} meat", sticks, "g", "estimate")
        )
    steps += [
        Step("Salt in the blend", "see the blend", blend.salt.value, "%"),
        Step("Stays on the meat", "share of a dry coat", RUB_RETENTION * 100, "%", "estimate"),
        Step("Salt that stays", f"{sticks:.1f} g × {salt_share * 100:.2f} % × {RUB_RETENTION:g}", salt, "g"),
    ]
    binder = None
    binder_g = BINDER_WEIGHT[layer.surface] * area / 100
    if binder_g:
        grind = tables.grinds[BINDER_GRIND[layer.surface]]
        binder_salt = binder_g * grind.ingredient.nacl
        binder_step = Step(
            "Binder", f"{BINDER_WEIGHT[layer.surface]:g} g/100 cm² × {area:.0f} cm²", binder_g, "g", "estimate"
        )
        binder = figure([binder_step], "±30 %: spread by hand", spread=0.3)
        if binder_salt:
            salt += binder_salt
            held = f"{binder_g:.1f} g of binder at {grind.ingredient.nacl * 100:.1f} % salt, all of it stays"
            steps.append(Step("With the binder's salt", held, salt, "g", grind.ingredient.source))
    under, over = _relative_ends(blend.salt)
    below, above = (math.sqrt(spread**2 + _RETENTION_ERROR**2 + end**2) for end in (under, over))
    said = f"{above * 100:.0f}" if round(above, 2) == round(below, 2) else f"{below * 100:.0f} to {above * 100:.0f}"
    mixed = f"{over * 100:.0f}" if round(over, 2) == round(under, 2) else f"{under * 100:.0f} to {over * 100:.0f}"
    salt_error = f"±{said} %: area ±{spread * 100:.0f}, what stays ±10, the blend ±{mixed}, taken as independent"
    return LayerReading(
        kind="rub",
        dose=figure([dose_step], f"±{spread * 100:.0f} %, as the area", spread=spread),
        dose_g=dose,
        spoons=measure_out(round(dose / blend.density_g_ml, 3), spoon_set),
        spoons_wanted_ml=dose / blend.density_g_ml,
        salt=_with_ends(figure([*steps, *_percent_steps(salt, piece)], salt_error), below, above),
        binder=binder,
    )


def _read_marinade(
    layer: MarinadeLayer, piece: PieceReading, blend: BlendReading, mass_g: float, meat_class: str, spoon_set: SpoonSet
) -> LayerReading:
    if layer.vessel not in VESSELS:
        raise BadInput("vessel", f"A vessel is one of {', '.join(VESSELS)}.")
    if blend.water_share < 0.05:
        raise BadInput("blend", "This marinade holds hardly any water, so no salt moves; add a juice, stock or dairy.")
    volume = marinade_volume_ml(mass_g, layer.vessel)
    volume_step = Step("Marinade", f"{VESSELS[layer.vessel]:g} ml/kg × {mass_g / 1000:.3f} kg", volume, "ml", "trade")
    # a plane sheet of half thickness V/A takes up, at first, just what the real shape does
    half_cm = piece.solid.volume_cm3 / piece.coatable.value
    bath = blend.salt.value / 100
    reach = reach_cm(layer.hold_s, layer.hold_c)
    settled = bath * MEAT_WATER_SHARE * 100
    diffusivity = diffusivity_m2_s(layer.hold_c)
    fourier = diffusivity * layer.hold_s / (half_cm / 100) ** 2
    uptake = sheet_uptake(fourier)
    low, high = (settled * sheet_uptake(fourier * factor) for factor in DIFFUSIVITY_BAND)
    under, over = _relative_ends(blend.salt)
    low = settled * uptake * max(0.0, 1 - math.hypot(1 - low / (settled * uptake), under)) if settled * uptake else 0.0
    high = settled * uptake * (1 + math.hypot(high / (settled * uptake) - 1, over)) if settled * uptake else 0.0
    steps = (
        Step("Salt in the marinade", "see the blend", blend.salt.value, "%"),
        Step(
            "Meat in balance with it", f"{bath * 100:.2f} % × {MEAT_WATER_SHARE:g} water in meat", settled, "%", "crank"
        ),
        Step("Diffusivity", f"at {layer.hold_c:g} °C", diffusivity * 1e10, "10⁻¹⁰ m²/s", "diffusivity"),
        Step("Half thickness of the like sheet", "volume / wetted surface", half_cm, "cm"),
        Step("D t / l²", f"{say_duration(layer.hold_s)} of hold", fourier, ""),
        Step("Share of the balance reached", "plane sheet, constant bath", uptake * 100, "%", "crank"),
        Step("Salt taken up, of raw edible weight", f"{settled:.3f} % × {uptake * 100:.1f} %", settled * uptake, "%"),
    )
    return LayerReading(
        kind="marinade",
        dose=figure([volume_step], "a rule of thumb: enough to wet every face", spread=0.2),
        dose_g=volume * blend.density_g_ml,
        spoons=measure_out(round(volume, 3), spoon_set),
        spoons_wanted_ml=volume,
        salt=figure(
            steps,
            "band: diffusivity halved and doubled, and the blend's own; a small bag gives less, as it runs out of salt",
            low=low,
            high=high,
        ),
        hold_s=layer.hold_s,
        window=hold_window(blend, meat_class),
        reach=figure(
            [
                Step("Diffusivity", f"at {layer.hold_c:g} °C", diffusivity * 1e10, "10⁻¹⁰ m²/s", "diffusivity"),
                Step("Salt has reached", f"2 √(D t) after {say_duration(layer.hold_s)}", reach * 10, "mm", "crank"),
            ],
            "±40 %: diffusivity halved and doubled",
            low=reach * 10 / math.sqrt(2),
            high=reach * 10 * math.sqrt(2),
        ),
    )


def _read_salt(layer: SaltLayer, piece: PieceReading, spoon_set: SpoonSet, tables: Catalogue) -> LayerReading:
    in_range("percent", layer.percent, 0.01, 5, "Salt by weight lies between 0.01 and 5 % of the raw edible weight.")
    grind = tables.grinds.get(layer.grind)
    if grind is None or grind.ingredient.nacl < 0.9 or "cure" in grind.ingredient.flags:
        raise BadInput("grind", "Choose a plain salt from the catalogue.")
    salt = layer.percent / 100 * piece.edible.value
    dose = salt / grind.ingredient.nacl
    dose_step = Step("Salt to weigh", f"{salt:.2f} g / {grind.ingredient.nacl:g}", dose, "g", grind.ingredient.source)
    wanted = Step("Wanted", f"{layer.percent:g} % × {piece.edible.value:.0f} g", salt, "g")
    return LayerReading(
        kind="salt",
        dose=figure([wanted, dose_step], "as exact as the scale", spread=0.02),
        dose_g=dose,
        spoons=measure_out(round(dose / grind.density_g_ml, 3), spoon_set),
        spoons_wanted_ml=dose / grind.density_g_ml,
        salt=figure([wanted, *_percent_steps(salt, piece)], "±5 %: all of it stays", spread=0.05),
    )


def read_arm(arm: Arm, spoon_set: SpoonSet = SPOON_SETS["us"], tables: Catalogue | None = None) -> ArmReading:
    """Determine what one arm comes to: doses, salt on the meat and cautions.

    Raises
    ------
    BadInput
        At ``piece.…`` or ``layers.N.…``, with a sentence that says what to do.
    """
    known = tables or catalogue()
    piece = read_piece(arm.piece, known)
    cut = find_cut(arm.piece.cut, known)
    layers: list[LayerReading] = []
    situations: list[Situation] = []
    thin = piece.solid.thickness_cm < _THIN_CM
    for at, layer in enumerate(arm.layers):
        try:
            if isinstance(layer, SaltLayer):
                layers.append(_read_salt(layer, piece, spoon_set, known))
                continue
            sentence = "A hold lies between 1 minute and 7 days."
            in_range("hold", layer.hold_s, 60, 7 * 86_400, sentence)
            in_range("hold_c", layer.hold_c, -2, 40, "A hold is between −2 and 40 °C; a cold one is 4 °C.")
            try:
                blend = read_blend(layer.blend, spoon_set, known)
            except BadInput as refusal:
                raise refusal.under("blend") from refusal
            if isinstance(layer, RubLayer):
                reading = _read_rub(layer, piece, blend, spoon_set, known)
            else:
                reading = _read_marinade(layer, piece, blend, arm.piece.mass_g, cut.meat_class, spoon_set)
        except BadInput as refusal:
            raise refusal.under(f"layers.{at}") from refusal
        layers.append(reading)
        binder_allergens = ("mustard",) if isinstance(layer, RubLayer) and layer.surface == "mustard" else ()
        situations.append(
            Situation(
                flags=blend.flags,
                allergens=tuple(sorted({*blend.allergens, *binder_allergens})),
                fat_share=blend.fat_share,
                has_marinade=reading.kind == "marinade",
                acid=blend.acid.value > 0.05,
                hold_s=layer.hold_s,
                hold_c=layer.hold_c,
                window_high_s=reading.window.window.long_high_min * 60 if reading.window else None,
                coat_over_ceiling=isinstance(layer, RubLayer) and layer.coat_g_100cm2 > ADHESION_CEILING[layer.surface],
            )
        )
    salt = _total_salt(layers)
    situations.append(Situation(animal=cut.animal, salt_percent=salt.value, thin=thin))
    return ArmReading(
        label=arm.label,
        piece=piece,
        layers=tuple(layers),
        salt=salt,
        zone=salt_zone(salt.value),
        cautions=_merged(situations),
    )


def _total_salt(layers: Sequence[LayerReading]) -> Figure:
    """Return the salt of all layers [% of raw edible weight]; errors of layers add as independent ones."""
    if not layers:
        return figure([Step("Salt", "no layer yet", 0.0, "%")], "nothing is on the meat yet")
    if len(layers) == 1:
        return layers[0].salt
    salts = [layer.salt for layer in layers]
    steps = [step for salt in salts for step in salt.steps]
    total = sum(salt.value for salt in salts)
    low = total - math.hypot(*(salt.value - (salt.value if salt.low is None else salt.low) for salt in salts))
    high = total + math.hypot(*((salt.value if salt.high is None else salt.high) - salt.value for salt in salts))
    formula = " + ".join(f"{salt.value:.2f} %" for salt in salts)
    steps.append(Step("All layers", formula, total, "%"))
    return figure(steps, "layers' errors taken as independent", low=low, high=high)


def _merged(situations: Sequence[Situation]) -> tuple[Caution, ...]:
    """Return the cautions of all situations, each sentence once, most serious first."""
    found = {caution.sentence: caution for situation in situations for caution in cautions_for(situation)}
    order = {"stop": 0, "caution": 1, "note": 2}
    return tuple(sorted(found.values(), key=lambda caution: order[caution.level]))


def salt_to_even(a: ArmReading, b: ArmReading) -> tuple[str, float]:
    """Determine which of two arms holds less salt and how much to add to it [% of its raw edible weight]."""
    return (a.label if a.salt.value < b.salt.value else b.label), abs(a.salt.value - b.salt.value)


def batch_for_dose_g(dose_g: float) -> float:
    """Return the batch [g] that covers a dose: up to the next gram, as a kitchen scale reads."""
    return float(math.ceil(round(dose_g, 3)))
