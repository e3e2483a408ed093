"""The season before: suppers at which the demo household compared rubbed with marinated. All made up, with a seed.

`TRUTHS` states what is true of each cut, so that a test can say whether verdicts found it.
"""

from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from random import Random

from ravska_core.working import BadInput

from book.cooks import Beginning, begin_cook
from book.demo_trials import Said, designed, fill_in, over
from book.evening import even_salt
from book.layers import usual_layer
from book.models import Blend, Household, Layer
from book.steps import lay_out_steps


@dataclass(frozen=True)
class Truth:
    """What is true of a cut: marinated less rubbed [points], how cooks and single cards scatter, and what can be known
    of it: ``first`` rubbed, ``second`` marinated, ``no matter``, or why it cannot."""

    points: float
    cook_sd: float
    card_sd: float
    known: str


TRUTHS: Mapping[str, Truth] = {
    "duck-leg": Truth(-2.0, 0.2, 0.9, "first"),
    "venison-haunch": Truth(1.8, 0.2, 1.0, "second"),
    "beef-cheek": Truth(0.0, 0.0, 0.5, "no matter"),
    "lamb-shoulder": Truth(-0.3, 0.3, 1.4, "not yet known"),
    "trout-whole": Truth(-0.3, 0.3, 1.3, "one cook"),
    "turkey-breast": Truth(0.8, 0.3, 1.3, "one cook"),
    "goat-leg": Truth(1.2, 0.3, 1.2, "no clean cook"),
    "turkey-thigh": Truth(2.4, 0.1, 0.7, "votes against"),
}

BOTH_POINTS = 0.9
"""How much better than the rubbed one that was marinated and then rubbed is [points]."""

OWN_TASTE = {"Old Pewter": 1.2}
"""Who likes the other way better than the rest, by how much [points]."""


@dataclass(frozen=True)
class Supper:
    """A supper of the season: its name, cut, how many days before, weight [g], both blends, who tasted; how far apart
    in salt it was left [% of the weight], how many preferred the rubbed where that was asked, and whether a third piece
    was marinated and then rubbed."""

    name: str
    cut: str
    days: int
    grams: float
    rub: str
    bath: str
    tasters: int
    saltier: float = 0.0
    prefers_rubbed: int | None = None
    both: bool = False


ORANGE = "orange and buttermilk"

SUPPERS = (
    Supper("Mill-basin supper, duck legs", "duck-leg", 262, 1150, "duck rub", "soy and honey", 6),
    Supper("Feeder-arm supper, beef cheeks", "beef-cheek", 241, 1800, "goat rub", "soy and honey", 8),
    Supper("Lantern supper, venison haunch", "venison-haunch", 227, 2300, "venison rub", ORANGE, 6),
    Supper("Turning-point lunch, turkey thighs", "turkey-thigh", 213, 820, "duck rub", ORANGE, 6, 0, 6),
    Supper("Stone-bench supper, beef cheeks", "beef-cheek", 199, 1850, "goat rub", "soy and honey", 8),
    Supper("Top-lock supper, lamb shoulder", "lamb-shoulder", 185, 2250, "lamb rub", ORANGE, 5, both=True),
    Supper("Winding-hole supper, duck legs", "duck-leg", 171, 1180, "duck rub", "soy and honey", 6),
    Supper("Long-pound lunch, turkey breast", "turkey-breast", 157, 1400, "goat rub", ORANGE, 5),
    Supper("Hollow-lane supper, venison haunch", "venison-haunch", 143, 2350, "venison rub", ORANGE, 6),
    Supper("Boathook supper, beef cheeks", "beef-cheek", 129, 1790, "goat rub", "soy and honey", 8),
    Supper("Stop-plank supper, goat leg", "goat-leg", 115, 2150, "goat rub", "goat yoghurt", 5, 0.9),
    Supper("Heron-bridge lunch, trout", "trout-whole", 101, 450, "goat rub", "lamb chops", 5),
    Supper("Reed-bed supper, beef cheeks", "beef-cheek", 94, 1820, "goat rub", "soy and honey", 8),
    Supper("Slipway lunch, turkey thighs", "turkey-thigh", 87, 840, "duck rub", ORANGE, 6, 0, 5),
    Supper("Aqueduct supper, lamb shoulder", "lamb-shoulder", 80, 2300, "lamb rub", ORANGE, 5, both=True),
    Supper("Basin regatta, duck legs", "duck-leg", 73, 1160, "duck rub", "soy and honey", 6),
    Supper("Chapel-lock supper, venison haunch", "venison-haunch", 66, 2280, "venison rub", ORANGE, 6),
    Supper("Fern-bank supper, beef cheeks", "beef-cheek", 59, 1810, "goat rub", "soy and honey", 8),
)

