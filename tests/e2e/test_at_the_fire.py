"""The cook's job at the fire: a roast from light to slice, a connection that is lost, a cook without probes."""

import os
import re
import socket
import subprocess
import sys
from contextlib import suppress
from datetime import UTC, datetime, timedelta
from uuid import uuid4

from axe import check_with_axe
from playwright.sync_api import Error as PlaywrightError
from playwright.sync_api import Page, expect
from running import OWN_PAGE, ROOT
from test_day import cook_of


def quick_roast(page: Page) -> tuple[str, str]:
    """Have the supper's pieces roasted hot to a rosy centre, and its day today; return where its fire is."""
    at, cook = cook_of(page)
    typed = page.request.get(f"{at}/api/cooks/{cook['id']}").json()
    for piece in typed["pieces"]:
        piece["phases"] = [
            {"surround": "indirect", "aimed": "170 °C", "centre": "52 °C"},
            {"surround": "rest", "vessel": "foil", "lasts": "20 min"},
        ]
    kept = ("version", "name", "serve_at", "eaters", "appetite", "note", "pieces")
    sent = {key: typed[key] for key in kept} | {"serve_at": (datetime.now(UTC) + timedelta(hours=3)).isoformat()}
    answer = page.request.put(f"{at}/api/cooks/{cook['id']}", data=sent, headers=OWN_PAGE)
    assert answer.ok, answer.text()
    return at, f"{at}/api/fire/{cook['id']}"


def page_of(at: str, fire: str) -> str:
    """Return where a cook's fire is shown; another one is on when the demo begins."""
    return f"{at}/fire/{fire.rpartition('/')[2]}"


def noted(page: Page, fire: str, what: str, minutes_ago: float, **more) -> None:
    at = (datetime.now(UTC) - timedelta(minutes=minutes_ago)).isoformat()
    tap = {"key": str(uuid4()), "what": what, "at": at, **more}
    answer = page.request.post(f"{fire}/taps", data={"taps": [tap]}, headers=OWN_PAGE)
    assert answer.ok
    assert not answer.json()["refused"]


def tap(page: Page, name: str) -> None:
    page.get_by_role("region", name="Note it by a tap").get_by_role("button", name=name, exact=True).click()


def chosen(page: Page, label: str, what: str) -> None:
    page.get_by_role("region", name="After the cook").get_by_label(label, exact=True).click(force=True)
    page.get_by_role("option", name=what, exact=True).click()


def test_a_simulated_roast_at_120_times_from_the_fire_to_the_board(page: Page):
    at, fire = quick_roast(page)
    noted(page, fire, "began", 110)
    noted(page, fire, "on", 95, letter="A")
    noted(page, fire, "on", 90, letter="B")
    page.goto(page_of(at, fire))
    page.get_by_role("button", name="Simulated thermometer").first.click()
    answer = page.get_by_role("region", name="When it comes off")
    expect(answer).to_contain_text(re.compile(r"[AB] off about \d\d:\d\d"))
    expect(answer).to_contain_text("eight times in ten")
    drawn = page.get_by_role("region", name="Temperatures over time")
    expect(drawn.locator(".heap circle").first).to_be_visible()
    heats = page.get_by_role("region", name="Temperatures", exact=True)
    expect(heats).to_contain_text("an hour")
    expect(heats).to_contain_text("156 °C to 184 °C")
    check_with_axe(page)
    assert page.request.post(f"{fire}/simulated", data={"speed": 120}, headers=OWN_PAGE).ok
    log = page.get_by_role("region", name="The log")
    tap(page, "Lid")
    expect(log).to_contain_text("lid opened")
    page.get_by_role("group", name="Of which piece").get_by_role("button", name="A", exact=True).click()
    tap(page, "Wrap")
    expect(log).to_contain_text("A wrapped")
    expect(heats).to_contain_text("wrapped")
    # what was noted is taken back, and is as if it had never been
    log.get_by_role("button", name="Take back: A wrapped").click()
    expect(log).not_to_contain_text("A wrapped")
    expect(page.get_by_role("region", name="Alarms")).to_contain_text("A has its 52 °C.")
    page.get_by_role("button", name="Silence: A has its 52 °C.").click()
    expect(page.get_by_role("region", name="Alarms")).not_to_contain_text("A has its 52 °C.")
    tap(page, "Take off")
    expect(heats).to_contain_text("off since")
    tap(page, "More")
    tap(page, "Slice")
    expect(heats).to_contain_text("served")
    expect(page.get_by_role("region", name="Clocks")).to_contain_text("Off the heat")
    page.get_by_role("button", name="Take it away").click()
    expect(page.get_by_role("button", name="Simulated thermometer").first).to_be_visible()
    page.get_by_role("button", name="All off").click()
    expect(answer).to_contain_text("All off")
    after = page.get_by_role("region", name="After the cook")
    expect(after).to_contain_text("Say how many it fed and what A and B weigh cooked")
    for letter in "AB":
        chosen(page, "Of", letter)
        after.get_by_label("How heavy").fill("heavy")
        after.get_by_role("button", name="Note it").click()
        expect(after.get_by_role("alert")).to_contain_text("for example")
        after.get_by_label("How heavy").fill("1.2 kg")
        after.get_by_role("button", name="Note it").click()
        expect(log).to_contain_text(f"{letter} weighs 1.20 kg")
    chosen(page, "Note", "It fed")
    after.get_by_label("How many ate").fill("6")
    after.get_by_role("button", name="Note it").click()
    expect(after).to_contain_text("It fed 6")
    chosen(page, "Note", "Left over")
    after.get_by_label("How heavy").fill("300 g")
    after.get_by_role("button", name="Note it").click()
    expect(after).to_contain_text("use by")
    expect(after).to_contain_text("in its middle")
    check_with_axe(page)


