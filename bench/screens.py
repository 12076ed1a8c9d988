"""How long each screen takes to open and an edit on List to show, in a real browser, on the running
demo.

./plank demo &                                   # and then
.plank/venv/bin/python -m bench.screens [port]
"""

import shutil
import statistics
import sys
import time

from playwright.sync_api import Page, sync_playwright

from tests.browser.conftest import FLAGS

STAGES = ("draw", "list", "buy", "boards", "layout", "mill", "machine", "books")


def opening(page: Page, address: str) -> float:
    """Milliseconds from asking for the address to its heading and nothing left to load."""
    began = time.perf_counter()
    page.goto(address)
    page.locator("h1").first.wait_for()
    page.wait_for_load_state("load")
    return (time.perf_counter() - began) * 1000


def editing(page: Page, quantity: int) -> float:
    """Milliseconds from a changed count to the new total on the screen."""
    return float(
        page.evaluate(
            """async quantity => {
            const field = document.querySelector('tr[data-part="CL"] input[aria-label="Count"]');
            const total = document.querySelector('.figures .figure');
            const before = total.textContent;
            const began = performance.now();
            field.value = String(quantity);
            field.dispatchEvent(new Event('change', { bubbles: true }));
            while (total.textContent === before) await new Promise(requestAnimationFrame);
            return performance.now() - began;
        }""",
            quantity,
        )
    )


def main(port: int) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=FLAGS)
        page = browser.new_page(
            viewport={"width": 1280, "height": 800}, base_url=f"http://127.0.0.1:{port}"
        )
        page.goto("/")
        page.get_by_role("link", name="Reading-room settle").first.click()
        page.locator("table.grid").wait_for()
        project = page.url.split("/")[-2]
        for stage in STAGES:
            times = [opening(page, f"/project/{project}/{stage}") for _ in range(3)]
            print(f"{stage:8} opens in {statistics.median(times):4.0f} ms")
        page.goto(f"/project/{project}/list")
        page.locator('tr[data-part="CL"]').wait_for()
        times = [editing(page, n) for n in (5, 6, 7, 8, 4)]
        page.get_by_text("all saved").wait_for()
        print(
            f"an edit on List shows after {statistics.median(times):.0f} ms (worst of "
            f"{len(times)}: {max(times):.0f})"
        )
        browser.close()


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 8128)
