"""What a coat comes to: a piece with its stack of layers in, doses, a salt ledger, a core sample and cautions out."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ravska_core.blends import Blend
from ravska_core.catalogue import SODIUM_IN_NACL, Catalogue
from ravska_core.cautions import Caution, Situation, cautions_for
from ravska_core.column import Array, Column, at_depths, column_of, reach_share
from ravska_core.composition import BlendReading, read_blend
from ravska_core.cuts import CutUp, Piece, PieceReading, cutting, find_cut, read_piece
from ravska_core.depth import DIFFUSIVITY_BAND, diffusivity_m2_s
from ravska_core.doses import ADHESION_CEILING, salt_zone, surface_after
from ravska_core.fates import DRIPS, Dosed, Fate, Moment, follow
from ravska_core.layers import BATHS, EACH_TIME, LAYER_KINDS, MOST_LAYERS, Layer, LayerKind, check_layer
from ravska_core.marinade import Window, hold_window
from ravska_core.portions import PORTION_G
from ravska_core.quantities import say_duration
from ravska_core.spoons import SPOON_SETS, Spoonfuls, SpoonSet, measure_out
from ravska_core.working import BadInput, Figure, Step, figure

STAYS_ERROR = 0.1
"""Relative error of what stays where nobody weighed it (estimate)."""

THIN_CM = 4.0
DEPTHS = 41
NEAR_CM = 0.5


@dataclass(frozen=True)
class Arm:
    """A piece with its layers in order; `target_percent` is the salt wanted in all [% of raw edible weight]."""

    label: str
    piece: Piece
    layers: tuple[Layer, ...]
    target_percent: float | None = None
    portion_g: float = PORTION_G["usual"]


@dataclass(frozen=True)
class LayerReading:
    """What one layer takes [g, or ml for a liquid], how to measure it out, and where its salt ends.

    `salt` is what stays, `so_far` that of this layer and all before it [% of raw edible weight]; `rest` what is left
    to the target after it. `lost` says where the rest of its salt goes [share of what was put on].
    """

    kind: str
    dose: Figure
    dose_g: float
    dial: float
    spoons: Spoonfuls
    spoons_wanted_ml: float
    salt: Figure
    salt_on_g: float
    fate: Fate
    so_far: float
    rest: float | None
    surface: str
    note: str = ""
    window: Window | None = None
    reach: Figure | None = None
    hold_s: float = 0.0
    begins_s: float = 0.0


@dataclass(frozen=True)
class CoreSample:
    """Salt from the surface to the centre at one time of the hold [% of raw edible weight], with the band of D.

    `says` is what this hold does and what twice the time would add, in words.
    """

    time_s: float
    whole_s: float
    depths_cm: tuple[float, ...]
    percent: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    reach: Figure
    says: tuple[str, ...]


@dataclass(frozen=True)
class ArmReading:
    """What an arm comes to: its piece, its layers, the ledger of its salt, a serving, the core sample, cautions."""

    label: str
    piece: PieceReading
    cut_up: CutUp | None
    layers: tuple[LayerReading, ...]
    salt: Figure
    zone: str
    target: float | None
    thin: Figure
    servings: Figure
    sodium: Figure
    sugar: Figure
    sample: CoreSample | None
    cautions: tuple[Caution, ...]


@lru_cache(maxsize=256)
def _kept_reading(blend: Blend, spoon_set: SpoonSet) -> BlendReading:
    return read_blend(blend, spoon_set)


def _blend_reading(blend: Blend, spoon_set: SpoonSet, tables: Catalogue | None) -> BlendReading:
    """Read a blend; the same one on several layers and in several edits of a coat is read once."""
    try:
        return _kept_reading(blend, spoon_set) if tables is None else read_blend(blend, spoon_set, tables)
    except BadInput as refusal:
        raise refusal.under("blend") from refusal


@dataclass(frozen=True)
class _Put:
    """A layer being read: its kind, its blend's reading, grams for 1 of its dial, and the dial."""

    layer: Layer
    kind: LayerKind
    blend: BlendReading | None
    per_dial_g: float
    dial: float
    formula: str

    @property
    def dose_g(self) -> float:
        return self.per_dial_g * self.dial

    @property
    def salt_g(self) -> float:
        return 0.0 if self.blend is None else self.dose_g * self.blend.salt.value / 100


