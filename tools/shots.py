"""Draw the current picture of each main view from the demo book into docs/screenshots/."""

import json
import urllib.request
from datetime import UTC, datetime, timedelta
from uuid import uuid4

from playwright.sync_api import Page, sync_playwright
from running import CHROMIUM, OWN_PAGE, ROOT, running

OUT = ROOT / "docs/screenshots"
WIDE, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


def get(address: str, path: str) -> object:
    with urllib.request.urlopen(f"{address}/api/{path}", timeout=10) as answer:
        return json.load(answer)


def theme(page: Page, address: str, name: str) -> None:
    body = {"units": "metric", "temperature": "C", "spoon_set": "us", "theme": name, "single_keys": True}
    page.request.put(f"{address}/api/book/preferences", data=body, headers=OWN_PAGE)


def shoot(page: Page, address: str, path: str, name: str) -> None:
    page.goto(address + path)
    page.wait_for_load_state("networkidle")
    page.evaluate("() => document.fonts.ready")
    page.wait_for_timeout(400)
    page.screenshot(path=OUT / f"{name}.png")
    print(f"docs/screenshots/{name}.png")


LIST = """For the goat:
two and a half tablespoons of smoked paprika
1½ tsp freshly cracked black pepper
a cup and a quarter of brown sugar
¼ cup butter or ghee
a good handful of thyme
1 tbsp smoked papirka
2 EL Kreuzkümmel"""


def brought(page: Page, address: str, name: str) -> None:
    """Draw a spoken list with what is asked of it."""
    page.goto(f"{address}/blend/bring")
    page.get_by_label("The list, as it is said or written").fill(LIST)
    page.get_by_text("2 questions left").wait_for()
    page.mouse.move(300, 400)
    page.get_by_text("a cup and a quarter of brown sugar").last.scroll_into_view_if_needed()
    page.wait_for_timeout(400)
    page.screenshot(path=OUT / f"{name}.png")
    print(f"docs/screenshots/{name}.png")


def measure_shots(wide: Page, address: str) -> None:
    """Draw what goes to the bowl: the scale, the shelf."""
    batch = next(row for row in get(address, "batches") if row["state"] == "weighing")
    hands = f"{address}/api/devices/scale/simulated"
    wide.request.post(hands, data={"resolution_g": 0.1}, headers=OWN_PAGE)
    wide.goto(f"{address}/blend/weigh/{batch['id']}")
    dial = wide.get_by_role("region", name="On the scale now")
    dial.get_by_text("kitchen scale").wait_for()
    wide.request.post(f"{hands}/handle", data={"do": "put", "grams": 4.9}, headers=OWN_PAGE)
    dial.get_by_text("1.5 g to go").wait_for()
    dial.get_by_text("settled").wait_for()
    wide.wait_for_timeout(400)  # the button fades in once it may be pressed
    wide.screenshot(path=OUT / "blend-weigh.png")
    print("docs/screenshots/blend-weigh.png")
    wide.request.post(f"{hands}/handle", data={"do": "stop"}, headers=OWN_PAGE)
    shoot(wide, address, "/shelf", "shelf")


def coat_shots(wide: Page, address: str) -> None:
    """Draw a joint on its fire."""
    wide.goto(f"{address}/coat")
    fire = wide.get_by_role("region", name="On the fire")
    fire.get_by_role("list", name="What if").wait_for()
    fire.evaluate("plate => plate.scrollIntoView()")
    wide.wait_for_timeout(400)
    wide.screenshot(path=OUT / "coat-fire.png")
    print("docs/screenshots/coat-fire.png")