def test_what_is_tapped_without_a_connection_is_kept_and_sent_once(page: Page):
    at, fire = quick_roast(page)
    noted(page, fire, "on", 30, letter="A")
    page.goto(page_of(at, fire))
    log = page.get_by_role("region", name="The log")
    expect(log).to_contain_text("A on")
    page.context.set_offline(True)
    expect(page.get_by_text("No connection. This page goes on")).to_be_visible()
    tap(page, "Spritz")
    tap(page, "Fuel")
    expect(log.get_by_text("not sent yet")).to_have_count(2)
    expect(page.get_by_text("2 to send.")).to_be_visible()
    page.context.set_offline(False)
    expect(log.get_by_text("not sent yet")).to_have_count(0)
    expect(log).to_contain_text("A spritzed")
    expect(log).to_contain_text("fuel on")
    events = [event["what"] for event in page.request.get(fire).json()["events"]]
    assert events == ["on", "spritz", "fuel"]
    # what was kept when the page went away is sent by the next one
    page.context.set_offline(True)
    tap(page, "Baste")
    expect(log.get_by_text("not sent yet")).to_have_count(1)
    page.context.set_offline(False)
    page.goto(page_of(at, fire))
    expect(page.get_by_role("region", name="The log")).to_contain_text("A basted")
    events = [event["what"] for event in page.request.get(fire).json()["events"]]
    assert events.count("baste") == 1


def test_a_cook_without_probes_is_forecast_by_what_is_typed_and_felt(page: Page):
    at, fire = quick_roast(page)
    page.goto(page_of(at, fire))
    page.get_by_role("button", name="Rubbed is on now").click()
    heats = page.get_by_role("region", name="Temperatures", exact=True)
    expect(heats).to_contain_text("no probe")
    tap(page, "Read")
    page.get_by_label("It shows [°C]").fill("31")
    page.get_by_role("button", name="Note it").click()
    expect(heats).to_contain_text("31.0")
    expect(heats).to_contain_text("read at")
    expect(page.get_by_role("region", name="When it comes off")).to_contain_text("A off about")
    tap(page, "Feel")
    page.get_by_role("button", name="tough").click()
    log = page.get_by_role("region", name="The log")
    expect(log).to_contain_text("A feels tough")
    # held, a button asks how long ago
    page.get_by_role("button", name="Turn", exact=True).click(delay=900)
    page.get_by_role("group", name="When").get_by_role("button", name="20 min ago").click()
    page.get_by_role("button", name="Note it").click()
    expect(log).to_contain_text("A turned")
    (turned,) = [event for event in page.request.get(fire).json()["events"] if event["what"] == "turn"]
    ago = datetime.now(UTC) - datetime.fromisoformat(turned["at"])
    assert timedelta(minutes=19) < ago < timedelta(minutes=25)
    tap(page, "Read")
    page.get_by_label("It shows [°C]").fill("hot")
    page.get_by_role("button", name="Note it").click()
    expect(page.get_by_text(re.compile("for example"))).to_be_visible()
    # the piece is moved on the grate by keyboard
    grate = page.get_by_role("region", name="Where it lies")
    grate.get_by_role("button", name=re.compile("^A, Rubbed")).press("ArrowRight")
    expect(log).to_contain_text("A moved")


def test_fire_fits_a_phone(page: Page):
    at, fire = quick_roast(page)
    noted(page, fire, "on", 30, letter="A")
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(page_of(at, fire))
    expect(page.get_by_role("region", name="When it comes off")).to_contain_text("off about")
    check_with_axe(page)
    bar = page.get_by_role("navigation").last.bounding_box()
    for name in ("Spritz", "Take off", "Note"):
        button = page.get_by_role("button", name=name, exact=True).bounding_box()
        assert button["y"] + button["height"] <= bar["y"] + 1, name
        assert button["height"] >= 44
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_the_worked_bridge_passes_on_what_a_probe_posts(page: Page, ravska, tmp_path):
    """The program that docs/thermometer.md shows is run as it stands there."""
    text = (ROOT / "docs/thermometer.md").read_text(encoding="utf-8")
    (program,) = [one for one in re.findall(r"```python\n(.*?)```", text, re.DOTALL) if "HTTPServer" in one]
    (tmp_path / "bridge.py").write_text(program, encoding="utf-8")
    at, fire = quick_roast(page)
    noted(page, fire, "on", 30, letter="A")
    made = page.request.post(f"{at}/api/fire/devices", data={"name": "Two channels"}, headers=OWN_PAGE).json()
    use = {"key": str(uuid4()), "device": made["device"]["id"], "channel": "2", "role": "centre", "letter": "A"}
    assert page.request.post(f"{fire}/probes", data=use, headers=OWN_PAGE).ok
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    here = os.environ | {"RAVSKA": ravska.url, "RAVSKA_DEVICE_TOKEN": made["token"], "PORT": str(port)}
    with subprocess.Popen([sys.executable, tmp_path / "bridge.py"], env=here, stderr=subprocess.DEVNULL) as bridge:
        try:
            page.goto(page_of(at, fire))
            while bridge.poll() is None:
                with suppress(PlaywrightError):
                    told = page.request.post(f"http://127.0.0.1:{port}/", data={"probe": "2", "temp_f": 104})
                    assert told.status == 204
                    break
            expect(page.get_by_role("region", name="Temperatures", exact=True)).to_contain_text("40.0")
        finally:
            bridge.kill()


