"""Nothing typed is lost: reloads, a lost server, a second window."""

import re

import pytest
from axe import check_with_axe
from conftest import Server
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
    expect(page.get_by_role("alert")).to_contain_text("Ravska’s server does not answer")
    ravska.start()
    expect(page.get_by_role("alert")).to_have_count(0)
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


def lose_answers(page: Page, address: str, times: int) -> None:
    """Let so many writes reach the server, and lose what it answers."""

    def lost(route):
        if route.request.method == "GET":
            return route.continue_()
        route.fetch()
        return route.abort()

    page.route(address, lost, times=times)


def test_a_save_whose_answer_was_lost_is_no_conflict_with_oneself(page: Page):
    open_rub(page)
    lose_answers(page, re.compile(r"/api/blends/[0-9a-f-]{36}$"), 2)
    page.get_by_label("Batch").fill("80 g")
    expect(page.get_by_role("status").first).to_contain_text("Server lost")
    page.get_by_label("Parts of Black pepper, cracked").fill("6")
    expect(page.get_by_role("status").first).to_have_text("Saved")
    expect(page.get_by_role("alertdialog")).to_have_count(0)
    page.evaluate("localStorage.clear()")
    page.reload()
    expect(page.get_by_label("Batch")).to_have_value("80 g")
    expect(page.get_by_label("Parts of Black pepper, cracked")).to_have_value("6")


def test_what_was_made_and_whose_answer_was_lost_is_made_once(page: Page):
    page.keyboard.press("1")
    rows = page.get_by_role("link", name=re.compile("^Weir House lamb rub"))
    expect(rows).to_have_count(1)
    rows.click()
    lose_answers(page, re.compile(r"/branch$"), 1)
    for lost in (True, False):
        page.get_by_role("button", name="Branch", exact=True).click()
        page.get_by_label("Name of the branch").fill("Lock-side rub")
        page.get_by_role("dialog").get_by_role("button", name="Branch", exact=True).click()
        if lost:
            expect(page.get_by_text("Ravska’s server does not answer").first).to_be_visible()
    expect(page.get_by_label("Name of the blend")).to_have_value("Lock-side rub")
    page.keyboard.press("1")
    expect(page.get_by_role("link", name=re.compile("^Lock-side rub"))).to_have_count(1)


def test_what_a_closed_window_had_not_saved_is_taken_up_by_the_next(page: Page, ravska):
    open_rub(page)
    other = page.context.new_page()
    other.goto(page.url)
    expect(other.get_by_label("Batch")).to_have_value("60 g")
    ravska.lose()
    other.get_by_label("Batch").fill("95 g")
    expect(other.get_by_role("status").first).to_contain_text("Server lost")
    page.get_by_label("Parts of Black pepper, cracked").fill("7")
    expect(page.get_by_role("status").first).to_contain_text("Server lost")
    kept = page.evaluate("Object.keys(localStorage).filter((key) => key.startsWith('ravska:unsaved')).length")
    assert kept == 2  # a window each
    other.close()
    ravska.start()
    expect(page.get_by_role("status").first).to_have_text("Saved")
    third = page.context.new_page()
    third.goto(page.url)
    conflict = third.get_by_role("alertdialog", name="Changed in another window")
    expect(conflict).to_contain_text("95 g")
    conflict.get_by_role("button", name="Take the other").click()
    expect(third.get_by_label("Parts of Black pepper, cracked")).to_have_value("7")


def test_one_wrong_field_stops_nothing_else(page: Page):
    page.keyboard.press("2")
    page.get_by_role("button", name=re.compile("^Lamb rub and honey glaze glaze")).click()
    dose = page.get_by_role("textbox", name=re.compile("^Dose"))
    dose.fill("70")
    said = page.get_by_role("status", name="What could not be read")
    expect(said).to_contain_text("a dose in g/100 cm² lies between")
    expect(page.get_by_text("Saved, one field not understood")).to_be_visible()
    tabs = page.get_by_role("group", name="Pieces on the board")
    expect(tabs.get_by_role("button", name=re.compile("Rubbed"))).to_contain_text("from before")
    tabs.get_by_role("button", name=re.compile("Marinated")).click()
    page.get_by_label("Raw weight").fill("2.4 kg")
    # the other piece is saved and counted, and all of it is still there after a reload
    expect(page.get_by_role("region", name="What to mix for all of it")).to_contain_text("B 667 g marinade")
    page.evaluate("localStorage.clear()")
    page.reload()
    expect(tabs).to_contain_text("2.4 kg")
    said.get_by_role("button", name="glaze, dose").click()
    page.get_by_role("button", name=re.compile("^Lamb rub and honey glaze glaze")).click()
    expect(dose).to_have_value("70")
    dose.fill("5")
    expect(said).to_have_count(0)
    expect(page.get_by_text("from before")).to_have_count(0)
    expect(page.get_by_role("status").first).to_have_text("Saved")


class TestAnEmptyBook:
    @pytest.fixture
    def ravska(self, tmp_path, free_port, nursery):
        server = Server(nursery, tmp_path / "new", free_port)
        yield server
        server.lose()

    def test_an_empty_book_leads_in_three_steps_to_a_ledger(self, page: Page):
        expect(page.get_by_role("heading", level=1)).to_have_text("An empty book")
        first = page.get_by_role("region", name="First step")
        first.get_by_role("radio", name="US").first.check()
        second = page.get_by_role("region", name="Second step")
        second.get_by_role("button", name="Salt with sugar and paprika").click()
        expect(second.get_by_role("status")).to_contain_text("is in your book")
        check_with_axe(page)
        page.get_by_role("region", name="Third step").get_by_role("button", name="Begin a cook").click()
        page.get_by_label("What is it called").fill("First fire")
        page.get_by_role("combobox", name="Cut of piece A").fill("lamb shoulder boned")
        page.get_by_role("option", name="Lamb shoulder, boned").click()
        page.get_by_role("combobox", name="Blend of piece A").fill("salt with sugar")
        page.get_by_role("option", name=re.compile("^Salt with sugar and paprika")).first.click()
        page.get_by_role("button", name="Begin", exact=True).click()
        expect(page.get_by_role("heading", level=1)).to_contain_text("First fire, Saturday")
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Coat").click()
        ledger = page.get_by_role("region", name="Salt ledger")
        expect(ledger).to_contain_text("of Salt with sugar and paprika")
        expect(ledger.get_by_role("button", name="why: Salt on A")).to_contain_text("%")
