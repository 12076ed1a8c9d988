"""The whole way as a newcomer goes it: new project, pasted parts, three boards, lay out, mill,
books.
"""

import re

from playwright.sync_api import Page, expect

from tests.browser.fields import choose

ROWS = (
    "Part\tCount\tLength\tWidth\tThickness\tWood\tFaces\n"
    "Bench leg\t4\t16 1/2\t2\t1 1/2\tash\tclear-two\n"
    "Long rail\t2\t34\t2 3/4\t13/16\tash\tclear-one\n"
    "Short rail\t2\t11\t2 3/4\t13/16\tash\tclear-one\n"
    "Top board\t2\t40\t4 1/2\t13/16\tash\tclear-one\n"
    "Odd one\t1\tabout 3\t2\t1\tash\tsound\n"
)
BOARDS = [
    {
        "Length": "8' 2\"",
        "Width at the datum end": "7 1/2",
        "Thickness at the datum end": "1 1/16",
        "Bow": "3/16",
    },
    {
        "Length": "1.9 m",
        "Width at the datum end": "190mm",
        "Thickness at the datum end": "27 mm",
        "Cup": "1/16",
    },
    {
        "Length": "50",
        "Width at the datum end": "5 3/4",
        "Thickness at the datum end": "2 1/16",
        "Twist": "1/16",
    },
]


def paste(page: Page, text: str) -> None:
    """What the clipboard does on the List, without the clipboard."""
    expect(page.locator("table.grid")).to_be_visible()
    page.evaluate(
        """text => { const data = new DataTransfer(); data.setData('text/plain', text);
        const said = { clipboardData: data, bubbles: true };
        window.dispatchEvent(new ClipboardEvent('paste', said)) }""",
        text,
    )


def test_from_an_empty_shelf_to_an_account_that_closes(page: Page) -> None:
    page.goto("/")
    expect(page.get_by_text("The shelf is empty")).to_be_visible()
    page.get_by_label("Start a new piece").fill("Porch bench")
    page.get_by_role("button", name="Start").click()

    expect(page.get_by_text("Type the first part")).to_be_visible()
    paste(page, ROWS)
    expect(page.get_by_text("Not understood")).to_be_visible()
    expect(page.get_by_text("'about 3' cannot be read as a length")).to_be_visible()
    page.get_by_role("button", name="Add 4 parts").click()
    expect(page.locator("tr[data-part]")).to_have_count(4)

    page.get_by_role("link", name="Next: buy").click()
    page.get_by_role("link", name="Next: boards").click()
    page.get_by_role("button", name="Try it with a supplier's boards").click()
    expect(page.get_by_role("link", name="Next: lay out")).to_be_visible()
    expect(page.get_by_role("navigation", name="Boards in the rack")).to_contain_text("T1")
    page.get_by_role("button", name="Undo boards to try it with").click()
    expect(page.get_by_text("The rack is empty")).to_be_visible()
    for board in BOARDS:
        page.get_by_role("button", name="Add a board").click()
        sheet = page.get_by_role("dialog", name="A board on hand")
        for label, text in board.items():
            sheet.get_by_label(label).first.fill(text)
        sheet.get_by_label("Price, nothing if owned").fill("20")
        sheet.get_by_role("button", name="Put it in the rack").click()
        expect(sheet).to_be_hidden()
    expect(page.locator(".rack button")).to_have_count(3)
    expect(page.get_by_text("flat, in thirds")).to_be_visible()
    expect(page.get_by_text("all saved")).to_be_visible()

    page.get_by_role("link", name="Next: lay out").click()
    choose(page, "Search for", "5 s")
    page.get_by_role("button", name="Lay out", exact=True).click()
    expect(page.get_by_role("button", name="Lay out again")).to_be_visible()
    expect(page.locator(".figure").first).to_have_text(re.compile(r"^10\s*of 10$"))
    expect(page.locator(".chalked").first).to_be_visible()

    page.get_by_role("link", name=re.compile("Mill")).click()
    page.get_by_role("tab", name="Board by board").click()
    expect(page.get_by_role("heading", name=re.compile("Crosscut"))).not_to_have_count(0)
    expect(page.get_by_text("hollow side down").first).to_be_visible()
    page.get_by_role("checkbox").first.check()
    expect(page.locator(".figure").first).to_have_text(re.compile(r"^1\s*of"))

    page.get_by_role("link", name=re.compile("Books")).click()
    told = page.locator("[data-closes]").inner_text()
    added, rough = re.findall(r"\d+\.\d{4}", told)
    assert added == rough and float(rough) > 10


def test_undo_and_redo_by_keys(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Start a new piece").fill("Stool")
    page.keyboard.press("Enter")
    paste(page, "Leg\t3\t18\t1 1/2\t1 1/2\tash")
    page.get_by_role("button", name="Add 1 part").click()
    expect(page.locator("tr[data-part]")).to_have_count(1)
    field = page.get_by_label("Length", exact=True)
    field.fill("17 1/4")
    field.press("Enter")
    expect(page.get_by_role("button", name="Undo length of LE")).to_be_visible()
    page.locator("h1").click()
    page.keyboard.press("Control+z")
    expect(field).to_have_value("18")
    page.keyboard.press("Control+Shift+z")
    expect(field).to_have_value("17 1/4")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Help")).to_be_visible()


def test_a_part_typed_by_keyboard_alone(page: Page) -> None:
    page.goto("/")
    expect(
        page.get_by_text("The shelf is empty")
    ).to_be_visible()  # there is somebody to press keys for
    page.keyboard.press("n")
    expect(page.get_by_label("Start a new piece")).to_be_focused()
    page.keyboard.type("Shelf")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Type the first part")).to_be_visible()
    page.keyboard.press("n")
    page.keyboard.type("Side")
    for text in ("2", "1' 4 1/2\"", "200 mm", "3/4", "cherry"):
        page.keyboard.press("Tab")
        page.keyboard.type(text)
    page.keyboard.press("Enter")
    row = page.locator('tr[data-part="SI"]')
    expect(row.get_by_label("Length")).to_have_value("16 1/2")
    expect(row.get_by_label("Width")).to_have_value("7.874")
    expect(row.get_by_label("Count")).to_have_value("2")


def test_the_measure_field_says_what_it_understood_and_keeps_what_it_did_not(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Start a new piece").fill("Box")
    page.keyboard.press("Enter")
    paste(page, "Side\t2\t12\t4\t1/2\tash")
    page.get_by_role("button", name="Add 1 part").click()
    field = page.get_by_label("Width", exact=True)
    field.fill("41.9cm")
    expect(page.get_by_text("16.4961 in = 419 mm")).to_be_visible()
    field.fill("four")
    field.press("Tab")
    expect(page.get_by_text("'four' cannot be read as a length")).to_be_visible()
    expect(field).to_have_value("four")
    page.reload()
    expect(page.get_by_label("Width", exact=True)).to_have_value("4")
