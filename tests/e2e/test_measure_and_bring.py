"""From the formula to the bowl and back: weigh-out with a scale, a pasted list, a bought blend's label, a taste."""

import re
import subprocess
import sys
from pathlib import Path

import pytest
from axe import check_with_axe
from hands import sits_down
from playwright.sync_api import Page, expect
from running import OWN_PAGE
from test_phone import fits

MANAGE = [sys.executable, str(Path(__file__).resolve().parents[2] / "server/manage.py")]
DUCK = re.compile("^Towpath duck rub dry rub")


@pytest.fixture
def scale(page: Page, ravska):
    """The simulated scale's hands."""

    class Hands:
        def handle(self, do: str, grams: float = 0.0, seconds: float = 0.0) -> None:
            data = {"do": do, "grams": grams, "seconds": seconds}
            assert page.request.post(f"{ravska.url}/api/devices/scale/simulated/handle", data=data, headers=OWN_PAGE).ok

        def put(self, grams: float) -> None:
            self.handle("put", grams)

    # a device of its own, as `make scale` starts it: it goes on when the server is lost
    device = subprocess.Popen([*MANAGE, "scale", "--server", ravska.url], env=ravska.env, stdout=subprocess.DEVNULL)
    yield Hands()
    device.terminate()
    device.wait()


def to_blends(page: Page) -> None:
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Blend").click()


def settled(page: Page, says: str) -> None:
    dial = page.get_by_role("region", name="On the scale now")
    expect(dial).to_contain_text(says)
    expect(dial).to_contain_text("settled")


def test_a_batch_is_weighed_out_with_an_overshoot_put_right_and_outlives_reload_scale_and_server(
    page: Page, ravska, scale
):
    to_blends(page)
    page.get_by_role("link", name=re.compile("^Cumin and sumac goat rub dry rub")).click()
    page.get_by_role("radio", name="Measure").check()
    expect(page.get_by_role("region", name="Measure it")).to_contain_text("Rounding is worst at")
    page.get_by_role("button", name="Weigh it out").click()
    expect(page.get_by_role("region", name="All lines")).to_contain_text("/ 35.9 g")
    expect(page.get_by_role("region", name="On the scale now")).to_contain_text("kitchen scale")
    check_with_axe(page)

    # the bowl goes on and is tared away; 35.9 g of salt by hand: 2 x 1.014 of 3.963 in 70 g
    scale.put(412)
    settled(page, "g too much")
    page.get_by_role("button", name="Tare").click()
    settled(page, "g to go")
    scale.put(20)
    settled(page, "15.9 g to go")
    page.reload()  # what lies on the scale is still there
    settled(page, "15.9 g to go")
    scale.put(15.9)
    settled(page, "There. Stop.")
    page.get_by_role("button", name="Next: cumin, ground").click()
    settled(page, "11.3 g to go")

    # the server dies and comes back: the salt is in the book, the scale connects again by itself
    scale.put(5)
    settled(page, "6.3 g to go")
    ravska.lose()
    expect(page.get_by_role("alert")).to_contain_text("does not answer")
    ravska.start()
    settled(page, "6.3 g to go")
    expect(page.get_by_role("region", name="All lines")).to_contain_text("35.9 / 35.9 g")

    # the link is lost: the rest goes by hand
    scale.handle("drop out", seconds=4)
    expect(page.get_by_role("region", name="On the scale now")).to_contain_text("silent")
    page.get_by_label("Weighed elsewhere, or read off the display").fill("4.0 g")
    page.get_by_role("button", name="Note it").click()
    expect(page.get_by_role("region", name="All lines")).to_contain_text("4.0 / 11.3 g")
    settled(page, "2.3 g to go")  # the scale is back and still holds the 5 g

    # too much goes in: put right by scaling up, and then what is short comes first
    scale.put(6)
    settled(page, "3.7 g too much")
    page.get_by_role("button", name="Too much: put it right").click()
    ways = page.get_by_role("region", name="Put it right")
    expect(ways).to_contain_text("three ways out")
    expect(ways).to_contain_text(re.compile(r"Make 9\d g instead of 70 g: add 1[12]\.\d g kosher salt"))
    check_with_axe(page)
    page.get_by_role("button", name=re.compile("^Scale the batch up")).click()
    expect(page.get_by_role("region", name="On the scale now")).to_contain_text("kosher salt")
    settled(page, "g to go")
    to_go = page.get_by_role("region", name="On the scale now").inner_text()
    scale.put(float(re.search(r"([\d.]+) g to go", to_go)[1]))
    settled(page, "There. Stop.")
    page.get_by_role("button", name="Next: sumac, coarse").click()

    # and once more too much, spooned out while it lies on top
    settled(page, "g to go")
    short = float(re.search(r"([\d.]+) g to go", page.get_by_role("region", name="On the scale now").inner_text())[1])
    scale.put(short + 4)
    settled(page, "4.0 g too much")
    page.get_by_role("button", name="Too much: put it right").click()
    page.get_by_role("button", name=re.compile("^Spoon it out")).click()
    settled(page, "Take 4.0 g of it out")
    scale.put(-4)
    settled(page, "Take 0.0 g of it out")
    page.get_by_role("button", name="It is out").click()

    page.get_by_role("button", name="By hand").click()
    for name in ("dried oregano", "chilli flakes", "dried garlic"):  # off another scale
        dial = page.get_by_role("region", name="On the scale now")
        expect(dial).to_contain_text(name)
        grams = re.search(r"of ([\d.]+) g", dial.inner_text())[1]
        page.get_by_label("Weighed elsewhere, or read off the display").fill(grams)
        page.get_by_role("button", name="Note it").click()
        expect(page.get_by_role("region", name="All lines")).to_contain_text(f"{grams} / {grams} g")
    expect(page.get_by_text("as it was really weighed")).to_be_visible()
    page.get_by_role("button", name="Put it on the shelf").click()
    page.get_by_role("button", name="needs heat").click()
    expect(page.get_by_role("region", name="Taste and correct")).to_contain_text("heat")
    page.get_by_role("button", name="It is in").first.click()
    expect(page.get_by_role("region", name="All lines")).to_contain_text(re.compile("In the bowl 9\\d"))
    check_with_axe(page)
    page.get_by_role("link", name="To the shelf").click()
    expect(page.get_by_role("link", name="Cumin and sumac goat rub")).to_have_count(2)  # this one and the demo's
    check_with_axe(page)


