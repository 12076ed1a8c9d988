"""A part's own sheet, and the ways out of the list, in the real browser."""

import io
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.fields import choose, from_menu, select
from tests.browser.test_newcomer import paste
from tests.takeoff.making import taken_off

ROWS = (
    "Name\tQty\tLength\tWidth\tThickness\tWood\nBack\t1\t40\t30\t1/4\tbirch "
    "ply\nRail\t2\t34\t2 3/4\t13/16\tash"
)


def start(page: Page) -> str:
    page.goto("/")
    page.get_by_label("Start a new piece").fill("Cabinet")
    page.keyboard.press("Enter")
    paste(page, ROWS)
    page.get_by_role("button", name="Add 2 parts").click()
    expect(page.locator("tr[data-part]")).to_have_count(2)
    expect(page.get_by_text("all saved")).to_be_visible()
    return page.url.rsplit("/", 1)[0]


def got(page: Page, link: str) -> bytes:
    with page.expect_download() as started:
        page.get_by_role("link", name=link).click()
    return Path(started.value.path()).read_bytes()


def taken(page: Page, item: str) -> bytes:
    with page.expect_download() as started:
        from_menu(page, "Take it along", item)
    return Path(started.value.path()).read_bytes()


def test_a_sheet_part_with_edging_goes_into_buy(page: Page) -> None:
    base = start(page)
    page.get_by_role("button", name="All of Back").click()
    sheet = page.get_by_role("dialog", name="BA: Back")
    choose(sheet, "Cut from", "a sheet")
    choose(sheet, "Solid edging", "all round")
    expect(sheet.get_by_text("the edging makes the rest")).to_contain_text("39 1/2 × 29 1/2")
    choose(sheet, "Grain of the sheet", "does not matter")
    page.keyboard.press("Escape")
    expect(page.locator("tr[data-part='BA']")).to_contain_text("sheet")
    expect(page.get_by_text("all saved")).to_be_visible()
    page.goto(base + "/buy")
    expect(page.get_by_text("2 pieces: Rail")).to_be_visible()
    page.get_by_role("tab", name="Sheets and lengths").click()
    expect(page.get_by_text("1 sheet", exact=True)).to_be_visible()


def test_the_figure_a_part_is_to_show_stays_with_it_and_can_be_looked_for(page: Page) -> None:
    start(page)
    page.get_by_role("button", name="All of Rail").click()
    choose(page.get_by_role("dialog"), "Show this figure", "straight")
    page.keyboard.press("Escape")
    expect(page.get_by_text("all saved")).to_be_visible()
    page.reload()
    page.get_by_role("button", name="All of Rail").click()
    expect(select(page, "Show this figure")).to_have_text("straight")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_placeholder("only those with").fill("straight")
    expect(page.locator("tr[data-part]")).to_have_count(1)
    expect(page.locator("tr[data-part='RA']")).to_be_visible()


def test_the_list_is_taken_along_in_every_form(page: Page) -> None:
    start(page)
    assert taken(page, "Cut list on paper, PDF").startswith(b"%PDF")
    assert taken_off(taken(page, "Workbook, XLSX"), "x.xlsx").table.count("\n") == 2
    assert len(taken_off(taken(page, "Outlines, DXF"), "x.dxf").parts) == 2
    from_menu(page, "Take it along", "Labels for the parts, PDF")
    labels = page.get_by_role("dialog", name="Labels")
    labels.get_by_label("Labels across").fill("2")
    labels.get_by_label("Width, mm").fill("90")
    content = got(page, "Make the PDF")
    import pypdfium2

    text = pypdfium2.PdfDocument(io.BytesIO(content))[0].get_textpage().get_text_range()
    assert "2 of 2, ash" in text and "40 x 30 x 1/4" in text
    page.reload()
    from_menu(page, "Take it along", "Labels for the parts, PDF")
    expect(labels.get_by_label("Width, mm")).to_have_value(
        "90"
    )  # the paper in the shop stays the same


def test_the_code_on_a_label_opens_the_part(page: Page) -> None:
    base = start(page)
    page.goto(base + "/list?part=RA")
    expect(page.locator("tr[data-part='RA'] input[aria-label='Part']")).to_be_focused()


def test_a_length_is_divided(page: Page) -> None:
    start(page)
    page.get_by_role("button", name="Divide a length").click()
    sheet = page.get_by_role("dialog", name="Divide a length")
    expect(sheet.get_by_text("left over went to the top opening")).to_be_visible()
    sheet.get_by_label("Clear height").fill("30")
    sheet.get_by_label("Clear height").press("Enter")
    expect(sheet.get_by_text("too little")).to_be_visible()
    sheet.get_by_role("button", name="So many slats").click()
    sheet.get_by_label("Between the posts").fill("48")
    sheet.get_by_label("Width of a slat").fill("3 1/4")
    sheet.get_by_label("How many").fill("7")
    sheet.get_by_label("How many").press("Enter")
    expect(sheet.locator("rect.thing")).to_have_count(7)


def test_the_header_of_a_long_list_stays_in_view(page: Page, demo: int) -> None:
    page.set_viewport_size({"width": 1024, "height": 480})
    page.goto(f"/project/{demo}/list")
    last = page.locator("tr[data-part]").last
    last.scroll_into_view_if_needed()
    expect(last).to_be_in_viewport()
    header = page.get_by_role("columnheader", name="Thickness")
    expect(header).to_be_in_viewport(ratio=0.9)
    covered = header.evaluate(
        "th => { const r = th.getBoundingClientRect();"
        " return th.contains(document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2)); }"
    )
    assert covered