def _put(layer: Layer, piece: PieceReading, mass_g: float, spoon_set: SpoonSet, tables: Catalogue | None) -> _Put:
    """Determine what 1 on the dial of a layer weighs on this piece."""
    kind = check_layer(layer)
    blend = None if layer.blend is None else _blend_reading(layer.blend, spoon_set, tables)
    dial = kind.usual if layer.dose is None else layer.dose
    times = layer.times if layer.kind in EACH_TIME else 1
    area, edible = piece.coatable.value, piece.edible.value
    often = f" × {times}" if times > 1 else ""
    if layer.kind == "drippings" or blend is None:
        return _Put(layer, kind, None, 0.0, dial, "what drips out of the meat")
    if layer.kind == "pre-salt":
        share = blend.salt.value / 100
        if share < 0.3:
            sentence = "Salt by weight needs a salt, or a blend that is mostly salt; dose this one as a rub."
            raise BadInput("blend", sentence)
        if "cure" in blend.flags:
            raise BadInput("blend", "Curing salt is not dosed here; use a tested cure recipe with its own weights.")
        return _Put(
            layer, kind, blend, edible / 100 / share, dial, f"{dial:.3g} % × {edible:.0f} g, / {share:.4g} salt"
        )
    if kind.by == "area":
        return _Put(layer, kind, blend, area / 100 * times, dial, f"{dial:.3g} g/100 cm² × {area:.0f} cm²{often}")
    if kind.by == "sliced":
        sliced = edible * piece.cook_yield
        return _Put(layer, kind, blend, sliced / 1000, dial, f"{dial:.3g} g/kg × {sliced / 1000:.3f} kg sliced")
    if layer.kind == "injection":
        stays = LAYER_KINDS["injection"].stays if layer.stays is None else layer.stays
        assert stays is not None
        if stays < 0.05:
            raise BadInput("stays", "Of an injection at least 5 % stays; weigh the piece before and after.")
        formula = f"{dial:.3g} % × {mass_g:.0f} g / {stays:g} that stays"
        return _Put(layer, kind, blend, mass_g / 100 / stays, dial, formula)
    if layer.kind in BATHS:
        if blend.water_share < 0.05:
            raise BadInput("blend", "This bath holds hardly any water, so no salt moves; add a juice, stock or dairy.")
        formula = f"{dial:.3g} ml/kg × {mass_g / 1000:.3f} kg"
        return _Put(layer, kind, blend, mass_g / 1000 * blend.density_g_ml, dial, formula)
    return _Put(layer, kind, blend, mass_g / 1000, dial, f"{dial:.3g} g/kg × {mass_g / 1000:.3f} kg")


def _dosed(puts: Sequence[_Put], piece: PieceReading, surface: str) -> tuple[list[Dosed], list[str], list[str]]:
    """Return what sticks of every layer, the surface each one meets, and notes on those that do not all stick."""
    found, surfaces, notes = [], [], []
    lying = 0.0
    area = piece.coatable.value
    covered = 1 - piece.open_cm2 / area if area > 0 else 0.0
    for put in puts:
        note, sticks = "", 1.0
        surfaces.append(surface)
        if put.layer.kind == "rub":
            room = max(0.0, ADHESION_CEILING[surface] - lying)
            weight = put.dial
            if weight > room + 1e-9:
                sticks = room / weight
                note = f"At most {room:.2g} g on 100 cm² more sticks to this {surface} surface."
            lying += weight * sticks
        elif put.layer.kind in ("binder", "paste"):
            assert put.blend is not None
            surface = surface_after(put.blend)
        elif put.layer.kind in BATHS:
            surface, lying = "moist", 0.0
        bath = put.dose_g / piece.open_cm2 if put.layer.kind in BATHS and piece.open_cm2 > 0 else 0.0
        found.append(Dosed(put.layer, sticks, covered, bath))
        notes.append(note)
    return found, surfaces, notes


