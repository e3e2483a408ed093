"""Salt wanted in all: the layer that gives way for it, so that all of them meet it."""

import math
from collections.abc import Sequence
from dataclasses import replace

from ravska_core.catalogue import Catalogue
from ravska_core.layers import BATHS, Layer, check_layer
from ravska_core.spoons import SPOON_SETS, SpoonSet
from ravska_core.stack import Arm, dose_stack
from ravska_core.working import BadInput

WAY_ON = "choose another layer to give way, or another target."


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
        stack, _ = dose_stack(replace(arm, layers=layers, target_percent=None), spoon_set, tables)
        return float(stack.percent(stack.follow()).sum())

    if any(other.dose is None for other in arm.layers):
        raise BadInput("target", "A layer takes the rest already, so the total is met; give it a dose first.")
    kind = check_layer(layer)
    if layer.injection.after_g is not None:
        raise BadInput("layer", "This injection is in and was weighed; let another layer give way.")
    if layer.kind == "drippings":
        raise BadInput("layer", "Drippings follow the other layers; let one of those give way.")
    if layer.kind in BATHS:
        low, high = 60.0, 7 * 86_400.0
        least, most = total(replace(layer, hold_s=low)), total(replace(layer, hold_s=high))
        if not min(least, most) <= target <= max(least, most):
            raise BadInput("target", f"Between 1 min and 7 days this bath brings {least:.2f} to {most:.2f} %; {WAY_ON}")
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
        raise BadInput("target", f"The other layers already hold {floor:.2f} %, more than {target:g}; {WAY_ON}")
    if target > top + 1e-6:
        raise BadInput("target", f"Even the heaviest dose of this layer brings only {top:.2f} %; {WAY_ON}")
    low, high = kind.low, kind.high
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if total(replace(layer, dose=middle)) < target else (low, middle)
    return replace(layer, dose=float(f"{high:.3g}"))


def usually_gives(layers: Sequence[Layer]) -> int | None:
    """Return the place of the layer that usually gives way: the last salt or coat dosed by the cook, else the last."""
    open_to = [at for at, layer in enumerate(layers) if layer.kind != "drippings"]
    coats = [at for at in open_to if layers[at].kind in ("pre-salt", "rub", "paste", "finishing salt")]
    known = coats or open_to
    return known[-1] if known else None
