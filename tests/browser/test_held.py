"""Nothing that is typed is lost: without the server, over a reload, against another tab; and a
piece goes where a finger takes it.
"""

import re
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import App
from tests.browser.test_bench import still
from tests.browser.test_plan_bench import piece, places
from tests.waiting import until


def part(page: Page, project: int, id: str) -> dict[str, Any]:
    there = page.request.get(f"/api/projects/{project}").json()["parts"]
    found: dict[str, Any] = next(p for p in there if p["id"] == id)
    return found


def set_count(page: Page, id: str, count: str) -> None:
    field = page.locator(f"tr[data-part='{id}']").get_by_label("Count")
    field.fill(count)
    field.press("Tab")


@pytest.mark.offline
def test_edits_without_the_server_outlive_a_reload_and_are_sent(
    demo: int, page: Page, app: App
) -> None:
    page.goto(f"/project/{demo}/list")
    expect(page.locator("tr[data-part='AR']")).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.reload()  # now by way of the worker
    expect(page.locator("tr[data-part='AR']")).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("all saved")
    waits = page.get_by_role("status")
    app.kill()
    set_count(page, "AR", "5")
    expect(waits).to_have_text("1 edit waits for the server; kept in this browser")
    set_count(page, "CR", "2")
    expect(waits).to_have_text("2 edits wait for the server; kept in this browser")
    page.reload()
    count = page.locator("tr[data-part='AR']").get_by_label("Count")
    expect(count).to_have_value("5")
    expect(waits).to_have_text("2 edits wait for the server; kept in this browser")
    app.start()
    expect(waits).to_have_text("all saved")
    until(lambda: [part(page, demo, id)["quantity"] for id in ("AR", "CR")] == [5, 2])
    expect(page.locator(".el-message--error")).to_have_count(0)


@pytest.mark.offline
def test_settings_without_the_server_outlive_a_reload_and_are_sent(
    demo: int, page: Page, app: App
) -> None:
    """A hinge is written down while the server is away, and the page it was written on is left."""
    for stage in ("list", "buy?view=besides"):
        page.goto(f"/project/{demo}/{stage}")
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.reload()
        expect(page.locator("h1").first).to_be_visible()
        page.wait_for_load_state("networkidle")
    lines = page.request.get(f"/api/projects/{demo}/materials").json()["materials"]
    app.kill()
    page.get_by_role("button", name="Add a line").click()
    name = page.get_by_label(f"What, line {len(lines) + 1}")
    name.fill("butt hinge, brass")
    name.press("Tab")
    status = page.get_by_role("status").first
    expect(status).to_have_text("1 change waits for the server; kept in this browser")
    page.reload()
    expect(name).to_have_value("butt hinge, brass")
    page.goto(f"/project/{demo}/list")
    expect(status).to_have_text("1 change waits for the server; kept in this browser")
    app.start()
    expect(status).to_have_text("all saved")
    kept = page.request.get(f"/api/projects/{demo}/materials").json()["materials"]
    assert [m["name"] for m in kept] == [*(m["name"] for m in lines), "butt hinge, brass"]


@pytest.mark.offline
def test_stages_open_without_the_server_as_they_were_read_last(
    demo: int, page: Page, app: App
) -> None:
    for stage in ("buy", "chalk", "books"):
        page.goto(f"/project/{demo}/{stage}")
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.reload()
        expect(page.locator("h1").first).to_be_visible()
        page.wait_for_load_state("networkidle")
    page.goto(f"/project/{demo}/buy")
    blanks = page.get_by_role("cell", name=re.compile(r"^[1-9][0-9]*\.[0-9] bd ft$")).first
    expect(blanks).to_be_visible()
    feet = blanks.inner_text()
    app.kill()
    page.reload()
    expect(page.get_by_role("cell", name=feet, exact=True).first).to_be_visible()
    expect(page.get_by_role("status").first).to_have_text(
        re.compile("the server does not answer: shown as of [0-9]{1,2}:[0-9]{2}")
    )
    page.goto(f"/project/{demo}/chalk")
    expect(page.get_by_role("checkbox").first).to_be_visible()
    app.start()


