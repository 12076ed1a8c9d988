"""Draw and List in the real browser: a model to a list, a sketch taken off with two scales, a
pattern made wider.
"""

import re
from pathlib import Path

from playwright.sync_api import Locator, Page, expect

from tests.browser.fields import choose, upload
from tests.browser.test_newcomer import paste
from tests.takeoff.making import a_dxf, dxf_bytes, rectangle
from tests.takeoff.step_files import Assembly, block, place

FIXTURES = Path(__file__).parents[1] / "takeoff" / "fixtures"
CORPUS = Path(__file__).parents[1] / "takeoff" / "corpus"


def start(page: Page, name: str, stage: str) -> None:
    page.goto("/")
    page.get_by_label("Start a new piece").fill(name)
    page.keyboard.press("Enter")
    expect(page.get_by_text("Type the first part")).to_be_visible()
    page.goto(page.url.rsplit("/", 1)[0] + f"/{stage}")


def bring(page: Page, file: Path | dict[str, object]) -> None:
    upload(page, "Bring in a file", file)


def saved(page: Page) -> None:
    expect(page.get_by_text("all saved")).to_be_visible()


def table(height: float = 450, stretcher: bool = False) -> bytes:
    """A table of named pieces, in mm."""
    a = Assembly()
    whole = a.group("Table")
    leg, rail = a.product(block(44, 44, height), "Leg"), a.product(block(600, 20, 70), "Rail")
    for x in (0, 644):
        for y in (0, 400):
            a.put(whole, leg, place(x, y))
    for y in (12, 412):
        a.put(whole, rail, place(44, y, height - 80))
    if stretcher:
        a.put(whole, a.product(block(600, 20, 50), "Stretcher"), place(44, 212, 100))
    return a.write()


def test_a_model_becomes_a_list_and_a_newer_one_shows_what_changed(page: Page) -> None:
    start(page, "Low table", "draw")
    bring(page, {"name": "table.step", "mimeType": "model/step", "buffer": table()})
    expect(page.locator("[data-found]")).to_have_count(2)
    choose(page, "Wood where the drawing names none", "ash")
    page.get_by_role("button", name="Put 2 on the list").click()
    saved(page)
    # The drawing shows the part, and the part its drawing.
    page.locator("[data-found='Rail'] .pick").click()
    assert page.locator("polygon.chosen").count() >= 1
    page.locator("[data-found='Leg'] a").click()
    expect(page.locator("tr[data-part='LE'] input[aria-label='Part']")).to_be_focused()
    expect(page.locator("tr[data-part='LE']").get_by_label("Count")).to_have_value("4")
    expect(page.locator("tr[data-part='RA']").get_by_label("Length")).to_have_value("23.622")

    page.get_by_role("button", name="All of Leg").click()
    page.get_by_role("link", name="Show it on its drawing").click()
    expect(page.locator("[data-found='Leg'].chosen")).to_be_visible()
    newer = {"name": "table.step", "mimeType": "model/step", "buffer": table(480, True)}
    upload(page, "Newer version", newer)
    sheet = page.get_by_role("dialog", name="A newer table.step")
    expect(sheet.get_by_text("2 of 3 differ")).to_be_visible()
    expect(sheet.locator("tr", has_text="Leg")).to_contain_text("other size")
    expect(sheet.locator("tr", has_text="Stretcher")).to_contain_text("new")
    sheet.get_by_role("button", name="Take it over").click()
    expect(sheet).to_be_hidden()
    saved(page)
    page.keyboard.press("2")
    expect(page.locator("tr[data-part]")).to_have_count(3)
    expect(page.locator("tr[data-part='LE']").get_by_label("Length")).to_have_value(
        "18.8976"
    )  # 480 mm
    page.locator("h1").click()
    page.keyboard.press("Control+z")
    expect(page.locator("tr[data-part]")).to_have_count(2)


def at(paper: Locator, x: float, y: float) -> tuple[float, float]:
    """The place on the screen of a point of the picture."""
    found = paper.evaluate(
        "(svg, p) => { const q = new DOMPoint(p[0], p[1]).matrixTransform(svg.getScreenCTM()); "
        "return [q.x, q.y] }",
        [x, y],
    )
    return found[0], found[1]


def press(page: Page, paper: Locator, x: float, y: float) -> None:
    page.mouse.click(*at(paper, x, y))


def drag(page: Page, paper: Locator, a: tuple[float, float], b: tuple[float, float]) -> None:
    page.mouse.move(*at(paper, *a))
    page.mouse.down()
    page.mouse.move(*at(paper, *b), steps=4)
    page.mouse.up()


