"""Tastings of the demo household: one of each kind, with the cards that its tasters filled. All made up."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from random import Random

from ravska_core.trial import RANK_SCALE

from book.cooks import Beginning, begin_cook, pin_cook
from book.evening import add_salt, even_salt
from book.models import Blend, Card, Cook, Household, Layer, Sample, Score, Step, Taster, Trial
from book.steps import lay_out_steps
from book.tasting import arrange, lay_orders, plates_of, seat, serving_of


@dataclass(frozen=True)
class Said:
    """What somebody says of plates, by letter, a twin's with a mark: an order, scores, one picked, and words."""

    taster: str
    order: str = ""
    scores: Mapping[str, Mapping[str, int]] = field(default_factory=dict)
    prefers: str = ""
    right: bool = False
    words: Mapping[str, Sequence[str]] = field(default_factory=dict)
    guess: str = ""
    short: bool = False


def fill_in(trial: Trial, said: Said, at: datetime) -> Card:
    """Put a card of a demo taster into the book, in the order that taster was given."""
    taster, _ = Taster.objects.get_or_create(household=trial.cook.household, nickname=said.taster)
    serving = serving_of(trial, taster, said.short)
    plates = _by_letter(trial)
    picked = None
    if trial.kind == "triangle":
        served = [letter for code in serving.served for letter, plate in plates.items() if plate.code == code]
        odd = next(one for one in served if sum(other[0] == one[0] for other in served) == 1)
        picked = plates[odd if said.right else next(one for one in served if one != odd)]
    card = Card.objects.create(
        trial=trial, taster=taster, number=serving.number, served=serving.served, blind=True, scored_at=at,
        prefers=plates[said.prefers] if said.prefers else None, odd=picked, short=said.short,
        guess=plates[said.guess] if said.guess else None,
        words={plates[letter].code: list(words) for letter, words in said.words.items()},
    )  # fmt: skip
    ranks = [(letter, RANK_SCALE, place) for place, letter in enumerate(said.order, 1)]
    given = [(letter, scale, value) for letter, scores in said.scores.items() for scale, value in scores.items()]
    Score.objects.bulk_create(
        Score(card=card, sample=plates[letter], scale=scale, value=value) for letter, scale, value in [*ranks, *given]
    )
    return card


def _by_letter(trial: Trial) -> dict[str, Sample]:
    """Return the plates by letter; the twin of A under A'."""
    return {plate.meat().letter + ("'" if plate.twin_of_id else ""): plate for plate in plates_of(trial)}


def designed(cook: Cook, seats: Sequence[str], twin: bool = False, **columns: object) -> Trial:
    """Give a cook's trial its design and seat these."""
    trial: Trial = cook.trial
    for name, value in columns.items():
        setattr(trial, name, value)
    trial.version += 1
    trial.save()
    arrange(trial, twin)
    rows = [Taster.objects.get_or_create(household=cook.household, nickname=name)[0] for name in seats]
    seat(trial, [(row, False) for row in rows])
    return Trial.objects.get(pk=trial.pk)


def over(trial: Trial, at: datetime) -> None:
    """Say that a cook is over, and reveal its trial."""
    Step.objects.filter(piece__cook=trial.cook).update(done_at=trial.cook.serve_at)
    Trial.objects.filter(pk=trial.pk).update(revealed_at=at)
    pin_cook(trial.cook)


def _whole(name: str, cut: str, grams: float, blend: Blend | None) -> Beginning:
    return Beginning(name, cut, grams, f"{grams:g} g", blend)


