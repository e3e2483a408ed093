"""The rule, its sentences, looking ahead, traits, and rows of a page."""

import numpy as np
import pytest
from ravska_core.across import (
    WAYS,
    Ahead,
    Chances,
    Counted,
    Evidence,
    More,
    Muddy,
    PairCard,
    PairCook,
    PairVotes,
    SaltVote,
    Statistics,
    asked,
    by_side,
    decide,
    fit_statistics,
    has_trait,
    mean_of,
    more_needed,
    named,
    next_trials,
    read_across,
    read_cell,
    reading,
    salt_liked,
    says,
    school_of,
    way_of,
)
from ravska_core.across.ahead import speaks
from ravska_core.across.evidence import KNEW, MOST_CONFOUNDS, NO_VOTES, OTHER
from ravska_core.across.rule import wrong_among
from ravska_core.catalogue import catalogue
from ravska_core.coat import WAYS as STACK_WAYS
from scipy.special import ndtri
from scipy.stats import norm

NAMES = ("rubbed", "marinated")
ENOUGH = Counted(3, 12, 2, 8)


def cook(number, cut, differences, muddied=(), votes=NO_VOTES, blind=True, liked=None):
    """Return a cook whose tasters 0, 1, … scored such differences, each second card the other way round."""
    cards = tuple(
        PairCard(f"t{at}", float(one), 0.5 if (at + number) % 2 else -0.5, blind, liked or (5.0, 5.0 + one))
        for at, one in enumerate(differences)
    )
    return PairCook(str(number), f"Cook {number}", f"{number:03}", cut, cards, votes, tuple(muddied))


def book(*cooks):
    return Evidence(tuple(cooks), tuple(dict.fromkeys(one.cut for one in cooks)))


def row_of(page, cut):
    return next(row for row in page.rows if row.cut == cut)


@pytest.mark.parametrize(
    ("chances", "counted", "state"),
    [
        (Chances(0.90, 0.01, 0.09), ENOUGH, "first"),
        (Chances(0.01, 0.90, 0.09), ENOUGH, "second"),
        (Chances(0.05, 0.05, 0.90), ENOUGH, "no matter"),
        (Chances(0.899, 0.01, 0.091), ENOUGH, "not yet known"),
        (Chances(0.99, 0.0, 0.01), Counted(3, 12, 1, 8), "not yet known"),
        (Chances(0.99, 0.0, 0.01), Counted(3, 12, 2, 7), "not yet known"),
        (Chances(0.0, 0.0, 1.0), Counted(9, 40, 1, 40), "not yet known"),
    ],
)
def test_nothing_is_named_but_by_the_rule(chances, counted, state):
    assert decide(chances, counted) == state


def test_votes_that_go_against_scores_withhold_a_name_and_others_do_not():
    sure = Chances(0.97, 0.0, 0.03)
    assert named(sure, ENOUGH, PairVotes(1, 9)) == ("not yet known", "first")  # p = 0.021
    assert named(sure, ENOUGH, PairVotes(2, 8)) == ("first", "")  # p = 0.109
    assert named(sure, ENOUGH, PairVotes(9, 1)) == ("first", "")
    assert named(Chances(0.0, 0.97, 0.03), ENOUGH, PairVotes(9, 1)) == ("not yet known", "second")
    assert named(Chances(0.0, 0.0, 1.0), ENOUGH, PairVotes(9, 0)) == ("no matter", "")


def test_how_many_names_are_expected_to_be_wrong_is_what_is_left_of_their_chances():
    claims = [("first", Chances(0.9, 0.02, 0.08)), ("no matter", Chances(0.03, 0.02, 0.95)),
              ("not yet known", Chances(0.5, 0.1, 0.4))]  # fmt: skip
    assert wrong_among(claims) == pytest.approx(0.15)


