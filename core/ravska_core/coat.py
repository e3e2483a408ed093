"""What a coat comes to: a piece with its stack of layers in, doses, a salt ledger, a core sample and cautions out."""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass, field, replace

from ravska_core.additives import nitrite_of, phosphate_percent
from ravska_core.catalogue import US_TEASPOON_ML, Catalogue, Grind
from ravska_core.caution_rules import cautions_for
from ravska_core.cautions import LEVELS, Caution, Situation
from ravska_core.clocks import COLD_C, Stage, clocks_of
from ravska_core.core_sample import CoreSample, core_sample, reach_of
from ravska_core.cuts import CutUp, PieceReading, cutting, find_cut
from ravska_core.depth import DIFFUSIVITY_BAND
from ravska_core.doses import ADHESION_ERROR, MELTED_ERROR, salt_zone
from ravska_core.fates import CLINGS_G_CM2, DRIPS, Fate
from ravska_core.injection import InjectionReading, read_injection
from ravska_core.layers import BATHS, INJECTIONS, LAYER_KINDS
from ravska_core.ledger import Doubts, a_serving, ends, servings_of, thin_end, total_salt
from ravska_core.marinade import Window, hold_window, says_where
from ravska_core.needle import THICK_BRIX, brine_share
from ravska_core.sites import face_of
from ravska_core.spoons import SPOON_SETS, Spoonfuls, SpoonSet, measure_out
from ravska_core.stack import Put, Seasoned, Stack, holding, moved_cm2
from ravska_core.target import dose_stack, usually_gives
from ravska_core.working import BadInput, Figure, Step, figure, say

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
    dose_setting: float
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
    doubts: Doubts = field(default_factory=lambda: Doubts({}, {}))


@dataclass(frozen=True)
class CoatReading:
    """What a piece comes to: its piece, its layers, the ledger of its salt, a serving, the core sample, cautions.

    `gives` is the place of the layer that usually gives way to a target, None where one takes the rest already.
    """

    letter: str
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


