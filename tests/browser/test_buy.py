"""Buy as a maker does: what to ask for at the desk, boards judged in the aisle with one thumb, the
network gone in the middle, the ticket checked, the cart brought home.
"""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import App
from tests.browser.fields import choose
from tests.browser.test_newcomer import paste
from tests.waiting import until

PHONE = {"width": 390, "height": 844}
INCH = 8128
MILL = "otter-bend"


@pytest.fixture
def listed(page: Page) -> str:
    """A project with a list of ash: eight rails and a wide one; its number."""
    page.goto("/")
    page.get_by_label("Start a new piece").fill("Bench")
    page.keyboard.press("Enter")
    paste(page, "Rail\t8\t24\t2 1/2\t3/4\tash\nSeat\t1\t30\t5\t3/4\tash")
    page.get_by_role("button", name="Add 2 parts").click()
    expect(page.get_by_text("all saved")).to_be_visible()
    return page.url.split("/project/")[1].split("/")[0]


def offers(page: Page, project: str) -> dict[str, Any]:
    found = page.request.get(f"/api/projects/{project}/offers?supplier={MILL}").json()
    return {o["offer"]["board"]["id"]: o for o in found["offers"]}


def look(page: Page, length: str, width: str, trouble: str = "nothing wrong") -> None:
    page.get_by_role("button", name="Look at a board").click()
    page.get_by_label("Length", exact=True).fill(length)
    page.get_by_label("Width", exact=True).fill(width)
    page.get_by_role("button", name=trouble).click()


def test_at_the_desk_suppliers_are_compared(page: Page, listed: str) -> None:
    page.get_by_role("link", name="Buy").first.click()
    expect(page.get_by_text("clear stretches up to").first).to_be_visible()
    expect(page.get_by_text("board feet to ask for")).to_have_count(0)  # the old screen is gone
    page.get_by_role("tab", name="Where, and how much").click()
    page.get_by_role("button", name="Simulate buying it").click()
    mill = page.get_by_role("row").filter(has_text="Otter Bend")
    expect(mill.get_by_role("cell").nth(1)).to_have_text(re.compile(r"\d+\.\d\d"))
    expect(page.locator(".best")).to_contain_text(re.compile("less than the next|about as much as"))
    expect(page.get_by_text("Picked from a pile of").first).to_be_visible()
    expect(page.locator("canvas").first).to_be_visible()


def test_price_books_are_kept_by_hand(page: Page, listed: str) -> None:
    page.goto(f"/project/{listed}/buy?view=suppliers")
    page.get_by_role("button", name=re.compile("Otter Bend")).click()
    price = page.get_by_label("ash 4/4 ungraded asks", exact=True)
    price.fill("4")
    price.press("Enter")
    page.get_by_label("Hours the trip takes").first.fill("1.5")
    page.keyboard.press("Tab")

    def book() -> tuple[float, float]:
        mill = next(
            s for s in page.request.get("/api/suppliers").json()["suppliers"] if s["id"] == MILL
        )
        ash = next(p for p in mill["prices"] if (p["species"], p["quarter"]) == ("ash", "4/4"))
        return ash["asks"], mill["trip_hours"]

    expect(page.get_by_label("Hours the trip takes").first).to_have_value("1.5")
    page.wait_for_function(
        "fetch('/api/suppliers').then(r => r.json()).then(d => d.suppliers.some("
        "s => s.trip_hours === 1.5))"
    )
    assert book() == (4.0, 1.5)


