"""What one trial says, by its kind, in words; and what explains it: worked out by hand and with SciPy beside it."""

from dataclasses import replace

import numpy as np
import pytest
from ravska_core.trial import (
    Plate,
    ReadCard,
    TastedTrial,
    agreement,
    guesses,
    penalties,
    picked_odd,
    read_trial,
    right_votes,
    tasters,
    words,
)  # fmt: skip
from scipy import stats

NAMES = ("Rubbed", "Marinated")
TWO = (Plate(0), Plate(1))
THREE = (Plate(0), Plate(1), Plate(2))


def trial(kind: str, cards, names=NAMES, plates=TWO, planned=12, **more) -> TastedTrial:
    return TastedTrial(kind, names, plates, tuple(cards), planned, **more)


def scored(at: int, *overall: int, **more) -> ReadCard:
    return ReadCard(f"Boat {at}", scores={(n, "overall"): value for n, value in enumerate(overall)}, **more)


def ranked(at: int, *ranks: int, **more) -> ReadCard:
    return ReadCard(f"Boat {at}", scores={(n, "rank"): value for n, value in enumerate(ranks)}, **more)


def test_without_cards_and_before_the_reveal_nothing_is_told_but_of_a_preference():
    assert read_trial(trial("scores", []), False).state == "no cards"
    assert read_trial(trial("scores", [], planned=1), True).says == ("This trial states 1 card.",)
    six = [scored(n, 5, 8) for n in range(6)]
    kept = read_trial(trial("scores", six), False)
    assert (kept.state, kept.pairs, kept.probability) == ("kept", (), None)
    assert kept.says == ("6 cards of 12 in. What they say is kept until the reveal.",)
    one = read_trial(trial("scores", six[:1]), False)
    assert one.says[0].startswith("1 card of 12 in.")
    preferred = read_trial(trial("preference", [ReadCard("Boat", prefers=1)]), False)
    assert (preferred.state, preferred.counts) == ("not yet known", (0, 1))


def test_a_preference_says_its_counts_for_one_two_and_many():
    cards = [ReadCard(f"Boat {n}", prefers=0 if n < 1 else 1) for n in range(9)]
    found = read_trial(trial("preference", [*cards, ReadCard("x")]), True)
    assert found.says[0].startswith("1 prefers Rubbed, 8 Marinated, 1 has no preference. Chance alone splits")
    assert (found.state, found.winner, found.headline) == ("not yet known", None, "Not yet known")
    many = read_trial(trial("preference", [*cards[1:], *[ReadCard(f"y{n}") for n in range(2)]]), True)
    assert many.says[0].startswith("0 prefer Rubbed, 8 Marinated, 2 have no preference.")
    assert (many.winner, many.headline) == (1, "Marinated won")
    # a child's vote is a vote, and one after the stated number none
    children = [replace(card, short=True) for card in cards[1:]]
    assert read_trial(trial("preference", children, planned=8), True).winner == 1
    late = [*cards[:2], *[ReadCard(f"z{n}", prefers=0) for n in range(9)]]
    assert read_trial(trial("preference", late, planned=2), True).counts == (1, 1)


def test_scores_are_tested_as_students_differences_and_their_interval_said():
    pairs = [(5, 7), (6, 7), (5, 8), (7, 7), (6, 8), (5, 6), (6, 9)]
    found = read_trial(trial("scores", [scored(n, *pair) for n, pair in enumerate(pairs)]), True)
    theirs = stats.ttest_rel([b for _, b in pairs], [a for a, _ in pairs])
    low, high = theirs.confidence_interval(0.95)
    (pair,) = found.pairs
    assert pair.probability == pytest.approx(theirs.pvalue)
    assert (pair.liking.low, pair.liking.high) == pytest.approx((low, high))
    assert (found.state, found.winner, found.headline) == ("winner", 1, "Marinated is liked better")
    assert found.says[0] == (
        f"Marinated is liked better than Rubbed by 1.7 points, 95 times in 100 between {low:.1f} and {high:.1f}."
    )
    assert found.counts == pytest.approx((40 / 7, 52 / 7))
    # turned round, the other wins, by as much and as surely
    other = read_trial(trial("scores", [scored(n, b, a) for n, (a, b) in enumerate(pairs)]), True)
    assert (other.winner, other.pairs[0].liking.mean) == (0, pytest.approx(-pair.liking.mean))
    assert other.says[0] == found.says[0].replace("Marinated", "x").replace("Rubbed", "Marinated").replace(
        "x", "Rubbed"
    )


