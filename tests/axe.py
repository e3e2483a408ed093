"""Accessibility of a screen as it stands, by axe-core."""

from pathlib import Path

from playwright.sync_api import Page

AXE = Path(__file__).resolve().parents[1] / "web/node_modules/axe-core/axe.min.js"


def check_with_axe(page: Page) -> None:
    """Fail on anything serious that axe finds on the screen as it stands."""
    page.evaluate(AXE.read_text())  # evaluated, as the page's own policy lets no script in
    found = page.evaluate("async () => (await axe.run(document, { resultTypes: ['violations'] })).violations")
    serious = [
        f"{v['id']}: {v['help']}: {[n['html'][:160] for n in v['nodes'][:3]]}"
        for v in found
        if v["impact"] in ("serious", "critical")
    ]
    assert serious == [], "\n".join(serious)