def test_a_clear_page_has_its_rows_named():
    page = read_across(
        book(
            cook(1, "duck-leg", [-2, -3, -2, -1]), cook(2, "lamb-shoulder", [2, 1, 2, 2]),
            cook(3, "duck-leg", [-2, -2, -1, -2]), cook(4, "lamb-shoulder", [3, 1, 2, 2]),
            cook(5, "duck-leg", [-3, -2, -1, -2]), cook(6, "lamb-shoulder", [2, 1, 2, 3]),
        ), NAMES,
    )  # fmt: skip
    duck, lamb = row_of(page, "duck-leg"), row_of(page, "lamb-shoulder")
    assert (duck.state, lamb.state) == ("first", "second")
    assert duck.headline == "Rubbed is better"
    assert duck.difference is not None
    assert duck.difference.high < 0 < lamb.difference.low
    assert page.named == 2
    assert page.all_cuts.headline == "It depends on the cut"
    assert page.all_cuts.says == ("Rubbed is better on one cut, marinated on one.",)
    assert page.wrong == pytest.approx(2 - duck.belief.chances.first - lamb.belief.chances.second)
    for row in page.rows:
        of_side = {side: sum(grain.side == side for grain in row.belief.grains) for side in ("first", "second")}
        assert of_side["first"] == pytest.approx(20 * row.belief.chances.first, abs=0.51)
        assert of_side["second"] == pytest.approx(20 * row.belief.chances.second, abs=0.51)
        assert all(grain.points <= -0.5 for grain in row.belief.grains if grain.side == "first")
        assert all(grain.points >= 0.5 for grain in row.belief.grains if grain.side == "second")


def test_one_cook_of_a_cut_leans_on_the_rest_and_says_so():
    cheek = cook(9, "beef-cheek", [1, 1, 1, 0])
    pages = {
        points: read_across(
            book(*(cook(at, "duck-leg", [points] * 3 + [points + 1]) for at in range(1, 6)), cheek), NAMES
        )
        for points in (-1, 1)
    }
    beliefs = {points: row_of(page, "beef-cheek").belief.mean for points, page in pages.items()}
    assert beliefs[-1] < beliefs[1] - 0.1
    told = row_of(pages[1], "beef-cheek").says
    assert any("leans on the other cuts: its own cards say 0.8 for marinated" in one for one in told)
    assert any("here is 1 cook with 4 cards" in one for one in told)
    alone = read_across(book(cheek), NAMES)
    assert not any("leans" in one for one in row_of(alone, "beef-cheek").says)


def test_without_a_clean_cook_there_is_never_a_name():
    muddy = [Muddy("salt", 1.0, "B is saltier.")]
    page = read_across(book(*(cook(at, "duck-leg", [4, 4, 4, 4], muddy) for at in range(1, 9))), NAMES)
    assert page.rows[0].state == "not yet known"
    assert any("No cook of it differs in nothing else" in one for one in page.rows[0].says)
    knew = read_across(book(*(cook(at, "duck-leg", [4, 4, 4, 4], blind=False) for at in range(1, 9))), NAMES)
    assert knew.rows[0].state == "not yet known"


def test_a_cook_that_differs_otherwise_too_counts_but_less():
    clean = [cook(1, "duck-leg", [0, 0, 1, 0]), cook(2, "duck-leg", [0, 1, 0, 0])]
    salty = [cook(at, "duck-leg", [3, 3, 3, 3], [Muddy("salt", 1.0, "B is saltier.")]) for at in (3, 4)]
    with_z = read_across(book(*clean, *salty), NAMES).rows[0].belief.mean
    as_clean = read_across(book(*clean, *(cook(at, "duck-leg", [3, 3, 3, 3]) for at in (3, 4))), NAMES)
    assert read_across(book(*clean), NAMES).rows[0].belief.mean < with_z < as_clean.rows[0].belief.mean


def test_what_is_rare_shares_a_name_among_what_differs():
    some = [cook(at, "duck-leg", [1, 0], [Muddy(f"what {at}", 1.0, "")]) for at in range(20)]
    names = book(*some).confounds()
    assert len(names) == MOST_CONFOUNDS
    assert names[-1] == OTHER
    cards = book(*some).as_cards()
    assert cards.confounds.shape == (40, MOST_CONFOUNDS)
    assert (cards.confounds.sum(1) == 1).all()
    assert book(cook(1, "duck-leg", [1], blind=False)).confounds() == (KNEW,)


def test_only_votes_say_what_is_preferred_and_never_points():
    page = read_across(book(cook(1, "duck-leg", [], votes=PairVotes(5, 1, 1))), NAMES)
    row = page.rows[0]
    assert row.belief is None
    assert row.difference is None
    assert row.says[0] == "Asked which they would rather have again, 5 prefer rubbed, 1 marinated, 1 neither."


