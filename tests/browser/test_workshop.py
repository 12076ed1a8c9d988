"""The workshop: people, what it has learned, its books, and a project made in another one."""

from playwright.sync_api import Page, expect

from tests.browser.fields import choose
from tests.waiting import until
from vividplank.core.measure import TICKS_PER_INCH as INCH


def set_at(page: Page) -> list[tuple[str, int]]:
    """The name of each workshop, and the width of its jointer, as kept."""
    kept = page.request.get("/api/workshops").json()["workshops"]
    return [(w["name"], w["workshop"]["machines"]["jointer"]["bed_width"]) for w in kept]


def test_from_a_stage_to_the_workshop_and_back_to_the_machine(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/mill?view=machines")
    page.get_by_role("link", name="Open the workshop").click()
    expect(page.get_by_role("heading", name="Workshop")).to_be_visible()
    page.get_by_role("tab", name="What it has learned").click()
    expect(page.get_by_text("Nothing yet. Tick steps off")).to_be_visible()
    page.get_by_role("tab", name="Books of all projects").click()
    expect(page.get_by_text("Nothing has been cut yet")).to_be_visible()
    page.get_by_role("tab", name="People").click()
    page.get_by_label("Who works here too").fill("Wren")
    page.get_by_role("button", name="Add").click()
    choose(page, "At this screen works", "Wren")

    found = page.request.get(f"/api/projects/{demo}/milling").json()
    step = found["routes"][0]["steps"][0]
    page.goto(f"/project/{demo}/machine")
    expect(page.get_by_label("At work", exact=True).first).to_be_visible()
    big = page.locator("footer .big")
    big.click()  # the cautions
    expect(big).to_have_text("Done")
    big.click()
    until(lambda: "Wren" in page.request.get(f"/api/projects/{demo}/log").text())
    page.goto(f"/project/{demo}/mill?view=log")
    expect(page.get_by_role("row").filter(has_text=step["key"])).to_contain_text("Wren")

    body = {"key": step["key"], "done": True, "minutes": 30, "who": "Wren"}
    url = f"/api/layouts/{found['layout']}/steps"
    assert page.request.put(url, data=body).ok
    page.goto("/workshop?view=learned")
    used = page.get_by_role("switch", name=f"Minutes at the machine of {step['machine']} is used")
    expect(used).to_be_checked()
    page.locator(".el-switch").first.click()
    expect(used).not_to_be_checked()
    page.get_by_role("tab", name="Books of all projects").click()
    region = page.get_by_role("region", name="Where the wood of all projects went")
    expect(region.get_by_role("row").filter(has_text="Together")).to_contain_text("1")
    with page.expect_download() as got:
        page.get_by_role("link", name="CSV").click()
    assert got.value.suggested_filename.endswith(".csv")


def test_a_project_is_made_in_another_workshop(demo: int, page: Page) -> None:
    page.goto("/workshop")
    page.get_by_role("button", name="Another workshop like it").click()
    name = page.get_by_label("Its name")
    expect(name).to_have_value("Another workshop")
    name.fill("The school")
    name.press("Enter")
    expect(page.get_by_text("No project is made in it yet")).to_be_visible()
    width = page.get_by_label("Bed width")
    width.fill("4")
    width.press("Tab")
    until(lambda: set_at(page) == [("Our workshop", 8 * INCH), ("The school", 4 * INCH)])
    page.goto(f"/project/{demo}/mill?view=machines")
    expect(page.get_by_label("Bed width")).to_have_value("8")
    choose(page, "Made in", "The school")
    expect(page.get_by_label("Bed width")).to_have_value("4")
    page.reload()
    expect(page.get_by_label("Bed width")).to_have_value("4")


def test_what_pieces_needed_is_taken_as_the_allowance_by_one_tap(demo: int, page: Page) -> None:
    """Faces that took three passes more than foretold; and a part named for a board."""
    found = page.request.get(f"/api/projects/{demo}/milling").json()
    faces = [s for r in found["routes"] for s in r["steps"] if s["kind"] == "face" and s["passes"]]
    for face in faces:
        body = {"key": face["key"], "done": True, "passes": len(face["passes"]) + 3}
        assert page.request.put(f"/api/layouts/{found['layout']}/steps", data=body).ok
    page.goto(f"/project/{demo}/layout")
    page.get_by_role("button", name="The shop", exact=True).click()
    sheet = page.get_by_role("dialog")
    over = sheet.get_by_label("Over in thickness")
    expect(over).to_have_value("1/32")
    sheet.get_by_role("button", name="Take it in thickness").click()
    expect(over).not_to_have_value("1/32")
    expect(sheet.get_by_role("button", name="Take it in thickness")).to_have_count(0)

    page.goto(f"/project/{demo}/list")
    page.get_by_role("button", name="All of Back slat").click()
    choose(page, "Comes out of", "O3")

    def kept() -> str:
        parts = page.request.get(f"/api/projects/{demo}").json()["parts"]
        return next(str(p["from_board"]) for p in parts if p["id"] == "SL")

    until(lambda: kept() == "O3")
