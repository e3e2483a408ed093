"""The day of a cook: what is done to a piece, when its fire is lit, how sure supper is, and ways out of a clash."""

from dataclasses import replace
from datetime import UTC, datetime, time, timedelta
from itertools import pairwise

import pytest
from builders import blend
from ravska_core.coat import Injection, Layer, Seasoned, plain
from ravska_core.day import DayPiece, DayReading, Supper, find_zone, nights, read_day, ways_out
from ravska_core.day.reading import plan_day
from ravska_core.day.tasks import doings_of, slack_min, waits_hot_min
from ravska_core.heat import Phase, cooker_for, heated
from ravska_core.meat import Piece, Stage, find_cut

HOUR = 3600.0
SALT = plain("table-salt/fine")
RUB = blend(("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon"))
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
STOCK = blend(("stock/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="injection", batch_g=400)
SUPPER = datetime(2026, 12, 5, 18, 0, tzinfo=UTC)
BERLIN = find_zone("Europe/Berlin")


def asleep(serve_at: datetime):
    return nights(serve_at, BERLIN, time(23), time(7))


OPEN = Phase("indirect", 125.0, "grate", centre_c=68.0)
WRAPPED = Phase("indirect", 125.0, "foil", centre_c=92.0)
SALTED = (Layer("pre-salt", SALT, 1.0, 16 * HOUR), Layer("rub", RUB, 4.0, 2 * HOUR))


def piece(letter: str, cut: str, mass_g: float, phases: tuple[Phase, ...], *layers: Layer, **more: object) -> DayPiece:
    seasoned = Seasoned(letter, Piece(cut, mass_g, **more), layers)  # type: ignore[arg-type]
    cookers = [cooker_for(phase.surround) for phase in phases]
    on = heated(seasoned, phases, cookers) if phases else None
    return DayPiece(letter, seasoned, on, tuple(cooker.kind for cooker in cookers))


SHOULDER = piece("A", "lamb-shoulder", 2300, (OPEN, WRAPPED), *SALTED)
OTHER = piece("B", "lamb-shoulder", 2250, (replace(OPEN, centre_c=92.0),), SALTED[1])
TUNA = piece("C", "tuna-steak", 400, (Phase("direct flame", 230.0, "grate", centre_c=48.0, turned_s=60.0),))


def day(*pieces: DayPiece, people: int = 2, now: datetime | None = None, serve_at: datetime = SUPPER) -> DayReading:
    return read_day(Supper(pieces, serve_at, asleep(serve_at), people, now))[0]


def keys(of: DayPiece) -> list[str]:
    return [one.task.key for one in doings_of(of)]


def test_a_piece_goes_through_all_that_is_done_to_it_in_order():
    goes = "trim mix.1 salt.0 coat.1 light.kettle to.0 phase.0 to.1 phase.1 off rest serve"
    assert keys(SHOULDER) == goes.split()
    thawed = piece("A", "lamb-shoulder", 2300, (OPEN,), stages=(
        Stage("thaw", "fridge", 4.0, 48 * HOUR), Stage("temper", "bench", 21.0, HOUR)))  # fmt: skip
    assert keys(thawed)[:3] == ["thaw", "trim", "temper"]
    thaw, temper, light = (doings_of(thawed)[at].task for at in (0, 2, 3))
    assert (thaw.least, thaw.most) == (48 * 60, 48 * 60)
    assert sum(one.lasts + one.least for one in (temper, light)) == sum(one.lasts + one.most for one in (temper, light))
    assert temper.lasts + temper.least + light.lasts + light.least == 60
    bathed = piece("A", "lamb-shoulder", 2300, (OPEN,), Layer("marinade", BATH, 250, 8 * HOUR, after="wiped"))
    assert [key.split(".")[0] for key in keys(bathed)][1:5] == ["mix", "bag", "light", "wipe"]
    needled = piece("A", "lamb-shoulder", 2300, (OPEN,), Layer("injection", STOCK, 10, 8 * HOUR, injection=Injection()))
    inject = next(one for one in doings_of(needled) if one.step == "inject")
    assert inject.task.lasts + inject.task.usual == 8 * 60 - 30


def test_cold_holds_stretch_and_what_lies_on_the_bench_never_does():
    salt = next(one for one in doings_of(SHOULDER) if one.step == "salt").task
    held = 16 * 60 - 5
    assert (salt.least, salt.usual, salt.most) == (round(held / 2), held, 2 * held)
    bench = piece("A", "lamb-shoulder", 2300, (OPEN,), Layer("rub", RUB, 4.0, HOUR, 21.0))
    coat = next(one for one in doings_of(bench) if one.step == "coat")
    # the kettle burns up for 30 of its 50 minutes on the bench
    assert (coat.waits, coat.task.most) == ("bench", 20)
    acid = piece("A", "lamb-shoulder", 2300, (OPEN,), Layer("marinade", BATH, 250, 12 * HOUR))
    bag = next(one for one in doings_of(acid) if one.step == "bag").task
    # less what the kettle burns up in of it, beside the wiping that comes after
    assert bag.most == round((12 * 60 - 5) * 1.25) - 20


def test_the_fire_is_lit_so_that_it_is_ready_when_the_meat_goes_on():
    found = day(SHOULDER)
    (kettle,) = found.cookers
    assert (found.lights, found.light_at) == ("Light the kettle", kettle.lit_at)
    assert kettle.ready_at - kettle.lit_at == timedelta(minutes=30)
    (lane,) = found.lanes
    on = next(block for block in lane.blocks if block.step == "on")
    assert on.begins_at == kettle.ready_at
    (burns,) = kettle.burns
    assert (burns.low_c, burns.high_c, burns.letters) == (115.0, 135.0, ("A",))
    assert lane.blocks[-1].ends_at == SUPPER
    # one block ends where the next begins, without a gap
    chain = [block for block in lane.blocks if block.kind != "beside"]
    for before, after in pairwise(chain):
        assert before.ends_at == after.begins_at


def at_min(found: DayReading, key: str) -> float:
    block = next(block for lane in found.lanes for block in lane.blocks if block.key == key)
    return (block.begins_at - found.serve_at).total_seconds() / 60


def test_what_was_put_on_is_on_the_fire_for_as_long_as_that_takes():
    planned = day(SHOULDER)
    on = at_min(planned, "to.0")
    # put on when it was planned to be, and looked at two hours later: nothing has moved
    now = SUPPER + timedelta(minutes=on + 120)
    begun = replace(SHOULDER, done={("coat", 1): round(on) - 200}, ticked={"to.0": round(on) + 5})
    after = day(begun, now=now)
    assert after.clashes == ()
    assert at_min(after, "off") == at_min(planned, "off")
    assert after.lanes[0].off == planned.lanes[0].off
    # half an hour late: it waits hot the shorter for it, and so many more of its chances are too late
    late = day(replace(begun, ticked={"to.0": round(on) + 35}), now=now)
    assert at_min(late, "off") == at_min(planned, "off") + 30
    assert late.lanes[0].in_time < planned.lanes[0].in_time
    # five hours late nothing makes up for it, and by how much supper is too soon is said
    (clash, *_) = day(replace(begun, ticked={"to.0": round(on) + 305}), now=now).clashes
    assert clash.kind == "late"
    assert clash.minutes == 300 - slack_min(SHOULDER)
    assert "longer than there is until what follows it" in clash.says


def test_a_step_that_is_said_to_be_at_a_time_is_and_its_hold_is_as_long_as_that_makes_it():
    planned = day(SHOULDER)
    salt, coat = at_min(planned, "salt.0"), at_min(planned, "coat.1")
    sooner = day(replace(SHOULDER, pins={"salt.0": round(salt) - 120}))
    assert (at_min(sooner, "salt.0"), at_min(sooner, "coat.1")) == (salt - 120, coat)
    assert sooner.clashes == ()
    assert next(block for block in sooner.lanes[0].blocks if block.key == "salt.0").pinned
    # an hour before the coat it is far shorter than half of what was wanted, and that is said
    hurried = day(replace(SHOULDER, pins={"salt.0": round(coat) - 65}))
    (clash,) = hurried.clashes
    held = at_min(hurried, "coat.1") - at_min(hurried, "salt.0") - 5
    assert (clash.kind, clash.minutes) == ("short", round((16 * 60 - 5) / 2) - held)
    assert clash.says.startswith("After A: salt, the wait is")
    never_asleep = Supper((replace(SHOULDER, pins={"salt.0": round(coat) - 5 - 2 * (16 * 60 - 5) - 400}),), SUPPER)
    long = read_day(never_asleep)[0]
    (clash,) = long.clashes
    assert clash.minutes == at_min(long, "coat.1") - at_min(long, "salt.0") - 5 - 2 * (16 * 60 - 5)
    assert clash.kind == "long"


def held_min(found: DayReading, key: str) -> float:
    """How long the meat lies after a task until it is put on the fire [min]."""
    (lane,) = found.lanes
    began = next(block for block in lane.blocks if block.key == key).begins_at
    return (next(block for block in lane.blocks if block.step == "on").begins_at - began).total_seconds() / 60


def test_a_hold_is_not_made_longer_by_the_fire_that_burns_up_in_it():
    # coated two hours before it goes on, the half hour that the kettle takes within them
    assert held_min(day(SHOULDER), "coat.1") == 120
    warmed = piece("A", "lamb-shoulder", 2300, (OPEN,), SALTED[1], stages=(Stage("temper", "bench", 21.0, HOUR),))
    # out of the cold for an hour: what raw meat may be off the cold is not added to
    assert held_min(day(warmed), "temper") == 60
    assert held_min(day(warmed), "coat.0") == 180
    # a coat held for less than the kettle takes: it is lit before that
    short = piece("A", "lamb-shoulder", 2300, (OPEN,), Layer("rub", RUB, 4.0, 0.25 * HOUR))
    goes = keys(short)
    assert goes.index("light.kettle") < goes.index("coat.0")
    assert held_min(day(short), "coat.0") == 15
    for of, burns in ((SHOULDER, 30), (warmed, 30), (short, 35)):
        (kettle,) = day(of).cookers
        assert kettle.ready_at - kettle.lit_at == timedelta(minutes=burns)


def test_a_pieces_grains_lie_on_the_days_clock_and_say_how_sure_supper_is():
    (lane,) = day(SHOULDER).lanes
    heat = SHOULDER.heat
    assert heat is not None
    on = next(block for block in lane.blocks if block.step == "on")
    for off, done in zip(lane.off, heat.done, strict=True):
        if done is not None and off is not None:
            assert (off - on.begins_at).total_seconds() == pytest.approx(done, abs=31)
    assert (lane.off_low, lane.off_high) == (lane.off[1], lane.off[-2])
    # the first look is at its earliest chance, and then every half hour until it is likeliest done
    looks = [step for step in day(SHOULDER).steps if step.key.startswith("look")]
    assert looks[0].begins_at == looks[0].ends_at == lane.off[0]
    assert looks[0].says == "Look: is its centre at 92 °C?"
    assert {after.begins_at - before.begins_at for before, after in pairwise(looks)} == {timedelta(minutes=30)}
    assert looks[-1].begins_at < on.begins_at + timedelta(seconds=heat.done_s)
    # what is left for it to be late is what 18 chances of 20 ask for, in steps of five minutes
    assert slack_min(SHOULDER) >= (heat.done[17] - heat.done_s) / 60 > slack_min(SHOULDER) - 5
    hot = next(block for block in lane.blocks if block.kind == "hot")
    assert hot.ends_at - hot.begins_at == timedelta(minutes=slack_min(SHOULDER))
    # the middle of the phases is rounded up to five minutes each, so that one or two more grains are in time
    assert 18 <= lane.in_time <= 20
    # counted by hand: it rests for its half hour and is sliced at ten to, in this many of its twenty chances
    resting = timedelta(minutes=find_cut("lamb-shoulder").rest_min)
    sliced = SUPPER - timedelta(minutes=10)
    assert lane.in_time == sum(off is not None and off + resting <= sliced for off in lane.off)
    late = day(SHOULDER, now=SUPPER - timedelta(hours=6, minutes=40)).lanes[0]
    cut_short = sum(off is not None and off + resting <= sliced for off in late.off)
    assert late.in_time == cut_short
    assert day(SHOULDER, OTHER).in_time == round(lane.in_time * day(OTHER).in_time / 20)
    assert lane.waits_until == hot.begins_at + timedelta(minutes=waits_hot_min(find_cut("lamb-shoulder")))


def test_how_long_finished_meat_waits_hot_is_by_what_it_is():
    # common practice, no source: pulled meat for hours, a roast for three quarters of one, fish not at all
    for cut, minutes in (("pork-shoulder", 240), ("beef-round", 45), ("beef-rib-steak", 20), ("tuna-steak", 5)):
        assert waits_hot_min(find_cut(cut)) == minutes


def test_one_fire_is_lit_once_and_one_blend_mixed_once():
    found = day(SHOULDER, OTHER)
    lit = [block for lane in found.lanes for block in lane.blocks if block.kind == "light"]
    assert [block.begins_at for block in lit] == [found.light_at]
    mixed = [block for lane in found.lanes for block in lane.blocks if block.step == "mix"]
    assert len(mixed) == 1
    (kettle,) = found.cookers
    assert max(burns.share for burns in kettle.burns) > 1.5 * max(burns.share for burns in day(OTHER).cookers[0].burns)


def test_without_phases_the_fire_is_as_long_as_usual_and_nothing_is_said_of_chances():
    found = day(piece("A", "lamb-shoulder", 2300, (), *SALTED))
    (lane,) = found.lanes
    assert (lane.off, lane.off_low, found.cookers, found.in_time) == ((), None, (), 20)
    on, off = (next(block for block in lane.blocks if block.key == key) for key in ("to.0", "off"))
    assert off.begins_at - on.begins_at == timedelta(minutes=find_cut("lamb-shoulder").fire_min)
    # what fire it is was not said; when it is to be ready is
    assert (found.lights, found.light_at) == ("Have the fire ready", on.begins_at)
    assert (on.step, on.says, off.says) == ("on", "Put it on", "Take it off")
    quick = day(piece("A", "tuna-steak", 400, ())).lanes[0]
    assert [block.says for block in quick.blocks if block.hands][-2:] == ["On the fire", "Slice it, serve"]


def test_what_is_done_is_not_done_again():
    salted = replace(SHOULDER, done={("mix", None): -1900, ("salt", 0): -1800})
    # what was done last is where it was, and what is to be done follows it
    assert keys(salted)[:2] == ["salt.0", "coat.1"]
    assert doings_of(salted)[0].task.begins == -1805
    assert keys(replace(SHOULDER, done={("coat", 1): -600}))[:2] == ["coat.1", "light.kettle"]
    assert keys(replace(SHOULDER, done={("plate", None): 0})) == []
    assert keys(replace(SHOULDER, ticked={"off": -50})) == ["off", "rest", "serve"]


def test_two_pairs_of_hands_where_one_is_not_enough():
    alone = Supper((SHOULDER, OTHER, TUNA), SUPPER, asleep(SUPPER), 1)
    found, planned = read_day(alone)
    assert {clash.kind for clash in found.clashes} == {"hands"}
    assert "One pair of hands is not enough for" in found.clashes[0].says
    way = ways_out(alone, asleep, planned)[0]
    assert (way.key, way.says, way.left) == (("people", "2"), "Somebody helps", 0)
    assert read_day(replace(alone, people=2))[0].clashes == ()


def test_too_late_to_begin_supper_is_moved_by_no_more_than_it_takes():
    # coated and put on six hours before is too late for what takes six and a half
    late = Supper((OTHER,), SUPPER, asleep(SUPPER), 2, SUPPER - timedelta(hours=6))
    found, planned = read_day(late)
    assert {clash.kind for clash in found.clashes} == {"past"}
    assert "would have begun" in found.clashes[0].says
    way = next(way for way in ways_out(late, asleep, planned) if way.key[0] == "later")
    assert way.left == 0
    kind, minutes = way.key
    assert kind == "later"
    serve_at = SUPPER + timedelta(minutes=int(minutes))
    assert plan_day(replace(late, serve_at=serve_at, nights=asleep(serve_at)))[0].clashes == ()
    assert way.says.startswith("Supper ")


ROAST = piece("A", "beef-round", 2000, (Phase("indirect", 120.0, "grate", centre_c=55.0),), SALTED[1])
LOIN = piece("D", "pork-loin", 1500, (Phase("indirect", 180.0, "grate", centre_c=63.0),), SALTED[1])


def test_one_kettle_at_two_heats_has_ways_out_that_each_say_what_they_cost():
    both = Supper((ROAST, LOIN), SUPPER, asleep(SUPPER), 4)
    found, planned = read_day(both)
    assert {clash.kind for clash in found.clashes} == {"two heats"}
    assert found.clashes[0].says.startswith("One kettle at two heats for ")
    told = {way.key: way for way in ways_out(both, asleep, planned)}
    slower, hotter = told["heat", "D", "120"], told["heat", "A", "180"]
    assert (slower.says, slower.left) == ("D at 120 °C, as A", 0)
    assert slower.costs.startswith("D takes ")
    assert "longer" in slower.costs
    assert "less" in hotter.costs
    assert all(way.left < len(found.clashes) for way in told.values())


def test_no_way_out_is_told_by_which_a_piece_would_never_be_done():
    # smoked at 45 °C one roast shares the kettle with another that is wanted at 55 in its centre
    gentle = piece("D", "pork-loin", 1500, (Phase("indirect", 45.0, "grate", lasts_s=4 * HOUR),), SALTED[1])
    both = Supper((ROAST, gentle), SUPPER, asleep(SUPPER), 4)
    planned = read_day(both)[1]
    assert planned.clashes
    told = {way.key for way in ways_out(both, asleep, planned)}
    assert ("heat", "A", "45") not in told
    assert ("heat", "D", "120") in told


def test_what_is_covered_can_leave_the_fire_for_the_oven():
    covered = piece("A", "beef-round", 2000, (Phase("indirect", 120.0, "grate", lasts_s=900.0),
                                               Phase("indirect", 120.0, "foil", centre_c=55.0)), SALTED[1])  # fmt: skip
    both = Supper((covered, LOIN), SUPPER, asleep(SUPPER), 4)
    told = {way.key: way for way in ways_out(both, asleep, read_day(both)[1])}
    oven = told["oven", "A"]
    assert (oven.says, oven.left) == ("A, once it is covered, in the oven", 0)
    assert oven.costs.startswith("A takes ")


def test_nothing_clashes_and_no_way_out_is_looked_for():
    easy = Supper((SHOULDER,), SUPPER, asleep(SUPPER), 2)
    assert ways_out(easy, asleep, read_day(easy)[1]) == ()


def test_over_summer_time_every_wait_is_as_long_as_it_was_said():
    # served on the Sunday the clocks go forward: the night before is an hour short, the salt's hold is not
    sunday = datetime(2026, 3, 29, 16, 0, tzinfo=UTC)
    for block in day(SHOULDER, serve_at=sunday).lanes[0].blocks:
        if block.hands:
            local = block.begins_at.astimezone(BERLIN)
            assert 7 <= local.hour < 23


def test_a_hold_that_the_night_makes_longer_or_shorter_is_said_to_be():
    # served at 13:00: salted 16 h and coated 2 h before it goes on at 5:45 would be coated in the middle of the night
    noon = datetime(2026, 12, 5, 12, 0, tzinfo=UTC)
    holds = [block for block in day(SHOULDER, serve_at=noon).lanes[0].blocks if block.kind == "cold hold"]
    told = [block.says for block in holds if "than its hold" in block.says]
    assert told
    coat = next(block for block in holds if block.key == "coat.1.waits")
    lasts = (coat.ends_at - coat.begins_at).total_seconds() / 60
    off = lasts - 110
    assert abs(off) < 10 or f"{'longer' if off > 0 else 'shorter'} than its hold" in coat.says
    quiet = [block.says for block in day(SHOULDER).lanes[0].blocks if block.kind == "cold hold"]
    assert quiet == ["in the cold"] * 3