def test_for_a_guest_it_is_less_sure_than_for_this_table():
    cooks = [cook(at, "duck-leg", [2, 0, 3, 1]) for at in range(6)]
    table, guest = (read_across(book(*cooks), NAMES, who).rows[0].belief for who in ("table", "guest"))
    assert guest.high - guest.low > table.high - table.low


def test_a_wider_band_takes_more_for_a_name():
    cooks = [cook(at, "duck-leg", [1, 1, 2, 1]) for at in range(6)]
    assert read_across(book(*cooks), NAMES).rows[0].state == "second"
    assert read_across(book(*cooks), NAMES, margin=1.5).rows[0].state == "no matter"


def test_where_nothing_matters_the_quicker_is_said():
    cooks = [cook(at, "duck-leg", [0, 1, 0, -1]) for at in range(12)]
    page = read_across(book(*cooks), NAMES, quicker={"duck-leg": "Take rubbed, which is ready sooner."})
    assert page.rows[0].state == "no matter"
    assert "Take rubbed, which is ready sooner." in page.rows[0].says


def test_scores_near_the_top_are_said():
    page = read_across(book(cook(1, "duck-leg", [0, 1], liked=(9.0, 9.0))), NAMES)
    assert sum("near the top" in one for one in page.says) == 2
    low = read_across(book(cook(1, "duck-leg", [0, 1], liked=(7.0, 8.0))), NAMES)
    assert not any("near the top" in one for one in low.says)


def test_a_contrast_of_cuts_is_told_before_any_one_of_them():
    tough, tender = ("lamb-shoulder", "beef-cheek", "goat-leg"), ("duck-breast", "venison-loin", "turkey-breast")
    cooks = [
        cook(2 * at + turn, cut, [s * 1.5 + e for e in ((-1, 0, 1, 1), (0, 2, -1, 1))[turn]])
        for s, cuts in ((1, tough), (-1, tender)) for at, cut in enumerate(cuts, 10 * (s + 1)) for turn in (0, 1)
    ]  # fmt: skip
    page = read_across(book(*cooks), NAMES)
    assert "Marinated does more for tough cuts than for tender cuts" in page.traits[0].says
    assert page.traits[0].points > 1
    assert not read_across(book(*cooks[:4]), NAMES).traits


def test_traits_are_what_a_cook_would_say_of_a_cut():
    cuts = catalogue().cuts
    assert all(has_trait("tough", cuts[key]) for key in ("lamb-shoulder", "beef-cheek", "goat-leg"))
    assert not any(has_trait("tough", cuts[key]) for key in ("duck-breast", "venison-loin", "turkey-breast"))
    assert has_trait("marbled", cuts["duck-leg"])
    assert not has_trait("marbled", cuts["venison-loin"])
    assert has_trait("thick", cuts["lamb-leg"])
    assert not has_trait("thick", cuts["duck-leg"])
    assert has_trait("bird or fish", cuts["cod-loin"])
    assert not has_trait("bird or fish", cuts["pork-chop"])


# closed form with one taster's worth of certainty: a mean known beyond doubt, variance V, all of it removed
def test_a_look_that_tells_all_speaks_as_often_as_the_truth_lies_beyond_the_margin_or_within():
    for mean, variance in ((0.3, 0.5), (1.2, 0.4), (-0.8, 0.2)):
        assert speaks(mean, variance, np.array([1 - 1e-9]))[0] == pytest.approx(1, abs=1e-3)
        # half of it removed: by hand for one side
        left, moves = (variance / 2) ** 0.5, (variance / 2) ** 0.5
        over = 0.5 + ndtri(0.9) * left
        by_hand = norm.sf((over - mean) / moves) + norm.cdf((-over - mean) / moves)
        assert speaks(mean, variance, np.array([0.5]))[0] == pytest.approx(by_hand, abs=1e-9)


def ahead_of(evidence, cut=0):
    left = Statistics(evidence.as_cards())
    cuts = len(evidence.cuts)
    of = asked([(1.0, np.eye(cuts)[at], left.shares) for at in range(cuts)], cuts, left.tasters)
    return Ahead(fit_statistics(left, of), of)


