"""One picture of each main view from the running demo: `.plank/venv/bin/python
docs/screenshots/take.py [port] [name ...]`.
"""

import shutil
import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

HERE = Path(__file__).parent
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
DESK, PHONE, TABLET = (1280, 800), (390, 844), (1024, 768)
VIEWS = (
    ("shelf", "/", DESK),
    ("draw", "draw", DESK),
    ("takeoff", "draw", DESK),
    ("list", "list", DESK),
    ("buy", "buy", DESK),
    ("suppliers", "buy?view=ways", DESK),
    ("aisle-phone", "aisle", PHONE),
    ("boards", "boards/O3", DESK),
    ("survey-phone", "survey", PHONE),
    ("stock", "/stock", DESK),
    ("layout", "layout", DESK),
    ("bench", "layout", DESK),
    ("chalk", "chalk", TABLET),
    ("mill", "mill", DESK),
    ("happened", "mill", TABLET),
    ("passes", "mill", DESK),
    ("machine", "machine", TABLET),
    ("books", "books", DESK),
    ("workshop", "/workshop?view=learned", DESK),
)


def _work(page: Page) -> None:
    """Two boards are milled, each step a little slower than foretold: there is something to learn
    from. It comes last, since it changes the demo.
    """
    project = page.request.get("/api/projects").json()["projects"][0]["pk"]
    found = page.request.get(f"/api/projects/{project}/milling").json()
    for step in (s for r in found["routes"][:2] for s in r["steps"]):
        said = {
            "key": step["key"],
            "done": True,
            "minutes": round(1.3 * step["minutes"], 2) or None,
        }
        said |= {"passes": len(step["passes"]) + 1} if step["passes"] else {}
        page.request.put(f"/api/layouts/{found['layout']}/steps", data=said)


def shoot(page: Page, name: str, address: str) -> None:
    if name == "workshop":
        _work(page)
    page.goto(address)
    page.locator("h1").first.wait_for()
    # Pages ask again and again while something is worked out: the network is never still then.
    page.wait_for_timeout(1500)
    page.wait_for_function("!document.querySelector('.el-skeleton')")
    if name == "happened":  # a fault being told of a board, and not written down
        page.get_by_role("tab", name="What happened").click()
        page.get_by_role("button", name="Something happened").click()
        picture = page.locator("svg.piece")
        picture.wait_for()
        picture.click(position={"x": 200, "y": 40})
    if name == "suppliers":
        if page.get_by_role("button", name="Simulate buying it").count():
            page.get_by_role("button", name="Simulate buying it").click()
        page.locator(".best").first.wait_for(timeout=90_000)
        page.locator("canvas").first.wait_for()
    if name == "aisle-phone":  # a board with a check, judged
        page.get_by_role("button", name="Look at a board").click()
        page.get_by_label("Length", exact=True).fill("102")
        page.get_by_label("Width", exact=True).fill("8 1/4")
        page.get_by_role("button", name="Faults: tap them").click()
        page.locator(".picture svg").click(position={"x": 60, "y": 16})
        page.get_by_role("button", name="longer by 24").click()
        page.get_by_role("button", name="Judge it").click()
        page.locator(".verdict .word").wait_for()
    if name == "mill":
        if page.get_by_role("button", name="Plan the days").count():
            page.get_by_role("button", name="Plan the days").click()
        page.locator(".setups li").first.wait_for(timeout=60_000)
    if name == "passes":
        page.get_by_role("tab", name="See the passes").click()
        page.locator("svg.face").wait_for()
        for _ in range(2):
            page.get_by_role("button", name="One more pass").click()
    if name == "machine":
        while (
            not page.locator("h1").inner_text().startswith(("planer", "Plane"))
        ):  # past the saws, to the planer
            page.keyboard.press("ArrowRight")
        page.keyboard.press("Space")
        page.keyboard.press("Space")
    if name == "draw":
        page.locator("[data-found='Crest rail'] .pick").click()
    if name == "takeoff":
        page.get_by_role("button", name="settle, front and side.pdf").click()
        page.locator("[data-mark='m1']").wait_for()
        page.get_by_role("button", name="Draw a part").click()
        page.locator("[data-mark='m1']").click()
    if name == "survey-phone":
        for key in ("Next", "9", "6", "Next", "7", "add ¼"):
            page.get_by_role("button", name=key, exact=True).click()
    if name == "stock":
        page.get_by_label("A piece so thick").fill("3/4")
        page.get_by_label("so long").fill("44")
        page.get_by_label("so long").press("Enter")
        page.get_by_text("comes out from").first.wait_for()
    if name == "bench":  # a piece in hand over another board
        lanes = page.locator("[data-board]")
        piece = lanes.nth(0).locator("[role=button]").first
        box, over = piece.bounding_box(), lanes.nth(1).locator("svg.board").bounding_box()
        assert box and over
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(over["x"] + over["width"] - 120, over["y"] + 20)
        page.mouse.move(over["x"] + over["width"] - 60, over["y"] + 24)
        page.get_by_role("status").filter(has_text="hold").wait_for()
    page.wait_for_timeout(500)  # the tape and the figures come to rest
    page.screenshot(path=HERE / f"{name}.png")


def main(port: int, names: list[str]) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=FLAGS)
        page = browser.new_page(base_url=f"http://127.0.0.1:{port}", locale="en-GB")
        page.goto("/")
        page.get_by_role("link", name="Reading-room settle").first.click()
        page.locator("table.grid").wait_for()
        project = page.url.split("/")[-2]
        for name, address, (width, height) in VIEWS:
            if names and name not in names:
                continue
            page.set_viewport_size({"width": width, "height": height})
            shoot(
                page, name, address if address.startswith("/") else f"/project/{project}/{address}"
            )
        browser.close()


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 8128, sys.argv[2:])