def test_five_cards_name_nobody_whatever_they_say_and_six_can():
    five = read_trial(trial("scores", [scored(n, 1, 9) for n in range(5)]), True)
    assert (five.state, five.says[-1]) == (
        "no winner", "With fewer than 6 cards nothing is named, however they fall.",
    )  # fmt: skip
    assert read_trial(trial("scores", [scored(n, 1, 9) for n in range(6)]), True).winner == 1
    alike = read_trial(trial("scores", [scored(n, 6, 6) for n in range(8)]), True)
    assert (alike.winner, alike.pairs[0].says.split(",")[0]) == (None, "Rubbed and Marinated are liked alike")
    assert alike.says[-1].startswith("That is not to say that they are alike")
    one = read_trial(trial("scores", [scored(0, 5, 7)]), True)
    assert one.pairs[0].says == "Marinated is liked better than Rubbed by 2.0 points; one card cannot say how surely."
    none = read_trial(trial("scores", [scored(0, 5)]), True)
    assert none.headline == "Nothing to compare"


def test_late_childrens_and_surplus_cards_decide_nothing_of_scores():
    cards = [scored(n, 4, 8) for n in range(6)]
    for change in ({"late": True}, {"short": True}):
        more = [*cards, *[replace(scored(9 + n, 9, 1), **change) for n in range(6)]]
        assert read_trial(trial("scores", more), True).pairs[0].cards == 6
    assert read_trial(trial("scores", [*cards, scored(7, 9, 1)], planned=6), True).pairs[0].cards == 6
    late = read_trial(trial("scores", [replace(card, late=True) for card in cards]), True)
    assert late.headline == "No card that counts"


def test_of_three_the_best_is_named_only_where_it_beats_both_with_all_pairs_reckoned():
    names, cards = ("A", "B", "C"), []
    random = np.random.default_rng(4)
    for n in range(10):
        level = random.integers(4, 6)
        cards.append(scored(n, level, level + 2 + n % 2, level + n % 3 - 1))
    found = read_trial(trial("scores", cards, names, THREE), True)
    assert (found.winner, len(found.pairs), found.headline) == (1, 3, "B is liked best")
    raw = [pair.probability for pair in found.pairs]
    # Holm by hand: the smallest three times, the next twice, never falling
    order = sorted(raw)
    by_hand = [min(1, 3 * order[0]), max(3 * order[0], 2 * order[1]), max(3 * order[0], 2 * order[1], order[2])]
    assert sorted(pair.adjusted for pair in found.pairs) == pytest.approx(by_hand)
    # what the name rests on is the weaker of the two pairs that it beat
    weaker = max(pair.adjusted for pair in found.pairs if 1 in (pair.first, pair.second))
    assert weaker > min(pair.adjusted for pair in found.pairs)
    assert found.probability.value == pytest.approx(weaker)
    assert found.says[-1].startswith("Where nothing differs, the weakest difference that this rests on comes up in")
    assert "all 3 pairs reckoned with" in found.says[-1]
    close = [scored(n, 5, 7 + n % 2, 7 + (n + 1) % 2) for n in range(10)]
    assert read_trial(trial("scores", close, names, THREE), True).winner is None


def test_a_ranking_is_friedmans_and_says_which_are_too_close():
    names = ("A", "B", "C")
    rows = [(1, 2, 3), (1, 2, 3), (1, 3, 2), (2, 1, 3), (1, 2, 3), (1, 2, 3), (1, 3, 2), (1, 2, 3)]
    found = read_trial(trial("ranking", [ranked(n, *row) for n, row in enumerate(rows)], names, THREE), True)
    theirs = stats.friedmanchisquare(*np.array(rows).T)
    assert found.probability.steps[-2].value == pytest.approx(theirs.statistic)
    assert found.counts == (9, 17, 22)
    # 1.96 (8 3 4 / 6)^0.5 = 7.84: A is 8 ahead of B
    assert (found.state, found.winner, found.headline) == ("winner", 0, "A ranked best")
    assert [pair.apart for pair in found.pairs] == [True, True, False]
    assert found.pairs[2].says == "B before C by 5, not apart: it takes 7.8."
    closer = [*rows[:-1], (2, 1, 3)]
    tied = read_trial(trial("ranking", [ranked(n, *row) for n, row in enumerate(closer)], names, THREE), True)
    assert tied.winner is None
    assert tied.says[-1] == "Something differs, but A and B are too close to be told apart."
    none = read_trial(trial("ranking", [ranked(n, *rows[n % 3]) for n in range(2)], names, THREE), True)
    assert none.says[-1].startswith("That is not to say that they are alike")
    assert read_trial(trial("ranking", [ReadCard("x")], names, THREE), True).headline == "No whole order is in"


