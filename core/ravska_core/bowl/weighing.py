"""Weigh-out: one ingredient at a time, what an overshoot asks for, and what a batch holds as it was really weighed."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ravska_core.blend import Blend, Part, exact_parts, order_of, parts_of, salt_percent
from ravska_core.measure import HIGHEST_PARTS, LOWEST_PARTS
from ravska_core.working import BadInput, Figure, Step, figure, in_range

CLOSE = 0.02
"""How near a weighed line must come to what was wanted to pass as met (common practice)."""

RESCUES = ("scale up", "accept", "spoon out")


def weigh_order(blend: Blend) -> list[int]:
    """Determine the order a blend is weighed in: as its method puts it in; without one, dry first and oil last."""
    if any(step.do == "mix" and step.of for step in blend.method):
        return order_of(blend.method, len(blend.lines))
    parts = parts_of(blend.lines)
    return sorted(range(len(blend.lines)), key=lambda at: (_wetness(parts[at]), at))


def _wetness(part: Part) -> int:
    water = sum(share * grind.ingredient.water for grind, share in part.leaves) - part.gone
    fat = sum(share * grind.ingredient.fat for grind, share in part.leaves)
    return 2 if fat > 0.5 else 1 if water > 0.15 else 0


Stand = Literal["under", "met", "over"]


def tolerance_g(wanted_g: float, resolution_g: float = 0.1) -> float:
    """Return how far a line may be off and still pass [g]: 2 % of it, and no less than one step of the scale."""
    return max(CLOSE * wanted_g, resolution_g)


def allowed_g(wanted_g: float, resolution_g: float = 0.1) -> tuple[float, float]:
    """Return the least and the most of a line that pass [g]."""
    allowed = tolerance_g(wanted_g, resolution_g)
    return max(0.0, wanted_g - allowed), wanted_g + allowed


def stand(wanted_g: float, weighed_g: float, resolution_g: float = 0.1) -> Stand:
    """Return where a line stands: "under", "met" or "over"."""
    allowed = tolerance_g(wanted_g, resolution_g)
    if weighed_g > wanted_g + allowed + 1e-9:
        return "over"
    return "under" if weighed_g < wanted_g - allowed - 1e-9 else "met"


def as_weighed(blend: Blend, masses_g: Sequence[float], whole: bool = True) -> Blend:
    """Return a blend with the masses that were really weighed [g]; what was not weighed is left out.

    Its method is only followed once the `whole` of it is in the bowl.

    Raises
    ------
    BadInput
        At ``weighed`` when nothing was weighed at all.
    """
    # a line may have more grams than parts are written with
    unit_g = 1.0 if max(masses_g, default=0.0) <= HIGHEST_PARTS else 10.0
    kept = [at for at, mass in enumerate(masses_g) if mass >= float(LOWEST_PARTS) * unit_g]
    if not kept:
        raise BadInput("weighed", "Nothing is in the bowl yet; weigh a first ingredient.")
    lines = tuple(
        replace(blend.lines[at], parts=exact_parts(masses_g[at] / unit_g, at), basis="scale", error=0.0, lock="")
        for at in kept
    )
    places = {at: place for place, at in enumerate(kept)}
    method = tuple(
        replace(step, of=tuple(places[at] for at in step.of if at in places))
        for step in blend.method
        if not step.of or any(at in places for at in step.of)
    )
    return replace(
        blend, lines=lines, batch_g=sum(masses_g[at] for at in kept), method=method if whole else (), label=None
    )


@dataclass(frozen=True)
class Addition:
    """What to add to one line [g], over what lies in the bowl of it already."""

    line: int
    name: str
    grams: float


@dataclass(frozen=True)
class Rescue:
    """One way out of an overshoot: what to add or take out, the batch that makes [g], its salt before and after [%]."""

    id: str
    says: str
    adds: tuple[Addition, ...]
    takes_g: float
    wanted_g: tuple[float, ...]
    batch_g: float
    salt_before: float
    salt_after: float
    figure: Figure


def _salt(blend: Blend, masses_g: Sequence[float]) -> float:
    return salt_percent(as_weighed(blend, masses_g).lines)


def rescues(
    blend: Blend,
    wanted_g: Sequence[float],
    poured_g: Sequence[float],
    at: int,
) -> tuple[Rescue, ...]:
    """Determine the three ways out when a line was poured beyond what was wanted; nothing else can be taken out.

    Scaling up by k = poured / wanted keeps every ratio: each line already poured gets k times what it should have less
    what it has. Accepting leaves the rest as it was. Spooning out takes the excess off while it still lies on top.

    Parameters
    ----------
    wanted_g, poured_g : sequence
        For every line what the batch wants and what lies in the bowl so far [g].
    at : int
        The line that was overshot.

    Raises
    ------
    BadInput
        At ``weighed`` when the line is not over, or a batch would get too large.
    """
    excess = poured_g[at] - wanted_g[at]
    if excess <= 0:
        raise BadInput("weighed", "This line is not over what was wanted, so nothing has to be put right.")
    names = [part.name for part in parts_of(blend.lines)]
    factor = poured_g[at] / wanted_g[at]
    scaled = tuple(mass * factor for mass in wanted_g)
    in_range("weighed", sum(scaled), 0, 50_000, "Scaled up this would be more than 50 kg; spoon it out instead.")
    salt = _salt(blend, wanted_g)
    adds = tuple(
        Addition(line, names[line], scaled[line] - poured)
        for line, poured in enumerate(poured_g)
        if line != at and poured > 0 and scaled[line] - poured > 0
    )
    accepted = tuple(max(wanted, poured_g[line]) if line == at else wanted for line, wanted in enumerate(wanted_g))
    accepted_salt = _salt(blend, accepted)
    over = Step("Over by", f"{poured_g[at]:.1f} g weighed − {wanted_g[at]:.1f} g wanted", excess, "g")

    def found(id_: str, says: str, wanted: tuple[float, ...], after: float, *steps: Step) -> Rescue:
        more = adds if id_ == "scale up" else ()
        last = Step("Salt then", "sum of share × salt of every line", after, "%")
        worked = figure([over, *steps, last], "as exact as the scale", spread=0.02)
        takes = excess if id_ == "spoon out" else 0.0
        return Rescue(id_, says, more, takes, wanted, sum(wanted), salt, after, worked)

    listed = ", ".join(f"{a.grams:.1f} g {a.name}" for a in adds) or "nothing to what is poured so far"
    total, before = sum(scaled), sum(wanted_g)
    return (
        found(
            "scale up",
            f"Make {total:.0f} g instead of {before:.0f} g: add {listed}; the rest is weighed larger.",
            scaled,
            salt,
            Step("Scale up by", f"{poured_g[at]:.1f} / {wanted_g[at]:.1f}", factor, "times"),
            Step("Batch then", f"{before:.1f} g × {factor:.3f}", total, "g"),
        ),
        found(
            "accept",
            f"Leave it: the blend then holds {accepted_salt:.1f} % salt, not {salt:.1f} %.",
            accepted,
            accepted_salt,
            Step("Batch then", "the others as they were", sum(accepted), "g"),
        ),
        found(
            "spoon out",
            f"Take {excess:.1f} g of it out while it still lies on top.",
            tuple(wanted_g),
            salt,
        ),
    )
