"""What happens to a cook: begun, its steps laid out, compared, mixed, evened out."""

import secrets
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import TypeVar

from django.db import transaction
from ravska_core.blend import read_blend
from ravska_core.catalogue import catalogue
from ravska_core.coat import (
    COAT_WEIGHTS,
    INJECTIONS,
    LAYER_KINDS,
    LAYER_OF_BLEND,
    VESSELS,
    Evened,
    Seasoned,
    Slot,
    as_weighed,
    brought_to,
    common_salt,
    hold_window,
    learned_coat,
    learned_stays,
    plain,
    read_coat,
    usual_binder_g,
    usual_coat,
    usual_steps,
)
from ravska_core.coat import Layer as CoreLayer
from ravska_core.meat import Piece as CorePiece
from ravska_core.meat import find_cut, read_piece
from ravska_core.trial import blind_codes
from ravska_core.units import say_duration
from ravska_core.working import BadInput, say

from book.models import Arm, Blend, Cook, Household, Layer, Piece, Sample, Step, Trial, WeighBack

EVENING_SALT = "kosher-dense/flake"
EVENING_HOLD_S = 1800.0


@dataclass(frozen=True)
class Beginning:
    """How one arm begins: its name, its meat, and the blend it is seasoned with."""

    name: str
    cut: str
    mass_g: float
    mass_typed: str
    blend: Blend


def usual_hold_s(kind: str, blend: Blend | None, piece: Piece) -> float | None:
    """Return how long a layer is usually held [s]: a bath as long as its acid, the cut and its thickness allow."""
    usual = LAYER_KINDS[kind].hold_s
    if kind != "marinade" or blend is None:
        return usual
    try:
        thickness = read_piece(weighed_piece(piece)).thickness
        window = hold_window(read_blend(blend.as_core()), find_cut(piece.cut).meat_class, thickness)
    except BadInput:
        return usual
    return window.window.cautious_high_min * 60


def own_coats(household: Household, cut: str, surface: str) -> list[float]:
    """Return what this household's coats on a cut with such a surface weighed back to [g/100 cm2], the first first."""
    rows = WeighBack.objects.filter(household=household, cut=cut, surface=surface, deleted_at__isnull=True)
    return list(rows.values_list("coat_g_100cm2", flat=True))


def own_stays(household: Household, kind: str) -> list[float]:
    """Return what stayed of this household's injections of a kind where it weighed the meat after [0 to 1]."""
    of = {"piece__cook__household": household, "piece__cook__deleted_at__isnull": True, "kind": kind}
    rows = Layer.objects.filter(**of, injection__after__isnull=False).select_related("piece", "blend", "revision")
    found = []
    for row in rows:
        try:
            weighed = as_weighed(row.as_core(), row.piece.mass_g)
        except BadInput:
            continue  # its blend cannot be read any more
        if weighed.stays is not None:
            found.append(weighed.stays)
    return found


def weighed_piece(piece: Piece) -> CorePiece:
    """Return a piece as the core reads it; one that nobody weighed yet is as heavy as such a cut usually is."""
    if piece.mass_g:
        return piece.as_core()
    cut = find_cut(piece.cut)
    return replace(piece.as_core(), mass_g=(cut.usual_low_g + cut.usual_high_g) / 2)


def begin_usual(layer: Layer, piece: Piece, before: Sequence[CoreLayer], after: Sequence[CoreLayer]) -> None:
    """Let a coat begin where the salt of all is usual, among the other layers of its piece."""
    if layer.kind not in ("rub", "paste") or layer.dose is None:
        return
    try:
        arm = Seasoned("A", weighed_piece(piece), (*before, layer.as_core(), *after))
        layer.dose = usual_coat(arm, len(before))
    except BadInput:
        return  # the coat's own reading says what is wrong
    layer.dose_typed = f"{layer.dose:g}"


