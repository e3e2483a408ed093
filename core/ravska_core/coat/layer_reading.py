"""What one layer comes to: its dose and how sure that is, where its salt ends, what is said of it."""

import math
from collections.abc import Hashable, Sequence
from dataclasses import dataclass, field, replace

from ravska_core.blend import corrections
from ravska_core.coat.bath_weighed import METER_ERROR
from ravska_core.coat.core_sample import reach_of
from ravska_core.coat.doses import MELTED_ERROR, coat_word
from ravska_core.coat.fates import CLINGS_G_CM2, DRIPS, Fate
from ravska_core.coat.injected import InjectionReading, read_injection
from ravska_core.coat.layers import BATHS
from ravska_core.coat.ledger import Doubts, ends
from ravska_core.coat.marinade import Window, hold_window, says_where
from ravska_core.coat.sites import face_of
from ravska_core.coat.stack import Put, Seasoned, Stack, holding, moved_cm2
from ravska_core.measure import Spoonfuls, SpoonSet, measure_out
from ravska_core.units import US_TEASPOON_ML
from ravska_core.working import BadInput, Figure, Step, figure, say

STAYS_ERROR = 0.1
"""Relative error of what stays where nobody weighed it (estimate)."""


@dataclass(frozen=True)
class LayerShown:
    """What one layer takes [g, or ml for a liquid], how to measure it out, and where its salt ends.

    `volume_ml` is what it fills, levelled. `salt` is what stays, `so_far` that of this layer and all before it [% of
    raw edible weight]; `rest` what is left to the target after it; `fate` says where its salt goes [share of what was
    put on]. `coat` says how heavy a coat of rub it is, `sticks_g` what of it sticks, `batch_g` what its finished batch
    weighs. `each_g` is what of it goes on each of several pieces of unlike weight. `reserve_g` of a bath is set aside,
    `standing` says where its hold stands on its window, `times` how many times as much of it went in as is reckoned;
    `injection` is how one is injected.
    """

    kind: str
    dose: Figure
    dose_g: float
    dose_setting: float
    spoons: Spoonfuls
    volume_ml: float
    salt: Figure
    fate: Fate
    so_far: float
    rest: float | None
    surface: str
    note: str = ""
    says: str = ""
    window: Window | None = None
    standing: str = ""
    times: float = 1.0
    too_long: bool = False
    coat: str = ""
    sticks_g: float = 0.0
    batch_g: float = 0.0
    each_g: tuple[float, ...] = ()
    reserve_g: float = 0.0
    injection: InjectionReading | None = None
    reach: Figure | None = None
    hold_s: float = 0.0
    begins_s: float = 0.0


@dataclass(frozen=True)
class LayerReading(LayerShown):
    """What one layer comes to, with what makes its salt uncertain."""

    doubts: Doubts = field(kw_only=True)


def injection_of_put(put: Put, stack: Stack, seasoned: Seasoned, at: int) -> InjectionReading:
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


def aside_words(put: Put, stack: Stack, fate: Fate, servings: float) -> str:
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
    if put.kind.by == "serving":
        return f"{say(put.dose_g / servings, 2)} g with each of {servings:.1f} servings."
    if put.kind.key == "finishing salt" and put.blend is not None:
        pinches = put.dose_g / put.blend.density_g_ml / (US_TEASPOON_ML / 16) / servings
        return f"{say(pinches, 2)} pinches of 1/16 tsp on each serving."
    return ""


def corrected_words(put: Put) -> str:
    """Say of a layer that was mixed how today's tables would read it, where they were corrected since."""
    found = corrections(put.layer.blend, put.blend) if put.layer.blend is not None and put.blend is not None else None
    return f"Read as it was when it was mixed; by tables corrected since: {found.words}." if found else ""


