"""The demo on every screen, at the desk, in the yard and at the machine."""

import re

from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import App
from tests.browser.fields import choose

STAGES = ("draw", "list", "buy", "boards", "layout", "mill", "books")


def test_every_stage_opens_and_the_tape_is_pulled_to_the_end(demo: int, page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name=re.compile("Reading-room settle")).click()
    expect(page.locator("main h1")).to_have_text("List")
    for n, stage in enumerate(STAGES, 1):
        page.keyboard.press(str(n))
        expect(page).to_have_url(re.compile(rf"/project/{demo}/{stage}"))
        expect(page.locator("main h1")).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") <= 1280
    expect(page.locator("li.beyond")).to_have_count(0)


def test_nothing_scrolls_sideways_on_a_phone(demo: int, browser: Browser, app: App) -> None:
    context = browser.new_context(
        locale="en-GB",
        viewport={"width": 390, "height": 844},
        base_url=app.url,
        has_touch=True,
        service_workers="block",
    )
    phone = context.new_page()
    wide = {}
    for stage in ("boards", "boards/O5", "mill", "machine", "layout", "books", "buy", "draw"):
        phone.goto(f"/project/{demo}/{stage}")
        expect(phone.locator("h1").first).to_be_visible()
        phone.wait_for_load_state("networkidle")
        wide[stage] = phone.evaluate("document.documentElement.scrollWidth")
    assert {stage: w for stage, w in wide.items() if w > 390} == {}
    context.close()


def test_an_edit_makes_the_plan_stale_and_undo_makes_it_stand_again(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/list")
    row = page.locator('tr[data-part="AR"]')
    row.get_by_label("Count").fill("3")
    row.get_by_label("Count").press("Enter")
    expect(page.locator(".figure").first).to_have_text("38")
    page.get_by_role("link", name=re.compile("Lay out")).click()
    stale = page.get_by_text("Lay out again before cutting")
    expect(stale).to_be_visible()
    page.get_by_role("button", name="Undo count of AR").click()
    expect(stale).to_be_hidden()


def test_choosing_a_part_shows_all_of_it_and_the_board_turns_over(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/layout")
    page.locator(".chalked").filter(has_text="SL1").first.focus()
    page.keyboard.press("Enter")
    expect(page.locator(".chalked.chosen").first).to_be_visible()
    expect(page.get_by_role("toolbar", name="The piece in hand")).to_contain_text("Back slat")
    page.keyboard.press("f")
    expect(page.get_by_role("group", name=re.compile("face B")).first).to_be_visible()


def test_a_fault_is_tapped_nudged_and_taken_off(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/boards/O6")
    choose(page, "Tap the board, or draw across it, to mark", "check")
    board = page.get_by_role("application", name=re.compile("Board O6.*face A"))
    box = board.bounding_box()
    assert box
    page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    start = page.get_by_label("From", exact=True)
    before = start.input_value()
    page.get_by_role("button", name="Toward the far end").click()
    expect(start).not_to_have_value(before)
    page.get_by_role("button", name="Remove", exact=True).click()
    expect(page.locator(".faults").get_by_role("button", name=re.compile(" at "))).to_have_count(0)
    page.get_by_role("button", name="Mark a check by its figures").focus()
    page.keyboard.press("Enter")
    expect(start).to_have_value("22")  # six inches long in the middle of fifty


def test_at_the_machine_the_space_bar_is_enough(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/machine")
    expect(page.get_by_text("The machine's own manual")).to_be_visible()
    page.keyboard.press("Space")
    expect(page.get_by_role("heading", name=re.compile("Crosscut"))).to_be_visible()
    with page.expect_response("**/steps"):  # kept before the page is loaded again
        page.keyboard.press("Space")
    expect(page.get_by_text("2 of")).to_be_visible()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_text("· done")).to_be_visible()
    page.reload()
    expect(page.get_by_text("2 of")).to_be_visible()
