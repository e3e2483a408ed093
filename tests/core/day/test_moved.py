"""A piece moved from one cooker to another, and planning that is let go."""

import re
from dataclasses import replace
from datetime import timedelta

import pytest
from ravska_core.coat import Layer
from ravska_core.day import Supper, changes_on, held_s, on_fires, start_now, ways_out
from ravska_core.day.moved import moved, smokes
from ravska_core.day.reading import plan_day
from ravska_core.day.tasks import lit_says
from ravska_core.heat import COOKER_KINDS, NO_KITCHEN, Kitchen, OwnCooker, Phase, cooker_of_own, kitchen, take_kitchen
from test_day_of_a_cook import BATH, HOUR, LOIN, OPEN, ROAST, SALTED, SHOULDER, SUPPER, TUNA, WRAPPED, asleep, piece


@pytest.fixture(autouse=True)
def no_kitchen():
    was = kitchen()
    take_kitchen(NO_KITCHEN)
    yield
    take_kitchen(was)


SMOKED = replace(OPEN, wood="apple", tray="drip", near=True)


def test_in_the_oven_it_lies_on_a_rack_without_smoke_at_the_same_heat():
    changes = changes_on(SMOKED, COOKER_KINDS["oven"])
    assert changes == {"surround": "oven", "vessel": "rack", "near": False, "wood": "", "tray": ""}
    assert changes_on(WRAPPED, COOKER_KINDS["oven"])["vessel"] == "foil"
    back = changes_on(Phase("oven", 160.0, "rack", centre_c=68.0), COOKER_KINDS["kettle"])
    assert (back["surround"], back["vessel"]) == ("indirect", "rack")
    # one fire for another is the same thing to it
    assert changes_on(SMOKED, COOKER_KINDS["cabinet"]) == {}


@pytest.mark.parametrize(
    ("phase", "kind"),
    [
        (replace(OPEN, aimed_c=151.0), "cabinet"),  # it goes up to 150 °C
        (replace(OPEN, aimed_c=89.0), "cabinet"),  # and down to 90
        (OPEN, "water bath"),
        (Phase("direct flame", 230.0, "grate", lasts_s=300.0), "oven"),
        (Phase("water bath", 57.0, "bag", lasts_s=HOUR), "kettle"),
        (replace(OPEN, aimed_c=310.0), "oven"),
    ],
)
def test_what_a_cooker_cannot_do_is_not_moved_there(phase, kind):
    assert changes_on(phase, COOKER_KINDS[kind]) is None


def test_all_that_was_on_one_cooker_goes_and_is_reckoned_anew():
    found = moved(SHOULDER, "kettle", "oven")
    assert found.keys == ("oven", "oven")
    assert [phase.surround for phase in found.heated.phases] == ["oven", "oven"]
    assert [phase.aimed_c for phase in found.heated.phases] == [125.0, 125.0]
    assert smokes(SHOULDER.heated.phases)
    assert not smokes(found.heated.phases)
    # an oven moves its air harder than a kettle, 12 over 10 W/m2K: done sooner, by less than that
    quicker = SHOULDER.heat.done_s / found.heat.done_s
    assert 1.0 < quicker < 1.2
    assert moved(SHOULDER, "oven", "kettle") is None
    assert moved(SHOULDER, "kettle", "kettle") is None
    assert moved(piece("A", "lamb-shoulder", 2300, ()), "kettle", "oven") is None


def test_a_piece_names_each_cooker_it_is_on_with_those_that_do_as_well():
    seared = piece("D", "tuna-steak", 400, (
        replace(OPEN, centre_c=40.0), Phase("rest", 21.0, "board", lasts_s=300.0), TUNA.heated.phases[0]))  # fmt: skip
    (kettle,) = on_fires(seared)
    assert (kettle.key, kettle.says) == ("kettle", "kettle")
    # 125 °C beside the fire and 230 °C over it: neither cabinet nor oven, nor pellets, which have no flame
    assert {one.key for one in kettle.others} == {"gas grill", "ceramic", "embers"}
    slow = {one.key for one in on_fires(SHOULDER)[0].others}
    assert slow == {"cabinet", "pellet grill", "gas grill", "offset", "ceramic", "oven", "embers"}
    assert on_fires(piece("A", "lamb-shoulder", 2300, ())) == ()