def read_coat(
    seasoned: Seasoned,
    spoon_set: SpoonSet = SPOON_SETS["us"],
    tables: Catalogue | None = None,
    at_s: float | None = None,
    cored: bool = True,
) -> CoatReading:
    """Determine what one piece comes to: doses, where its salt ends, the core sample and cautions.

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
    return read_stack(seasoned, spoon_set, tables, at_s, cored)[0]


def read_stack(
    seasoned: Seasoned,
    spoon_set: SpoonSet = SPOON_SETS["us"],
    tables: Catalogue | None = None,
    at_s: float | None = None,
    cored: bool = True,
) -> tuple[CoatReading, Stack]:
    """Return what `read_coat` does, with the stack it was read from."""
    stack, notes = dose_stack(seasoned, spoon_set, tables)
    piece, puts = stack.piece, stack.puts
    cut = find_cut(seasoned.piece.cut, tables)
    moment = stack.follow()
    percents = stack.percent(moment)
    band = [stack.percent(stack.follow(factor)) for factor in DIFFUSIVITY_BAND]
    servings = servings_of(piece, seasoned.portion_g)
    layers: list[LayerReading] = []
    so_far = clock = 0.0
    room = stack.sticks(1 - ADHESION_ERROR), stack.sticks(1 + ADHESION_ERROR)
    for at, put in enumerate(puts):
        so_far += float(percents[at])
        spread = [float(values[at]) for values in band]
        note = notes.get(at) or stack.notes[at]
        stuck = room[0][at], room[1][at]
        read = _layer_reading(put, stack, at, moment.fates[at], spread, stuck, cut.meat_class, spoon_set)
        rest = None if seasoned.target_percent is None else seasoned.target_percent - so_far
        injected = _injection(put, stack, seasoned, at) if put.layer.kind in INJECTIONS else None
        says = _aside(put, stack, moment.fates[at], servings.value)
        layers.append(replace(read, so_far=so_far, rest=rest, note=note, says=says, injection=injected, begins_s=clock))
        if put.kind.when == "before" and put.kind.hold_s:
            clock += put.layer.hold_s
    stays = [fate.stays for fate in moment.fates]
    nitrite = nitrite_of(puts, stays, seasoned.piece.mass_g, seasoned.piece.cut)
    salt = total_salt([layer.salt for layer in layers], puts, [layer.doubts for layer in layers])
    thin_value, more = stack.thin_percent()
    thin = thin_end(piece, salt, thin_value, more)
    sodium, sugar = a_serving(puts, moment, servings.value)
    reading = CoatReading(
        letter=seasoned.letter,
        piece=piece,
        cut_up=cutting(seasoned.piece, tables),
        layers=tuple(layers),
        salt=salt,
        zone=salt_zone(salt.value),
        target=seasoned.target_percent,
        gives=None if any(layer.dose is None for layer in seasoned.layers) else usually_gives(seasoned.layers),
        thin=thin,
        servings=servings,
        sodium=sodium,
        sugar=sugar,
        sample=core_sample(stack, seasoned, at_s) if cored else None,
        cautions=_cautions(
            seasoned, layers, puts, stack,
            Situation(
                animal=cut.animal,
                minced=cut.minced,
                fire_s=cut.fire_min * 60,
                salt_percent=salt.value,
                thin_percent=thin.value,
                sodium_mg=sodium.value,
                phosphate_percent=phosphate_percent(puts, stays, seasoned.piece.mass_g),
            ),
            nitrite,
        ),
    )  # fmt: skip
    return reading, stack


def _injection(put: Put, stack: Stack, seasoned: Seasoned, at: int) -> InjectionReading:
    """Read how a layer is injected; what its plan cannot be is named at the layer."""
    assert put.blend is not None
    piece = stack.piece
    dt_cm2 = moved_cm2(holding(seasoned.layers[at:]))
    stays = put.kind.stays if put.layer.stays is None else put.layer.stays
    assert stays is not None
    try:
        return read_injection(
            put.layer.injection, face_of(piece.solid, piece.bones), piece.solid.pieces, put.blend,
            seasoned.piece.mass_g, piece.edible.value, put.dose_g, stays, put.layer.stays is not None, dt_cm2,
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
        sauce = f", and {put.salt_g * fate.plate:.1f} g are eaten with what is left of it" if fate.plate else ""
        return (
            f"Of {put.salt_g:.1f} g of salt in it {put.salt_g * (fate.meat + fate.surface):.1f} g go into the "
            f"meat{sauce}; about {clings:.0f} g of the bath cling to it, {said[put.layer.after]}."
        )
    if put.kind.when == "after" and put.blend is not None:
        pinches = put.dose_g / put.blend.density_g_ml / (US_TEASPOON_ML / 16) / servings
        return f"{say(pinches, 2)} pinches of 1/16 tsp on each serving."
    return ""


def _dose_figure(put: Put, stack: Stack) -> tuple[Figure, float]:
    """Return what a layer takes [g, or ml of a bath], and that in g."""
    kind, piece, blend = put.kind, stack.piece, put.blend
    if blend is None:
        lost = (1 - piece.cook_yield) * 100
        dose = piece.edible.value * (1 - piece.cook_yield) * DRIPS
        steps = [Step("Drippings", f"{lost:.0f} % weight loss × {DRIPS:g}", dose, "g", "estimate")]
        return figure(steps, "±50 %: how much drips depends on the fire", spread=0.5), dose
    liquid = kind.unit == "ml/kg"
    spread = piece.area_error if kind.by == "area" else {"injection": 0.1}.get(kind.key, 0.2 if liquid else 0.02)
    value = put.dose_g / blend.density_g_ml if liquid else put.dose_g
    source = "trade" if kind.by == "area" else kind.source
    steps = [Step(kind.key.capitalize(), put.formula, value, "ml" if liquid else "g", source)]
    error = f"±{spread * 100:.0f} %" + {"area": ", as the area"}.get(kind.by, ": a rule of thumb" if liquid else "")
    return figure(steps, error, spread=spread), put.dose_g


def _doubts(put: Put, stack: Stack, at: int, value: float, band: Sequence[float], stuck: tuple[float, float]) -> Doubts:
    """Return what makes a layer's salt uncertain; `stuck` is what sticks of it when surfaces hold less and more."""
    kind, layer, dosed = put.kind, put.layer, stack.dosed[at]
    off = (0.0, 0.0) if put.blend is None else ends(put.blend.salt)
    below: dict[Hashable, float] = {("blend", layer.blend): off[0] * value}
    above: dict[Hashable, float] = {("blend", layer.blend): off[1] * value}

    def both(source: Hashable, less: float, more: float) -> None:
        if less > 0 or more > 0:
            below[source], above[source] = less * value, more * value

    if kind.by == "area":
        both("area", stack.piece.area_error, stack.piece.area_error)
    if kind.stays is not None and kind.stays < 1 and layer.stays is None:
        both(("stays", kind.key), STAYS_ERROR, STAYS_ERROR)
    if dosed.sticks > 0:
        both("sticks", 1 - stuck[0] / dosed.sticks, stuck[1] / dosed.sticks - 1)
    if dosed.clings < 1:
        both("melts", MELTED_ERROR, MELTED_ERROR)
    return Doubts(below, above, (band[0] - value, band[1] - value))


