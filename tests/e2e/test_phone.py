"""The same job with wet hands, on a phone: 390 by 844."""

import re

import pytest
from axe import check_with_axe
from hands import choose, sits_down, take
from playwright.sync_api import Page, expect
from running import OWN_PAGE


@pytest.fixture
def browser_context_args():
    return {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True, "reduced_motion": "reduce"}


def fits(page: Page) -> None:
    """Nothing is wider than the phone, and what is tapped is large enough."""
    assert page.evaluate("() => document.documentElement.scrollWidth") <= 390
    small = page.evaluate(
        """() => [...document.querySelectorAll('.v-btn, .rail a, .top a, .top button, select, ' +
             '.v-field, .choice label, input:not([type=radio], [type=checkbox], .v-field input)')]
          .filter((e) => e.checkVisibility())
          .map((e) => [e.getBoundingClientRect().height, e.outerHTML.slice(0, 120)])
          .filter(([high]) => high > 0 && high < 43.5)"""
    )
    assert small == []


def test_a_cook_is_begun_put_right_deleted_and_brought_back_on_a_phone(page: Page):
    fits(page)
    page.get_by_role("button", name="New cook").click()
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_text("Give it a name, such as Sunday lunch.")).to_be_visible()
    page.get_by_role("button", name="A second way, to taste against it").click()
    page.get_by_label("What is it called").fill("Trout on the quay")
    sits_down(page, "2027", "June", "Saturday, June 12", "1 pm")
    page.get_by_label("Raw weight").nth(0).fill("1 lb 2 oz")
    page.get_by_label("Raw weight").nth(1).fill("-1 kg")
    page.get_by_role("combobox", name="Cut of piece A").fill("whole tr")
    page.get_by_role("option", name="Whole trout").click()
    for piece, blend in (("A", "goat rub"), ("B", "soy")):
        page.get_by_role("combobox", name=f"Blend of piece {piece}").fill(blend)
        page.get_by_role("option").first.click()
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("cannot be below nothing")
    page.get_by_label("Raw weight").nth(1).fill("500 g")
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Trout on the quay, Saturday 12 June 13:00")

    # coat: the bench is too warm for long, said where it cannot be scrolled past
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Coat").click()
    page.get_by_role("button", name=re.compile("^B Marinated")).click()
    bath = page.get_by_role("region", name="Piece B, Marinated")
    bath.get_by_role("button", name=re.compile("^Soy and honey bath marinade")).click()
    bath.get_by_label("Hold", exact=True).fill("3 h")
    take(bath.get_by_role("region", name="In the bath").get_by_label("Where", exact=True), "on the bench")
    stop = bath.get_by_text("Raw, it is off the cold for 3 h in all")
    expect(stop).to_be_visible()
    expect(bath.get_by_text("longer than either school")).to_be_visible()
    check_with_axe(page)
    fits(page)
    # on the bench a bath works three times as fast as in the fridge
    bath.get_by_label("Hold", exact=True).fill("6 min")
    expect(stop).to_have_count(0)
    expect(bath.get_by_text("inside the cautious school")).to_be_visible()
    expect(page.get_by_role("status").first).to_have_text("Saved")

    page.get_by_role("link", name="Ravska, home").first.click()
    expect(page.get_by_text("hold 6 min on the bench")).to_be_visible()
    choose(page, "Trout on the quay", "Delete Trout on the quay")
    expect(page.get_by_text("Trout on the quay is deleted.")).to_be_visible()
    expect(page.get_by_role("heading", level=1)).to_contain_text("No cook in hand")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Trout on the quay")


def test_a_blend_is_made_from_nothing_on_a_phone(page: Page):
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Blend").click()
    page.get_by_role("button", name="New marinade").click()
    expect(page.get_by_text("There is nothing in this blend yet")).to_be_visible()
    page.get_by_label("Name of the blend").fill("Quay vinegar")
    add = page.get_by_role("combobox", name="Add an ingredient")
    for typed, name, parts in (
        ("cider", "Cider vinegar", "1"),
        ("water", "Water", "3"),
        ("table salt", "Table salt, fine", "1/8"),
    ):
        add.fill(typed)
        page.get_by_role("option", name=name).first.click()
        page.get_by_label(f"Parts of {name}").fill(parts)
    # 1/8 of 6.0 g a teaspoon among 4.98 + 3 x 4.94 g: 3.65 % of it, 98.5 % of that salt
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("3.60 % salt")
    expect(page.get_by_role("status").first).to_have_text("Saved")
    check_with_axe(page)
    fits(page)
    for name in ("Cider vinegar", "Water", "Table salt, fine"):
        page.get_by_role("button", name=f"Remove {name}").click()
    expect(page.get_by_text("There is nothing in this blend yet")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Parts of Table salt, fine")).to_have_value("1/8")


def test_a_cook_of_one_piece_fits_a_phone(page: Page):
    at = re.match(r"https?://[^/]+", page.url)[0]
    braise = next(one for one in page.request.get(f"{at}/api/cooks").json() if "braise" in one["name"])
    assert page.request.post(f"{at}/api/cooks/{braise['id']}/take", headers=OWN_PAGE).ok
    page.reload()
    expect(page.get_by_role("checkbox", name="On the fire, piece A")).to_be_visible()
    expect(page.get_by_text("planning")).to_have_count(0)
    fits(page)