def test_a_paper_sketch_is_taken_off_with_two_scales(page: Page) -> None:
    start(page, "Rail on paper", "draw")
    bring(page, FIXTURES / "sketch.png")
    paper = page.locator("svg.paper")
    expect(paper).to_be_visible()
    # dia draws 20 pixels to its centimetre: the rail is 320 by 40 pixels, its end 16 by 100.
    press(page, paper, 1.5, 1.5)
    press(page, paper, 321.5, 1.5)
    page.get_by_label("Distance between the two points").fill("40")
    page.get_by_label("Of which view").fill("front")
    page.get_by_role("button", name="Set the scale").click()
    drag(page, paper, (1.5, 1.5), (321.5, 41.5))
    expect(page.get_by_label("Length, as written")).to_have_value("40")
    page.get_by_label("Name of the part").fill("Long rail")
    page.get_by_label("Count of the part").fill("2")
    page.get_by_label("Width, as written").fill("5 1/4")
    page.get_by_label("Width, as written").press("Tab")
    expect(page.get_by_text("the written figure is taken")).to_be_visible()
    page.get_by_label("Width, as written").fill("5")
    page.get_by_label("Width, as written").press("Tab")
    expect(page.get_by_text("the written figure is taken")).to_be_hidden()

    # The end view is drawn larger: a scale of its own, and the thickness from there.
    page.get_by_role("button", name="Set a scale").click()
    press(page, paper, 1.5, 121.5)
    press(page, paper, 1.5, 221.5)
    page.get_by_label("Distance between the two points").fill("5")
    page.get_by_role("button", name="Set the scale").click()
    page.get_by_role("button", name="Take it from another view").click()
    drag(page, paper, (1.5, 121.5), (17.75, 221.5))
    thickness = page.get_by_label("Thickness", exact=True)
    expect(thickness).to_have_value(
        re.compile(r"^(0\.8|13/16)")
    )  # 16 1/4 of 20 pixels to the inch, to the pixel
    page.get_by_role("button", name="Put it on the list").click()
    saved(page)
    page.keyboard.press("Escape")
    page.locator("h1").click()
    page.keyboard.press("2")
    row = page.locator("tr[data-part='LR']")
    expect(row.get_by_label("Length")).to_have_value("40")
    expect(row.get_by_label("Count")).to_have_value("2")


def test_the_settle_made_wider_and_the_list_follows(page: Page) -> None:
    start(page, "Wide settle", "draw")
    page.get_by_role("button", name="Start from a pattern").click()
    page.get_by_role("button", name="Settle", exact=True).click()
    sheet = page.get_by_role("dialog", name="Start from a pattern")
    expect(sheet.locator("figure")).to_have_count(3)
    expect(sheet.get_by_text("of its width for each 1 % of moisture")).to_be_visible()
    sheet.get_by_role("button", name="Put its 9 parts on the list").click()
    crest = page.locator("tr[data-part='CR']")
    expect(crest.get_by_label("Length")).to_have_value("52")
    page.get_by_role("button", name="Measures (22)").click()
    page.get_by_label("Formula of W", exact=True).fill("60")
    page.get_by_label("Formula of W", exact=True).press("Tab")
    expect(crest.get_by_label("Length")).to_have_value("58")
    # A formula typed into a cell says what it comes to before it is kept; a wrong one is refused,
    # and nothing is lost.
    cell = page.locator("tr[data-part='MU'] td[data-column='length'] input")
    cell.fill("=tall + 1")
    expect(page.get_by_text("= 15 1/4 in")).to_be_visible()
    cell.press("Enter")
    saved(page)
    expect(cell).to_have_value("15 1/4")
    cell.fill("=taller + 1")
    expect(page.get_by_text("asks for 'taller', which is no measure here")).to_be_visible()
    cell.press("Enter")
    expect(page.get_by_text("Not saved:")).to_be_visible()
    page.reload()
    expect(cell).to_have_value("15 1/4")