def usual_layer(piece: Piece, position: int, blend: Blend, kind: str = "", others: Sequence[CoreLayer] = ()) -> Layer:
    """Return the layer a blend usually becomes on a piece; a coat as heavy, an injection staying, as it was weighed.

    A coat that nobody weighed back on such a cut begins no saltier than is usual, with the `others` on the piece.
    """
    found = LAYER_KINDS[kind or LAYER_OF_BLEND[blend.kind]]
    hold_s = usual_hold_s(found.key, blend, piece)
    dose = f"{found.usual:g}"
    own = own_coats(blend.household, piece.cut, "moist") if found.key == "rub" else []
    if own:
        dose = say(learned_coat(COAT_WEIGHTS["standard"], own).value, 2)
    elif found.key == "binder":
        dose = f"{usual_binder_g(blend.as_core()):g}"
    stayed = own_stays(blend.household, found.key) if found.key in INJECTIONS else []
    stays = f"{learned_stays(found.stays or 1.0, stayed) * 100:.0f}" if stayed else ""
    layer = Layer(
        piece=piece,
        position=position,
        kind=found.key,
        blend=blend,
        dose=float(dose),
        dose_typed=dose,
        stays=float(stays) / 100 if stays else None,
        stays_typed=stays,
        vessel=next((name for name, dose in VESSELS.items() if dose == found.usual), "")
        if found.key == "marinade"
        else "",
        hold_s=hold_s,
        hold_typed="" if hold_s is None else say_duration(hold_s),
    )
    if not own:
        begin_usual(layer, piece, others[:position], others[position:])
    return layer


def layer_of_slot(slot: Slot, position: int, blends: Mapping[str, Blend]) -> Layer:
    """Return the layer that a school's slot becomes with the blends at hand, by kind; a dose of 0 is the rest.

    Raises
    ------
    BadInput
        At ``school`` when the book has no blend of the kind it takes.
    """
    kind = LAYER_KINDS[slot.kind]
    blend = None
    if not slot.grind and kind.blend_kind:
        blend = blends.get(kind.blend_kind)
        if blend is None:
            raise BadInput("school", f"This needs a blend of the kind {kind.blend_kind}; make one in Blend first.")
    return Layer(
        position=position,
        kind=slot.kind,
        blend=blend,
        grind=slot.grind,
        dose=slot.dose or None,
        dose_typed=f"{slot.dose:g}" if slot.dose else "",
        hold_s=slot.hold_s or None,
        hold_typed=say_duration(slot.hold_s) if slot.hold_s else "",
        hold_c=slot.hold_c,
        after=slot.after,
        times=slot.times,
        vessel="bag" if slot.kind == "marinade" else "",
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
            question=question_of([arm.name for arm in arms]),
            seed=secrets.randbits(31) if seed is None else seed,
        )
        for label, beginning in zip("ABCDEFGH", arms, strict=False):
            piece = Piece.objects.create(
                cook=cook, cut=beginning.cut, mass_g=beginning.mass_g, mass_typed=beginning.mass_typed
            )
            usual_layer(piece, 0, beginning.blend).save()
            lay_out_steps(piece)
            Arm.objects.create(trial=trial, label=label, name=beginning.name, piece=piece)
        if len(arms) > 1:
            compare(trial, trial.arms.all())
    return cook


def question_of(names: Sequence[str]) -> str:
    """Return what a cook asks: which of its two arms, or how its one piece comes out."""
    return f"{names[0]} or {names[1].lower()}?" if len(names) > 1 else f"How is it {names[0].lower()}?"


