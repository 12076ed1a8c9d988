"""Finding things, help without a server, and the walk through the demo."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import App

#: Where each stop of the walk stands, and what it is called.
STOPS = [
    ("list", "The tape is the way"),
    ("list", "Finished sizes"),
    ("buy", "Before you drive to the yard"),
    ("boards", "Boards as they are"),
    ("layout", "All parts, on real wood"),
    ("mill", "Steps you can follow"),
    ("mill", "At the machine"),
    ("books", "Nothing gets lost"),
]


def at_stop(page: Page, project: int, stop: int) -> None:
    stage, title = STOPS[stop]
    expect(page.get_by_role("heading", name=title, exact=True)).to_be_visible()
    expect(page).to_have_url(re.compile(f"/project/{project}/{stage}"))


def test_the_walk_through_the_demo_is_left_and_taken_up_again(demo: int, page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Walk through the demo").click()
    for stop in range(3):
        at_stop(page, demo, stop)
        page.get_by_role("button", name="Next", exact=True).click()
    at_stop(page, demo, 3)
    page.keyboard.press("Escape")
    expect(page.locator(".el-tour__content")).to_have_count(0)
    page.goto("/")
    page.get_by_role("button", name="Walk through the demo").click()
    for stop in range(3, len(STOPS) - 1):
        at_stop(page, demo, stop)
        page.get_by_role("button", name="Next", exact=True).click()
    at_stop(page, demo, len(STOPS) - 1)
    page.get_by_role("button", name="Finish").click()
    expect(page.locator(".el-tour__content")).to_have_count(0)
    page.goto("/")
    page.get_by_role("button", name="Walk through the demo").click()
    at_stop(page, demo, 0)


def test_anything_is_found_by_its_name(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/mill")
    expect(page.get_by_role("heading", name="Mill")).to_be_visible()
    page.keyboard.press("Control+k")
    page.get_by_label("What is it called").fill("back sl")
    expect(page.get_by_role("option")).to_have_count(1)
    page.keyboard.press("Enter")
    expect(page.locator("tr[data-part='SL'] input[aria-label='Part']")).to_be_focused()
    page.keyboard.press("Control+k")
    page.get_by_label("What is it called").fill("o3")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(f"/project/{demo}/boards/O3"))
    page.keyboard.press("Control+k")
    page.get_by_label("What is it called").fill("lay")
    expect(page.get_by_role("option").filter(has_text="every part")).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(page.locator("[role=option].highlighted")).to_contain_text("every part on real wood")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog", name="Help")).to_contain_text("Chalk it lists every mark")


@pytest.mark.offline
def test_help_is_there_without_the_server(demo: int, page: Page, app: App) -> None:
    page.goto(f"/project/{demo}/list")
    expect(page.locator("tr[data-part='AR']")).to_be_visible()
    app.kill()
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog", name="Help")
    expect(sheet.get_by_text("Type a size as you say it")).to_be_visible()
    sheet.get_by_role("tab", name="Words").click()
    expect(
        sheet.get_by_role("definition").get_by_text("What the saw turns to dust")
    ).to_be_visible()
    page.keyboard.press("Escape")
    page.locator("th").get_by_text("Run", exact=True).focus()  # explained where it stands
    expect(page.get_by_role("tooltip").get_by_text("so that the grain flows on")).to_be_visible()
    app.start()
