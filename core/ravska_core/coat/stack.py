"""A piece with its stack of layers, dosed and followed: what each weighs, what of it sticks, where its salt ends.

How a layer that takes the rest, or gives way, finds its dose stands in `target`.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ravska_core.blend import Blend, BlendReading, read_blend
from ravska_core.catalogue import while_it_stands
from ravska_core.coat.bath_weighed import BathWas, BathWeighed, uptake
from ravska_core.coat.doses import ADHESION_CEILING, MELTED_CLINGS, melts, surface_after
from ravska_core.coat.fates import CLINGS_G_CM2, RINSED, WIPED, Dosed, Moment, drip_share, follow
from ravska_core.coat.injection import liquid_g, settle
from ravska_core.coat.layers import (
    BATHS,
    COATS,
    EACH_TIME,
    INJECTIONS,
    LAYER_KINDS,
    MOST_LAYERS,
    Layer,
    LayerKind,
    check_layer,
    limits_words,
)
from ravska_core.coat.on_fire import OnFire
from ravska_core.coat.portions import Portion
from ravska_core.diffusion import Array, Column, at_depths, column_of, diffusivity_m2_s
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.meat import PORTION_G, Piece, PieceReading, read_piece
from ravska_core.working import BadInput, say


@dataclass(frozen=True)
class Seasoned:
    """A piece with its layers in order; `target_percent` is the salt wanted in all [% of raw edible weight].

    `fire` is what its fire does to it, where that is known; else what is left of it is as is usual for the cut.
    """

    letter: str
    piece: Piece
    layers: tuple[Layer, ...]
    target_percent: float | None = None
    portion_g: float = PORTION_G["usual"]
    fire: OnFire | None = None

    def read(self) -> PieceReading:
        """Return the piece as it is read, with what is left of it after its fire."""
        found = read_piece(self.piece)
        if self.fire is None:
            return found
        return replace(found, cook_yield=self.fire.cook_yield, yield_from="heat-water")


@while_it_stands(256)
def _kept_reading(blend: Blend, spoon_set: SpoonSet) -> BlendReading:
    return read_blend(blend, spoon_set)


def _blend_reading(blend: Blend, spoon_set: SpoonSet) -> BlendReading:
    """Read a blend; the same one on several layers and in several edits of a coat is read once."""
    try:
        return _kept_reading(blend, spoon_set)
    except BadInput as refusal:
        raise refusal.under("blend") from refusal


@dataclass(frozen=True)
class Put:
    """A layer being read: its kind, its blend's reading, grams for 1 of its dose setting, and that setting."""

    layer: Layer
    kind: LayerKind
    blend: BlendReading | None
    per_setting_g: float
    dose_setting: float
    formula: str

    @property
    def dose_g(self) -> float:
        return self.per_setting_g * self.dose_setting

    @property
    def salt_g(self) -> float:
        return 0.0 if self.blend is None else self.dose_g * self.blend.salt.value / 100


def _injected_stays(layer: Layer) -> float:
    stays = LAYER_KINDS[layer.kind].stays if layer.stays is None else layer.stays
    assert stays is not None
    if stays < 0.05:
        raise BadInput("stays", "Of an injection at least 5 % stays; weigh the piece before and after.")
    return stays


def as_weighed(layer: Layer, mass_g: float, spoon_set: SpoonSet = SPOON_SETS["us"]) -> Layer:
    """Return a layer as it was weighed: an injection with its pump and what of it stayed, a bath with what was used."""
    if layer.weighed is not None and layer.weighed.used is not None and layer.blend is not None:
        used = layer.weighed.used.grams(_blend_reading(layer.blend, spoon_set).density_g_ml)
        return replace(layer, dose=None, portion=Portion(used, "g"))
    if layer.kind not in INJECTIONS or layer.injection.after_g is None or layer.blend is None:
        return layer
    kind = check_layer(layer)
    if kind.when != "before" and layer.injection.before_g is None:
        raise BadInput("injection.before", "Weigh it before too: on the fire it has lost weight since it was raw.")
    dose_setting = kind.usual if layer.dose is None else layer.dose
    blend = _blend_reading(layer.blend, spoon_set)
    liquid = liquid_g(mass_g, dose_setting, _injected_stays(layer))
    if layer.portion is not None:
        liquid = _portion_g(layer.portion, blend, 0.0, mass_g)
    found = settle(layer.injection, mass_g, liquid, blend.density_g_ml, kind.low, kind.high)
    return layer if found is None else replace(layer, dose=found[0], stays=found[1], portion=None)


