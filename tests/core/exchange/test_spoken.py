"""Amounts and names as people say them: a corpus, amounts written at random, and lines with words that mean nothing."""

from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.exchange import Item, by_eye, read_amount
from ravska_core.exchange.items import Amount, added
from ravska_core.exchange.lists import read_list
from ravska_core.working import BadInput

CORPUS = [
    tuple(row.split(" => "))
    for row in (Path(__file__).parent / "spoken_corpus.txt").read_text().splitlines()
    if row and not row.startswith("#")
]


def says(item: Item, wanted: str) -> bool:
    """Tell whether an item was read, or asked about, as the corpus wants it."""
    eyed, wanted = wanted.endswith(" ~"), wanted.removesuffix(" ~")
    word, *rest = wanted.split(" ")
    if word != "ask":
        if item.status != "understood" or item.amount is None or (eyed and not by_eye(item.amount)):
            return False
        return (item.grind, item.amount.kind) == (word, rest[0]) and near(item, rest[1])
    if item.status == "understood" or not item.question:
        return False
    if rest:
        offered = [item.grind, *item.closest] if item.grind else list(item.closest)
        first, _, other = rest[0].partition("|")
        if offered[:1] != [first] or (other and item.swap != other):
            return False
    return len(rest) < 3 or (item.amount is not None and item.amount.kind == rest[1] and near(item, rest[2]))


def near(item: Item, wanted: str) -> bool:
    return item.amount is not None and abs(item.amount.value / float(wanted) - 1) <= 0.01


def right(text: str, wanted: str) -> bool:
    (line,) = read_list(text)
    specs = wanted.split(" & ")
    return len(line.items) == len(specs) and all(map(says, line.items, specs))


def test_the_corpus_is_read_right_mostly_ticked_and_never_ticked_wrong():
    assert len(CORPUS) >= 250
    wrong = {text for text, wanted in CORPUS if not right(text, wanted)}
    assert len(wrong) <= 0.03 * len(CORPUS), wrong
    asked = ticked = 0
    for text, wanted in CORPUS:
        (line,) = read_list(text)
        assert line.text == text
        assert line.items
        asked += line.status != "understood"
        ticked += line.status == "understood"
        if line.status == "understood":
            assert "ask" not in wanted, text
            assert text not in wrong
    assert ticked >= 0.85 * len(CORPUS)
    assert asked <= 0.15 * len(CORPUS)


WORDS = (
    "zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
    "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen",
)  # fmt: skip
TENS = ["-", "-", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]
SHARES = {Fraction(1, 2): ("half", "1/2", "½"), Fraction(1, 4): ("quarter", "1/4", "¼"),
          Fraction(3, 4): ("three quarters", "3/4", "¾"), Fraction(1, 3): ("third", "1/3", "⅓"),
          Fraction(2, 3): ("two thirds", "2/3", "⅔"), Fraction(1, 8): ("eighth", "1/8", "⅛"),
          Fraction(3, 8): ("three eighths", "3/8", "⅜")}  # fmt: skip


def spelled(number: int) -> str:
    if number >= 100:
        rest = f" and {spelled(number % 100)}" if number % 100 else ""
        return f"{spelled(number // 100)} hundred{rest}"
    if number >= 20:
        return TENS[number // 10] + (f" {WORDS[number % 10]}" if number % 10 else "")
    return WORDS[number]


@st.composite
def numbers(draw) -> tuple[str, Fraction]:
    """A number as someone might write or say it, and what it is."""
    whole = draw(st.integers(0, 999))
    share = draw(st.sampled_from([None, *SHARES]))
    word, figures, sign = SHARES[share] if share else ("", "", "")
    article = "" if " " in word else "a "
    if not whole and not share:
        whole = 1
    if not share:
        return draw(st.sampled_from([str(whole), spelled(whole)])), Fraction(whole)
    if not whole:
        return draw(st.sampled_from([figures, sign, f"{article}{word}", f"{article}{word} of a"])), share
    if whole < 100:
        said = [f"{whole} {figures}", f"{whole}{sign}", f"{whole} and {article}{word}",
                f"{spelled(whole)} and {article}{word}", f"{whole}-{figures}"]  # fmt: skip
        return draw(st.sampled_from(said)), whole + share
    return f"{whole} {figures}", whole + share


# ml of a US spoon and cup (NIST Handbook 44, appendix C), and the metric ones by definition
ML = {"tsp": 4.92892159375, "teaspoons": 4.92892159375, "tbsp": 14.78676478125, "cups": 236.5882365, "ml": 1.0,
      "dl": 100.0, "quarts": 946.352946, "EL": 15.0}  # fmt: skip
G = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237, "pounds": 453.59237}


