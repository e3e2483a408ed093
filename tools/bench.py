"""Measure Ravska against its floor: an empty typed endpoint in the same server, on the demo book.

Prints p50 and p95 of each answer, what the server computes for it, the ratio of its p50 to the floor's, and the
budget; then what the browser sees: edit to new numbers on screen, and the first view's script gzipped.
"""

import gzip
import http.client
import json
import os
import re
import statistics
import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from datetime import time as clock
from itertools import cycle
from pathlib import Path
from urllib.parse import urlsplit
from uuid import uuid4

from playwright.sync_api import sync_playwright
from ravska_core.coat import Layer, Seasoned, plain
from ravska_core.day import DayPiece, Side, Supper, find_zone, nights, read_day, start_now, ways_out
from ravska_core.day.reading import plan_day
from ravska_core.heat import Phase, find_cooker, heated
from ravska_core.heat.chances import draws_of, middle_of
from ravska_core.heat.properties import material_of
from ravska_core.heat.run import run
from ravska_core.heat.solver import Body
from ravska_core.heat.surface import Leg
from ravska_core.heat.surface import Side as HeatSide
from ravska_core.heat.trade import factor_of
from ravska_core.meat import Piece, find_cut
from running import CHROMIUM, OWN_PAGE, ROOT, running

WARM, RUNS, EDITS = 30, 300, 40


class Client:
    """One kept-alive connection, as a browser keeps it."""

    def __init__(self, address: str) -> None:
        self.connection = http.client.HTTPConnection(urlsplit(address).netloc)

    def send(self, method: str, path: str, data: str | None, more: dict[str, str] | None = None) -> bytes:
        """Return the answer as it came; what a server is measured by."""
        said = {"Content-Type": "application/json"} | OWN_PAGE | (more or {})
        self.connection.request(method, f"/api/{path}", data, said)
        answer = self.connection.getresponse()
        found = answer.read()
        assert answer.status < 400, found
        return found

    def __call__(self, method: str, path: str, body: object = None) -> dict:
        return json.loads(self.send(method, path, None if body is None else json.dumps(body)))

    def asks(self, method: str, path: str, body: object = None) -> Callable[[], bytes]:
        """Return the act of asking, with the document written out beforehand."""
        data = None if body is None else json.dumps(body)
        return lambda: self.send(method, path, data)


def percentile(sorted_ms: list[float], share: float) -> float:
    return sorted_ms[min(len(sorted_ms) - 1, round(share * (len(sorted_ms) - 1)))]


def cpu_s(process: int) -> float:
    """Return how long a process has been computing [s]."""
    fields = Path(f"/proc/{process}/stat").read_text().rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def measured(act: Callable[[], object], process: int) -> tuple[float, float, float]:
    """Return p50 and p95 of an act and the mean of what the server computes for it [ms]."""
    for _ in range(WARM):
        act()
    found = []
    before = cpu_s(process)
    for _ in range(RUNS):
        start = time.perf_counter()
        act()
        found.append((time.perf_counter() - start) * 1000)
    computed = (cpu_s(process) - before) / RUNS * 1000
    found.sort()
    return statistics.median(found), percentile(found, 0.95), computed


