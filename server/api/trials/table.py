"""A trial as its tasters see it: what of it may be shown before the reveal, and what is told after it."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any, cast
from uuid import UUID

from book.fires import taps_of
from book.models import Event, Taster
from book.tasting import next_number, order_of
from django.db.models import Count, Q
from ravska_core.catalogue import said_name
from ravska_core.meat import find_cut
from ravska_core.trial import (
    KINDS,
    LIKING_SCALES,
    RIGHT_SCALES,
    WORDS,
    Shows,
    TastedTrial,
    balance,
    deal,
    say_shows,
    scale_limits,
    serve_within,
    what_shows,
)
from ravska_core.working import BadInput

from api.plumbing.household import household
from api.trials.documents import (
    CardOut,
    DesignOut,
    KindKey,
    PortionDocument,
    RevealedPlateOut,
    RevealOut,
    ScaleOut,
    ServingDocument,
    ServingOut,
    TableOut,
    TastedPieceOut,
    WaitingOut,
)
from api.trials.store import Loaded, as_core, load_trial, may_not_eat


def table_out(trial_id: UUID) -> TableOut:
    """Return a trial as its tasters see it."""
    found = load_trial(trial_id)
    trial = found.trial
    usual = Count("cards", filter=Q(cards__deleted_at__isnull=True))
    tasters = Taster.objects.filter(household=household(), deleted_at__isnull=True).annotate(usual=usual)
    servings = _servings(found)
    return TableOut(
        trial_id=trial.id,
        cook_id=trial.cook_id,
        version=trial.version,
        cook=trial.cook.name,
        question=trial.question,
        kind=cast(KindKey, trial.kind),
        asks=found.kind.asks,
        codes=found.codes,
        # of a triangle it would be worked out from what is hidden; who sits down is given one that is kept
        next_order=[] if trial.kind == "triangle" else order_of(trial, found.plates, next_number(trial)),
        scales=[_scale(name) for name in trial.scales],
        words=[*WORDS, *trial.words],
        guess=f"Which plate do you take for “{found.asked_after}”?" if found.guesses else "",
        sip=trial.serving.get("sip", "") or "water",
        servings=servings,
        balance=balance(found.codes, [one.order for one in servings if one.state != "gone" and one.order]),
        waiting=_waiting(found),
        cards=[_card(found, at) for at in range(len(found.cards))],
        planned_cards=trial.planned_cards,
        tasters=list(tasters.order_by("guest", "-usual", "nickname").values_list("nickname", flat=True)),
        eats=list(trial.cook.seats.values_list("taster__nickname", flat=True)),
        seen_by=list(trial.looks.values_list("taster__nickname", flat=True)),
        shows_says=say_shows(*_shown(found)),
        revealed=reveal_out(found) if found.revealed else None,
        missing=found.missing(),
    )


def design_out(trial_id: UUID) -> DesignOut:
    """Return a trial's design, by its pieces."""
    found = load_trial(trial_id)
    trial, shown = found.trial, _shown(found)
    return DesignOut(
        trial_id=trial.id,
        cook_id=trial.cook_id,
        version=trial.version,
        question=trial.question,
        kind=cast(KindKey, trial.kind),
        kinds=list(KINDS.values()),
        pieces=_pieces(found),
        twin=found.kind.twin and len(found.plates) > len(found.pieces),
        cards=trial.planned_cards,
        scales=list(trial.scales),
        all_scales=[_scale(name) for name in (*LIKING_SCALES, *RIGHT_SCALES)],
        words=list(trial.words),
        guess=trial.guess,
        looks=found.looks,
        sides=list(trial.sides),
        parts=list(trial.parts),
        serving=ServingDocument(**trial.serving),
        shows=list(shown[3]),
        shows_says=say_shows(*shown),
        tasted=trial.cards.exists(),
        revealed=found.revealed,
    )


def _shown(found: Loaded) -> tuple[str, int, int, tuple[Shows, ...]]:
    """Return what these tasters can show: the kind, how many they are, of how many samples, and how often."""
    expected = sum(one.gone_at is None and not one.short for one in found.servings)
    tasters, samples = expected or found.trial.planned_cards, max(2, len(found.pieces))
    return found.trial.kind, tasters, samples, what_shows(found.trial.kind, tasters, samples)


def _scale(name: str) -> ScaleOut:
    low, high = scale_limits(name)
    return ScaleOut(name=name, low=low, high=high)