def test_a_twin_is_left_out_of_the_order_and_of_the_best():
    names, plates = ("A", "B"), (Plate(0), Plate(1), Plate(0, twin=True))
    cards = [ranked(n, 2, 3, 1) for n in range(6)]
    found = read_trial(trial("ranking", cards, names, plates), True)
    assert found.counts == (6, 12)
    one = trial("scores", [scored(0, 5, 7, 9)], names, plates)
    assert one.best(one.cards[0]) == {1}
    assert trial("scores", [scored(0, 7, 7, 9)], names, plates).best(scored(0, 7, 7, 9)) == set()
    assert one.best(ranked(0, 1, 1, 3)) == set()
    assert one.best(ReadCard("x", prefers=2)) == {0}
    child = ReadCard("x", short=True, scores={(0, "face"): 3, (1, "face"): 1})
    assert one.best(child) == {0}


FOUR = (Plate(0), Plate(0, twin=True), Plate(1), Plate(1, twin=True))


def threes(right: int, n: int) -> TastedTrial:
    cards = []
    for at in range(n):
        served = (0, 1, 2) if at % 2 else (2, 0, 3)  # the odd one is plate 2, or plate 0
        odd = (2 if at % 2 else 0) if at < right else (0 if at % 2 else 2)
        cards.append(ReadCard(f"Boat {at}", served=served, odd=odd))
    return trial("triangle", cards, plates=FOUR)


# ISO 4120: 8 of 12 are the fewest at 5 %
def test_a_triangle_is_told_apart_from_the_published_number_on():
    seven, eight = (read_trial(threes(right, 12), True) for right in (7, 8))
    assert (seven.state, eight.state, eight.needed) == ("not told apart", "told apart", 8)
    assert eight.headline == "Rubbed and marinated can be told apart"
    # (8 / 12 - 1 / 3) 1.5 = 0.5
    assert eight.says[1].startswith("About 50 % of them can tell")
    assert seven.counts == (7, 5)
    assert "found 6 times in 10" in seven.says[1]
    assert [picked_odd(threes(1, 2), card) for card in threes(1, 2).cards] == [True, False]
    assert read_trial(threes(2, 2), True).state == "not told apart"
    assert read_trial(threes(3, 3), True).state == "told apart"
    assert read_trial(trial("triangle", [ReadCard("x")], plates=FOUR), True).counts == (0, 0)


def test_a_two_by_two_is_read_in_its_pairs_and_says_where_it_is_not_the_same():
    names = ("Breast rubbed", "Breast bathed", "Leg rubbed", "Leg bathed")
    plates = tuple(Plate(n) for n in range(4))
    sides = {"rows": (0, 0, 1, 1), "columns": (0, 1, 0, 1), "sides": ("Breast", "Leg", "Rubbed", "Bathed")}
    better = [scored(n, 5, 6 + n % 2, 5, 7 + n % 2) for n in range(8)]
    found = read_trial(trial("scores", better, names, plates, **sides), True)
    assert (found.state, found.column, found.winner) == ("winner", 1, None)
    assert found.headline == "Bathed is liked better"
    # by hand: breast 1.5, leg 2.5, both 2
    assert [pair.liking.mean for pair in found.pairs] == [1.5, 2.5]
    assert found.says[0].startswith("Bathed is liked better than Rubbed by 2.0 points")
    assert found.says[2].startswith("Breast: Breast bathed is liked better than Breast rubbed by 1.5")
    assert any(say.startswith("It is not the same for breast and leg") for say in found.says)
    against = [scored(n, 5, 8, 8, 5 + n % 2) for n in range(8)]
    crossed = read_trial(trial("scores", against, names, plates, **sides), True)
    assert crossed.says[-1] == "It is not the same for breast and leg; read each by itself."
    orders = [ranked(n, 4, 2, 3, 1) for n in range(6)]
    by_rank = read_trial(trial("ranking", orders, names, plates, **sides), True)
    assert (by_rank.column, by_rank.pairs[0].liking.mean) == (1, 2)
    assert read_trial(trial("scores", [scored(0, 5)], names, plates, **sides), True).headline == "Nothing to compare"


