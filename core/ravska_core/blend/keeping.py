"""How long a blend keeps, and where."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ravska_core.catalogue import Grind
from ravska_core.working import Figure, Step, figure


@dataclass(frozen=True)
class Keeping:
    """How long a blend keeps at its best [days], where, what limits it, and the working."""

    days: float
    place: str
    because: str
    figure: Figure


def keeping(leaves: Sequence[tuple[Grind, float]], values: Mapping[str, float]) -> Keeping:
    """Determine how long a blend keeps at its best.

    Dry blends keep as long as their shortest-lived line. Wet ones belong in the cold: raw allium or fresh herb
    under oil four days (usual guidance), otherwise their shortest-lived line, at most 5 days, or 30 where 2 % acid,
    10 % salt or 60 % sugar hold spoilage back (common practice, no source).

    Parameters
    ----------
    values : mapping
        The blend's qualities by key, in the units of `QUALITIES`.
    """
    shortest, days = min(((g, g.ingredient.keeps_days) for g, share in leaves if share > 1e-6), key=lambda x: x[1])
    name = shortest.ingredient.name.lower()
    flags = {flag for grind, _ in leaves for flag in grind.ingredient.flags}
    first = Step(f"{shortest.ingredient.name} keeps", "the shortest-lived of its lines", days, "days", "keeping")

    def found(most: float, place: str, because: str, source: str, rule: str = "") -> Keeping:
        steps = [first]
        if rule:
            steps.append(Step("At most", rule, most, "days", source))
        kept = min(most, days)
        steps.append(Step("Keeps", "the shorter of these" if rule else "as long as that", kept, "days"))
        return Keeping(kept, place, because, figure(steps, "±30 %: at its best, not for ever", spread=0.3))

    cold = "at 4 °C or below"
    if flags & {"raw_allium", "fresh_herb"} and values["fat"] > 20:
        return found(
            4.0, cold, "raw garlic, onion or herbs lie in oil", "guidance", "raw garlic, onion or herbs in oil"
        )
    if values["water"] <= 15:
        if days <= 30:
            return found(days, cold, f"{name} is moist", "keeping")
        return found(days, "airtight, dark and dry", f"{name} fades first", "keeping")
    held = values["sour"] >= 2 or values["salt"] >= 10 or values["sugar"] >= 60
    because = "its acid, salt or sugar holds spoilage back" if held else "it is wet and little holds spoilage back"
    most = 30.0 if held else 5.0
    rule = "wet, with 2 % acid, 10 % salt or 60 % sugar" if held else "wet, with little acid, salt or sugar"
    return found(most, cold, f"{name} goes first" if days < most else because, "trade", rule)
