"""Raw meat and its clocks, what a sieve keeps, and a tasting that stays as it was, on the real interface."""

import re

from axe import check_with_axe
from hands import begin_card, take
from playwright.sync_api import Page, expect


def saved(page: Page) -> None:
    expect(page.get_by_role("status").first).to_have_text("Saved")


def test_a_cook_says_where_meat_is_held_and_is_told_what_the_clocks_say(page: Page):
    page.keyboard.press("2")
    rubbed = page.get_by_role("region", name="Piece A, Rubbed")
    layers = rubbed.get_by_role("region", name="Layers, in order")
    layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).click()
    take(layers.get_by_label("Where", exact=True), "in a warm water bath")
    layers.get_by_label("At", exact=True).fill("122 °F")
    layers.get_by_label("Hold", exact=True).fill("3 h")
    expect(
        page.get_by_text("In a warm bath that does not cook it yet it is above 32 °C (90 °F) for 3 h")
    ).to_be_visible()
    # with an hour and a half on the bench it is over four hours in all
    rubbed.get_by_role("button", name="Grade, trim, measures, cutting it up").click()
    rubbed.get_by_label("taken out some time before the fire").check()
    rubbed.get_by_label("How long").fill("1 h 30 min")
    stop = rubbed.get_by_text("off the cold for 4 h 30 min, bench, bag and bath together")
    expect(stop).to_be_visible()
    check_with_axe(page)
    layers.get_by_label("At", exact=True).fill("130 °F")
    expect(stop).to_have_count(0)
    rubbed.get_by_label("thawed from frozen").check()
    take(rubbed.get_by_label("Where", exact=True).first, "in a warm water bath")
    expect(rubbed.get_by_text("It is thawed in warm water")).to_be_visible()
    take(rubbed.get_by_label("Where", exact=True).first, "in the fridge")
    expect(rubbed.get_by_text("It is thawed in warm water")).to_have_count(0)
    saved(page)
    page.reload()
    layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).click()
    expect(layers.get_by_label("At", exact=True)).to_have_value("130 °F")
    page.keyboard.press("0")
    expect(page.get_by_text("hold 3 h in warm water")).to_be_visible()


def test_a_target_that_cannot_be_met_says_what_would_do_it(page: Page):
    page.keyboard.press("2")
    rubbed = page.get_by_role("region", name="Piece A, Rubbed")
    page.get_by_label("Salt wanted, %").fill("2.4")
    page.get_by_role("button", name="Meet 2.40 %").click()
    expect(page.get_by_role("status").filter(has_text="points short of 2.4 %")).to_contain_text("would do it.")
    rows = rubbed.get_by_role("region", name="Layers, in order").locator("ol > li")
    expect(rows.nth(1)).to_contain_text("rub · 6 g/100 cm²")


def test_what_the_sieve_keeps_goes_into_a_blend_of_its_own(page: Page):
    page.keyboard.press("1")
    page.get_by_role("link", name=re.compile("^Stock and red wine for venison")).click()
    method = page.get_by_role("region", name="Method")
    expect(method).to_contain_text("The sieve holds back 4.2 g")
    method.get_by_role("button", name="Make a blend of it").click()
    expect(page.get_by_label("Name of the blend")).to_have_value("Sieved out of Stock and red wine for venison")
    expect(page.get_by_label(re.compile("^Parts of sieved out of Stock and red wine", re.IGNORECASE))).to_have_value(
        "1"
    )
    check_with_axe(page)


def test_what_was_tasted_stays_and_who_plates_is_known(page: Page):
    # whoever plates says so; what they see is gone once it is shut
    page.get_by_role("link", name="its number, for whoever plates").first.click()
    look = page.get_by_role("dialog")
    look.get_by_label("Who looks?").fill("Kittiwake")
    look.get_by_role("button", name="Show it to me").click()
    expect(look).to_contain_text("Rubbed")
    expect(look.get_by_role("img", name=re.compile(r"Plate \d{3}"))).to_have_count(2)
    look.get_by_role("button", name="Hide it again").click()
    expect(page.get_by_text("Kittiwake has seen the plating")).to_be_visible()
    page.get_by_role("button", name="Whoever plates looks here").click()
    expect(look.get_by_role("img", name=re.compile("Plate"))).to_have_count(0)
    look.get_by_role("button", name="Leave it hidden").click()

    # the number of cards is stated before the first is in
    page.get_by_role("link", name="Design").click()
    page.get_by_label("Cards", exact=True).fill("0")
    expect(page.get_by_role("alert")).to_be_visible()
    page.get_by_label("Cards", exact=True).fill("8")
    expect(page.get_by_role("status").first).to_contain_text("Saved")
    page.get_by_role("link", name="To the table").click()
    begin_card(page, "Kittiwake")
    for label in page.get_by_label(re.compile(r"^overall of \d{3}: 7")).all():
        label.check()
    page.get_by_role("button", name="No preference").click()
    page.get_by_role("button", name="Hand the card in").click()
    expect(page.get_by_text(", not blind")).to_be_visible()
    expect(page.get_by_text("1 of 8 cards is in")).to_be_visible()

    # its pieces stay as they were; a copy of the cook is changed instead
    page.keyboard.press("2")
    rubbed = page.get_by_role("region", name="Piece A, Rubbed")
    weight = rubbed.get_by_label("Raw weight")
    weight.fill("3 kg")
    expect(page.get_by_text("so what was tasted stays as it was")).to_be_visible()
    expect(weight).to_have_value("2.3 kg")
    page.get_by_role("button", name="Change a copy of it").click()
    expect(page.get_by_label("Name of the cook")).to_have_value("Lock-side supper, again")
    weight.fill("3 kg")
    expect(rubbed.get_by_role("button", name="why: Surface to coat")).to_contain_text("878")
    saved(page)
    page.reload()
    expect(weight).to_have_value("3 kg")