def test_a_pasted_list_becomes_a_blend_once_nothing_is_asked_any_more(page: Page):
    to_blends(page)
    page.get_by_role("link", name="Bring one in").click()
    page.get_by_label("The list, as it is said or written").fill(
        "For the quay:\n2 tbsp smoked paprika\n1½ tsp black pepper, cracked\n1 tbsp papirka\nsalt to taste\n"
        "a small handful of thyme\n2 tsp unicorn dust"
    )
    read = page.get_by_role("region", name="What was understood")
    expect(read).to_contain_text("smoked paprika, powder")
    expect(page.get_by_text("3 questions left")).to_be_visible()
    check_with_axe(page)
    read.get_by_role("button", name="sweet paprika, powder").click()
    expect(page.get_by_text("2 questions left")).to_be_visible()
    read.get_by_label("How much table salt, fine").fill("heaps")
    read.get_by_role("button", name="Set", exact=True).click()
    expect(read.get_by_role("alert")).to_contain_text("no amount I can read")
    read.get_by_label("How much table salt, fine").fill("2 tsp")
    read.get_by_role("button", name="Set", exact=True).click()
    expect(page.get_by_text("1 question left")).to_be_visible()
    read.get_by_role("listitem").filter(has_text="unicorn dust").get_by_role("button", name="Leave out").click()
    expect(page.get_by_text("5 lines,")).to_be_visible()
    page.reload()  # the text is still there
    expect(page.get_by_text("3 questions left")).to_be_visible()
    # one answer is late: it comes after those to the questions asked since, and changes nothing any more
    late = []
    page.route("**/api/blends/bring", lambda route: late.append(route), times=1)
    with page.expect_request("**/api/blends/bring"):
        read.get_by_role("button", name="sweet paprika, powder").click()
    read.get_by_label("How much table salt, fine").fill("2 tsp")
    read.get_by_role("button", name="Set", exact=True).click()
    read.get_by_role("listitem").filter(has_text="unicorn dust").get_by_role("button", name="Leave out").click()
    expect(page.get_by_text("5 lines,")).to_be_visible()
    (route,) = late
    answer = page.request.post(route.request.url, data=route.request.post_data_json, headers=OWN_PAGE)
    assert answer.json()["asked"] == 2
    route.fulfill(response=answer)
    page.get_by_placeholder("Name of the blend").fill("Quay list")
    page.get_by_role("button", name="Make the blend").dblclick()  # in a hurry: it is made once
    expect(page.get_by_label("Name of the blend")).to_have_value("Quay list")
    # 2 tsp of salt at 6.0 g; by hand with US portions 6 x 2.3 + 1.5 x 2.7 + 3 x 2.3 + 12 + 5.07 x 1.0
    expect(page.get_by_label("Parts of Table salt, fine")).to_have_value("2")
    expect(page.get_by_text("“a small handful” ±40 %")).to_be_visible()
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text(re.compile(r"2\d\.\d % salt"))

    # a method, from the usual one to a strained and reduced one; then out as a file and in again
    page.get_by_role("button", name="Write the usual one").click()
    expect(page.get_by_label("Step 1 does")).to_have_value("Mix in")
    with page.expect_download() as download:
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_text("Take out as a recipe file").click()
    file = download.value.path().read_text()
    to_blends(page)
    expect(page.get_by_role("link", name=re.compile("^Quay list"))).to_have_count(1)
    page.get_by_role("link", name="Bring one in").click()
    page.get_by_label("The list, as it is said or written").fill(file)
    expect(page.get_by_text("5 lines,")).to_be_visible()
    expect(page.get_by_placeholder("Name of the blend")).to_have_value("Quay list")
    page.get_by_label("The list, as it is said or written").fill(file.replace('"name"', "name"))
    expect(page.get_by_role("alert")).to_contain_text(re.compile(r"Line \d, column \d"))


