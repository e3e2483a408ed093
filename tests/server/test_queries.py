"""How many queries an answer takes, savepoints left out: a few, however deep blends lie and however many there are.

One of them asks whether anything of one's own in the catalogue has changed.
"""

from test_words_api import queries


def saved_blend(api, name: str) -> tuple[str, dict]:
    row = next(row for row in api("GET", "blends")[1] if row["name"] == name)
    document = api("GET", f"blends/{row['id']}")[1]
    keys = ("name", "kind", "fire", "batch", "lines", "written", "base", "total", "targets", "uses", "method", "label")
    return row["id"], {key: document[key] for key in (*keys, "version")}


def test_a_blend_is_saved_in_few_queries(api, book):
    for name, most in (("Weir House lamb rub", 9), ("Lamb rub and honey glaze", 12)):
        key, document = saved_blend(api, name)
        assert queries(lambda key=key, document=document: api("PUT", f"blends/{key}", document)) <= most <= 14, name


def test_home_and_lists_open_in_few_queries(api, book):
    assert queries(lambda: api("GET", "cooks/in-hand")) <= 9
    for address, most in (("blends", 5), ("cooks", 4), ("batches", 7), ("cooks/ways", 5)):
        assert queries(lambda address=address: api("GET", address)) <= most, address


def test_cooks_stand_in_the_list_with_the_latest_serving_first(api, book):
    times = [row["serve_at"] for row in api("GET", "cooks")[1]]
    assert times == sorted(times, reverse=True)
    assert len(times) == 30