def _dose_figure(put: Put, stack: Stack) -> tuple[Figure, float]:
    """Return what a layer takes [g, or ml of a bath], and that in g."""
    kind, piece, blend = put.kind, stack.piece, put.blend
    if put.layer.of_the_bath:
        baths = [one for one in stack.puts if one.layer.into_pot and one.blend is not None]
        ml = sum(one.dose_g / one.blend.density_g_ml for one in baths if one.blend is not None)
        film = CLINGS_G_CM2 * piece.open_cm2 * sum(one.layer.kind == "marinade" for one in baths)
        steps = [
            Step("What is left of the bath", f"{ml:.0f} ml less a film of {film:.0f} g", max(0.0, ml - film), "ml")
        ]
        return figure(steps, "±20 %: a rule of thumb", spread=0.2), 0.0
    if blend is None:
        lost = (1 - piece.cook_yield) * 100
        dose = piece.edible.value * (1 - piece.cook_yield) * DRIPS
        steps = [Step("Drippings", f"{lost:.0f} % weight loss × {DRIPS:g}", dose, "g", "estimate")]
        return figure(steps, "±50 %: how much drips depends on the fire", spread=0.5), dose
    liquid = kind.unit == "ml/kg"
    value = put.dose_g / blend.density_g_ml if liquid else put.dose_g
    portion = put.layer.portion
    if portion is not None:
        spread = math.hypot(portion.error, piece.area_error if portion.per == "100 cm²" else 0.0)
        steps = [Step(kind.key.capitalize(), put.formula, value, "ml" if liquid else "g")]
        error = f"±{spread * 100:.0f} %, as it was said" if spread else "as much as there is of it"
        return figure(steps, error, spread=spread), put.dose_g
    spread = (
        piece.area_error
        if kind.by == "area"
        else {"injection": 0.1}.get(kind.key, 0.2 if liquid else 0.15 if kind.by == "serving" else 0.02)
    )
    source = "trade" if kind.by == "area" else kind.source
    steps = [Step(kind.key.capitalize(), put.formula, value, "ml" if liquid else "g", source)]
    error = f"±{spread * 100:.0f} %" + {"area": ", as the area", "serving": ", as the servings"}.get(
        kind.by, ": a rule of thumb" if liquid else ""
    )
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

    by_area = kind.by == "area" if layer.portion is None else layer.portion.per == "100 cm²"
    if by_area:
        both("area", stack.piece.area_error, stack.piece.area_error)
    if layer.portion is not None:
        both(("dose", at), layer.portion.error, layer.portion.error)
    if kind.stays is not None and kind.stays < 1 and layer.stays is None:
        both(("stays", kind.key), STAYS_ERROR, STAYS_ERROR)
    if dosed.sticks > 0:
        both("sticks", 1 - stuck[0] / dosed.sticks, stuck[1] / dosed.sticks - 1)
    if dosed.clings < 1:
        both("melts", MELTED_ERROR, MELTED_ERROR)
    if layer.weighed is not None and layer.weighed.whole and value > 0:
        goes_in = value / (put.salt_g / stack.piece.edible.value * 100)
        both(("meter", at), METER_ERROR * (1 - goes_in) / goes_in, METER_ERROR * (1 - goes_in) / goes_in)
    return Doubts(below, above, (band[0] - value, band[1] - value))


_DOUBT_SAYS = {
    "area": "area",
    "dose": "the dose as said",
    "stays": "what stays",
    "sticks": "what sticks",
    "melts": "what melts off",
    "meter": "the salt meter",
}


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


def layer_reading(
    put: Put, stack: Stack, at: int, fate: Fate, band: Sequence[float], stuck: tuple[float, float], meat_class: str,
    spoon_set: SpoonSet,
) -> LayerReading:  # fmt: skip
    """Return what one layer takes and what of its salt stays, with the working of both."""
    layer, kind, blend, edible = put.layer, put.kind, put.blend, stack.piece.edible.value
    said, dose = _dose_figure(put, stack)
    # an end that hardly anything comes to is none
    if any(share <= 1e-6 for share in fate.lost.values()):
        fate = replace(fate, lost={where: share for where, share in fate.lost.items() if share > 1e-6})
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
        volume_ml=dose / density,
        salt=salt,
        fate=fate,
        so_far=0.0,
        rest=None,
        surface=stack.surfaces[at],
        window=window,
        times=stack.times(at),
        standing="" if window is None else says_where(window.limits, layer.hold_s),
        too_long=window is not None and layer.hold_s > window.limits.long_high_min * 60,
        coat=coat_word(put.dose_setting) if layer.kind == "rub" else "",
        sticks_g=dose * stack.dosed[at].sticks,
        batch_g=0.0 if blend is None else blend.finished.value,
        each_g=_on_each(put, stack, dose),
        reserve_g=reserve_of(put),
        reach=reach_of([layer]) if kind.hold_s and put.salt_g > 0 else None,
        hold_s=layer.hold_s if kind.hold_s else 0.0,
        doubts=doubts,
    )


def _on_each(put: Put, stack: Stack, dose_g: float) -> tuple[float, ...]:
    """Return what of a layer goes on each of several pieces [g]: by surface or by weight; in a bath they lie together.

    What is eaten beside the meat goes by the serving, and not by the piece.
    """
    if put.layer.kind in (*BATHS, "drippings", "wrap") or put.kind.by in ("serving", "sliced"):
        return ()
    return tuple(dose_g * (one.area_share if put.kind.by == "area" else one.mass_share) for one in stack.piece.each)


def reserve_of(put: Put) -> float:
    """Return what is set aside of a marinade before the meat goes in [g]."""
    reserve = put.layer.reserve
    return reserve.grams(put.blend.density_g_ml) if put.layer.kind == "marinade" and reserve and put.blend else 0.0