def test_more_cooks_remove_more_and_a_cook_of_another_cut_less():
    ahead = ahead_of(book(cook(1, "duck-leg", [1, 0, 2, 1]), cook(2, "beef-cheek", [0, 1, 1, 1])))
    removed = ahead.removed([1], 0, range(4), 12)[..., 0]
    assert (np.diff(removed, axis=1) > 0).all()
    assert (removed[:, 0] > ahead.removed([1], 1, range(4))[:, 0, 0]).all()
    assert (removed[:, 0] > ahead.removed([1], 0, [0])[:, 0, 0]).all()
    assert (ahead.removed([1], -1, range(4))[:, 0, 0] < removed[:, 0]).all()
    assert ahead.gain([1, 2], 0, range(4)) > ahead.gain([1, 2], 0, [0]) > 0


def test_what_further_cooks_remove_is_what_they_do_remove():
    """Over books the variance left by the look ahead is that of fits with as many more cooks."""
    shares = []
    for seed in range(16):
        chance = np.random.default_rng(seed)
        moved = chance.normal(0, 0.4, 6)
        cooks = [cook(k, "duck-leg", np.round(1 + moved[k] + chance.normal(0, 1.5, 4))) for k in range(6)]
        ahead = ahead_of(book(*cooks[:3]))
        expected = float((ahead.variance[1] * (1 - ahead.removed([1], 0, range(4), 3)[:, 2, 0])).mean())
        shares.append(float(ahead_of(book(*cooks)).variance[1]) / expected)
    assert np.mean(shares) == pytest.approx(1, abs=0.15)


def test_a_new_cut_tells_as_much_as_one_that_has_no_card_yet():
    evidence = book(cook(1, "duck-leg", [1, 0, 2, 1]), cook(2, "beef-cheek", [0, 1, 1, 1]))
    ahead = ahead_of(Evidence(evidence.cooks, (*evidence.cuts, "goat-leg")))
    assert ahead.removed([0], -1, range(4)) == pytest.approx(ahead.removed([0], 2, range(4)), rel=1e-6)


def test_what_a_cook_gains_is_how_often_it_turns_the_guess_round_and_by_how_much():
    """By summing max(-sgn(m) m1, 0) over what the mean may be after the cook."""
    ahead = ahead_of(book(cook(1, "duck-leg", [1, 0, 1, 0])))
    mean = float(ahead.mean[1])
    spreads = np.sqrt(ahead.variance[1] * ahead.removed([1], 0, range(4))[:, 0, 0])
    after = np.linspace(-8, 8, 40_001)
    by_hand = [
        float((np.maximum(-np.sign(mean) * (mean + z), 0) * norm.pdf(z, scale=spread)).sum() * (after[1] - after[0]))
        for spread in spreads for z in [after]
    ]  # fmt: skip
    assert ahead.gain([1], 0, range(4)) == pytest.approx(np.mean(by_hand), rel=1e-4)


def test_how_many_more_goes_down_as_it_becomes_clearer():
    one = Counted(1, 4, 1, 4)
    unsure = more_needed(ahead_of(book(cook(1, "duck-leg", [2, 1, 2, 0]))), 1, 0, range(4), one)
    clearer = more_needed(ahead_of(book(cook(1, "duck-leg", [3, 3, 2, 3]))), 1, 0, range(4), one)
    assert 1 <= clearer.cooks < unsure.cooks
    assert min(unsure.chance, clearer.chance) >= 0.5
    assert clearer.figure.value == clearer.cooks
    assert [step.value >= 0.5 for step in clearer.figure.steps[2:-1]] == [False] * (clearer.cooks - 1) + [True]
    hopeless = book(*(cook(at, "duck-leg", [1, 0, 1, 0]) for at in range(10)))
    assert more_needed(ahead_of(hopeless), 1, 0, range(4), Counted(10, 40, 10, 40)).cooks is None
    nobody = ahead_of(book(cook(1, "duck-leg", [2, 1, 2, 0])))
    assert nobody.settles(1, 0, range(4), Counted(1, 4, 0, 0), 1)[0] == 0.0


