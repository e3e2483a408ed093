"""Layers as they usually begin: held, dosed and staying as is usual, or as the household's own weighing says."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from django.db.models import F, QuerySet
from ravska_core.blend import read_blend
from ravska_core.coat import (
    BATHS,
    COAT_WEIGHTS,
    INJECTIONS,
    LAYER_KINDS,
    LAYER_OF_BLEND,
    TAKEN_FROM,
    VESSELS,
    Seasoned,
    Slot,
    as_weighed,
    hold_window,
    learned_coat,
    learned_stays,
    learned_times,
    read_coat,
    surface_after,
    usual_binder_g,
    usual_coat,
)
from ravska_core.coat import Layer as CoreLayer
from ravska_core.meat import PLACES, find_cut, read_piece
from ravska_core.meat import Piece as CorePiece
from ravska_core.units import say_duration
from ravska_core.working import BadInput, say

from book.models import Blend, Cook, Household, Layer, Piece, WeighBack
from book.models.values import stored_weighed
from book.steps import lay_out_steps
from book.tasting import trial_of

COATED = ("rub", "paste")
"""Kinds of layer that are weighed back as a coat."""


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
    return window.limits.cautious_high_min * 60


def own_coats(household: Household, cut: str, surface: str, kind: str = "rub") -> list[float]:
    """Return what this household's coats on a cut with such a surface weighed back to [g/100 cm2], the first first."""
    rows = _weigh_backs(household, cut, surface, kind)
    return list(rows.values_list("coat_g_100cm2", flat=True))


def _weigh_backs(household: Household, cut: str, surface: str, kind: str) -> QuerySet[WeighBack]:
    return WeighBack.objects.filter(household=household, cut=cut, surface=surface, kind=kind, deleted_at__isnull=True)


def usual_coat_of(kind: str) -> float:
    """Return how heavy a coat of a kind usually lies [g/100 cm2]."""
    return COAT_WEIGHTS["standard"] if kind == "rub" else LAYER_KINDS[kind].usual


def own_coat_stays(household: Household, cut: str, surface: str, kind: str = "rub") -> list[float]:
    """Return what stayed of this household's coats on a cut with such a surface [0 to 1], the first first."""
    rows = _weigh_backs(household, cut, surface, kind).filter(stays__isnull=False)
    return [stays for stays in rows.values_list("stays", flat=True) if stays is not None]


MOST_BATHS = 12
"""So many of the last baths that were weighed count."""


def own_times(household: Household, cut: str) -> list[float]:
    """Return how many times as much salt as is reckoned went into a cut out of this household's baths, the last first.

    Only baths count whose salt was measured afterwards.
    """
    rows = (
        Layer.objects.filter(
            piece__cook__household=household, piece__cook__deleted_at__isnull=True, piece__cut=cut,
            weighed__typed__left_salt__isnull=False,
        )
        .select_related("piece__cook")
        .order_by("-piece__cook__serve_at")[:MOST_BATHS]
    )  # fmt: skip
    found = []
    for row in rows:
        stack = list(row.piece.layers.select_related("blend", "revision"))
        try:
            reading = read_coat(row.piece.seasoned(row.piece.cook.appetite), cored=False)
        except BadInput:
            continue  # something of it cannot be read any more
        found.append(reading.layers[[layer.pk for layer in stack].index(row.pk)].times)
    return found


def own_trims(household: Household, cut: str) -> list[float]:
    """Return what this household trimmed off a cut where it weighed it before [share of that], the first first."""
    rows = Piece.objects.filter(
        cook__household=household, cook__deleted_at__isnull=True, cut=cut, untrimmed_g__gt=0
    ).order_by("cook__serve_at", "letter")
    return [
        1 - mass_g / untrimmed_g for mass_g, untrimmed_g in rows.values_list("mass_g", "untrimmed_g") if untrimmed_g
    ]


def own_stays(household: Household, kind: str) -> list[float]:
    """Return what stayed of this household's injections of a kind where it weighed the meat after [0 to 1]."""
    of = {"piece__cook__household": household, "piece__cook__deleted_at__isnull": True, "kind": kind}
    rows = Layer.objects.filter(**of, injection__typed__after__isnull=False).select_related(
        "piece", "blend", "revision"
    )
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
        seasoned = Seasoned("A", weighed_piece(piece), (*before, layer.as_core(), *after))
        layer.dose = usual_coat(seasoned, len(before))
    except BadInput:
        return  # the coat's own reading says what is wrong
    layer.dose_typed = f"{layer.dose:g}"


def surface_met(piece: Piece, before: Sequence[CoreLayer]) -> str:
    """Return the surface that a coat meets on a piece: as what is under it leaves it, else the meat's own."""
    under = next((one for one in reversed(before) if one.kind in ("binder", "paste", *BATHS)), None)
    if under is None or under.blend is None:
        return piece.surface
    try:
        return "moist" if under.kind in BATHS else surface_after(read_blend(under.blend))
    except BadInput:
        return piece.surface


