"""A tasting on the real interface: designed, ranked on a phone, revealed; made clean; a paper round by keyboard."""

import re

from axe import check_with_axe
from hands import begin_card
from playwright.sync_api import Page, expect
from running import OWN_PAGE

BOATS = ("Kittiwake", "Marigold", "Tamarisk", "Halcyon")


def root(page: Page) -> str:
    return re.match(r"https?://[^/]+", page.url)[0]


def begun(page: Page, name: str, pieces: tuple[str, ...]) -> None:
    """Begin a cook with pieces that are not tasted yet."""
    at = root(page)
    document = {"name": name, "serve_at": "2027-09-04T18:00:00Z", "pieces": [
        {"name": piece, "cut": "duck-breast", "mass": "350 g", "blend_id": None, "tasted": at < 2}
        for at, piece in enumerate(pieces)]}  # fmt: skip
    answer = page.request.post(f"{at}/api/cooks", data=document, headers=OWN_PAGE)
    assert answer.status == 201, answer.text()


def test_a_ranking_of_three_by_four_tasters_from_design_to_reveal_on_a_phone(page: Page):
    page.set_viewport_size({"width": 390, "height": 844})
    begun(page, "Weir night", ("Rubbed", "Marinated", "Salted ahead"))
    page.goto(f"{root(page)}/table")
    page.get_by_role("link", name="Design").click()
    page.get_by_role("checkbox", name=re.compile("Salted ahead")).check()
    expect(page.get_by_role("radio", name="Ranking")).to_be_checked()
    page.get_by_label("What is asked, in words").fill("Rub, bath or salt?")
    page.get_by_label("Cards", exact=True).fill("4")
    for scale in ("Crust", "Tenderness", "Juiciness", "Meat flavour", "Salt"):
        page.get_by_role("checkbox", name=scale, exact=True).uncheck()
    expect(page.get_by_role("status").first).to_contain_text("Saved")
    check_with_axe(page)
    page.get_by_role("link", name="To the table").click()
    expect(page.get_by_text("nothing can be named, however they fall")).to_be_visible()

    # who tastes: everybody gets an order of their own
    page.get_by_role("button", name="Say who tastes").click()
    seats = page.get_by_role("dialog")
    for taster in BOATS:
        seats.get_by_role("checkbox", name=taster).check()
    seats.get_by_role("button", name="Seat these 4").click()
    rows = page.get_by_role("list").filter(has=page.get_by_text("waits")).get_by_role("listitem")
    expect(rows).to_have_count(4)
    check_with_axe(page)

    # the phone goes round, a question at a time: back, another order, and a reload lose nothing
    for at, taster in enumerate(BOATS):
        page.get_by_role("button", name="Hand the phone round").click()
        page.get_by_role("combobox", name="Who tastes?").fill(taster)
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Begin", exact=True).click()
        plates = page.get_by_role("group", name="Put them in order, the best first.")
        codes = sorted(re.findall(r"\d{3}", page.get_by_text(re.compile(r"^tastes \d{3}")).inner_text()))
        plates.get_by_role("button", name=codes[1], exact=True).click()
        if at == 0:
            page.get_by_role("button", name="Back", exact=True).click()
            page.get_by_role("button", name="Begin", exact=True).click()
            expect(plates.get_by_role("button", name=f"{codes[1]}, best")).to_be_visible()
        for code in (codes[0], codes[2]):
            plates.get_by_role("button", name=code, exact=True).click()
        if at == 1:  # alike: as good as the one before
            plates.get_by_role("button", name=f"{codes[2]}: as good as the one before").click()
            expect(plates.get_by_role("button", name=re.compile("2nd"))).to_have_count(2)
        for step in range(3):
            page.get_by_role("button", name="Next").click()
            expect(page.get_by_role("region", name=re.compile(r"^Plate \d{3}"))).to_have_count(1)
            if at == 0 and step == 0:
                check_with_axe(page)
                smoke = page.get_by_role("button", name=re.compile("^smoke, of"))
                smoke.click()
                page.get_by_label(re.compile(r"^overall of \d{3}: 3")).check()
                page.get_by_role("button", name="Undo").click()
                expect(page.get_by_label(re.compile(r"^overall of \d{3}: 3"))).not_to_be_checked()
                expect(smoke).to_have_attribute("aria-pressed", "true")
        page.get_by_role("button", name="Hand the card in").click()
        expect(page.get_by_text(re.compile(f"^{at + 1} of 4 cards"))).to_be_visible()

    # verdict: kept until the reveal; then plate by plate
    page.get_by_role("link", name="Reveal which is which").click()
    expect(page.get_by_text("Rubbed", exact=True)).to_have_count(0)
    page.get_by_role("button", name="Reveal, and turn the first plate").click()
    for _ in range(2):
        page.get_by_role("button", name="Turn the next").click()
    shown = page.get_by_role("list", name="The plates")
    for name in ("Rubbed", "Marinated", "Salted ahead"):
        expect(shown).to_contain_text(name)
    expect(shown.get_by_role("listitem").last).to_contain_text("Kittiwake")
    check_with_axe(page)
    page.get_by_role("link", name="What the cards say").click()
    verdict = page.get_by_role("region", name="Verdict")
    expect(verdict).to_contain_text("Rank sums of 4 cards")
    check_with_axe(page)


