"""A past cook cooked again: its note, other meat, its doses scaled, and all of it on one card."""

import re

from axe import check_with_axe
from hands import choose
from playwright.sync_api import Page, expect


def test_a_cook_is_noted_cooked_again_with_more_meat_and_put_on_a_card(page: Page):
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Coat").click()
    layers = page.get_by_role("region", name="Layers, in order")
    layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).click()
    layers.get_by_role("textbox", name=re.compile("^Dose, g")).fill("30 g")
    page.get_by_label("For next time").fill("Salt it the night before.")
    expect(page.get_by_role("status").first).to_have_text("Saved")
    page.get_by_role("link", name="Ravska, home").first.click()
    choose(page, "Lock-side supper", "Cook Lock-side supper again")
    again = page.get_by_role("dialog", name="Cook it again")
    expect(again).to_contain_text("You noted for next time: Salt it the night before.")
    again.get_by_label("What is it called").fill("A bigger supper")
    again.get_by_label("Raw weight").first.fill("lots")
    again.get_by_role("button", name="Begin").click()
    expect(again.get_by_text("is no weight I can read")).to_be_visible()
    check_with_axe(page)
    again.get_by_label("Raw weight").first.fill("4.6 kg")
    again.get_by_role("button", name="Begin").click()
    # twice the weight is 2^(2/3) of the surface, so 30 g become 47.6
    rub = layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub"))
    expect(rub).to_contain_text("47.6 g, 4.08 g/100 cm²")
    expect(page.get_by_text("Last time you noted: Salt it the night before.")).to_be_visible()
    page.get_by_role("link", name="Ravska, home").first.click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("A bigger supper")
    page.get_by_role("button", name="Card", exact=True).click()
    card = page.get_by_role("dialog", name="Card of this cook")
    expect(card).to_contain_text("Rubbed: Lamb shoulder, 4.6 kg")
    expect(card).to_contain_text(re.compile("Weir House lamb rub, rub, 48 g, .*hold 2 h"))
    expect(card).to_contain_text("On the fire, 5 h")
    check_with_axe(page)
