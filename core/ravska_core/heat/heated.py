"""A piece on its way through phases: its body, its legs, and what is left of it at their end."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ravska_core.catalogue import Cut
from ravska_core.cautions import COLD_C
from ravska_core.heat.cookers import Cooker
from ravska_core.heat.geometry import lag_of
from ravska_core.heat.phases import SURROUNDS, Phase, check_phases, legs_of
from ravska_core.heat.properties import boiling_c, material_of
from ravska_core.heat.run import run
from ravska_core.heat.scorch import Coated
from ravska_core.heat.solver import Body
from ravska_core.heat.surface import Leg, Side
from ravska_core.meat import Piece, PieceReading
from ravska_core.units import say_duration
from ravska_core.working import BadInput

FRIDGE_C, _LEAST_OPEN = 4.0, 0.2
"""Start of what comes from the fridge [°C]; least of a surface that dries (estimate)."""


@dataclass(frozen=True)
class Heated:
    """A piece on its way through phases: its cut, how it was read, its phases with the cooker of each.

    `wet_kg_m2` is the water on its surface when it goes on [kg/m2], `coat` what lies on it, `height_m` how high above
    the sea the household cooks [m].
    """

    piece: Piece
    cut: Cut
    reading: PieceReading
    phases: tuple[Phase, ...]
    cookers: tuple[Cooker, ...]
    wet_kg_m2: float = 0.1
    coat: tuple[Coated, ...] = ()
    height_m: float = 0.0

    @property
    def boils_c(self) -> float:
        return boiling_c(self.height_m)


def planned(heated: Heated) -> tuple[tuple[Phase, ...], str]:
    """Return phases as they are reckoned, a rest at their end, and what is said where nobody planned one.

    Raises
    ------
    BadInput
        At ``phases`` where there are none, and at ``phases.N.…`` for what a phase cannot be.
    """
    if not heated.phases:
        raise BadInput("phases", "Say how it is cooked: add a phase, or take a run of phases to begin from.")
    check_phases(heated.phases, heated.boils_c)
    return rested(heated.phases, heated.cut)


def rested(phases: Sequence[Phase], cut: Cut) -> tuple[tuple[Phase, ...], str]:
    """Return phases with a rest at their end, and what is said where nobody planned one."""
    if phases[-1].surround in ("rest", "cold"):
        return tuple(phases), ""
    minutes = max(5.0, cut.rest_min)
    how = "foil" if cut.rest_min >= 15 else "board"
    said = f"Reckoned with a rest of {minutes:.0f} min, as is usual for it; add one to set it."
    return (*phases, Phase("rest", 21.0, how, lasts_s=minutes * 60)), said


def body_of(heated: Heated) -> Body:
    """Return the body of a piece: its dimension of equal lag, its meat, and how warm and wet it goes on."""
    reading = heated.reading
    touching = any(phase.vessel == "skewer" and not phase.apart for phase in heated.phases)
    lag = lag_of(reading.solid, in_a_row=touching)
    closed = sum(face.area_cm2 for face in reading.faces if face.state in ("bare", "coated", "tied back"))
    body = Body(
        lag.half_m, lag.exponent, material_of(round(reading.water_share, 4)), first_store=heated.wet_kg_m2,
        open_share=max(_LEAST_OPEN, 1 - closed / reading.solid.area_cm2), boils_c=heated.boils_c,
    )  # fmt: skip
    return replace(body, start_c=_start_c(heated.piece, body))


def _start_c(piece: Piece, body: Body) -> float:
    """Return how warm it goes on the fire: what it was taken out for has warmed it [°C]."""
    celsius = FRIDGE_C
    for stage in piece.stages:
        if stage.what == "temper":
            out = Leg(stage.celsius, (Side(8.0, dries=False, by_the_fire=False),) * 2, stage.lasts_s)
            celsius = float(run(replace(body, start_c=celsius), [out]).mean[0])
    return celsius


def last_hot(phases: Sequence[Phase]) -> int:
    """Return the last phase that cooks; the last of all where none does."""
    return max((at for at, phase in enumerate(phases) if SURROUNDS[phase.surround].hot), default=len(phases) - 1)


def legs_of_heated(heated: Heated, phases: Sequence[Phase]) -> tuple[Leg, ...]:
    """Return the legs of phases, those that were added at their end on the last cooker."""
    cookers = (*heated.cookers, *heated.cookers[-1:] * (len(phases) - len(heated.phases)))
    return legs_of(phases, cookers, heated.boils_c)


def worth_saying(heated: Heated) -> tuple[str, ...]:
    """Return sentences on what a run does not know of: ice, unlike pieces on a skewer, a heat beyond the cooker's."""
    return (*_beyond(heated), *_on_one_skewer(heated), *_iced(heated))


_THAWS_S_PER_G, _SHORT = 86_400 / 2268.0, 0.75
"""How long a gram takes to thaw in a fridge, 24 h for five pounds (usual US guidance, from memory), and what share of
that leaves ice (estimate)."""


def _iced(heated: Heated) -> tuple[str, ...]:
    """Say of what was thawed in the cold for too short a time that it has ice in its middle."""
    piece = heated.piece
    heaviest = max(piece.masses_g) if piece.masses_g else piece.mass_g / piece.count
    needs = heaviest * _THAWS_S_PER_G
    thaws = [stage for stage in piece.stages if stage.what == "thaw" and stage.celsius <= COLD_C]
    if not thaws or sum(stage.lasts_s for stage in thaws) >= _SHORT * needs:
        return ()
    return (
        f"After {say_duration(sum(stage.lasts_s for stage in thaws))} in the cold it may have ice in its middle, and "
        f"then takes longer than said here; about {say_duration(round(needs / 3600) * 3600)} thaws it.",
    )


_UNLIKE = 1.35
"""How many times as heavy as another a piece is, from which they are done at different times (estimate)."""


def _on_one_skewer(heated: Heated) -> tuple[str, ...]:
    """Say of pieces on skewers that are done at different times."""
    each = [one.mass_g for one in heated.reading.each]
    skewered = any(phase.vessel == "skewer" for phase in heated.phases)
    if not skewered or not each or max(each) < _UNLIKE * min(each):
        return ()
    return (
        f"Pieces of {min(each):.0f} and {max(each):.0f} g are done at different times: thread like with like, "
        "each on a skewer of its own.",
    )


def _beyond(heated: Heated) -> tuple[str, ...]:
    """Say of phases that are aimed beyond what their cooker usually does."""
    return tuple(
        f"Phase {at + 1} is aimed at {phase.aimed_c:.0f} °C; {cooker.says} usually goes from {cooker.low_c:.0f} °C to "
        f"{cooker.high_c:.0f} °C."
        for at, (phase, cooker) in enumerate(zip(heated.phases, heated.cookers, strict=True))
        if SURROUNDS[phase.surround].hot and not cooker.low_c <= phase.aimed_c <= cooker.high_c
    )
