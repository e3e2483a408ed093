"""What is asked about a list and said to it: items with answers, what they weigh, the kind of blend they make."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ravska_core.blend import DRY_KINDS, Line, parts_of
from ravska_core.catalogue import catalogue
from ravska_core.exchange.items import MEASURED, Amount, Item
from ravska_core.exchange.lists import ASKS_HOW_MUCH, by_the_pack
from ravska_core.exchange.taking import weighed
from ravska_core.measure import PACKS, SpoonSet, measure_out


@dataclass(frozen=True)
class InHand:
    """What an item is on the bench: its weight [g], and the same in spoons."""

    grams: float
    spoons: str


def answered(item: Item, grind: str = "", blend: str = "", amount: Amount | None = None) -> Item:
    """Return an item with what the cook said of it: what it is, or how much; what is still open is asked again.

    Of two that an "or" named the one not chosen stays as the swap.
    """
    chosen = bool(grind or blend)
    if chosen:
        swap = item.swap
        if swap:
            first = item.closest[0] if item.closest else ""
            swap = {swap: first, first: swap}.get(grind, "")
        item = replace(item, grind=grind, blend=blend, held=False, swap=swap, unread=(), note="")
    said = amount or item.amount
    item = replace(item, amount=said, question="", usual=())
    if not item.grind and not item.blend:
        return replace(item, status="what", question="Choose what it is, or leave it out.")
    if said is None:
        return replace(item, status="how much", question=ASKS_HOW_MUCH)
    if said.kind in PACKS:
        return by_the_pack(item, said)
    if said.kind not in MEASURED:
        found, note = weighed(said, item.grind, item.note) if item.grind else (None, "")
        if found is None:
            how = "How much is one of these? Write it as a weight or in spoons."
            return replace(item, status="how much", amount=None, question=how)
        item = replace(item, amount=found, note=note)
    return replace(item, status="understood")


def density_of(item: Item, own: Line | None) -> float:
    """Return the density of what an item names [g/ml], a blend of the cook's own as its line has it."""
    return parts_of([own])[0].density_g_ml if own is not None else catalogue().grinds[item.grind].density_g_ml


def in_hand(item: Item, owned: SpoonSet, own: Line | None = None) -> InHand | None:
    """Determine what an item weighs and how many spoons that is; None for parts, percent and what is not known."""
    if item.amount is None or item.amount.kind not in ("g", "ml") or not (item.grind or own):
        return None
    density = density_of(item, own)
    grams = item.amount.value * (density if item.amount.kind == "ml" else 1.0)
    return InHand(grams, item.amount.spooned or measure_out(grams / density, owned).text)


WET, LIQUID, FATTY = 0.12, 0.15, 0.15
"""From which share of its mass water makes a rub wet, liquids make it a marinade, and fats a paste (estimates)."""


_SAYS_KIND = (
    ("cooking liquid", r"pots?|brais\w+|stew|cooking liquid|poaching"),
    ("injection", r"inject\w*|needle|syringe"),
    ("glaze", r"glaze|lacquer"),
    ("spritz", r"spritz|spray|mop"),
    ("marinade", r"marinades?|bath|brine"),
    ("binder", r"binder"),
    ("finishing salt", r"finishing salt"),
    ("paste", r"paste"),
    ("dry rub", r"rubs?|crust"),
)
"""Words of a heading that say which kind of blend is under it (common practice, no source)."""


def usual_kind(said: str, items: Sequence[Item], title: str = "") -> str:
    """Return which kind of blend a list most likely is: what it says, else by what its items weigh of water and fat.

    A word in its `title` goes before that: “For the pot:”. One fresh clove in a cup of spices leaves a dry rub one.
    """
    if said:
        return said
    for kind, words in _SAYS_KIND:
        if re.search(rf"\b(?:{words})\b", title.lower()):
            return kind
    total = water = liquid = fat = 0.0
    for item in items:
        if not item.grind or item.amount is None or item.amount.kind not in MEASURED:
            continue
        grind = catalogue().grinds[item.grind]
        spooned = item.amount.kind == "ml" or (item.amount.kind == "part" and item.amount.basis != "scale")
        mass = item.amount.value * (grind.density_g_ml if spooned else 1.0)
        total += mass
        water += mass * grind.ingredient.water
        liquid += mass * (grind.ingredient.family in ("liquid", "dairy"))
        fat += mass * (grind.ingredient.family in ("fat", "paste"))
    if total and liquid > LIQUID * total:
        return "marinade"
    if total and (fat > FATTY * total or water > WET * total):
        return "paste"
    return DRY_KINDS[0]
