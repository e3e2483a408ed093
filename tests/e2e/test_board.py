"""Coat: two pieces of one joint, a rack whose thin end is too salty put right, and from the eaters to what to mix."""

import re

import pytest
from axe import check_with_axe
from hands import take
from playwright.sync_api import Page, expect
from test_phone import fits


def to_coat(page: Page) -> None:
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Coat").click()
    expect(page.get_by_role("region", name="Salt ledger")).to_be_visible()


def saved(page: Page) -> None:
    expect(page.get_by_role("status").first).to_have_text("Saved")


def choose_cut(page: Page, label: str, typed: str, name: str) -> None:
    box = page.get_by_role("combobox", name=f"Cut of piece {label}")
    box.fill(typed)
    page.get_by_role("option", name=re.compile(f"^{name}")).first.click()


def test_one_joint_becomes_two_arms_with_their_ledgers(page: Page):
    to_coat(page)
    page.get_by_role("button", name=re.compile("^B Marinated")).click()
    page.get_by_role("button", name="Take it off the board").click()
    page.get_by_role("button", name="Side by side").click()
    sides = page.get_by_role("region", name="Side by side")
    # the same joint in every way, before any meat is cut
    expect(sides.get_by_role("article")).to_have_count(6)
    way = sides.get_by_role("article").filter(has_text="Nothing but salt by weight")
    expect(way).to_contain_text("1.20 %")
    expect(way).to_contain_text("dry, but while it is cold water gathers on it")
    expect(sides.get_by_role("article").filter(has_text="Injected, then a bark")).to_contain_text(
        "A needle that was in"
    )
    check_with_axe(page)
    sides.get_by_text("With other blends than those on the board").click()
    take(sides.get_by_label("Marinade to season it with"), "Lock-keeper's goat yoghurt")
    bathed = sides.get_by_role("article").filter(has_text="Marinated, then rubbed")
    expect(bathed).to_contain_text("Lock-keeper's goat yoghurt")
    expect(sides.get_by_role("button", name="Take two of them")).to_be_disabled()
    bathed.get_by_role("checkbox").check()
    way.get_by_role("checkbox").check()
    sides.get_by_role("button", name="Make these two pieces").click()
    expect(page.get_by_role("button", name=re.compile("^A Marinated, then rubbed.*1.15 kg"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^B Plain.*1.20 %"))).to_be_visible()
    ledger = page.get_by_role("region", name="Salt ledger")
    expect(ledger.get_by_role("button", name="why: Salt on B")).to_contain_text("1.20 %")
    core = page.get_by_role("region", name="From crust to centre")
    expect(core.get_by_text("Twice the time")).to_be_visible()
    core.get_by_label("Time of the hold").fill("3600")
    expect(core).to_contain_text("at 1 h of")
    expect(core).to_contain_text("1.9 mm")

    # the bath goes over the rub, and takes most of it off; then back by one step
    layers = page.get_by_role("region", name="Layers, in order")
    rows = layers.locator("ol > li")
    before = ledger.get_by_role("button", name="why: Salt on A").inner_text().split("%")[0]
    rows.nth(1).get_by_role("button", name=re.compile("outwards$")).click()
    expect(rows.nth(1)).to_contain_text("rub ·")
    expect(ledger.get_by_role("button", name="why: Salt on A")).not_to_contain_text(before)
    page.get_by_role("button", name="Undo").first.click()
    expect(rows.nth(1)).to_contain_text("marinade ·")
    expect(ledger.get_by_role("button", name="why: Salt on A")).to_contain_text(before)

    # the stack is kept under a name and put on the other piece
    layers.get_by_role("button", name="Ways").click()
    layers.get_by_label("Keep this way as").fill("Bath, wipe, light rub")
    layers.get_by_role("button", name="Keep", exact=True).click()
    expect(layers.get_by_role("button", name="Delete Bath, wipe, light rub")).to_be_visible()
    page.get_by_role("button", name=re.compile("^B Plain")).click()
    layers.get_by_role("button", name="Ways").click()
    layers.get_by_role("button", name=re.compile("^Bath, wipe, light rub")).click()
    expect(rows).to_have_count(2)
    saved(page)
    page.reload()
    # two things done in a hurry: the layer goes on the way's stack, though that is still on its way
    page.get_by_role("button", name=re.compile("^B Plain")).click()
    late = []
    page.route("**/api/cooks/coat/way", lambda route: late.append(route), times=1)
    layers.get_by_role("button", name="Ways").click()
    with page.expect_request("**/api/cooks/coat/way"):
        layers.get_by_role("button", name=re.compile("^Mustard under the rub")).click()
    layers.get_by_role("button", name="Add a layer").click()
    take(layers.get_by_label("Kind of layer"), "finishing salt")
    take(layers.get_by_role("combobox", name="Of").last, "Flake sea salt")
    layers.get_by_role("button", name="Put it on").click()
    late[0].continue_()
    expect(rows).to_have_count(3)
    expect(rows.nth(0)).to_contain_text("finishing salt ·")
    saved(page)
    page.get_by_role("link", name="Ravska, home").first.click()
    expect(page.get_by_role("region", name="Piece B, Plain")).to_contain_text("then")


def test_a_rack_whose_thin_end_is_too_salty_is_put_right(page: Page):
    to_coat(page)
    choose_cut(page, "A", "loin rib", "Pork loin ribs")
    page.get_by_label("Raw weight").fill("900 g")
    piece = page.get_by_role("region", name="The piece")
    piece.get_by_role("button", name="membrane: bare").click()  # tapped on the drawing: coated over
    expect(piece.get_by_role("combobox", name=re.compile("^membrane"))).to_have_value(re.compile("^coated"))
    take(piece.get_by_role("combobox", name=re.compile("^membrane")), "off")
    ledger = page.get_by_role("region", name="Salt ledger")
    caution = page.get_by_text(re.compile("The thin end comes to|% salt is more than most people enjoy"))
    expect(caution.first).to_be_visible()
    # the target comes down, and the salt ahead of the rub gives way
    ledger.get_by_label("Salt wanted, %").fill("1.4")
    take(ledger.get_by_label("Gives way"), "rub, Weir House lamb rub")
    ledger.get_by_role("button", name="Meet 1.40 %").click()
    expect(ledger.get_by_role("button", name="why: Salt on A")).to_contain_text("1.40 %")
    expect(page.get_by_text("The thin end comes to")).to_have_count(0)
    ledger.get_by_role("slider", name="Salt wanted in all").focus()
    for _ in range(20):
        page.keyboard.press("ArrowLeft")
    expect(ledger.get_by_label("Salt wanted, %")).to_have_value("0.40")
    ledger.get_by_role("button", name="Meet 0.40 %").click()
    expect(page.get_by_text("already hold")).to_be_visible()  # a sentence, and nothing has changed
    expect(ledger.get_by_role("button", name="why: Salt on A")).to_contain_text("1.40 %")
    page.reload()
    expect(ledger.get_by_label("Salt wanted, %")).to_have_value("0.40")


def test_from_the_eaters_to_the_raw_weight_to_the_scale(page: Page):
    to_coat(page)
    piece = page.get_by_role("region", name="The piece")
    piece.get_by_role("button", name="Start from the eaters").click()
    piece.get_by_label("How many eat").fill("8")
    # by hand: 8 x 170 g / 0.62 / 0.82 = 2.68 kg, times 1.01: at two past suppers 79 and 126 % of a portion were eaten
    expect(piece).to_contain_text("2.70 kg")
    check_with_axe(page)
    piece.get_by_role("button", name="Take 2.70 kg").click()
    expect(page.get_by_label("Raw weight")).to_have_value("2.70 kg")
    expect(page.get_by_role("region", name="Salt ledger")).to_contain_text("8.1 of them")

    # cut into cubes it has far more surface; whole again by one undo
    piece.get_by_role("button", name="Grade, trim").click()
    piece.get_by_role("radio", name="cubes").check()
    expect(piece).to_contain_text(re.compile(r"5\.\d times"))
    page.get_by_role("button", name="Undo").first.click()
    expect(piece.get_by_text("times the surface")).to_have_count(0)

    # the coat is weighed back and becomes the cook's own
    layers = page.get_by_role("region", name="Layers, in order")
    layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).click()
    layers.get_by_role("button", name="Weigh back").click()
    back = layers.get_by_role("form", name="Weigh back")
    expect(back).to_contain_text("Weighed back 2 times")
    back.get_by_label("Taken").fill("60")
    back.get_by_label("Left over").fill("70")
    back.get_by_role("button", name="Note it").click()
    expect(back.get_by_role("alert")).to_contain_text("weighs less than what was taken")
    back.get_by_label("Left over").fill("30")
    back.get_by_role("button", name="Note it").click()
    expect(back).to_contain_text("Weighed back 3 times")
    back.get_by_role("button", name="Dose it so").click()
    saved(page)
    totals = page.get_by_role("region", name="What to mix for all of it")
    row = totals.locator(".total").filter(has_text="Weir House lamb rub").first
    row.get_by_role("button", name="Weigh it out").click()
    expect(page.get_by_role("region", name="All lines")).to_be_visible()
    expect(page.get_by_role("heading", level=1)).to_have_text("Weir House lamb rub")


class TestOnAPhone:
    def test_the_board_fits_a_phone(self, page: Page):
        page.set_viewport_size({"width": 390, "height": 844})
        to_coat(page)
        fits(page)
        page.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).click()
        page.get_by_role("button", name="Ways").click()
        page.get_by_role("button", name="Side by side").click()
        expect(page.get_by_role("article").first).to_be_visible()
        page.get_by_role("button", name="Grade, trim").click()
        fits(page)
        check_with_axe(page)


def test_coat_is_worked_by_keyboard_alone(page: Page):
    to_coat(page)
    layers = page.get_by_role("region", name="Layers, in order")
    rows = layers.locator("ol > li")
    ledger = page.get_by_role("region", name="Salt ledger")
    expect(rows.nth(0)).to_contain_text("glaze ·")
    layers.get_by_role("button", name="Move Lamb rub and honey glaze: arrow keys").focus()
    page.keyboard.press("ArrowDown")
    expect(rows.nth(0)).to_contain_text("rub ·")
    page.keyboard.press("Control+z")
    expect(rows.nth(0)).to_contain_text("glaze ·")
    # the row opens, its dose is typed, and the answer above follows
    layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub")).focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Tab")
    layers.get_by_label(re.compile("^Dose, g")).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("8")
    expect(ledger).to_contain_text("59 g of Weir House lamb rub")
    ledger.get_by_role("slider", name="Salt wanted in all").focus()
    for _ in range(6):
        page.keyboard.press("ArrowLeft")
    expect(ledger.get_by_label("Salt wanted, %")).to_have_value("1.20")
    ledger.get_by_role("button", name="Meet 1.20 %").focus()
    page.keyboard.press("Enter")
    expect(ledger.get_by_role("button", name="why: Salt on A")).to_contain_text("1.20 %")
    saved(page)


