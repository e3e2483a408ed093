"""A seasoned piece on its way to the fire: how wet it goes there, and what of its coat can turn bitter."""

from collections.abc import Sequence

from ravska_core.coat import Seasoned, Stack, dose_stack, surface_at_fire
from ravska_core.heat.cookers import Cooker, kitchen
from ravska_core.heat.heated import Heated
from ravska_core.heat.phases import Phase
from ravska_core.heat.scorch import Coated
from ravska_core.measure import SPOON_SETS
from ravska_core.meat import find_cut

_OUTSIDE = frozenset({"rub", "paste", "glaze", "binder"})
"""Layers that lie on the surface while it is at the heat."""

_KG_M2_PER_G_100CM2 = 0.1


def heated(seasoned: Seasoned, phases: Sequence[Phase], cookers: Sequence[Cooker]) -> Heated:
    """Return a seasoned piece with its phases as heat is reckoned from it in the household's kitchen.

    Raises
    ------
    BadInput
        As the coat of the piece is refused.
    """
    stack, _ = dose_stack(seasoned, SPOON_SETS["us"])
    wet = surface_at_fire(stack).water.value * _KG_M2_PER_G_100CM2
    return Heated(
        seasoned.piece, find_cut(seasoned.piece.cut), stack.piece, tuple(phases), tuple(cookers), wet, _coat(stack),
        kitchen().height_m,
    )  # fmt: skip


def _coat(stack: Stack) -> tuple[Coated, ...]:
    """Return the ingredients of what lies on the surface that can turn bitter, with their shares of all of it."""
    on = [
        (put.blend, put.dose_g * dosed.sticks) for put, dosed in zip(stack.puts, stack.dosed, strict=True)
        if put.blend is not None and put.layer.kind in _OUTSIDE
    ]  # fmt: skip
    whole = sum(grams for _, grams in on)
    found: dict[str, Coated] = {}
    for blend, grams in on:
        batch = sum(mass for _, mass in blend.leaves)
        for grind, mass in blend.leaves:
            one = grind.ingredient
            if one.scorch_c is None or not batch or not whole:
                continue
            share = mass / batch * grams / whole
            before = found.get(grind.key)
            found[grind.key] = Coated(
                one.name, one.scorch_c, share + (before.share if before else 0.0), grind.grain_mm
            )  # fmt: skip
    return tuple(found.values())