def scored(house: Household, when: datetime, made: Mapping[str, Blend], tasters: Sequence[str], seed: str) -> None:
    """Begin a supper that was scored, with a hidden twin: lamb breast, pasted with fennel or rubbed."""
    pieces = [
        _whole("Pasted", "lamb-breast", 1250, made["fennel paste"]),
        _whole("Rubbed", "lamb-breast", 1270, made["goat rub"]),
    ]  # fmt: skip
    cook = begin_cook(house, "Swing-bridge supper, lamb breast", when, pieces, seed=seed)
    even_salt(cook)
    trial = designed(
        cook, tasters, twin=True, kind="scores", planned_cards=len(tasters), guess=True,
        scales=["overall", "crust", "juiciness", "meat flavour", "salt", "smoke"], words=["fennel"],
        question="Pasted or rubbed: which do we like better?",
        serving={"warm": "55 °C", "sip": "water", "shared": ["one board"]},
    )  # fmt: skip
    random = Random("Swing-bridge supper")
    twinned = next(letter[0] for letter in _by_letter(trial) if letter.endswith("'"))
    for name in tasters:
        level = random.choice((6, 6, 7))
        better = level + random.choice((0, 1, 1, 2))
        scores = {"A": _scores(random, level, salt=random.choice((2, 3, 3))), "B": _scores(random, better, salt=3)}
        scores[f"{twinned}'"] = {"overall": scores[twinned]["overall"] + random.choice((-1, 0, 0, 1))}
        words = {
            "A": ["fennel", random.choice(("lingers", "tender"))],
            "B": ["crunch", random.choice(("smoke", "herbs"))],
        }
        guess = random.choice(("A", "A", "B"))
        fill_in(trial, Said(name, scores=scores, words=words, guess=guess), when + timedelta(minutes=20))
    over(trial, when + timedelta(minutes=35))


def _scores(random: Random, overall: int, salt: int) -> dict[str, int]:
    near = {scale: min(9, overall + random.choice((-1, 0, 0, 1))) for scale in ("crust", "juiciness", "meat flavour")}
    return {"overall": min(9, overall), **near, "salt": salt, "smoke": random.choice((3, 3, 2))}


def by_threes(house: Household, when: datetime, made: Mapping[str, Blend], tasters: Sequence[str], seed: str) -> None:
    """Begin a lunch at which they tried to tell two by threes: turkey thighs, salted an hour ahead or overnight."""
    pieces = [
        _whole("An hour ahead", "turkey-thigh", 820, made["duck rub"]),
        _whole("Overnight", "turkey-thigh", 830, made["duck rub"]),
    ]  # fmt: skip
    cook = begin_cook(house, "Cabin lunch, turkey thighs", when, pieces, seed=seed)
    for piece, (hold_s, typed) in zip(cook.pieces.all(), ((3600.0, "1 h"), (14 * 3600.0, "14 h")), strict=True):
        Layer.objects.filter(piece=piece).update(hold_s=hold_s, hold_typed=typed)
        lay_out_steps(piece)
    guests = ("Bittern", "Grebe", "Sandpiper", "Curlew")
    trial = designed(
        cook, (*tasters, *guests), kind="triangle", planned_cards=12, scales=[],
        question="Can anyone tell an hour of rub from a night of it?",
    )  # fmt: skip
    for at, name in enumerate((*tasters, *guests)):
        fill_in(trial, Said(name, right=at % 2 == 0, words={}), when + timedelta(minutes=15))
    over(trial, when + timedelta(minutes=30))


def half_tasted(house: Household, now: datetime, made: Mapping[str, Blend], tasters: Sequence[str], seed: str) -> None:
    """Begin a tasting that waits for the rest of its cards: three mackerel, ranked, two of six cards in."""
    pieces = [
        _whole("Salted", "mackerel-whole", 380, made["trout salt"]),
        _whole("Pasted", "mackerel-whole", 390, made["fennel paste"]),
        _whole("Rubbed", "mackerel-whole", 385, made["goat rub"]),
    ]  # fmt: skip
    when = now.replace(minute=now.minute // 15 * 15, second=0, microsecond=0) - timedelta(minutes=30)
    cook = begin_cook(house, "Mackerel on the towpath", when, pieces, seed=seed)
    add_salt(cook.pieces.get(letter="A"), 1.0)
    trial = designed(
        cook, tasters, kind="ranking", planned_cards=len(tasters), scales=["overall", "salt"], guess=False,
        question="Juniper salt, fennel paste or a goat rub?", serving={"warm": "50 °C", "sip": "cold tea"},
    )  # fmt: skip
    Step.objects.filter(piece__cook=cook).update(done_at=when)
    for name, order, liked in zip(tasters[:2], ("BAC", "BCA"), ((6, 8, 5), (5, 7, 6)), strict=True):
        scores = {letter: {"overall": value, "salt": 3} for letter, value in zip("ABC", liked, strict=True)}
        fill_in(trial, Said(name, order=order, scores=scores, words={"B": ["lingers"]}), now - timedelta(minutes=10))
    lay_orders(trial)
    pin_cook(cook)