def test_of_two_tabs_that_change_the_same_both_are_shown(demo: int, page: Page) -> None:
    other = page.context.new_page()
    for tab in (page, other):
        tab.goto(f"/project/{demo}/list")
        expect(tab.locator("tr[data-part='AR']")).to_be_visible()
    set_count(page, "AR", "5")
    set_count(page, "CR", "3")
    expect(page.get_by_role("status")).to_have_text("all saved")
    until(lambda: part(page, demo, "CR")["quantity"] == 3)
    # What the other has not touched goes on top without a word.
    set_count(other, "SL", "9")
    until(lambda: part(page, demo, "SL")["quantity"] == 9)
    expect(other.locator("tr[data-part='CR']").get_by_label("Count")).to_have_value("3")
    # Now both change one count, the other tab from what it read before.
    set_count(page, "BR", "4")
    until(lambda: part(page, demo, "BR")["quantity"] == 4)
    set_count(other, "BR", "6")
    sheet = other.get_by_role("dialog", name="Somebody else has changed the same")
    row = sheet.get_by_role("row").filter(has_text="count")
    expect(row.get_by_role("cell").nth(1)).to_have_text("4")
    expect(row.get_by_role("cell").nth(2)).to_have_text("6")
    sheet.get_by_role("button", name="Put mine in its place").click()
    until(lambda: part(page, demo, "BR")["quantity"] == 6)
    set_count(page, "BR", "7")  # and page, which has not read that yet, gives way
    sheet = page.get_by_role("dialog", name="Somebody else has changed the same")
    sheet.get_by_role("button", name="Leave it as it stands now").click()
    expect(page.locator("tr[data-part='BR']").get_by_label("Count")).to_have_value("6")
    assert part(page, demo, "BR")["quantity"] == 6


