"""Milling on a tablet at arm's length, by touch and by keys, with readings, a lost network, and the
days beforehand.
"""

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import App
from tests.browser.fields import choose
from tests.waiting import until
from vividplank.core.measure import show
from vividplank.store import layouts
from vividplank.store.database import session


@pytest.fixture
def tablet(browser: Browser, app: App) -> Iterator[Page]:
    context = browser.new_context(
        locale="en-GB", viewport={"width": 1024, "height": 768}, base_url=app.url, has_touch=True
    )
    context.set_default_timeout(120_000)
    yield context.new_page()
    context.close()


def done(project: int) -> set[str]:
    with session() as opened:
        standing = layouts.standing(opened, project)
        assert standing
        return layouts.steps_done(opened, standing.pk)


def first_board(page: Page, project: int) -> list[dict[str, object]]:
    """The steps of the first board, as far as they can be done in one go: without a bandsaw thick
    stock is planed, and nothing has to rest first.
    """
    base = f"/api/projects/{project}/milling-settings"
    settings = page.request.get(base).json()
    if not settings["milling"]["machines"]["off"]:
        settings["milling"]["machines"]["off"] = ["bandsaw"]
        assert page.request.put(base, data=settings).ok
    found: list[dict[str, object]] = page.request.get(f"/api/projects/{project}/milling").json()[
        "routes"
    ][0]["steps"]
    rest = next((k for k, s in enumerate(found) if s["hold"]), len(found))
    return found[:rest]


def button(page: Page) -> str:
    """The words of the one big button; empty while a reading is asked for."""
    big = page.locator("footer .big")
    return big.inner_text() if big.count() else ""


def at(page: Page, step: dict[str, object], forward: Callable[[], None]) -> None:
    """Its turn has come; where its machine has cautions these are understood."""
    does = re.escape(
        re.split(" to | at |:", str(step["do"]))[0]
    )  # fractions look otherwise on the screen
    expect(page.locator("main.machine h1")).to_have_text(
        re.compile(f"^({step['machine']}$|{does})")
    )
    if button(page) == "Understood":
        forward()
    expect(page.locator("section.step h1")).to_have_text(re.compile(f"^{does}"))


def mill_one(page: Page, step: dict[str, object], touch: bool) -> None:
    """One step, whatever it asks for, ending with its tick."""

    def forward() -> None:
        page.locator("footer .big").tap() if touch else page.keyboard.press("Space")

    at(page, step, forward)
    passes = step["passes"]
    assert isinstance(passes, list)
    for n in range(len(passes)):
        expect(page.get_by_label("passes to go")).to_contain_text(str(len(passes) - n))
        forward()
    if page.locator("form.reading").count() or (
        step["dimension"] == "thickness" and step["machine"] == "planer"
    ):
        setting = step["setting"]
        assert isinstance(setting, int)
        field = page.get_by_label("The caliper's reading")
        field.fill(show(setting, "in"))
        page.get_by_role("button", name="That is the reading").tap() if touch else field.press(
            "Enter"
        )
        expect(page.get_by_role("alert")).to_contain_text("that is it")
        if not touch:
            page.locator("h1").click()  # out of the field that is gone
        forward()
    elif not passes:
        forward()


