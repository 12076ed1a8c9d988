"""The whole demo from the shelf to the books by keys alone, and by touch alone on a phone: the list
changed, laid out again, chalked, a step done at the machine.
"""

import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import App
from tests.waiting import until

#: What a screen reader would call the thing that has the focus.
_NAME = """() => {
    const e = document.activeElement;
    if (!e || e === document.body || e.tagName === 'MAIN') return '';
    const by = (e.getAttribute('aria-labelledby') ?? '').split(' ').filter(Boolean);
    const named = e.getAttribute('aria-label')
        || by.map(id => document.getElementById(id)?.textContent ?? '').join(' ')
        || [...(e.labels ?? [])].map(label => label.textContent).join(' ')
        || e.textContent || e.placeholder || '';
    return named.replace(/\\s+/g, ' ').trim();
}"""
_LONGEST = 150


def reach(page: Page, name: str) -> None:
    """Tab until something of this name has the focus."""
    for _ in range(_LONGEST):
        if re.search(name, page.evaluate(_NAME)):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"Tab does not come to {name!r} in {_LONGEST} steps")


def project_of(page: Page, demo: int) -> dict[str, Any]:
    found: dict[str, Any] = page.request.get(f"/api/projects/{demo}").json()
    return found


def count_of(page: Page, demo: int, part: str) -> int:
    return next(int(p["quantity"]) for p in project_of(page, demo)["parts"] if p["id"] == part)


def done_of(page: Page, demo: int) -> int:
    milling = page.request.get(f"/api/projects/{demo}/milling").json()
    return sum(s["done"] for r in milling["routes"] for s in r["steps"])


def test_by_keys_alone(page: Page, demo: int) -> None:
    def go(name: str, there: Callable[[], None]) -> None:
        reach(page, name)
        page.keyboard.press("Enter")
        there()

    def headed(text: str) -> Callable[[], None]:
        return lambda: expect(page.get_by_role("heading", name=text).first).to_be_visible()

    page.goto("/")
    expect(page.get_by_role("link", name="Reading-room settle")).to_be_visible()
    go("^Reading-room settle", headed("List"))

    # One more cleat; the field below the last row of it is the count of a new part.
    reach(page, "^Show only parts")
    page.keyboard.type("cleat")
    expect(page.get_by_label("Mark", exact=True)).to_have_count(1)
    reach(page, "^Count$")
    was = count_of(page, demo, "CL")
    page.keyboard.press("Control+a")
    page.keyboard.type(str(was + 1))
    page.keyboard.press("Enter")
    until(lambda: count_of(page, demo, "CL") == was + 1)
    assert page.evaluate(_NAME) == "New count"

    go("^5 ?Lay out", headed("Lay out"))
    go("^Lay out again", lambda: None)
    expect(page.get_by_text("Parts, boards or the shop have changed")).to_have_count(0)
    until(lambda: not page.request.get(f"/api/projects/{demo}/layout").json()["standing"]["stale"])
    go("^Chalk it", headed("Chalk "))
    # The page one came from is gone, and the keys go on in this one.
    reach(page, "^Square across at")
    page.keyboard.press("Space")
    expect(page.get_by_role("checkbox").first).to_be_checked()
    go("^← Lay out", headed("Lay out"))
    go("^6 ?Mill", headed("Mill"))
    go("^To the machine", lambda: expect(page.locator("footer .lead")).to_be_visible())
    reach(page, "^Understood")
    page.keyboard.press("Enter")
    reach(page, "^Done")
    page.keyboard.press("Enter")
    until(lambda: done_of(page, demo) == 1)
    go("^Back to Mill", headed("Mill"))
    go("^7 ?Books", headed("Books"))
    expect(page.get_by_role("region", name="As it has really gone")).to_contain_text(
        re.compile(r"[AO]\d: ")
    )


def test_by_touch_alone(browser: Browser, app: App, demo: int) -> None:
    context = browser.new_context(
        locale="en-GB",
        viewport={"width": 390, "height": 844},
        base_url=app.url,
        has_touch=True,
        is_mobile=True,
        reduced_motion="reduce",
        service_workers="block",
    )
    context.set_default_timeout(120_000)
    page = context.new_page()

    def stage(name: str) -> None:
        page.get_by_role("navigation").get_by_role("link", name=name).tap()
        expect(page.get_by_role("heading", name=name).first).to_be_visible()

    page.goto("/")
    page.get_by_role("link", name="Reading-room settle").tap()
    expect(page.get_by_role("heading", name="List").first).to_be_visible()
    only = page.get_by_label("Show only parts")
    only.tap()
    only.fill("cleat")
    expect(page.get_by_label("Mark", exact=True)).to_have_count(1)
    count = page.get_by_label("Count", exact=True)
    was = count_of(page, demo, "CL")
    count.tap()
    count.fill(str(was + 1))
    page.get_by_role("heading", name="List").first.tap()
    until(lambda: count_of(page, demo, "CL") == was + 1)

    stage("Lay out")
    page.get_by_role("button", name="Lay out again").tap()
    until(lambda: not page.request.get(f"/api/projects/{demo}/layout").json()["standing"]["stale"])
    page.get_by_role("link", name="Chalk it").tap()
    mark = page.locator("label", has=page.get_by_role("checkbox")).first
    mark.tap()
    expect(page.get_by_role("checkbox").first).to_be_checked()
    page.get_by_role("link", name="← Lay out").tap()
    stage("Mill")
    page.get_by_role("link", name="To the machine").tap()
    big = page.locator("footer .big")
    expect(big).to_have_text("Understood")
    big.tap()
    expect(big).to_have_text("Done")
    big.tap()
    until(lambda: done_of(page, demo) == 1)
    page.get_by_role("link", name="Back to Mill").tap()
    stage("Books")
    expect(page.get_by_role("region", name="As it has really gone")).to_contain_text(
        re.compile(r"[AO]\d: ")
    )
    context.close()