def test_a_cooker_of_ones_own_is_one_it_can_be_moved_to():
    own = cooker_of_own(OwnCooker("own-pit", "Boatyard pit", "cabinet", high_c=130.0))
    take_kitchen(Kitchen({"own-pit": own}))
    assert {one.key: one.says for one in on_fires(SHOULDER)[0].others}["own-pit"] == "Boatyard pit"
    found = moved(SHOULDER, "kettle", "own-pit")
    assert found.heated.cookers == (own, own)
    assert lit_says(replace(own, says="The dented kettle")) == "Light the dented kettle"
    hotter = replace(OPEN, aimed_c=131.0)
    assert moved(piece("A", "lamb-shoulder", 2300, (hotter,)), "kettle", "own-pit") is None


def test_a_hold_is_cut_to_half_where_it_is_too_late_to_begin():
    # 16 h of salt, at least 8, and 2 h of rub do not fit before seven hours of fire when 15 are left
    late = Supper((SHOULDER,), SUPPER, (), 2, SUPPER - timedelta(hours=15))
    planned, _ = plan_day(late)
    assert {clash.kind for clash in planned.clashes} == {"past"}
    told = {way.key: way for way in ways_out(late, lambda _: (), planned)}
    shorter = told["hold", "A", "shorter"]
    assert shorter.says == "A held 8 h instead of 16 h, 1 h instead of 2 h"
    assert shorter.left < len(planned.clashes)
    # 2 sqrt(D t) over all of it: half as long is 0.71 times as deep
    deep, wanted = re.findall(r"(\d+) mm", shorter.costs)
    assert float(deep) / float(wanted) == pytest.approx(0.5**0.5, abs=0.06)


def test_what_somebody_would_have_to_get_up_for_is_begun_the_evening_before():
    # a coat an hour before going on at four in the morning
    rubbed = piece("A", "lamb-shoulder", 2300, (OPEN, WRAPPED), replace(SALTED[1], hold_s=HOUR))
    lunch = SUPPER.replace(hour=11)
    early = Supper((rubbed,), lunch, asleep(lunch), 2)
    planned, _ = plan_day(early)
    assert "asleep" in {clash.kind for clash in planned.clashes}
    told = {way.key: way for way in ways_out(early, asleep, planned)}
    longer = told["hold", "A", "longer", "0"]
    assert longer.says == "A held 10 h instead of 1 h, begun earlier"
    assert longer.left < len(planned.clashes)


@pytest.mark.parametrize(
    ("layer", "longer", "hold_h"),
    [
        (SALTED[0], False, 8), (SALTED[0], True, 32), (SALTED[1], True, 10),
        (replace(SALTED[0], hold_s=40 * HOUR), True, 48),
        (Layer("marinade", BATH, 250, 8 * HOUR), True, 8), (Layer("marinade", BATH, 250, 8 * HOUR), False, 4),
        (replace(SALTED[1], hold_c=21.0), True, 2), (Layer("glaze", BATH, 4.0), True, 0),
    ],
)  # fmt: skip
def test_by_how_much_a_hold_is_longer_or_shorter(layer, longer, hold_h):
    assert held_s(layer, longer) == hold_h * HOUR


class Gone(Exception):  # noqa: N818 - nobody is at fault
    pass


def test_a_way_out_takes_a_piece_to_another_cooker_and_says_from_where():
    supper = Supper((ROAST, LOIN), SUPPER, asleep(SUPPER), 4)
    told = {way.key: way for way in ways_out(supper, asleep, plan_day(supper)[0])}
    oven = told["cooker", "D", "oven", "kettle"]
    assert (oven.says, oven.left) == ("D in the oven, without smoke", 0)


@pytest.mark.parametrize("ask", ["ways out", "start now"])
def test_what_takes_long_can_be_let_go_between_one_try_and_the_next(ask):
    called = 0

    def going() -> None:
        nonlocal called
        called += 1
        if called > 2:
            raise Gone

    supper = Supper((ROAST, LOIN), SUPPER, asleep(SUPPER), 4)
    planned, _ = plan_day(supper)
    assert planned.clashes
    asked = {"ways out": lambda: ways_out(supper, asleep, planned, going),
             "start now": lambda: start_now(supper, SUPPER, asleep, going)}  # fmt: skip
    with pytest.raises(Gone):
        asked[ask]()
    assert called == 3
