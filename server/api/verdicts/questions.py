"""What is asked of the book: two ways against each other, of which cuts, cooks and tasters."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from itertools import combinations
from typing import Annotated, Literal
from uuid import UUID

from book.models import Band, Blend
from ninja import Schema
from pydantic import Field
from ravska_core.across import (
    MARGIN,
    SCHOOLS,
    TRAITS,
    WAYS,
    Evidence,
    Muddy,
    PairCard,
    PairCook,
    by_side,
    has_trait,
    mean_of,
    pair_votes,
)
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

from api.plumbing.household import household
from api.verdicts.records import CardRecord, SampleRecord, TrialRecord, nicknames

Kind = Literal["way", "blend", "revision"]
Who = Literal["table", "guest"]
Side = Annotated[str, Field(max_length=60)]
SEASONS = {"winter": (12, 1, 2), "spring": (3, 4, 5), "summer": (6, 7, 8), "autumn": (9, 10, 11)}
"""Months of the seasons."""


class Question(Schema):
    """Two ways against each other: what kind they are of, and each as that kind has it.

    A way goes by its key, a blend by its id, a revision by that of its blend, ``@`` and its number; with none
    it is the pair that the book knows most of. `who` asks for this
    table or for a guest. Of what is left empty all counts: `cuts` and `tasters` are separated by commas, `season` is
    one of the four, `cooker` one by name, `school` shorter or longer holds, `trait` a trait that cuts have, or with
    ``not `` before it one that they lack.
    """

    kind: Kind = "way"
    first: Side = ""
    second: Side = ""
    who: Who = "table"
    cuts: Annotated[str, Field(max_length=2000)] = ""
    tasters: Annotated[str, Field(max_length=2000)] = ""
    season: Annotated[str, Field(max_length=10)] = ""
    cooker: Annotated[str, Field(max_length=80)] = ""
    school: Annotated[str, Field(max_length=10)] = ""
    trait: Annotated[str, Field(max_length=20)] = ""


@dataclass(frozen=True, slots=True)
class CookLeftOut:
    """A cook that had both on the table and counts for nothing here, and why."""

    cook_id: UUID
    cook: str
    says: str


@dataclass(frozen=True, slots=True)
class Found:
    """What the book says of a question: its evidence, the names of its sides, and what it leaves out.

    `holds` are how long either is held on a cut [s], mean of its cooks.
    """

    evidence: Evidence
    names: tuple[str, str]
    margin: float
    left_out: list[CookLeftOut]
    holds: dict[str, tuple[float, float]]
    trials: dict[UUID, UUID]


@dataclass(frozen=True, slots=True)
class PairOut:
    """Two sides that some cook had on the table: what they are called, and of how many cooks and cards."""

    kind: Kind
    first: str
    second: str
    names: tuple[str, str]
    cooks: int
    cards: int


def _sides_of(sample: SampleRecord) -> Iterator[tuple[Kind, str]]:
    """Return what a sample is an example of, by kind."""
    yield "way", sample.way
    if sample.blend is not None:
        yield "blend", str(sample.blend)
        if sample.revision is not None:
            yield "revision", f"{sample.blend}@{sample.revision}"


def _is_of(sample: SampleRecord, kind: Kind, side: str) -> bool:
    return (kind, side) in _sides_of(sample)


def blend_names() -> dict[str, str]:
    """Return what the blends of this household are called, also those that were deleted."""
    rows = Blend.objects.filter(household=household()).order_by().values_list("pk", "name")
    return {str(key): name for key, name in rows}


def name_of(kind: Kind, side: str, blends: dict[str, str]) -> str:
    """Return what a sentence calls a side.

    Raises
    ------
    BadInput
        At ``first`` where there is no such side.
    """
    key, _, number = side.partition("@")
    if kind == "way" and side in WAYS:
        return WAYS[side]
    if kind == "blend" and side in blends:
        return blends[side]
    if kind == "revision" and key in blends and number.isdecimal():
        return f"{blends[key]} {number}"
    raise BadInput("first", "There is no such way or blend; choose one of those that are offered.")


def ordered(kind: Kind, one: str, other: str) -> tuple[str, str]:
    """Return two sides in the order their question has them, whichever comes first in a cook."""
    if kind == "way":
        order = list(WAYS)
        return (one, other) if order.index(one) <= order.index(other) else (other, one)
    if kind == "revision":
        numbers = [int(side.partition("@")[2]) for side in (one, other)]
        return (one, other) if numbers[0] <= numbers[1] else (other, one)
    return (one, other) if one <= other else (other, one)


def pairs_of(rows: Sequence[TrialRecord]) -> list[PairOut]:
    """Return the pairs that the book can answer, the fullest first."""
    cooks: Counter[tuple[Kind, str, str]] = Counter()
    cards: Counter[tuple[Kind, str, str]] = Counter()
    for record in rows:
        here = record.remembered(("pairs",), partial(_pairs_in, record))
        for key, count in here.items():
            cooks[key] += 1
            cards[key] += count
    blends = blend_names()
    found = [
        PairOut(*key, (name_of(key[0], key[1], blends), name_of(key[0], key[2], blends)), cooks[key], cards[key])
        for key in cooks
    ]
    kinds = ("way", "blend", "revision")
    return sorted(found, key=lambda one: (-one.cards, kinds.index(one.kind), one.names))


def _pairs_in(record: TrialRecord) -> dict[tuple[Kind, str, str], int]:
    """Return the pairs that one tasting can answer, with how many cards."""
    found: dict[tuple[Kind, str, str], int] = {}
    if record.kind == "triangle":
        return found
    votes = sum(card.prefers is not None for card in record.cards)
    for a, b in combinations(record.samples, 2):
        if a.cut != b.cut or (a.letter, b.letter) not in record.muddied:
            continue
        both = sum(_scores_both(card, a, b) for card in record.cards) or votes
        for (kind, one), (other_kind, other) in ((x, y) for x in _sides_of(a) for y in _sides_of(b)):
            same_blend = one.partition("@")[0] == other.partition("@")[0]
            if kind != other_kind or one == other or (kind == "revision" and not same_blend):
                continue
            key = (kind, *ordered(kind, one, other))
            found[key] = max(found.get(key, 0), both)
    return found


def _scores_both(card: CardRecord, a: SampleRecord, b: SampleRecord) -> bool:
    liked = card.scores.get("overall", {})
    return not card.short and a.key in liked and b.key in liked


def margin_of(question: Question) -> float:
    """Return the difference that matters in a question: as its table chose it before it looked, else half a point."""
    found = Band.objects.filter(
        household=household(), kind=question.kind, first=question.first, second=question.second
    ).values_list("margin", flat=True)  # fmt: skip
    return next(iter(found), MARGIN)


def find(question: Question, rows: Sequence[TrialRecord], names_of_cooks: dict[UUID, str]) -> Found:
    """Gather what the book says of a question.

    Raises
    ------
    BadInput
        At the field of the question that asks for what there is not.
    """
    _check(question)
    blends = blend_names()
    if question.first == question.second:
        raise BadInput("second", "Ask about two different ways.")
    names = (name_of(question.kind, question.first, blends), name_of(question.kind, question.second, blends))
    wanted = frozenset(name.strip().lower() for name in question.tasters.split(",") if name.strip())
    tasters = nicknames()
    asked = (*question.model_dump(exclude={"who"}).values(), *names, hash(frozenset(tasters.items())))
    left_out: list[CookLeftOut] = []
    found: list[PairCook] = []
    holds: dict[str, list[tuple[float, float]]] = {}
    trials: dict[UUID, UUID] = {}
    for record in rows:
        cook = names_of_cooks.get(record.cook, "")
        says = record.remembered((*asked, cook), partial(_says, record, question, names, wanted, tasters, cook))
        if isinstance(says, str):
            if says:
                left_out.append(CookLeftOut(record.cook, cook, says))
            continue
        pair_cook, held = says
        found.append(pair_cook)
        holds.setdefault(pair_cook.cut, []).append(held)
        trials[record.cook] = record.trial
    cuts = tuple(sorted({cook.cut for cook in found}, key=lambda cut: find_cut(cut).name))
    mean_holds = {
        cut: (sum(pair[0] for pair in some) / len(some), sum(pair[1] for pair in some) / len(some))
        for cut, some in holds.items()
    }  # fmt: skip
    return Found(Evidence(tuple(found), cuts), names, margin_of(question), left_out, mean_holds, trials)


def _says(
    record: TrialRecord,
    question: Question,
    names: tuple[str, str],
    wanted: frozenset[str],
    tasters: dict[UUID, str],
    cook: str,
) -> tuple[PairCook, tuple[float, float]] | str:
    """Return what one tasting says of a question, and how long either side was held [s].

    Where it counts for nothing, why; empty where it is none of those that are asked about.
    """
    if record.kind == "triangle" or not _counts(record, question):
        return ""
    a, b = ([one for one in record.samples if _is_of(one, question.kind, side)]
            for side in (question.first, question.second))  # fmt: skip
    if not a or not b:
        return ""
    if record.fault:
        return f"It could not be read: {record.fault}"
    together = [
        (one, other) for one in a for other in b
        if one.cut == other.cut and _read(record, one, other) is not None and _wanted(one, other, question)
    ]  # fmt: skip
    if not together:
        apart = all(one.cut != other.cut for one in a for other in b)
        return "They were of different cuts, so cut and seasoning cannot be told apart." if apart else ""
    cards = [card for card in record.cards if not wanted or tasters.get(card.taster, "").lower() in wanted]
    muddy = mean_of([_read(record, one, other) or () for one, other in together])
    if len(together) == 1:
        muddy = by_side(muddy, {sample.letter: name for sample, name in zip(together[0], names, strict=True)})
    scored = tuple(filter(None, (_card(card, together, tasters) for card in cards)))
    votes = pair_votes([
        _vote(card.prefers, together) for card in cards if record.kind == "preference" and card.blind
    ])  # fmt: skip
    at, cut = record.serve_at.isoformat(), together[0][0].cut
    first, second = ([pair[side] for pair in together] for side in (0, 1))
    pair_cook = PairCook(str(record.cook), cook, at, cut, scored, votes, muddy)
    return pair_cook, (_mean_hold_s(first), _mean_hold_s(second))


def _mean_hold_s(samples: Sequence[SampleRecord]) -> float:
    return sum(one.hold_s for one in samples) / len(samples)


def _check(question: Question) -> None:
    if question.season and question.season not in SEASONS:
        raise BadInput("season", f"A season is one of {', '.join(SEASONS)}.")
    if question.school and question.school not in SCHOOLS:
        raise BadInput("school", "A school has shorter or longer holds; choose one of these, or none for both.")
    if question.trait and question.trait.removeprefix("not ") not in {one.key for one in TRAITS}:
        raise BadInput("trait", f"A trait is one of {', '.join(one.key for one in TRAITS)}, with “not ” before it for "
                                "cuts that lack it.")  # fmt: skip


def _counts(record: TrialRecord, question: Question) -> bool:
    """Tell whether a cook is one of those that are asked about."""
    months = SEASONS.get(question.season)
    if months and record.serve_at.month not in months:
        return False
    return not question.cooker or question.cooker in record.cookers


def _wanted(one: SampleRecord, other: SampleRecord, question: Question) -> bool:
    cuts = {cut.strip() for cut in question.cuts.split(",") if cut.strip()}
    if cuts and one.cut not in cuts:
        return False
    if question.school and question.school not in (one.school, other.school):
        return False
    trait = question.trait.removeprefix("not ")
    return not trait or has_trait(trait, find_cut(one.cut)) != question.trait.startswith("not ")


def _read(record: TrialRecord, one: SampleRecord, other: SampleRecord) -> tuple[Muddy, ...] | None:
    """Return what else differed between two samples, the second less the first; None where they were not compared."""
    straight = record.muddied.get((one.letter, other.letter))
    if straight is not None:
        return straight
    turned = record.muddied.get((other.letter, one.letter))
    return None if turned is None else tuple(Muddy(muddy.what, -muddy.size, muddy.sentence) for muddy in turned)


Together = Sequence[tuple[SampleRecord, SampleRecord]]


def _card(card: CardRecord, together: Together, tasters: dict[UUID, str]) -> PairCard | None:
    """Return a card as the core takes it; None for a child's, and for one that did not score both."""
    if card.short:
        return None
    scores = {scale: both for scale, given in card.scores.items() if (both := _both(given, together)) is not None}
    if "overall" not in scores:
        return None
    first, second = scores["overall"]
    return PairCard(
        tasters.get(card.taster, str(card.taster)), second - first, _first(card, together), card.blind,
        (first, second), scores, _words(card, together),
    )  # fmt: skip


def _both(given: Mapping[UUID, int], together: Together) -> tuple[float, float] | None:
    pairs = [(given[one.key], given[other.key]) for one, other in together if one.key in given and other.key in given]
    if not pairs:
        return None
    return sum(a for a, _ in pairs) / len(pairs), sum(b for _, b in pairs) / len(pairs)


def _first(card: CardRecord, together: Together) -> float:
    """Return half for what came first on a card, 0 where that is not known, or is so and so."""
    turns = set()
    for one, other in together:
        if one.code in card.served and other.code in card.served:
            turns.add(0.5 if card.served.index(other.code) < card.served.index(one.code) else -0.5)
    return turns.pop() if len(turns) == 1 else 0.0


def _words(card: CardRecord, together: Together) -> tuple[tuple[str, ...], tuple[str, ...]]:
    sides = ([one for one, _ in together], [other for _, other in together])
    said = [
        tuple(dict.fromkeys(word for sample in side for word in card.words.get(sample.code, ()))) for side in sides
    ]  # fmt: skip
    return said[0], said[1]


def _vote(prefers: UUID | None, together: Together) -> int | None:
    for one, other in together:
        if prefers == one.key:
            return 0
        if prefers == other.key:
            return 1
    return None