def test_readings_of_a_file_come_in_and_its_bad_lines_are_named(page: Page, tmp_path):
    at, fire = quick_roast(page)
    noted(page, fire, "on", 60, letter="A")
    page.goto(page_of(at, fire))
    readings = page.get_by_role("region", name="Readings")
    now = datetime.now(UTC)
    rows = [f"{(now - timedelta(minutes=one)).isoformat()},centre,A,mine,{60 - one / 2}" for one in range(59, 0, -1)]
    bad = f"{now.isoformat()},centre,A,mine,hot"
    (tmp_path / "mine.csv").write_text("\n".join(["at,measured,piece,probe,celsius", *rows, bad]))
    readings.locator("input[type=file]").set_input_files(tmp_path / "mine.csv")
    expect(readings).to_contain_text("59 readings came in")
    expect(readings).to_contain_text("Line 61, column 5:")
    expect(page.get_by_role("region", name="Temperatures", exact=True)).to_contain_text("59.5")
    readings.locator("input[type=file]").set_input_files(tmp_path / "mine.csv")
    expect(readings).to_contain_text("0 readings came in, 59 were known")
    page.get_by_role("button", name="All off").click()
    readings.get_by_role("button", name="Thin them").click()
    expect(readings).to_contain_text("All 59 are as few as they can be.")
    check_with_axe(page)


def test_the_page_loads_without_its_server_and_what_is_tapped_then_is_sent_when_it_is_back(browser, page: Page, ravska):
    at, fire = quick_roast(page)
    noted(page, fire, "on", 30, letter="A")
    noted(page, fire, "read", 10, letter="A", word="centre", celsius="37 °C")
    context = browser.new_context(viewport={"width": 1280, "height": 800}, timezone_id="Europe/Berlin")
    alone = context.new_page()
    alone.goto(page_of(at, fire))
    heats = alone.get_by_role("region", name="Temperatures", exact=True)
    expect(heats).to_contain_text("37.0")
    # the page is kept once its worker has all its files, and what is shown once it was shown for a while
    alone.evaluate("() => navigator.serviceWorker.ready")
    alone.reload()
    expect(heats).to_contain_text("37.0")
    alone.wait_for_function("() => navigator.serviceWorker.controller")
    ravska.lose()
    alone.reload()
    expect(alone.get_by_text("No connection. This page goes on")).to_be_visible()
    expect(alone.get_by_text("Do not load it anew")).to_have_count(0)
    expect(heats).to_contain_text("37.0")
    tap(alone, "Spritz")
    log = alone.get_by_role("region", name="The log")
    expect(log.get_by_text("not sent yet")).to_have_count(1)
    alone.reload()
    expect(log.get_by_text("not sent yet")).to_have_count(1)
    ravska.start()
    expect(log).to_contain_text("A spritzed")
    expect(log.get_by_text("not sent yet")).to_have_count(0)
    events = [event["what"] for event in page.request.get(fire).json()["events"]]
    assert events.count("spritz") == 1
    context.close()


def test_a_photo_taken_without_a_connection_is_sent_later(page: Page, tmp_path):
    at, fire = quick_roast(page)
    noted(page, fire, "on", 30, letter="A")
    page.goto(page_of(at, fire))
    log = page.get_by_role("region", name="The log")
    expect(log).to_contain_text("A on")
    picture = page.screenshot(path=tmp_path / "crust.png")
    assert picture
    page.context.set_offline(True)
    expect(page.get_by_text("No connection. This page goes on")).to_be_visible()
    page.get_by_role("region", name="Note it by a tap").locator("input[type=file]").set_input_files(
        tmp_path / "crust.png"
    )
    expect(log.get_by_text("not sent yet")).to_have_count(1)
    page.context.set_offline(False)
    expect(log).to_contain_text("A photo")
    (photo,) = [event for event in page.request.get(fire).json()["events"] if event["what"] == "photo"]
    kept = page.request.get(f"{at}/api/fire/photos/{photo['key']}")
    assert kept.headers["content-type"] == "image/jpeg"
    assert 1000 < len(kept.body()) <= 300_000