def answers(address: str, process: int) -> None:
    client = Client(address)
    rows = client("GET", "blends")
    opened = client("GET", f"blends/{rows[0]['id']}")
    blend = {key: opened[key] for key in ("name", "kind", "batch", "lines", "version")}
    grinds = [grind["key"] for grind in client("GET", "shelf/catalogue")["grinds"][:15]]
    inside = [row["id"] for row in rows if row["name"] in ("Lamb rub and honey glaze", "Towpath duck rub")]
    lines = [{"grind": key, "parts": "1½", "basis": "spoon"} for key in grinds]
    fifteen = blend | {"lines": [*lines[:13], *({"blend": key, "parts": "1"} for key in inside)]}
    targets = [
        {"what": "salt", "low": "20", "high": "20"},
        {"what": "heat", "low": "4"},
        {"what": "sugar", "high": "12"},
    ]
    aimed = fifteen | {"targets": targets}
    beside = {"for_meat": "beef", "for_fire": "direct flame"}
    typed = [piece["typed"] for piece in client("GET", "cooks/in-hand")["cook"]["pieces"]]
    coat = {"pieces": typed}
    binder = {"kind": "binder", "grind": "mustard-prepared/paste", "dose": "2.4"}
    last = {"kind": "finishing salt", "grind": "sea-salt-flake/flake", "dose": ""}
    six = [typed[0]["layers"][0], *typed[1]["layers"], binder, *typed[0]["layers"][1:], last]
    cuts = ("lamb-shoulder", "goat-leg", "beef-brisket", "salmon-side")
    board = {
        "pieces": [typed[0] | {"letter": "ABCD"[n], "cut": cut, "layers": six}
                 for n, cut in enumerate(cuts)]
    }  # fmt: skip
    needled = next(row for row in client("GET", "cooks") if "haunch" in row["name"])
    injected = client("GET", f"cooks/{needled['id']}")["pieces"][0]["layers"][0]
    wet = {"pieces": [typed[0] | {"layers": [injected]}, typed[1] | {"layers": [typed[1]["layers"][0], injected]}]}
    # another hold each time, so that nothing kept from the last answer helps
    held = [
        {"pieces": [typed[0] | {"layers": [injected | {"hold": f"{8 * 60 + n} min"}]}, typed[1]]}
        for n in range(WARM + RUNS)
    ]
    asked = iter([client.asks("POST", "cooks/coat/read", body) for body in held])
    weights = [f"{2.0 + n / 1000:.3f} kg" for n in range(WARM + RUNS)]
    weighed = cycle(
        [
            client.asks("POST", "cooks/coat/read", {"pieces": [piece | {"mass": mass} for piece in typed]})
            for mass in weights
        ]
    )
    boards = cycle(
        [
            client.asks("POST", "cooks/coat/read", {"pieces": [piece | {"mass": mass} for piece in board["pieces"]]})
            for mass in weights
        ]
    )
    joint = {"piece": typed[0]}
    fires = cycle([client.asks("POST", "cooks/heat/read", {"piece": typed[0] | {"mass": mass}}) for mass in weights])
    pasted = {"text": "\n".join(["2 tbsp smoked paprika", "1½ tsp black pepper, cracked", "a handful of thyme"] * 4)}
    batch = next(row for row in client("GET", "batches") if row["state"] == "weighing")
    whole = next(row for row in client("GET", "batches") if row["state"] == "mixed")
    label = {"portion": "1.2 g", "sodium": "240 mg", "sugars": "0 g"}
    bought = {"label": label, "ingredients": "salt, sugar, paprika, spices, garlic"}
    poured = {"scale": "bench", "readings": [{"at_s": 1.0, "grams": 12.3, "settled": True}] * 2}
    between = blend | {"low": "40 g", "high": "120 g"}
    trials = {row["name"]: row["trial"]["id"] for row in client("GET", "cooks") if row["trial"]}
    duck, breast, half = (trials[name] for name in ("Wharf lunch, duck legs", "Swing-bridge supper, lamb breast",
                                                    "Mackerel on the towpath"))  # fmt: skip

    alight = client("GET", "fire/cook")["id"]
    burnt = next(row["id"] for row in client("GET", "cooks") if "goat" in row["name"])
    tap = {"what": "spritz", "letter": "A"}
    bearer = {"Authorization": f"Bearer {client('POST', 'fire/devices', {'name': 'bench'})['token']}"}

    def thermometer() -> None:
        at = datetime.now(UTC).isoformat()
        rows = [{"channel": str(one), "celsius": 60, "at": at} for one in range(4)]
        client.send("POST", "devices/thermometer/readings", json.dumps({"readings": rows}), bearer)

    regatta = trials["Basin regatta, duck legs"]
    one_card = client("GET", f"trials/{regatta}")["cards"][0]["id"]
    doings = cycle(("delete", "restore"))

    def changed_card() -> None:
        """Take a card back, or put it in again; then ask for the rows."""
        client("POST", f"trials/{regatta}/cards/{one_card}/{next(doings)}")
        client("GET", "verdicts?kind=way&first=rubbed&second=marinated")

    def save() -> None:
        blend["batch"] = "61 g" if blend["batch"] == "60 g" else "60 g"
        blend.update(version=client("PUT", f"blends/{opened['id']}", blend)["version"])

    acts = [
        ("floor: an empty typed endpoint", client.asks("GET", "ping"), None),
        ("blend edit, the demo's 7 lines", client.asks("POST", "blends/read", blend), 10),
        ("blend edit, 15 lines, 2 of them blends", client.asks("POST", "blends/read", fifteen), 10),
        ("a nudge of one of the 15", client.asks("POST", "blends/rework", fifteen | {"do": "nudge", "line": 2}), 10),
        ("solve: 3 targets on the 15", client.asks("POST", "blends/aim", aimed), 60),
        ("adapt the 15 to beef and flame", client.asks("POST", "blends/adapt", fifteen | beside), 60),
        ("branch tree of the demo's rub", client.asks("GET", f"blends/{opened['id']}/tree"), 50),
        ("blend saved to disk, and read", save, None),
        ("spoon-friendly batch, 40 to 120 g", client.asks("POST", "blends/spoons", between), None),
        ("a pasted list of 12 lines", client.asks("POST", "blends/bring", pasted), None),
        ("a label, read again", client.asks("POST", "blends/label", bought), None),
        ("a batch on the scale", client.asks("GET", f"batches/{batch['id']}"), 50),
        ("list of batches, the shelf", client.asks("GET", "batches"), 50),
        ("a taste to correct", client.asks("POST", f"batches/{whole['id']}/tasted", {"taste": "too-salty"}), 50),
        ("a scale's readings", client.asks("POST", "devices/scale/readings", poured), 10),
        ("what the scale shows", client.asks("GET", "devices/scale"), 10),
        ("whole coat, two pieces", client.asks("POST", "cooks/coat/read", coat), 60),
        ("whole coat, 4 pieces of 6 layers", client.asks("POST", "cooks/coat/read", board), 60),
        ("whole coat, two pieces, weights changed", lambda: next(weighed)(), 60),
        ("whole coat, four pieces, weights changed", lambda: next(boards)(), None),
        ("coat with injection and marinade", client.asks("POST", "cooks/coat/read", wet), 60),
        ("coat with an injection, held otherwise", lambda: next(asked)(), 60),
        ("binder or none", client.asks("POST", "cooks/coat/binders", joint), None),
        ("side by side, six ways", client.asks("POST", "cooks/coat/side-by-side", joint), None),
        ("heat of a piece, 64 draws, weight changed", lambda: next(fires)(), 100),
        ("what if: three runs", client.asks("POST", "cooks/heat/what-if", joint), None),
        ("home, the cook in hand", client.asks("GET", "cooks/in-hand"), 50),
        ("a look at the fire, what is new", client.asks("GET", f"fire/{alight}?after=1000000"), 50),
        ("a fire of nine hours, all of it", client.asks("GET", f"fire/{burnt}"), 50),
        ("after the cook", client.asks("GET", f"fire/{burnt}/after"), 50),
        ("a tap", lambda: client("POST", f"fire/{alight}/taps", {"taps": [tap | {"key": str(uuid4())}]}), None),
        ("a thermometer's readings", thermometer, 20),
        ("list of blends", client.asks("GET", "blends"), 50),
        ("list of cooks", client.asks("GET", "cooks"), 50),
        ("a table half tasted", client.asks("GET", f"trials/{half}"), 50),
        ("a trial's design", client.asks("GET", f"trials/{half}/design"), 50),
        ("is it a fair test", client.asks("GET", f"trials/{half}/fair"), 50),
        ("verdict of eight cards", client.asks("GET", f"trials/{duck}/verdict"), 50),
        ("verdicts of one pair, rows", client.asks("GET", "verdicts?kind=way&first=rubbed&second=marinated"), 50),
        ("verdicts of one pair, one card changed", changed_card, 50),
        ("a cut's evidence", client.asks("GET", "verdicts/cell?cut=duck-leg"), 300),
        ("what we know", client.asks("GET", "verdicts/known"), None),
        ("what to cook next", client.asks("GET", "verdicts/next"), None),
        ("verdict of eight cards, scored", client.asks("GET", f"trials/{breast}/verdict"), 50),
    ]
    floor = 0.0
    print(f"{'answer':<44}{'p50 ms':>9}{'p95 ms':>9}{'cpu ms':>9}{'x floor':>9}{'budget':>9}")
    for name, act, budget in acts:
        p50, p95, computed = measured(act, process)
        floor = floor or p50
        print(
            f"{name:<44}{p50:>9.2f}{p95:>9.2f}{computed:>9.2f}{p50 / floor:>9.1f}{f'{budget} ms' if budget else '':>9}"
        )


