"""Layers: what may be put on or into a piece, in which unit it is dosed, and what of it usually stays."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from types import MappingProxyType

from ravska_core.blend import Blend, Line
from ravska_core.coat.bath_weighed import BathWeighed
from ravska_core.coat.injection import Injection
from ravska_core.coat.portions import Portion
from ravska_core.measure import Amount
from ravska_core.meat import RAW_PLACES, check_place, place_of
from ravska_core.working import BadInput


@dataclass(frozen=True)
class LayerKind:
    """A kind of layer: the blend it takes, its dose setting with unit, usual value and limits, and what of it stays.

    `by` says what the dose is counted on: ``area``, ``edible`` raw weight, ``raw`` weight, ``sliced`` weight or each
    ``serving``.
    `stays` is the share of its salt that is eaten in the end [0 to 1], None where diffusion decides. `when` it goes
    on: before the fire, during the cook, or at the board. `hold_s` is its usual hold [s], None where it has none;
    `plain` the families of ingredients that do for it without anything mixed.
    """

    key: str
    says: str
    blend_kind: str
    unit: str
    by: str
    usual: float
    low: float
    high: float
    stays: float | None
    stays_says: str
    when: str
    hold_s: float | None
    step: str
    source: str
    plain: tuple[str, ...] = ()


_HOUR = 3600.0

_WET = ("liquid", "paste", "fat", "dairy", "savoury", "fresh")
_DRY = ("spice", "herb", "savoury", "salt", "sugar")

_KINDS = (
    LayerKind("pre-salt", "Salt ahead, by weight", "dry rub", "% of edible weight", "edible", 0.7, 0.01, 5, 1.0,
              "all of it stays", "before", 16 * _HOUR, "salt", "trade", ("salt",)),
    LayerKind("injection", "Injected into the meat", "injection", "% pump", "raw", 10, 0.5, 30, 0.85,
              "the rest runs out again", "before", 1 * _HOUR, "inject", "estimate", ("liquid",)),
    LayerKind("marinade", "A bath", "marinade", "ml/kg", "raw", 250, 50, 3000, None,
              "what diffuses in, and what clings", "before", 2 * _HOUR, "bag", "crank", ("dairy", "liquid")),
    LayerKind("binder", "What the rub sticks to", "binder", "g/100 cm²", "area", 1.5, 0.1, 60, 1.0,
              "all of it stays", "before", None, "bind", "estimate", ("fat", "paste", "liquid")),
    LayerKind("rub", "A dry coat", "dry rub", "g/100 cm²", "area", 5, 0.2, 40, 0.9,
              "a tenth falls off", "before", 2 * _HOUR, "coat", "estimate", _DRY),
    LayerKind("paste", "Rub in oil, butter or mustard", "paste", "g/100 cm²", "area", 10, 0.5, 120, 0.9,
              "a tenth falls off", "before", 2 * _HOUR, "coat", "estimate", ("paste", "fat")),
    LayerKind("second injection", "Injected again while it cooks", "injection", "% pump", "raw", 3, 0.5, 15, 0.7,
              "the rest runs out: hot meat holds less", "during", None, "again", "estimate"),
    LayerKind("spritz", "Sprayed on while it cooks", "spritz", "g/100 cm² each time", "area", 0.5, 0.05, 5, 0.5,
              "half runs off", "during", None, "spritz", "estimate", ("liquid",)),
    LayerKind("baste", "Brushed on while it cooks", "marinade", "g/100 cm² each time", "area", 1.5, 0.1, 30, 0.5,
              "half runs off", "during", None, "baste", "estimate", ("fat", "liquid")),
    LayerKind("wrap", "Butter or sauce in the wrap", "glaze", "g/kg", "raw", 40, 1, 500, 0.3,
              "the share of it that is eaten", "during", None, "wrap", "estimate", ("fat", "liquid", "sugar")),
    LayerKind("cooking liquid", "Braised or steamed in it", "cooking liquid", "ml/kg", "raw", 300, 10, 5000, None,
              "what diffuses, and the share that is eaten", "during", 2 * _HOUR, "pot", "crank", ("liquid", "dairy")),
    LayerKind("drippings", "Caught, for a sauce", "", "% of them eaten", "none", 50, 1, 100, None,
              "what drips out, less what is not eaten", "during", None, "catch", "estimate"),
    LayerKind("glaze", "Brushed on near the end", "glaze", "g/100 cm²", "area", 4, 0.2, 60, 1.0,
              "all of it stays", "during", None, "glaze", "estimate", ("sugar", "paste")),
    LayerKind("finishing salt", "At the board", "finishing salt", "g/kg sliced", "sliced", 3, 0.1, 30, 1.0,
              "all of it stays", "after", None, "finish", "trade", ("salt",)),
    LayerKind("stirred in", "A sauce or juices through pulled or sliced meat", "glaze", "g/kg sliced", "sliced",
              80, 1, 600, 1.0, "all of it is eaten", "after", None, "stir", "estimate", _WET),
    LayerKind("at the board", "A glaze, sauce, butter or relish on what is carved", "glaze", "g a serving", "serving",
              25, 1, 300, 1.0, "all of it is eaten", "after", None, "dress", "estimate", _WET),
    LayerKind("at the table", "A sauce or relish that is passed", "glaze", "g a serving", "serving", 30, 1, 300, 1.0,
              "all that is taken is eaten", "after", None, "pass", "estimate", _WET),
)  # fmt: skip

LAYER_KINDS = MappingProxyType({kind.key: kind for kind in _KINDS})
"""Kinds of layer, in the order they usually go on (doses and shares: common practice or estimates)."""

BESIDE = ("stirred in", "at the board", "at the table")
"""What is eaten with the meat and never on the fire: counted in salt and sodium."""

LATER = ("glaze", "wrap", "finishing salt", *BESIDE)
"""What goes on cooked meat, or is eaten beside it: kept away from what touches raw meat."""

LAYER_OF_BLEND = MappingProxyType(
    {
        kind.blend_kind: kind.key
        for kind in reversed(_KINDS)
        if kind.blend_kind and kind.key not in ("pre-salt", "baste", "wrap", *BESIDE)
    }
)
"""What a blend of a kind usually becomes on a piece."""

BATHS = ("marinade", "cooking liquid")

COATS = ("binder", "paste", "rub", "baste")
"""What lies on the surface, so that fat in it melts off."""

INJECTIONS = ("injection", "second injection")

EACH_TIME = ("spritz", "baste")

AFTER_BATH = MappingProxyType({"wiped": "wiped off", "rinsed": "rinsed", "as it is": "lifted out and left as it is"})
"""What is done with a piece that comes out of its bath."""

LIQUID_FATES = MappingProxyType({"drained": 0.0, "gravy": 0.5, "eaten": 1.0})
"""What becomes of a cooking liquid, and the share of it that is then eaten (estimates)."""

MOST_LAYERS = 12


def place_for(kind: str, among: Sequence[str]) -> int:
    """Return where a new layer usually goes: after the last one that goes on no later than it."""
    order = list(LAYER_KINDS)
    earlier = [at for at, other in enumerate(among) if order.index(other) <= order.index(kind)]
    return earlier[-1] + 1 if earlier else 0


@dataclass(frozen=True)
class Layer:
    """One thing put on or into a piece.

    `dose` is in the unit of its kind; None stands for the rest up to the piece's target, unless a `portion` says how
    much. It is held `hold_s` [s] at `hold_c` [C] before the next one. `stays` is the share of its salt that stays where
    that is known better than usual; `after` what is done after a bath; `eaten` the share of a liquid that is eaten;
    `times` how often it is put on. `reserve` of a bath is set aside before the meat goes in, and what is left of it may
    go `into_pot`, the next cooking liquid; a cooking liquid of nothing but that has no blend, and one that goes
    `into_pot` itself is poured or stirred into the next. `injection` says how one is injected, `weighed` what was
    weighed of a bath. `place` is where it is held, "" where only the temperature is known.
    """

    kind: str
    blend: Blend | None
    dose: float | None
    hold_s: float = 0.0
    hold_c: float = 4.0
    stays: float | None = None
    after: str = "wiped"
    eaten: float | None = None
    times: int = 1
    reserve: Amount | None = None
    injection: Injection = field(default_factory=Injection)
    place: str = ""
    into_pot: bool = False
    portion: Portion | None = None
    weighed: BathWeighed | None = None

    @property
    def takes_rest(self) -> bool:
        """Whether it takes the rest up to the piece's target."""
        return self.dose is None and self.portion is None and not self.of_the_bath

    @property
    def of_the_bath(self) -> bool:
        """Whether it is a cooking liquid of nothing but what is left of a bath."""
        return self.kind == "cooking liquid" and self.blend is None

    @property
    def held_in(self) -> str:
        """The place it is held in, as named or by its temperature."""
        if self.kind == "cooking liquid":
            return "pot"
        return self.place or place_of(self.hold_c)