def test_a_confounded_trial_is_made_clean_by_one_tap(page: Page):
    page.goto(f"{root(page)}/table")
    page.get_by_role("link", name="Design").click()
    fair = page.get_by_role("region", name="Is it a fair test?")
    expect(fair).to_contain_text("Changes two things.")
    expect(fair).to_contain_text("Only A has Lamb rub and honey glaze")
    expect(fair).to_contain_text("A two-by-two answers both")
    check_with_axe(page)
    fair.get_by_role("button", name="Leave it off").click()
    expect(fair).not_to_contain_text("Changes two things.")
    fair.get_by_role("button", name="Even it out").click()
    expect(fair).to_contain_text("Fair so far.")
    # the glaze is off the piece in Coat too
    page.keyboard.press("2")
    expect(page.get_by_label("Name of the cook")).to_have_value("Lock-side supper")
    expect(page.get_by_role("button", name=re.compile("^Lamb rub and honey glaze"))).to_have_count(0)


def test_a_round_of_paper_cards_is_typed_in_by_keyboard_alone(page: Page):
    at = root(page)
    cooks = page.request.get(f"{at}/api/cooks").json()
    trial = next(row["trial"]["id"] for row in cooks if row["name"] == "Mackerel on the towpath")
    page.goto(f"{at}/table/{trial}/paper")
    expect(page.get_by_label("Whose card?")).to_be_focused()
    for taster, places in (("Tamarisk", "123"), ("Dabchick", "312")):
        page.keyboard.type(taster)
        page.keyboard.press("Enter")
        expect(page.get_by_label(re.compile(r"Place of \d{3}")).first).to_be_focused()
        for row, place in enumerate(places):
            for typed in (place, str(5 + row), "3"):
                page.keyboard.type(typed)
                page.keyboard.press("Enter")
        expect(page.get_by_text(f"In: {taster}")).to_be_visible()
        expect(page.get_by_label("Whose card?")).to_be_focused()
    # a wrong place says what it goes to, and keeps what was typed
    page.keyboard.type("Moonraker")
    page.keyboard.press("Enter")
    expect(page.get_by_label(re.compile(r"Place of \d{3}")).first).to_be_focused()
    for typed in ("7", "5", "3", "1", "5", "3", "2", "5", "3"):
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
    wrong = page.get_by_label(re.compile(r"Place of \d{3}")).first
    expect(wrong).to_have_attribute("aria-invalid", "true")
    check_with_axe(page)
    wrong.fill("3")
    page.get_by_role("button", name="Hand the card in").click()
    expect(page.get_by_text(re.compile("5 of 6 cards"))).to_be_visible()


def test_a_card_survives_a_reload_and_a_lost_server_and_counts_once(page: Page, ravska):
    page.goto(f"{root(page)}/table")
    served = begin_card(page, "Kittiwake")
    page.get_by_label(f"overall of {served[0]}: 7").check()
    page.reload()
    again = begin_card(page, "Kittiwake")
    assert again == served
    expect(page.get_by_label(f"overall of {served[0]}: 7")).to_be_checked()
    page.get_by_role("button", name=served[0], exact=True).first.click()
    ravska.lose()
    page.get_by_role("button", name="Hand the card in").click()
    expect(page.get_by_text("One card waits here for the server: Kittiwake.")).to_be_visible()
    ravska.start()
    expect(page.get_by_text("Kittiwake’s card is in.")).to_be_visible()
    page.reload()
    expect(page.get_by_text(re.compile("^1 of 12 cards is in"))).to_be_visible()


def test_a_childs_card_is_three_faces_for_each_plate(page: Page):
    page.goto(f"{root(page)}/table")
    served = begin_card(page, "Tadpole", child=True)
    for code, face in zip(served, ("yum", "no"), strict=True):
        page.get_by_role("radio", name=f"{code}: {face}").check()
    check_with_axe(page)
    page.get_by_role("button", name="Hand the card in").click()
    expect(page.get_by_text(re.compile("^1 of 12 cards is in"))).to_be_visible()
