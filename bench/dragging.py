"""How soon a dragged piece says whether it holds, and how long the page is busy at a stretch
meanwhile: a project of some 40 boards, in a real browser, on the running demo's server.

./plank demo &                                   # and then
.plank/venv/bin/python -m bench.dragging [port] [parts]
"""

import json
import shutil
import statistics
import sys
import time

from playwright.sync_api import Page, sync_playwright

from bench.shop_jobs import shop_job
from tests.browser.conftest import FLAGS
from vividplank.core.exchange import job_document, plan_document
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm

#: From the pointer's movement until the answer has been drawn: two frames after it has come.
WATCHING = """
const asked = window.fetch;
window.moved = window.told = 0;
window.busy = [];
new PerformanceObserver((list) => window.busy.push(...list.getEntries().map((e) => e.duration)))
    .observe({ entryTypes: ["longtask"] });
addEventListener("pointermove", () => (window.moved ||= performance.now()), { capture: true });
window.fetch = async (request, ...more) => {
    const answer = await asked(request, ...more);
    if ((request.url ?? request).endsWith("/try")) {
        const drawn = () => (window.told = performance.now() - window.moved);
        requestAnimationFrame(() => requestAnimationFrame(drawn));
    }
    return answer;
};
"""


def dragging(page: Page, name: str, boards: int) -> list[float]:
    """Milliseconds from each movement of the pointer to the sentence about where it is then."""
    piece = page.locator(".chalked").filter(has_text=name).first
    box = piece.bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    times: list[float] = []
    for k in range(24):
        lane = page.locator("[data-board] svg.board").nth(k % min(boards, 5)).bounding_box()
        assert lane
        page.evaluate("window.moved = window.told = 0")
        page.mouse.move(lane["x"] + 40 + 17 * k, lane["y"] + lane["height"] / 2)
        times.append(
            float(
                page.evaluate(
                    "async () => { while (!window.told) await new "
                    "Promise(requestAnimationFrame); return window.told; }"
                )
            )
        )
    page.mouse.up()
    return times


def main(port: int, parts: int) -> None:
    warm()
    job = shop_job(parts, 1)
    plan = search(job, Limits(8, workers=2), time.monotonic)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=FLAGS)
        page = browser.new_page(
            viewport={"width": 1280, "height": 1600}, base_url=f"http://127.0.0.1:{port}"
        )
        page.add_init_script(WATCHING)
        page.goto("/")
        made = page.request.post(
            "/api/projects/from-job", data=json.dumps(job_document(job))
        ).json()
        kept = page.request.post(
            f"/api/projects/{made['pk']}/plan", data=json.dumps(plan_document(plan, job.unit))
        )
        assert kept.ok, kept.text()
        page.goto(f"/project/{made['pk']}/layout")
        page.locator(".chalked").first.wait_for()
        name = (page.locator(".chalked text").first.text_content() or "").split()[0]
        page.evaluate("window.busy = []")
        times = dragging(page, name, len(job.boards))
        busy: list[float] = page.evaluate("window.busy")
        print(
            f"{len(job.boards)} boards, {parts} parts: the sentence stands after "
            f"{statistics.median(times):.0f} ms"
            f" (worst of {len(times)}: {max(times):.0f}); {len(busy)} tasks of the page over 50 ms"
            f" (the longest {max(busy, default=0):.0f})"
        )
        page.request.delete(
            f"/api/projects/{made['pk']}", data=json.dumps({"version": made["version"]})
        )
        browser.close()


if __name__ == "__main__":
    main(
        int(sys.argv[1]) if len(sys.argv) > 1 else 8128,
        int(sys.argv[2]) if len(sys.argv) > 2 else 170,
    )
