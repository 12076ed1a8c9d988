"""Something happens at the machine: the rest is planned again, milled to the end, and the books
close.
"""

import json
import re
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import App
from tests.browser.fields import choose, select
from tests.web.test_api import INCH

NOTE = "a nail under the skin"


def understood(page: Page) -> None:
    button = page.get_by_role("button", name="Understood")
    expect(page.locator("footer .lead")).to_be_visible()
    if button.count():
        button.click()


def ticked(page: Page, layout: int, keys: list[str]) -> None:
    for key in keys:
        answer = page.request.put(
            f"/api/layouts/{layout}/steps",
            data=json.dumps({"key": key, "done": True, "minutes": 2}),
            headers={"Content-Type": "application/json"},
        )
        assert answer.status == 204, answer.text()


def left(page: Page, demo: int) -> tuple[int, list[str]]:
    """The standing plan, and the steps of it that are to be done, in an order that can be."""
    milling = page.request.get(f"/api/projects/{demo}/milling").json()
    steps = [s for r in milling["routes"] for s in r["steps"]]
    return milling["layout"], [s["key"] for s in steps if not s["done"]]


def test_a_nail_at_the_machine_by_touch_and_the_piece_to_its_end(
    browser: Browser, app: App, demo: int
) -> None:
    context = browser.new_context(
        locale="en-GB",
        viewport={"width": 1024, "height": 768},
        base_url=app.url,
        has_touch=True,
        reduced_motion="reduce",
        service_workers="block",
    )
    context.set_default_timeout(120_000)
    page = context.new_page()
    layout, keys = left(page, demo)
    ticked(page, layout, keys[:18])

    page.goto(f"/project/{demo}/machine")
    understood(page)
    page.get_by_role("button", name="Something happened").tap()
    sheet = page.get_by_role("dialog")
    picture = sheet.locator("svg.piece")
    expect(picture).to_be_visible()
    box = picture.bounding_box()
    assert box
    page.touchscreen.tap(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    sheet.get_by_label("Note").fill(NOTE)
    # The network fails in the middle of it: it is kept here, over a reload too, and sent later.
    page.route("**/events", lambda route: route.abort())
    sheet.get_by_role("button", name="Write it in the log").tap()
    expect(sheet.get_by_text("It is kept in this browser")).to_be_visible()
    sheet.get_by_role("button", name="Go on").tap()
    expect(page.get_by_text("Out of reach: 1 kept, sent later")).to_be_visible()
    page.reload()
    expect(page.get_by_text("Out of reach: 1 kept, sent later")).to_be_visible()
    page.unroute("**/events")
    expect(page.get_by_text("Something happened that this plan does not know:")).to_be_visible()
    log = page.request.get(f"/api/projects/{demo}/log").json()["events"]
    assert [e["note"] for e in log if e["kind"] == "found"] == [NOTE]
    page.get_by_role("button", name="Plan the rest again").tap()
    expect(page.get_by_text("The rest is planned again.")).to_be_visible()

    # What was done is done, what is cut is shown apart, and the log tells it.
    _, rest = left(page, demo)
    assert not set(keys[:18]) & set(rest)
    page.goto(f"/project/{demo}/layout")
    expect(page.get_by_role("heading", name="Being cut")).to_be_visible()
    page.goto(f"/project/{demo}/mill")
    page.get_by_role("tab", name="What happened").tap()
    expect(page.get_by_text(NOTE)).to_be_visible()

    # To the end: every step in its turn, and the books close over what was bought.
    layout, rest = left(page, demo)
    ticked(page, layout, rest)
    assert left(page, demo)[1] == []
    account = page.request.get(f"/api/projects/{demo}/account").json()
    assert account["rough"] == pytest.approx(sum(account["where"].values()))
    # Where all is done, what was planned has happened, and nothing is in work any more.
    assert account["so_far"]["where"] == pytest.approx(account["where"])
    assert account["so_far"]["where"]["in work"] == 0
    pieces = page.request.get(f"/api/layouts/{layout}/pieces").json()["pieces"]
    parts = page.request.get(f"/api/projects/{demo}").json()["parts"]
    made = {
        re.sub(r"·\d+$", "", name)
        for p in pieces
        if p["state"] == "finished"
        for name in p["items"]
    }
    wanted = sum(p["quantity"] * p["layers"] for p in parts if p["stock"] == "board")
    assert len(made) == wanted
    context.close()


def planned_again(page: Page) -> None:
    page.get_by_role("button", name="Plan the rest again").click()
    expect(page.get_by_text("The rest is planned again.")).to_be_visible()


def routes_of(page: Page, demo: int) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = page.request.get(f"/api/projects/{demo}/milling").json()["routes"]
    return found


def test_a_part_is_shortened_after_a_dry_fit(page: Page, demo: int) -> None:
    """A rail is made, and the fit wants it 1/16 shorter: the list says so, and its wood gets the
    one step that is missing.
    """
    layout, _ = left(page, demo)
    route = next(
        r for r in routes_of(page, demo) if "AR1" in [g for s in r["steps"] for g in s["gives"]]
    )
    keys = [s["key"] for s in route["steps"]]
    ticked(page, layout, keys)
    page.goto(f"/project/{demo}/list")
    field = page.locator("tr[data-part='AR']").get_by_label("Length")
    was = next(
        p for p in page.request.get(f"/api/projects/{demo}").json()["parts"] if p["id"] == "AR"
    )
    field.fill(f"{(was['length'] - INCH // 16) / INCH}")
    field.press("Tab")
    planned_again(page)
    _, rest = left(page, demo)
    made = [g for s in route["steps"] if s["key"] in keys for g in s["gives"] if g[:2] == "AR"]
    assert [k for k in rest if "again-length" in k] == [
        f"{m}/again-length" for m in dict.fromkeys(made)
    ]
    assert not set(keys) & set(rest)
    # At the machine it is a step like any other.
    page.goto(f"/project/{demo}/mill")
    expect(page.get_by_text(re.compile("Cut AR1 to"))).to_be_visible()
    layout, rest = left(page, demo)
    ticked(page, layout, rest)
    pieces = page.request.get(f"/api/layouts/{layout}/pieces").json()["pieces"]
    rails = [p for p in pieces if p["state"] == "finished" and p["mark"][:2] == "AR"]
    assert {p["length"] for p in rails} == {was["length"] - INCH // 16}


def keys_until(route: dict[str, Any], last: int) -> set[str]:
    return {s["key"] for s in route["steps"][: last + 1]}


def test_a_board_milled_months_ago_is_measured_again_and_flattened_again(
    page: Page, demo: int
) -> None:
    layout, keys = left(page, demo)
    route = next(
        r for r in routes_of(page, demo) if any(s["kind"] == "thickness" for s in r["steps"])
    )
    # A face and an edge were made true, and the other face left for later.
    last = next(k for k, s in enumerate(route["steps"]) if s["kind"] == "thickness") - 1
    mark = route["steps"][last]["gives"][0]
    # All that can be without it is made: what it was for can come out of nothing but the piece.
    steps = {s["key"]: s for r in routes_of(page, demo) for s in r["steps"]}
    after, waiting = set[str](), {mark}
    for key in keys:
        if set(steps[key]["takes"]) & waiting and key not in keys_until(route, last):
            after.add(key)
            waiting |= set(steps[key]["gives"])
    ticked(page, layout, [k for k in keys if k not in after])
    page.goto(f"/project/{demo}/mill")
    page.get_by_role("tab", name="What happened").click()
    page.get_by_role("button", name="Something happened").click()
    sheet = page.get_by_role("dialog")
    select(sheet, "Which piece").click()
    page.get_by_role("option", name=re.compile(rf"^{re.escape(mark)}\b")).first.click()
    sheet.get_by_text("It measures otherwise").click()
    choose(sheet, "Its", "cup, under its middle")
    sheet.get_by_label("measures", exact=True).fill("1/32")
    sheet.get_by_role("button", name="Write it in the log").click()
    expect(sheet.get_by_text("It does not fit what it was for any more.")).to_be_visible()
    sheet.get_by_role("button", name="Plan the rest again").click()
    expect(page.get_by_text("The rest is planned again.")).to_be_visible()
    again = next(r for r in routes_of(page, demo) if r["board"] == mark)
    assert "flatten" in [s["does"] for s in again["steps"] if not s["done"]]
    layout, rest = left(page, demo)
    ticked(page, layout, rest)
    account = page.request.get(f"/api/projects/{demo}/account").json()
    assert account["so_far"]["where"]["in work"] == 0
    assert account["rough"] == pytest.approx(sum(account["so_far"]["where"].values()))