@pytest.mark.parametrize(
    ("more", "said"),
    [
        (More(1, 4, 0.6), "About one more cook of four tasters would as likely as not settle it."),
        (More(2, 1, 0.6), "About two more cooks of one taster would as likely as not settle it."),
        (More(12, 13, 0.6), "About twelve more cooks of 13 tasters would as likely as not settle it."),
        (More(None, 4, 0.31), "More cooks are unlikely to settle it: even twelve would, about 3 times in 10."),
        (More(None, 4, 0.1), "More cooks are unlikely to settle it: even twelve would, about 1 time in 10."),
        (More(None, 4, 0.01), "More cooks are unlikely to settle it: even twelve would, hardly ever."),
    ],
)
def test_how_many_more_is_said(more, said):
    assert says.say_more(more) == said


def test_sentences_for_one_two_and_many():
    assert says.say_short(Counted(0, 0, 0, 0)).endswith("here are 0 cooks with 0 cards.")
    assert says.say_short(Counted(1, 1, 1, 1)).endswith("here is 1 cook with 1 card.")
    assert says.say_short(Counted(5, 9, 2, 7)).endswith("here are 2 cooks with 7 cards.")
    assert says.say_short(ENOUGH) == ""
    assert says.say_held(0) == ""
    assert says.say_held(1) == "It is so since the last cook."
    assert says.say_held(4) == "It has held over four cooks."
    assert says.say_wrong(0.0, 0) == "Nothing is named yet."
    assert says.say_wrong(0.08, 1) == "The one name on this page is wrong with a chance of 8 in 100."
    assert says.say_wrong(0.001, 1).endswith("a chance of less than 1 in 100.")
    assert says.say_wrong(0.04, 3) == "Of the three names on this page, fewer than 0.1 are expected to be wrong."
    assert says.say_depends(NAMES, 1, 2) == "Rubbed is better on one cut, marinated on two."
    assert says.say_wrong(0.31, 3) == "Of the three names on this page, 0.3 are expected to be wrong."
    assert says.say_wrong(1.0, 14) == "Of the 14 names on this page, 1.0 is expected to be wrong."
    assert says.say_votes(PairVotes(1, 3), NAMES).startswith("Asked which they would rather have again, 1 prefers ")
    assert says.say_withheld("second", NAMES, PairVotes(9, 1)).startswith("Scores say marinated, but asked")
    assert "9 of 10 cards say rubbed" in says.say_withheld("second", NAMES, PairVotes(9, 1))
    assert says.say_belief("first", NAMES, Chances(0.93, 0.01, 0.06), 0.5) == (
        "19 of 20 grains say rubbed, by half a point or more."
    )
    assert says.say_belief("not yet known", NAMES, Chances(0.2, 0.1, 0.7), 0.3) == (
        "14 of 20 grains lie within 0.3 points, which is too little to matter."
    )
    assert says.say_size(-1.25, -2.0, -0.4, NAMES) == (
        "About 1.2 points of nine for rubbed; 95 times in 100 between 0.4 and 2.0."
    )
    assert says.say_size(1.0, -0.1, 2.0, NAMES).endswith("between −0.1 and 2.0.")
    assert says.listed(["salt"]) == "salt"
    assert says.listed(["salt", "rest", "wood"]) == "salt, rest and wood"


def cast(percent, votes):
    return [SaltVote(f"t{at % 4}", percent, vote) for at, vote in enumerate(votes)]


def test_the_salt_a_table_likes_lies_where_votes_are_just_right():
    votes = [*cast(0.8, [2, 2, 1, 2, 2, 2]), *cast(1.6, [4, 4, 4, 3, 4, 5])]
    found = salt_liked(votes)
    assert found.liked.value == pytest.approx(1.2, abs=0.08)
    assert found.liked.low < 1.2 < found.liked.high
    assert list(found.grains) == sorted(found.grains)
    saltier = salt_liked([SaltVote(one.taster, one.percent, max(1, one.vote - 1)) for one in votes])
    assert saltier.liked.value > found.liked.value + 0.2
    surer = salt_liked(votes * 4)
    assert surer.liked.high - surer.liked.low < found.liked.high - found.liked.low
    assert "This table likes about 1.3 % salt" in found.says


def test_with_few_votes_no_salt_is_told():
    found = salt_liked(cast(1.2, [3]))
    assert found.liked is None
    assert found.says.endswith("here is 1 vote of 1 taster.")
    assert salt_liked([SaltVote("t0", 1.0, 3)] * 20).liked is None


