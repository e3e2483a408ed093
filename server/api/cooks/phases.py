"""Phases of a piece on its fire as typed, and how the book holds them."""

from dataclasses import asdict
from typing import Annotated, Any, Literal, cast

from book.models.values import stored
from pydantic import BaseModel, Field
from ravska_core.heat import SURROUNDS, USUAL_DISTANCE_CM, Cooker, Phase, check_phases, find_cooker
from ravska_core.units import say_duration, say_temperature
from ravska_core.working import BadInput

from api.plumbing.problems import Gather
from api.plumbing.quantities import CentreTemperature, FireTemperature, Length, PhaseTime, Sears, Share
from api.plumbing.typed import Key, Typed

SurroundKey = Literal[
    "indirect", "direct flame", "hot iron", "oven", "broiler", "covered liquid", "water bath", "cold", "rest",
]  # fmt: skip
VesselKey = Literal["", "grate", "rack", "pan", "foil", "pot", "bag", "skewer", "board"]
Feel = Literal["", "giving", "like butter"]
Colour = Literal["", "golden", "brown", "dark"]
Setting = Literal["gentle", "middling", "fierce"]
Tray = Literal["", "water", "drip"]
ThreadedKey = Literal[
    "tomato", "fruit", "cheese", "mushroom", "courgette", "pepper", "onion", "aubergine", "potato", "root",
]  # fmt: skip


PLAIN = ("rest", "cold")
"""Surrounds whose heat needs not be said."""


class PhaseDocument(BaseModel):
    """A phase as typed: surround, vessel and place, the heat aimed at, and whichever of its ends is first.

    `aimed` may be a span, whose middle is aimed at; `band` is the wider one that still does. `cooker` is a kind of
    cooker, empty for the usual one; `distance`, `setting`, `turned`, `sears` and `touching` say how it lies to the
    heat, empty for what is usual; pieces on a skewer lie `apart` or touch, with what is
    `threaded` between them.
    """

    surround: SurroundKey
    vessel: VesselKey = ""
    cooker: Key = ""
    aimed: FireTemperature = FireTemperature("")
    band: FireTemperature = FireTemperature("")
    lasts: PhaseTime = PhaseTime("")
    centre: CentreTemperature = CentreTemperature("")
    feel: Feel = ""
    colour: Colour = ""
    near: bool = False
    setting: Setting = "middling"
    distance: Length = Length("")
    turned: PhaseTime = PhaseTime("")
    sears: Sears = Sears("")
    touching: Share = Share("")
    apart: bool = True
    threaded: Annotated[list[ThreadedKey], Field(max_length=10)] = Field(default=[])
    tray: Tray = ""
    wood: Typed = ""


MOST_TYPED = 24
"""So many phases are taken as typed; how many a piece has at most is said at their field."""

Phases = Annotated[list[PhaseDocument], Field(max_length=MOST_TYPED)]


def _read(document: PhaseDocument, gather: Gather, at: str) -> Phase:
    around = SURROUNDS[document.surround]
    plain = document.surround in PLAIN
    aimed = gather.value_if(f"{at}.aimed", document.aimed)
    if not document.aimed and not plain:
        gather.refuse(f"{at}.aimed", f"Say how hot, for example {around.usual_c:.0f} °C.")
    low, high = aimed or (around.usual_c, around.usual_c)
    band = gather.value_if(f"{at}.band", document.band)
    if band is None and high > low:
        band = (low, high)
    touching = gather.value_if(f"{at}.touching", document.touching)
    distance_cm = gather.value_if(f"{at}.distance", document.distance)
    return Phase(
        surround=document.surround,
        aimed_c=(low + high) / 2,
        vessel=document.vessel or around.vessels[0],
        lasts_s=gather.value_if(f"{at}.lasts", document.lasts),
        centre_c=gather.value_if(f"{at}.centre", document.centre),
        feel=document.feel,
        colour=document.colour,
        low_c=band[0] if band else None,
        high_c=band[1] if band else None,
        near=document.near,
        setting=document.setting,
        distance_cm=USUAL_DISTANCE_CM if distance_cm is None else distance_cm,
        turned_s=gather.value_if(f"{at}.turned", document.turned),
        sears_s=gather.value_if(f"{at}.sears", document.sears) or (),
        touching=1.0 if touching is None else touching / 100,
        apart=document.apart,
        threaded=tuple(dict.fromkeys(document.threaded)),
        tray=document.tray,
        wood=document.wood,
    )


def cooker_of(document: PhaseDocument) -> Cooker:
    """Return the cooker of a phase: the kind it names, else the usual one.

    Raises
    ------
    BadInput
        At ``cooker``.
    """
    found = find_cooker(document.cooker, document.surround)
    if SURROUNDS[document.surround].hot and document.surround not in found.surrounds:
        raise BadInput(
            "cooker", f"{found.says.capitalize()}: it does not do that; choose another, or another surround."
        )
    return found


def read_phases(documents: list[PhaseDocument], gather: Gather, at: str) -> tuple[Phase, ...]:
    """Read phases as typed; all that cannot be read is gathered under `at`, a phase by its number."""
    before = len(gather.errors)
    found = []
    for number, document in enumerate(documents):
        found.append(_read(document, gather, f"{at}.{number}"))
        gather.attempt(f"{at}.{number}", cooker_of, document)
    if len(gather.errors) == before:
        gather.attempt(at.removesuffix("phases").removesuffix("."), check_phases, found)
    return tuple(found)


def stored_phases(documents: list[PhaseDocument]) -> list[dict[str, Any]]:
    """Return phases as the book holds them; they can all be read."""
    read = read_phases(documents, Gather(), "phases")
    return [
        stored(typed.model_dump(exclude_defaults=True), asdict(phase))
        for typed, phase in zip(documents, read, strict=True)
    ]


def phases_typed(rows: list[dict[str, Any]]) -> list[PhaseDocument]:
    """Return phases of the book as they are typed."""
    return [PhaseDocument(**row["typed"]) for row in rows]


def as_typed(phase: Phase, scale: str) -> PhaseDocument:
    """Write a phase as a cook would type it, temperatures in their scale."""
    plain = phase.surround in PLAIN
    return PhaseDocument(
        surround=cast(SurroundKey, phase.surround), vessel=cast(VesselKey, phase.vessel),
        aimed=FireTemperature("" if plain else say_temperature(phase.aimed_c, scale)),
        lasts=PhaseTime(say_duration(phase.lasts_s) if phase.lasts_s else ""),
        centre=CentreTemperature(say_temperature(phase.centre_c, scale) if phase.centre_c is not None else ""),
        feel=cast(Feel, phase.feel), colour=cast(Colour, phase.colour), near=phase.near,
        setting=cast(Setting, phase.setting),
        turned=PhaseTime(say_duration(phase.turned_s) if phase.turned_s else ""),
        sears=Sears(", ".join(f"{one:.0f} s" for one in phase.sears_s)), tray=cast(Tray, phase.tray), wood=phase.wood,
    )  # fmt: skip
