"""Table: the trial, its cards, and the reveal."""

from collections.abc import Callable
from uuid import UUID

from book.cooks import pin_cook
from book.models import Card, Sample, Score, Taster, Trial
from book.tasting import leave, next_number, serving_of
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ravska_core.trial import FACE_SCALE, RANK_SCALE, scale_limits
from ravska_core.working import BadInput

from api.plumbing.answers import Created, Router
from api.plumbing.problems import Gather
from api.trials.documents import CardDocument, GoneDocument, SeatDocument, TableOut
from api.trials.store import Loaded, check_may_eat, find_trial, load_trial, loaded, taster_named
from api.trials.table import table_out

router = Router()

after_reveal: list[Callable[[Trial], None]] = []
"""What is done with a tasting once it is revealed; said by verdicts across cooks, which are above this."""


@router.reads("/{uuid:trial_id}")
def read_table(request: HttpRequest, trial_id: UUID) -> TableOut:
    """Return the trial as its tasters see it."""
    return table_out(trial_id)


@router.posts("/{uuid:trial_id}/cards")
def add_card(request: HttpRequest, trial_id: UUID, document: CardDocument) -> Created[TableOut]:
    """Take in a card. After the reveal, or from who looked at the plating, it counts and is marked as not blind."""
    with transaction.atomic():
        hand_in(loaded(find_trial(trial_id)), document)
    return Created(table_out(trial_id))


def hand_in(found: Loaded, document: CardDocument) -> Card:
    """Put a card into the book.

    Raises
    ------
    Refused, BadInput
        With sentences at its fields.
    """
    trial = found.trial
    if found.missing():
        raise BadInput("served", found.missing())
    taster = taster_named(document.taster, guest=True)
    if trial.cards.filter(taster=taster, deleted_at__isnull=True).exists():
        raise BadInput("taster", f"{taster.nickname} has a card already; take it back first or use another name.")
    check_may_eat(found, taster)
    serving = serving_of(trial, taster, document.short)
    served = document.served or serving.served
    check_card(found, document, served, serving.served)
    samples = {sample.code: sample for sample in found.plates}
    free = not trial.cards.filter(number=serving.number).exists()
    card = Card.objects.create(
        trial=trial,
        taster=taster,
        number=serving.number if free else next_number(trial),
        served=served,
        prefers=samples[document.prefers] if document.prefers else _best_face(document, samples),
        odd=samples[document.odd] if document.odd else None,
        guess=samples[document.guess] if document.guess else None,
        words={said.code: list(dict.fromkeys(said.words)) for said in document.words if said.words},
        short=document.short,
        whole=not document.left,
        blind=not _knew(found, taster),
    )
    Score.objects.bulk_create(
        Score(card=card, sample=samples[s.code], scale=s.scale, value=s.value) for s in document.scores
    )
    if serving.gone_at is not None:
        leave(serving, gone=False)
    pin_cook(trial.cook)
    return card


def _knew(found: Loaded, taster: Taster) -> bool:
    return found.revealed or found.trial.looks.filter(taster=taster).exists()


def _best_face(document: CardDocument, samples: dict[str, Sample]) -> Sample | None:
    """Return the plate that a child's card votes for: the one with the best face, where one alone has it."""
    faces = {score.code: score.value for score in document.scores if score.scale == FACE_SCALE}
    best = [code for code, value in faces.items() if value == max(faces.values())] if len(faces) > 1 else []
    return samples[best[0]] if document.short and len(best) == 1 else None


def check_card(found: Loaded, document: CardDocument, served: list[str], given: list[str]) -> None:
    """Refuse a card that cannot be read, with a sentence at each field.

    Raises
    ------
    Refused
        Where something of it is wrong.
    """
    gather = Gather()
    plates = " and ".join(given)
    if sorted(served) != sorted(given):
        gather.refuse("served", f"Every plate that {document.taster} is given is served once: {plates}.")
    for field, code in (("prefers", document.prefers), ("odd", document.odd), ("guess", document.guess)):
        if code is not None and code not in given:
            gather.refuse(field, f"No plate on this card has the number {code}; it has {plates}.")
    seen: dict[tuple[str, str], int] = {}
    asked = {*found.trial.scales, FACE_SCALE} if document.short else {*found.trial.scales, "overall", RANK_SCALE}
    for at, score in enumerate(document.scores):
        if score.code not in given:
            gather.refuse(f"scores.{at}.code", f"No plate on this card has the number {score.code}; it has {plates}.")
        limits = gather.attempt(f"scores.{at}", scale_limits, score.scale)
        if limits is not None and score.scale == RANK_SCALE:
            limits = (1, len(given))  # of three plates none is the fourth
        if limits is not None and score.scale not in asked:
            gather.refuse(f"scores.{at}.scale", f"This card does not ask for {score.scale}.")
        if limits and not limits[0] <= score.value <= limits[1]:
            gather.refuse(f"scores.{at}.value", f"{score.scale} goes from {limits[0]} to {limits[1]}.")
        if (score.code, score.scale) in seen:
            gather.refuse(f"scores.{at}.scale", f"{score.scale} of {score.code} stands here twice.")
        seen[score.code, score.scale] = score.value
    for at, said in enumerate(document.words):
        if said.code not in given:
            gather.refuse(f"words.{at}.code", f"No plate on this card has the number {said.code}; it has {plates}.")
    _check_asked(found, document, given, seen, gather)
    gather.finish()


