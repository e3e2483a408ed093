"""Nothing typed is lost: reloads, a lost server, a second window."""

import re

from playwright.sync_api import Page, expect


def open_rub(page: Page) -> None:
    page.keyboard.press("1")
    page.get_by_role("link", name=re.compile("^Weir House lamb rub")).click()
    expect(page.get_by_label("Parts of Black pepper, cracked")).to_have_value("3")


def test_a_reload_and_a_lost_server_lose_nothing(page: Page, ravska):
    open_rub(page)
    page.get_by_label("Parts of Black pepper, cracked").fill("5")
    page.reload()  # before the save had time to go out
    expect(page.get_by_label("Parts of Black pepper, cracked")).to_have_value("5")
    expect(page.get_by_role("status").first).to_have_text("Saved")

    ravska.lose()
    page.get_by_label("Parts of Black pepper, cracked").fill("6½")
    expect(page.get_by_role("status").first).to_contain_text("Server lost")
    ravska.start()
    expect(page.get_by_role("status").first).to_have_text("Saved")
    page.evaluate("localStorage.clear()")
    page.reload()
    expect(page.get_by_label("Parts of Black pepper, cracked")).to_have_value("6½")

    page.get_by_label("Batch").fill("90 g")
    expect(page.get_by_role("button", name=re.compile("90.0 g.*why: Batch"))).to_be_visible()
    page.keyboard.press("Control+z")
    expect(page.get_by_label("Batch")).to_have_value("60 g")


def test_a_second_windows_edit_is_shown_and_either_can_be_kept(page: Page):
    open_rub(page)
    other = page.context.new_page()
    other.goto(page.url)
    other.get_by_label("Parts of Sweet paprika, powder").fill("4")
    expect(other.get_by_role("status").first).to_have_text("Saved")

    page.get_by_label("Batch").fill("80 g")
    conflict = page.get_by_role("alertdialog", name="Changed in another window")
    expect(conflict).to_contain_text("80 g")
    expect(conflict).to_contain_text("60 g")
    conflict.get_by_role("button", name="Keep mine").click()
    expect(page.get_by_role("status").first).to_have_text("Saved")
    expect(page.get_by_label("Parts of Sweet paprika, powder")).to_have_value("2½")

    other.get_by_label("Parts of Sweet paprika, powder").fill("3")
    conflict = other.get_by_role("alertdialog", name="Changed in another window")
    conflict.get_by_role("button", name="Take the other").click()
    expect(other.get_by_label("Batch")).to_have_value("80 g")
    expect(other.get_by_label("Parts of Sweet paprika, powder")).to_have_value("2½")
