"""Files in and out through the screens."""

import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.fields import choose, from_menu, upload
from tests.browser.test_newcomer import paste
from tests.core.layout.model.test_audit import JOB, PLAN
from vividplank.core.exchange import read_job, read_plan

ROOT = Path(__file__).parents[2]


def named(name: str, text: str | bytes) -> dict[str, object]:
    """A file as a person would choose it."""
    return {
        "name": name,
        "mimeType": "application/octet-stream",
        "buffer": text.encode() if isinstance(text, str) else text,
    }


def open_job(page: Page) -> None:
    page.goto("/")
    upload(page, "Open a job file", named("shelves.job.json", json.dumps(JOB)))
    expect(page.locator("tr[data-part]")).to_have_count(4)


def downloaded(page: Page, menu: str, item: str) -> str:
    with page.expect_download() as started:
        from_menu(page, menu, item)
    return Path(started.value.path()).read_text(encoding="utf-8")


def test_a_job_file_opens_as_a_project_and_goes_out_the_same(page: Page) -> None:
    open_job(page)
    assert read_job(downloaded(page, "Take it along", "Job file")) == read_job(json.dumps(JOB))
    csv = downloaded(page, "Take it along", "Table, CSV")
    assert (
        csv.splitlines()[0].startswith("id,name,quantity,length")
        and "A,Shelf,2,20,3,3/4,oak,clear-one" in csv
    )


def test_a_bad_job_file_is_refused_with_its_place(page: Page) -> None:
    page.goto("/")
    broken = JOB | {"unit": "cubits"}
    upload(page, "Open a job file", named("x.json", json.dumps(broken)))
    expect(page.get_by_text("expected 'in' or 'mm' ($.unit)")).to_be_visible()
    expect(page.get_by_text("The shelf is empty")).to_be_visible()


def test_a_list_comes_in_as_csv_with_its_bad_rows_shown(page: Page) -> None:
    open_job(page)
    page.get_by_role("link", name=re.compile("Draw")).click()
    csv = "Name,Qty,L,W,T,Wood\nCleat,4,10,1 1/4,3/4,oak\nBracket,2,,1,1,oak\n"
    upload(page, "Bring in a file", named("more.csv", csv))
    expect(page.get_by_text("no width")).to_have_count(0)
    expect(page.get_by_text("no length; expected a length")).to_be_visible()
    page.get_by_role("button", name="Add 1 part").click()
    expect(page.locator("tr[data-part]")).to_have_count(5)


def test_a_drawing_is_brought_in_shown_and_taken_off(page: Page) -> None:
    open_job(page)
    page.get_by_role("link", name=re.compile("Draw")).click()
    expect(page.get_by_text("Bring in a model or drawing")).to_be_visible()
    svg = (ROOT / "vividplank" / "demo" / "settle.svg").read_bytes()
    upload(page, "Bring in a file", named("front.svg", svg))
    expect(page.locator("svg.picture polygon")).not_to_have_count(0)
    expect(page.locator("svg.picture text").get_by_text("37 1/2", exact=True)).to_be_visible()
    upload(page, "Bring in a file", named("notes.pdf", "no drawing"))
    expect(page.get_by_text("is of a kind that is not read here")).to_be_visible()
    page.get_by_role("button", name="Take it off").click()
    expect(page.get_by_text("Bring in a model or drawing")).to_be_visible()


def test_a_plan_comes_in_if_it_is_right_and_goes_out_again(page: Page) -> None:
    open_job(page)
    page.get_by_role("link", name=re.compile("Lay out")).click()
    broken = json.loads(json.dumps(PLAN))
    broken["boards"][0]["segments"][0]["x0"] = 0.5
    page.get_by_label("Bring a plan").set_input_files(named("p.json", json.dumps(broken)))  # type: ignore[arg-type]
    expect(page.get_by_text("this plan breaks rule 1")).to_be_visible()
    expect(page.locator(".chalked")).to_have_count(0)
    page.get_by_label("Bring a plan").set_input_files(named("p.json", json.dumps(PLAN)))  # type: ignore[arg-type]
    expect(page.locator(".chalked")).to_have_count(6)
    assert (
        read_plan(downloaded(page, "Files", "Plan file")).boards
        == read_plan(json.dumps(PLAN)).boards
    )
    assert downloaded(page, "Files", "SVG").startswith("<svg")


def test_a_project_shown_in_millimetres_keeps_its_sizes(page: Page) -> None:
    open_job(page)
    page.get_by_role("button", name="Shop allowances").click()
    choose(page, "Lengths are shown in", "millimetres")
    page.keyboard.press("Escape")
    expect(page.locator('tr[data-part="A"]').get_by_label("Length")).to_have_value("508")
    page.get_by_role("button", name="Undo units").click()
    expect(page.locator('tr[data-part="A"]').get_by_label("Length")).to_have_value("20")


def test_rough_ripping_changes_the_steps(page: Page) -> None:
    open_job(page)
    page.get_by_role("button", name="Shop allowances").click()
    choose(page, "Order of milling", "Rough-rip first: each blank is flattened by itself")
    kerf = page.get_by_label("Rip kerf")
    kerf.fill("3/32")
    kerf.press("Enter")
    kerf.fill("1/2")
    kerf.press("Escape")  # leaves the field as it was
    expect(kerf).to_have_value("3/32")
    kerf.press("Escape")  # and now the sheet
    page.get_by_role("link", name=re.compile("Lay out")).click()
    choose(page, "Search for", "5 s")
    page.get_by_role("button", name="Lay out", exact=True).click()
    expect(page.get_by_role("button", name="Lay out again")).to_be_visible()
    page.get_by_role("link", name=re.compile("Mill")).click()
    page.get_by_role("tab", name="Board by board").click()
    expect(page.get_by_role("heading", name=re.compile("Saw .* freehand"))).not_to_have_count(0)
    expect(page.locator(".machine", has_text="bandsaw").first).to_be_visible()


def test_a_removed_project_asks_first(page: Page) -> None:
    open_job(page)
    paste(page, "Peg\t9\t6\t1\t1\toak")
    page.get_by_role("button", name="Add 1 part").click()
    expect(page.locator("tr[data-part]")).to_have_count(5)
    expect(page.get_by_text("all saved")).to_be_visible()
    page.goto("/")
    page.get_by_role("button", name="Remove two shelves").click()
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("16 parts")).to_be_visible()
    page.get_by_role("button", name="Remove two shelves").click()
    page.get_by_role("button", name="Remove for good").click()
    expect(page.get_by_text("The shelf is empty")).to_be_visible()
