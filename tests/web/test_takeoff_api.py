"""Drawings, formulas, patterns, checks and the ways out of the list, through the API on a real
PostgreSQL.
"""

import io
import json
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.making import t
from tests.takeoff.making import a_block, sizes, taken_off, written
from tests.takeoff.step_files import Assembly, block, in_several_files, place
from vividplank.core.exchange import read_job
from vividplank.core.exchange.parts_list import read_parts
from vividplank.core.takeoff import Settings

FIXTURES = Path(__file__).parents[1] / "takeoff" / "fixtures"


@pytest.fixture
def base(client: FlaskClient) -> str:
    made = client.post("/api/projects", json={"name": "Stool", "system": "in"}).get_json()
    return f"/api/projects/{made['pk']}"


def bring(
    client: FlaskClient, base: str, name: str, content: bytes, replaces: int | None = None
) -> dict[str, Any]:
    query = f"?replaces={replaces}" if replaces else ""
    answer = client.post(f"{base}/drawings{query}", data=content, headers={"X-File-Name": name})
    assert answer.status_code == 201, answer.get_json()
    return next(
        d
        for d in client.get(f"{base}/drawings").get_json()["drawings"]
        if d["pk"] == answer.get_json()["pk"]
    )


def put(client: FlaskClient, base: str, **change: Any) -> dict[str, Any]:
    now = client.get(base).get_json()
    answer = client.post(
        f"{base}/edits", json={"version": now["version"], "label": "test", **change}
    )
    assert answer.status_code == 200, answer.get_json()
    kept: dict[str, Any] = answer.get_json()
    return kept


def part(id: str = "A", **values: Any) -> dict[str, Any]:
    return {
        "id": id,
        "name": "Rail",
        "quantity": 1,
        "species": "ash",
        "length": t(30),
        "width": t(3),
        "thickness": t(0.75),
    } | values


def test_a_drawing_is_read_and_asked_about_its_unit(client: FlaskClient, base: str) -> None:
    drawing = bring(client, base, "stool.stl", (FIXTURES / "stool.stl").read_bytes())
    assert (drawing["state"], drawing["trouble"]) == ("done", "")
    reading = client.get(f"/api/drawings/{drawing['pk']}/reading").get_json()
    assert (reading["unit"], len(reading["parts"]), reading["pieces"]) == ("mm", 4, 9) and reading[
        "asks"
    ].endswith("millimetres?")
    client.put(f"/api/drawings/{drawing['pk']}/answers", json={"unit": "cm", "layers": {}})
    again = client.get(f"/api/drawings/{drawing['pk']}/reading").get_json()
    assert again["asks"] == "" and again["parts"][0]["length"] == 10 * reading["parts"][0]["length"]


def test_what_layers_mean_is_remembered_for_the_next_drawing(
    client: FlaskClient, base: str
) -> None:
    first = bring(client, base, "stool.dxf", (FIXTURES / "stool.dxf").read_bytes())
    meaning = {"0": {"species": "cherry", "thickness": t(0.75), "ignore": False}}
    client.put(f"/api/drawings/{first['pk']}/answers", json={"unit": "mm", "layers": meaning})
    second = bring(client, base, "other.dxf", (FIXTURES / "stool.dxf").read_bytes())
    parts = client.get(f"/api/drawings/{second['pk']}/reading").get_json()["parts"]
    assert {(p["species"], p["thickness"]) for p in parts} == {("cherry", t(0.75))}


def test_a_file_that_fails_says_why_and_leaves_nothing(client: FlaskClient, base: str) -> None:
    drawing = bring(client, base, "broken.step", (FIXTURES / "tray.step").read_bytes()[:5000])
    assert drawing["state"] == "failed" and "STEP file" in drawing["trouble"]
    assert client.get(f"/api/drawings/{drawing['pk']}/reading").status_code == 404
    assert client.get(base).get_json()["parts"] == []