@pytest.mark.offline
def test_nine_boards_of_23_are_chosen_in_the_aisle(page: Page, listed: str, app: App) -> None:
    # The list is made long enough to want many boards.
    page.request.post(
        f"/api/projects/{listed}/offers/pile",
        data={"supplier": MILL, "species": "ash", "quarter": "4/4", "count": 20},
    )
    page.set_viewport_size(PHONE)  # type: ignore[arg-type]
    page.goto(f"/project/{listed}/aisle")
    expect(page.get_by_text("0 of 9 pieces are in the cart")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") == 390

    # A long check through the middle.
    look(page, "84", "6", "a check or split")
    page.get_by_role("button", name="Faults: tap them where they lie").click()
    page.get_by_role("button", name="check", exact=True).click()
    page.locator(".picture svg").click(position={"x": 40, "y": 12})
    for _ in range(3):
        page.get_by_role("button", name="longer by 24").click()
    page.get_by_role("button", name="Judge it").click()
    card = page.locator(".verdict")
    expect(card).to_contain_text("Its faults cost")
    page.get_by_role("button", name="Leave it", exact=True).click()

    # A sound board: a first word from three answers, then the verdict.
    look(page, "84", "6")
    expect(page.get_by_text(re.compile("about .* to this list"))).to_be_visible()
    page.get_by_role("button", name="Ticket, price, grade, moisture").click()
    page.get_by_label("A board foot costs").fill("1.5")
    page.get_by_label("Board feet on the ticket").fill("5")
    page.get_by_role("button", name="Judge it").click()
    expect(card).to_contain_text("Take it")
    expect(card).to_contain_text("the ticket says 1.0 bd ft too much")
    page.get_by_role("button", name="In the cart").click()

    # A twisted one, with the network gone: a first word, and the record waits.
    until(lambda: offers(page, listed)["Y2"]["offer"]["state"] == "cart")
    app.kill()
    look(page, "84", "6", "twisted")
    expect(page.get_by_text(re.compile("to this list|asked"))).to_be_visible()
    page.get_by_role("button", name="Judge it").click()
    expect(page.get_by_text("The server is out of reach")).to_be_visible()
    page.get_by_role("button", name="Leave it", exact=True).click()
    expect(page.get_by_text("1 board waits for the server")).to_be_visible()
    page.reload()
    expect(page.get_by_text("1 board waits for the server")).to_be_visible()
    app.start()
    expect(page.get_by_text("1 board waits for the server")).to_have_count(0)
    there = offers(page, listed)
    assert len(there) == 23
    assert [there[m]["offer"]["state"] for m in ("Y1", "Y2", "Y3")] == ["left", "cart", "left"]
    assert there["Y3"]["offer"]["board"]["warp"]["twist"] > 0

    # Eight more off the pile.
    for mark in [m for m in there if m.startswith("OB")][:8]:
        page.locator(".row", has=page.get_by_text(mark, exact=True)).click()
        page.get_by_role("button", name="In the cart").click()
        expect(page.get_by_text("In the aisle")).to_be_visible()
    expect(page.get_by_text("9 boards,")).to_be_visible()
    expect(page.get_by_text("Enough: the cart gives the whole list")).to_be_visible()

    # At the desk: the ticket says too much, and the cart comes home.
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"/project/{listed}/buy?view=offers")
    expect(page.get_by_text("The tickets ask")).to_be_visible()
    page.get_by_role("button", name="Bought: bring them home").click()
    expect(page.get_by_text("lie in the rack now")).to_be_visible()
    boards = page.request.get(f"/api/projects/{listed}").json()["boards"]
    mine = next(b for b in boards if b["id"] == "Y2")
    assert len(boards) == 9 and mine["price"] == 7.5  # 5 ft of ticket at 1.50
    assert mine["supplier"] == "Otter Bend sawmill"


def test_a_check_that_nobody_has_tapped_is_there_all_the_same(page: Page, listed: str) -> None:
    page.goto(f"/project/{listed}/aisle")
    look(page, "84", "6", "a check or split")
    page.get_by_role("button", name="Judge it").click()
    expect(page.locator(".verdict")).to_contain_text("bd ft by the tape")
    (fault,) = offers(page, listed)["Y1"]["offer"]["board"]["defects"]
    assert (fault["kind"], fault["x1"]) == ("check", round(84 * INCH / 5))


def test_the_cheapest_of_a_pile_go_into_the_cart(page: Page, listed: str) -> None:
    page.goto(f"/project/{listed}/buy?view=offers")
    choose(page, "At", "Lantern Street yard")
    page.get_by_role("button", name="What lies there of ash 4/4").click()
    expect(page.get_by_role("row")).to_have_count(24)
    page.get_by_role("button", name="Choose the cheapest").click()
    expect(page.get_by_text(re.compile(r"Of these 23, take \d"))).to_be_visible()
    page.get_by_role("button", name="Put these in the cart").click()
    expect(page.get_by_text("Enough: stop here.")).to_be_visible()


def test_what_is_bought_besides_boards_is_in_the_cost_of_the_piece(page: Page, demo: int) -> None:
    page.goto(f"/project/{demo}/buy?view=besides")
    for k, (name, many, each) in enumerate((("brass knob", "3", "4.5"), ("glue", "0.5", "18")), 1):
        page.get_by_role("button", name="Add a line").click()
        for label, text in (("What", name), ("How many", many), ("Price of one", each)):
            field = page.get_by_label(f"{label}, line {k}", exact=True)
            field.fill(text)
            field.press("Tab")
    # 3 x 4.50 and half of 18.
    expect(page.locator("tfoot")).to_contain_text("22.50")

    def kept() -> dict[str, Any]:
        found: dict[str, Any] = page.request.get(f"/api/projects/{demo}/materials").json()
        return found

    until(lambda: kept()["cost"] == 22.5)
    account = page.request.get(f"/api/projects/{demo}/account").json()
    wood = account["price"] - account["kept_worth"]
    page.goto(f"/project/{demo}/books")
    expect(page.locator("[data-piece]")).to_contain_text(f"{wood + 22.5:.2f}")
    page.get_by_role("link", name="See the lines").click()
    page.get_by_role("button", name="Remove line 1: brass knob").click()
    until(lambda: [m["name"] for m in kept()["materials"]] == ["glue"])


def test_a_first_look_follows_the_list(page: Page, demo: int) -> None:
    """Twenty arms more of the list cost more, without a reload and before any trip."""

    def about() -> float:
        row = page.get_by_role("row", name=re.compile("Quill & Son, dressed stock about"))
        expect(row).to_be_visible()
        told = re.search(r"about ([\d,.]+)", row.inner_text())
        assert told
        return float(told[1].replace(",", ""))

    page.goto(f"/project/{demo}/buy?view=ways")
    before = about()
    page.get_by_role("link", name=re.compile("List$")).first.click()
    count = page.locator("tr[data-part='AR']").get_by_label("Count")
    count.fill("22")
    count.press("Tab")
    expect(page.get_by_text("all saved")).to_be_visible()
    page.get_by_role("link", name=re.compile("Buy$")).first.click()
    page.get_by_role("tab", name="Where, and how much").click()
    until(lambda: about() > 1.2 * before)
