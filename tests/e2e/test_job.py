"""The cook's job on the real interface, from the ratio to the verdict."""

import re

from axe import check_with_axe
from hands import begin_card, take
from playwright.sync_api import Page, expect


def score(page: Page, taster: str, best: str | None = None) -> list[str]:
    """Fill in a card as a taster would; prefer the first plate when none is named. Return the order served."""
    served = begin_card(page, taster)
    best = best or served[0]
    for code in served:
        for scale in ("overall", "crust", "tenderness", "juiciness", "meat flavour"):
            page.get_by_label(f"{scale} of {code}: {8 if code == best else 6}").check()
        page.get_by_label(f"salt of {code}: just right").check()
    page.get_by_role("button", name=best, exact=True).first.click()
    page.get_by_role("button", name="Hand the card in").click()
    expect(page.get_by_role("listitem").filter(has_text=re.compile(f"^ ?{taster}"))).to_contain_text("card in")
    return served


def test_a_cook_mixes_by_ratio_doses_both_pieces_tastes_blind_and_gets_a_verdict(page: Page, ravska):
    # home: the demo household's cook in hand
    expect(page.get_by_role("heading", level=1)).to_contain_text("Lock-side supper")
    # what its day says comes first, and the board's steps at the day's times
    expect(page.get_by_role("region", name="Next thing to do")).to_contain_text("Have all of it bought by now.")
    salting = page.get_by_role("listitem").filter(has=page.get_by_role("checkbox", name="Salt, piece A"))
    expect(salting.get_by_role("link")).to_have_text(re.compile("^Fri "))
    expect(page.get_by_text("A carries 0.42 points more salt than B")).to_be_visible()
    check_with_axe(page)

    # blend: change a part, add a line with type-ahead, remove one
    page.keyboard.press("1")
    check_with_axe(page)
    page.get_by_role("link", name=re.compile("^Weir House lamb rub")).click()
    salt = page.get_by_role("button", name="why: Salt in the blend")
    expect(salt).to_contain_text("26.4 % salt")
    page.get_by_label("Parts of Flake sea salt").fill("1½")
    # 1.5 spoons of 2.6 g flake among 28.7 g, 97 % of it salt, by hand: 12.29 % of the rub, 11.9 % salt
    expect(salt).to_contain_text("11.9 % salt")
    expect(page.get_by_role("button", name="why: Weight of Flake sea salt")).to_contain_text("7.4 g")
    page.get_by_label("Parts of Flake sea salt").fill("4")
    add = page.get_by_role("combobox", name="Add an ingredient")
    add.fill("cumin gro")
    page.get_by_role("option", name=re.compile("Cumin, ground")).click()
    cumin = page.get_by_label("Parts of Cumin, ground")
    expect(cumin).to_be_focused()
    cumin.fill("1/8")
    expect(page.get_by_role("img", name=re.compile("1 % Cumin"))).to_be_visible()
    page.get_by_role("button", name="Remove Orange zest, grated").click()
    expect(page.get_by_role("status").first).to_have_text("Saved")
    salt.click()
    expect(page.get_by_role("region", name="Working of Salt in the blend")).to_contain_text("Salt of flake sea salt")
    page.keyboard.press("Escape")
    check_with_axe(page)
    page.reload()
    expect(page.get_by_label("Parts of Cumin, ground")).to_have_value("1/8")
    expect(page.get_by_label("Parts of Orange zest, grated")).to_have_count(0)

    # coat: a weight in pounds, a heavier coat, a binder that holds it, what to mix of it
    page.keyboard.press("2")
    rubbed = page.get_by_role("region", name="Piece A, Rubbed")
    bathed = page.get_by_role("region", name="Piece B, Marinated")
    layers = rubbed.get_by_role("region", name="Layers, in order")
    layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).click()
    expect(rubbed.get_by_role("button", name="why: Dose of the rub")).to_contain_text("37 g")
    rubbed.get_by_label("Raw weight").fill("5 lb 1 oz")
    rubbed.get_by_role("radio", name="heavy 8").check()
    # 734.8 cm2 at 8 g on 100 cm2
    expect(rubbed.get_by_role("button", name="why: Dose of the rub")).to_contain_text("59 g")
    expect(page.get_by_text("heavier than what sticks")).to_be_visible()
    layers.get_by_role("button", name="Add a layer").click()
    take(layers.get_by_label("Kind of layer"), "binder")
    take(layers.get_by_role("combobox", name="Of").last, "Vegetable oil")
    layers.get_by_role("button", name="Put it on").click()
    expect(page.get_by_text("heavier than what sticks")).to_have_count(0)
    expect(page.get_by_role("status").first).to_have_text("Saved")
    check_with_axe(page)
    page.get_by_role("button", name=re.compile("^B Marinated")).click()
    bathed.get_by_role("button", name=re.compile("^Orange and buttermilk marinade")).click()
    expect(bathed.get_by_text("inside the long school only")).to_be_visible()
    expect(
        bathed.get_by_role("region", name="Layers, in order").get_by_text("Met if the bath is thrown away afterwards")
    ).to_be_visible()
    totals = page.get_by_role("region", name="What to mix for all of it")
    # 59 g on the meat, and what the glaze holds of it
    expect(totals).to_contain_text("in Lamb rub and honey glaze")
    expect(totals.get_by_role("button", name="why: To mix of Weir House lamb rub")).to_contain_text("61.0 g")

    # home again: even out the salt, tick what is done
    page.keyboard.press("0")
    page.get_by_role("button", name="Even it out").click()
    expect(page.get_by_role("button", name="Even it out")).to_have_count(0)
    # rub against bath is what is asked; the glaze is a second thing, and is said to be
    expect(page.get_by_text("Changes two things.")).to_be_visible()
    coming = page.get_by_role("region", name="Next thing to do")
    for step in ("Have all of it bought by now.", "A: Trim it and pat it dry.", "Mix, A."):
        expect(coming).to_contain_text(step)
        coming.get_by_role("button", name="Done").click()
    expect(page.get_by_role("checkbox", name="Mix, piece A")).to_be_checked()
    expect(coming).to_contain_text("Salt, A.")

    # table: three cards, blind, then the reveal
    page.keyboard.press("5")
    expect(page.get_by_text("What lies behind a number is hidden on every screen until the reveal.")).to_be_visible()
    check_with_axe(page)
    best = score(page, "Kittiwake")[0]
    for taster in ("Marigold", "Tamarisk"):
        score(page, taster, best)
    page.get_by_role("link", name="Reveal which is which").click()
    page.get_by_role("button", name="Reveal, and turn the first plate").click()
    page.get_by_role("button", name="Turn all").click()
    page.get_by_role("link", name="What the cards say").click()

    # verdict: not yet known for three, a winner for eight of eight
    verdict = page.get_by_role("region", name="Verdict")
    expect(verdict).to_contain_text("Not yet known")
    expect(verdict).to_contain_text("25 %")
    expect(verdict).to_contain_text("5 more cards")
    check_with_axe(page)
    page.get_by_role("link", name="To the table").click()
    for taster in ("Halcyon", "Old Pewter", "Dabchick", "Moonraker", "Skylark"):
        score(page, taster, best)
    page.get_by_role("link", name="See what the cards say").click()
    expect(verdict).to_contain_text(re.compile("(Rubbed|Marinated) won"))
    expect(verdict).to_contain_text("0.78 %")


