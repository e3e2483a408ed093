"""The bench's jobs on the real interface: from nothing by keyboard, aimed, adapted, branched, compared, nested."""

import re

from axe import check_with_axe
from hands import choose, take
from playwright.sync_api import Page, expect


def open_blend(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Blend").click()
    page.get_by_role("link", name=re.compile(f"^{name} (dry rub|glaze)")).click()
    expect(page.get_by_label("Name of the blend")).to_have_value(name)


def saved(page: Page) -> None:
    expect(page.get_by_role("status").first).to_have_text("Saved")


def test_keyboard_alone_builds_a_blend_from_nothing(page: Page):
    page.keyboard.press("1")
    page.get_by_role("button", name="New rub").focus()
    page.keyboard.press("Enter")
    add = page.get_by_role("combobox", name="Add an ingredient")
    expect(add).to_be_visible()
    check_with_axe(page)
    add.focus()
    for words, parts in (("table salt", "2"), ("black pepper ground", "1 1/2"), ("cumin ground", "1/4")):
        page.keyboard.type(words)
        expect(page.get_by_role("option", name=re.compile(f"^{words.split()[0]}", re.I)).first).to_be_visible()
        page.keyboard.press("Enter")
        expect(page.locator("input.parts").last).to_be_focused()
        page.keyboard.type(parts)
        page.keyboard.press("Enter")  # on to the next line
        expect(add).to_be_focused()
    # 2 tsp of salt at 6.0 g, 1.5 of pepper at 2.3, a quarter of cumin at 2.1: 98.5 % of 12 in 15.975
    salt = page.get_by_role("button", name="why: Salt in the blend")
    expect(salt).to_contain_text("74.0 % salt")
    pepper = page.get_by_label("Parts of Black pepper, ground")
    pepper.focus()
    page.keyboard.press("ArrowUp")
    expect(pepper).to_have_value("1¾")
    page.keyboard.press("Alt+ArrowUp")
    expect(page.locator("input.parts").first).to_have_value("1¾")
    expect(pepper).to_be_focused()
    expect(salt).to_contain_text("71.4 % salt")  # 98.5 % of 12 in 4.025 + 12 + 0.525
    border = page.get_by_role("slider", name="Border between Black pepper, ground and Table salt, fine")
    before = float(border.get_attribute("aria-valuenow") or 0)
    border.focus()
    page.keyboard.press("ArrowRight")
    expect(border).to_have_attribute("aria-valuenow", re.compile(rf"{before + 1:.0f}|{before + 1:.1f}"))
    page.keyboard.press("Control+z")
    expect(pepper).to_have_value("1¾")
    saved(page)
    page.keyboard.press("Control+Shift+z")
    expect(pepper).not_to_have_value("1¾")
    saved(page)


def test_a_blend_is_aimed_and_the_difference_shown_before_it_is_taken(page: Page):
    open_blend(page, "Weir House lamb rub")
    page.get_by_role("button", name="Lock of Orange zest, grated: free").click()
    page.get_by_role("button", name="Aim it").click()
    page.get_by_label("At least salt").fill("22")
    page.get_by_label("At most salt").fill("22")
    nearest = page.get_by_role("region", name="The nearest blend")
    expect(nearest).to_contain_text("salt 26 → 22 %")
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("26.4 % salt")
    check_with_axe(page)

    # what cannot be is said in words, with the closest that can be had
    page.get_by_label("At least smoke").fill("5")
    expect(nearest).to_contain_text("No line of this blend brings any smoke; add one that does.")
    expect(nearest.get_by_role("button", name="Take the closest")).to_be_visible()
    page.get_by_label("At least smoke").fill("")
    page.get_by_label("At least sugar").fill("lots")
    expect(page.get_by_role("alert").first).to_contain_text("Write a target as a number")
    page.get_by_label("At least sugar").fill("")

    expect(nearest.get_by_role("button", name="Take it")).to_be_visible()
    nearest.get_by_role("button", name="Take it").click()
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("22.0 % salt")
    expect(page.get_by_role("button", name="why: Share of Orange zest, grated")).to_contain_text("3.92 %")
    saved(page)
    page.reload()
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("22.0 % salt")
    page.get_by_role("button", name="Aim it").click()
    expect(nearest).to_contain_text("Every target is met already.")


def test_a_blend_is_adapted_to_a_meat_and_a_fire_as_a_branch(page: Page):
    open_blend(page, "Weir House lamb rub")
    page.get_by_role("radio", name="Adapt").check()
    page.get_by_role("radio", name="beef").check()
    page.get_by_role("radio", name="hot iron").check()
    proposal = page.get_by_role("region", name="Adapted for beef, over hot iron")
    expect(proposal).to_contain_text("black pepper: cracked → ground")
    expect(proposal).to_contain_text("coarse grains fall off hot iron and hold the meat off it")
    expect(proposal).to_contain_text("sugar burns bitter past about 165 °C")
    expect(proposal).to_contain_text("smoked paprika in sweet paprika’s place")
    check_with_axe(page)
    # one change is not wanted
    proposal.get_by_role("checkbox", name=re.compile("smoked paprika in")).uncheck()
    expect(proposal).not_to_contain_text("smoke 0 →")
    proposal.get_by_role("button", name="As a branch").click()
    expect(page.get_by_label("Name of the blend")).to_have_value("Weir House lamb rub, for beef, over hot iron")
    expect(page.get_by_label("Parts of Black pepper, ground")).to_be_visible()
    expect(page.get_by_label("Parts of Sweet paprika, powder")).to_be_visible()
    expect(page.get_by_label("Fire it is meant for")).to_have_value("for hot iron")
    # the one it came from is as it was
    open_blend(page, "Weir House lamb rub")
    expect(page.get_by_label("Parts of Black pepper, cracked")).to_have_value("3")


def test_revisions_are_kept_compared_and_gone_back_to(page: Page):
    open_blend(page, "Weir House lamb rub")
    tree = page.get_by_role("region", name="How it got here")
    expect(tree.get_by_role("button")).to_have_count(5)
    page.get_by_label("Parts of Flake sea salt").fill("6")
    page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_label("Note, what you changed and why").fill("saltier for the goat")
    page.get_by_role("button", name="Keep", exact=True).last.click()
    expect(page.get_by_text("Kept as revision 5.")).to_be_visible()
    expect(tree.get_by_role("button", name=re.compile("5, now saltier for the goat"))).to_be_visible()

    tree.get_by_role("button", name=re.compile("^2 cumin shouted")).click()
    revision = page.get_by_role("region", name="Revision 2")
    expect(revision).to_contain_text("black pepper, ground → cracked")
    expect(revision).to_contain_text("orange zest in")
    expect(revision.get_by_role("img")).to_have_count(2)
    check_with_axe(page)
    revision.get_by_role("button", name="Go on from here").click()
    expect(page.get_by_label("Parts of Black pepper, ground")).to_have_value("2")
    expect(page.get_by_text("working draft after revision 2")).to_be_visible()

    # a branch goes on by itself
    page.get_by_role("button", name="Branch", exact=True).click()
    page.get_by_label("Name of the branch").fill("Weir House rub for hare")
    page.get_by_role("button", name="Branch", exact=True).last.click()
    expect(page.get_by_label("Name of the blend")).to_have_value("Weir House rub for hare")
    page.get_by_label("Parts of Sweet paprika, powder").fill("4")
    saved(page)
    expect(page.get_by_text("Revision 2").or_(page.get_by_text("Weir House lamb rub, 2")).first).to_be_visible()
    open_blend(page, "Weir House lamb rub")
    expect(page.get_by_label("Parts of Sweet paprika, powder")).to_have_value("2½")
    expect(tree.get_by_role("button", name=re.compile("Weir House rub for hare, draft"))).to_be_visible()


def test_blends_nest_and_what_happens_to_them_elsewhere_is_said_at_their_line(page: Page):
    open_blend(page, "Lamb rub and honey glaze")
    expect(page.get_by_role("button", name="why: Share of Weir House lamb rub, a blend")).to_contain_text("5.61 %")
    glaze = page.url

    # a circle is refused with its path
    open_blend(page, "Weir House lamb rub")
    add = page.get_by_role("combobox", name="Add an ingredient")
    add.fill("honey glaze")
    page.get_by_role("option", name=re.compile("Lamb rub and honey glaze")).click()
    expect(page.get_by_role("alert")).to_contain_text(
        "“Weir House lamb rub” → “Lamb rub and honey glaze” → “Weir House lamb rub”"
    )

    other = page.context.new_page()
    other.goto(glaze)
    line = other.get_by_label("Parts of Weir House lamb rub, a blend")
    expect(line).to_have_value("1")
    page.get_by_label("Parts of Flake sea salt").fill("8")
    saved(page)
    other.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(
        other.get_by_text("“Weir House lamb rub” was changed meanwhile; the numbers here follow it.")
    ).to_be_visible()
    other.get_by_role("button", name="All right").click()

    page.goto(glaze.rsplit("/", 1)[0])
    choose(page, "Weir House lamb rub", "Delete Weir House lamb rub")
    expect(page.get_by_text("Weir House lamb rub is deleted.")).to_be_visible()
    other.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(other.get_by_text("“Weir House lamb rub” was deleted; its lines still count here.")).to_be_visible()
    check_with_axe(other)
    other.get_by_role("button", name="Unfold its lines here").click()
    expect(other.get_by_label("Parts of Flake sea salt")).to_be_visible()
    saved(other)


def test_numbers_can_be_percent_or_relative_and_a_crystal_asks_spoons_or_grams(page: Page):
    open_blend(page, "Towpath duck rub")
    page.get_by_role("radio", name="Percent").check()
    salt = page.get_by_label("Parts of Kosher salt, dense flake")
    expect(salt).to_have_value("48")
    salt.fill("40")
    expect(page.get_by_label("Parts of Dark muscovado, unpacked")).not_to_have_value("24")
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("39.6 % salt")
    # a percent that cannot be keeps its sentence and the last good numbers
    salt.fill("100")
    expect(page.get_by_role("alert")).to_contain_text("The total is fixed")
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("39.6 % salt")
    salt.fill("40")
    page.get_by_role("radio", name="Relative").check()
    expect(salt).to_have_value("1")
    take(page.get_by_label("Base line, which counts 1"), "Dark muscovado = 1")
    expect(page.get_by_label("Parts of Dark muscovado, unpacked")).to_have_value("1")
    expect(page.get_by_role("button", name="why: Salt in the blend")).to_contain_text("39.6 % salt")

    # a border is dragged: half way into its neighbour, which gives way, and nobody else moves
    border = page.get_by_role("slider", name=re.compile("^Border between Kosher salt"))
    strip = page.get_by_role("img", name=re.compile("^By mass")).first.bounding_box()
    grip = border.bounding_box()
    assert strip is not None
    assert grip is not None
    x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(1, 6):
        page.mouse.move(x - strip["width"] * 0.02 * step, y)
    page.mouse.up()
    expect(border).to_have_attribute("aria-valuenow", re.compile(r"^(29|30|31)"))
    expect(page.get_by_role("button", name="why: Share of Star anise, ground")).to_contain_text("9.23 %")
    page.keyboard.press("Control+z")
    expect(border).to_have_attribute("aria-valuenow", "40")

    open_blend(page, "Cumin and sumac goat rub")
    page.get_by_role("button", name="More for Kosher salt, dense flake").click()
    page.get_by_role("button", name=re.compile("^kosher salt, light flake")).click()
    ways = page.get_by_role("group", name=re.compile("same spoons or same grams"))
    expect(ways.get_by_role("button", name=re.compile("Same spoons.*salt"))).to_be_visible()
    ways.get_by_role("button", name=re.compile("Same grams")).click()
    # 2 spoons at 5.0 g are 3.57 at 2.8 g
    expect(page.get_by_label("Parts of Kosher salt, light flake")).to_have_value("3.57")
    saved(page)


def test_one_batch_is_shared_out_and_nudged(page: Page):
    open_blend(page, "Weir House lamb rub")
    page.get_by_role("button", name="Sweeter").click()
    expect(page.get_by_text(re.compile("sugar 19 → 2\\d %"))).to_be_visible()
    page.get_by_role("button", name="Undo", exact=True).last.click()
    expect(page.get_by_label("Parts of Dark muscovado, unpacked")).to_have_value("2")
    page.get_by_role("radio", name="Share").check()
    share = page.get_by_role("region", name="Share it out")
    share.get_by_role("button", name=re.compile("Lamb rub and honey glaze")).click()
    expect(share.get_by_role("status")).to_contain_text("46.5 g")
    share.get_by_label("Another use").fill("for the beans")
    share.get_by_label("Takes").fill("50 g")
    share.get_by_role("button", name="Add", exact=True).click()
    expect(share.get_by_role("status")).to_contain_text("3.5 g short")
    share.get_by_role("button", name="Mix 64.0 g").click()
    expect(share.get_by_role("status")).to_contain_text("0.54 g")
    check_with_axe(page)
    saved(page)


def test_lines_are_dragged_and_a_file_dropped_on_them_moves_nothing(page: Page):
    page.get_by_role("link", name="Blend ratio").click()
    page.get_by_role("link", name="Weir House lamb rub").first.click()
    parts = page.locator("input.parts")
    expect(parts).to_have_count(7)
    before = [box.get_attribute("aria-label") for box in parts.all()]
    page.evaluate(
        """() => {
             const given = new DataTransfer()
             given.items.add(new File(['2 tbsp salt'], 'rub.txt', { type: 'text/plain' }))
             const told = { bubbles: true, cancelable: true, dataTransfer: given }
             document.querySelectorAll('.line')[3].dispatchEvent(new DragEvent('drop', told))
           }"""
    )
    page.wait_for_timeout(300)
    assert [box.get_attribute("aria-label") for box in parts.all()] == before
    grips = page.locator(".line .who")
    start, end = grips.nth(0).bounding_box(), grips.nth(2).bounding_box()
    page.mouse.move(start["x"] + 40, start["y"] + 8)
    page.mouse.down()
    page.mouse.move(end["x"] + 40, end["y"] + 10, steps=12)
    page.mouse.move(end["x"] + 40, end["y"] + 18, steps=6)
    page.mouse.up()
    moved = [*before[1:3], before[0], *before[3:]]
    for at, label in enumerate(moved):
        expect(parts.nth(at)).to_have_attribute("aria-label", label)
    expect(page.get_by_text("Saved")).to_be_visible()