def plain(grind: str) -> Blend:
    """Return a grind by itself as a blend, as a salt, an oil or a mustard goes on without anything mixed."""
    return Blend("dry rub", (Line(grind, Fraction(1), "scale"),), 100.0)


def limits_words(kind: LayerKind) -> str:
    """Say between which settings a kind of layer is dosed."""
    return f"between {kind.low:g} and {kind.high:g} {kind.unit}; {kind.usual:g} is usual."


def check_layer(layer: Layer) -> LayerKind:
    """Return a layer's kind, or refuse what it cannot be, at its field.

    Raises
    ------
    BadInput
        At ``kind``, ``dose``, ``hold``, ``place``, ``hold_c``, ``stays``, ``after``, ``eaten`` or ``times``.
    """
    kind = LAYER_KINDS.get(layer.kind)
    if kind is None:
        raise BadInput("kind", f"A layer is one of {', '.join(LAYER_KINDS)}.")
    if layer.dose is not None and not kind.low <= layer.dose <= kind.high:
        raise BadInput("dose", f"{kind.key.capitalize()} is dosed {limits_words(kind)}")
    if layer.portion is not None and kind.by == "none":
        raise BadInput("dose", "Say how much of them is eaten, in %.")
    if layer.blend is None and kind.blend_kind and not layer.of_the_bath:
        raise BadInput("blend", "Choose what goes on here.")
    if kind.hold_s is not None:
        straight_on = layer.hold_s == 0 and kind.when == "before" and layer.kind not in BATHS
        if not (straight_on or 60 <= layer.hold_s <= 7 * 86_400):
            none = "" if layer.kind in BATHS or kind.when != "before" else ", or it is none and goes straight on"
            raise BadInput("hold_s", f"A hold lies between 1 minute and 7 days{none}.")
        check_place(layer.held_in, layer.hold_c, RAW_PLACES if kind.when == "before" else ("pot",))
    if layer.stays is not None and not 0 <= layer.stays <= 1:
        raise BadInput("stays", "Between 0 and 100 % of it stays.")
    if layer.eaten is not None and not 0 <= layer.eaten <= 1:
        raise BadInput("eaten", "Between 0 and 100 % of it is eaten.")
    if layer.kind in BATHS and layer.after not in AFTER_BATH:
        raise BadInput("after", f"After a bath it is {', '.join(AFTER_BATH.values())}.")
    if not 1 <= layer.times <= 40:
        raise BadInput("times", "Between once and 40 times.")
    return kind
