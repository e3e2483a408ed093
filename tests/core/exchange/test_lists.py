"""Lists as people write them: a corpus, what is asked, and text that reads back the same."""

import json
from dataclasses import replace
from fractions import Fraction

import pytest
from builders import KEYS, lines
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import Blend, Line, MethodStep
from ravska_core.catalogue import folded, match
from ravska_core.exchange import in_hand, read_amount
from ravska_core.exchange.bring import bring, steps_of
from ravska_core.exchange.csv import write_csv
from ravska_core.exchange.forms import on_paper
from ravska_core.exchange.items import by_eye
from ravska_core.exchange.jsonld import write_jsonld
from ravska_core.exchange.lists import read_list
from ravska_core.exchange.markdown import write_markdown
from ravska_core.exchange.taking import take
from ravska_core.measure import SPOON_SETS, measure_out
from ravska_core.working import BadInput


@given(st.text(max_size=80))
def test_any_line_at_all_is_understood_asked_about_or_said_to_be_no_ingredient(text):
    try:
        found = read_list(text)
    except BadInput as refusal:
        assert "column" in refusal.sentence  # noqa: PT017
        return
    written = [line for line in text.replace("\r\n", "\n").replace("\r", "\n").split("\n") if line.strip()]
    assert [line.text for line in found] == written
    for line in found:
        assert line.items or line.status in ("heading", "remark")
        assert all(item.status == "understood" or item.question for item in line.items)


WRITERS = [write_jsonld, write_csv, write_markdown]


@given(lines(), st.floats(20, 900), st.text(max_size=30))
def test_what_goes_out_reads_as_a_cook_would_write_it_and_carries_the_exact_blend_unharmed(of, batch_g, exact):
    blend = Blend("marinade", of, batch_g, "Written down")
    paper = on_paper(blend)
    exact = json.dumps({"of": exact, "--": "-->"})
    for write in WRITERS:
        brought = bring(write(blend, exact=exact))
        assert (brought.name, brought.kind, brought.exact) == ("Written down", "marinade", exact)
        assert brought.steps == paper.steps
        assert brought.steps
        items = [item for line in brought.lines for item in line.items]
        # every other reader has spoons and grams: by those it weighs what it should
        masses = [shown.mass.value for shown in paper.reading.lines]
        assert [item.grind for item in items] == [line.grind for line in of]
        for item, mass in zip(items, masses, strict=True):
            held = in_hand(item, SPOON_SETS["us"])
            assert held.grams == pytest.approx(mass, rel=0.06 if mass > 1 else 0.6, abs=0.06)


def test_a_text_that_was_changed_since_is_read_from_its_text_and_says_so():
    rows = (Line("cumin/ground", Fraction(2), "spoon"), Line("table-salt/fine", Fraction(1), "scale"))
    blend = Blend("dry rub", rows, 60.0, "Weir rub")
    for write in WRITERS:
        text = write(blend, exact="{}")
        assert bring(text).exact == "{}"
        changed = bring(text.replace("cumin", "cayenne", 1))
        assert changed.exact == ""
        assert any("changed since" in note for note in changed.notes)
    # one that is damaged is no fault either
    damaged = write_markdown(blend, exact="{}").replace('{"of"', '{"of')
    assert "damaged" in bring(damaged).notes[0]
    assert bring(write_markdown(blend)).notes == ()


def test_a_line_on_paper_is_spoons_name_and_grams_and_a_nameless_blend_has_a_name():
    # by hand: a teaspoon of flake salt is 2.6 g, so of 10 parts by spoon and 4 g a part weighs 2.6 g / 4.929 ml
    blend = Blend("dry rub", (Line("sea-salt-flake/flake", Fraction(10), "spoon"),
                              Line("cayenne/powder", Fraction(4), "scale", error=0.3)), 100.0)  # fmt: skip
    paper = on_paper(blend)
    salt_g = 100 * 10 * 2.6 / 4.92892 / (10 * 2.6 / 4.92892 + 4)
    assert (paper.name, paper.makes) == ("Dry rub", "100 g")
    assert paper.steps
    first, second = paper.lines
    assert first.text == f"{measure_out(salt_g / 2.6 * 4.92892).text} flake sea salt ({salt_g:.1f} g)"
    assert second.text.startswith(f"about {100 - salt_g:.1f} g cayenne, powder (")
    assert paper.portion.startswith("1 tsp (")


