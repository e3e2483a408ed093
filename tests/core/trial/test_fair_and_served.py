"""What a trial changes at once, what muddies it, how it is served, and its cards as a file."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from ravska_core.fire import Happened
from ravska_core.trial import (
    ArmRecord,
    Guesses,
    PaperCard,
    PlatePortion,
    Put,
    Served,
    changes,
    compare_arms,
    compare_samples,
    looks_tell,
    read_cards,
    serve_within,
    write_cards,
)  # fmt: skip
from ravska_core.trial.changes import clean, two_by_two
from ravska_core.working import BadInput

RUB, BATH = Put("rub", "lamb rub", "5", "2 h"), Put("marinade", "buttermilk", "250", "16 h")
GLAZE = Put("glaze", "honey")
SALT, BINDER = Put("pre-salt", "flake salt", "0.7"), Put("binder", "mustard")


def what(a, b) -> list[tuple[str, str, str]]:
    return [(one.what, one.of, one.letter) for one in changes("A", a, "B", b)]


def test_a_rub_against_a_bath_is_one_thing_and_a_glaze_a_second():
    assert what([RUB], [BATH]) == [("layer", "lamb rub or buttermilk", "")]
    assert what([SALT, BINDER, RUB], [BATH]) == [("layer", "lamb rub or buttermilk", "")]
    assert what([RUB, GLAZE], [BATH]) == [("layer", "lamb rub or buttermilk", ""), ("layer", "honey", "A")]
    assert what([RUB], [BATH, GLAZE])[1] == ("layer", "honey", "B")
    assert what([RUB, GLAZE], [BATH, GLAZE]) == [("layer", "lamb rub or buttermilk", "")]
    assert what([BATH, RUB], [RUB]) == [("layer", "buttermilk", "A")]
    assert what([RUB], [RUB]) == []
    # what is asked about first is the coat or the bath, whatever lies on it later
    assert what([GLAZE, RUB], [BATH])[0] == ("layer", "lamb rub or buttermilk", "")
    # one blend that comes twice is one thing; a binder by itself is another
    again = [Put("injection", "stock", "10"), Put("second injection", "stock", "3")]
    assert what(again, [RUB]) == [("layer", "stock or lamb rub", "")]
    assert what([BATH, BINDER], [BATH]) == [("layer", "mustard", "A")]
    # what is eaten with it is compared by itself
    assert what([RUB, Put("at the table", "relish")], [BATH]) == [("layer", "lamb rub or buttermilk", "")]


def test_doses_and_holds_of_the_same_thing_are_changes_too():
    found = changes("A", [RUB], "B", [replace(RUB, dose="3", hold="16 h")])
    assert [one.what for one in found] == ["dose", "hold"]
    assert found[0].sentence == "The dose of lamb rub differs: A 5, B 3."
    assert found[1].sentence == "The hold of lamb rub differs: A 2 h, B 16 h."
    rest = changes("A", [RUB], "B", [replace(RUB, dose="")])
    assert rest[0].sentence == "The dose of lamb rub differs: A 5, B the rest."
    assert clean("A", "B", found) == "To ask one thing: give both the same hold of lamb rub."


def test_the_smallest_change_that_makes_it_clean_is_said_and_the_two_by_two():
    found = changes("A", [RUB, GLAZE], "B", [BATH])
    assert clean("A", "B", found) == "To ask one thing: put honey on B as well, or leave it off A."
    assert clean("A", "B", found[:1]) == ""
    assert two_by_two(("Rubbed", "Bathed"), found) == (
        "Rubbed without honey", "Rubbed with honey", "Bathed without honey", "Bathed with honey",
    )  # fmt: skip
    both = changes("A", [RUB, GLAZE], "B", [BATH, Put("baste", "butter")])
    assert [one.letter for one in both[1:]] == ["A", "B"]
    assert "put butter on A as well, or leave it off B" in clean("A", "B", both)
    assert two_by_two(("A", "B"), found[:1]) == ()
    assert [one.tappable for one in found] == [False, True]


@pytest.mark.parametrize(
    ("a", "b", "said"),
    [
        ([RUB], [BATH], "A has lamb rub on it and B nothing that shows: looks tell them apart."),
        ([BATH], [RUB, GLAZE], "B has honey and lamb rub on it and A nothing that shows: looks tell them apart."),
        ([RUB], [Put("paste", "fennel")], "A shows lamb rub, B fennel: looks may tell them apart."),
        ([RUB], [RUB, SALT], ""), ([BATH], [SALT], ""),
    ],
)  # fmt: skip
def test_what_lies_on_a_plate_tells_by_looks(a, b, said):
    assert looks_tell("A", a, "B", b) == said


ARM = ArmRecord("A", "duck-leg", 2, 600, 1.2, 9000, 600, True, name="Rubbed", stack=(RUB,), masses_g=(310, 290))
OTHER = replace(ARM, letter="B", name="Bathed", stack=(BATH,))


NOTHING = Served()


def differs(a, b, served=NOTHING) -> dict[str, tuple[str, bool]]:
    found = compare_samples([a, b], [(0, 1)], served)
    return {one.what: (one.sentence, one.can_even) for one in found.differs}


def test_weights_can_be_dealt_where_each_is_known_and_nothing_was_on_the_fire():
    heavy = replace(OTHER, mass_g=800, masses_g=(400, 400))
    assert differs(ARM, heavy)["weight"][1]
    assert not differs(ARM, replace(heavy, masses_g=()))["weight"][1]
    assert not differs(ARM, replace(heavy, masses_g=(800,)))["weight"][1]
    assert not differs(replace(ARM, masses_g=(600,)), replace(heavy, masses_g=(800,)))["weight"][1]


def test_portions_and_minutes_to_the_plates_are_compared_where_both_were_said():
    cut = PlatePortion("across", 8, "an edge", "middle")
    alike = compare_samples([replace(ARM, portion=cut), replace(OTHER, portion=cut)], [(0, 1)], Served())
    assert "portions (grain, share of crust, place in the piece, thickness)" in alike.same
    other = replace(OTHER, portion=replace(cut, crust="none", thickness_mm=11), plate_s=300)
    found = compare_samples([replace(ARM, portion=cut, plate_s=600), other], [(0, 1)], Served())
    said = [one.sentence for one in found.differs]
    assert "The portions differ in their share of crust: A an edge, B none." in said
    assert "The slices differ in thickness: A 8 mm, B 11 mm." in said
    assert "The time from the fire to the plates differs: A 10 min, B 5 min." in said
    near = replace(OTHER, portion=replace(cut, thickness_mm=10), plate_s=301)
    close = compare_samples([replace(ARM, portion=cut, plate_s=600), near], [(0, 1)], Served())
    assert not close.differs
    assert "time from the fire to the plates" in close.same
    half = compare_samples([replace(ARM, plate_s=600), OTHER], [(0, 1)], Served())
    assert "time from the fire to the plates" in half.unknown


def test_what_was_shared_and_what_was_guessed_muddies():
    found = differs(ARM, OTHER, Served(shared=("one board",)))
    assert found["shared"] == ("They share one board: what drips or dusts off one may be on the other.", False)
    half = differs(ARM, OTHER, Served(8, 0, (), True, Guesses(8, 8, 0.004, True)))
    assert half["guessed"][0].startswith("8 of 8 guessed which was which, more than chance would")
    assert "looks" not in half
    blind = differs(ARM, OTHER, Served(8, 0, (), True, Guesses(4, 8, 0.6, False)))
    assert not {"guessed", "looks"} & blind.keys()
    assert "looks" not in differs(ARM, OTHER, Served(8, asked=True))  # told with the pieces, not before
    unasked = differs(ARM, OTHER, Served(8))
    assert unasked["looks"][0].endswith("No card said what it took them for.")
    assert "looks" not in differs(ARM, OTHER)  # before the first card there is nothing to say of it


def test_of_several_samples_every_pair_is_compared_and_each_difference_told_once():
    third = replace(OTHER, letter="C", salt_percent=1.9, cut="duck-breast")
    found = compare_samples([ARM, OTHER, third], [(0, 1), (0, 2), (1, 2)], Served())
    said = [one.sentence for one in found.differs]
    assert "A and C are different cuts, so cut and seasoning cannot be told apart." in said
    assert "B and C are different cuts, so cut and seasoning cannot be told apart." in said
    assert len(said) == len(set(said))
    assert "cut" not in found.same
    assert "weight" in found.same
    near = compare_samples(
        [ARM, replace(OTHER, mass_g=612), replace(third, mass_g=640)], [(0, 1), (0, 2), (1, 2)], NOTHING
    )
    assert [word for word in near.same if word.startswith("weight")] == ["weight within 6 %"]
    # of three that differ in salt the two furthest apart are named
    assert [one for one in said if "more salt" in one] == [
        "C carries 0.70 points more salt than A: tasters may be voting for salt."
    ]
    half = replace(third, letter="D", salt_percent=1.5, mass_g=900)
    four = compare_samples([ARM, OTHER, third, half], [(0, 2), (0, 3), (2, 3)], Served())
    assert [one.sentence[:9] for one in four.differs if one.what in ("salt", "weight")] == ["C carries", "D weighs "]
    # in a two-by-two only those in a row are
    assert compare_samples([ARM, OTHER, third], [(0, 1)], Served()).differs == ()


def test_a_pair_with_two_changes_is_the_one_that_is_told():
    both = replace(OTHER, letter="C", stack=(BATH, GLAZE))
    found = compare_samples([ARM, OTHER, both], [(0, 1), (0, 2)], Served())
    assert len(found.changes) == 2
    assert found.can_clean
    assert found.two_by_two
    one = compare_arms(ARM, OTHER, 0, 0)
    assert (one.clean, one.two_by_two, one.can_clean) == ("", (), False)


NOON = datetime(2027, 6, 12, 12, 0, tzinfo=UTC)


def test_plates_wait_for_the_last_and_no_longer_than_they_stay_warm():
    later = NOON + timedelta(minutes=12)
    found = serve_within({"A": NOON, "B": later}, 2)
    assert (found.first_off, found.until) == (NOON, later + timedelta(minutes=20))
    assert found.says.startswith("The first came off 12 min before the last.")
    together = serve_within({"A": NOON, "B": NOON + timedelta(minutes=4)}, 2)
    assert together.says.startswith("They came off together")
    assert serve_within({"A": NOON, "B": None}, 2).says.startswith("Not all of them are off")
    none = serve_within({"A": None, "B": None}, 2)
    assert none.until is None


HEAD = "taster,plate,place,prefers,odd,guess,rank,overall,salt,face,words,child"


def test_cards_go_out_and_come_in_again_as_they_were():
    card = PaperCard("=Kittiwake", 0, ["417", "305"], scores=[("417", "overall", 7), ("305", "overall", 5)],
                     words=[("305", ["smoke", "lingers"])], prefers="417", guess="305", short=True)  # fmt: skip
    text = write_cards([card], {})
    assert "'=Kittiwake,417,1,x,,," in text
    (back,), faults = read_cards(text)
    assert faults == []
    assert (back.taster, back.order(), back.prefers, back.odd, back.guess, back.short) == (
        "=Kittiwake", ["417", "305"], "417", None, "305", True,
    )  # fmt: skip
    assert sorted(back.scores) == sorted(card.scores)
    assert back.words == card.words
    assert write_cards([card], {"417": "A Rubbed", "305": "B Bathed"}).splitlines()[1].endswith(",x,A Rubbed")


@pytest.mark.parametrize(
    ("row", "column", "said"),
    [
        (",417,1", 1, "Say who tasted"), ("Otter,41,1", 2, "three digits"), ("Otter,417,1,maybe", 4, "Mark the plate"),
        ("Otter,417,1,,,,,10", 8, "whole number"), ("Otter,417,1,,,,0", 7, "whole number"),
        ("Otter,417,1,,,,,,,," + "w" * 31, 11, "Part words"), ("Otter,417,1,,,,,,,,,perhaps", 12, "child’s card"),
        ("Otter,305,1", 2, "stands twice"), ("Otter,417,2,x", 4, "Only one plate"),
    ],
)  # fmt: skip
def test_what_a_file_has_wrong_is_named_by_line_and_column_and_takes_its_card_along(row, column, said):
    text = f"{HEAD}\nOtter,305,1,x,,,,5\n{row}\nHeron,417,1,,,,,6\n"
    cards, faults = read_cards(text)
    assert [card.taster for card in cards] == (["Otter", "Heron"] if row.startswith(",") else ["Heron"])
    assert (faults[0].line, faults[0].column) == (3, column)
    assert said in faults[0].sentence


def test_a_file_that_is_none_is_refused_and_others_parts_are_taken():
    for bad in ("", "who,what\n1,2\n"):
        with pytest.raises(BadInput):
            read_cards(bad)
    (card,), _ = read_cards("\ufeffTaster;Plate;Overall\nOtter;417;6\n\nOtter;305;7\n")
    assert card.order() == []  # no place was given: as they stand
    assert card.scores == [("417", "overall", 6), ("305", "overall", 7)]
    many = "taster,plate\n" + "\n".join(f"Boat {n},{100 + n % 800}" for n in range(500))
    with pytest.raises(BadInput, match="At most 60 cards"):
        read_cards(many)
    cards, faults = read_cards('taster,plate\nOtter,417\n"Heron,305\n')
    assert [card.taster for card in cards] == ["Otter"]
    assert (faults[0].line, "quotation" in faults[0].sentence) == (3, True)


LOG = Happened(
    "A", on_s=0, fire_s=7200, rest_s=1800, plate_s=600, from_embers=0.5, near=False, wrapped_s=0, turned=1, basted=0,
    pit_c=120, end_c=60, highest_c=62, feel="giving", colour="", served_at_s=None,
)  # fmt: skip


@pytest.mark.parametrize(
    ("name", "changed", "size"),
    [
        ("salt", {"salt_percent": 1.8}, 2.0),
        ("salt", {"salt_percent": 0.9}, -1.0),
        ("weight", {"mass_g": 900}, 2.0),
        ("weight", {"mass_g": 400}, -2.0),
        ("count", {"count": 3}, 1.0),
        ("fire", {"fire_s": 9000 + 2400}, 2.0),
        ("rest", {"rest_s": 600 + 900}, 1.0),
        ("plate", {"plate_s": 1200.0}, 1.5),
        ("bare face", {"surface_coated": False}, -1.0),
        ("beside", {"beside": (("relish", 20.0),)}, 1.0),
    ],
)
def test_what_differs_is_sized_in_its_usual_size_above_zero_where_the_second_has_more(name, changed, size):
    second = replace(ARM, letter="B", **changed)
    first = replace(ARM, plate_s=300.0) if name == "plate" else ARM
    (found,) = [one for one in compare_arms(first, second, 0, 0).differs if one.what == name]
    assert found.size == pytest.approx(size)
    (turned,) = [one for one in compare_arms(replace(second, letter="A"), replace(first, letter="B"), 0, 0).differs
                 if one.what == name]  # fmt: skip
    assert turned.size == pytest.approx(-size)
    assert turned.about == found.about


@pytest.mark.parametrize(
    ("name", "changed", "size"),
    [
        ("order", {"on_s": 900}, 1.5),
        ("place", {"near": True}, 1.0),
        ("pit", {"pit_c": 105}, -1.5),
        ("end", {"end_c": 66}, 2.0),
        ("wrap", {"wrapped_s": 2400}, 2.0),
        ("baste", {"basted": 3}, 1.5),
        ("feel", {"feel": "tough"}, 1.0),
    ],
)
def test_what_differed_on_the_fire_is_sized_too(name, changed, size):
    first, second = replace(ARM, log=LOG), replace(ARM, letter="B", log=replace(LOG, letter="B", **changed))
    (found,) = [one for one in compare_arms(first, second, 0, 0).differs if one.what == name]
    assert found.size == pytest.approx(size)
    turned = compare_arms(replace(first, log=second.log), replace(second, log=LOG), 0, 0)
    (other,) = [one for one in turned.differs if one.what == name]
    assert other.size == pytest.approx(-size)
    assert other.about == found.about


def test_two_words_differ_about_the_same_whichever_has_which():
    oak, apple = (replace(ARM, letter=letter, phases=("indirect",), wood=(wood,))
                  for letter, wood in (("A", "oak"), ("B", "apple")))  # fmt: skip
    (one,) = [one for one in compare_arms(oak, apple, 0, 0).differs if one.what == "wood"]
    assert (one.size, one.about) == (-1.0, "apple | oak")
