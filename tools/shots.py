"""Draw the current picture of each main view from the demo book into docs/screenshots/."""

import json
import re
import urllib.request

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


def bench_shots(wide: Page, address: str, rub: str) -> None:
    """Draw the bench at work: a target proposed, a revision compared."""
    wide.goto(f"{address}/blend/{rub}")
    wide.get_by_role("button", name="Aim it").click()
    for end in ("least", "most"):
        wide.get_by_label(f"At {end} salt").fill("22")
    wide.get_by_role("region", name="The nearest blend").wait_for()
    wide.mouse.move(700, 600)
    wide.mouse.wheel(0, 470)
    wide.wait_for_timeout(500)
    wide.screenshot(path=OUT / "blend-aim.png")
    wide.get_by_label("At least salt").fill("")
    wide.get_by_label("At most salt").fill("")
    wide.get_by_role("button", name="Aim done").click()
    wide.get_by_role("button", name=re.compile("^2 cumin")).click()
    wide.get_by_role("region", name="Revision 2").scroll_into_view_if_needed()
    wide.wait_for_timeout(400)
    wide.screenshot(path=OUT / "blend-branches.png")
    for name in ("blend-aim", "blend-branches"):
        print(f"docs/screenshots/{name}.png")


LIST = """For the goat:
2 tbsp smoked paprika
1½ tsp freshly cracked black pepper
1 cup + 2 tbsp brown sugar, packed
2-3 cloves garlic, minced
a small handful of thyme
1 tbsp papirka
salt to taste
2 EL Kreuzkümmel"""


def measure_shots(wide: Page, address: str) -> None:
    """Draw what comes in and goes to the bowl: a pasted list, a label, the scale, the shelf."""
    wide.goto(f"{address}/blend/bring")
    wide.get_by_label("The list, one ingredient a line").fill(LIST)
    wide.get_by_text("2 questions left").wait_for()
    wide.mouse.move(700, 400)
    wide.wait_for_timeout(300)
    wide.screenshot(path=OUT / "blend-bring.png")
    wide.goto(f"{address}/blend/label")
    wide.get_by_label("Name").fill("Market-hall steak rub")
    wide.get_by_label("A portion is").fill("1.2 g")
    wide.get_by_label("Sodium in it").fill("310 mg")
    words = "Salt, garlic, black pepper, sugar, spices, onion, contains 2 % or less of: silicon dioxide"
    wide.get_by_label("Ingredients, in the order").fill(words)
    wide.get_by_text("most likely about").wait_for()
    wide.wait_for_timeout(500)
    wide.screenshot(path=OUT / "blend-label.png")
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
    wide.request.post(f"{hands}/handle", data={"do": "stop"}, headers=OWN_PAGE)
    shoot(wide, address, "/shelf", "shelf")
    for name in ("blend-bring", "blend-label", "blend-weigh"):
        print(f"docs/screenshots/{name}.png")


def coat_shots(wide: Page, address: str, haunch: str) -> None:
    """Draw a joint side by side in every way, and where the needle goes into it."""
    wide.goto(f"{address}/coat/{haunch}")
    wide.get_by_role("region", name="Injecting").wait_for()
    wide.get_by_role("button", name="Side by side").click()
    sides = wide.get_by_role("region", name="Side by side")
    sides.get_by_role("article").nth(5).wait_for()
    for name, region in (("coat-side-by-side", "sides"), ("coat-injection", "injecting")):
        wide.evaluate(f"() => document.querySelector('.{region}').scrollIntoView()")
        wide.wait_for_timeout(400)
        wide.screenshot(path=OUT / f"{name}.png")
        print(f"docs/screenshots/{name}.png")


def main() -> None:
    with running() as (at, _), sync_playwright() as playwright:
        browser = playwright.chromium.launch(**CHROMIUM)
        rub = get(at, "blends")[0]["id"]
        tasted = {row["name"]: row["trial"]["id"] for row in get(at, "cooks") if row["trial"]}
        wide = browser.new_page(viewport=WIDE)
        shoot(wide, at, "/", "home")
        shoot(wide, at, "/blend", "blend-shelf")
        shoot(wide, at, f"/blend/{rub}", "blend-bench")
        shoot(wide, at, "/coat", "coat")
        shoot(wide, at, f"/table/{tasted['Wharf lunch, duck legs']}", "table")
        shoot(wide, at, f"/verdict/{tasted['Wharf lunch, duck legs']}", "verdict")
        theme(wide, at, "iron")
        shoot(wide, at, "/", "home-iron")
        shoot(wide, at, f"/blend/{rub}", "blend-bench-iron")
        theme(wide, at, "enamel")
        phone = browser.new_page(viewport=PHONE)
        shoot(phone, at, "/", "home-phone")
        shoot(phone, at, "/coat", "coat-phone")
        phone.get_by_role("region", name="From crust to centre").scroll_into_view_if_needed()
        phone.wait_for_timeout(400)
        phone.screenshot(path=OUT / "coat-phone.png")
        bench_shots(wide, at, rub)
        measure_shots(wide, at)
        coat_shots(wide, at, next(row["id"] for row in get(at, "cooks") if "haunch" in row["name"]))
        phone.goto(f"{at}/table")
        phone.get_by_role("button", name="Taste and score").click()
        phone.wait_for_timeout(400)
        phone.screenshot(path=OUT / "table-card-phone.png")
        browser.close()


if __name__ == "__main__":
    main()