def test_an_assembly_names_the_files_its_parts_lie_in_and_takes_them_when_they_come(
    client: FlaskClient, base: str
) -> None:
    made = Assembly()
    whole = made.group("Rack")
    rail, post = made.product(block(600, 80, 20), "Rail"), made.product(block(700, 45, 45), "Post")
    for k in range(2):
        made.put(whole, rail, place(0, 200 * k, 0))
        made.put(whole, post, place(0, 1000 + 200 * k, 0, 0.3))
    files = in_several_files(made)
    rack = bring(client, base, "whole.step", files.pop("whole.step"))

    def now() -> dict[str, Any]:
        read: dict[str, Any] = client.get(f"/api/drawings/{rack['pk']}/reading").get_json()
        return read

    assert sorted(now()["missing"]) == sorted(files) and now()["parts"] == []
    first, second = sorted(files)
    bring(client, base, first, files[first])
    assert now()["missing"] == [second] and [p["quantity"] for p in now()["parts"]] == [2]
    bring(client, base, second, files[second])
    assert now()["missing"] == [] and now()["troubles"] == []
    assert {(p["name"], p["quantity"], p["length"] // 320) for p in now()["parts"]} == {
        ("Rail", 2, 600),
        ("Post", 2, 700),
    }


def test_a_newer_version_shows_what_changed_before_it_takes_over(
    client: FlaskClient, base: str
) -> None:
    first = bring(
        client,
        base,
        "a.stl",
        written([a_block((500, 60, 20)), a_block((300, 60, 20), (0, 200, 0))], "stl"),
    )
    keys = [
        p["key"] for p in client.get(f"/api/drawings/{first['pk']}/reading").get_json()["parts"]
    ]
    put(client, base, put_parts=[part(source={"drawing": first["pk"], "key": keys[0]})])
    longer = [
        a_block((520, 60, 20)),
        a_block((300, 60, 20), (0, 200, 0)),
        a_block((300, 60, 20), (0, 400, 0)),
        a_block((90, 50, 20), (0, 600, 0)),
    ]
    second = bring(client, base, "a.stl", written(longer, "stl"), first["pk"])
    assert second["replaces"] == first["pk"]
    found = client.get(f"/api/drawings/{second['pk']}/changes").get_json()["differences"]
    assert {(d["part"], *d["what"]) for d in found} == {("A", "size"), ("", "count"), ("", "new")}
    listed = client.get(f"{base}/drawings").get_json()["drawings"]
    assert [d["replaced"] for d in listed] == [False, False]
    client.post(f"/api/drawings/{second['pk']}/take-over")
    assert [d["replaced"] for d in client.get(f"{base}/drawings").get_json()["drawings"]] == [
        True,
        False,
    ]
    assert client.get(f"/api/drawings/{first['pk']}/changes").status_code == 422


def test_marks_on_a_sheet_are_kept_and_a_second_tab_is_told(client: FlaskClient, base: str) -> None:
    drawing = bring(client, base, "sketch.png", (FIXTURES / "sketch.png").read_bytes())
    address = f"/api/drawings/{drawing['pk']}/marks"
    assert client.get(f"/api/drawings/{drawing['pk']}/pages/0").data.startswith(b"\x89PNG")
    assert client.get(f"/api/drawings/{drawing['pk']}/pages/7").status_code == 404
    scale = {"id": "s1", "page": 0, "name": "front", "a": [1, 1], "b": [321, 1], "distance": t(40)}
    kept = client.put(address, json={"version": 0, "scales": [scale], "marks": []}).get_json()
    assert kept["version"] == 1 and client.get(address).get_json() == kept
    assert client.put(address, json={"version": 0, "scales": [], "marks": []}).status_code == 409
    assert (
        client.put(
            address, json={"version": 1, "scales": [scale | {"distance": 0}], "marks": []}
        ).status_code
        == 422
    )
    assert client.get(address).get_json() == kept


def test_formulas_follow_their_measures_and_a_wrong_one_changes_nothing(
    client: FlaskClient, base: str
) -> None:
    measures = [{"name": "W", "text": "36"}, {"name": "n", "text": "3", "kind": "number"}]
    kept = put(
        client,
        base,
        measures=measures,
        put_parts=[part(formulas={"length": "W - 2", "quantity": "n * 2"})],
    )
    assert (kept["parts"][0]["length"], kept["parts"][0]["quantity"]) == (t(34), 6)
    assert [(m["ticks"], m["number"]) for m in kept["measures"]] == [(t(36), None), (None, 3.0)]
    wider = put(client, base, measures=[{"name": "W", "text": "1 m"}, measures[1]])
    assert wider["parts"][0]["length"] == 1000 * 320 - t(2)
    refused = client.post(
        f"{base}/edits", json={"version": wider["version"], "label": "x", "measures": []}
    )
    assert refused.status_code == 422 and "'W', which is no measure" in refused.get_json()["what"]
    assert client.get(base).get_json() == wider
    undone = client.post(f"{base}/undo", json={"version": wider["version"]}).get_json()
    assert undone["parts"][0]["length"] == t(34) and undone["measures"][0]["text"] == "36"
    tried = client.post(f"{base}/formula", json={"text": "W / 4"}).get_json()
    assert tried == {"ticks": t(9), "number": None, "why": ""}
    assert (
        "no measure here" in client.post(f"{base}/formula", json={"text": "foo"}).get_json()["why"]
    )


def test_a_pattern_is_tried_without_changing_anything(client: FlaskClient, base: str) -> None:
    assert len(client.get("/api/patterns").get_json()["patterns"]) == 7
    tried = client.post(
        f"{base}/pattern",
        json={"pattern": "frame", "values": {"W": "20"}, "choices": {"joint": "dowel"}},
    ).get_json()
    assert tried["trouble"] == "" and next(p for p in tried["parts"] if p["name"] == "Top rail")[
        "length"
    ] == t(15.5)
    assert client.get(base).get_json()["parts"] == []
    wrong = client.post(
        f"{base}/pattern", json={"pattern": "frame", "values": {"W": "2"}}
    ).get_json()
    assert "nothing or less" in wrong["trouble"] and wrong["parts"]
    assert client.post(f"{base}/pattern", json={"pattern": "boat"}).status_code == 422


def test_sheets_and_bought_lengths_go_into_buy_and_not_onto_boards(
    client: FlaskClient, base: str
) -> None:
    put(
        client,
        base,
        put_parts=[
            part("A"),
            part("B", stock="sheet", length=t(40), width=t(20), quantity=5, species="birch ply"),
            part(
                "C", stock="bought", length=800 * 320, width=45 * 320, quantity=11, species="pine"
            ),
            part("D", layers=3, thickness=t(2.25)),
        ],
    )
    needs = client.get(f"{base}/needs?stock_length={2500 * 320}").get_json()
    assert {p for a in needs["asks"] for p in a["parts"]} == {"A", "D"}
    # 48 across holds two rows of 20, 96 along two of 40: four to a sheet, five take two.
    assert [(s["parts"], s["sheets"], s["least"]) for s in needs["sheets"]] == [(["B"], 2, 1)]
    assert [(n["lengths"], n["spare"]) for n in needs["lengths"]] == [(4, 1)]
    job = client.get(f"{base}/job.json").get_json()
    # The file has the whole list; layers go to the boards as the thin parts they are glued from.
    assert [p["id"] for p in job["parts"]] == ["A", "B", "C", "D"]
    cut = read_job(json.dumps(job)).on_boards().parts
    assert [(p.id, p.quantity, p.thickness) for p in cut] == [("A", 1, t(0.75)), ("D", 3, t(0.75))]


def test_the_list_goes_out_and_comes_back(client: FlaskClient, base: str) -> None:
    ring = [[0, 0], [t(30), 0], [t(28), t(3)], [0, t(3)]]
    put(
        client,
        base,
        put_parts=[
            part("A", outline=ring, fitted=True, joint="mitre"),
            part(
                "B",
                stock="sheet",
                grain="any",
                edging={"thickness": t(0.25), "long_edges": 2, "ends": 1},
                note="=evil",
            ),
        ],
    )
    kept = client.get(base).get_json()["parts"]
    back = read_parts(client.get(f"{base}/parts.csv").get_data(as_text=True), "in").parts
    assert [(p.id, p.fitted, p.stock, p.grain, p.joint, p.note) for p in back] == [
        (p["id"], p["fitted"], p["stock"], p["grain"], p["joint"], p["note"]) for p in kept
    ]
    assert back[1].edging and back[1].edging.long_edges == 2
    table = taken_off(client.get(f"{base}/parts.xlsx").data, "x.xlsx").table
    assert [(p.length, p.width) for p in read_parts(table, "in").parts] == [
        (t(30), t(3))
    ] * 2 and "'=evil" in table
    drawn = taken_off(client.get(f"{base}/parts.dxf").data, "x.dxf", Settings())
    assert sizes(drawn, 8128) == [(1, (30.0, 3.0, 0.8)), (1, (30.0, 3.0, 0.8))]
    assert min(p.fill for p in drawn.parts) == pytest.approx(29 / 30, abs=1e-3)


def test_paper_and_labels_are_pdf_with_what_belongs_on_them(client: FlaskClient, base: str) -> None:
    import pypdfium2

    put(client, base, put_parts=[part("A", quantity=25), part("B", species="cherry")])

    def pages(address: str) -> list[str]:
        document = pypdfium2.PdfDocument(io.BytesIO(client.get(address).data))
        return [document[n].get_textpage().get_text_range() for n in range(len(document))]

    paper = pages(f"{base}/parts.pdf")
    assert (
        "25 x A Rail" in paper[0]
        and "30 x 3 x 3/4" in paper[0]
        and "rough 30 1/2 x 3 1/8" in paper[0]
    )
    labels = pages(f"{base}/labels.pdf?skip=10")
    assert (
        len(labels) == 2 and labels[0].count(" of 25") == 20
    )  # 30 to a sheet, ten of them used up
    assert client.get(f"{base}/labels.pdf?columns=9").status_code == 422
    assert len(pages(f"{base}/labels.pdf?columns=2&rows=5&width=90&height=50")) == 3


def test_dividing_and_checking(client: FlaskClient, base: str) -> None:
    divided = client.post(
        "/api/divide", json={"kind": "slats-count", "span": t(48), "stock": t(3.25), "count": 7}
    ).get_json()
    assert divided["openings"] == [t(3.15625)] * 8
    assert (
        client.post(
            "/api/divide", json={"kind": "shelves", "span": t(4), "heights": [t(9)]}
        ).status_code
        == 422
    )
    put(client, base, put_parts=[part(length=t(4), width=t(16))])
    asked = client.get(f"{base}/checks").get_json()["checks"]
    assert asked[0]["what"] == "Rail has its grain across" and asked[0]["put_parts"][0][
        "length"
    ] == t(16)