def _portion_g(portion: Portion, blend: BlendReading, area_cm2: float, weight_g: float) -> float:
    """Return what a portion of a blend weighs [g] on so much surface, or so much meat."""
    grams = portion.grams(blend.density_g_ml, blend.finished.value)
    return grams * {"": 1.0, "kg": weight_g / 1000, "100 cm²": area_cm2 / 100}[portion.per]


def _put(layer: Layer, piece: PieceReading, mass_g: float, servings: float, spoon_set: SpoonSet) -> Put:
    """Determine what 1 of the dose setting of a layer weighs on this piece, and how it is set."""
    kind = check_layer(layer)
    blend = None if layer.blend is None else _blend_reading(layer.blend, spoon_set)
    dose_setting = kind.usual if layer.dose is None else layer.dose
    if layer.kind == "drippings" or blend is None:
        said = "what is left of the bath" if layer.of_the_bath else "what drips out of the meat"
        return Put(layer, kind, None, 0.0, dose_setting, said)
    times = layer.times if layer.kind in EACH_TIME else 1
    often = f" × {times}" if times > 1 else ""
    per_setting_g, formula = _per_setting(layer, kind, blend, piece, mass_g, servings)
    if layer.portion is None:
        return Put(layer, kind, blend, per_setting_g * times, dose_setting, f"{say(dose_setting, 3)} {formula}{often}")
    weight = {"edible": piece.edible.value, "sliced": piece.edible.value * piece.cook_yield}.get(kind.by, mass_g)
    grams = _portion_g(layer.portion, blend, piece.coatable.value, weight)
    if per_setting_g <= 0:
        raise BadInput("dose", "No surface is open for this to go on; say which faces are coated.")
    dose_setting = grams / per_setting_g
    # of solids that are stirred into a pot a spoonful will do
    low = 0.0 if layer.into_pot and layer.kind == "cooking liquid" else kind.low
    if not low * (1 - 1e-9) <= dose_setting <= kind.high * (1 + 1e-9):
        said = f"{say(grams, 3)} g of it would be {say(dose_setting, 2)} {kind.unit} here"
        raise BadInput("dose", f"{said}; {kind.key} is dosed {limits_words(kind)}")
    return Put(
        layer, kind, blend, per_setting_g * times, dose_setting, f"{_portion_words(layer.portion, blend)}{often}"
    )


def _per_setting(
    layer: Layer, kind: LayerKind, blend: BlendReading, piece: PieceReading, mass_g: float, servings: float
) -> tuple[float, str]:
    """Return what 1 of a dial weighs on this piece each time [g], and what it is counted on, in words."""
    edible = piece.edible.value
    if layer.kind == "pre-salt":
        share = blend.salt.value / 100
        if share < 0.3:
            sentence = "Salt by weight needs a salt, or a blend that is mostly salt; dose this one as a rub."
            raise BadInput("blend", sentence)
        if "cure" in blend.flags:
            raise BadInput("blend", "Curing salt is not dosed here; use a tested cure recipe with its own weights.")
        return edible / 100 / share, f"% × {edible:.0f} g, / {say(share, 4)} salt"
    if kind.by == "area":
        return piece.coatable.value / 100, f"g/100 cm² × {piece.coatable.value:.0f} cm²"
    if kind.by == "serving":
        return servings, f"g × {servings:.1f} servings"
    if kind.by == "sliced":
        sliced = edible * piece.cook_yield
        return sliced / 1000, f"g/kg × {sliced / 1000:.3f} kg sliced"
    if layer.kind in INJECTIONS:
        stays = _injected_stays(layer)
        return liquid_g(mass_g, 1.0, stays), f"% × {mass_g:.0f} g / {stays:g} that stays"
    if layer.kind in BATHS:
        # solids out of a sieve may be dry: the liquid they go into with the next layer is the bath
        if blend.water_share < 0.05 and not layer.into_pot:
            raise BadInput("blend", "This bath holds hardly any water, so no salt moves; add a juice, stock or dairy.")
        return mass_g / 1000 * blend.density_g_ml, f"ml/kg × {mass_g / 1000:.3f} kg"
    return mass_g / 1000, f"g/kg × {mass_g / 1000:.3f} kg"