@given(numbers(), st.sampled_from([*ML, *G]))
def test_an_amount_written_in_words_or_figures_reads_back_as_what_it_is(number, unit):
    text, value = number
    factor, kind = (ML[unit], "ml") if unit in ML else (G[unit], "g")
    found = read_amount(f"{text} {unit}")
    assert found.kind == kind
    assert found.value == pytest.approx(float(value) * factor, rel=1e-9)
    (line,) = read_list(f"{text} {unit} of the smoked paprika")
    (item,) = line.items
    assert (item.status, item.grind) == ("understood", "paprika-smoked/powder")
    assert item.amount.value == pytest.approx(found.value)


@given(numbers(), numbers(), st.sampled_from([*ML]), st.sampled_from(["to", "or", "-", "–"]))
def test_a_range_is_its_middle_give_or_take_half_of_it_and_a_sum_is_a_sum(first, second, unit, joint):
    a, b = float(first[1]), float(second[1])
    if not first[0].endswith(" of a") and not second[0].endswith(" of a") and (joint.isalpha() or a != b):
        plain = not any(" and " in text or "a" in text for text in (first[0], second[0]))
        if plain:
            found = read_amount(f"{first[0]} {joint} {second[0]} {unit}")
            mixed = joint == "-" and second[1] < 1 and first[1].denominator == 1
            if not mixed:
                assert found.value == pytest.approx((a + b) / 2 * ML[unit], rel=1e-9)
                assert found.error >= min(0.9, abs(a - b) / (a + b)) - 1e-9
    found = read_amount(f"{first[0]} {unit} plus {second[0]} {unit}")
    assert found.value == pytest.approx((a + b) * ML[unit], rel=1e-9)


NONSENSE = ["zqx", "blorp", "trundlewick", "frobnic", "qrst", "vantasp", "glimmerdust"]


@given(st.sampled_from(CORPUS), st.sampled_from(NONSENSE), st.floats(0, 1))
def test_a_line_with_a_word_that_means_nothing_is_never_ticked_and_the_word_is_marked(row, word, where):
    words = row[0].split(" ")
    words.insert(round(where * len(words)), word)
    text = " ".join(words)
    for line in read_list(text):
        assert line.status != "understood", text
        marked = " ".join(text[begins:ends] for item in line.items for begins, ends in item.unread)
        assert line.status == "heading" or word in marked, text


@given(st.lists(st.sampled_from(" ".join(text for text, _ in CORPUS).split()), min_size=1, max_size=9))
def test_whatever_is_ticked_uses_every_word(words):
    """Words of the corpus in any order: what is ticked is still ticked when said again, and not with one word more."""
    text = " ".join(words)
    try:
        lines = read_list(text)
    except BadInput:
        return
    for line in lines:
        if line.status == "understood":
            assert not any(item.unread for item in line.items)
            assert all(item.amount and item.amount.value > 0 for item in line.items)
            (worse,) = read_list(f"{text} blorp")
            assert worse.status != "understood", text


@pytest.mark.parametrize(
    ("text", "unread", "read"),
    [
        ("2 tsp cumin for the lamb", ["for", "lamb"], 9.858),
        ("1 tbsp salt (I use less)", ["less"], 14.79),
        ("2 tsp quuxed paprika", ["quuxed"], 9.858),
    ],
)
def test_what_is_asked_about_marks_its_words_and_keeps_what_was_read_so_far(text, unread, read):
    (line,) = read_list(text)
    (item,) = line.items
    assert item.status == "what"
    marked = [text[begins:ends] for begins, ends in item.unread]
    assert set(unread) <= set(marked)
    assert item.amount.value == pytest.approx(read, rel=1e-3)
    assert item.closest


def test_or_keeps_the_other_as_the_swap_and_what_is_divided_has_its_uses():
    (line,) = read_list("2 tbsp butter or ghee, divided, plus more for the grate")
    (item,) = line.items
    assert (item.status, item.swap) == ("what", "ghee/melted")
    assert item.uses == ("the rest of it, divided", "for the grate")
    # the same thing twice is no question
    assert read_list("1 cup chicken or beef stock")[0].status == "understood"