def test_many_rows_at_once_filled_down_pasted_over_and_undone(page: Page) -> None:
    start(page, "Cabinet", "list")
    rows = "\n".join(f"Shelf {k}\t1\t{20 + k}\t8\t3/4\tash" for k in range(5))
    paste(page, rows)
    page.get_by_role("button", name="Add 5 parts").click()
    marks = page.locator("tr[data-part]")
    expect(marks).to_have_count(5)
    page.get_by_label("Choose S0", exact=True).check()
    page.get_by_label("Choose S3", exact=True).click(modifiers=["Shift"])
    wood = page.locator("td[data-column='species'] input")
    wood.nth(1).fill("cherry")
    wood.nth(1).press("Enter")
    assert [wood.nth(k).input_value() for k in range(5)] == ["cherry"] * 4 + ["ash"]
    expect(page.get_by_role("button", name="Undo wood of 4 parts")).to_be_visible()

    lengths = page.locator("td[data-column='length'] input")
    lengths.nth(0).fill("30")
    lengths.nth(0).press("Control+d")
    expect(lengths.nth(3)).to_have_value("30")
    expect(lengths.nth(4)).to_have_value("24")

    lengths.nth(2).focus()
    paste(page, "12\t3\n13\t4 1/2")
    expect(lengths.nth(3)).to_have_value("13")
    expect(page.locator("td[data-column='width'] input").nth(3)).to_have_value("4 1/2")
    saved(page)
    page.locator("h1").click()
    page.keyboard.press("Control+z")
    expect(lengths.nth(3)).to_have_value("30")

    page.get_by_label("Show only parts with").fill("cherry")
    expect(marks).to_have_count(4)
    choose(page, "Order of the list", "by wood and thickness")
    expect(page.locator("tr.group")).to_have_count(1)


def test_the_foreman_asks_and_a_fix_answers(page: Page) -> None:
    start(page, "Odd box", "list")
    paste(
        page,
        "Name\tQty\tLength\tWidth\tThickness\tWood\nEnd\t2\t4\t16\t3/4\tash\nPeg\t8\t3\t1\t1\tash",
    )
    page.get_by_role("button", name="Add 2 parts").click()
    page.get_by_role("button", name="to ask about").click()
    expect(page.get_by_text("End has its grain across.")).to_be_visible()
    expect(page.get_by_text("Peg is too short to mill alone.")).to_be_visible()
    page.get_by_role("button", name="Turn the grain").click()
    expect(page.get_by_text("End has its grain across.")).to_be_hidden()
    expect(page.locator("tr[data-part='EN']").get_by_label("Length")).to_have_value("16")


def test_what_cannot_be_read_is_told_and_a_workbook_is_a_list(page: Page) -> None:
    start(page, "Files", "draw")
    bring(page, {"name": "table.step", "mimeType": "model/step", "buffer": table()[:9000]})
    expect(page.locator(".note", has_text="STEP file")).to_be_visible()
    bring(page, {"name": "notes.xyz", "mimeType": "text/plain", "buffer": b"hello"})
    expect(page.get_by_text("'notes.xyz' is of a kind that is not read here")).to_be_visible()
    bring(page, FIXTURES / "list.xlsx")
    page.get_by_role("button", name="Read it as a parts list").click()
    expect(page.get_by_text("'many' is no count")).to_be_visible()
    page.get_by_role("button", name="Add 4 parts").click()
    expect(page.locator("tr[data-part]")).to_have_count(4)


def a_drawing() -> bytes:
    """Three rails in a frame, two of them with a gap in their outline, and an old one on a layer
    that is switched off.
    """
    document, space = a_dxf()
    document.layers.add("OLD").off()  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(-200, -200, 1414, 1000), close=True)  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True)  # type: ignore[attr-defined]
    for y in (150, 300):
        corners = rectangle(0, y, 500, 60)
        for k, (a, b) in enumerate(zip(corners, corners[1:] + corners[:1], strict=True)):
            space.add_line(a, (b[0] - 0.05, b[1]) if k == 0 else b)  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(0, 450, 400, 50), close=True, dxfattribs={"layer": "OLD"})  # type: ignore[attr-defined]
    space.add_text("Long rail", dxfattribs={"insert": (200, 30)})  # type: ignore[attr-defined]
    for y in (170, 320):
        space.add_text("Short rail", dxfattribs={"insert": (200, y)})  # type: ignore[attr-defined]
    return dxf_bytes(document)