SCALES = ("overall", "crust", "tenderness", "juiciness", "meat flavour", "salt")


def season(house: Household, supper: datetime, made: Mapping[str, Blend], tasters: Sequence[str], seed: str) -> None:
    """Begin every supper of the season before, with its cards; each is over and revealed."""
    random = Random(f"The season before {seed}")
    own = {name: OWN_TASTE.get(name, random.gauss(0, 0.15)) for name in tasters}
    for at, one in enumerate(SUPPERS):
        _supper(house, supper, one, made, tasters, own, random, f"{seed}{at:02}")


def _supper(
    house: Household, supper: datetime, one: Supper, made: Mapping[str, Blend], tasters: Sequence[str],
    own: Mapping[str, float], random: Random, seed: str,
) -> None:  # fmt: skip
    when = supper - timedelta(days=one.days)
    pieces = [
        Beginning("Rubbed", one.cut, one.grams, f"{one.grams:g} g", made[one.rub]),
        Beginning("Marinated", one.cut, one.grams, f"{one.grams:g} g", made[one.bath]),
    ]
    if one.both:
        pieces.append(Beginning("Both", one.cut, one.grams, f"{one.grams:g} g", made[one.bath]))
    cook = begin_cook(house, one.name, when, pieces, seed=seed)
    if one.both:
        third = cook.pieces.get(letter="C")
        usual_layer(third, 1, made[one.rub]).save()
        lay_out_steps(third)
    with suppress(BadInput):
        even_salt(cook)
    if one.saltier:
        Layer.objects.create(
            piece=cook.pieces.get(letter="A"), position=9, kind="pre-salt", grind="kosher-dense/flake",
            dose=one.saltier, dose_typed=f"{one.saltier:g}", hold_s=3600.0, hold_typed="1 h",
        )  # fmt: skip
    seats = [tasters[(place * 3 + one.days) % len(tasters)] for place in range(one.tasters)]
    first = [name for name in OWN_TASTE if one.cut == "duck-leg"]
    seats = list(dict.fromkeys([*first, *seats, *tasters]))[: one.tasters]
    voted = one.prefers_rubbed is not None
    trial = designed(
        cook, seats, kind="preference" if voted else "scores", planned_cards=len(seats), scales=list(SCALES),
        guess=False, question="Rubbed or marinated?", serving={"warm": "55 °C", "sip": "water"},
    )  # fmt: skip
    truth = TRUTHS[one.cut]
    moved = random.gauss(0, truth.cook_sd)
    for place, name in enumerate(seats):
        differs = truth.points + moved + (0 if one.cut in ("beef-cheek", "turkey-thigh") else own[name])
        prefers = ("A" if place < (one.prefers_rubbed or 0) else "B") if voted else ""
        scores, words = _said(random, differs + random.gauss(0, truth.card_sd))
        if one.both:
            scores["C"] = {**scores["B"], "overall": _near(scores["A"]["overall"] + random.gauss(BOTH_POINTS, 0.9))}
        fill_in(trial, Said(name, scores=scores, prefers=prefers, words=words), when + timedelta(minutes=25))
    over(trial, when + timedelta(minutes=45))


def _near(points: float, low: int = 1, high: int = 9) -> int:
    return int(min(high, max(low, round(points))))


def _said(random: Random, differs: float) -> tuple[dict[str, dict[str, int]], dict[str, list[str]]]:
    """Return the scores and words of a card whose taster likes the second by so much more [points]."""
    level = random.choice((5.5, 6.0, 6.5))

    scores = {}
    for letter, sign in (("A", -1), ("B", 1)):
        liked = level + sign * differs / 2
        scores[letter] = {
            "overall": _near(liked),
            "crust": _near(liked + (0.9 if letter == "A" else -0.9) + random.gauss(0, 0.5)),
            "tenderness": _near(liked + (0.4 if letter == "B" else 0) + random.gauss(0, 0.5)),
            "juiciness": _near(liked + (0.6 if letter == "B" else 0) + random.gauss(0, 0.5)),
            "meat flavour": _near(liked + (0.6 if letter == "A" else -0.6) + random.gauss(0, 0.5)),
            "salt": _near(3 + random.gauss(0, 0.5), 1, 5),
        }
    words = {
        "A": random.sample(("crunch", "smoke", "herbs", "tastes of meat"), 2),
        "B": random.sample(("juicy", "tender", "sweet", "lingers"), random.choice((1, 2))),
    }
    return scores, words
