"""What happens to a cook: begun, mixed, begun again."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import TypeVar

from django.db import transaction

from book.fires import stands
from book.layers import usual_layer
from book.models import LETTERS, Blend, Cook, Household, Layer, Piece, Seat, SideDish, Step
from book.models.values import stored_injection, stored_weighed, typed_of
from book.steps import lay_out_steps
from book.tasting import copy_design, taste, trial_of


@dataclass(frozen=True)
class Beginning:
    """How one piece begins: its name, its meat, the blend it is seasoned with if any, whether it is to be tasted.

    `masses_g` is what each of `count` weighs where they are unlike [g].
    """

    name: str
    cut: str
    mass_g: float
    mass_typed: str
    blend: Blend | None
    tasted: bool = True
    count: int = 1
    masses_g: tuple[float, ...] = ()


def take_in_hand(cook: Cook) -> None:
    """Make this the cook in hand of its household."""
    Cook.objects.filter(household=cook.household_id, in_hand=True).exclude(pk=cook.pk).update(in_hand=False)
    Cook.objects.filter(pk=cook.pk).update(in_hand=True)
    cook.in_hand = True


def begin_cook(
    household: Household, name: str, serve_at: datetime, pieces: Sequence[Beginning], seed: str | None = None
) -> Cook:
    """Begin a cook with its pieces, their layers and steps, and take it in hand; two to be tasted make a trial."""
    with transaction.atomic():
        cook = Cook.objects.create(household=household, name=name, serve_at=serve_at)
        take_in_hand(cook)
        tasted = []
        for position, (letter, beginning) in enumerate(zip(LETTERS, pieces, strict=False)):
            piece = Piece.objects.create(
                cook=cook, letter=letter, name=beginning.name, position=position, cut=beginning.cut,
                mass_g=beginning.mass_g, mass_typed=beginning.mass_typed, count=beginning.count,
                masses_g=list(beginning.masses_g),
            )  # fmt: skip
            if beginning.blend is not None:
                usual_layer(piece, 0, beginning.blend).save()
            lay_out_steps(piece)
            if beginning.tasted:
                tasted.append(piece)
        if len(tasted) > 1:
            taste(cook, tasted, seed)
    return cook


def pin_layer(layer: Layer, cook: Cook) -> None:
    """Pin the revision a layer is mixed from, so that later edits of its blend do not rewrite this cook."""
    if layer.blend is not None and layer.revision is None and layer.blend.draft().lines.exists():
        layer.revision = layer.blend.keep(f"mixed for {cook.name}"[:200])
        layer.save(update_fields=["revision"])


def pin_cook(cook: Cook) -> None:
    """Pin every layer of a cook; from its first tasting card on, what was tasted must not change."""
    unpinned = Layer.objects.filter(piece__cook=cook, revision__isnull=True, blend__isnull=False)
    for layer in unpinned.select_related("blend"):
        pin_layer(layer, cook)


def _noted(cook: Cook) -> str:
    """Return what to do otherwise next time: as it was written in Coat, and as it was noted at the fire."""
    at_fire = [row.note for row in stands(cook.events.all()) if row.what == "next time"]
    return "\n".join(filter(None, [cook.note, *at_fire])) or cook.noted


def copy_cook(cook: Cook, serve_at: datetime, name: str = "") -> Cook:
    """Begin another cook like this one: its pieces with their layers, nothing ticked, no card, codes of its own.

    Layers follow their blends again, as they are now; what was noted for next time goes with it.
    """
    with transaction.atomic():
        copy = Cook.objects.create(
            household=cook.household, name=name or f"{cook.name}, again"[:80], serve_at=serve_at, eaters=cook.eaters,
            appetite=cook.appetite, noted=_noted(cook), people=cook.people, away_min=cook.away_min,
            travels=cook.travels, waves=cook.waves, waves_min=cook.waves_min,
        )  # fmt: skip
        take_in_hand(copy)
        SideDish.objects.bulk_create(
            SideDish(cook=copy, position=side.position, name=side.name, typed=side.typed) for side in cook.sides.all()
        )
        Seat.objects.bulk_create(Seat(cook=copy, taster=seat.taster) for seat in cook.seats.select_related("taster"))
        tasted = []
        for old in cook.pieces.all():
            piece = copy_piece(old, cook=copy)
            if hasattr(old, "sample"):
                tasted.append(piece)
        trial, made = trial_of(cook), taste(copy, tasted)
        if trial is not None and made is not None:
            copy_design(trial, made)
    return copy


WEIGHED = ("before", "after", "used")


def copy_piece(old: Piece, **changed: object) -> Piece:
    """Save a copy of a piece with its layers and steps, nothing ticked, nothing of it mixed or weighed yet."""
    piece = copied(old, **changed)
    layers = {}
    for layer in old.layers.all():
        layers[layer.pk] = copied(layer, piece=piece, revision=None, mixed_g=None, **unweighed(layer))
    for step in old.steps.all():
        copied(step, piece=piece, layer=layers.get(step.layer_id) if step.layer_id else None, done_at=None)
    return piece


def unweighed(layer: Layer) -> dict[str, dict[str, object]]:
    """Return what a layer is injected and bathed with where nothing of that was weighed yet, by column."""
    injected = {key: text for key, text in typed_of(layer.injection).items() if key not in WEIGHED}
    taken_up = {key: text for key, text in typed_of(layer.weighed).items() if key == "times"}
    return {"injection": stored_injection(injected), "weighed": stored_weighed(taken_up)}


Copied = TypeVar("Copied", Piece, Layer, Step)


def copied(row: Copied, **changed: object) -> Copied:
    """Save a copy of a row under a key of its own, with some of its fields changed."""
    kept = {field.name: getattr(row, field.name) for field in row._meta.concrete_fields if not field.primary_key}
    return type(row).objects.create(**{**kept, **changed})
