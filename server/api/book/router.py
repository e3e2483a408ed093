"""The household and how it reads numbers."""

from datetime import time
from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import Schema
from pydantic import Field
from ravska_core.day import find_zone
from ravska_core.measure import SPOON_SETS, spoon_name
from ravska_core.working import BadInput

from api.plumbing.answers import Router
from api.plumbing.household import household
from api.plumbing.quantities import Height
from api.plumbing.typed import Key

router = Router()


class PreferencesDocument(Schema):
    """How the household reads numbers and looks at screens, and how high above the sea it cooks, as typed.

    `zone` is that of the world's clocks, empty where nobody said it; the household sleeps from `sleeps` to `rises`.
    """

    units: Literal["us", "metric"]
    temperature: Literal["C", "F"]
    spoon_set: Literal["us", "metric", "australian"]
    spoons_lacking: Annotated[list[Key], Field(max_length=20)] = Field(default=[])
    theme: Literal["enamel", "iron"]
    single_keys: bool
    height: Height = Height("")
    zone: Annotated[str, Field(max_length=60)] = ""
    sleeps: time = time(23)
    rises: time = time(7)


@router.reads("/preferences")
def read_preferences(request: HttpRequest) -> PreferencesDocument:
    """Return how the household reads numbers and looks at screens."""
    found = household().preferences
    kept = {name: getattr(found, name) for name in PreferencesDocument.model_fields if name != "height"}
    kept["height"] = found.height_typed
    kept["spoons_lacking"] = list(filter(None, found.spoons_lacking.split(";")))
    return PreferencesDocument(**kept)


@router.puts("/preferences")
def save_preferences(request: HttpRequest, document: PreferencesDocument) -> PreferencesDocument:
    """Save the preferences; stored amounts stay as they are."""
    preferences = household().preferences
    names = {spoon_name(spoon) for spoon in SPOON_SETS[document.spoon_set].spoons}
    lacking = [name for name in document.spoons_lacking if name in names]
    if len(set(lacking)) == len(names):
        raise BadInput("spoons_lacking", "Some spoon must be in the drawer; leave at least one ticked.")
    document.spoons_lacking = lacking
    if document.zone:
        find_zone(document.zone)
    for name, at in (("sleeps", document.sleeps), ("rises", document.rises)):
        if at.tzinfo is not None:
            raise BadInput(name, "Write the time that your own clock shows, for example 23:00.")
    preferences.height_m = document.height.read("height") if document.height else 0.0
    preferences.height_typed = document.height
    for name, value in document.model_dump(exclude={"height"}).items():
        setattr(preferences, name, ";".join(value) if name == "spoons_lacking" else value)
    preferences.save()
    return document
