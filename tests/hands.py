"""What a cook's hands do on the page, where the browser has no one word for it."""

from playwright.sync_api import Locator, expect

_SCROLL = """(list) => [list, ...list.querySelectorAll('*')]
  .filter((e) => e.scrollHeight > e.clientHeight + 4).forEach((e) => e.scrollBy(0, 200))"""


def take(box: Locator, choice: str) -> None:
    """Open a box that offers a list, scroll to what has these words, and take it."""
    page = box.page
    # what is chosen lies over the box itself
    box.locator("xpath=ancestor::*[contains(@class, 'v-field ')][1]").click()
    listed = page.get_by_role("listbox")
    expect(listed.get_by_role("option").first).to_be_visible()
    wanted = listed.get_by_role("option").filter(has_text=choice).first
    for _ in range(60):  # a long list draws what is in sight
        if wanted.count():
            break
        listed.evaluate(_SCROLL)
        page.wait_for_timeout(30)
    wanted.click()
    expect(listed).to_have_count(0)