def compare(trial: Trial, arms: Iterable[Arm]) -> None:
    """Make these the sides that are tasted, each under a code of its own; the others cook beside them.

    Raises
    ------
    BadInput
        At ``arms`` when cards are in already, so that what was tasted must not change.
    """
    arms = list(arms)
    if {arm.pk for arm in arms} == {sample.arm_id for sample in trial.samples.all()}:
        return
    if trial.cards.exists():
        raise BadInput(
            "arms", "Tasting cards are in, so the arms that were tasted stay; begin another cook for others."
        )
    trial.samples.all().delete()
    codes = blind_codes(trial.seed, len(arms))
    for arm, code in zip(arms, codes, strict=True):
        Sample.objects.create(trial=trial, arm=arm, code=code)
    trial.question = question_of([arm.name for arm in arms] or [arm.name for arm in trial.arms.all()])
    trial.save(update_fields=["question"])


def lay_out_steps(piece: Piece) -> None:
    """Lay out the usual steps of a piece's layers; what is ticked, and lengths that were set, stay."""
    before: dict[tuple[str, int], Step] = {}
    for step in piece.steps.order_by("position"):
        before[step.kind, sum(1 for kind, _ in before if kind == step.kind)] = step
    cut = find_cut(piece.cut)
    layers = list(piece.layers.select_related("blend").order_by("position"))
    planned = usual_steps([layer.as_core() for layer in layers], cut.fire_min * 60, cut.rest_min * 60)
    piece.steps.all().delete()
    rows: list[Step] = []
    for at, step in enumerate(planned):
        known = before.get((step.kind, sum(row.kind == step.kind for row in rows)))
        rows.append(
            Step(
                piece=piece,
                position=at,
                kind=step.kind,
                layer=None if step.layer is None else layers[step.layer],
                lasts_s=step.lasts_s if known is None or step.layer is not None else known.lasts_s,
                done_at=None if known is None else known.done_at,
            )
        )
    Step.objects.bulk_create(rows)


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
    """Bring both arms of a cook to one salt: the one wanted, or the usual zone; the saltier one is lowered too.

    Raises
    ------
    BadInput
        At ``what`` when the salt of an arm cannot be told, nothing differs, or no one layer can bring it there.
    """
    arms = list(cook.trial.arms.filter(sample__isnull=False).select_related("piece", "trial__cook"))
    if len(arms) < 2:
        raise BadInput("what", "Only one piece is on the board; make two arms in Coat first.")
    try:
        salts = [read_coat(arm.as_core(), cored=False).salt.value for arm in arms[:2]]
    except BadInput:
        raise BadInput("what", "The salt of an arm is not known yet; mend it in Coat first.") from None
    if abs(salts[0] - salts[1]) < 0.01:
        raise BadInput("what", "Both arms carry the same salt already.")
    wanted = [arm.piece.target_percent for arm in arms[:2] if arm.piece.target_percent is not None]
    goal = common_salt(salts[0], salts[1], wanted)
    salting = CoreLayer("pre-salt", plain(EVENING_SALT), 0.01, EVENING_HOLD_S)
    found = []
    for arm in arms[:2]:
        layers = list(arm.piece.layers.order_by("position"))
        found.append(brought_to(arm.as_core(), goal, salting, salting_place([layer.kind for layer in layers])))
    for arm, evened in zip(arms, found, strict=False):
        _put_evened(arm.piece, evened)


def _put_evened(piece: Piece, evened: Evened) -> None:
    """Write the doses and holds that even a piece out into its layers, and the salting that came among them."""
    rows = list(piece.layers.order_by("position"))
    if len(evened.layers) > len(rows):
        place = salting_place([row.kind for row in rows])
        _insert_salting(piece, rows, place, evened.layers[place].dose or 0.01)
        rows = list(piece.layers.order_by("position"))
    for row, layer in zip(rows, evened.layers, strict=True):
        if layer.dose is not None and layer.dose != row.dose:
            row.dose, row.dose_typed, row.vessel = layer.dose, say(layer.dose, 3), ""
        if row.hold_s is not None and layer.hold_s != row.hold_s:
            row.hold_s, row.hold_typed = layer.hold_s, say_duration(layer.hold_s)
        row.save()


