"""What every tasting of the book says, kept in mind by what it rests on: revealed ones only, so that none gives away
which plate is which."""

import threading
from collections import defaultdict
from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from typing import Any, TypeVar
from uuid import UUID

from book.mixtures import load_layers
from book.models import Card, Cook, Event, Layer, Piece, Sample, Score, Taster, Trial
from django.db.models import Aggregate, CharField, Count, Max, Prefetch
from ravska_core.across import Muddy, muddied, muddied_by, school_of, way_of
from ravska_core.heat import find_cooker
from ravska_core.trial import compare_arms, read_guesses, served_differences
from ravska_core.working import BadInput

from api.cooks.shown import arm_records, pairs_of
from api.cooks.store import cooks, is_tasted, read_stored, spoons_for
from api.plumbing.household import household

COMPARED_BY = 1
"""Goes up whenever what differs between two samples is worked out otherwise."""


_MOST_ASKED = 24
"""Of how many questions a tasting remembers what it says."""

Found = TypeVar("Found")


class Joined(Aggregate):
    """Numbers of rows one after another: a stamp that changes with any of them."""

    function = "GROUP_CONCAT"
    output_field = CharField()


@dataclass(frozen=True)
class SampleRecord:
    """A sample: its letter, cut, way, main blend with its revision's number, school, longest hold [s] and salt [%]."""

    key: UUID
    code: str
    letter: str
    cut: str
    way: str
    blend: UUID | None
    revision: int | None
    school: str
    hold_s: float
    salt_percent: float | None


@dataclass(frozen=True)
class CardRecord:
    """A card that scored or preferred something: taster, what it gave each sample by scale, and its order of codes."""

    number: int
    taster: UUID
    blind: bool
    short: bool
    served: tuple[str, ...]
    prefers: UUID | None
    scores: Mapping[str, Mapping[UUID, int]]
    words: Mapping[str, tuple[str, ...]]


@dataclass(frozen=True)
class TrialRecord:
    """A tasting that was revealed, as verdicts across cooks take it; `muddied` by pairs of letters, `fault` why
    nothing of it could be compared."""

    trial: UUID
    cook: UUID
    serve_at: datetime
    kind: str
    samples: tuple[SampleRecord, ...]
    cards: tuple[CardRecord, ...]
    muddied: Mapping[tuple[str, str], tuple[Muddy, ...]]
    cookers: frozenset[str]
    fault: str
    asked: dict[tuple[object, ...], Any] = field(default_factory=dict, compare=False, repr=False)

    @cached_property
    def tasters(self) -> frozenset[UUID]:
        """Who handed a card in."""
        return frozenset(card.taster for card in self.cards)

    def remembered(self, key: tuple[object, ...], find: Callable[[], Found]) -> Found:
        """Return what was found of this tasting for a question before, or find it."""
        found: Found | None = self.asked.get(key)
        if found is None:
            found = find()
            # another thread may empty it meanwhile, which costs nothing but finding it anew
            if len(self.asked) >= _MOST_ASKED:
                self.asked.clear()
            self.asked[key] = found
        return found


_lock = threading.Lock()
_kept: dict[UUID, tuple[tuple[object, ...], TrialRecord]] = {}
_worked_out: dict[UUID, dict[str, Any]] = {}


def forget() -> None:
    """Let go all that is kept in mind."""
    with _lock:
        _kept.clear()
        _worked_out.clear()


def records() -> list[TrialRecord]:
    """Return what every revealed tasting says, in the order they were served.

    What is known already of a tasting is taken as long as its cook, its design, its cards and its fire's log are what
    they were; so a cook that is deleted or a card that is taken back counts at once.
    """
    stamps = _stamps()
    with _lock:
        stale = [key for key, stamp in stamps.items() if key not in _kept or _kept[key][0] != stamp]
        for found in _load(stale):
            _kept[found.trial] = (stamps[found.trial], found)
        for gone in _kept.keys() - stamps.keys():
            del _kept[gone]
            _worked_out.pop(gone, None)
        rows = [_kept[key][1] for key in stamps if key in _kept]
    return sorted(rows, key=lambda one: (one.serve_at, one.trial))


