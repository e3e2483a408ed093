"""Coat: an injected joint from its target to sites off the bone, a marinade too long for its acid put right."""

import re

from axe import check_with_axe
from playwright.sync_api import Locator, Page, expect
from test_board import choose_cut, saved, to_coat
from test_phone import fits


def inject(page: Page) -> Locator:
    """Put the injected stack on the open piece, and return what is said of its injection."""
    layers = page.get_by_role("region", name="Layers, in order")
    layers.get_by_role("button", name="Ways").click()
    layers.get_by_role("button", name=re.compile("^Injected A tenth")).click()
    injecting = page.get_by_role("region", name="Injecting")
    expect(injecting).to_contain_text("into each of")
    return injecting


def drag(page: Page, of: Locator, to: tuple[float, float]) -> None:
    box = of.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(*to, steps=6)
    page.mouse.up()


def test_an_injected_joint_goes_from_the_salt_wanted_to_sites_off_the_bone(page: Page):
    to_coat(page)
    injecting = inject(page)
    check_with_axe(page)
    # 0.9 % of 1,886 g edible in the 230 g that stay is 7.38 % salt, by hand
    injecting.get_by_label("Salt it is to bring, %").fill("0.9")
    expect(injecting).to_contain_text("The liquid must be 7.38 %")
    injecting.get_by_role("button", name="Make a blend of it").click()
    expect(injecting).to_contain_text("The blend is as salty as that.")
    ledger = page.get_by_role("region", name="Salt ledger")
    expect(ledger.get_by_role("button", name="why: Salt on A")).to_contain_text("0.90 %")

    # its salt is drawn where it has got to, and between the sites of the grid
    expect(injecting.locator("image")).to_have_count(1)
    expect(injecting).to_contain_text(re.compile(r"of the meat has at least half of the mean.*midway between sites"))
    core = page.get_by_role("region", name="From crust to centre")
    expect(core).to_contain_text("the tenth the needle reached least")

    # a site dragged onto the bone is named, gets nothing, and goes off it again by key or by one tap
    sites = injecting.get_by_role("button", name=re.compile("^Site "))
    expect(sites.first).to_be_visible()
    count = sites.count()
    bone = injecting.get_by_role("button", name=re.compile("^Left end of bone"))
    box = bone.bounding_box()
    assert box is not None
    drag(page, sites.nth(3), (box["x"] + box["width"] / 2 + 14, box["y"] + box["height"] / 2 - 6))
    expect(injecting).to_contain_text("Site 4 lies on bone: drag it off")
    expect(injecting).to_contain_text(f"into each of {count - 1} sites")
    expect(injecting).not_to_contain_text("midway between sites")
    injecting.get_by_role("button", name="Move them off").click()
    expect(injecting.get_by_text("lies on bone")).to_have_count(0)
    expect(injecting).to_contain_text(f"into each of {count} sites")
    sites.nth(3).focus()
    page.keyboard.press("Delete")
    expect(injecting).to_contain_text(f"into each of {count - 1} sites")
    page.get_by_role("button", name="Undo").first.click()
    expect(injecting).to_contain_text(f"into each of {count} sites")
    # the cook knows where the bone of this piece lies
    end = injecting.get_by_role("button", name=re.compile("^Right end of bone"))
    end.focus()
    for _ in range(3):
        page.keyboard.press("ArrowDown")
    expect(injecting.get_by_role("button", name="Bone as usual")).to_be_visible()
    injecting.get_by_role("button", name="Lay them out again").click()

    # what cannot be is said at its field, and nothing is lost
    apart = injecting.get_by_label("Sites apart")
    apart.fill("0 mm")
    expect(injecting.get_by_role("alert")).to_contain_text("between 8 mm and 10 cm")
    apart.fill("4 cm")
    expect(injecting).not_to_contain_text(f"into each of {count} sites")
    page.get_by_label("Done at").fill("57 °C")
    stop = page.get_by_text("is not intact: surface bacteria are inside now, and 57 °C (135 °F)")
    expect(stop).to_be_visible()
    page.get_by_label("Done at").fill("145 F")
    expect(stop).to_have_count(0)
    injecting.get_by_role("button", name="weigh it after").click()
    injecting.get_by_label("Weight after").fill("2.2 kg")
    expect(injecting.get_by_role("alert")).to_contain_text("no more than the 2300 g before")
    injecting.get_by_label("Weight after").fill("2.49 kg")
    # by hand: 190 g on 2,300 is 8.26 %, of 270.6 g of liquid 70 %
    expect(injecting).to_contain_text("weighed: pump 8.26 %")
    expect(injecting).to_contain_text("of the liquid 70 %")
    saved(page)
    page.reload()
    expect(page.get_by_role("region", name="Injecting")).to_contain_text("weighed: pump 8.26 %")
    expect(page.get_by_label("Done at")).to_have_value("145 F")