def salting_place(kinds: Sequence[str]) -> int:
    """Return where a salting goes among layers: after a bath is wiped off, before a rub goes on."""
    coat = next((at for at, kind in enumerate(kinds) if kind in ("binder", "rub", "paste")), None)
    bath = max((at + 1 for at, kind in enumerate(kinds) if kind == "marinade"), default=0)
    return bath if coat is None else coat


def _insert_salting(piece: Piece, layers: Sequence[Layer], place: int, percent: float) -> None:
    for layer in reversed(layers[place:]):
        layer.position += 1
        layer.save(update_fields=["position"])
    Layer.objects.create(
        piece=piece, position=place, kind="pre-salt", grind=EVENING_SALT, dose=percent,
        dose_typed=say(percent, 3), hold_s=EVENING_HOLD_S, hold_typed=say_duration(EVENING_HOLD_S),
    )  # fmt: skip
    lay_out_steps(piece)


def add_salt(piece: Piece, percent: float) -> None:
    """Add to the salting of a piece [% of its raw edible weight]: after a bath is wiped off, before a rub goes on."""
    layers = list(piece.layers.order_by("position"))
    salting = next((layer for layer in layers if layer.kind == "pre-salt" and layer.dose is not None), None)
    if salting is not None:
        salting.dose = (salting.dose or 0.0) + percent
        salting.dose_typed = say(salting.dose, 3)
        salting.save(update_fields=["dose", "dose_typed"])
        return
    _insert_salting(piece, layers, salting_place([layer.kind for layer in layers]), percent)


def copy_cook(cook: Cook, serve_at: datetime) -> Cook:
    """Begin another cook like this one: its pieces with their layers, nothing ticked, no card, codes of its own.

    Layers follow their blends again, as they are now.
    """
    with transaction.atomic():
        Cook.objects.filter(household=cook.household, in_hand=True).update(in_hand=False)
        copy = Cook.objects.create(
            household=cook.household, name=f"{cook.name}, again"[:80], serve_at=serve_at, in_hand=True,
            eaters=cook.eaters, appetite=cook.appetite,
        )  # fmt: skip
        trial = Trial.objects.create(
            cook=copy, question=cook.trial.question, factor=cook.trial.factor, seed=secrets.randbits(31),
            planned_cards=cook.trial.planned_cards,
        )  # fmt: skip
        compared = []
        for arm in cook.trial.arms.select_related("piece"):
            tasted = hasattr(arm, "sample")
            layers, steps = list(arm.piece.layers.all()), list(arm.piece.steps.all())
            piece = _copied(arm.piece, cook=copy)
            new_layers = {layer.pk: _copied(layer, piece=piece, revision=None) for layer in layers}
            for step in steps:
                _copied(step, piece=piece, layer=new_layers.get(step.layer_id), done_at=None)
            arm_copy = Arm.objects.create(trial=trial, label=arm.label, name=arm.name, piece=piece)
            if tasted:
                compared.append(arm_copy)
        if compared:
            compare(trial, compared)
            Trial.objects.filter(pk=trial.pk).update(question=cook.trial.question)
    return copy


Copied = TypeVar("Copied", Piece, Layer, Step)


def _copied(row: Copied, **changed: object) -> Copied:
    """Save a copy of a row under a key of its own, with some of its fields changed."""
    kept = {field.name: getattr(row, field.name) for field in row._meta.concrete_fields if not field.primary_key}
    return type(row).objects.create(**{**kept, **changed})


def check_untasted(cook: Cook, field: str = "") -> None:
    """Refuse to change what was tasted.

    Raises
    ------
    BadInput
        When a card is in.
    """
    if cook.trial.is_tasted():
        raise BadInput(field, FROZEN)


FROZEN = (
    "Tasting cards are in, so the pieces that were tasted stay as they were: their layers, names and numbers. "
    "Make a copy of this cook and change that."
)