def _portion_words(portion: Portion, blend: BlendReading) -> str:
    """Say how a portion comes to its weight."""
    per = f" on each {portion.per}" if portion.per else ""
    if portion.unit == "ml":
        return f"{say(portion.value, 3)} ml × {blend.density_g_ml:.2f} g/ml{per}"
    if portion.unit == "g":
        return f"{say(portion.value, 3)} g{per}"
    of = blend.finished.value if portion.unit == "batch" else portion.holds_g or 0.0
    less = f" less {say(portion.taken_g, 3)} g that others take" if portion.taken_g else ""
    return f"{say(portion.value * 100, 3)} % of {say(of, 4)} g{less}"


def _dosed(
    puts: Sequence[Put], piece: PieceReading, surface: str, ceiling: float = 1.0
) -> tuple[list[Dosed], list[str], list[str]]:
    """Return what sticks of every layer, the surface each one meets, and notes on those that do not all stick.

    `ceiling` is a factor on what surfaces hold, for the band of a result.
    """
    found, surfaces, notes = [], [], []
    lying = 0.0
    area = piece.coatable.value
    covered = 1 - piece.open_cm2 / area if area > 0 else 0.0
    over = piece.open_cm2 if piece.open_cm2 > 0 else max(area, 1.0)
    for put in puts:
        note, sticks, clings = "", 1.0, 1.0
        surfaces.append(surface)
        if put.layer.kind == "rub":
            room = max(0.0, ADHESION_CEILING[surface] * ceiling - lying)
            weight = put.dose_setting
            if weight > room + 1e-9:
                sticks = room / weight
                note = f"At most {say(room, 2)} g on 100 cm² more sticks to this {surface} surface."
            lying += weight * sticks
        elif put.layer.kind in ("binder", "paste"):
            assert put.blend is not None
            surface = surface_after(put.blend)
        elif put.layer.kind in BATHS:
            surface, lying = "moist", 0.0
        if put.layer.kind in COATS and put.blend is not None and melts(put.blend) and put.layer.stays is None:
            stuck = put.dose_setting * sticks  # what never stuck cannot melt off
            clings = min(1.0, MELTED_CLINGS / stuck) if stuck > 0 else 1.0
        into = put.layer.kind in BATHS
        bath = put.dose_g / piece.open_cm2 if into and piece.open_cm2 > 0 else 0.0
        water = put.blend.water_share if into and put.blend is not None else 1.0
        found.append(Dosed(put.layer, put.salt_g / over, sticks, clings, covered, bath, water))
        notes.append(note)
    return found, surfaces, notes


def _columns(piece: PieceReading) -> tuple[Column | None, Column | None]:
    """Return the column of the piece's middle and that of its thin end; None where nothing of it is open."""
    if piece.open_cm2 < 0.01 * piece.solid.area_cm2:
        return None, None
    solid = piece.solid
    volume, edible = solid.volume_cm3, piece.edible.value
    half = solid.thickness_cm / 2
    # a bird is hollow: salt goes in from the skin's side, as deep as its breast is thick
    middle = column_of(volume, piece.open_cm2, piece.meat_cm if solid.shape == "bird" else half, edible)
    if solid.shape == "bird":
        return middle, middle
    # the thin end is the same shape made smaller, so that it has as much more surface for its weight as it is thinner
    thinner = min(1.0, piece.thin_cm / solid.thickness_cm)
    return middle, Column(round(middle.half_cm * thinner, 4), middle.exponent, middle.density_g_cm3)


def holding(layers: Sequence[Layer]) -> list[Layer]:
    """Return the layers whose holds count towards depth: those that go on before the fire and are held."""
    return [layer for layer in layers if LAYER_KINDS[layer.kind].when == "before" and LAYER_KINDS[layer.kind].hold_s]


def moved_cm2(layers: Sequence[Layer]) -> float:
    """Return diffusivity times time over holds one after the other [cm2]: the sum of D t."""
    return sum(diffusivity_m2_s(layer.hold_c) * layer.hold_s for layer in layers) * 1e4


_BY_WEIGHT = (*INJECTIONS, "wrap", "finishing salt", "drippings")
"""Layers of which every part of a piece has its share by weight, not by surface."""