class TestByTouch:
    @pytest.fixture
    def browser_context_args(self):
        return {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}

    def test_layers_are_dragged_by_a_finger_and_the_page_is_jumped_through(self, page: Page):
        to_coat(page)
        rows = page.get_by_role("region", name="Layers, in order").locator("ol > li")
        expect(rows.nth(0)).to_contain_text("glaze ·")
        page.get_by_role("button", name="Layers", exact=True).tap()
        first, last = (rows.nth(n).locator(".band") for n in (0, 2))
        expect(first).to_be_in_viewport()
        start, end = first.bounding_box(), last.bounding_box()
        assert start is not None
        assert end is not None
        finger = page.context.new_cdp_session(page)

        def touch(kind: str, x: float, y: float) -> None:
            points = [] if kind == "touchEnd" else [{"x": x, "y": y}]
            finger.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

        x, y, below = start["x"] + 15, start["y"] + 20, end["y"] + end["height"] - 4
        touch("touchStart", x, y)
        page.wait_for_timeout(400)  # held, not swiped
        for step in range(1, 9):
            touch("touchMove", x, y + (below - y) * step / 8)
            page.wait_for_timeout(40)
        touch("touchEnd", x, below)
        expect(rows.nth(2)).to_contain_text("glaze ·")
        expect(rows.nth(0)).to_contain_text("rub ·")
        page.get_by_role("button", name="Depth", exact=True).tap()
        expect(page.get_by_role("region", name="From crust to centre")).to_be_in_viewport()