def heat() -> None:
    """Measure what twelve hours of a shoulder take of one core: the most likely run, and 64 draws."""
    shoulder, trade = Body(0.0924, 1.96, material_of(0.745)), factor_of(find_cut("pork-shoulder"))
    side = HeatSide(10.0)
    legs = [Leg(110.0, (side, side), 12 * 3600.0)]
    print(f"{'heat: 12 h of a 4 kg shoulder':<44}{'cpu ms':>9}{'budget':>18}")
    for name, body, budget in (
        ("the most likely run", middle_of(shoulder, trade), 60),
        ("64 draws", draws_of(shoulder, trade), 120),
    ):
        found = []
        for _ in range(9):
            start = time.process_time()
            run(body, legs)
            found.append((time.process_time() - start) * 1000)
        print(f"{name:<44}{statistics.median(found):>9.1f}{f'{budget} ms':>18}")


def supper(tight: bool) -> Supper:
    """Return a day of about 40 steps: four joints on one kettle and two sides, with two pairs of hands.

    A tight one has the joints at two heats, and one pair of hands.
    """
    salt, serve_at = plain("table-salt/fine"), datetime(2026, 12, 5, 18, 0, tzinfo=UTC)
    pieces = []
    for nth, (letter, mass_g) in enumerate(zip("ABCD", (2300.0, 1900.0, 1500.0, 1200.0), strict=True)):
        layers = (Layer("pre-salt", salt, 0.8, 12 * 3600.0), Layer("rub", salt, 1.0, 3600.0))
        joint = Seasoned(letter, Piece("lamb-shoulder", mass_g), layers)
        phases = (Phase("indirect", 170.0 if tight and nth % 2 else 125.0, "grate", centre_c=88.0),)
        found = DayPiece(letter, joint, heated(joint, phases, [find_cooker("kettle", "indirect")]), ("kettle",))
        assert found.heat is not None
        pieces.append(found)
    oven = find_cooker("oven", "oven")
    sides = (Side("S1", "Bread", 20, 25, 15, "oven", oven, 230.0), Side("S2", "Roots", 60, 15, 30, "oven", oven, 210.0))
    return Supper(tuple(pieces), serve_at, asleep(serve_at), 1 if tight else 2, None, sides)


