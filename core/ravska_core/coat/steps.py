"""The steps a piece goes through, from mixing to the plate, and how long each takes."""

from collections.abc import Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.coat.layers import LAYER_KINDS, Layer

MIX_S, WIPE_S = 15 * 60.0, 10 * 60.0
"""Default lengths of the short steps [s] (common practice)."""

STEP_NAMES = MappingProxyType(
    {
        "mix": "Mix",
        "inject": "Inject and hold",
        "coat": "Coat and hold",
        "bag": "Bag and hold",
        "wipe": "Wipe",
        "salt": "Salt and hold",
        "on": "On the fire",
        "rest": "Rest",
        "plate": "Plate",
    }
)

STEP_KINDS = tuple(STEP_NAMES)


@dataclass(frozen=True)
class Planned:
    """A step of a piece: what it is, how long it lasts until the next one [s], and the place of its layer."""

    kind: str
    lasts_s: float
    layer: int | None = None


def usual_steps(layers: Sequence[Layer], fire_s: float, rest_s: float) -> tuple[Planned, ...]:
    """Return the steps a piece usually goes through, in order: mix, each layer that is held, the fire, the rest.

    Parameters
    ----------
    fire_s, rest_s : float
        Time on the fire and rest [s].
    """
    mixed = any(layer.blend is not None and len(layer.blend.lines) > 1 for layer in layers)
    steps = [Planned("mix", MIX_S)] if mixed else []
    for at, layer in enumerate(layers):
        kind = LAYER_KINDS[layer.kind]
        if kind.when == "before" and kind.hold_s is not None:
            steps.append(Planned(kind.step, layer.hold_s, at))
            if layer.kind == "marinade" and layer.after != "as it is":
                steps.append(Planned("wipe", WIPE_S))
    return (*steps, Planned("on", fire_s), Planned("rest", rest_s), Planned("plate", 0.0))