def test_the_next_trial_is_the_one_that_most_likely_settles_its_cut():
    cooks = [
        *(cook(at, "duck-leg", [-3, -2, -2, -3]) for at in range(4)),
        cook(8, "lamb-shoulder", [2, 2, 2, 1]), *(cook(at, "beef-cheek", [1, 0, 1, 0]) for at in range(10, 14)),
    ]  # fmt: skip
    cuts = ("duck-leg", "lamb-shoulder", "beef-cheek", "goat-leg")
    found = next_trials(book(*cooks), cuts, ("t0", "t1", "t2", "t3"))
    assert [one.cut for one in found][-1] == "duck-leg"
    assert found[-1].known
    assert found[-1].says == ("It is known already; another cook would only make it surer.",)
    unknown = found[:-1]
    assert [one.settles for one in unknown] == sorted((one.settles for one in unknown), reverse=True)
    assert "Of the four trials that can be cooked it is the likeliest" in found[0].says[0]
    new = next(one for one in found if one.cut == "goat-leg")
    assert "never compared" in new.says[-1]
    assert all(0 <= chance <= 1 for one in found for planned in one.planned for chance in planned.chances)
    assert {one.tasters for one in new.planned} == {2, 4, 6}
    assert next_trials(book(*cooks), ("duck-leg",), ()) == ()
    assert [one.cut for one in next_trials(book(*cooks), ("goat-leg",), ("t0",))] == ["goat-leg"]


def test_a_cell_tells_each_cook_what_muddies_it_and_how_it_grew():
    cooks = [
        cook(1, "duck-leg", [-2, -2, -1, -2]), cook(2, "duck-leg", [-3, -1, -2, -2]),
        cook(3, "duck-leg", [-2, -2, -2, 3]),
        cook(4, "duck-leg", [-3, -3, -4, 2], [Muddy("salt", -1.0, "A is saltier.")]),
        cook(5, "beef-cheek", [0, 1, 0, 0]),
    ]  # fmt: skip
    found = read_cell(book(*cooks), "duck-leg", NAMES)
    page = read_across(book(*cooks), NAMES)
    assert found.row == row_of(page, "duck-leg")
    assert [one.key for one in found.grown] == ["1", "2", "3", "4"]
    alone = read_across(book(cooks[0]), NAMES).rows[0].belief
    assert found.grown[0].chances == alone.chances
    without = read_across(book(*cooks[1:]), NAMES)
    assert found.without[0].grains == round(20 * row_of(without, "duck-leg").belief.chances.first)
    assert found.muddies[0].what == "salt"
    assert found.muddies[0].says.startswith("Cook 4: A is saltier. Left out, ")
    held = [one.state for one in found.grown]
    assert found.held == next(n for n in range(1, 5) if n == 4 or held[-n - 1] != held[-1])
    assert read_cell(Evidence((), ("duck-leg",)), "duck-leg", NAMES) is None


def test_who_has_the_opposite_taste_is_named_kindly():
    cooks = [cook(at, "duck-leg", [-4, -3, -4, 3, -3]) for at in range(6)]
    found = read_cell(book(*cooks), "duck-leg", NAMES)
    assert found.row.state == "first"
    assert found.tasters_says == ("t3 likes marinated better: make theirs so, if you can.",)
    both = [cook(at, "duck-leg", [-4, 3, 3, -4]) for at in range(6)]
    told = read_cell(book(*both), "duck-leg", NAMES).tasters_says
    assert told == (
        "t0 and t3 like rubbed better: make theirs so, if you can.",
        "t1 and t2 like marinated better: make theirs so, if you can.",
    )
    alike = [cook(at, "duck-leg", [-3, -3, -3, -3]) for at in range(6)]
    assert read_cell(book(*alike), "duck-leg", NAMES).tasters_says == ()