def _stamps() -> dict[UUID, tuple[object, ...]]:
    """Return, for every revealed tasting of this household, what changes whenever what it says may have."""
    rows = Trial.objects.filter(
        cook__household=household(), cook__deleted_at__isnull=True, revealed_at__isnull=False
    ).values_list("pk", "version", "cook_id", "cook__version", "cook__serve_at")  # fmt: skip
    cards = dict(
        Card.objects.filter(deleted_at__isnull=True).order_by().values("trial").annotate(has=Joined("number"))
        .values_list("trial", "has")
    )  # fmt: skip
    logs = _logs([cook for _, _, cook, _, _ in rows])
    return {
        key: (version, cook_version, serve_at, cards.get(key, ""), logs.get(cook))
        for key, version, cook, cook_version, serve_at in rows
    }


def _load(keys: Sequence[UUID]) -> list[TrialRecord]:
    """Load tastings with their samples, cards and scores, each kind of row at once."""
    if not keys:
        return []
    layers = Prefetch("piece__layers", queryset=Layer.objects.select_related("blend", "revision"))
    samples: dict[UUID, list[Sample]] = defaultdict(list)
    for sample in (
        Sample.objects.filter(trial__in=keys, piece__isnull=False).select_related("piece").prefetch_related(layers)
    ):
        samples[sample.trial_id].append(sample)
    cards: dict[UUID, list[Card]] = defaultdict(list)
    for card in Card.objects.filter(trial__in=keys, deleted_at__isnull=True).order_by("number"):
        cards[card.trial_id].append(card)
    scores: dict[UUID, dict[str, dict[UUID, int]]] = defaultdict(lambda: defaultdict(dict))
    given = Score.objects.filter(card__trial__in=keys, card__deleted_at__isnull=True)
    for card_key, sample_key, scale, value in given.order_by().values_list("card", "sample", "scale", "value"):
        scores[card_key][scale][sample_key] = value
    trials = list(Trial.objects.filter(pk__in=keys).select_related("cook"))
    compared = _compared(trials)
    found = []
    for trial in trials:
        known = compared[trial.pk]
        rows = sorted(samples[trial.pk], key=lambda sample: sample.meat().letter)
        pieces = [sample.meat() for sample in rows]
        served = _served(trial, cards[trial.pk])
        found.append(
            TrialRecord(
                trial.pk, trial.cook_id, trial.cook.serve_at, trial.kind,
                tuple(_sample(sample, known["salt"].get(sample.meat().letter)) for sample in rows),
                tuple(_card(card, scores[card.pk]) for card in cards[trial.pk]),
                {(a, b): (*(Muddy(*one) for one in said), *served) for a, b, said in known["pairs"]},
                frozenset(_cookers(pieces)), known["fault"],
            )
        )  # fmt: skip
    return found


def _served(trial: Trial, cards: Sequence[Card]) -> tuple[Muddy, ...]:
    """Return what of the serving muddied all of a table: what samples shared, and that plates were told apart."""
    asked = [card for card in cards if card.blind and card.guess_id]
    guessed = None
    if asked:
        plates = list(trial.samples.select_related("piece", "twin_of__piece"))
        letter = {plate.pk: plate.meat().letter for plate in plates}
        after = min(letter.values())
        right = sum(letter.get(card.guess_id) == after for card in asked if card.guess_id)
        guessed = read_guesses(right, len(asked), list(letter.values()).count(after) / len(plates))
    return muddied_by(served_differences(tuple(trial.serving.get("shared", ())), guessed))


def _sample(sample: Sample, salt: float | None) -> SampleRecord:
    piece = sample.meat()
    rows = list(piece.layers.all())
    layers = [(row.kind, row.hold_s) for row in rows]
    order = ("rub", "paste", "marinade", "injection")
    of = min((row for row in rows if row.kind in order and row.blend_id), key=lambda row: order.index(row.kind),
             default=None)  # fmt: skip
    return SampleRecord(
        sample.pk, sample.code, piece.letter, piece.cut, way_of(layers), of.blend_id if of else None,
        of.revision.number if of and of.revision else None, school_of(layers),
        max((row.hold_s or 0.0 for row in rows), default=0.0), salt,
    )  # fmt: skip


