"""What cautions are judged from, as a piece with its stack is: each layer's own, and the whole's."""

from collections.abc import Sequence
from dataclasses import replace

from ravska_core.blend import THICK_BRIX, brine_share
from ravska_core.cautions import COLD_C, LEVELS, Caution, Situation, cautions_for
from ravska_core.coat.layer_reading import LayerReading, reserve_of
from ravska_core.coat.layers import BATHS, INJECTIONS, LAYER_KINDS
from ravska_core.coat.stack import Put, Seasoned, Stack, holding
from ravska_core.meat import Stage, clocks_of, find_cut

THIN_CM = 4.0
"""Below this a piece is thin, and salts and dries like one [cm] (estimate)."""


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
        clogs=", ".join(f"{one.name} ({one.grain_mm:g} mm)" for one in clog.coarse) if clog else "",
        bore_mm=clog.bore_mm if clog else 2.0,
        thick=clog is not None and clog.brix >= THICK_BRIX * 100,
        acid=blend.acid.value > 0.05,
        hold_s=read.hold_s if before else 0.0,
        hold_c=layer.hold_c if before else 4.0,
        on_s=on_s,
        on_warm_s=on_warm_s,
        window_high_s=read.window.limits.long_high_min * 60 if read.window else None,
        coat_over_ceiling=stack.dosed[at].sticks < 1,
    )


_OF_LAYERS = ("minimum-centre", "pierced", "not-intact", "below-minimum", "below-minimum-poultry", "below-minimum-fish")
"""Rules of the whole piece; a layer knows its animal only to say what concerns itself."""


def cautions_of(
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


def _used_after(puts: Sequence[Put], at: int) -> tuple[str, bool]:
    """Return which later layer is of the same blend as a bath, and whether too little of it is set aside for that."""
    bath = puts[at]
    if bath.layer.kind != "marinade":
        return "", False
    later = [put for put in puts[at + 1 :] if put.kind.when != "before" and put.layer.blend == bath.layer.blend]
    later = [put for put in later if put.layer.kind not in BATHS]
    if not later:
        return "", False
    return later[0].layer.kind, reserve_of(bath) < 0.98 * sum(put.dose_g for put in later)