def fire_shots(wide: Page, phone: Page, address: str, supper: str) -> None:
    """Draw the supper on the fire in its stall, at night; by the simulated thermometer."""
    theme(wide, address, "iron")
    fire = f"{address}/api/fire/{supper}"
    begun = datetime.now(UTC) - timedelta(hours=5)
    taps = [("on", 0, "A"), ("on", 8, "B"), ("fuel", 80, ""), ("spritz", 150, "A"), ("fuel", 170, ""), ("lid", 200, "")]
    noted = [
        {"key": str(uuid4()), "what": what, "letter": of, "at": (begun + timedelta(minutes=minute)).isoformat()}
        for what, minute, of in taps
    ]
    wide.request.post(f"{fire}/taps", data={"taps": noted}, headers=OWN_PAGE)
    wide.request.post(f"{fire}/simulated", data={"speed": 60, "seed": 4}, headers=OWN_PAGE)
    wide.goto(f"{address}/fire/{supper}")
    wide.get_by_text("eight times in ten").first.wait_for()
    wide.get_by_text("at rest").first.wait_for()
    wide.request.post(f"{fire}/simulated", data={"speed": 1}, headers=OWN_PAGE)
    wide.wait_for_timeout(25_000)  # what dips cost is told every twenty seconds
    for page, name in ((wide, "fire"), (phone, "fire-phone")):
        if page is phone:
            page.goto(f"{address}/fire/{supper}")
            page.get_by_text("eight times in ten").first.wait_for()
        page.wait_for_timeout(600)
        page.screenshot(path=OUT / f"{name}.png")
        print(f"docs/screenshots/{name}.png")
    wide.request.post(f"{fire}/simulated/stop", headers=OWN_PAGE)
    theme(wide, address, "enamel")


def table_shots(wide: Page, phone: Page, table: str) -> None:
    """Draw a card half filled on a phone, and the reveal with two plates turned."""
    phone.goto(table)
    phone.get_by_role("button", name="Hand the phone round").click()
    phone.get_by_role("combobox", name="Who tastes?").fill("Old Pewter")
    phone.keyboard.press("Escape")
    phone.get_by_role("button", name="Begin", exact=True).click()
    plates = phone.get_by_role("group", name="Put them in order, the best first.").locator(".one")
    for at in (1, 0, 2):
        plates.nth(at).click()
    phone.get_by_role("button", name="Next").click()
    phone.get_by_label("overall of").nth(6).check()
    phone.wait_for_timeout(400)
    phone.screenshot(path=OUT / "table-card-phone.png")
    print("docs/screenshots/table-card-phone.png")
    wide.goto(f"{table}/reveal")
    wide.get_by_role("button", name="Reveal, and turn the first plate").click()
    wide.get_by_role("button", name="Turn the next").click()
    wide.wait_for_timeout(1200)
    wide.screenshot(path=OUT / "table-reveal.png")
    print("docs/screenshots/table-reveal.png")


def main() -> None:
    with running() as (at, _), sync_playwright() as playwright:
        browser = playwright.chromium.launch(**CHROMIUM)
        rub = get(at, "blends")[0]["id"]
        tasted = {row["name"]: row["trial"]["id"] for row in get(at, "cooks") if row["trial"]}
        wide = browser.new_page(viewport=WIDE)
        shoot(wide, at, "/", "home")
        shoot(wide, at, f"/blend/{rub}", "blend-bench")
        shoot(wide, at, "/coat", "coat")
        shoot(wide, at, "/day", "day")
        supper = next(row["id"] for row in get(at, "cooks") if row["name"] == "Lock-side supper")
        shoot(wide, at, f"/table/{tasted['Mackerel on the towpath']}", "table")
        shoot(wide, at, f"/table/{tasted['Lock-side supper']}/design", "table-design")
        shoot(wide, at, "/verdict", "verdict-across")
        shoot(wide, at, "/verdict/cut/goat-leg", "verdict-cell")
        shoot(wide, at, f"/verdict/{tasted['Swing-bridge supper, lamb breast']}", "verdict")
        phone = browser.new_page(viewport=PHONE)
        shoot(phone, at, "/", "home-phone")
        shoot(phone, at, "/coat", "coat-phone")
        phone.evaluate("() => document.querySelector('#layers').scrollIntoView()")
        phone.wait_for_timeout(400)
        phone.screenshot(path=OUT / "coat-phone.png")
        brought(wide, at, "blend-bring")
        measure_shots(wide, at)
        coat_shots(wide, at)
        table_shots(wide, phone, f"{at}/table/{tasted['Mackerel on the towpath']}")
        fire_shots(wide, phone, at, supper)
        browser.close()


if __name__ == "__main__":
    main()