def _columns(piece: PieceReading) -> tuple[Column | None, Column | None]:
    """Return the column of the piece's middle and that of its thin end; None where nothing of it is open."""
    if piece.open_cm2 < 0.01 * piece.solid.area_cm2:
        return None, None
    solid = piece.solid
    volume, edible = solid.volume_cm3, piece.edible.value
    half = solid.thickness_cm / 2
    # a bird is hollow: its meat is as thick as it has volume under its skin
    middle = column_of(volume, piece.open_cm2, 0.0 if solid.shape == "bird" else half, edible)
    if solid.shape == "bird":
        return middle, middle
    # the thin end is the same shape made smaller, so that it has as much more surface for its weight as it is thinner
    thinner = min(1.0, piece.thin_cm / solid.thickness_cm)
    return middle, Column(round(middle.half_cm * thinner, 4), middle.exponent, middle.density_g_cm3)


def _ends(found: Figure) -> tuple[float, float]:
    """Return how far a figure may lie below and above its value, relative to it."""
    if not found.value or found.low is None or found.high is None:
        return 0.0, 0.0
    return 1 - found.low / found.value, found.high / found.value - 1


def _drip_share(piece: PieceReading) -> float:
    """Return drippings over the water of the raw meat."""
    return (1 - piece.cook_yield) * DRIPS / piece.water_share


def _reach(layers: Sequence[Layer]) -> Figure:
    """Return how far salt has reached over a run of holds [mm]: 2 sqrt(sum of D t)."""
    dt = sum(diffusivity_m2_s(layer.hold_c) * layer.hold_s for layer in layers)
    mm = 2 * math.sqrt(dt) * 1000
    steps = [
        Step("D t", f"{say_duration(sum(layer.hold_s for layer in layers))} of hold", dt * 1e6, "mm²", "diffusivity"),
        Step("Salt has reached", "2 √(D t)", mm, "mm", "crank"),
    ]
    root = math.sqrt(DIFFUSIVITY_BAND[1])
    return figure(steps, "±40 %: diffusivity halved and doubled", low=mm / root, high=mm * root)


def _holding(layers: Sequence[Layer]) -> list[Layer]:
    """Return the layers whose holds count towards depth: those that go on before the fire and are held."""
    return [layer for layer in layers if LAYER_KINDS[layer.kind].when == "before" and LAYER_KINDS[layer.kind].hold_s]


class _Stack:
    """A piece with its stack, dosed: follows it with one diffusivity or another, on the middle or the thin end."""

    def __init__(self, arm: Arm, piece: PieceReading, puts: Sequence[_Put]) -> None:
        self.piece, self.puts = piece, puts
        self.dosed, self.surfaces, self.notes = _dosed(puts, piece, arm.piece.surface)
        self.middle, self.thin_end = _columns(piece)
        self.salt_g = np.array([put.salt_g for put in puts])
        self._ends: dict[float, Moment] = {}
        self._holds: dict[float, Moment] = {}

    def follow(self, faster: float = 1.0, until_s: float | None = None, times: float = 1.0) -> Moment:
        dosed = self.dosed
        if times != 1.0:
            dosed = [replace(d, layer=replace(d.layer, hold_s=d.layer.hold_s * times)) for d in dosed]
        drip = _drip_share(self.piece)
        if until_s is not None or times != 1.0:
            return follow(dosed, self.middle, self.piece.water_share, drip, faster, until_s)
        if faster not in self._ends:
            last = max((n for n, put in enumerate(self.puts) if put.kind.when == "before"), default=-1)
            first = min((n for n, put in enumerate(self.puts) if put.kind.when != "before"), default=len(self.puts))

            def told(at: int, moment: Callable[[], Moment]) -> None:
                # on the way to the end it passes the end of the holds, unless something of the fire came before
                if at == last < first:
                    self._holds[faster] = moment()

            self._ends[faster] = follow(dosed, self.middle, self.piece.water_share, drip, faster, told=told)
        return self._ends[faster]

    def at_hold(self, faster: float, at_s: float, whole_s: float) -> Moment:
        """Return the stack at a time of its holds; at their end without following it once more."""
        self.follow(faster)
        known = self._holds.get(faster)
        return known if at_s == whole_s and known is not None else self.follow(faster, at_s)

    def percent(self, moment: Moment) -> Array:
        """Return what stays of each layer's salt [% of raw edible weight]."""
        stays = np.array([fate.stays for fate in moment.fates])
        found: Array = stays * self.salt_g / self.piece.edible.value * 100
        return found

    def thin_percent(self) -> tuple[float, float]:
        """Return the salt of the thin end by itself, and how much more surface it has for its weight than the whole."""
        if self.thin_end is None or self.middle is None:
            return 0.0, 1.0
        edible = self.piece.edible.value
        # what goes on by surface goes on the thin end too; what goes by weight gives it its share of the weight
        more = edible / self.piece.open_cm2 / self.thin_end.mass_g_cm2
        moment = follow(self.dosed, self.thin_end, self.piece.water_share, _drip_share(self.piece))
        total = 0.0
        for put, fate, salt in zip(self.puts, moment.fates, self.salt_g, strict=True):
            by_weight = put.layer.kind in ("injection", "wrap", "finishing salt", "drippings")
            beside = fate.plate * salt / edible * 100
            on = (fate.meat + fate.surface) * salt / edible * 100
            total += float(beside + on * (1.0 if by_weight else more))
        return total, more

    def curve(self, moment: Moment, depths: Array) -> Array:
        """Return the salt at depths [% of raw edible meat there]."""
        assert self.middle is not None
        per_cm2 = moment.cells @ self.salt_g / self.piece.open_cm2
        found: Array = at_depths(self.middle, per_cm2, depths) * 100
        return found