def own_shares(household: Household, kind: str, piece: Piece, surface: str) -> list[float]:
    """Return what stayed of what this household put on or into such a piece, as a layer of a kind [0 to 1]."""
    if kind in INJECTIONS:
        return own_stays(household, kind)
    return own_coat_stays(household, piece.cut, surface, kind) if kind in COATED else []


def own_words(household: Household, kind: str, piece: Piece, before: Sequence[CoreLayer]) -> str:
    """Say what a new layer takes from this household's own weighings; empty where it goes by what is usual."""
    met = surface_met(piece, before)
    taken = {
        "how heavy it lies": own_coats(household, piece.cut, met, kind) if kind in COATED else [],
        "what of it stays": own_shares(household, kind, piece, met),
        "how much salt goes in": own_times(household, piece.cut) if kind == "marinade" else [],
    }
    said = [f"{what}, from {len(own)} weighings" for what, own in taken.items() if len(own) >= TAKEN_FROM]
    return f"As you weighed it yourself: {'; '.join(said)}." if said else ""


def usual_layer(piece: Piece, position: int, blend: Blend, kind: str = "", others: Sequence[CoreLayer] = ()) -> Layer:
    """Return the layer a blend usually becomes on a piece; a coat as heavy, an injection staying, as it was weighed.

    One's own weighings count by themselves once there are `TAKEN_FROM` of such a cut and surface; before, a coat
    begins no saltier than is usual, with the `others` on the piece.
    """
    found = LAYER_KINDS[kind or LAYER_OF_BLEND[blend.kind]]
    hold_s = usual_hold_s(found.key, blend, piece)
    dose = f"{found.usual:g}"
    met = surface_met(piece, others[:position])
    own = own_coats(blend.household, piece.cut, met, found.key) if found.key in COATED else []
    if len(own) >= TAKEN_FROM:
        dose = say(learned_coat(usual_coat_of(found.key), own).value, 2)
    elif found.key == "binder":
        dose = f"{usual_binder_g(blend.as_core()):g}"
    stayed = own_shares(blend.household, found.key, piece, met)
    stays = f"{learned_stays(found.stays or 1.0, stayed) * 100:.0f}" if len(stayed) >= TAKEN_FROM else ""
    times = own_times(blend.household, piece.cut) if found.key == "marinade" else []
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
        hold_c=PLACES["pot" if found.key == "cooking liquid" else "fridge"].usual_c,
        weighed=stored_weighed({"times": say(learned_times(times), 3)}) if len(times) >= TAKEN_FROM else {},
    )
    if len(own) < TAKEN_FROM:
        begin_usual(layer, piece, others[:position], others[position:])
    return layer


def become(layer: Layer, fresh: Layer) -> None:
    """Make a layer of the kind of a fresh one, at its dose and hold; a dose that was said otherwise stays as it was."""
    layer.kind, layer.vessel, layer.hold_s, layer.hold_typed = fresh.kind, fresh.vessel, fresh.hold_s, fresh.hold_typed
    layer.stays, layer.stays_typed = fresh.stays, fresh.stays_typed
    layer.place = layer.place if fresh.hold_s is not None else ""
    if not layer.dose_unit:
        layer.dose, layer.dose_typed = fresh.dose, fresh.dose_typed


def follow_kind(blend: Blend, before: str) -> None:
    """Let the layers of a blend whose kind was changed become what such a blend usually is on a piece.

    One that was given another kind by hand stays so, and one that was mixed or tasted stays as it was.
    """
    was, now = LAYER_OF_BLEND[before], LAYER_OF_BLEND[blend.kind]
    if was == now:
        return
    rows = Layer.objects.filter(
        blend=blend, kind=was, revision__isnull=True, piece__cook__deleted_at__isnull=True
    ).select_related("piece__cook")
    for row in rows:
        trial = trial_of(row.piece.cook)
        if trial is not None and trial.is_tasted():
            continue
        become(row, usual_layer(row.piece, row.position, blend, now))
        row.save()
        lay_out_steps(row.piece)
        Cook.objects.filter(pk=row.piece.cook_id).update(version=F("version") + 1)


def layer_of_slot(slot: Slot, position: int, blends: Mapping[str, Blend]) -> Layer:
    """Return the layer that a way's slot becomes with the blends at hand, by kind; a dose of 0 is the rest.

    Raises
    ------
    BadInput
        At ``way`` when the book has no blend of the kind it takes.
    """
    kind = LAYER_KINDS[slot.kind]
    blend = None
    if not slot.grind and kind.blend_kind:
        blend = blends.get(kind.blend_kind)
        if blend is None:
            raise BadInput("way", f"This needs a blend of the kind {kind.blend_kind}; make one in Blend first.")
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