def test_what_is_in_hand_goes_on_and_is_said_to_be_so_heavy_a_coat(page: Page):
    to_coat(page)
    layers = page.get_by_role("region", name="Layers, in order")
    rub = layers.get_by_role("button", name=re.compile("^Weir House lamb rub rub"))
    dose = layers.get_by_role("textbox", name=re.compile("^Dose, g"))
    rub.click()
    dose.fill("30 g")
    # by hand: 30 g on 736 cm²
    expect(rub).to_contain_text("30 g, 4.08 g/100 cm²")
    expect(layers).to_contain_text("a standard coat")
    expect(page.get_by_role("button", name="why: Dose of the rub")).to_contain_text("30 g")
    dose.fill("3 spoons")
    expect(layers.get_by_role("alert")).to_have_text("Which spoon? Write 3 tsp or 3 tbsp.")
    expect(page.get_by_role("button", name="why: Dose of the rub")).to_contain_text("30 g")
    layers.get_by_role("button", name="all of this batch").first.click()
    expect(layers).to_contain_text("That is all of its batch of 60.0 g.")
    expect(layers).to_contain_text("44 g of it sticks")
    check_with_axe(page)
    saved(page)
    page.reload()
    expect(rub).to_contain_text("all of this batch, 8.16 g/100 cm²")
    # the dial goes on working
    rub.click()
    layers.get_by_role("radio", name="standard 5").check()
    expect(dose).to_have_value("5")
    expect(rub).to_contain_text("5 g/100 cm²")
    # the glaze is passed at the table instead: a serving of it counts, and the other sample gets none
    layers.get_by_role("button", name=re.compile("^Lamb rub and honey glaze glaze")).click()
    take(layers.get_by_label("It goes on as"), "at the table")
    expect(layers.get_by_role("button", name=re.compile("^Lamb rub and honey glaze at the table"))).to_be_visible()
    expect(layers).to_contain_text("30 g with each of 6.9 servings.")
    saved(page)
    page.get_by_role("link", name="Ravska, home").first.click()
    expect(page.get_by_role("region", name="Piece A, Rubbed")).to_contain_text("At the table")
    expect(page.get_by_text("Only A is eaten with Lamb rub and honey glaze")).to_be_visible()