def test_bad_input_gets_its_sentence_at_the_field_and_the_last_good_numbers_stay(page: Page):
    page.keyboard.press("2")
    rubbed = page.get_by_role("region", name="Piece A, Rubbed")
    rubbed.get_by_label("Raw weight").fill("-2 kg")
    expect(rubbed.get_by_role("alert")).to_contain_text("cannot be below nothing")
    expect(rubbed.get_by_text("736 cm²")).to_be_visible()
    expect(page.get_by_role("status").first).to_contain_text("Saved, one field not understood")
    page.reload()
    # nothing typed is lost, not even what could not be saved
    expect(rubbed.get_by_label("Raw weight")).to_have_value("-2 kg")
    rubbed.get_by_label("Raw weight").fill("2 kg")
    expect(page.get_by_role("status").first).to_have_text("Saved")


def test_units_theme_and_stations_that_come_later(page: Page):
    # what is chosen before the server has told the units it has is not undone by them
    late = []
    page.route("**/api/book/preferences", lambda route: late.append(route), times=1)
    with page.expect_request("**/api/book/preferences"):
        page.reload()
    page.get_by_role("button", name="Units, theme").first.click()
    page.get_by_role("radio", name="US", exact=True).first.check()
    page.get_by_role("radio", name="Iron, dark").check()
    page.get_by_role("button", name="Close").click()
    with page.expect_response(lambda answer: answer.request.method == "PUT" and "iron" in answer.request.post_data):
        late[0].continue_()
    expect(page.get_by_text("2⅜ cups").first).to_be_visible()
    check_with_axe(page)
    page.reload()
    expect(page.locator(".v-theme--iron").first).to_be_visible()
    page.keyboard.press("4")
    expect(page.get_by_role("main")).to_contain_text("Low-water lunch, turkey breast")
    page.keyboard.press("/")
    page.get_by_label("Find anything").fill("goat yog")
    expect(page.get_by_role("button", name="Lock-keeper's goat yoghurt")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Name of the blend")).to_have_value("Lock-keeper's goat yoghurt")
    # other spoons: what every line comes to is measured out with them
    measured = page.get_by_role("button", name=re.compile("why: Spoons of"))
    by_us = measured.first.inner_text()
    page.get_by_role("button", name="Units, theme").first.click()
    page.get_by_role("radio", name="20 and 5 ml").check()
    page.get_by_role("button", name="Close").click()
    expect(measured.first).not_to_have_text(by_us)
