"""Jobs of a newcomer's own, from a recipe as it is said to the salt it makes: what is done is counted."""

import re

from axe import check_with_axe
from hands import take
from playwright.sync_api import Locator, Page, expect


class Hand:
    """Does what a cook does with one hand and counts it: a click, a field filled; a choice from a list is two."""

    def __init__(self, page: Page) -> None:
        self.page, self.actions = page, 0

    def click(self, what: Locator) -> None:
        self.actions += 1
        what.click()

    def fill(self, what: Locator, text: str) -> None:
        self.actions += 1
        what.fill(text)

    def take(self, box: Locator, choice: str) -> None:
        self.actions += 2
        take(box, choice)

    @property
    def layers(self) -> Locator:
        return self.page.get_by_role("region", name="Layers, in order")

    @property
    def ledger(self) -> Locator:
        return self.page.get_by_role("region", name="Salt ledger")

    def begin(self, name: str, cut: str, found: str, mass: str) -> None:
        """Begin a cook of one piece and go to its coat."""
        self.click(self.page.get_by_role("button", name="New cook"))
        new = self.page.get_by_role("dialog", name="New cook")
        self.fill(new.get_by_label("What is it called"), name)
        self.fill(new.get_by_role("combobox", name="Cut of piece A"), cut)
        self.click(self.page.get_by_role("option", name=re.compile(f"^{found}")).first)
        self.fill(new.get_by_label("Raw weight"), mass)
        self.click(new.get_by_role("button", name="Begin"))
        expect(new).to_have_count(0)
        self.click(self.page.get_by_role("navigation", name="Stations").get_by_role("link", name="Coat"))
        expect(self.page.get_by_label("Name of the cook")).to_have_value(name)

    def recipe(self, said: str, called: str, dose: str) -> None:
        """Put on what is made of a recipe, as much of it as is said."""
        self.click(self.layers.get_by_role("button", name="Add a layer"))
        self.click(self.layers.get_by_role("button", name="From a recipe"))
        form = self.layers.get_by_role("form", name="A recipe")
        self.fill(form.get_by_label("The recipe, as it is said or written"), said)
        expect(form.get_by_label("Called")).to_have_value(called)
        self.click(form.get_by_role("button", name="Put it on"))
        # until it lies there, the field of the layer that was open before is the one that is seen
        row = self.layers.get_by_role("button", name=re.compile(f"^{called} ")).first
        expect(row).to_have_attribute("aria-expanded", "true")
        self.fill(self.layers.get_by_role("textbox", name=re.compile("^Dose")), dose)

    def choose(self, among: Locator, said: str) -> None:
        self.click(among.get_by_role("radio", name=said, exact=True))


def saved(page: Page) -> None:
    expect(page.get_by_role("status").first).to_have_text("Saved")


def test_a_goat_neck_with_its_pot_liquid_is_read_in_25_actions(page: Page):
    hand = Hand(page)
    hand.begin("Goat neck", "goat neck", "Goat neck", "1.4 kg")
    hand.recipe(
        "For the neck rub:\n2 tbsp ground cumin\n1 tbsp sea salt\n1 tbsp sweet paprika\n2 tsp garlic powder",
        "Neck rub", "30 g",
    )  # fmt: skip
    rub = hand.layers.get_by_role("listitem").filter(has_text="Neck rub")
    # by hand: of 12.6 + 15.9 + 6.9 + 6.2 g 15.5 are salt; 30 g x 0.3727 x 0.9 / 980 g edible
    expect(rub).to_contain_text("+1.03 %")
    hand.recipe(
        "For the goat pot:\n500 ml stock\n100 ml white wine\n1½ tsp table salt\n2 bay leaves", "Goat pot",
        "all of this batch",
    )  # fmt: skip
    hand.choose(hand.layers, "left in the pot")
    expect(hand.layers.get_by_role("button", name=re.compile("^Goat pot cooking liquid"))).to_be_visible()
    expect(hand.layers.get_by_label("At", exact=True)).to_have_attribute("placeholder", "90 °C")
    # the pot washes about half of the rub's salt off again, and that is left in it
    expect(rub).to_contain_text(re.compile(r"\+0\.[3-7]\d %"))
    expect(hand.ledger.get_by_role("button", name="why: Salt on A")).to_contain_text(re.compile(r"0\.[4-9]\d %"))
    expect(page.get_by_role("region", name="What to mix for all of it")).to_contain_text("Goat pot")
    saved(page)
    check_with_axe(page)
    assert hand.actions <= 25, hand.actions