def _sample(stack: _Stack, arm: Arm, at_s: float | None) -> CoreSample | None:
    """Return the core sample at a time of the hold, at its end when none is given."""
    held = _holding(arm.layers)
    if stack.middle is None or not held:
        return None
    whole = sum(layer.hold_s for layer in held)
    at = whole if at_s is None else min(max(0.0, at_s), whole)
    depths = np.linspace(0, 1, DEPTHS) ** 1.6 * stack.middle.half_cm
    low, mid, high = (stack.at_hold(factor, at, whole) for factor in (DIFFUSIVITY_BAND[0], 1.0, DIFFUSIVITY_BAND[1]))
    curves = [stack.curve(moment, depths) for moment in (low, mid, high)]
    past: list[Layer] = []
    left = at
    for layer in held:
        past.append(replace(layer, hold_s=min(left, layer.hold_s)))
        left -= past[-1].hold_s
    ends = np.array(curves)
    return CoreSample(
        at,
        whole,
        tuple(float(depth) for depth in depths),
        tuple(float(value) for value in curves[1]),
        tuple(float(value) for value in ends.min(axis=0)),
        tuple(float(value) for value in ends.max(axis=0)),
        _reach(past),
        _in_words(stack, arm, whole),
    )


def _in_words(stack: _Stack, arm: Arm, whole_s: float) -> tuple[str, ...]:
    """Say what the hold does, and what twice the time would add."""
    assert stack.middle is not None
    salt = stack.salt_g
    centre = np.array([stack.middle.half_cm])
    near = min(NEAR_CM, stack.middle.half_cm / 2)

    def told(moment: Moment) -> tuple[float, float, float]:
        cells = moment.cells @ salt
        total = float(cells.sum())
        return reach_share(stack.middle, cells, near), float(stack.curve(moment, centre)[0]), total  # type: ignore[arg-type]

    deeper, middle, total = told(stack.at_hold(1.0, whole_s, whole_s))
    if total <= 0:
        return ("Nothing salty is in the meat yet.",)
    again, middle_again, total_again = told(stack.follow(until_s=2 * whole_s, times=2))
    held = _holding(arm.layers)
    mm, mm_again = _reach(held).value, _reach([replace(x, hold_s=2 * x.hold_s) for x in held]).value
    said = say_duration(whole_s)
    words = [
        f"In {said} salt reaches {mm:.1f} mm; {deeper * 100:.0f} % of it lies deeper than {near * 10:.0f} mm, "
        f"and the centre has {middle:.2f} %."
    ]
    more = f", and {(total_again / total - 1) * 100:.0f} % more of it goes in" if total_again > total * 1.02 else ""
    words.append(
        f"Twice the time would reach {mm_again:.1f} mm, put {again * 100:.0f} % deeper than {near * 10:.0f} mm and "
        f"bring the centre to {middle_again:.2f} %{more}."
    )
    if mm < 4:
        words.append(
            "So it seasons the surface. Spices and herbs stay there whatever the time: they do not follow the salt."
        )
    else:
        words.append("Spices and herbs do not follow the salt: they stay in the outer few millimetres.")
    return tuple(words)


