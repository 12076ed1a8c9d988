"""In the yard at 390 px, with one thumb: a board recorded by quick survey in few taps, unknowns
stated.
"""

import re

from playwright.sync_api import Page, expect

from tests.browser.fields import choose
from tests.browser.test_newcomer import paste

PHONE = {"width": 390, "height": 844}


class Thumb:
    """Counts every tap."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.taps = 0

    def on(self, *names: str) -> None:
        for name in names:
            self.page.get_by_role("button", name=name, exact=True).click()
            self.taps += 1


def yard(page: Page) -> Thumb:
    page.set_viewport_size(PHONE)  # type: ignore[arg-type]
    page.goto("/")
    page.get_by_label("Start a new piece").fill("Bench")
    page.keyboard.press("Enter")
    paste(page, "Rail\t2\t34\t2 3/4\t13/16\tash")
    page.get_by_role("button", name="Add 1 part").click()
    expect(page.get_by_text("all saved")).to_be_visible()
    page.get_by_role("link", name="Next: buy").click()
    page.get_by_role("link", name="Next: boards").click()
    page.get_by_role("link", name="Record one in the yard").click()
    expect(page.get_by_role("heading", name="What is it?")).to_be_visible()
    return Thumb(page)


def test_a_board_recorded_in_at_most_25_taps(page: Page) -> None:
    thumb = yard(page)
    thumb.on("Next")  # ash and 4/4, as the list and the rack suggest
    thumb.on("9", "6", "Next", "7", "add ¼", "Next", "Not measured", "7", "Next")
    thumb.on("1", "add 1⁄16", "Next", "1", "Next")
    thumb.on("1/8", "none", "1/16")
    page.locator(".picture svg").click(position={"x": 150, "y": 30})
    thumb.taps += 1
    expect(page.locator(".fault")).to_have_count(1)
    thumb.on("Next")
    expect(page.get_by_text("flat, whole")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") == 390
    thumb.on("Put it in the rack")
    assert thumb.taps <= 25
    expect(page.get_by_text("all saved")).to_be_visible()
    project = page.url.split("/project/")[1].split("/")[0]
    board = page.request.get(f"/api/projects/{project}").json()["boards"][0]
    inch = 8128
    assert (board["id"], board["species"], board["quarter"], board["length"]) == (
        "B1",
        "ash",
        "4/4",
        96 * inch,
    )
    assert [s["y1"] / inch for s in board["stations"]] == [7.25, 7.125, 7] and board["note"] == ""
    assert board["warp"] == {"bow": inch // 8, "twist": 0, "cup": inch // 16}
    assert board["defects"][0]["kind"] == "tight-knot"


def test_what_was_not_measured_is_said_and_taken_with_caution(page: Page) -> None:
    thumb = yard(page)
    thumb.on("Next", "Next")
    expect(page.get_by_text("It needs a length")).to_be_visible()
    thumb.on("4", "8", "Next", "6", "Next", *["Not measured"] * 7)
    thumb.on("Next")
    expect(page.get_by_text("thickness not measured: taken as 15/16 in to 1 in")).to_be_visible()
    expect(page.get_by_text("twist not measured")).to_be_visible()
    thumb.on("Back", "Back", "none", "Next")
    expect(page.get_by_text("cup not measured")).to_be_hidden()
    thumb.on("Put it in the rack")
    expect(page.get_by_text("Before you cut it")).to_be_visible()


def test_cuts_are_tried_before_they_are_made(page: Page) -> None:
    thumb = yard(page)
    thumb.on(
        "Next",
        "9",
        "6",
        "Next",
        "6",
        "Next",
        "Not measured",
        "Not measured",
        "1",
        "Next",
        "1",
        "Next",
        "1/4",
        "none",
        "none",
    )
    thumb.on("Next", "Put it in the rack")
    survey = page.locator(".survey")
    expect(survey.locator(".piece")).to_have_count(1)
    whole = survey.locator(".piece .figure").inner_text()
    cut = page.get_by_label("Crosscut tried at")
    cut.focus()
    cut.press("End")
    for _ in range(4):
        cut.press("PageDown")  # back from the far end by tenths
    expect(survey.locator(".piece")).to_have_count(2)
    assert survey.locator(".piece .figure").first.inner_text() != whole
    before = cut.get_attribute("aria-valuenow")
    survey.locator("svg.board").click(position={"x": 120, "y": 12})
    assert cut.get_attribute("aria-valuenow") != before  # tapping the board tries the cut there
    want = survey.get_by_label("For a flat thickness of")
    want.fill("7/8")
    want.press("Enter")
    expect(survey.get_by_text("Crosscut at")).to_be_visible()
    expect(survey.get_by_text("Its cuttings make at least")).to_be_visible()
    for percent, day in (("15", "2026-03-01"), ("12", "2026-03-11")):
        page.get_by_label("Moisture, %").fill(percent)
        page.get_by_label("Read on").fill(day)
        page.get_by_label("Read on").press("Enter")
        page.get_by_role("button", name="Keep the reading").click()
        expect(page.get_by_text(f"{percent} % on {day}")).to_be_visible()
    expect(page.get_by_text("by its own two readings")).to_be_visible()
    expect(survey.get_by_text("Until then it shrinks in width by")).to_be_visible()


def test_answers_outlive_a_reload_the_phone_s_back_and_leaving(page: Page) -> None:
    thumb = yard(page)
    thumb.on("Next", "9", "6", "Next", "7", "add ¼", "Next")
    expect(page.get_by_role("heading", name="How wide in the middle?")).to_be_visible()
    page.go_back()  # to the question before, with its answer
    expect(page.get_by_role("heading", name="How wide at this end?")).to_be_visible()
    page.reload()
    expect(page.get_by_role("heading", name="How wide at this end?")).to_be_visible()
    thumb.on("Next", "Not measured", "Not measured")
    thumb.page.get_by_role("link", name="Leave it").click()
    page.get_by_role("link", name="Record one in the yard").click()
    thumb.on("Next", "Next")
    expect(page.get_by_text("7 1/4")).to_be_visible()


def test_a_wood_the_list_does_not_have(page: Page) -> None:
    thumb = yard(page)
    choose(page, "Another wood", "beech")
    expect(page.get_by_role("button", name="beech", exact=True)).to_have_class(re.compile("on"))
    thumb.on("Next")
    page.reload()
    page.get_by_role("button", name="Back", exact=True).click()
    expect(page.get_by_role("button", name="beech", exact=True)).to_have_class(re.compile("on"))
