"""After the cook: yield, times against the plan, who ate how much, leftovers, and what makes a test unfair."""

from dataclasses import replace
from datetime import datetime, timedelta, timezone

import pytest
from ravska_core.fire import (
    AtFire,
    FirePiece,
    Happened,
    Place,
    Tap,
    check_tap,
    happened,
    in_order,
    piece_log,
    read_after,
)
from ravska_core.fire.eaten import OnBoard, eaten_an_eater, eaten_of, weighings
from ravska_core.fire.leftovers import warms_again
from ravska_core.heat import NO_KITCHEN, Coated, Heated, Phase, Seen, find_cooker, read_heat, take_kitchen, warmed_s
from ravska_core.meat import PORTION_G, Piece, find_cut, for_so_many, raw_weight, read_piece
from ravska_core.meat.portions import own_mean
from ravska_core.trial import ArmRecord, compare_arms
from ravska_core.working import BadInput

NOON = datetime(2027, 6, 12, 12, tzinfo=timezone(timedelta(hours=2)))
PIT = Phase("indirect", 120.0, "grate", centre_c=74.0)


@pytest.fixture(autouse=True)
def _no_kitchen():
    take_kitchen(NO_KITCHEN)


def _tap(minute: float, what: str, letter: str = "A", **more) -> Tap:
    return Tap(f"{minute}{what}{letter}{more}", what, NOON + timedelta(minutes=minute), letter, **more)


LOG = (
    _tap(0, "on"), _tap(60, "spritz"), _tap(70, "spritz"), _tap(100, "turn"), _tap(150, "off"),
    _tap(151, "colour", word="dark"), _tap(160, "weight", grams=1300.0), _tap(170, "slice"), _tap(175, "plate"),
    _tap(200, "fed", "", count=6), _tap(210, "came back", grams=100.0),
    _tap(215, "left over", word="fridge", grams=300.0),
)  # fmt: skip


def _fire(*taps: Tap, now: float = 240, coat=(), mass_g: float = 2000.0, phase: Phase = PIT) -> AtFire:
    piece = Piece("turkey-breast", mass_g)
    kettle = find_cooker("kettle", "indirect")
    heated = Heated(piece, find_cut(piece.cut), read_piece(piece), (phase,), (kettle,), coat=coat)
    taps = in_order(taps)
    log = piece_log("A", (phase,), (kettle,), taps, NOON + timedelta(minutes=now), Place(0.3, 0.5))
    minutes = range(int(min(now, 170)) + 1)
    centre = Seen(tuple(60.0 * at for at in minutes), tuple(min(10 + 0.4 * at, 72.0) for at in minutes))
    pit = Seen(tuple(60.0 * at for at in range(181)), tuple([118.0] * 151 + [60.0] * 30))
    return AtFire(NOON + timedelta(minutes=now), NOON, (FirePiece("Rubbed", heated, log, centre),), taps, pit)


def test_what_is_weighed_is_lost_against_what_it_weighed_raw():
    board = OnBoard("A", 2000.0, 0.1)
    found = weighings(LOG, board)
    assert (found.raw_g, found.before, found.kept) == (2000, False, 0.65)
    assert found.rows[0].lost_percent == pytest.approx(35)
    # weighed on the fire's own scale before it goes on, that is what it is held against
    told = weighings(in_order((_tap(-5, "weight", grams=2600.0), *LOG)), board)
    assert (told.raw_g, told.before, told.kept) == (2600, True, 0.5)
    assert [one.lost_percent for one in told.rows] == [pytest.approx(50)]
    # a weighing in the middle of it is one, and no yield
    half_way = weighings((_tap(0, "on"), _tap(60, "weight", grams=1800.0), _tap(150, "off")), board)
    assert half_way.rows[0].lost_percent == pytest.approx(10)
    assert half_way.cooked is None
    assert half_way.kept is None
    ended = weighings((_tap(0, "on"), _tap(150, "ended", ""), _tap(155, "weight", grams=1500.0)), board)
    assert ended.kept == 0.75


def test_an_eater_ate_what_was_cooked_less_the_bone_and_what_came_back_and_is_left():
    board = OnBoard("A", 2000.0, 0.1)
    assert eaten_of(LOG, board) == pytest.approx(1300 * 0.9 - 100 - 300)
    assert eaten_an_eater(LOG, [board]) == pytest.approx(770 / 6)
    # what never went on is not counted, what was not weighed leaves it open
    assert eaten_an_eater(LOG, [board, OnBoard("B", 900.0)]) == pytest.approx(770 / 6)
    assert eaten_an_eater(in_order((*LOG, _tap(1, "on", "B"))), [board, OnBoard("B", 900.0)]) is None
    assert eaten_an_eater([tap for tap in LOG if tap.what != "fed"], [board]) is None