def test_penalties_are_within_tasters_and_from_twelve_votes_with_three_in_the_group():
    cards = []
    for n in range(6):
        level = 3 + n % 2 * 4  # one scores everything low, the next everything high
        scores = {(0, "overall"): level, (1, "overall"): level + 2, (0, "salt"): 1 + n % 2, (1, "salt"): 3}
        cards.append(ReadCard(f"Boat {n}", scores=scores))
    (found,) = penalties(trial("scores", cards))
    assert (found.scale, found.side, found.votes, found.points) == ("salt", "too little", 6, pytest.approx(2))
    assert found.says == "Plates with too little salt are liked 2.0 points less than those just right (6 votes)."
    liked_more = [replace(one, scores=one.scores | {(0, "overall"): 9, (1, "overall"): 8}) for one in cards]
    assert penalties(trial("scores", liked_more))[0].says.split("liked ")[1].startswith("1.0 points more than")
    alike = [replace(one, scores=one.scores | {(0, "overall"): 5, (1, "overall"): 5}) for one in cards]
    assert "liked as well as those" in penalties(trial("scores", alike))[0].says
    assert penalties(trial("scores", cards[:5])) == ()
    few = [*cards[:4], *[replace(one, scores=one.scores | {(0, "salt"): 3}) for one in cards[4:]]]
    assert penalties(trial("scores", few))[0].votes == 4
    much = [replace(one, scores=one.scores | {(0, "salt"): 5}) for one in cards]
    assert penalties(trial("scores", much))[0].side == "too much"
    two = [replace(one, scores=one.scores | {(0, "salt"): 3}) for one in cards[2:]]
    assert penalties(trial("scores", [*cards[:2], *two])) == ()
    (votes,) = right_votes(trial("scores", cards))[0]
    assert (votes.scale, votes.too_little, votes.just_right, votes.too_much) == ("salt", 6, 0, 0)


def test_words_are_counted_by_sample_with_how_they_go_with_liking():
    cards = [scored(n, 5, 7, words={1: ("smoke",), 0: ("dry",) if n else ("smoke",)}) for n in range(4)]
    found = {word.word: word for word in words(trial("scores", cards))}
    assert (found["smoke"].said, found["smoke"].by_sample) == (5, (1, 4))
    # smoke: four at +1, one at -1; without it three at -1
    assert found["smoke"].points == pytest.approx(0.6 + 1)
    assert found["dry"].points == pytest.approx(-1 - 0.6)
    assert words(trial("scores", cards[:2]))[0].points is None


def test_tasters_repeat_and_agree_as_their_orders_say():
    names, plates = ("A", "B", "C"), (*THREE, Plate(1, twin=True))
    cards = [scored(0, 3, 5, 8, 5), scored(1, 2, 6, 7, 4), scored(2, 8, 5, 3, 9)]
    found = {one.taster: one for one in tasters(trial("scores", cards, names, plates))}
    assert [found[f"Boat {n}"].repeats for n in range(3)] == [0, 2, 4]
    # Boat 2 puts them the other way round than the mean of the others
    others = np.mean([[3, 2, 1], [3, 2, 1]], axis=0)
    assert found["Boat 2"].agrees == pytest.approx(np.corrcoef([1, 2, 3], others)[0, 1])
    assert found["Boat 0"].agrees is None  # the others' mean has no spread
    assert [found[f"Boat {n}"].says for n in (0, 2)] == [
        "gave the twin the same", "has a taste of their own, gave the twin 4 apart",
    ]  # fmt: skip
    same = tasters(trial("scores", [scored(n, 3, 5, 8 - n % 2, 5) for n in range(3)], names, plates))
    assert {one.says.split(",")[0] for one in same} == {"goes with the others"}
    half = tasters(
        trial("scores", [scored(0, 3, 8, 5, 8), scored(1, 3, 5, 8, 5), scored(2, 2, 5, 8, 5)], names, plates)
    )
    assert half[0].agrees == pytest.approx(0.5)
    part = [scored(0, 5, 5, 8, 5), scored(1, 3, 5, 4, 5), scored(2, 3, 6, 4, 6)]
    assert tasters(trial("scores", part, names, plates))[0].says.startswith("goes partly")
    assert agreement(trial("scores", cards[:2], names, plates)) is None
    assert agreement(trial("scores", cards, names, plates)) == pytest.approx(1 / 9)
    assert tasters(trial("triangle", [ReadCard("x")], plates=FOUR))[0].repeats is None


@pytest.mark.parametrize(("right", "half"), [(7, True), (6, False)])
def test_a_table_that_guesses_above_chance_is_half_blind(right, half):
    cards = [ReadCard(f"Boat {n}", guess=0 if n < right else 1) for n in range(8)]
    found = guesses(trial("preference", cards))
    assert (found.right, found.of, found.half_blind) == (right, 8, half)
    assert found.probability == pytest.approx(stats.binomtest(right, 8, 0.5, "greater").pvalue)
    assert guesses(trial("preference", [replace(card, blind=False) for card in cards])) is None
    # of three plates, two are of the one asked after where it has a twin
    twin = trial("scores", cards, plates=(Plate(0), Plate(1), Plate(0, twin=True)))
    assert guesses(twin).probability == pytest.approx(stats.binomtest(right, 8, 2 / 3, "greater").pvalue)