def tab_to(page: Page, name: str) -> None:
    """Go on with the Tab key until a button has the focus."""
    button = page.get_by_role("button", name=name, exact=True).first
    expect(button).to_be_visible()
    for _ in range(40):
        page.keyboard.press("Tab")
        if button.evaluate("it => it === document.activeElement"):
            return
    raise AssertionError(f"{name} is not reached by Tab")


def test_a_spoken_list_is_made_a_blend_with_its_two_questions_answered_by_keyboard(page: Page):
    to_blends(page)
    page.get_by_role("link", name="Bring one in").click()
    page.get_by_label("The list, as it is said or written").focus()
    spoken = ("two and a half tablespoons of kosher salt", "a cup and a quarter of brown sugar",
              "¼ cup butter or ghee", "2 tsp smoked papirka", "1 tsp each of cumin, thyme and oregano")  # fmt: skip
    for line in spoken:
        page.keyboard.type(line)
        page.keyboard.press("Enter")
    read = page.get_by_role("region", name="What was understood")
    # by hand: 2½ tbsp are 7.5 tsp of 5 g; 1¼ cups of 220 g packed
    expect(read).to_contain_text("37.5 g · 2½ tbsp")
    expect(read).to_contain_text("275 g · 1¼ cups")
    expect(page.get_by_text("2 questions left")).to_be_visible()
    expect(read.locator("mark")).to_have_text(["papirka"])
    check_with_axe(page)
    tab_to(page, "ghee, melted")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 question left")).to_be_visible()
    tab_to(page, "smoked paprika, powder")
    page.keyboard.press("Enter")
    expect(page.get_by_text("7 lines")).to_be_visible()
    expect(read).to_contain_text("or unsalted butter, melted: kept to swap")
    tab_to(page, "Make the blend")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Parts of Kosher salt, dense flake")).to_be_visible()
    expect(page.get_by_role("status").first).to_have_text("Saved")


def test_a_bought_blend_is_entered_from_its_label(page: Page):
    to_blends(page)
    page.get_by_role("link", name="From a label").click()
    page.get_by_label("Name").fill("Chandlery rub")
    page.get_by_label("A portion is").fill("1.2 g")
    page.get_by_label("Sodium in it").fill("900 mg")
    page.get_by_label("Ingredients, in the order").fill(
        "Salt, wizard root, sugar, garlic, contains 2 % or less of: silica"
    )
    expect(page.get_by_text("more sodium than pure salt holds")).to_be_visible()
    page.get_by_label("Sodium in it").fill("310 mg")
    expect(page.get_by_text("Choose what comes closest to “wizard root”.")).to_be_visible()
    check_with_axe(page)
    page.get_by_role("button", name="a spice nobody names").click()
    # 310 mg in 1.2 g: 0.305/1.25 x 0.8 to 0.315/1.15 x 1.2 of sodium, over 0.3934
    salt = page.get_by_role("button", name="why: Salt in the bought blend")
    expect(salt).to_contain_text(re.compile(r"49\.\d % to 8[0-5]\.\d %"))
    page.get_by_role("button", name="Keep it among the blends").click()
    expect(page.get_by_label("Name of the blend")).to_have_value("Chandlery rub")
    expect(page.get_by_text("Nobody knows its recipe: by the label it holds")).to_be_visible()
    page.get_by_label("Sodium in it").fill("250 mg")
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("52.9 %")
    expect(page.get_by_role("status").first).to_have_text("Saved")
    check_with_axe(page)
    # what it is used in carries the doubt
    to_blends(page)
    page.get_by_role("button", name="New rub").click()
    add = page.get_by_role("combobox", name="Add an ingredient")
    for typed, name in (("Chandlery", "Chandlery rub"), ("sweet paprika", "Sweet paprika, powder")):
        add.fill(typed)
        page.get_by_role("option", name=name).first.click()
        # the caret goes to its parts once it is in; who types on before that has the list close
        expect(page.get_by_label(f"Parts of {name}")).to_be_focused()
    page.get_by_role("button", name="why: Salt in the blend").click()
    expect(page.get_by_text("most of it from the label of Chandlery rub")).to_be_visible()