def test_what_carries_a_difference_is_told_by_scale_by_vote_and_by_word():
    cards = tuple(
        PairCard(f"t{at}", -1.0, 0.5, True, (7, 6), {"crust": (8.0, 6.0), "juiciness": (6.0, 6.0), "salt": (3.0, 4.0)},
                 (("crunch",), ("juicy", "salty")))
        for at in range(3)
    )  # fmt: skip
    found = read_cell(book(PairCook("1", "Cook 1", "1", "duck-leg", cards)), "duck-leg", NAMES)
    assert [(one.scale, one.points) for one in found.carries] == [("crust", -2.0), ("juiciness", 0.0)]
    assert found.carries_says == (
        "Crust +2.0 rubbed, juiciness the same.",
        "3 of 3 say marinated has too much salt.",
        "Said of rubbed: “crunch” 3.",
        "Said of marinated: “juicy” 3, “salty” 3.",
    )


def test_no_cell_takes_more_than_forty_fits(monkeypatch):
    fits = []
    real = reading.fit_statistics
    monkeypatch.setattr(reading, "fit_statistics", lambda *given: fits.append(1) or real(*given))
    muddies = [[Muddy(f"what {at % 9}", 1.0, "It differs.")] if at % 2 else [] for at in range(40)]
    cooks = [cook(at, "duck-leg", [1, 0], muddied) for at, muddied in enumerate(muddies)]
    read_cell(book(*cooks), "duck-leg", NAMES)
    assert 20 < len(fits) <= 40


@pytest.mark.parametrize(
    ("layers", "way", "school"),
    [
        ((("rub", 7200.0),), "rubbed", "shorter"),
        ((("binder", None), ("paste", 3600.0), ("glaze", None)), "rubbed", "shorter"),
        ((("pre-salt", 1800.0), ("rub", 7200.0)), "rubbed", "shorter"),
        ((("pre-salt", 16 * 3600.0), ("rub", 3600.0)), "ahead", "longer"),
        ((("pre-salt", 4 * 3600.0), ("rub", 3600.0)), "rubbed", "shorter"),
        ((("marinade", 12 * 3600.0),), "marinated", "longer"),
        ((("marinade", 4 * 3600.0), ("rub", 1800.0)), "both", "shorter"),
        ((("injection", 3600.0), ("rub", 1800.0)), "injected", "shorter"),
        ((("second injection", 3600.0), ("marinade", 1800.0)), "injected", "shorter"),
        ((("pre-salt", 16 * 3600.0),), "plain", "longer"),
        ((), "plain", "shorter"),
    ],
)
def test_a_way_and_a_school_go_by_what_lies_on_a_sample_and_how_long(layers, way, school):
    assert way_of(layers) == way
    assert school_of(layers) == school


def test_ways_have_the_keys_that_ways_of_a_stack_have():
    for key, way in STACK_WAYS.items():
        if key in WAYS:
            assert way_of([(slot.kind, slot.hold_s) for slot in way.slots]) == key


def test_what_muddied_several_pairs_of_a_cook_has_its_mean_size():
    pairs = [[Muddy("salt", 1.0, "A."), Muddy("rest", 2.0, "B.")], [Muddy("salt", 2.0, "C.")]]
    assert mean_of(pairs) == (Muddy("salt", 1.5, "A."), Muddy("rest", 1.0, "B."))


def test_a_sentence_calls_pieces_by_their_side():
    (one,) = by_side(
        [Muddy("salt", -1.0, "A carries more salt than C: F stays, and a B-side.")], {"A": "rubbed", "C": "both"}
    )
    assert one == Muddy("salt", -1.0, "Rubbed carries more salt than both: F stays, and a B-side.")


def test_which_way_is_quicker_is_said():
    assert says.say_quicker(NAMES, (7200.0, 12 * 3600.0)) == "Take rubbed: it is ready 10 h sooner."
    assert says.say_quicker(NAMES, (7200.0, 3600.0)) == "Take marinated: it is ready 1 h sooner."
    assert says.say_quicker(NAMES, (7200.0, 7000.0)) == "Both take as long, so take whichever is at hand."


def test_every_step_names_a_source_that_is_known():
    evidence = book(cook(1, "duck-leg", [1, 0, 2, 1]), cook(2, "beef-cheek", [0, 1, 1, 1]))
    row = read_across(evidence, NAMES).rows[0]
    salt = salt_liked([*cast(0.8, [2, 2, 1, 2, 2, 2]), *cast(1.6, [4, 4, 4, 3, 4, 5])])
    known = {"arithmetic", *catalogue().sources}
    for figure in (row.difference, row.chance, row.more.figure, salt.liked):
        assert {step.source for step in figure.steps} <= known