def test_a_whole_board_by_touch_with_a_reading_too_thin_and_the_network_cut(
    demo: int, tablet: Page, app: App
) -> None:
    steps = first_board(tablet, demo)
    tablet.goto(f"/project/{demo}/machine")
    thin = next(s for s in steps if s["kind"] == "thickness")
    cut = len(steps) // 2
    while any(s["kind"] in ("thickness", "finish-thickness") for s in steps[cut : cut + 2]):
        cut += 1  # a reading is judged by the server: the network goes between two readings
    for n, step in enumerate(steps):
        if n == cut:
            until(lambda: {s["key"] for s in steps[:cut]} <= done(demo))  # what was tapped is kept
            tablet.evaluate("navigator.serviceWorker.ready.then(() => true)")
            app.kill()
        if step is thin:
            at(tablet, step, tablet.locator("footer .big").tap)
            for _ in step["passes"]:  # type: ignore[attr-defined]
                tablet.locator("footer .big").tap()
            setting = step["setting"]
            assert isinstance(setting, int)
            tablet.get_by_label("The caliper's reading").fill(show(setting - 8128 // 16, "in"))
            tablet.get_by_role("button", name="That is the reading").tap()
            stopped = tablet.get_by_role("alert").filter(has_text="too thin")
            expect(stopped).to_contain_text("1/16 in too thin")
            expect(stopped).to_contain_text("lay its parts out again")
            assert button(tablet) == "" and step["key"] not in done(demo)
            tablet.get_by_role("button", name="Read it again").tap()
            tablet.get_by_label("The caliper's reading").fill(show(setting, "in"))
            tablet.get_by_role("button", name="That is the reading").tap()
            expect(tablet.get_by_role("alert")).to_contain_text("that is it")
            tablet.locator("footer .big").tap()
        else:
            mill_one(tablet, step, touch=True)
        if n == cut + 1:
            expect(tablet.get_by_text("Out of reach: 2 kept, sent later")).to_be_visible()
            assert step["key"] not in done(demo)
            # nobody answers: what was read before is shown, and what was tapped is not lost
            tablet.reload()
            expect(tablet.locator("section.step h1")).to_be_visible()
            expect(tablet.get_by_text("Out of reach: 2 kept, sent later")).to_be_visible()
            app.start()
            expect(tablet.get_by_text("Out of reach")).to_have_count(0)
            until(lambda key=step["key"]: key in done(demo))  # type: ignore[misc]
    until(lambda: {s["key"] for s in steps} <= done(demo))
    kept = {s["key"]: s["reading"] for s in first_board(tablet, demo)}
    assert kept[thin["key"]] == thin["setting"]
    assert tablet.evaluate("document.documentElement.scrollWidth") <= 1024


def test_a_segment_by_keys_alone(demo: int, tablet: Page) -> None:
    steps = first_board(tablet, demo)[:5]
    tablet.goto(f"/project/{demo}/machine")
    for step in steps:
        mill_one(tablet, step, touch=False)
    until(lambda: {s["key"] for s in steps} <= done(demo))


def test_cautions_come_once_a_day_and_the_next_pieces_can_be_taken(demo: int, tablet: Page) -> None:
    tablet.goto(f"/project/{demo}/machine")
    expect(tablet.get_by_text("manual, local rules and a competent teacher")).to_be_visible()
    tablet.locator("footer .big").tap()
    expect(tablet.locator("section.caution")).to_have_count(0)
    tablet.reload()
    expect(tablet.locator("section.step")).to_be_visible()  # understood for today
    strip = tablet.get_by_label("Next at this setting").get_by_role("button")
    name = strip.first.inner_text()
    strip.first.tap()
    expect(tablet.locator("section.step h1")).to_contain_text(name)


def test_the_days_are_planned_one_setting_moved_and_put_back(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/mill")
    page.get_by_label("The first day").fill("2026-03-09")
    page.get_by_label("The first day").press("Enter")
    page.get_by_role("button", name="Plan the days").click()
    monday = page.get_by_role("region", name="Monday 9 March")
    expect(monday.locator(".setups li").first).to_be_visible()
    expect(
        page.get_by_text(re.compile(r"settings; board by board \d+, never under \d+"))
    ).to_be_visible()
    expect(page.get_by_label("Can be begun now")).to_contain_text("crosscut saw")
    again = page.get_by_role("button", name="Plan what is left again")
    expect(again).to_be_enabled()
    monday.locator(".setups li").last.get_by_role("button", name=re.compile("A day later")).click()
    # By what is held and not by its words: the new order may gather other steps in that setting.
    tuesday = page.get_by_role("region", name="Tuesday 10 March")
    held = re.compile("Let it move again")
    loosen = tuesday.get_by_role("button", name=held)
    expect(loosen).to_have_count(1)
    expect(page.get_by_role("button", name=held)).to_have_count(1)
    loosen.click()
    expect(page.get_by_role("button", name=held)).to_have_count(0)


def test_another_order_for_one_board_and_passes_the_wrong_way(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/mill")
    page.get_by_role("tab", name="Orders of milling").click()
    expect(page.get_by_role("row", name=re.compile("Plane, then rip.*taken"))).to_be_visible()
    page.get_by_role("row", name=re.compile("^Two visits")).get_by_role(
        "button", name="Take it"
    ).click()
    expect(page.get_by_role("row", name=re.compile("Two visits.*taken"))).to_be_visible()
    board = page.request.get(f"/api/projects/{demo}/milling").json()["routes"][0]["board"]
    page.get_by_label("Board, piece or part").fill(board)
    choose(page, "Its order", "By hand")
    page.get_by_role("button", name="Set it").click()
    expect(page.get_by_role("listitem").filter(has_text=f"{board}: By hand")).to_be_visible()
    page.get_by_role("tab", name="Board by board").click()
    page.get_by_role("button", name=re.compile(f"^{board} ")).click()
    expect(page.locator("ol.steps")).to_contain_text("hand plane")
    page.get_by_role("tab", name="See the passes").click()
    choose(page, "Through the", "jointer")
    picture = page.get_by_role("img", name=re.compile("percent of the face is clean"))
    expect(picture).to_have_attribute("aria-label", "Pass 0: 0 percent of the face is clean")
    page.get_by_role("button", name="One more pass").click()
    expect(picture).not_to_have_attribute("aria-label", re.compile(r"Pass [01]: 0 percent"))
    choose(page, "Through the", "planer alone")
    expect(page.get_by_text(re.compile("let it spring back|comes out parallel"))).to_be_visible()
    page.get_by_role("tab", name="Where it is").click()
    page.get_by_label("Find a piece").fill("SL1")
    expect(page.get_by_role("row", name=re.compile("SL1 .*in the rack"))).to_be_visible()


def test_a_shop_s_machine_is_entered_and_its_limit_kept(demo: int, page: Page) -> None:
    page.goto(f"/project/{demo}/mill")
    page.get_by_role("tab", name="The machines").click()
    bed = page.get_by_role("group", name="Jointer").get_by_label("Bed width")
    bed.fill("6")
    bed.press("Enter")
    page.get_by_role("tab", name="Board by board").click()
    expect(
        page.locator("ol.steps").get_by_text(re.compile("the jointer takes 6")).first
    ).to_be_visible()
    page.get_by_role("tab", name="The machines").click()
    bed.fill("0")
    bed.press("Enter")
    expect(page.get_by_text(re.compile("expected a figure over nothing")).first).to_be_visible()
    expect(bed).to_have_value("6")


def test_an_edge_out_of_square_stops_and_says_what_can_be_done(demo: int, tablet: Page) -> None:
    edge = next(s for s in first_board(tablet, demo) if s["kind"] == "edge")
    tablet.goto(f"/project/{demo}/machine")
    expect(tablet.locator("main.machine h1")).to_be_visible()
    while edge["do"] != tablet.locator("main.machine h1").inner_text():
        if button(tablet) == "Understood":
            tablet.locator("footer .big").tap()
        else:
            tablet.get_by_label("The step after").tap()
    tablet.get_by_role("button", name="Something is off").tap()
    tablet.get_by_label("The gap under a square").fill("1/32")
    tablet.get_by_role("button", name="That is the reading").tap()
    stopped = tablet.get_by_role("alert").filter(has_text="out of square")
    expect(stopped).to_contain_text("check the fence against a square")
    assert button(tablet) == ""
    tablet.get_by_role("button", name="Read it again").tap()
    tablet.get_by_label("The gap under a square").fill("0")
    tablet.get_by_role("button", name="That is the reading").tap()
    expect(tablet.get_by_role("alert")).to_contain_text("square: that is it")
    tablet.locator("footer .big").tap()
    until(lambda: edge["key"] in done(demo))