class Stack:
    """A piece with its stack, dosed: follows it with one diffusivity or another, on the middle or the thin end."""

    def __init__(self, seasoned: Seasoned, piece: PieceReading, puts: Sequence[Put]) -> None:
        self.piece, self.puts = piece, puts
        self.dosed, self.surfaces, self.notes = _dosed(puts, piece, seasoned.piece.surface)
        self.surface, self.fire = seasoned.piece.surface, seasoned.fire
        self.middle, self.thin_end = _columns(piece)
        self.salt_g = np.array([put.salt_g for put in puts])
        self.mass_g = seasoned.piece.mass_g
        self._settled: dict[float, list[Dosed]] = {}
        self._ends: dict[float, Moment] = {}
        self._holds: dict[float, Moment] = {}

    def _weighed(self, diffusivity_factor: float) -> list[Dosed]:
        """Return the layers with as much of each bath's salt in the meat as its weights say."""
        if diffusivity_factor not in self._settled:
            dosed = self.dosed
            for at, put in enumerate(self.puts):
                if put.layer.weighed is None or put.layer.kind not in BATHS or put.blend is None:
                    continue
                try:
                    times = self._times(dosed, at, put, put.layer.weighed, diffusivity_factor)
                except BadInput as refusal:
                    raise refusal.under(f"layers.{at}.weighed") from refusal
                dosed = [replace(one, times=times) if n == at else one for n, one in enumerate(dosed)]
            self._settled[diffusivity_factor] = dosed
        return self._settled[diffusivity_factor]

    def _times(self, dosed: Sequence[Dosed], at: int, put: Put, weighed: BathWeighed, factor: float) -> float:
        """Return how many times as much of a bath's salt went in as is reckoned, by what was weighed of it."""
        if put.salt_g <= 0:
            return 1.0
        if weighed.whole and any(before.salt_g > 0 for before in self.puts[:at]):
            said = "Salt that was on the meat before is in this bath too, so its salt tells nothing; clear this."
            raise BadInput("left_salt", said)
        out: list[Moment] = []

        def told(n: int, moment: Callable[[], Moment]) -> None:
            if n == at:
                out.append(moment())

        drip = drip_share(self.piece.cook_yield, self.piece.water_share)
        follow(dosed[: at + 1], self.middle, self.piece.water_share, drip, factor, told=told)
        fate = out[0].fates[at]
        on = fate.meat + fate.surface
        assert put.blend is not None
        wiped = fate.lost.get("wiped or rinsed off", 0.0)
        kept = 1 - {"as it is": 0.0, "wiped": WIPED, "rinsed": RINSED}[put.layer.after]
        film = CLINGS_G_CM2 * self.piece.open_cm2 * (kept if put.layer.kind == "marinade" else 0.0)
        was = BathWas(put.dose_g, put.salt_g / put.dose_g, on, wiped, film)
        return uptake(weighed, was, self.mass_g, put.blend.density_g_ml) / on if on > 0 else 1.0

    def times(self, at: int) -> float:
        """Return how many times as much of a bath's salt went in as is reckoned."""
        return self._weighed(1.0)[at].times

    def follow(self, diffusivity_factor: float = 1.0, until_s: float | None = None, times: float = 1.0) -> Moment:
        dosed = self._weighed(diffusivity_factor)
        drip = drip_share(self.piece.cook_yield, self.piece.water_share)
        if until_s is not None or times != 1.0:
            return follow(
                dosed, self.middle, self.piece.water_share, drip, diffusivity_factor, until_s, times, fire=self.fire
            )
        if diffusivity_factor not in self._ends:
            last = max((n for n, put in enumerate(self.puts) if put.kind.when == "before"), default=-1)
            first = min((n for n, put in enumerate(self.puts) if put.kind.when != "before"), default=len(self.puts))

            def told(at: int, moment: Callable[[], Moment]) -> None:
                # on the way to the end it passes the end of the holds, unless something of the fire came before
                if at == last < first:
                    self._holds[diffusivity_factor] = moment()

            self._ends[diffusivity_factor] = follow(
                dosed, self.middle, self.piece.water_share, drip, diffusivity_factor, told=told, fire=self.fire
            )
        return self._ends[diffusivity_factor]

    def at_hold(self, diffusivity_factor: float, at_s: float, whole_s: float) -> Moment:
        """Return the stack at a time of its holds; at their end without following it once more."""
        self.follow(diffusivity_factor)
        known = self._holds.get(diffusivity_factor)
        return known if at_s == whole_s and known is not None else self.follow(diffusivity_factor, at_s)

    def sticks(self, ceiling: float) -> list[float]:
        """Return what sticks of every layer [0 to 1] when surfaces hold `ceiling` times what they usually do."""
        return [dosed.sticks for dosed in _dosed(self.puts, self.piece, self.surface, ceiling)[0]]

    def total(self) -> float:
        """Return the salt of all layers [% of raw edible weight]."""
        return float(self.percent(self.follow()).sum())

    def percent(self, moment: Moment) -> Array:
        """Return what stays of each layer's salt [% of raw edible weight]."""
        stays = np.array([fate.stays for fate in moment.fates])
        found: Array = stays * self.salt_g / self.piece.edible.value * 100
        return found

    def thin_percent(self) -> tuple[float, float]:
        """Return the salt of the thin end by itself, and how much more surface it has for its weight than the whole."""
        if self.thin_end is None or self.middle is None:
            return 0.0, 1.0
        more = self.piece.edible.value / self.piece.open_cm2 / self.thin_end.mass_g_cm2
        return self._part_percent(self.thin_end, more), more

    def each_percent(self) -> tuple[float, ...]:
        """Return the salt of each of several pieces of unlike weight [% of its own raw edible weight].

        What goes on by surface goes on each by its surface; it is followed into meat as thick as the piece is.
        """
        found = []
        for one in self.piece.each:
            more = one.area_share / one.mass_share
            column = self.middle and replace(self.middle, half_cm=round(self.middle.half_cm / more, 4))
            # salt ahead is weighed for each piece; on a thin end it lies as it does on the rest
            found.append(self._part_percent(column, more, (*_BY_WEIGHT, "pre-salt")))
        return tuple(found)

    def _part_percent(self, column: Column | None, more: float, by_weight: Sequence[str] = _BY_WEIGHT) -> float:
        """Return the salt of a part with so many times the surface for its weight [% of its raw edible weight]."""
        edible = self.piece.edible.value
        # what goes on by surface goes on the part too; what goes by weight gives it its share of the weight
        drip = drip_share(self.piece.cook_yield, self.piece.water_share)
        moment = follow(self._weighed(1.0), column, self.piece.water_share, drip, fire=self.fire)
        total = 0.0
        for put, fate, salt in zip(self.puts, moment.fates, self.salt_g, strict=True):
            beside = fate.plate * salt / edible * 100
            on = (fate.meat + fate.surface) * salt / edible * 100
            total += float(beside + on * (1.0 if put.layer.kind in by_weight else more))
        return total

    def curve(self, moment: Moment, depths: Array, of_each: Array | float = 1.0) -> Array:
        """Return the salt at depths [% of raw edible meat there], with so much of each layer's [0 to 1]."""
        assert self.middle is not None
        per_cm2 = moment.cells @ (self.salt_g * of_each) / self.piece.open_cm2
        found: Array = at_depths(self.middle, per_cm2, depths) * 100
        return found