def test_a_handful_of_a_herb_is_fresh_unless_it_is_said_to_be_dried():
    grinds = [line.items[0].grind for line in read_list("a handful of thyme\na handful of dried thyme\n2 tsp thyme")]
    assert grinds == ["thyme-fresh/leaf", "thyme/leaf", "thyme/leaf"]


def test_the_same_again_goes_by_the_line_before_and_a_share_of_it_by_its_share():
    salt, sugar, paprika = (
        line.items[0].amount for line in read_list("3 tbsp salt\nhalf as much sugar\nthe same again of paprika")
    )
    assert sugar.value == pytest.approx(salt.value / 2)
    assert paprika.value == sugar.value
    assert paprika.error > sugar.error > 0.25


@pytest.mark.parametrize("text", ["2 tsp or so of it", "1 tbsp each", "2 tsp, divided", "a bit", "1 to", "2 tsp blorp",
                                  "lots and lots", "1/0 tsp", "to taste", "2 g 3 ml"])  # fmt: skip
def test_an_amount_reader_refuses_whatever_it_would_have_to_ask_about(text):
    if text == "a bit":
        assert read_amount(text).error > 0.5
        return
    with pytest.raises(BadInput):
        read_amount(text)


@pytest.mark.parametrize(
    ("text", "grind"),
    [
        ("sweet soy sauce", "soy-sauce-sweet"), ("low-sodium soy sauce", "soy-sauce-low"),
        ("garlic salt", "garlic-salt"), ("salted butter", "butter-salted"), ("dessert wine", "dessert-wine"),
        ("apple juice", "apple-juice"),
        ("garlic flakes", "garlic-granulated"), ("pepper flakes", "chilli-flakes"),
    ],
)  # fmt: skip
def test_a_word_that_changes_the_thing_is_never_swallowed(text, grind):
    (line,) = read_list(f"2 tbsp {text}")
    assert line.items[0].grind.split("/")[0] == grind
    # whatever else may change a thing is asked about
    for word in ("sugar-free", "smoked", "pickled", "black", "instant", "diet"):
        (changed,) = read_list(f"2 tbsp {word} {text}")
        assert changed.status == "what", f"{word} {text}"


@pytest.mark.parametrize(
    ("line", "read"),
    [
        # a weight or a volume in brackets is the amount, whatever stands beside it
        ("1 onion (150 g peeled)", "onion-fresh/chopped g 150"),
        ("2 tsp cumin (ground, 4 g)", "cumin/ground g 4"),
        # a bare number in brackets is one too, words alone are none
        ("onion (2)", "onion-fresh/chopped g 220"),
        ("garlic (3 cloves)", "garlic-fresh/crushed g 9"),
        ("2 tsp cumin (toasted)", "cumin/ground ml 9.85784"),
        ("2-3 tsp cumin", "cumin/ground ml 12.3223"),
        ("3-2 tsp cumin", "cumin/ground ml 12.3223"),
    ],
)
def test_an_amount_in_brackets_counts_and_a_range_reads_either_way_round(line, read):
    assert right(line, read)


def _only(text: str):
    ((item,),) = [line.items for line in read_list(text)]
    return item


def test_brackets_one_after_the_other_are_all_read_and_amounts_said_twice_are_one():
    assert _only("salt (fine) (fine) (fine) (2 tbsp)").amount.value == pytest.approx(29.574, rel=1e-4)
    # the same weight in two units stands between a slash; between a comma one of them is asked about
    assert (_only("30 g / 1 oz salt").status, _only("30 g / 1 oz salt").unread) == ("understood", ())
    assert _only("30 g, 1 oz salt").status == "what"
    assert _only("30 g, 1 oz salt").unread


def test_spoons_are_told_only_where_all_of_it_was_said_in_them():
    assert _only("1 tbsp + 1 tsp honey").amount.spooned == "1 tbsp + 1 tsp"
    in_spoons, weighed = Amount("ml", 15.0, 0.0, "1 tbsp", spooned="1 tbsp"), Amount("ml", 30.0, 0.0, "a glug")
    assert added(in_spoons, weighed).spooned == added(weighed, in_spoons).spooned == ""


def test_parts_by_weight_and_by_spoon_are_told_apart_from_parts():
    assert _only("2 parts salt").amount.basis == ""
    assert _only("2 parts salt by weight").amount.basis == "scale"
    assert _only("2 parts salt by volume").amount.basis == "spoon"