def test_nobody_ate_less_than_nothing():
    board = OnBoard("A", 2000.0, 0.1)
    taps = in_order((*LOG, _tap(216, "left over", word="freezer", grams=5000.0)))
    assert eaten_of(taps, board) == 0


def test_of_a_piece_that_cannot_be_read_no_loss_is_told():
    fire = _fire(*LOG)
    (found,) = read_after(replace(fire, pieces=(replace(fire.pieces[0], heated=None),)), {}, "usual").pieces
    assert (found.loss, found.weighed, found.expected, found.eaten_g) == (None, (), None, None)
    assert found.happened.fire_s == 9000


def test_after_says_times_against_the_plan_that_was_kept_loss_and_what_an_eater_ate():
    planned = NOON + timedelta(minutes=138)
    found = read_after(_fire(*LOG), {"A": planned}, "usual")
    (one,) = found.pieces
    assert one.beside_plan == "12 min later than planned"
    assert one.loss.value == pytest.approx(35)
    assert (one.loss.low, one.loss.high) == (pytest.approx(35 - 0.65), pytest.approx(35 + 0.65))
    assert [step.value for step in one.loss.steps[:2]] == [2000, 1300]
    assert found.fed == 6
    bone = find_cut("turkey-breast").bone_share
    each = (1300 * (1 - bone) - 400) / 6
    assert found.eaten.value == pytest.approx(each)
    assert found.share == pytest.approx(each / PORTION_G["usual"])
    assert found.says == ()
    told = one.happened
    assert (told.on_s, told.fire_s, told.rest_s, told.plate_s) == (0, 9000, 1200, 1500)
    assert (told.basted, told.turned, told.colour, told.feel) == (2, 1, "dark", "")
    assert told.pit_c == pytest.approx(118)
    assert told.end_c == pytest.approx(70, abs=0.5)
    assert told.highest_c == pytest.approx(72)
    early = read_after(_fire(*LOG), {"A": NOON + timedelta(minutes=160)}, "usual").pieces[0]
    assert early.beside_plan == "10 min sooner than planned"
    assert read_after(_fire(*LOG), {}, "usual").pieces[0].beside_plan == ""


def test_what_is_missing_for_the_next_shopping_is_said_and_nothing_is_guessed():
    found = read_after(_fire(_tap(0, "on"), _tap(150, "off")), {}, "usual")
    assert (found.eaten, found.share, found.fed) == (None, None, None)
    assert found.says == (
        "Say how many it fed and what A weighs cooked, and the next shopping goes by what is eaten here.",
    )
    assert read_after(_fire(), {}, "usual").pieces == ()
    assert happened(_fire().pieces[0], _fire()) is None


def test_the_loss_that_its_heat_would_take_stands_beside_the_one_that_was_weighed():
    one = read_after(_fire(*LOG), {}, "usual").pieces[0]
    phase = replace(PIT, centre_c=None, lasts_s=9000.0)
    fire = _fire(*LOG)
    expected = read_heat(replace(fire.pieces[0].heated, phases=(phase,)))
    assert one.expected.value == pytest.approx(expected.loss.value)
    on_fire = read_after(_fire(_tap(0, "on")), {}, "usual").pieces[0]
    assert on_fire.expected is None
    # open for an hour, wrapped for the rest: a spritz parts neither of them
    wrapped = _fire(_tap(0, "on"), _tap(30, "spritz"), _tap(60, "wrap"), _tap(90, "baste"), _tap(150, "off"))
    open_, foil = replace(phase, lasts_s=3600.0), replace(phase, lasts_s=5400.0, vessel="foil")
    heated = wrapped.pieces[0].heated
    both = read_heat(replace(heated, phases=(open_, foil), cookers=heated.cookers * 2))
    assert read_after(wrapped, {}, "usual").pieces[0].expected.value == pytest.approx(both.loss.value)
    assert both.loss.value != pytest.approx(expected.loss.value)