def _rest_dose(arm: Arm, stack: _Stack, percents: Array, at: int) -> tuple[float, str]:
    """Return the dial of the layer that takes what is left to the target, and a note when nothing is left."""
    assert arm.target_percent is not None
    others = float(percents.sum() - percents[at])
    one = float(percents[at]) / stack.puts[at].dial
    left = arm.target_percent - others
    if left <= 0:
        return 0.0, (
            f"The other layers already hold {others:.2f} %, more than the {arm.target_percent:g} % wanted: nothing is "
            "left for this one. Raise the target, or let another layer give way."
        )
    if one <= 0:
        raise BadInput(f"layers.{at}.blend", "This layer holds no salt, so it cannot take up the rest of it.")
    kind = stack.puts[at].kind
    dial = left / one
    if dial > kind.high:
        return kind.high, f"Even {kind.high:g} {kind.unit}, the most this takes, falls short of the target."
    return dial, ""


def _stack_of(arm: Arm, spoon_set: SpoonSet, tables: Catalogue | None) -> tuple[_Stack, dict[int, str]]:
    """Read a piece and dose its layers; return the stack, and notes on the layer that takes the rest."""
    piece = read_piece(arm.piece, tables)
    if len(arm.layers) > MOST_LAYERS:
        raise BadInput("layers", f"A stack has at most {MOST_LAYERS} layers.")
    if arm.target_percent is not None and not 0.1 <= arm.target_percent <= 5:
        raise BadInput("target", "A salt target lies between 0.1 and 5 % of raw edible weight; 1.5 is usual.")
    puts = []
    for at, layer in enumerate(arm.layers):
        try:
            if layer.kind == "injection" and piece.solid.shape in ("cubes", "strips") and piece.solid.thickness_cm < 2:
                raise BadInput("kind", "These pieces are too small for a needle; use a bath or a coat.")
            puts.append(_put(layer, piece, arm.piece.mass_g, spoon_set, tables))
        except BadInput as refusal:
            raise refusal.under(f"layers.{at}") from refusal
    rests = [at for at, layer in enumerate(arm.layers) if layer.dose is None]
    notes: dict[int, str] = {}
    if rests:
        at = rests[0]
        if len(rests) > 1:
            raise BadInput(f"layers.{rests[1]}.dose", "Only one layer can take the rest; give this one a dose.")
        if arm.target_percent is None:
            raise BadInput("target", "Set the salt you want in all, so that there is a rest to take.")
        if arm.layers[at].kind in BATHS or arm.layers[at].kind == "drippings":
            raise BadInput(f"layers.{at}.dose", "A bath or drippings cannot take the rest; give it a dose.")
        trial = _Stack(arm, piece, puts)
        dial, notes[at] = _rest_dose(arm, trial, trial.percent(trial.follow()), at)
        puts[at] = replace(
            puts[at], dial=dial, formula=f"the rest to {arm.target_percent:g} %: {dial:.3g} {puts[at].kind.unit}"
        )
    return _Stack(arm, piece, puts), notes


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
    stack, notes = _stack_of(arm, spoon_set, tables)
    piece, puts = stack.piece, stack.puts
    cut = find_cut(arm.piece.cut, tables)
    moment = stack.follow()
    percents = stack.percent(moment)
    band = [stack.percent(stack.follow(factor)) for factor in DIFFUSIVITY_BAND]
    layers: list[LayerReading] = []
    so_far = clock = 0.0
    for at, put in enumerate(puts):
        so_far += float(percents[at])
        spread = [float(values[at]) for values in band]
        note = notes.get(at) or stack.notes[at]
        read = _layer_reading(put, stack, at, moment.fates[at], spread, cut.meat_class, spoon_set)
        rest = None if arm.target_percent is None else arm.target_percent - so_far
        layers.append(replace(read, so_far=so_far, rest=rest, note=note, begins_s=clock))
        if put.kind.when == "before" and put.kind.hold_s:
            clock += put.layer.hold_s
    salt = _total_salt(layers, stack)
    thin_value, more = stack.thin_percent()
    thin = _thin_figure(piece, salt, thin_value, more)
    servings = _servings(piece, arm.portion_g)
    sodium, sugar = _a_serving(puts, moment, servings.value)
    return ArmReading(
        label=arm.label,
        piece=piece,
        cut_up=cutting(arm.piece, tables),
        layers=tuple(layers),
        salt=salt,
        zone=salt_zone(salt.value),
        target=arm.target_percent,
        thin=thin,
        servings=servings,
        sodium=sodium,
        sugar=sugar,
        sample=_sample(stack, arm, at_s) if cored else None,
        cautions=_cautions(arm, layers, puts, stack, cut.animal, salt.value, thin.value, sodium.value),
    )