def test_strips_of_veal_take_a_paste_by_its_whole_batch_and_a_glaze_at_the_board(page: Page):
    hand = Hand(page)
    hand.begin("Veal strips", "breast of veal", "Breast of veal", "1.8 kg")
    hand.click(page.get_by_role("button", name="Grade, trim, measures, cutting it up"))
    hand.choose(page.get_by_role("region", name="The piece"), "strips")
    hand.recipe(
        "Paste:\n3 tbsp mustard\n2 tbsp olive oil\n2 tsp salt\n1 tbsp thyme\n1 tsp black pepper", "Paste",
        "all of this batch",
    )  # fmt: skip
    expect(hand.layers).to_contain_text(re.compile(r"That is all of its batch of 8\d\.\d g\."))
    hand.recipe("Glaze:\n4 tbsp honey\n2 tbsp cider vinegar\n1 tbsp soy sauce", "Glaze", "60 g")
    hand.take(hand.layers.get_by_label("It goes on as"), "at the board")
    glaze = hand.layers.get_by_role("button", name=re.compile("^Glaze at the board"))
    expect(glaze).to_contain_text("60 g")
    # eaten beside the meat: no depth, all of it on the plate
    expect(hand.layers).to_contain_text("100 % on the plate beside it")
    saved(page)
    assert hand.actions <= 25, hand.actions


def test_four_breasts_of_unlike_weight_are_bathed_weighed_back_and_divided(page: Page):
    hand = Hand(page)
    hand.begin("Four breasts", "breast of lamb", "Breast of lamb", "620, 580, 710 and 640 g")
    each = page.get_by_role("table", name="Each piece by itself").get_by_role("row")
    expect(each).to_have_count(5)
    hand.recipe(
        "Verjuice bath:\n500 ml verjuice\n2 tbsp olive oil\n2 tbsp table salt\n1 tbsp rosemary",
        "Verjuice bath",
        "half of it",
    )
    bath = page.get_by_role("region", name="In the bath")
    hand.fill(bath.get_by_label("Set aside first, for a sauce"), "100 ml")
    totals = page.get_by_role("region", name="What to mix for all of it")
    expect(totals).to_contain_text(re.compile(r"Set 10\d g aside for later before any of it touches raw meat"))
    hand.choose(bath, "poured under it")
    expect(hand.layers.get_by_role("button", name="What is left of the bath", exact=False).first).to_be_visible()

    # the least certain salt becomes the best known, by a meter in what is left
    hand.click(hand.layers.get_by_role("button", name="Weigh back"))
    back = hand.layers.get_by_role("group", name="Weigh the bath back")
    hand.fill(back.get_by_label("Bath used"), "500 g")
    hand.fill(back.get_by_label("Piece after"), "heavy")
    expect(back.get_by_role("alert")).to_contain_text("no weight I can read")
    hand.fill(back.get_by_label("Piece after"), "2.61 kg")
    hand.fill(back.get_by_label("Its salt then, %"), "4.5")
    expect(back).to_contain_text(re.compile(r"0\.\d\d times as much salt goes in as is reckoned, by the meter"))
    check_with_axe(page)
    saved(page)

    # two of the four are cooked another day
    hand.click(page.get_by_role("button", name="Divide it"))
    part = page.get_by_role("dialog", name="Divide it")
    expect(part.get_by_label("Take off it")).to_be_focused()
    hand.fill(part.get_by_label("Take off it"), "5 kg")
    hand.click(part.get_by_role("button", name="Divide", exact=True))
    expect(part.get_by_role("alert")).to_contain_text("The whole piece weighs 2550 g")
    hand.fill(part.get_by_label("Take off it"), "580 and 710 g")
    hand.choose(part, "cooked another day")
    check_with_axe(page)
    hand.click(part.get_by_role("button", name="Divide", exact=True))
    expect(part).to_have_count(0)
    expect(page.get_by_label("Raw weight")).to_have_value("620 and 640 g")
    expect(each).to_have_count(3)
    expect(page.get_by_text("is a cook of its own now")).to_be_visible()