_DOUBT_SAYS = {"area": "area", "stays": "what stays", "sticks": "what sticks", "melts": "what melts off"}


def _doubt_words(doubts: Doubts, value: float) -> str:
    """Say what makes a layer's salt uncertain, and how much."""
    parts = []
    for source, above in doubts.above.items():
        name = source[0] if isinstance(source, tuple) else source
        share = max(above, doubts.below.get(source, 0.0)) / value * 100 if value else 0.0
        parts.append(f"{_DOUBT_SAYS.get(str(name), 'the blend')} ±{share:.0f} %")
    if value and max(map(abs, doubts.moves)) > 0.005 * value:
        parts.append("diffusivity halved and doubled")
    return ", ".join(parts) + "; taken as independent"


def _layer_reading(
    put: Put, stack: Stack, at: int, fate: Fate, band: Sequence[float], stuck: tuple[float, float], meat_class: str,
    spoon_set: SpoonSet,
) -> LayerReading:  # fmt: skip
    """Return what one layer takes and what of its salt stays, with the working of both."""
    layer, kind, blend, edible = put.layer, put.kind, put.blend, stack.piece.edible.value
    said, dose = _dose_figure(put, stack)
    density, salt_percent = (1.0, 0.0) if blend is None else (blend.density_g_ml, blend.salt.value)
    kept = fate.stays
    value = put.salt_g * kept / edible * 100
    working = [
        *said.steps,
        Step("Salt in it", "see the blend", salt_percent, "%"),
        Step("Put on", f"{dose:.1f} g × {salt_percent:.2f} %", put.salt_g, "g"),
        *(Step(f"Less what {where}" if where.startswith(("did", "melted")) else f"Less {where}", "share of it",
               -share * 100, "%", "estimate") for where, share in fate.lost.items()),
        Step("Stays", "on, in and beside the meat", kept * 100, "%", kind.source),
        Step("Of raw edible weight", f"{put.salt_g * kept:.2f} g / {edible:.0f} g", value, "%"),
    ]  # fmt: skip
    doubts = _doubts(put, stack, at, value, band, stuck)
    below, above = doubts.ends()
    salt = figure(working, _doubt_words(doubts, value), low=max(0.0, value - below), high=value + above)
    bath = blend if layer.kind == "marinade" else None
    window = None if bath is None else hold_window(bath, meat_class, stack.piece.thickness, layer.hold_c)
    return LayerReading(
        kind=layer.kind,
        dose=said,
        dose_g=dose,
        dose_setting=put.dose_setting,
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
        reach=reach_of([layer]) if kind.hold_s and put.salt_g > 0 else None,
        hold_s=layer.hold_s if kind.hold_s else 0.0,
        doubts=doubts,
    )


def stages_of(seasoned: Seasoned) -> list[Stage]:
    """Return the stages of a piece's raw meat in order: thawed, each layer's hold, out before the fire."""
    holds = [Stage("hold", layer.held_in, layer.hold_c, layer.hold_s) for layer in holding(seasoned.layers)]
    own = seasoned.piece.stages
    return [
        *(stage for stage in own if stage.what == "thaw"),
        *holds,
        *(stage for stage in own if stage.what != "thaw"),
    ]