def _check_asked(
    found: Loaded, document: CardDocument, given: list[str], seen: dict[tuple[str, str], int], gather: Gather
) -> None:
    """Refuse a card that leaves out what its kind asks first; of who left early, one with nothing on it."""
    kind, said = found.trial.kind, bool(seen or document.prefers or document.odd or document.words)
    if document.left:
        if not said:
            gather.refuse("scores", "There is nothing on this card yet; say that its taster left instead.")
        return
    scale = FACE_SCALE if document.short else {"ranking": RANK_SCALE, "scores": "overall"}.get(kind, "")
    how = {
        FACE_SCALE: "Give {} a face too.", RANK_SCALE: "Put {} in order too.",
        "overall": "Say how much you like {} overall before the card goes in.",
    }  # fmt: skip
    for code in given if scale else []:
        if (code, scale) not in seen:
            gather.refuse("scores", how[scale].format(code))
    if kind == "triangle" and not document.short and document.odd is None:
        gather.refuse("odd", "Pick one out, even by guessing: which is not like the others?")


@router.posts("/{uuid:trial_id}/cards/{uuid:card_id}/delete")
def take_back_card(request: HttpRequest, trial_id: UUID, card_id: UUID) -> TableOut:
    """Take a card back; `restore` puts it in again."""
    trial = find_trial(trial_id)
    if not trial.cards.filter(pk=card_id, deleted_at__isnull=True).update(deleted_at=timezone.now()):
        raise Http404
    return table_out(trial_id)


@router.posts("/{uuid:trial_id}/cards/{uuid:card_id}/restore")
def restore_card(request: HttpRequest, trial_id: UUID, card_id: UUID) -> TableOut:
    """Undo taking a card back."""
    with transaction.atomic():
        trial = find_trial(trial_id)
        card = trial.cards.select_related("taster").filter(pk=card_id).first()
        if card is None:
            raise Http404
        if trial.cards.filter(taster=card.taster, deleted_at__isnull=True).exclude(pk=card_id).exists():
            raise BadInput(
                "card", f"{card.taster.nickname} has filled in another card since; take that one back first."
            )
        card.deleted_at = None
        card.save(update_fields=["deleted_at"])
    return table_out(trial_id)


@router.posts("/{uuid:trial_id}/seat")
def take_seat(request: HttpRequest, trial_id: UUID, document: SeatDocument) -> TableOut:
    """Give somebody the next order of plates, where they have none yet; nobody is given what they may not eat."""
    with transaction.atomic():
        found = load_trial(trial_id)
        if found.missing():
            raise BadInput("taster", found.missing())
        taster = taster_named(document.taster, guest=True)
        check_may_eat(found, taster)
        serving = serving_of(found.trial, taster, document.short)
        if serving.gone_at is not None or serving.short != document.short:
            serving.gone_at, serving.short = None, document.short
            serving.save(update_fields=["gone_at", "short"])
    return table_out(trial_id)


@router.posts("/{uuid:trial_id}/gone")
def say_gone(request: HttpRequest, trial_id: UUID, document: GoneDocument) -> TableOut:
    """Say that somebody left without a card, or that they are back; what is out of balance then is shown."""
    with transaction.atomic():
        trial = find_trial(trial_id)
        row = trial.servings.filter(taster__nickname__iexact=document.taster).first()
        if row is None:
            raise BadInput("taster", f"{document.taster} has no seat at this tasting.")
        leave(row, document.gone)
    return table_out(trial_id)


@router.posts("/{uuid:trial_id}/reveal")
def reveal(request: HttpRequest, trial_id: UUID) -> TableOut:
    """Tell which piece each number was, for good. Cards from here on are not blind."""
    with transaction.atomic():
        trial = find_trial(trial_id)
        if not trial.cards.filter(deleted_at__isnull=True).exists():
            raise BadInput("", "No card is in yet: a reveal before the first card would end the blind test.")
        if trial.revealed_at is None:
            trial.revealed_at = timezone.now()
            trial.save(update_fields=["revealed_at"])
            for told in after_reveal:
                told(trial)
    return table_out(trial_id)
