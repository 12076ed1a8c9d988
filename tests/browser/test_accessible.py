"""Every screen and sheet by the rules of WCAG 2.2 A and AA, as far as a program can tell, at the
desk, at the machine and in the yard.
"""

from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass

import pytest
from playwright.sync_api import Browser, Page, TimeoutError, expect

from tests.browser.conftest import App
from tests.conftest import ROOT

AXE = ROOT / "frontend" / "node_modules" / "axe-core" / "axe.min.js"
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
STAGES = (
    "draw",
    "list",
    "buy",
    "buy?view=ways",
    "buy?view=offers",
    "buy?view=besides",
    "buy?view=suppliers",
    "aisle",
    "aisle?look",
    "boards/O3",
    "survey",
    "layout",
    "chalk",
    "mill",
    "machine",
    "books",
)
WORKSHOP = tuple(f"/workshop?view={v}" for v in ("machines", "room", "people", "learned", "books"))
#: Sheets, by the stage they open from and the button that opens them.
SHEETS = (
    ("machine", "Something happened"),
    ("list", "Shop allowances"),
    ("list", "All of Back slat"),
    ("list", "Divide a length"),
    ("boards", "Add a board"),
    ("draw", "Start from a pattern"),
)
#: Sheets that keys open, anywhere.
KEYS = (("?", "Help"), ("Control+k", "Find"))
VIEWS = ("Board by board", "Orders of milling", "See the passes", "Where it is", "The machines")
VIEWS += ("What happened",)
#: Each screen is loaded once and looked at in these sizes, by mouse at the desk and by touch else.
SIZES = {"desk": (1280, 800), "machine": (1024, 768), "yard": (390, 844)}
#: Rules that take most of the time: colours are the same in every size, and what is large enough at
#: the desk and in the yard is at the machine.
LEFT_OUT = {
    "desk": [],
    "machine": ["color-contrast", "target-size"],
    "yard": ["color-contrast"],
}


_AT_ONCE = 5


def faults(page: Page, where: str, left_out: list[str]) -> list[str]:
    """What breaks a rule, and where on the page, or in the sheet that lies over it."""
    answer = page.evaluate(
        """([rules, leftOut]) => {
            const sheets = [...document.querySelectorAll('.el-overlay-dialog')];
            const sheet = sheets.find(s => s.checkVisibility());
            return axe.run(sheet ?? document, {
                runOnly: { type: 'tag', values: rules },
                rules: {
                    ...Object.fromEntries(leftOut.map(rule => [rule, { enabled: false }])),
                    'label-content-name-mismatch': { enabled: false },  // experimental
                    // The library names an option that is not there while none is lit.
                    'aria-valid-attr-value': { enabled: !sheet?.querySelector('.el-autocomplete') },
                },
            });
        }""",
        [RULES, left_out],
    )
    return [
        f"{where}: {v['id']}: {n['failureSummary']}: {n['html'][:160]}"
        for v in answer["violations"]
        for n in v["nodes"][:3]
    ]


@dataclass(frozen=True)
class Place:
    """A screen, by its address in the project or in the house, and what opens a sheet on it."""

    address: str
    what: str = ""
    act: Callable[[Page], None] = lambda page: None


def _sheet(stage: str, button: str) -> Place:
    def opened(page: Page) -> None:
        if stage == "machine":  # behind the cautions of the day
            page.locator("footer .lead").click()
        page.get_by_role("button", name=button).first.click()
        expect(page.get_by_role("dialog")).to_be_visible()

    return Place(stage, button, opened)


def _key(key: str, name: str) -> Place:
    def pressed(page: Page) -> None:
        page.keyboard.press(key)
        expect(page.get_by_role("dialog", name=name)).to_be_visible()
        if name == "Find":
            expect(page.locator("[role=option]:visible").first).to_be_visible()

    return Place("list", name, pressed)


def _tab(name: str) -> Place:
    return Place("mill", name, lambda page: page.get_by_role("tab", name=name).click())


PLACES = (
    *(Place(a) for a in ("/", "/stock", *WORKSHOP, *STAGES)),
    *(_sheet(stage, button) for stage, button in SHEETS),
    *(_key(key, name) for key, name in KEYS),
    *map(_tab, VIEWS),
)


def looked_at(page: Page, project: int, places: Sequence[Place]) -> list[str]:
    found: list[str] = []
    axe, chromium = AXE.read_text(), page.context.new_cdp_session(page)
    for place in places:
        chromium.send("Emulation.setTouchEmulationEnabled", {"enabled": False})
        page.set_viewport_size({"width": SIZES["desk"][0], "height": SIZES["desk"][1]})
        at = place.address
        page.goto(at if at.startswith("/") else f"/project/{project}/{at}")
        expect(page.locator("h1").first).to_be_visible()
        place.act(page)
        with suppress(TimeoutError):  # where boards are judged it is asked again and again
            page.wait_for_load_state("networkidle", timeout=2000)
        page.evaluate(axe)
        for size, (width, height) in SIZES.items():
            touch = {"enabled": size != "desk", "maxTouchPoints": 1}
            chromium.send("Emulation.setTouchEmulationEnabled", touch)
            page.set_viewport_size({"width": width, "height": height})
            found.extend(faults(page, f"{at} {place.what} {size}", LEFT_OUT[size]))
    return found


@pytest.mark.parametrize("some", range(_AT_ONCE))
def test_no_screen_breaks_a_rule(demo: int, browser: Browser, app: App, some: int) -> None:
    """All places, in so many tests as can go on side by side."""
    context = browser.new_context(
        locale="en-GB", base_url=app.url, reduced_motion="reduce", service_workers="block"
    )
    page = context.new_page()
    page.set_default_timeout(120_000)
    found = looked_at(page, demo, PLACES[some::_AT_ONCE])
    context.close()
    assert found == []