def test_a_coat_that_had_too_much_heat_for_too_long_is_named():
    fierce = Phase("indirect", 260.0, "grate", centre_c=74.0)
    coat = (Coated("Paprika", 130.0, 0.4, 0.2), Coated("Salt", 800.0, 0.6, 0.4))
    found = read_after(_fire(*LOG, coat=coat, phase=fierce), {}, "usual").pieces[0]
    assert [one.name for one in found.scorched] == ["Paprika"]
    gentle = read_after(_fire(*LOG, coat=coat, phase=Phase("indirect", 95.0, "grate", centre_c=74.0)), {}, "usual")
    assert gentle.pieces[0].scorched == ()


def test_leftovers_have_a_use_by_and_are_warmed_once_to_74_degrees():
    """Usual US guidance, from memory: cold within 2 h, 3 to 4 days in the fridge, 165 °F when warmed again."""
    (left,) = read_after(_fire(*LOG), {}, "usual").left
    assert (left.grams, left.where, left.too_long) == (300, "fridge", False)
    assert left.out_s == 65 * 60
    assert left.use_by == left.at + timedelta(days=3)
    assert "74 °C (165 °F)" in left.says
    frozen = [replace(tap, word="freezer") if tap.what == "left over" else tap for tap in LOG]
    assert read_after(_fire(*frozen), {}, "usual").left[0].use_by == left.at + timedelta(days=60)
    late = read_after(_fire(*LOG[:-1], _tap(271, "left over", word="fridge", grams=300.0), now=280), {}, "usual").left[
        0
    ]
    assert late.too_long
    assert "throw it away" in late.says
    assert late.warms is None
    in_time = read_after(_fire(*LOG[:-1], _tap(269, "left over", word="fridge", grams=300.0), now=280), {}, "usual")
    assert not in_time.left[0].too_long
    gone = read_after(_fire(*LOG[:-1], _tap(271, "left over", word="thrown away", grams=300.0), now=280), {}, "usual")
    assert (gone.left[0].use_by, gone.left[0].too_long) == (None, False)


def test_more_that_is_left_warms_more_slowly_as_the_square_of_its_thickness():
    heated = _fire().pieces[0].heated
    whole = heated.reading.edible.value
    eighth, all_of_it = warmed_s(heated, 1 / 8, 160.0, 74.0), warmed_s(heated, 1.0, 160.0, 74.0)
    # half as thick: conduction alone would take a quarter, air alone a half
    assert 1 / 4 < eighth / all_of_it < 1 / 2
    again = warms_again(heated, whole / 8)
    assert again.value == pytest.approx(eighth / 60)
    assert [step.value for step in again.steps[:2]] == [pytest.approx(12.5), pytest.approx(50)]
    assert (again.low, again.high) == (pytest.approx(again.value * 0.7), pytest.approx(again.value * 1.3))
    assert warms_again(heated, 0.0) is None
    assert warmed_s(heated, 1.0, 60.0, 74.0) is None


def test_own_portions_and_yields_are_shrunk_towards_the_usual_ones():
    assert own_mean(1.0, ()) == 1
    assert own_mean(1.0, (0.8, 0.6)) == pytest.approx((3 + 1.4) / 5)
    usual = raw_weight("lamb-shoulder", 6, 170)
    hungry = raw_weight("lamb-shoulder", 6, 170, own_eaten=(1.2, 1.2, 1.2))
    assert hungry.trimmed.value == pytest.approx(usual.trimmed.value * 1.1)
    kept = find_cut("lamb-shoulder").cook_yield
    leaner = raw_weight("lamb-shoulder", 6, 170, own_yields=(kept / 2,) * 3)
    assert leaner.trimmed.value == pytest.approx(usual.trimmed.value / 0.75)
    assert leaner.bought.value > usual.bought.value
    assert for_so_many(2000, 8, 6, (1.2, 1.2, 1.2)).value == pytest.approx(2000 * 6 * 1.1 / 8)
    assert for_so_many(2000, 8, 6).value == pytest.approx(1500)


TOLD = Happened("A", 0.0, 9000.0, 1200.0, 1500.0, 0.3, False, 0.0, 1, 2, 118.0, 70.0, 72.0, "giving", "dark", 10_500.0)
ARM = ArmRecord("A", "lamb-shoulder", 1, 2000, 1.5, 9000, 1200, True, phases=("beside the fire",), log=TOLD)