def _pieces(found: Loaded) -> list[TastedPieceOut]:
    by_piece = {plate.piece_id: plate for plate in found.plates if plate.piece_id}
    told = []
    for piece in found.cook.pieces.all():
        plate = by_piece.get(piece.pk)
        minutes = plate.plate_s / 60 if plate is not None and plate.plate_s is not None else None
        told.append(
            TastedPieceOut(
                letter=piece.letter,
                name=piece.name,
                cut=_cut(piece.cut),
                tasted=plate is not None,
                row=plate.row if plate else None,
                column=plate.column if plate else None,
                portion=_portion(plate.portion if plate else {}),
                plate_min="" if minutes is None else f"{minutes:g} min",
            )
        )
    return told


def _portion(kept: dict[str, Any]) -> PortionDocument:
    thick = kept.get("thickness_mm")
    said = {key: value for key, value in kept.items() if key != "thickness_mm"}
    return PortionDocument(**said, thickness=f"{thick:g} mm" if isinstance(thick, float | int) else "")


def _cut(key: str) -> str:
    try:
        return find_cut(key).name
    except BadInput:
        return said_name(key)


def _servings(found: Loaded) -> list[ServingOut]:
    cards = {card.taster_id: card for card in found.cards}
    tasters = [one.taster for one in found.servings]
    refused, asked = may_not_eat(found, tasters) if any(row.avoids for row in tasters) else ({}, {})
    told = []
    for one in found.servings:
        card = cards.get(one.taster_id)
        says = "" if card is not None else refused.get(one.taster_id) or asked.get(one.taster_id, "")
        told.append(
            ServingOut(
                taster_id=one.taster_id,
                taster=one.taster.nickname,
                number=one.number,
                order=card.served if card else [] if one.taster_id in refused else one.served,
                state="in" if card else "gone" if one.gone_at else "waits",
                short=card.short if card else one.short,
                says=says,
                card_id=card.pk if card else None,
            )
        )
    return told


def _card(found: Loaded, at: int) -> CardOut:
    card = found.cards[at]
    codes = {plate.pk: plate.code for plate in found.plates}
    prefers = codes.get(card.prefers_id) if card.prefers_id and found.revealed else None
    return CardOut(card.pk, card.taster.nickname, card.served, card.blind, card.short, card.whole, prefers)


def off_times(found: Loaded) -> dict[str, datetime | None]:
    """Return when the pieces that are tasted came off the fire, by letter; None for those that have not."""
    events = Event.objects.filter(cook=found.trial.cook_id, what__in=("off", "on", "undone"))
    taps = taps_of(events, found.pieces)
    times: dict[str, datetime | None] = {piece.letter: None for piece in found.pieces}
    for tap in taps:
        for letter in [tap.letter] if tap.letter else list(times):
            if letter in times and tap.what in ("off", "on"):
                times[letter] = tap.at if tap.what == "off" else None
    return times


def _waiting(found: Loaded) -> WaitingOut:
    if found.revealed or not found.pieces:
        return WaitingOut(None, None, "")
    waits = serve_within(off_times(found), len(found.pieces))
    return WaitingOut(waits.first_off, waits.until, waits.says)


def dealt_out(found: Loaded) -> dict[str, list[str]]:
    """Return what is dealt by lot to each piece, by letter; empty where nothing is, or it does not come out even."""
    letters = [piece.letter for piece in found.pieces]
    if not found.trial.parts or not letters:
        return {}
    try:
        dealt = deal(found.trial.seed, found.trial.parts, len(letters))
    except BadInput:
        return {}
    return {letter: list(some) for letter, some in zip(letters, dealt, strict=True)}


def reveal_out(found: Loaded) -> RevealOut:
    """Return what was hidden, once it is told."""
    core = as_core(found)
    assert found.trial.revealed_at is not None
    return RevealOut(_revealed(found, core), found.trial.seed, dealt_out(found), found.trial.revealed_at)


def _revealed(found: Loaded, core: TastedTrial) -> list[RevealedPlateOut]:
    told = []
    for at, plate in enumerate(found.plates):
        scores = [card.scores[at, "overall"] for card in core.cards if (at, "overall") in card.scores]
        piece, of = plate.meat(), None if plate.twin_of_id else core.plates[at].sample
        told.append(
            RevealedPlateOut(
                code=plate.code,
                letter=piece.letter,
                name=piece.name,
                twin=plate.twin_of_id is not None,
                best_of=[card.taster for card in core.cards if of in core.best(card)],
                mean=sum(scores) / len(scores) if scores else None,
                words=_common([word for card in core.cards for word in card.words.get(at, ())]),
            )
        )
    # those that were liked least are turned first
    return sorted(told, key=lambda one: (len(one.best_of), one.mean or 0.0, one.code))


def _common(words: Sequence[str]) -> list[str]:
    ordered = sorted(set(words), key=lambda word: (-words.count(word), word))
    return ordered[:4]
