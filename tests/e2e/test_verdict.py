"""Verdicts across cooks on the real interface: from a row to its evidence to the next trial; a card taken back."""

import re

from axe import check_with_axe
from hands import choose
from playwright.sync_api import Page, expect
from running import OWN_PAGE


def root(page: Page) -> str:
    return re.match(r"https?://[^/]+", page.url)[0]


def test_from_rows_to_the_evidence_to_the_next_trial_and_its_cook(page: Page):
    page.keyboard.press("6")
    expect(page.get_by_role("heading", name="Rubbed or marinated?")).to_be_visible()
    expect(page.get_by_text("20 cooks, 8 cuts, 126 cards")).to_be_visible()
    rows = page.get_by_role("region", name="Cut by cut").get_by_role("button", name=re.compile("cook"))
    expect(rows).to_have_count(8)
    answer = page.get_by_role("region", name="Duck legs: verdict")
    expect(answer).to_contain_text("Rubbed is better")
    expect(answer).to_contain_text("grains say rubbed, by half a point or more")
    rows.filter(has_text="Beef cheek").click()
    cheek = page.get_by_role("region", name="Beef cheek: verdict")
    expect(cheek).to_contain_text("No difference that matters")
    expect(cheek).to_contain_text("Take rubbed: it is ready")
    cheek.get_by_role("button", name="why: Difference, Beef cheek").click()
    expect(page.get_by_text("mixed model: cuts, cooks, tasters")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("radio", name="For a guest").check(force=True)
    expect(page).to_have_url(re.compile("who=guest"))

    # the evidence: every cook and card, who said what
    rows.filter(has_text="Leg of goat").click()
    goat = page.get_by_role("region", name="Leg of goat: verdict")
    expect(goat).to_contain_text("No cook of it differs in nothing else")
    goat.get_by_role("link", name="Open the evidence").click()
    evidence = page.get_by_role("region", name="Every cook and card")
    expect(evidence.get_by_role("link", name="Stop-plank supper, goat leg")).to_be_visible()
    evidence.get_by_role("button", name="Who said what").first.click()
    expect(evidence.get_by_text(re.compile("^[A-Z].+: rubbed [0-9]"))).not_to_have_count(0)
    expect(page.get_by_role("img", name="Leg of goat, how belief grew")).to_be_visible()
    check_with_axe(page)

    # decide, and take it back
    decide = page.get_by_role("region", name="Decide")
    decide.get_by_role("button", name="Write it down").click()
    expect(decide.get_by_role("alert")).to_contain_text("cannot be empty")
    decide.get_by_role("radio", name="Change").check(force=True)
    decide.get_by_label("Why").fill("as salty as the bath next time")
    decide.get_by_role("button", name="Write it down").click()
    expect(decide).to_contain_text("To be changed: rubbed as salty as the bath next time")
    decide.get_by_role("button", name="Take back").click()
    expect(decide.get_by_role("listitem")).to_have_count(0)

    # the next trial, with one tap
    try_next = page.get_by_role("region", name="Try next")
    try_next.get_by_role("button", name="Why this one").click()
    expect(try_next.get_by_role("table")).to_contain_text("1 evening")
    try_next.get_by_role("button", name="Set it up").click()
    expect(page.get_by_label("What is asked, in words")).to_have_value("Rubbed or marinated?")
    expect(page.get_by_role("radio", name="Scores")).to_be_checked()
    page.keyboard.press("0")
    expect(page.get_by_role("heading", name=re.compile("rubbed or marinated, Saturday"))).to_be_visible()


def test_a_verdict_changes_when_a_card_is_taken_back(page: Page):
    page.goto(f"{root(page)}/verdict/cut/trout-whole")
    answer = page.get_by_role("region", name="Whole trout: verdict")
    expect(answer).to_contain_text("here is 1 cook with 5 cards")
    before = answer.inner_text()
    page.get_by_role("link", name="Heron-bridge lunch, trout").click()
    page.get_by_role("link", name="To the table").click()
    choose(page, "Marigold", "Take back Marigold’s card")
    expect(page.get_by_text("Marigold’s card is taken back.")).to_be_visible()
    page.goto(f"{root(page)}/verdict/cut/trout-whole")
    expect(answer).to_contain_text("here is 1 cook with 4 cards")
    assert answer.inner_text() != before


def test_another_question_the_matrix_and_what_we_know(page: Page):
    page.goto(f"{root(page)}/verdict")
    matrix = page.get_by_role("region", name="All ways against each other")
    expect(matrix.get_by_role("table").get_by_role("button")).to_have_count(3)
    matrix.get_by_role("button", name=re.compile("Not yet known")).first.click()
    expect(page.get_by_role("heading", name="Rubbed or marinated and rubbed?")).to_be_visible()
    page.get_by_role("button", name="Another question").click()
    asked = page.get_by_role("dialog")
    check_with_axe(page)
    asked.get_by_role(
        "button", name=re.compile("Towpath duck rub or Soy and honey|Soy and honey bath or Towpath")
    ).click()
    expect(page.get_by_role("region", name="Duck legs: verdict")).to_contain_text("Towpath duck rub is better")
    with page.expect_download() as taken:
        page.get_by_role("button", name="SVG").first.click()
    assert taken.value.suggested_filename.endswith(".svg")
    drawn = taken.value.path().read_text()
    assert "Duck legs" in drawn
    assert len(re.findall(r"<circle|<rect", drawn)) > 20
    with page.expect_download() as taken:
        page.get_by_role("button", name="PNG").first.click()
    assert taken.value.path().read_bytes().startswith(b"\x89PNG")
    answer = page.request.get(f"{root(page)}{page.get_by_role('link', name='Verdict, Markdown').get_attribute('href')}")
    assert "Towpath duck rub is better" in answer.text()

    page.get_by_role("link", name="What we know").click()
    expect(page.get_by_text("Venison haunch: marinated is better.")).to_be_visible()
    salt = page.get_by_role("region", name="The salt this table likes")
    salt.get_by_role("button", name="Want it for Lock-side supper").click()
    expect(page.get_by_text("is what this table likes.")).to_be_visible()
    cooks = page.request.get(f"{root(page)}/api/verdicts/salt", headers=OWN_PAGE).json()
    assert cooks["wanted"] == [f"{round(cooks['salt']['liked']['value'], 1):g}"] * 2