def test_a_drawing_with_a_frame_a_hidden_layer_and_gaps_is_the_right_list_after_two_taps(
    page: Page,
) -> None:
    start(page, "Rails", "draw")
    bring(page, {"name": "rails.dxf", "mimeType": "image/vnd.dxf", "buffer": a_drawing()})
    expect(page.locator("[data-found]")).to_have_count(2)
    expect(page.locator("[data-found='Short rail']")).to_contain_text("2 × Short rail")
    expect(page.get_by_text("3 of 4 shapes are parts")).to_be_visible()
    expect(page.locator("[data-decision='gap']")).to_contain_text(
        "Closed: 2 outlines, open by 0.05 mm"
    )
    # What was taken as a frame is shown on the drawing, and drawn as no part.
    frame = page.locator("[data-decision='frame']")
    frame.get_by_text("A frame: the outline of").click()
    expect(page.locator("polygon.chosen.left")).to_have_count(1)
    # One tap: the layer that is switched off counts after all.
    hidden = page.locator("[data-decision='hidden']")
    expect(hidden).to_contain_text("Left out: 1 thing on the layer 'OLD', which is switched off")
    hidden.get_by_role("button", name="They count").click()
    expect(page.locator("[data-found]")).to_have_count(3)
    expect(page.locator("[data-decision='hidden']")).to_contain_text("turned round")
    page.get_by_label("Thickness of the 3 drawn flat").fill("19")
    page.get_by_label("Thickness of the 3 drawn flat").press("Tab")
    # The other: they are put on the list.
    page.get_by_role("button", name="Put 3 on the list").click()
    saved(page)
    page.get_by_role("link", name="All on the list: go there").click()
    expect(page.locator("tr[data-part]")).to_have_count(3)
    expect(page.locator("tr[data-part='SR']").get_by_label("Count")).to_have_value("2")


def test_a_german_list_with_thickness_first_is_the_right_list_after_one_tap(page: Page) -> None:
    start(page, "Shelves", "draw")
    rows = (
        "Stärke (mm);Breite (mm);Länge "
        "(mm);Stück;Holz;Bauteil\n19;286;762;2;Eiche;Seite\n22;95,5;1143;1;Esche;Sockel\n"
    )
    bring(page, {"name": "liste.csv", "mimeType": "text/csv", "buffer": rows.encode("cp1252")})
    dialog = page.get_by_role("dialog", name="Read from the list")
    expect(dialog.locator("tr", has_text="Seite")).to_contain_text(
        re.compile(r"2\s*30\s*in")
    )  # 762 mm
    dialog.get_by_role("button", name="Add 2 parts").click()
    expect(page.locator("tr[data-part]")).to_have_count(2)
    expect(page.locator("tr[data-part='SE']").get_by_label("Count")).to_have_value("2")
    expect(page.locator("tr[data-part='SE']").get_by_label("Length")).to_have_value("30")


def test_headings_nobody_knows_are_confirmed_once_and_remembered(page: Page) -> None:
    heads = "Ding\tMenge hier\tErste Seite\tZweite Seite\tDritte Seite\tSorte\n"
    rows = heads + "Zarge\t2\t44 1/2\t3 1/4\t13/16\tash\nBein\t4\t17\t1 3/4\t1 3/4\tash"
    start(page, "Stool", "draw")
    bring(page, {"name": "liste.tsv", "mimeType": "text/plain", "buffer": rows.encode()})
    dialog = page.get_by_role("dialog", name="Read from the list")
    question = dialog.locator("[data-question='columns']")
    expect(question).to_contain_text("Are these columns right?")
    expect(dialog.get_by_role("button", name="Add 2 parts")).to_be_disabled()
    # A proposal that is wrong is changed where it stands.
    question.get_by_label("What Dritte Seite holds").press("Enter")
    page.get_by_role("option", name="Into the note").click()
    expect(dialog.get_by_role("button", name="Add 0 parts")).to_be_visible()
    question.get_by_label("What Dritte Seite holds").press("Enter")
    page.get_by_role("option", name="Thickness").click()
    question.get_by_role("button", name="They are right").click()
    dialog.get_by_role("button", name="Add 2 parts").click()
    expect(page.locator("tr[data-part='ZA']").get_by_label("Thickness")).to_have_value("13/16")
    saved(page)
    # The next list with these headings, in another piece, asks nothing.
    start(page, "Second stool", "draw")
    bring(page, {"name": "liste.tsv", "mimeType": "text/plain", "buffer": rows.encode()})
    expect(dialog.get_by_role("button", name="Add 2 parts")).to_be_enabled()
    expect(dialog.locator("[data-question]")).to_have_count(0)
    expect(
        dialog.get_by_text("As you said before of these headings: Ding, Menge hier")
    ).to_be_visible()


def test_several_boards_in_one_body_are_parted_by_one_tap(page: Page) -> None:
    start(page, "Drawer", "draw")
    bring(page, CORPUS / "cadquery" / "fused-drawer.step")
    asked = page.locator("[data-decision='fused']")
    expect(asked).to_contain_text("is it several boards in one body?")
    expect(page.locator("polygon.doubtful").first).to_be_visible()
    asked.get_by_role("button", name="Part it into 3 boards").click()
    expect(page.locator("[data-found]")).to_have_count(2)
    expect(page.locator("[data-found]").last).to_contain_text("2 × ")
    expect(
        page.locator("[data-decision='fused']").get_by_role("button", name="As it was")
    ).to_be_visible()