def test_a_handful_is_typed_and_a_pot_simmered_down_on_the_bench(page: Page):
    to_blends(page)
    page.get_by_role("link", name=re.compile("^Lamb rub and honey glaze glaze")).click()
    method = page.get_by_role("region", name="Method")
    expect(method).to_contain_text("240 g goes in")
    salt = page.get_by_role("button", name="why: Salt in the blend")
    before = salt.inner_text()
    method.get_by_label("Step 2: how far down").fill("by 10 %")
    expect(salt).not_to_have_text(before)
    method.get_by_label("Step 2: how far down").fill("by 80 %")
    expect(method.get_by_role("alert")).to_contain_text("simmer it down by at most")
    method.get_by_label("Step 2: how far down").fill("to half")
    expect(method.get_by_role("alert")).to_have_count(0)
    expect(method.get_by_role("status")).to_contain_text("151 g")
    method.get_by_label("Step 2: how far down").fill("by 20 %")
    expect(page.get_by_role("status").first).to_have_text("Saved")
    vinegar = page.get_by_label("Parts of Cider vinegar")
    vinegar.fill("small handful")
    expect(page.get_by_text("“small handful” ±40 %")).to_be_visible()
    expect(vinegar).to_have_value("1.69")


class TestOnAPhone:
    @pytest.fixture
    def browser_context_args(self):
        phone = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
        return phone | {"reduced_motion": "reduce"}

    def test_every_new_screen_fits_a_phone(self, page: Page):
        to_blends(page)
        page.get_by_role("link", name="Bring one in").click()
        page.get_by_label("The list, as it is said or written").fill("2 tbsp paprika\n1 tsp unicorn dust")
        expect(page.get_by_text("1 question left")).to_be_visible()
        fits(page)
        to_blends(page)
        page.get_by_role("link", name="From a label").click()
        page.get_by_label("A portion is").fill("1 g")
        page.get_by_label("Sodium in it").fill("230 mg")
        page.get_by_label("Ingredients, in the order").fill("salt, sugar, paprika")
        expect(page.get_by_text("most likely about")).to_be_visible()
        fits(page)
        to_blends(page)
        page.get_by_role("link", name=DUCK).click()
        page.get_by_role("radio", name="Measure").check()
        expect(page.get_by_text("Rounding is worst at")).to_be_visible()
        page.get_by_role("button", name="Write the usual one").click()
        expect(page.get_by_label("Step 1 does")).to_be_visible()
        fits(page)
        page.get_by_role("link", name="Go on weighing").click()
        expect(page.get_by_role("region", name="On the scale now")).to_contain_text("star anise")
        page.get_by_role("button", name="By hand").click()
        page.get_by_label("Weighed elsewhere, or read off the display").fill("9")
        page.get_by_role("button", name="Note it").click()
        expect(page.get_by_text("three ways out")).to_be_visible()
        check_with_axe(page)
        fits(page)
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Shelf").click()
        expect(page.get_by_text("is still being weighed")).to_be_visible()
        fits(page)
        # another one, opened without a scale and left: no jar; its first line goes in by spoons at a tap
        waiting = page.get_by_text("is still being weighed").count()
        to_blends(page)
        page.get_by_role("link", name=re.compile("^Weir House lamb rub")).click()
        page.get_by_role("radio", name="Measure").check()
        page.get_by_role("button", name="Weigh it out").click()
        dial = page.get_by_role("region", name="On the scale now")
        expect(dial).to_contain_text("2 tbsp + ¼ tsp")
        fits(page)
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Shelf").click()
        expect(page.get_by_text("is still being weighed")).to_have_count(waiting)
        page.go_back()
        page.get_by_role("button", name=re.compile("^2 tbsp . ¼ tsp is in. Next: dark muscovado")).click()
        expect(dial).to_contain_text("dark muscovado")
        # by hand: 60 g of the rub are 16.3 g of its salt
        expect(page.get_by_role("region", name="All lines")).to_contain_text("16.3 / 16.3 g")


