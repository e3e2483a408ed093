"""The cook's job on the fire: from a piece without phases to one that is done at a time, with grains."""

import re

from axe import check_with_axe
from hands import take
from playwright.sync_api import Page, expect
from test_board import saved, to_coat


def test_a_piece_without_phases_comes_to_be_done_at_a_time_with_grains(page: Page):
    to_coat(page)
    fire = page.get_by_role("region", name="On the fire")
    phases = fire.get_by_role("group", name="Phases, in order").get_by_role("listitem")
    expect(phases).to_have_count(3)
    fire.get_by_role("button", name="Begin from another run").click()
    expect(fire).to_contain_text("Say how it is cooked")

    # a school's run to begin from, and the answer with its twenty grains
    fire.get_by_role("button", name=re.compile("^Open all the way.*most bark")).click()
    expect(phases).to_have_count(2)
    answer = fire.get_by_text(re.compile("^Off the fire after"))
    expect(answer).to_be_visible()
    expect(fire.locator("svg[role=img] circle")).to_have_count(20)
    expect(fire).to_contain_text("each grain is one chance in twenty")
    slow = answer.inner_text()
    check_with_axe(page)

    # hotter, it is sooner; what cannot be read stays where it is typed, and the answer stands
    phases.first.get_by_role("button").first.click()
    fire.get_by_label("How hot").fill("275 °F")
    expect(answer).not_to_have_text(slow)
    quick = answer.inner_text()
    fire.get_by_label("How hot").fill("275")
    expect(fire.get_by_role("alert")).to_contain_text("275 of what? Write 275 °F or 275 °C.")
    expect(answer).to_have_text(quick)
    fire.get_by_label("How hot").fill("80 °C")
    expect(fire.get_by_role("alert")).to_contain_text("The centre never reaches 92 °C where it is 80 °C around it")
    fire.get_by_label("How hot").fill("275 °F")
    expect(fire.get_by_role("alert")).to_have_count(0)

    # done in the words of a school, and a phase more
    take(fire.get_by_label("Centre, in words"), "pulled")
    expect(fire.get_by_label("Centre", exact=True)).to_have_value("95 °C")
    phases.first.get_by_role("button").first.click()
    take(fire.get_by_label("Add a phase"), "on hot iron")
    expect(phases).to_have_count(3)
    # it goes there before it rests; what is sweet in its coat burns
    expect(phases.nth(1)).to_contain_text("on hot iron, 250 °C, in a pan")
    expect(phases.nth(1)).to_contain_text("centre 9")
    expect(phases.nth(1)).to_contain_text("Turns bitter here")
    expect(fire.get_by_role("list", name="What if")).to_contain_text("10 °C hotter")
    fire.get_by_role("button", name=re.compile("why: Carry-over")).click()
    expect(page.get_by_text("Highest at rest")).to_be_visible()
    page.keyboard.press("Escape")
    saved(page)
    page.reload()
    expect(phases).to_have_count(3)
    expect(answer).to_be_visible()