def asleep(serve_at: datetime) -> tuple[tuple[int, int], ...]:
    return nights(serve_at, find_zone("Europe/Berlin"), clock(23), clock(7))


def day() -> None:
    """Measure what planning a day takes of one core, and looking for ways out of what clashes in it."""
    easy, tight = supper(tight=False), supper(tight=True)
    steps = sum(len(lane.blocks) for lane in read_day(easy)[0].lanes)
    clashing = read_day(tight)[1]
    print(f"{f'day: {steps} blocks of six lanes':<44}{'cpu ms':>9}{'budget':>18}")

    def anew() -> None:
        """A plan that could be let go is searched for each time."""

    for name, act, budget in (
        ("planned, nothing clashes", lambda: plan_day(easy, going=anew), 200),
        (f"planned, {len(clashing.clashes)} clashes", lambda: plan_day(tight, going=anew), 1000),
        ("ways out", lambda: ways_out(tight, asleep, clashing, anew), 3000),
        ("start now", lambda: start_now(easy, easy.serve_at - timedelta(hours=30), asleep, anew), 3000),
    ):
        found = []
        for _ in range(3):
            start = time.process_time()
            act()
            found.append((time.process_time() - start) * 1000)
        print(f"{name:<44}{statistics.median(found):>9.0f}{f'{budget} ms':>18}")


WATCH = """() => {
  const target = [...document.querySelectorAll('.why')].find((b) => b.textContent.includes('Salt in the blend'))
  window.seen = null
  new MutationObserver(() => (window.seen = performance.now())).observe(target.parentElement, {
    subtree: true, characterData: true, childList: true,
  })
  document.addEventListener('input', () => (window.typed = performance.now()), true)
}"""


def screen(address: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**CHROMIUM)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/blend")
        page.get_by_role("link", name=re.compile("^Weir House lamb rub")).click()
        part = page.get_by_label("Parts of Flake sea salt")
        part.wait_for()
        page.evaluate(WATCH)
        found = []
        for n in range(EDITS):
            page.evaluate("() => (window.seen = null)")
            part.fill(str(2 + n % 7))
            page.wait_for_function("() => window.seen !== null")
            found.append(page.evaluate("() => window.seen - window.typed"))
            page.wait_for_timeout(120)
        found.sort()
        print(
            f"{'edit to new numbers on screen':<44}{statistics.median(found):>9.1f}{percentile(found, 0.95):>9.1f}",
            end="",
        )
        print(f"{'':>9}{'100 ms':>9}")
        browser.close()


def first_view() -> None:
    build = ROOT / "web/dist"
    manifest = json.loads((build.parent / "built.json").read_text())
    wanted, seen = ["index.html"], set()
    while wanted:
        key = wanted.pop()
        if key not in seen:
            seen.add(key)
            wanted += manifest[key].get("imports", [])
    size = sum(len(gzip.compress((build / manifest[key]["file"]).read_bytes())) for key in seen)
    print(f"first view's script, gzipped: {size / 1000:.0f} kB of 170 kB")


if __name__ == "__main__":
    with running() as served:
        answers(*served)
        screen(served.address)
    heat()
    day()
    first_view()