def _layer_reading(
    put: _Put, stack: _Stack, at: int, fate: Fate, band: Sequence[float], meat_class: str, spoon_set: SpoonSet
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
        blend_ends = (0.0, 0.0)
    else:
        density, salt_percent = blend.density_g_ml, blend.salt.value
        liquid = kind.unit == "ml/kg"
        spread = piece.area_error if kind.by == "area" else {"injection": 0.1}.get(layer.kind, 0.2 if liquid else 0.02)
        steps = [Step(kind.key.capitalize(), put.formula, dose / density if liquid else dose, "ml" if liquid else "g",
                      "trade" if kind.by == "area" else kind.source)]  # fmt: skip
        error = f"±{spread * 100:.0f} %" + {"area": ", as the area"}.get(kind.by, ": a rule of thumb" if liquid else "")
        said = figure(steps, error, spread=spread)
        blend_ends = _ends(blend.salt)
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
    below = math.hypot(area, stays_error, blend_ends[0], max(0.0, -min(moves)))
    above = math.hypot(area, stays_error, blend_ends[1], max(0.0, max(moves)))
    parts = [f"the blend ±{max(blend_ends) * 100:.0f} %"]
    parts += [f"area ±{area * 100:.0f}"] if area else []
    parts += [f"what stays ±{stays_error * 100:.0f}"] if stays_error else []
    parts += ["diffusivity halved and doubled"] if max(map(abs, moves)) > 0.005 else []
    ends = (max(0.0, value * (1 - below)), value * (1 + above))
    salt = figure(working, ", ".join(parts) + "; taken as independent", low=ends[0], high=ends[1])
    bath = layer.kind == "marinade" and blend is not None
    return LayerReading(
        kind=layer.kind,
        dose=said,
        dose_g=dose,
        dial=put.dial,
        spoons=measure_out(round(dose / density, 3), spoon_set),
        spoons_wanted_ml=dose / density,
        salt=salt,
        salt_on_g=put.salt_g,
        fate=fate,
        so_far=0.0,
        rest=None,
        surface=stack.surfaces[at],
        window=hold_window(blend, meat_class) if bath and blend is not None else None,
        reach=_reach([layer]) if kind.hold_s else None,
        hold_s=layer.hold_s if kind.hold_s else 0.0,
    )


def _total_salt(layers: Sequence[LayerReading], stack: _Stack) -> Figure:
    """Return the salt of all layers [% of raw edible weight]: surface errors go together, others are independent."""
    if not layers:
        return figure([Step("Salt", "no layer yet", 0.0, "%")], "nothing is on the meat yet")
    if len(layers) == 1:
        return layers[0].salt
    total = sum(layer.salt.value for layer in layers)
    by_area = stack.piece.area_error * sum(
        layer.salt.value for layer, put in zip(layers, stack.puts, strict=True) if put.kind.by == "area"
    )
    alone = []
    for layer, put in zip(layers, stack.puts, strict=True):
        low = layer.salt.value if layer.salt.low is None else layer.salt.low
        high = layer.salt.value if layer.salt.high is None else layer.salt.high
        common = stack.piece.area_error * layer.salt.value if put.kind.by == "area" else 0.0
        alone.append(
            tuple(
                math.sqrt(max(0.0, side**2 - common**2)) for side in (layer.salt.value - low, high - layer.salt.value)
            )
        )
    low = total - math.hypot(by_area, *(side[0] for side in alone))
    high = total + math.hypot(by_area, *(side[1] for side in alone))
    steps = [Step(f"{layer.kind.capitalize()}, stays", "see the layer", layer.salt.value, "%") for layer in layers]
    steps.append(Step("All layers", " + ".join(f"{layer.salt.value:.2f}" for layer in layers), total, "%"))
    said = "the surface's error is the same for every coat; the others are taken as independent"
    return figure(steps, said, low=max(0.0, low), high=high)


def _thin_figure(piece: PieceReading, salt: Figure, value: float, more: float) -> Figure:
    steps = [
        Step("Thin end", "thickness", piece.thin_cm, "cm", "estimate"),
        Step("Surface for its weight", "over that of the whole piece", more, "×"),
        Step("Salt of the whole piece", "all layers", salt.value, "%"),
        Step("Salt of the thin end", "what goes by surface × that, what goes by weight × 1", value, "%"),
    ]
    below, above = _ends(salt)
    return replace(figure(steps, "as the whole piece, and ±10 % of its thickness"),
                   low=value * (1 - math.hypot(below, 0.1)), high=value * (1 + math.hypot(above, 0.1)))  # fmt: skip


def _servings(piece: PieceReading, portion_g: float) -> Figure:
    cooked = piece.edible.value * piece.cook_yield
    steps = [
        Step("Edible, cooked", f"{piece.edible.value:.0f} g × {piece.cook_yield:.2f} yield", cooked, "g", "estimate"),
        Step("Servings", f"{cooked:.0f} g / {portion_g:.0f} g", cooked / portion_g, "servings"),
    ]
    return figure(steps, "±15 %: yield differs with the cook", spread=0.15)


def _a_serving(puts: Sequence[_Put], moment: Moment, servings: float) -> tuple[Figure, Figure]:
    """Return sodium [mg] and sugar [g] that seasoning puts into a serving."""
    sodium = sugar = 0.0
    for put, fate in zip(puts, moment.fates, strict=True):
        if put.blend is None:
            continue
        leaves = put.blend.leaves
        nacl = sum(share * grind.ingredient.nacl for grind, share in leaves)
        all_sodium = sum(share * grind.ingredient.sodium for grind, share in leaves)
        ratio = all_sodium / nacl if nacl > 0 else SODIUM_IN_NACL
        sodium += put.salt_g * fate.stays * ratio * 1000
        sugar += put.dose_g * put.blend.sugar.value / 100 * fate.stays
    return (
        figure(
            [
                Step("Sodium that stays", "salt and other sodium of all layers", sodium, "mg", "molar"),
                Step("A serving", f"{sodium:.0f} mg / {servings:.1f}", sodium / servings, "mg"),
            ],
            "±25 %; the meat's own, about 65 mg in 100 g, comes to it",
            spread=0.25,
        ),
        figure(
            [
                Step("Sugar that stays", "taken to stay as the layer's salt does", sugar, "g"),
                Step("A serving", f"{sugar:.1f} g / {servings:.1f}", sugar / servings, "g"),
            ],
            "±40 %: sugar diffuses slower than salt, so a bath gives less",
            spread=0.4,
        ),
    )


def _cautions(
    arm: Arm, layers: Sequence[LayerReading], puts: Sequence[_Put], stack: _Stack, animal: str, salt: float,
    thin: float, sodium_mg: float,
) -> tuple[Caution, ...]:  # fmt: skip
    """Return the cautions of all layers and of the whole, each sentence once, most serious first."""
    situations = []
    for read, put, dosed in zip(layers, puts, stack.dosed, strict=True):
        if put.blend is None:
            continue
        before = put.kind.when == "before"
        situations.append(
            Situation(
                flags=put.blend.flags,
                allergens=put.blend.allergens,
                fat_share=put.blend.fat_share,
                has_marinade=put.layer.kind == "marinade",
                injected=put.layer.kind == "injection",
                acid=put.blend.acid.value > 0.05,
                hold_s=read.hold_s if before else 0.0,
                hold_c=put.layer.hold_c if before else 4.0,
                window_high_s=read.window.window.long_high_min * 60 if read.window else None,
                coat_over_ceiling=dosed.sticks < 1,
            )
        )
    warm = sum(layer.hold_s for layer in _holding(arm.layers) if layer.hold_c > 4.0)
    situations.append(
        Situation(
            animal=animal,
            salt_percent=salt,
            thin_percent=thin,
            thin=stack.piece.solid.thickness_cm < THIN_CM,
            warm_s=warm,
            sodium_mg=sodium_mg,
            drippings=any(layer.kind == "drippings" for layer in arm.layers),
        )
    )
    found = {caution.sentence: caution for situation in situations for caution in cautions_for(situation)}
    order = {"stop": 0, "caution": 1, "note": 2}
    return tuple(sorted(found.values(), key=lambda caution: order[caution.level]))


def give_way(arm: Arm, at: int, spoon_set: SpoonSet = SPOON_SETS["us"], tables: Catalogue | None = None) -> Layer:
    """Determine the layer that gives way so that all layers together meet the arm's target.

    A coat, a salt or an injection changes its dose; a bath its hold, within 1 minute and 7 days.

    Raises
    ------
    BadInput
        At ``target`` when no dose or hold of that layer meets it.
    """
    if arm.target_percent is None:
        raise BadInput("target", "Set the salt you want in all first.")
    if not 0 <= at < len(arm.layers):
        raise BadInput("layer", "That layer is not in the stack any more.")
    layer = arm.layers[at]
    target = arm.target_percent

    def total(changed: Layer) -> float:
        layers = tuple(changed if n == at else other for n, other in enumerate(arm.layers))
        stack, _ = _stack_of(replace(arm, layers=layers, target_percent=None), spoon_set, tables)
        return float(stack.percent(stack.follow()).sum())

    if any(other.dose is None for other in arm.layers):
        raise BadInput("target", "A layer takes the rest already, so the total is met; give it a dose first.")
    kind = check_layer(layer)
    if layer.kind == "drippings":
        raise BadInput("layer", "Drippings follow the other layers; let one of those give way.")
    if layer.kind in BATHS:
        low, high = 60.0, 7 * 86_400.0
        least, most = total(replace(layer, hold_s=low)), total(replace(layer, hold_s=high))
        if not min(least, most) <= target <= max(least, most):
            raise BadInput(
                "target", f"Between 1 min and 7 days this bath brings {least:.2f} to {most:.2f} %; {_way_on(at)}"
            )
        for _ in range(30):
            middle = math.sqrt(low * high)
            low, high = (
                (middle, high) if (total(replace(layer, hold_s=middle)) < target) == (least < most) else (low, middle)
            )
        minutes = max(1, round(high / 60))
        return replace(layer, hold_s=float(minutes * 60 if minutes < 240 else round(minutes / 15) * 15 * 60))
    floor = total(replace(layer, dose=kind.low))
    top = total(replace(layer, dose=kind.high))
    if target < floor - 1e-6:
        raise BadInput("target", f"The other layers already hold {floor:.2f} %, more than {target:g}; {_way_on(at)}")
    if target > top + 1e-6:
        raise BadInput("target", f"Even the heaviest dose of this layer brings only {top:.2f} %; {_way_on(at)}")
    low, high = kind.low, kind.high
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if total(replace(layer, dose=middle)) < target else (low, middle)
    return replace(layer, dose=float(f"{high:.3g}"))


def _way_on(at: int) -> str:
    return "choose another layer to give way, or another target."


def salt_to_even(a: ArmReading, b: ArmReading) -> tuple[str, float]:
    """Determine which of two arms holds less salt and how much to add to it [% of its raw edible weight]."""
    return (a.label if a.salt.value < b.salt.value else b.label), abs(a.salt.value - b.salt.value)


def batch_for_dose_g(dose_g: float) -> float:
    """Return the batch [g] that covers a dose: up to the next gram, as a kitchen scale reads."""
    return float(math.ceil(round(dose_g, 3)))


@dataclass(frozen=True)
class ToMix:
    """What all pieces take of one blend [g], what jars of it hold, what is to be mixed, and what is left over then."""

    takes: Figure
    mix_g: float
    left_g: float


def to_mix(doses_g: Sequence[float], shelf_g: float, in_and_out: float = 1.0) -> ToMix:
    """Determine what to mix of a blend for doses [g], with `shelf_g` in clean jars already.

    `in_and_out` is what goes into the bowl over what comes out of its method.
    """
    total = sum(doses_g)
    steps = [
        Step("All pieces", " + ".join(f"{dose:.1f}" for dose in doses_g), total, "g"),
        Step("On the shelf", "in clean jars", -shelf_g, "g"),
        Step("Still to mix", "what is missing", max(0.0, total - shelf_g), "g"),
    ]
    missing = max(0.0, total - shelf_g) * in_and_out
    mixed = batch_for_dose_g(missing) if missing > 0.05 else 0.0
    return ToMix(
        replace(figure(steps, "as the doses it adds up"), value=total), mixed, shelf_g + mixed / in_and_out - total
    )
