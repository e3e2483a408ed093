"""What happens to a cook: begun, its steps laid out, mixed, evened out."""

import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from django.db import transaction
from ravska_core.catalogue import catalogue
from ravska_core.coat import read_arm, salt_to_even
from ravska_core.composition import read_blend
from ravska_core.cuts import find_cut
from ravska_core.marinade import hold_window
from ravska_core.quantities import say_duration
from ravska_core.schedule import usual_steps
from ravska_core.tasting import blind_codes
from ravska_core.working import BadInput

from book.models import Arm, Blend, Cook, Household, Layer, Piece, Sample, Step, Trial

RUB_HOLD_S = 2 * 3600.0
EVENING_SALT = "kosher-dense/flake"


@dataclass(frozen=True)
class Beginning:
    """How one arm begins: its name, its meat, and the blend it is seasoned with."""

    name: str
    cut: str
    mass_g: float
    mass_typed: str
    blend: Blend


def usual_layer(piece: Piece, position: int, blend: Blend) -> Layer:
    """Return the layer a blend usually becomes on a piece: a bath for a marinade, else a standard coat."""
    if blend.kind != "marinade":
        return Layer(
            piece=piece,
            position=position,
            kind="rub",
            blend=blend,
            coat_g_100cm2=5.0,
            surface="moist",
            hold_s=RUB_HOLD_S,
            hold_typed=say_duration(RUB_HOLD_S),
        )
    try:
        window = hold_window(read_blend(blend.as_core()), find_cut(piece.cut).meat_class)
        hold_s = window.window.cautious_high_min * 60
    except BadInput:
        hold_s = RUB_HOLD_S
    return Layer(
        piece=piece,
        position=position,
        kind="marinade",
        blend=blend,
        vessel="bag",
        hold_s=hold_s,
        hold_typed=say_duration(hold_s),
    )


def begin_cook(
    household: Household, name: str, serve_at: datetime, arms: Sequence[Beginning], seed: int | None = None
) -> Cook:
    """Begin a cook with its arms, layers, steps and trial, and take it in hand."""
    with transaction.atomic():
        Cook.objects.filter(household=household, in_hand=True).update(in_hand=False)
        cook = Cook.objects.create(household=household, name=name, serve_at=serve_at, in_hand=True)
        trial = Trial.objects.create(
            cook=cook,
            question=f"{arms[0].name} or {arms[1].name.lower()}?",
            seed=secrets.randbits(31) if seed is None else seed,
        )
        codes = blind_codes(trial.seed, len(arms))
        for label, beginning, code in zip("ABCDEFGH", arms, codes, strict=False):
            piece = Piece.objects.create(
                cook=cook, cut=beginning.cut, mass_g=beginning.mass_g, mass_typed=beginning.mass_typed
            )
            usual_layer(piece, 0, beginning.blend).save()
            lay_out_steps(piece)
            arm = Arm.objects.create(trial=trial, label=label, name=beginning.name, piece=piece)
            Sample.objects.create(trial=trial, arm=arm, code=code)
    return cook


def lay_out_steps(piece: Piece) -> None:
    """Lay out the usual steps of a piece's layers; what is ticked, and lengths that were set, stay."""
    before = {step.kind: step for step in piece.steps.all()}
    cut = find_cut(piece.cut)
    layers = list(piece.layers.order_by("position"))
    by_step = {"mix": None, "coat": None, "bag": None, "salt": None}
    for layer in layers:
        for kind in {"rub": ("mix", "coat"), "marinade": ("mix", "bag"), "salt": ("salt",)}[layer.kind]:
            by_step[kind] = layer
    hold_s = next((layer.hold_s for layer in layers if layer.hold_s), RUB_HOLD_S)
    planned = usual_steps([layer.kind for layer in layers], hold_s, cut.fire_min * 60, cut.rest_min * 60)
    piece.steps.all().delete()
    Step.objects.bulk_create(
        Step(
            piece=piece,
            position=at,
            kind=step.kind,
            layer=by_step.get(step.kind),
            lasts_s=before[step.kind].lasts_s if step.kind in before else step.lasts_s,
            done_at=before[step.kind].done_at if step.kind in before else None,
        )
        for at, step in enumerate(planned)
    )


def pin_layer(layer: Layer, cook: Cook) -> None:
    """Pin the revision a layer is mixed from, so that later edits of its blend do not rewrite this cook."""
    if layer.blend is not None and layer.revision is None and layer.blend.draft().lines.exists():
        layer.revision = layer.blend.keep(f"mixed for {cook.name}"[:200])
        layer.save(update_fields=["revision"])


def pin_cook(cook: Cook) -> None:
    """Pin every layer of a cook; from its first tasting card on, what was tasted must not change."""
    for layer in Layer.objects.filter(piece__cook=cook, revision__isnull=True, blend__isnull=False).select_related(
        "blend"
    ):
        pin_layer(layer, cook)


def take_cut(piece: Piece, cut: str) -> None:
    """Change the cut of a piece; times that were the old cut's usual ones become the new one's."""
    before, after = catalogue().cuts.get(piece.cut), find_cut(cut)
    piece.cut = cut
    for kind, field in (("on", "fire_min"), ("rest", "rest_min")):
        steps = piece.steps.filter(kind=kind)
        if before is not None:
            steps = steps.filter(lasts_s=getattr(before, field) * 60)
        steps.update(lasts_s=getattr(after, field) * 60)


def even_salt(cook: Cook) -> None:
    """Add salt to the arm of a cook that carries less, so that both carry the same share.

    Raises
    ------
    BadInput
        When the salt of an arm cannot be told, or nothing differs.
    """
    arms = list(cook.trial.arms.select_related("piece"))
    try:
        a, b = (read_arm(arm.as_core()) for arm in arms[:2])
    except BadInput:
        raise BadInput("what", "The salt of an arm is not known yet; mend it in Coat first.") from None
    label, percent = salt_to_even(a, b)
    if percent < 0.01:
        raise BadInput("what", "Both arms carry the same salt already.")
    add_salt(next(arm.piece for arm in arms if arm.label == label), round(percent, 2))


def add_salt(piece: Piece, percent: float) -> None:
    """Add to the salting of a piece [% of its raw edible weight]: after a bath is wiped off, before a rub goes on."""
    layers = list(piece.layers.order_by("position"))
    salting = next((layer for layer in layers if layer.kind == "salt"), None)
    if salting is not None:
        salting.percent = (salting.percent or 0.0) + percent
        salting.save(update_fields=["percent"])
        return
    first_rub = next((at for at, layer in enumerate(layers) if layer.kind == "rub"), len(layers))
    for layer in reversed(layers[first_rub:]):
        layer.position += 1
        layer.save(update_fields=["position"])
    Layer.objects.create(piece=piece, position=first_rub, kind="salt", grind=EVENING_SALT, percent=percent)
    lay_out_steps(piece)