def put_layers(seasoned: Seasoned, piece: PieceReading, spoon_set: SpoonSet) -> list[Put]:
    """Read the layers of a piece, each at its dose; one without a dose at its usual.

    Raises
    ------
    BadInput
        At ``layers`` or ``layers.N.…``.
    """
    if len(seasoned.layers) > MOST_LAYERS:
        raise BadInput("layers", f"A stack has at most {MOST_LAYERS} layers.")
    puts = []
    for at, layer in enumerate(seasoned.layers):
        try:
            if layer.kind in INJECTIONS and piece.solid.shape in ("cubes", "strips") and piece.solid.thickness_cm < 2:
                raise BadInput("kind", "These pieces are too small for a needle; use a bath or a coat.")
            later = [after.kind for after in seasoned.layers[at + 1 :]]
            if layer.into_pot and layer.kind in BATHS and "cooking liquid" not in later:
                raise BadInput("after", "No pot comes after this; put a cooking liquid on, or throw this away.")
            if layer.of_the_bath and not any(
                before.into_pot and before.kind in BATHS for before in seasoned.layers[:at]
            ):
                raise BadInput("blend", "No bath before goes into the pot; choose a liquid, or keep the bath for it.")
            puts.append(
                _put(
                    as_weighed(layer, seasoned.piece.mass_g, spoon_set),
                    piece,
                    seasoned.piece.mass_g,
                    piece.edible.value * piece.cook_yield / seasoned.portion_g,
                    spoon_set,
                )
            )
        except BadInput as refusal:
            raise refusal.under(f"layers.{at}") from refusal
    return puts
