"""Pulling the plug: everything that was acknowledged is there afterwards."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import App
from tests.browser.fields import choose
from tests.browser.test_newcomer import paste


@pytest.mark.offline
def test_killed_in_the_middle_of_an_edit_and_a_search(page: Page, app: App) -> None:
    page.goto("/")
    page.get_by_label("Start a new piece").fill("Hall shelf")
    page.keyboard.press("Enter")
    paste(page, "Shelf\t3\t30\t5\t3/4\tash\nSide\t2\t40\t5 1/2\t3/4\tash")
    page.get_by_role("button", name="Add 2 parts").click()
    page.get_by_role("link", name="Next: buy").click()
    page.get_by_role("link", name="Next: boards").click()
    for length in ("96", "97"):
        page.get_by_role("button", name="Add a board").click()
        sheet = page.get_by_role("dialog", name="A board on hand")
        for label, text in (
            ("Length", length),
            ("Width at the datum end", "7"),
            ("Thickness at the datum end", "1 1/16"),
        ):
            sheet.get_by_label(label).fill(text)
        sheet.get_by_role("button", name="Put it in the rack").click()
        expect(sheet).to_be_hidden()
        expect(page.get_by_text("all saved")).to_be_visible()  # a layout is of what is kept
    page.get_by_role("link", name="Next: lay out").click()
    choose(page, "Search for", "30 s")
    page.get_by_role("button", name="Lay out", exact=True).click()
    expect(page.get_by_text("arrangements tried")).to_be_visible()
    page.get_by_role("link", name=re.compile("List")).click()
    row = page.locator('tr[data-part="SH"]')
    row.get_by_label("Note").fill("kept")
    row.get_by_label("Note").press("Tab")
    expect(page.get_by_text("all saved")).to_be_visible()

    app.kill()
    row.get_by_label("Note").fill("typed while it was down")
    row.get_by_label("Note").press("Tab")
    expect(page.get_by_text("1 edit waits for the server")).to_be_visible()

    app.start()
    page.reload()
    note = page.locator('tr[data-part="SH"]').get_by_label("Note")
    expect(note).to_have_value("typed while it was down")
    expect(page.get_by_text("all saved")).to_be_visible()
    expect(page.locator("tr[data-part]")).to_have_count(2)
    page.get_by_role("link", name=re.compile("Lay out")).click()
    # The search goes on with the worker that took it over, and comes to its plan.
    expect(page.locator(".chalked").first).to_be_visible()
    whole = re.compile(r"^5\s*of 5$")
    expect(page.locator(".figure").first).to_have_text(whole)
    expect(page.get_by_text("stays in the rack")).to_have_count(0)
