"""The cook's job in Day: when to light the fire, supper moved, and a fire at two heats put right."""

import re

from axe import check_with_axe
from playwright.sync_api import Page, expect
from running import OWN_PAGE


def two_heats(page: Page) -> None:
    """Have the supper's second piece cooked far hotter than the first, on the one kettle."""
    at = re.match(r"https?://[^/]+", page.url)[0]
    cook = page.request.get(f"{at}/api/cooks/in-hand").json()["cook"]
    typed = page.request.get(f"{at}/api/cooks/{cook['id']}").json()
    slow = {"surround": "indirect", "aimed": "120 °C"}
    typed["pieces"][0]["phases"] = [slow | {"lasts": "4 h"}, slow | {"vessel": "foil", "lasts": "1 h"}]
    typed["pieces"][1]["phases"] = [{"surround": "indirect", "aimed": "180 °C", "lasts": "5 h"}]
    kept = ("version", "name", "serve_at", "eaters", "appetite", "note", "pieces")
    sent = {key: typed[key] for key in kept}
    assert page.request.put(f"{at}/api/cooks/{cook['id']}", data=sent, headers=OWN_PAGE).ok


def test_a_day_says_when_to_light_the_fire_and_a_clash_is_put_right(page: Page):
    page.get_by_role("link", name="Day").first.click()
    answer = page.get_by_role("region", name="When to light the fire")
    expect(answer).to_contain_text("Light the kettle Sat")
    expect(answer).to_contain_text("Supper is in time")
    drawn = page.get_by_role("region", name="The day, drawn")
    expect(drawn.locator("circle")).to_have_count(40)
    expect(page.get_by_role("region", name="Next three").get_by_role("listitem")).to_have_count(3)
    check_with_axe(page)

    # supper a quarter of an hour later, and all of the day with it
    before = answer.inner_text()
    pole = drawn.get_by_role("button", name=re.compile("^Supper at 19:30"))
    pole.focus()
    page.keyboard.press("ArrowRight")
    expect(drawn.get_by_role("button", name=re.compile("^Supper at 19:45"))).to_be_visible()
    expect(answer).not_to_have_text(before)

    # whose clock it is, is asked once
    page.get_by_role("button", name="That is where we cook").click()
    expect(page.get_by_text("Times are those of Europe/Berlin.")).to_have_count(0)

    two_heats(page)
    page.reload()
    clash = page.get_by_role("region", name="What does not fit")
    expect(clash).to_contain_text("One kettle at two heats")
    way = clash.get_by_role("listitem").filter(has_not_text="left that do not fit").get_by_role("button")
    expect(way.first).to_be_visible()
    check_with_axe(page)
    way.first.click()
    expect(clash).to_have_count(0)
    expect(answer).to_contain_text("Light the kettle")
    page.reload()
    expect(answer).to_contain_text("Light the kettle")
    expect(clash).to_have_count(0)
