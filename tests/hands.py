"""What a cook's hands do on the page, where the browser has no one word for it."""

import re

from playwright.sync_api import Locator, Page, TimeoutError, expect

_SCROLL = """async (list) => {
  const long = [list, ...list.querySelectorAll('*')].filter((e) => e.scrollHeight > e.clientHeight + 4)
  for (const e of long) {
    const end = e.scrollTop + e.clientHeight > e.scrollHeight - 4
    e.scrollTo(0, end ? 0 : e.scrollTop + 100)
  }
  for (let drawn = 0; drawn < 3; drawn++) await new Promise(requestAnimationFrame)
}"""

_IN_SIGHT = """(rows) => {
  const shown = rows[0]?.closest('.v-overlay__content')
  if (!shown) return false
  const [own, list] = [rows[0], shown].map((e) => e.getBoundingClientRect())
  return own.top >= list.top && own.bottom <= Math.min(list.bottom, innerHeight)
}"""


def begin_card(page: Page, taster: str, child: bool = False) -> list[str]:
    """Take the phone as a taster, all questions on one page; return the plates in the order they are served."""
    page.get_by_role("button", name="Hand the phone round").click()
    page.get_by_role("combobox", name="Who tastes?").fill(taster)
    page.keyboard.press("Escape")
    if child:
        page.get_by_role("checkbox", name=re.compile("child’s card")).check()
    page.get_by_role("radio", name="all on one page").check(force=True)
    page.get_by_role("button", name="Begin", exact=True).click()
    served = page.get_by_text(re.compile(r"^tastes \d{3}"))
    expect(served).to_be_visible()
    return re.findall(r"\d{3}", served.inner_text())


def take(box: Locator, choice: str) -> None:
    """Open a box that offers a list, scroll to what has these words, and take it."""
    page = box.page
    # what is chosen lies over the box itself
    box.locator("xpath=ancestor::*[contains(@class, 'v-field ')][1]").click()
    listed = page.get_by_role("listbox")
    expect(listed.get_by_role("option").first).to_be_visible()
    wanted = listed.get_by_role("option").filter(has_text=choice).first
    for _ in range(200):  # a long list draws what is in sight: on to its end, then from its start
        # a row that is drawn beyond the list's own edge would let the tap through to the page behind it
        if wanted.evaluate_all(_IN_SIGHT):
            try:
                wanted.click(timeout=3000)
                break
            except TimeoutError:  # the list was drawn anew meanwhile
                continue
        listed.evaluate(_SCROLL)
    expect(listed).to_have_count(0)


def choose(page: Page, of: str, doing: str) -> None:
    """Choose from a row's menu, by keyboard: what still comes above the row would move it under a pointer."""
    page.get_by_role("button", name=f"More for {of}").press("Enter")
    page.get_by_role("menuitem", name=doing).press("Enter")


def sits_down(page: Page, year: str, month: str, day: str, time: str) -> None:
    """Say when people sit down: the day from the calendar, as "Saturday, June 12, 2027" is read aloud, and the time."""
    when = page.get_by_role("group", name="People sit down")
    when.get_by_role("button").click()
    days = page.get_by_label("Choose a day")
    days.get_by_role("button", name="Select year").click()
    days.get_by_role("button", name=year, exact=True).click()
    days.get_by_role("button", name="Select month").click()
    days.get_by_role("button", name=month, exact=True).click()
    days.get_by_role("button", name=day).click()
    expect(days).to_have_count(0)
    when.get_by_label("Time").fill(time)
