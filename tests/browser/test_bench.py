"""At the bench: a photograph laid under the board on a phone, instruments, outlines, the stock
room.
"""

import re

import pytest
from playwright.sync_api import FloatRect, Locator, Page, expect

from tests.browser.conftest import App
from tests.browser.fields import choose
from tests.making import a_board
from tests.photograph import dark_spot, photographed
from tests.waiting import until
from vividplank.core.measure import TICKS_PER_INCH as INCH

KNOT = (41.3, 2.6)
LONG, WIDE = 60.0, 7.0


def a_project(page: Page, **instruments: str) -> int:
    """One board of 60 by 7 in, made through the API as the page would."""
    made = page.request.post("/api/projects", data={"name": "Bench", "system": "in"}).json()
    board = a_board("W1", LONG, WIDE)
    stations = [{"x": s.x, "y0": s.y0, "y1": s.y1, "t0": s.t0, "t1": s.t1} for s in board.stations]
    change = {
        "label": "a board",
        "version": made["version"],
        "put_boards": [
            {
                "id": "W1",
                "species": "white oak",
                "length": board.length,
                "stations": stations,
                "price": 30,
            }
        ],
    }
    assert page.request.post(f"/api/projects/{made['pk']}/edits", data=change).ok
    place = page.request.get(f"/api/projects/{made['pk']}/workshop").json()
    connected = {
        "name": place["name"],
        "version": place["version"],
        "workshop": place["workshop"] | {"instruments": instruments},
    }
    assert page.request.put(f"/api/workshops/{place['pk']}", data=connected).ok
    return int(made["pk"])


def the_board(page: Page, pk: int) -> dict:  # type: ignore[type-arg]
    return page.request.get(f"/api/projects/{pk}").json()["boards"][0]  # type: ignore[no-any-return]


def still(place: Locator) -> FloatRect:
    """Where something is once it no longer moves."""
    met: list[FloatRect | None] = [None]

    def stands() -> bool:
        met.append(place.bounding_box())
        return met[-1] is not None and met[-1] == met[-2]

    until(stands)
    assert met[-1]
    return met[-1]


def saved(page: Page) -> None:
    expect(page.get_by_text("all saved")).to_be_visible()


def test_a_photograph_straightened_on_a_phone_and_a_knot_placed_on_it(page: Page) -> None:
    pk = a_project(page)
    taken = photographed(a_board("W1", LONG, WIDE), KNOT)
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"/project/{pk}/boards/W1")
    page.get_by_role("button", name="Photograph it").click()
    chooser = page.locator("input[type=file]")
    chooser.set_input_files(
        {"name": "notes.jpg", "mimeType": "image/jpeg", "buffer": b"not a picture"}
    )
    expect(page.get_by_text("This is no photograph")).to_be_visible()
    chooser.set_input_files({"name": "face.jpg", "mimeType": "image/jpeg", "buffer": taken.jpeg})
    for x, y in taken.corners:
        photo = page.locator(".photo")
        box = still(photo)
        # A thumb is off by some pixels; the loupe makes it good.
        rough = (round(x * box["width"] + 5), round(y * box["height"] - 4))
        photo.click(position={"x": rough[0], "y": rough[1]})
        off = (x * box["width"] - rough[0], y * box["height"] - rough[1])
        page.locator(".loupe").click(position={"x": 130 + 6 * off[0], "y": 130 + 6 * off[1]})
    page.get_by_role("button", name="Lay it under the drawing").click()
    expect(page.locator(".drawing image")).to_be_visible()
    saved(page)
    page.get_by_role("button", name="Closer").click()
    # The knot is tapped where it is seen in the straightened picture.
    spot = dark_spot(
        page.request.get(
            f"/api/pictures/{the_board(page, pk)['photos'][0]['picture']}/straight"
        ).body()
    )
    seen = page.locator(".drawing image")
    seen.scroll_into_view_if_needed()
    frame, strip = still(seen), still(page.locator(".drawing"))
    page.locator(".drawing").evaluate(
        "(e, x) => e.scrollLeft = x", spot[0] * frame["width"] - strip["width"] / 2
    )
    frame = still(seen)
    page.mouse.click(frame["x"] + spot[0] * frame["width"], frame["y"] + spot[1] * frame["height"])
    expect(page.locator(".drawing .fault")).to_have_count(1)
    saved(page)
    (fault,) = the_board(page, pk)["defects"]
    middle = ((fault["x0"] + fault["x1"]) / 2 / INCH, (fault["y0"] + fault["y1"]) / 2 / INCH)
    assert middle == (pytest.approx(KNOT[0], abs=1 / 8), pytest.approx(KNOT[1], abs=1 / 8))
    assert fault["shape"] == "ellipse"


