"""The steps a piece goes through, from mixing to the plate, how long each takes, and who mixes what."""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.coat.layers import LATER, LAYER_KINDS, Layer

MIX_S, WIPE_S, BIND_S = 15 * 60.0, 10 * 60.0, 5 * 60.0
"""Default lengths of the short steps [s] (common practice)."""

GLAZE_S = 20 * 60.0
"""How long before it comes off a piece is glazed, so that the sugar sets and does not burn [s] (common practice)."""

STEP_NAMES = MappingProxyType(
    {
        "mix": "Mix",
        "aside": "Set some aside for later",
        "inject": "Inject and hold",
        "bind": "Brush the binder on",
        "coat": "Coat and hold",
        "bag": "Bag and hold",
        "wipe": "Wipe",
        "salt": "Salt and hold",
        "on": "On the fire",
        "pot": "Into the liquid",
        "again": "Inject again",
        "spritz": "Spritz",
        "baste": "Baste",
        "wrap": "Wrap",
        "glaze": "Glaze",
        "catch": "Take the drippings",
        "rest": "Rest",
        "stir": "Stir it in",
        "finish": "Finish at the board",
        "dress": "Dress it at the board",
        "plate": "Plate",
        "pass": "Pass it at the table",
    }
)

STEP_KINDS = tuple(STEP_NAMES)

ON_THE_FIRE = ("pot", "again", "spritz", "baste", "wrap", "glaze", "catch")
"""Steps within the time on the fire: each lasts until the piece comes off."""

SET_BY_THEMSELVES = ("on", "rest", *(kind for kind in ON_THE_FIRE if kind not in ("pot", "catch")))
"""Steps whose length a cook sets by itself; the others last as their hold does, or no time."""

_FIRE_LEFT = MappingProxyType({"spritz": 2 / 3, "baste": 2 / 3, "again": 1 / 2, "wrap": 1 / 3})
"""Share of the time on the fire that is left when a step begins (common practice, no source)."""


@dataclass(frozen=True)
class Planned:
    """A step of a piece: what it is, how long it lasts [s], and the place of its layer.

    It lasts until the next one; one of `ON_THE_FIRE` until the piece comes off.
    """

    kind: str
    lasts_s: float
    layer: int | None = None


def before_off_s(layer: Layer, fire_s: float) -> float:
    """Return how long before the piece comes off a layer of the fire goes on [s]."""
    kind = LAYER_KINDS[layer.kind].step
    if kind == "pot":
        return min(layer.hold_s, fire_s)
    if kind == "glaze":
        return min(GLAZE_S, fire_s / 4)
    return fire_s * _FIRE_LEFT.get(kind, 0.0)


def for_later(uses: Sequence[tuple[Hashable, str]]) -> tuple[int, ...]:
    """Return the places of what is for later of something that touches raw meat, and is set aside before it does.

    Parameters
    ----------
    uses : sequence of (hashable, str)
        Of what each layer is, and its kind.
    """
    raw = {what for what, kind in uses if LAYER_KINDS[kind].when == "before"}
    return tuple(at for at, (what, kind) in enumerate(uses) if kind in LATER and what in raw)


def set_aside(layers: Sequence[Layer]) -> bool:
    """Tell whether something is set aside before this raw meat is touched: for later, or out of a bath for a sauce."""
    later = for_later([(layer.blend, layer.kind) for layer in layers])
    return bool(later) or any(layer.reserve is not None for layer in layers if layer.kind == "marinade")


def usual_steps(layers: Sequence[Layer], fire_s: float, rest_s: float) -> tuple[Planned, ...]:
    """Return the steps a piece usually goes through, in order: mix, every layer where it belongs, the fire, the rest.

    Parameters
    ----------
    fire_s, rest_s : float
        Time on the fire and rest [s].
    """
    mixed = any(layer.blend is not None and len(layer.blend.lines) > 1 for layer in layers)
    steps = [Planned("mix", MIX_S)] if mixed else []
    if set_aside(layers):
        steps.append(Planned("aside", 0.0))
    during, after = [], []
    for at, layer in enumerate(layers):
        kind = LAYER_KINDS[layer.kind]
        if layer.kind == "cooking liquid" and layer.into_pot:
            continue  # it is poured or stirred into the next one, which has its step
        if kind.when == "during":
            during.append(Planned(kind.step, before_off_s(layer, fire_s), at))
        elif kind.when == "after":
            after.append(Planned(kind.step, 0.0, at))
        else:
            steps.append(Planned(kind.step, BIND_S if kind.hold_s is None else layer.hold_s, at))
            if layer.kind == "marinade" and layer.after != "as it is":
                steps.append(Planned("wipe", WIPE_S))
    during.sort(key=lambda step: -step.lasts_s)
    carved = [step for step in after if step.kind != "pass"]
    passed = [step for step in after if step.kind == "pass"]
    served = (*carved, Planned("plate", 0.0), *passed)
    return (*steps, Planned("on", fire_s), *during, Planned("rest", rest_s), *served)


@dataclass(frozen=True)
class Wanted:
    """A blend that a layer of a piece takes, and whether it was mixed; `place` is the piece's, on the board."""

    place: int
    layer: int
    blend: Hashable
    mixed: bool


def mixed_once(
    wanted: Sequence[Wanted], begins: Sequence[float | None], done: Sequence[bool]
) -> tuple[tuple[Wanted, ...], ...]:
    """Determine which piece's mixing takes in what, so that a blend that several pieces take is mixed once.

    The mixing that begins first takes all of a blend in; what was mixed goes with a mixing that is done, and what was
    put on the board after that with one that is not.

    Parameters
    ----------
    begins : sequence of float or None
        When the mixing of each piece begins [s, on any clock], none where nothing is mixed.
    done : sequence of bool
        Whether the mixing of each piece is done.
    """
    found: list[list[Wanted]] = [[] for _ in begins]
    first: dict[tuple[Hashable, bool], int] = {}
    for one in wanted:
        at = begins[one.place]
        if at is None or one.mixed is not done[one.place]:
            continue
        before = first.get((one.blend, one.mixed))
        if before is None or at < (begins[before] or 0.0):
            first[one.blend, one.mixed] = one.place
    for one in wanted:
        at_place = first.get((one.blend, one.mixed), one.place)
        found[at_place].append(one)
    return tuple(map(tuple, found))