@pytest.mark.parametrize("write", WRITERS)
def test_what_a_sieve_holds_back_and_the_blend_itself_are_told_apart_in_a_list(write):
    stock = Blend(
        "marinade", (Line("water/liquid", Fraction(9), "scale"), Line("thyme/leaf", Fraction(1), "scale")), 300.0,
        "Stock for 2, strained", method=(MethodStep("strain", (1,)),),
    )  # fmt: skip
    rows = (Line("", Fraction(2), "scale", blend=stock, held=True), Line("", Fraction(3), "scale", blend=stock))
    brought = bring(write(Blend("cooking liquid", rows, 100.0, "Pot")), blends={"stock for 2, strained": "stock-key"})
    items = [item for line in brought.lines for item in line.items]
    assert [(item.status, item.blend, item.held) for item in items] == [
        ("understood", "stock-key", True), ("understood", "stock-key", False)
    ]  # fmt: skip
    taken = take([(item, replace(row, held=False)) for item, row in zip(items, rows, strict=True)])
    assert [(float(line.parts), line.blend, line.held) for line in taken.lines] == [
        (40, stock, True),
        (60, stock, False),
    ]
    assert items[0].name == "sieved out of stock for 2, strained"
    # without the blend in the book it is asked about, not taken for something else
    (unknown,) = [item for line in read_list("2 g what the sieve holds back of “Stock”") for item in line.items]
    assert unknown.status == "what"


steps = st.builds(
    MethodStep,
    st.sampled_from(["mix", "strain", "simmer", "rest"]),
    st.lists(st.integers(0, 2), unique=True, max_size=3).map(tuple),
    st.just(""),
    st.sampled_from([0.25, 1 / 3, 0.5, 0.3]),
    st.sampled_from([0.0, 600.0, 5400.0]),
    st.sampled_from(["", "Off the fire."]),
)


@given(st.lists(steps, max_size=6), st.sampled_from(KEYS))
def test_a_method_written_as_sentences_reads_back_the_same(method, key):
    keys = [key, *(other for other in ("water/liquid", "honey/liquid", "thyme/leaf") if other != key)][:3]
    meant = tuple(
        MethodStep(
            step.do,
            step.of if step.do in ("mix", "strain") else (),
            "",
            step.by if step.do == "simmer" else 0.0,
            step.lasts_s if step.do in ("simmer", "rest") else 0.0,
            step.note,
        )
        for step in method
    )
    blend = Blend("glaze", tuple(Line(k, Fraction(1), "scale") for k in keys), 100.0, "Made", method=meant)
    paper = on_paper(blend)
    found = steps_of(paper.steps, [line.name for line in paper.lines]) if meant else []
    assert len(found) == len(meant)
    for read, step in zip(found, meant, strict=True):
        assert (read.do, read.of, read.note) == (step.do, step.of, step.note)
        assert (read.by, read.lasts_s) == pytest.approx((step.by, step.lasts_s), abs=1e-3)


@pytest.mark.parametrize(
    ("text", "place"),
    [
        ('{"@type": "Recipe", "recipeIngredient": ["1 tsp salt",]}', "Line 1, column"),
        ('{\n  "@type": "Recipe"\n  "name": "x"\n}', "Line 3, column 3"),
        ("[" * 5000, "Line 1, column"),
        ('{"@type": "Person", "name": "nobody"}', "Line 1, column 1"),
        ("2 tsp salt\n1 tsp pep\x00per", "Line 2, column 10"),
        ('ingredient,amount\nsalt,"2 tsp\n', "Line 2"),
        ("ingredient,amount\nsalt,2 tsp,3,4\n", "Line 2, column 3"),
        ("ingredient,ingredient\nsalt,2 tsp\n", "Line 1"),
        ("\n".join(["1 tsp salt"] * 300), "lines"),
        ("x" * 500_000, "kB"),
        ("   ", "nothing here"),
        ("# Title\n\nOnly prose stands here:\n", "no ingredient"),
    ],
)
def test_damaged_and_hostile_files_end_in_a_sentence_that_says_where(text, place):
    with pytest.raises(BadInput) as refusal:
        bring(text)
    assert refusal.value.argument == "text"
    assert place in refusal.value.sentence