def test_a_marinade_too_long_for_its_acid_is_put_right(page: Page):
    to_coat(page)
    page.get_by_role("button", name=re.compile("^B Marinated")).click()
    bath = page.get_by_role("region", name="In the bath")
    expect(bath).to_contain_text("16 h is inside the long school only")
    choose_cut(page, "B", "salmon", "Side of salmon")
    page.get_by_label("Raw weight").fill("1.2 kg")
    too_long = page.get_by_text("This hold is longer than even the long school keeps this meat")
    expect(too_long).to_be_visible()
    expect(bath).to_contain_text("16 h is longer than either school")
    check_with_axe(page)
    bath.get_by_role("button", name=re.compile("^cautious")).click()
    expect(too_long).to_have_count(0)
    expect(bath).to_contain_text("20 min is inside the cautious school")
    scale = bath.get_by_role("slider", name="Your own time")
    scale.focus()
    page.keyboard.press("ArrowRight")
    expect(bath.get_by_label("In it for")).not_to_have_value("20 min")
    bath.get_by_label("In it for").fill("20 min")

    # some is set aside for a sauce, and the bath itself only after a boil
    bath.get_by_label("Set aside first").fill("150 ml")
    expect(bath).to_contain_text("to mix in all")
    bath.get_by_role("radio", name="boiled").check()
    expect(page.get_by_text("Bring it to a full, rolling boil")).to_be_visible()
    bath.get_by_role("radio", name="thrown away").check()
    expect(page.get_by_text("Met if the bath is thrown away afterwards")).to_be_visible()
    saved(page)
    totals = page.get_by_role("region", name="What to mix for all of it")
    expect(totals).to_contain_text("set aside")
    page.reload()
    page.get_by_role("button", name=re.compile("^B Marinated")).click()
    expect(bath.get_by_label("In it for")).to_have_value("20 min")


def test_a_heavy_coat_finds_the_binder_that_holds_it(page: Page):
    to_coat(page)
    layers = page.get_by_role("region", name="Layers, in order")
    layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).click()
    layers.get_by_label(re.compile("^Dose, g")).fill("9")
    expect(page.get_by_text("This coat is heavier than what sticks")).to_be_visible()
    layers.get_by_role("button", name="Binder or none").click()
    binders = page.get_by_role("region", name="Binder or none")
    expect(binders.get_by_role("button", name=re.compile("^No binder"))).to_contain_text("fall off")
    check_with_axe(page)
    binders.get_by_role("button", name=re.compile("^Prepared mustard")).click()
    expect(page.get_by_text("This coat is heavier than what sticks")).to_have_count(0)
    expect(layers.get_by_role("listitem").nth(2)).to_contain_text("binder ·")  # under the rub, over the salt
    binders.get_by_role("button", name=re.compile("^No binder")).click()
    expect(layers.get_by_role("listitem").nth(1)).to_contain_text("rub ·")
    page.get_by_role("button", name="Undo").first.click()
    expect(layers.get_by_role("listitem").nth(2)).to_contain_text("binder ·")


def test_needle_and_bath_fit_a_phone(page: Page):
    page.set_viewport_size({"width": 390, "height": 844})
    to_coat(page)
    inject(page)
    fits(page)
    page.get_by_role("button", name=re.compile("^B Marinated")).click()
    expect(page.get_by_role("region", name="In the bath")).to_be_visible()
    fits(page)
    check_with_axe(page)
