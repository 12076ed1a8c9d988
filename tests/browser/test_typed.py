"""What is typed at normal speed stays, and lists without boards say what there is."""

import re
from typing import Any

from playwright.sync_api import Page, Route, expect

from tests.browser.test_newcomer import paste
from tests.browser.test_takeoff import saved, start
from tests.waiting import until


def slowly(page: Page, address: str, held: list[Route]) -> None:
    """Requests to that address wait in `held` until somebody lets them go on."""
    page.route(address, lambda route: held.append(route))


def handed(page: Page, held: list[Route]) -> bool:
    """Whether a request waits; routes are handed over only inside a call of Playwright."""
    page.wait_for_timeout(20)
    return bool(held)


def test_machine_settings_typed_one_after_the_other_are_all_kept(page: Page, demo: int) -> None:
    page.goto(f"/project/{demo}/mill")
    page.get_by_role("tab", name="The machines").click()
    held: list[Route] = []
    slowly(page, "**/milling-settings", held)
    jointer = page.locator("fieldset", has_text="Jointer")
    fields = [
        ("Bed width", "6"),
        ("Shortest piece", "14"),
        ("Longest edge it holds straight", "72"),
        ("Thinnest", "5/8"),
    ]
    jointer.get_by_label("Bed width").click()
    for label, text in fields:
        expect(jointer.get_by_label(label, exact=True)).to_be_focused()
        page.keyboard.type(text)
        page.keyboard.press("Tab")
    # The focus is where it went, and a digit typed there is no key of a stage.
    expect(jointer.get_by_label("Narrowest")).to_be_focused()
    page.keyboard.type("2")
    assert page.url.endswith("/mill?view=machines")
    until(lambda: handed(page, held), 30)
    for route in held:
        route.continue_()
    page.unroute("**/milling-settings")
    page.keyboard.press("Tab")

    def kept() -> dict[str, Any]:
        answer = page.request.get(f"/api/projects/{demo}/milling-settings").json()
        found: dict[str, Any] = answer["milling"]["machines"]["jointer"]
        return found

    inch = 8128
    wanted = {
        "bed_width": 6 * inch,
        "shortest": 14 * inch,
        "longest": 72 * inch,
        "thinnest": 5 * inch // 8,
    }
    until(lambda: {k: kept()[k] for k in wanted} == wanted, 30)
    expect(page.locator(".el-message--error")).to_have_count(0)


def test_a_figure_typed_into_a_pattern_stays_while_the_answer_to_the_last_comes(page: Page) -> None:
    start(page, "Case", "draw")
    page.get_by_role("button", name="Start from a pattern").click()
    sheet = page.get_by_role("dialog", name="Start from a pattern")
    wide, high = sheet.get_by_label("width over all"), sheet.get_by_label("height over all")
    expect(wide).to_have_value("36")
    held: list[Route] = []
    slowly(page, "**/pattern", held)
    wide.fill("40")
    wide.press("Tab")
    until(lambda: handed(page, held), 20)
    high.fill("5")
    high.press_sequentially("2 1/")
    held[0].continue_()
    expect(sheet.get_by_role("row", name="Top and bottom").locator("td").nth(2)).to_have_text("40")
    expect(high).to_have_value("52 1/")
    high.press_sequentially("2")
    page.unroute("**/pattern")
    high.press("Tab")
    expect(sheet.get_by_role("row", name="Side").locator("td").nth(2)).to_have_text(
        re.compile(r"^52\s*1/2$")
    )
    high.fill("")
    high.press("Tab")
    expect(high).to_have_value("48")


def test_a_list_of_bought_and_sheet_parts_says_what_there_is(page: Page) -> None:
    start(page, "Hardware", "list")
    rows = "Hinge\t4\t2\t1\t1/8\tbrass\tbought\nBack\t1\t30\t20\t1/4\tbirch\tsheet"
    paste(page, f"Part\tCount\tLength\tWidth\tThickness\tWood\tStock\n{rows}")
    page.get_by_role("button", name="Add 2 parts").click()
    saved(page)
    for stage in ("layout", "mill", "books"):
        page.goto(page.url.rsplit("/", 1)[0] + f"/{stage}")
        expect(page.get_by_text("Nothing on this list is cut from boards")).to_be_visible()
        expect(page.get_by_text("Bought as it is: 4 × Hinge.")).to_be_visible()
        expect(page.get_by_text("Cut from sheet: 1 × Back.")).to_be_visible()
        expect(page.get_by_text("there must be")).to_have_count(0)


def test_columns_that_are_no_columns_of_the_list_are_told_when_pasting(page: Page) -> None:
    start(page, "Rails", "list")
    paste(page, "Part\tLength\tWidth\tThickness\tWood\tFinish\nRail\t20\t2\t3/4\tash\toil")
    expect(page.get_by_text("kept in each part's note: Finish.")).to_be_visible()
    page.get_by_role("button", name="Add 1 part").click()
    expect(page.locator("tr[data-part='RA']").get_by_label("Note")).to_have_value("Finish: oil")