PACKET = """Nutrition per 100 g
Energy 1200 kJ
Fat 5,0 g
Carbohydrate 45 g
of which sugars 30 g
Protein 8,0 g
Salt 12,0 g"""


def test_what_is_not_in_the_catalogue_is_made_ones_own_and_salts_a_piece(page: Page):
    to_blends(page)
    page.get_by_role("button", name="New rub").click()
    page.get_by_label("Name of the blend").fill("Dust rub")
    add = page.get_by_role("combobox", name="Add an ingredient")
    add.fill("2 tbsp chandlery dust")
    page.get_by_text("Make it an ingredient of your own").click()
    own = page.get_by_role("dialog", name="An ingredient of your own")
    expect(own.get_by_label("Its name")).to_have_value("chandlery dust")
    expect(own.get_by_label("Its name")).to_be_focused()  # until then what is typed elsewhere would go there
    own.get_by_label("Paste what the packet prints").fill(PACKET)
    own.get_by_label("It weighs").fill("9 g")
    expect(own.get_by_label("or salt")).to_have_value("12.0 g")
    # by hand: 12 % salt; 100 − 12 − 45 − 5 − 8 leaves 30 % water; 9 g in 14.79 ml
    expect(own.get_by_role("status").last).to_contain_text("12.0 % salt")
    expect(own.get_by_role("status").last).to_contain_text("0.61 g/ml")
    check_with_axe(page)
    own.get_by_role("button", name="Put it in the catalogue").click()
    # 2 tbsp of it are 18 g, and the batch is just that
    expect(page.get_by_label("Parts of chandlery dust")).to_have_value("2")
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("12.0 % salt")
    expect(page.get_by_role("status").first).to_have_text("Saved")

    page.get_by_role("link", name="Ravska").first.click()
    page.get_by_role("button", name="New cook").click()
    page.get_by_role("combobox", name="Cut of piece A").fill("lamb shoulder")
    page.get_by_role("option", name="Lamb shoulder, boned").click()
    page.get_by_label("Raw weight").first.fill("about 3 pounds")
    page.get_by_role("combobox", name="Blend of piece A").fill("Dust rub")
    page.get_by_role("option", name="Dust rub").click()
    page.get_by_label("What is it called").fill("Dust on the quay")
    sits_down(page, "2027", "June", "Saturday, June 12", "1 pm")
    page.get_by_role("button", name="Begin", exact=True).click()
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Coat").click()
    expect(page.get_by_role("combobox", name="Cut of piece A")).to_be_visible()
    # by hand: 5 g on each 100 of 518 cm² are 25.9 g with 12 % salt, and 90 % of that stays: 2.80 g in 1361 g
    expect(page.get_by_role("button", name="why: Salt on A")).to_contain_text("0.21 %")

    # the butcher rolled it: a cut of one's own, from where none is found
    page.get_by_role("combobox", name="Cut of piece A").fill("quay roll")
    page.get_by_text("make it a cut of your own").click()
    own = page.get_by_role("dialog", name="A cut of your own")
    expect(own.get_by_label("Its name")).to_have_value("quay roll")
    own.get_by_role("combobox", name="Nearest cut").fill("lamb shoulder boned")
    page.get_by_role("option", name="Lamb shoulder, boned").click()
    own.get_by_role("radio", name="log").check()
    own.get_by_label("Length of one").fill("20 cm")
    own.get_by_label("Width").fill("10 cm")
    own.get_by_label("Thickness").fill("10 cm")
    own.get_by_label("It weighed").fill("1665 g")
    # by hand: pi d l + pi d^2 / 2
    expect(own.get_by_role("status")).to_contain_text("785 cm²")
    check_with_axe(page)
    own.get_by_role("button", name="Put it in the catalogue").click()
    expect(page.get_by_role("combobox", name="Cut of piece A")).to_have_value("quay roll")
    # (1361 / 1665)^(2/3) of 785 cm², but for 12 % of fat, are 604 cm²: 30.2 g of the rub, and 3.26 g salt in 1361 g
    expect(page.get_by_role("button", name="why: Salt on A")).to_contain_text("0.24 %")