def _card(card: Card, scores: Mapping[str, Mapping[UUID, int]]) -> CardRecord:
    return CardRecord(
        card.number, card.taster_id, card.blind, card.short, tuple(card.served), card.prefers_id, scores,
        {code: tuple(said) for code, said in card.words.items()},
    )  # fmt: skip


def _cookers(pieces: Sequence[Piece]) -> set[str]:
    """Return what the pieces were cooked on, as it is called."""
    found = set()
    for row in (row for piece in pieces for row in piece.phases):
        with suppress(BadInput):
            found.add(find_cooker(row["typed"].get("cooker", ""), row["typed"].get("surround", "")).says)
    return found


def _compared(trials: Sequence[Trial]) -> dict[UUID, dict[str, Any]]:
    """Return what differed between the samples of tastings: as it was kept, where nothing changed since."""
    found, stale = {}, []
    logs = _logs([trial.cook_id for trial in trials])
    for trial in trials:
        stamp = _comparing_stamp(trial, logs)
        for kept in (trial.compared, _worked_out.get(trial.pk)):
            if kept and kept["stamp"] == stamp:
                found[trial.pk] = kept
        if trial.pk not in found:
            stale.append(trial)
    anew = compare(stale)
    _worked_out.update(anew)
    return found | anew


def _logs(cook_ids: Sequence[UUID]) -> dict[UUID, tuple[int, datetime]]:
    """Return how many events the logs of cooks have, and when the last was noted."""
    rows = Event.objects.filter(cook__in=cook_ids).order_by().values("cook")
    told = rows.annotate(count=Count("pk"), last=Max("noted_at")).values_list("cook", "count", "last")
    return {cook: (count, last) for cook, count, last in told}


def _comparing_stamp(trial: Trial, logs: Mapping[UUID, tuple[int, datetime]]) -> str:
    """Return what changes whenever what differed between the samples of a tasting may have."""
    return f"{COMPARED_BY} {trial.cook.version} {trial.version} {logs.get(trial.cook_id)}"


def compare(trials: Sequence[Trial]) -> dict[UUID, dict[str, Any]]:
    """Compare the samples of tastings, pair by pair as they are read against each other, as it is kept with them."""
    if not trials:
        return {}
    logs = _logs([trial.cook_id for trial in trials])
    loaded = {cook.pk: cook for cook in cooks().filter(pk__in=[trial.cook_id for trial in trials])}
    load_layers(layer for cook in loaded.values() for piece in cook.pieces.all() for layer in piece.layers.all())
    return {
        trial.pk: _compare(loaded[trial.cook_id]) | {"stamp": _comparing_stamp(trial, logs)} for trial in trials
    }  # fmt: skip


def _compare(cook: Cook) -> dict[str, Any]:
    """Compare the samples of a cook; of one that cannot be read any more, say why, and compare nothing."""
    readings = read_stored(cook, spoons_for(cook))
    tasted = [piece for piece in cook.pieces.all() if is_tasted(piece)]
    salt = {
        piece.letter: reading.salt.value for piece in tasted
        if not isinstance(reading := readings[piece.letter], BadInput)
    }  # fmt: skip
    try:
        arms = arm_records(cook, readings)
    except BadInput as refusal:
        return {"pairs": [], "salt": salt, "fault": refusal.sentence}
    pairs = []
    for a, b in pairs_of(tasted) if len(tasted) > 1 else []:
        said = muddied(compare_arms(arms[a], arms[b], 0, 0))
        pairs.append([tasted[a].letter, tasted[b].letter, [[one.what, one.size, one.sentence] for one in said]])
    return {"pairs": pairs, "salt": salt, "fault": ""}


def keep_compared(trial: Trial) -> None:
    """Keep with a revealed tasting what differed between its samples."""
    Trial.objects.filter(pk=trial.pk).update(compared=compare([trial])[trial.pk])


def nicknames() -> dict[UUID, str]:
    """Return who tastes, by nickname."""
    return dict(Taster.objects.filter(household=household()).order_by().values_list("pk", "nickname"))