def _on_for(seasoned: Seasoned, at: int) -> tuple[float, float]:
    """Return how long a layer lies on the raw meat, until a bath takes it off, and of that off the cold [s]."""
    after = list(seasoned.layers[at + 1 :])
    ends_at = next((n for n, layer in enumerate(after) if layer.kind in BATHS), len(after))
    if seasoned.layers[at].kind in BATHS:
        ends_at = 0
    on = holding([seasoned.layers[at], *after[:ends_at]])
    stays_on = seasoned.layers[at].kind not in BATHS and ends_at == len(after)
    temper = [stage for stage in seasoned.piece.stages if stage.what == "temper" and stays_on]
    warm = sum(layer.hold_s for layer in on if layer.hold_c > COLD_C)
    warm += sum(stage.lasts_s for stage in temper if stage.celsius > COLD_C)
    return sum(layer.hold_s for layer in on) + sum(stage.lasts_s for stage in temper), warm


def _layer_situation(seasoned: Seasoned, read: LayerReading, puts: Sequence[Put], stack: Stack, at: int) -> Situation:
    """Return what is known of one layer when its cautions are asked for."""
    put = puts[at]
    layer, blend = put.layer, put.blend
    assert blend is not None
    before = put.kind.when == "before"
    clog = read.injection.clog if read.injection else None
    after, short = _used_after(puts, at)
    on_s, on_warm_s = _on_for(seasoned, at) if before else (0.0, 0.0)
    return Situation(
        animal=find_cut(seasoned.piece.cut).animal,
        flags=blend.flags,
        allergens=blend.allergens,
        fat_share=blend.fat_share,
        has_marinade=layer.kind == "marinade",
        coated=layer.kind in ("rub", "paste"),
        boiled=bool(layer.eaten) or layer.into_pot,
        rinsed=layer.kind == "marinade" and layer.after == "rinsed",
        used_after=after,
        reserve_short=short,
        brine_percent=brine_share(blend) * 100 if layer.kind in BATHS else 0.0,
        injected=layer.kind in INJECTIONS,
        again=layer.kind == "second injection",
        clogs=", ".join(_said(grind) for grind in clog.coarse) if clog else "",
        bore_mm=clog.bore_mm if clog else 2.0,
        thick=clog is not None and clog.brix >= THICK_BRIX * 100,
        acid=blend.acid.value > 0.05,
        hold_s=read.hold_s if before else 0.0,
        hold_c=layer.hold_c if before else 4.0,
        on_s=on_s,
        on_warm_s=on_warm_s,
        window_high_s=read.window.window.long_high_min * 60 if read.window else None,
        coat_over_ceiling=stack.dosed[at].sticks < 1,
    )


_OF_LAYERS = ("minimum-centre", "pierced", "not-intact", "below-minimum", "below-minimum-poultry", "below-minimum-fish")
"""Rules of the whole piece; a layer knows its animal only to say what concerns itself."""


def _cautions(
    seasoned: Seasoned, layers: Sequence[LayerReading], puts: Sequence[Put], stack: Stack, whole: Situation,
    nitrite: Sequence[float],
) -> tuple[Caution, ...]:  # fmt: skip
    """Return the cautions of all layers and of the `whole`, each sentence once at its step, most serious first."""
    found: dict[tuple[str, int | None], Caution] = {}
    pierced = seasoned.piece.pierced or any(layer.kind in INJECTIONS for layer in seasoned.layers)
    cure = any(put.blend is not None and "cure" in put.blend.flags for put in puts)
    said: list[Caution] = []
    for at, (read, put) in enumerate(zip(layers, puts, strict=True)):
        if put.blend is not None:
            situation = replace(_layer_situation(seasoned, read, puts, stack, at), nitrite_mg_kg=nitrite[at])
            said += [caution for caution in cautions_for(situation, layer=at) if caution.id not in _OF_LAYERS]
        elif put.layer.kind == "drippings":
            said += cautions_for(Situation(drippings=True), layer=at)
    raw = [layer for layer in seasoned.layers if LAYER_KINDS[layer.kind].when == "before"]
    said += cautions_for(
        replace(
            whole,
            thin=stack.piece.solid.thickness_cm < THIN_CM,
            clocks=clocks_of(stages_of(seasoned), stack.piece.meat_cm / 2, not (pierced or whole.minced)),
            wet=bool(raw) and raw[-1].kind == "marinade" and raw[-1].after == "as it is",
            pierced=pierced,
            cure=cure,
            endpoint_c=seasoned.piece.endpoint_c,
        )
    )
    for caution in said:
        found.setdefault((caution.sentence, caution.layer), caution)
    return tuple(sorted(found.values(), key=lambda caution: LEVELS.index(caution.level)))


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
