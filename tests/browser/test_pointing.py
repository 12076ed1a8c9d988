"""What is tapped or drawn on a picture, by keys alone: arrow keys point, Enter marks."""

import re

from playwright.sync_api import Locator, Page, expect

from tests.browser.fields import choose, upload
from tests.browser.test_bench import LONG, WIDE, a_project, saved, the_board
from tests.browser.test_plan_bench import standing
from tests.browser.test_takeoff import FIXTURES, bring, start
from tests.making import a_board
from tests.photograph import photographed
from tests.waiting import until


def go(page: Page, right: int, down: int) -> None:
    """So many keys of ten pixels that way."""
    for key, times in (
        ("ArrowRight", right),
        ("ArrowLeft", -right),
        ("ArrowDown", down),
        ("ArrowUp", -down),
    ):
        for _ in range(times):
            page.keyboard.press(key)


def by_keys(drawing: Locator) -> None:
    """The drawing has the focus and the cross stands in its middle."""
    drawing.focus()
    drawing.page.keyboard.press("ArrowRight")
    expect(drawing.page.locator(".key-cross")).to_have_count(1)


def test_a_scale_and_a_part_are_taken_off_a_sheet_by_keys(page: Page) -> None:
    start(page, "Rail by keys", "draw")
    bring(page, FIXTURES / "sketch.png")
    paper = page.locator("svg.paper")
    expect(paper).to_be_visible()
    by_keys(paper)
    go(page, -12, -6)
    page.keyboard.press("Enter")
    go(page, 20, 0)
    page.keyboard.press("Enter")
    page.get_by_label("Distance between the two points").fill("20")
    page.get_by_role("button", name="Set the scale").press("Enter")
    # 200 pixels are 20 in: drawn over 160 by 40 pixels the part is 16 by 4.
    by_keys(paper)
    go(page, -10, 2)
    page.keyboard.press("Enter")
    go(page, 16, 4)
    page.keyboard.press("Escape")  # given up: nothing is drawn
    expect(page.locator("[data-mark]")).to_have_count(0)
    by_keys(paper)
    go(page, -10, 2)
    page.keyboard.press("Enter")
    go(page, 16, 4)
    page.keyboard.press("Enter")
    expect(page.locator("[data-mark]")).to_have_count(1)
    expect(page.get_by_label("Length, as written")).to_have_value(re.compile("^1[56]"))
    expect(page.get_by_label("Width, as written")).to_have_value(re.compile("^[34]"))


def test_the_corners_of_a_photograph_are_set_by_keys(page: Page) -> None:
    pk = a_project(page)
    taken = photographed(a_board("W1", LONG, WIDE), (41.3, 2.6))
    page.goto(f"/project/{pk}/boards/W1")
    page.get_by_role("button", name="Photograph it").press("Enter")
    upload(
        page,
        "Take or choose a photograph",
        {"name": "face.jpg", "mimeType": "image/jpeg", "buffer": taken.jpeg},
    )
    photo = page.locator(".photo")
    expect(photo.locator("img")).to_be_visible()
    for k, (x, y) in enumerate(taken.corners):
        by_keys(photo)
        box = photo.bounding_box()
        assert box
        go(page, round((x - 0.5) * box["width"] / 10), round((y - 0.5) * box["height"] / 10))
        page.keyboard.press("Enter")
        loupe = page.locator(".loupe")
        expect(loupe).to_be_focused()
        page.keyboard.press("ArrowRight")  # the middle is where the photograph was tapped
        page.keyboard.press("Enter")
        expect(page.locator(".photo .pin")).to_have_count(k + 1)
    page.get_by_role("button", name="Lay it under the drawing").press("Enter")
    expect(page.locator(".drawing image")).to_be_visible()
    saved(page)
    assert len(the_board(page, pk)["photos"]) == 1


def test_a_fault_and_its_outline_are_marked_by_keys(page: Page) -> None:
    pk = a_project(page)
    page.goto(f"/project/{pk}/boards/W1")
    board = page.locator(".drawing svg").nth(1)
    by_keys(board)
    page.keyboard.press("Enter")
    expect(page.locator(".drawing .fault")).to_have_count(1)
    choose(page, "Tap the board, or draw across it, to mark", "wane")
    page.get_by_role("button", name="Draw its outline").press("Enter")
    by_keys(board)
    for right, down in ((-20, 0), (10, 0), (-5, 2)):
        go(page, right, down)
        page.keyboard.press("Enter")
    expect(page.get_by_text("3 corners")).to_be_visible()
    page.get_by_role("button", name="Close it").press("Enter")
    expect(page.locator(".drawing .fault")).to_have_count(2)
    saved(page)
    until(lambda: [f["shape"] for f in the_board(page, pk)["defects"]][-1] == "outline")


def test_a_place_is_forbidden_by_keys(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/layout")
    page.get_by_role("button", name="Forbid a place").press("Enter")
    board = page.get_by_role("application", name=re.compile("^Board O3"))
    by_keys(board)
    page.keyboard.press("Enter")
    go(page, 6, 2)
    page.keyboard.press("Enter")
    expect(page.locator(".zone").first).to_be_visible()
    until(lambda: len(standing(demo).fixings.forbidden) == 1)
    (zone,) = standing(demo).fixings.forbidden
    assert zone.board == "O3" and zone.x1 - zone.x0 > 0 and zone.y1 - zone.y0 > 0
