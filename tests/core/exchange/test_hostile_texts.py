"""Texts that are damaged, hostile or huge: read or refused in a sentence, in time that grows as they do."""

import time
from collections.abc import Callable

import pytest
from ravska_core.blend.label_list import read_ingredients
from ravska_core.exchange.bring import bring
from ravska_core.exchange.lists import read_list
from ravska_core.working import BadInput

LD = '<script type="application/ld+json">'
RECIPE = '{"@type": "Recipe", "name": "Lock rub", "recipeIngredient": ["2 tsp salt", "1 tsp cumin"]}'
AGAIN = [
    "<script ", LD, "<script>", "</script", "<", "<![x y>", "<!--", "<!-- a -->", "&amp", "&#", "[", "![", "[a](", "(",
    '{"a":', '"', '"a,"b', ",", ";", "1", "1/", "1-", "½", " ", "\u00a0", "a ", "salt and ", "1 or ", "2 x ",
    "1 tsp salt\n", "# ", "| a | b |\n", "*a ", "_a", "`", "> ", "<p>", "\x00", "\ud800", "\u202e",
]  # fmt: skip
READERS: dict[str, Callable[[str], object]] = {
    "whatever it is": bring,
    "as a page": lambda text: bring(f"<html>{text}", "jsonld"),
    "in a recipe": lambda text: bring(f"<html>{LD}{RECIPE}</script>{text}", "jsonld"),
    "as CSV": lambda text: bring(text, "csv"),
    "as CSV below a head": lambda text: bring(f"ingredient,amount\n{text}", "csv"),
    "as Markdown": lambda text: bring(text, "markdown"),
    "as a list": read_list,
    "as a label": read_ingredients,
}


def spent_s(read: Callable[[str], object], text: str) -> float:
    """What reading a text takes of the processor [s], the least of three times."""
    took = []
    for _ in range(3):
        began = time.process_time()
        try:
            read(text)
        except BadInput as refusal:
            assert refusal.sentence.endswith(".")  # noqa: PT017 - most of these are refused
        took.append(time.process_time() - began)
        if took[-1] > 2:
            break
    return min(took)


@pytest.mark.parametrize("reader", READERS)
def test_ten_times_as_long_takes_about_ten_times_as_long(reader):
    read, slow = READERS[reader], {}
    for again in AGAIN:
        short, long = (again * (size // len(again)) for size in (3_000, 30_000))
        long_s = spent_s(read, long)
        # what is over in no time says nothing; a square would be a hundred times
        if long_s > 0.1 and long_s > 40 * spent_s(read, short):
            slow[again] = long_s
    assert not slow


def test_a_recipe_is_found_among_comments_other_scripts_and_damage():
    page = (
        f"<!-- {LD}not this --><script>var a = '<!--'</script>\n<script src=x\n>1</script >\n<![x y><!--never closed\n"
        f"{LD}\n{RECIPE}\n</SCRIPT\n>{LD}[]</script>"
    )
    assert bring(page, "jsonld").name == "Lock rub"
    with pytest.raises(BadInput) as refusal:
        bring(f"<p>\n</p>\n{LD}\n{RECIPE[:-9]}", "jsonld")
    assert "Line 4, column" in refusal.value.sentence
    with pytest.raises(BadInput) as refusal:
        bring("<![x y>" * 9, "jsonld")
    assert "no schema.org Recipe" in refusal.value.sentence


HEAD = "ingredient,amount,step\n"


@pytest.mark.parametrize(
    ("text", "place", "says"),
    [
        (f'{HEAD}salt,2 tsp,\ncumin,"1 tsp', "Line 3, column 7", "a cell in quotes begins here"),
        (f'{HEAD}"salt, flaky",2 tsp,\n"he said ""no"" and\nmore, 3,\n', "Line 3, column 1", "a cell in quotes"),
        (f"{HEAD}salt,2 tsp,\ncumin,1", "Line 3, column 8", "the middle of a row, after 2 of 3 cells"),
        (f"{HEAD}salt,2 tsp,\ncu", "Line 3, column 3", "after 1 of 3 cells"),
    ],
)
def test_a_table_that_was_cut_off_is_said_to_be_with_its_place(text, place, says):
    with pytest.raises(BadInput) as refusal:
        bring(text, "csv")
    assert refusal.value.sentence.startswith(f"{place}: this table is cut off: ")
    assert says in refusal.value.sentence


@pytest.mark.parametrize(
    "text",
    [
        f"{HEAD}salt,2 tsp,\ncumin,1 tsp,",  # no new line at its end
        f"{HEAD}salt,2 tsp\ncumin,1 tsp",  # no cell where nothing is to be said
        f"{HEAD}salt,2 tsp,\ncumin,1 tsp\n",
    ],
)
def test_a_table_that_is_whole_is_read_whatever_its_end(text):
    assert [line.items[0].grind for line in bring(text, "csv").lines] == ["table-salt/fine", "cumin/ground"]