@pytest.mark.parametrize(
    ("change", "what", "says"),
    [
        ({"on_s": 720.0}, "order", "B went on 12 min after the other."),
        ({"on_s": -720.0}, "order", "A went on 12 min after the other."),
        ({"from_embers": 0.1}, "place", "B lay nearer the fire."),
        ({"near": True}, "place", "B lay nearer the fire."),
        ({"from_embers": 0.5}, "place", "A lay nearer the fire."),
        ({"pit_c": 126.0}, "pit", "The heat of the pit differs: A 118 °C, B 126 °C."),
        ({"end_c": 74.0}, "end", "The centre as it came off differs: A 70 °C, B 74 °C."),
        ({"plate_s": 2400.0}, "plate", "The time from the fire to the plates differs: A 25 min, B 40 min."),
        ({"wrapped_s": 3600.0}, "wrap", "The time in its wrap differs: A 0 min, B 60 min."),
        ({"basted": 5}, "baste", "The basting differs: A 2 times, B 5 times."),
        ({"feel": "tough"}, "feel", "The feel differs: A giving, B tough."),
        ({"colour": "brown"}, "colour", "The colour differs: A dark, B brown."),
    ],
)
def test_what_differs_by_the_fires_log_is_named_and_cannot_be_evened_out_any_more(change, what, says):
    other = replace(ARM, letter="B", log=replace(TOLD, letter="B", **change))
    (found,) = compare_arms(ARM, other, 0, 0).differs
    assert (found.what, found.sentence, found.can_even) == (what, says, False)


def test_longer_and_heavier_are_named_by_their_letters_with_how_much():
    other = replace(ARM, letter="B", mass_g=2500, fire_s=9000 + 1800, rest_s=1200 - 900, log=None)
    said = [found.sentence for found in compare_arms(replace(ARM, log=None), other, 0, 0).differs]
    assert said == [
        "B weighs 25 % more: it takes longer and salts less deeply.",
        "B has 30 min more on the fire.",
        "A has 15 min more rest.",
    ]
    been = [found.sentence for found in compare_arms(ARM, replace(other, log=replace(TOLD, letter="B")), 0, 0).differs]
    assert been[1:] == ["B had 30 min more on the fire.", "A had 15 min more rest."]
    alike = compare_arms(ARM, replace(ARM, letter="B", mass_g=2080), 0, 0).same
    assert "weight within 4 %" in alike
    assert "weight" in compare_arms(ARM, replace(ARM, letter="B"), 0, 0).same


def test_two_that_were_cooked_alike_are_alike_by_the_log_and_what_nobody_noted_is_unknown():
    found = compare_arms(ARM, replace(ARM, letter="B", log=replace(TOLD, letter="B")), 0, 0)
    assert found.differs == ()
    assert {"went on together", "place on the grate", "heat of the pit", "centre as it came off", "feel"} <= set(
        found.same
    )
    quiet = replace(TOLD, letter="B", end_c=None, feel="", plate_s=None)
    told = compare_arms(ARM, replace(ARM, letter="B", log=quiet), 0, 0)
    assert {"centre as it came off", "feel", "time from the fire to the plates"} <= set(told.unknown)
    assert "the fire's log of both" in compare_arms(replace(ARM, log=None), replace(ARM, letter="B"), 0, 0).unknown
    neither = compare_arms(replace(ARM, log=None), replace(ARM, letter="B", log=None), 0, 0)
    assert "the fire's log of both" not in neither.unknown
    for seconds, alike in ((1799.0, True), (1800.0, False)):
        plated = replace(ARM, letter="B", log=replace(TOLD, letter="B", plate_s=seconds))
        assert ("time from the fire to the plates" in compare_arms(ARM, plated, 0, 0).same) is alike
    alone = compare_arms(ARM, replace(ARM, letter="B", log=None), 0, 0)
    assert "the fire's log of both" in alone.unknown
    assert not {"feel", "heat of the pit"} & {*alone.same, *alone.unknown}


@pytest.mark.parametrize(
    ("tap", "field"),
    [
        (Tap("k", "next time", NOON), "note"), (Tap("k", "fed", NOON), "count"),
        (Tap("k", "fed", NOON, count=0), "count"),
        (Tap("k", "weight", NOON, "A", grams=0.0), "grams"), (Tap("k", "came back", NOON, "A"), "grams"),
    ],
)  # fmt: skip
def test_what_says_nothing_is_refused(tap, field):
    with pytest.raises(BadInput) as refused:
        check_tap(tap, ["A"])
    assert refused.value.argument == field