TERMS = ["@type", "@graph", "name", "recipeIngredient", "text", "recipeInstructions", "recipeYield"]
anything = st.recursive(
    st.none() | st.booleans() | st.floats() | st.text(max_size=12),
    lambda of: st.lists(of, max_size=4) | st.dictionaries(st.sampled_from(TERMS), of, max_size=5),
)


@given(anything)
def test_any_json_is_read_or_refused_in_a_sentence(value):
    try:
        bring(json.dumps({"@type": "Recipe", "recipeIngredient": ["1 tsp salt"], "more": value, "name": value}))
        bring(json.dumps({"@type": ["Recipe"], "recipeIngredient": value, "recipeInstructions": value}))
    except BadInput as refusal:
        assert refusal.sentence  # noqa: PT017


def test_a_recipe_page_is_read_with_its_steps_and_sections():
    page = """<html><script type="application/ld+json">
    {"@context": "https://schema.org", "@graph": [{"@type": "WebSite"},
     {"@type": ["Recipe"], "name": "Quay &amp; glaze",
     "recipeIngredient": ["1 cup honey", "2 tbsp <b>cider vinegar</b>", "magic"],
     "recipeInstructions": [{"@type": "HowToSection", "itemListElement": [
        {"@type": "HowToStep", "text": "Stir honey into the vinegar."},
        {"@type": "HowToStep", "text": "Simmer until reduced by a third, 10 minutes."}]}, "Leave for 2 hours."]}]}
    </script></html>"""
    brought = bring(page)
    assert brought.name == "Quay & glaze"
    assert [line.status for line in brought.lines] == ["understood", "understood", "what"]
    read = steps_of(brought.steps, ["honey", "cider vinegar"])
    assert [step.do for step in read] == ["mix", "simmer", "rest"]
    assert read[1].by == pytest.approx(1 / 3)
    assert (read[1].lasts_s, read[2].lasts_s) == (600, 7200)
    assert read[0].note == "Stir honey into the vinegar."  # other people's words stay


def test_spoons_and_weights_keep_their_basis_and_the_batch_is_what_was_listed():
    items = [item for line in read_list("2 tbsp paprika\n1 tsp cayenne\n3 tsp table salt") for item in line.items]
    taken = take([(item, None) for item in items])
    assert [(x.parts, x.basis) for x in taken.lines] == [(6, "spoon"), (1, "spoon"), (3, "spoon")]
    assert taken.batch_g == pytest.approx(6 * 2.3 + 1.8 + 3 * 6.0, rel=0.01)  # by hand, US portion weights
    mixed = take([(i, None) for line in read_list("100 g salt\n2 tbsp honey") for i in line.items])
    assert [x.basis for x in mixed.lines] == ["scale", "spoon"]
    assert float(mixed.lines[1].parts) == pytest.approx(29.57, abs=0.01)  # 1 part is 1 g, or 1 ml
    with pytest.raises(BadInput, match="how much a part is"):
        take([(i, None) for line in read_list("100 g salt\n2 parts honey") for i in line.items])


def test_amounts_by_eye_carry_their_error_and_same_again_that_of_the_line_before():
    handful, same = read_list("a small handful of thyme\nsame again of dried oregano")
    first, second = handful.items[0].amount, same.items[0].amount
    assert by_eye(first)
    assert second.value == first.value == 25
    assert second.error > first.error == pytest.approx(0.4)
    assert not by_eye(read_amount("2 tsp"))
    with pytest.raises(BadInput, match="no amount"):
        read_amount("lots and lots")


def test_a_name_is_only_understood_when_every_word_of_it_is():
    assert match("smoked paprika").grind == "paprika-smoked/powder"
    assert match("ancient purple paprika").grind is None
    assert match("papirka").closest[0] == "paprika/powder"
    assert match("onions, finely chopped").grind == "onion-fresh/chopped"
    assert match("Kosher salt, dense flake").grind == "kosher-dense/flake"


def test_a_blend_of_ones_own_is_found_by_its_name_whatever_it_holds():
    own = {folded("Rub 42, the 2nd ½"): "key-1", "weir house lamb rub": "key-2"}
    found = read_list(
        "1½ parts by spoon of “Rub 42, the 2nd ½”\n2 tbsp Weir House lamb rub\n1 tsp “Nobody’s rub”", blends=own
    )
    assert [item.blend for line in found for item in line.items] == ["key-1", "key-2", ""]
    assert found[0].items[0].amount.exact == Fraction(3, 2)
    assert found[2].status == "what"