def test_a_click_beside_a_filled_sheet_loses_nothing(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/boards")
    expect(page.get_by_role("heading", name="Boards")).to_be_visible()
    page.keyboard.press("n")
    sheet = page.get_by_role("dialog", name="A board on hand")
    expect(sheet.get_by_label("Mark on its end")).to_be_focused()
    sheet.get_by_label("Length", exact=True).fill("61 1/2")
    page.mouse.click(20, 700)
    expect(sheet.get_by_label("Length", exact=True)).to_have_value("61 1/2")


def test_single_keys_can_be_switched_off(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/list")
    expect(page.locator("tr[data-part='AR']")).to_be_visible()
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog", name="Help")
    sheet.get_by_role("tab", name="Keys").click()
    sheet.get_by_role("switch").press("Space")
    page.keyboard.press("Escape")
    expect(sheet).to_be_hidden()
    page.keyboard.press("5")
    assert page.url.endswith("/list")
    page.keyboard.press("Control+z")  # keys with Ctrl stay


def test_space_ticks_the_mark_that_has_the_focus(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/chalk")
    marks = page.locator("li input[type=checkbox]")
    marks.nth(2).focus()
    page.keyboard.press("Space")
    expect(marks.nth(2)).to_be_checked()
    expect(marks.nth(0)).not_to_be_checked()


def test_a_fraction_is_copied_with_its_space(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/chalk")
    mark = page.get_by_role("checkbox", name=re.compile("[0-9] [0-9]+.[0-9]+ in"))  # read aloud
    expect(mark.first).to_be_visible()
    copied = page.locator("li").filter(has=mark).first.inner_text()
    assert re.search(r"\d \d+/\d+", copied) and not re.search(r"\d{3,}/\d", copied)


def test_a_piece_is_moved_by_touch_and_esc_or_the_edge_gives_it_up(
    demo: int, browser: Browser, app: App
) -> None:
    context = browser.new_context(
        locale="en-GB",
        viewport={"width": 1024, "height": 768},
        base_url=app.url,
        has_touch=True,
        service_workers="block",
    )
    tablet = context.new_page()
    tablet.goto(f"/project/{demo}/layout")
    blank = piece(tablet, "SL1")
    tablet.wait_for_load_state("networkidle")
    blank.evaluate("e => e.scrollIntoView({ block: 'center' })")
    box = still(blank)
    # Beside its name: on the bare shape.
    x, y = box["x"] + box["width"] - 12, box["y"] + box["height"] / 2
    client = context.new_cdp_session(tablet)

    def touch(kind: str, *points: tuple[float, float]) -> None:
        client.send(
            "Input.dispatchTouchEvent",
            {"type": kind, "touchPoints": [{"x": px, "y": py} for px, py in points]},
        )

    before = places(demo)["SL1"]
    says = tablet.locator(".says")
    touch("touchStart", (x, y))
    for step in range(1, 8):
        touch("touchMove", (x + 4 * step, y))
    expect(says).to_be_visible()
    tablet.keyboard.press("Escape")
    expect(says).to_be_hidden()
    touch("touchEnd")
    assert places(demo)["SL1"] == before
    # Off the boards it goes back to where it lay.
    touch("touchStart", (x, y))
    touch("touchMove", (x + 20, y))
    expect(says).to_be_visible()
    touch("touchMove", (x + 20, 30))
    expect(says).to_be_hidden()
    touch("touchEnd")
    assert places(demo)["SL1"] == before
    # Over another board, where it is drawn from then on, it stays in hand.
    tablet.set_viewport_size({"width": 1024, "height": 1400})
    mark = next(m for m in ("O3", "O6") if m not in {at[0] for at in places(demo).values()})
    lane = tablet.locator(f"[data-board={mark}]")
    box, other = still(blank), still(lane.locator("svg.board"))
    x, y = box["x"] + box["width"] - 12, box["y"] + box["height"] / 2
    touch("touchStart", (x, y))
    touch("touchMove", (x + 10, y))
    for _ in range(3):
        touch("touchMove", (x + 10, other["y"] + 10))
        expect(says).to_contain_text(mark)
        touch("touchMove", (x + 14, other["y"] + 12))
    expect(says).to_contain_text(mark)
    tablet.keyboard.press("Escape")
    touch("touchEnd")
    context.close()


def test_what_was_typed_and_refused_waits_to_be_tried_again(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/list")
    expect(page.get_by_role("status")).to_have_text("all saved")
    refusal = {"what": "something broke here", "where": ""}
    page.route("**/edits", lambda route: route.fulfill(status=500, json=refusal))
    set_count(page, "AR", "7")
    count = page.locator("tr[data-part='AR']").get_by_label("Count")
    expect(count).to_have_value("2")  # as it stands
    page.reload()
    page.get_by_role("button", name="1 edit refused").click()
    sheet = page.get_by_role("dialog")
    expect(sheet).to_contain_text("something broke here")
    expect(sheet.get_by_role("row", name=re.compile("count"))).to_have_text("count27")
    page.unroute("**/edits")
    sheet.get_by_role("button", name="Try it again").click()
    expect(count).to_have_value("7")
    until(lambda: part(page, demo, "AR")["quantity"] == 7)
    expect(page.get_by_role("button", name="edit refused")).to_have_count(0)


@pytest.mark.offline
def test_a_page_that_was_never_opened_is_there_without_the_server(
    app: App, demo: int, page: Page
) -> None:
    """Every page's files are kept before the first one is done with."""
    page.goto(f"/project/{demo}/list")
    expect(page.locator("tr[data-part='AR']")).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.reload()  # now by way of the worker
    expect(page.locator("tr[data-part='AR']")).to_be_visible()
    app.kill()
    page.get_by_role("link", name=re.compile("Boards")).click()
    expect(page.get_by_role("heading", name="Boards")).to_be_visible()
    page.goto(f"/project/{demo}/draw")
    expect(page.get_by_role("heading", name="Draw").first).to_be_visible()
