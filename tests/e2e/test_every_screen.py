"""Every screen as it opens: in both themes, on a laptop and a phone, at twice the size of type, by axe and by eye."""

import re
import time
from contextlib import suppress

import pytest
from axe import check_with_axe
from playwright.sync_api import Page, expect

PATHS = ("/", "/blend", "/blend/{blend}", "/blend/bring", "/blend/label", "/coat", "/day", "/day/{cook}/sheet", "/fire",
         "/table", "/table/{trial}", "/table/{trial}/design", "/table/{trial}/paper", "/table/{trial}/print",
         "/table/{trial}/reveal",
         "/verdict", "/verdict/known", "/verdict/cut/duck-leg", "/verdict/{trial}", "/shelf")  # fmt: skip


def root(page: Page) -> str:
    return re.match(r"https?://[^/]+", page.url)[0]


def addresses(page: Page) -> list[str]:
    """Return where each screen of the demo book is."""
    at = root(page)
    (blend,) = [
        one["id"] for one in page.request.get(f"{at}/api/blends").json() if one["name"] == "Weir House lamb rub"
    ]
    cooks = page.request.get(f"{at}/api/cooks").json()
    trial = next(row["trial"]["id"] for row in cooks if row["trial"] and row["trial"]["cards"])
    return [path.format(blend=blend, trial=trial, cook=cooks[0]["id"]) for path in PATHS]


def ready(page: Page, path: str) -> None:
    page.goto(root(page) + path)
    expect(page.locator("main h1")).to_have_count(1)
    page.wait_for_load_state("networkidle")


@pytest.mark.parametrize(("theme", "wide"), [("enamel", 390), ("iron", 1280)])
def test_axe_finds_nothing_serious_on_any_screen(page: Page, theme: str, wide: int):
    page.set_viewport_size({"width": wide, "height": 800})
    page.get_by_role("button", name="Units, theme").first.click()
    page.get_by_role("radio", name="Iron, dark" if theme == "iron" else "Enamel, light").check(force=True)
    expect(page.locator(f".v-application.v-theme--{theme}")).to_have_count(1)
    page.keyboard.press("Escape")
    for path in addresses(page):
        ready(page, path)
        check_with_axe(page)


def test_at_twice_the_size_nothing_is_cut_or_runs_off_the_page(page: Page):
    # a page of 1280 at 200 % has room for 640
    page.set_viewport_size({"width": 640, "height": 400})
    for path in addresses(page):
        ready(page, path)
        over = page.evaluate(
            """() => [...document.querySelectorAll('main *')].filter((e) => {
                 const box = e.getBoundingClientRect()
                 if (!e.checkVisibility() || !box.width || box.right <= innerWidth + 1) return false
                 for (let up = e.parentElement; up; up = up.parentElement)
                   if (/auto|scroll|hidden|clip/.test(getComputedStyle(up).overflowX)) return false
                 return true
               }).map((e) => e.outerHTML.slice(0, 120))"""
        )
        assert over == [], path


def leave(page: Page) -> None:
    """Leave a dialog by its key; one that has only just opened may not hear it yet."""
    dialog = page.get_by_role("dialog")
    for _ in range(20):
        page.keyboard.press("Escape")
        with suppress(AssertionError):
            expect(dialog).to_have_count(0, timeout=1_000)
            return
    expect(dialog).to_have_count(0)


def test_a_screen_reads_in_the_order_of_the_work_and_the_finder_and_the_keys_open_over_it(page: Page):
    ready(page, "/coat")
    expect(page.get_by_role("main")).to_match_aria_snapshot(
        """
        - main:
          - heading "Lock-side supper" [level=1]
          - textbox "Name of the cook"
          - region "Piece A, Rubbed":
            - region "Salt ledger"
            - region "The piece"
            - region "Notes"
            - region "Layers, in order":
              - region "From crust to centre"
        """
    )
    for key, name in (("/", "Find"), ("?", "Keys")):
        for _ in range(2):  # the first time its part of the page is fetched
            begun = time.perf_counter()
            page.keyboard.press(key)
            dialog = page.get_by_role("dialog", name=re.compile(name))
            expect(dialog).to_be_visible()
            took = time.perf_counter() - begun
            dialog.locator("button, input").first.focus()
            leave(page)
        print(f"{key} {took * 1000:.0f} ms")