def test_readings_go_where_the_cursor_is(page: Page) -> None:
    pk = a_project(
        page, caliper="simulated", moisture="simulated", metal="simulated", scanner="simulated"
    )
    page.goto(f"/project/{pk}/boards/W1")
    reading = page.get_by_role("button", name="Take reading")
    expect(reading).to_be_disabled()
    before = the_board(page, pk)["stations"][0]["t1"]
    page.get_by_label("Thick, far edge").first.focus()
    expect(reading).to_contain_text("thick, far edge at 0")
    page.keyboard.press("Control+Enter")
    for _ in range(6):  # now and then its jaws slip
        changed = page.get_by_text(re.compile("Undo measures"))
        if changed.or_(page.get_by_role("alert")).first.is_visible() and not changed.is_visible():
            page.get_by_role("button", name="Read again").click()
    expect(page.get_by_text(re.compile("Undo measures"))).to_be_visible()
    saved(page)
    after = the_board(page, pk)["stations"][0]["t1"]
    assert after != before and after == pytest.approx(before, abs=0.08 * INCH)
    page.get_by_role("button", name="Scan both faces").click()
    expect(
        page.get_by_text("As scanned:").or_(page.get_by_text("The board was moved")).first
    ).to_be_visible()
    if page.get_by_text("The board was moved").is_visible():
        page.get_by_role("button", name="Scan both faces").click()
    expect(page.get_by_text("sure to")).to_be_visible()
    saved(page)
    assert the_board(page, pk)["surface"]
    page.get_by_text("Show what has to come off each face").click()
    assert page.locator(".depth rect").count() == 2 * 40 * 8
    page.get_by_role("button", name="Go by figures again").click()
    expect(page.get_by_label("Bow, under its middle")).to_be_visible()
    saved(page)
    assert the_board(page, pk)["surface"] is None and any(the_board(page, pk)["warp"].values())


def test_an_outline_is_tapped_round_and_one_that_crosses_itself_refused(page: Page) -> None:
    pk = a_project(page)
    page.goto(f"/project/{pk}/boards/W1")
    choose(page, "Tap the board, or draw across it, to mark", "wane")
    board = page.locator(".drawing svg").nth(1)
    expect(board).to_be_visible()

    def round_about(*places: tuple[int, int]) -> None:
        page.get_by_role("button", name="Draw its outline").click()
        for x, y in places:
            board.click(position={"x": x, "y": y})
        page.get_by_role("button", name="Close it").click()

    round_about((100, 20), (200, 20), (150, 60))
    expect(page.locator(".drawing polygon[stroke='#3b220d']")).to_have_count(1)
    saved(page)
    round_about((300, 20), (400, 60), (300, 60), (400, 20))
    expect(page.get_by_text("The outline crosses itself")).to_be_visible()
    expect(page.get_by_text("4 corners")).to_be_visible()  # nothing is lost
    page.get_by_role("button", name="Take one back").click()
    page.get_by_role("button", name="Take one back").click()
    page.get_by_role("button", name="Leave it").click()
    faults = the_board(page, pk)["defects"]
    assert [f["shape"] for f in faults] == ["outline"] and len(faults[0]["points"]) == 3
    # Drawn across, a fault has the size that was drawn.
    choose(page, "Tap the board, or draw across it, to mark", "rot")
    box = board.bounding_box()
    assert box
    page.mouse.move(box["x"] + 306, box["y"] + 30)
    page.mouse.down()
    page.mouse.move(box["x"] + 406, box["y"] + 60, steps=4)
    page.mouse.up()
    expect(page.get_by_role("button", name=re.compile("^rot at"))).to_be_visible()
    saved(page)
    rot = the_board(page, pk)["defects"][-1]
    scale = float(board.get_attribute("width") or 0) - 12
    assert rot["x1"] - rot["x0"] == pytest.approx(100 / scale * LONG * INCH, rel=0.03)


def test_the_stock_room_on_desk_and_phone(page: Page, app: App) -> None:
    pk = a_project(page)
    page.goto("/")
    page.get_by_role("link", name="Stock room").click()
    expect(page.get_by_role("button", name=re.compile("^W1"))).to_be_visible()
    page.get_by_label("A piece so thick").fill("7/8")
    page.get_by_label("so long").fill("40")
    page.get_by_label("so long").press("Enter")
    expect(page.get_by_text("comes out from")).to_be_visible()
    page.get_by_label("so long").fill("70")
    page.get_by_label("so long").press("Enter")
    expect(page.get_by_text("No board here holds that")).to_be_visible()
    page.get_by_role("button", name="Show all").click()
    choose(page, "Carry W1 to", "the rack")
    expect(page.locator(".where b")).to_have_text("the rack")
    page.set_viewport_size({"width": 390, "height": 844})
    page.get_by_role("button", name=re.compile("^W1")).click()
    expect(page.get_by_role("link", name="← Stock room")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert page.request.get(f"/api/projects/{pk}").json()["boards"] == []
