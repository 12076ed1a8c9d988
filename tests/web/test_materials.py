"""What a project needs besides its boards, through a real PostgreSQL."""

from typing import Any

import pypdfium2
from flask.testing import FlaskClient

from tests.web.test_api import make
from tests.web.test_workshops import only
from tests.web.test_workshops import put as put_workshop

HINGES = {"name": "butt hinge", "kind": "hardware", "count": 4, "each": 6.35, "note": "brass"}
GLUE = {"name": "hide glue", "kind": "glue", "count": 0.5, "each": 18, "note": ""}


def put(client: FlaskClient, project: int, lines: list[dict[str, Any]], version: int) -> Any:
    body = {"materials": lines, "version": version}
    return client.put(f"/api/projects/{project}/materials", json=body)


def test_lines_are_kept_and_add_up(client: FlaskClient) -> None:
    project = make(client)["pk"]
    base = f"/api/projects/{project}/materials"
    assert client.get(base).get_json() == {"materials": [], "cost": 0, "version": 0}
    kept = put(client, project, [HINGES, GLUE], 0)
    # 4 x 6.35 = 25.40, and half of 18 is 9: 34.40 together.
    assert kept.status_code == 200 and kept.get_json()["cost"] == 34.4
    assert client.get(base).get_json() == {
        "materials": [HINGES, GLUE],
        "cost": 34.4,
        "version": 1,
    }
    # It is no edit of the project: no plan is stale for a hinge.
    assert client.get(f"/api/projects/{project}").get_json()["version"] == 1


def test_who_comes_second_is_told_and_takes_nothing_away(client: FlaskClient) -> None:
    project = make(client)["pk"]
    assert put(client, project, [HINGES], 0).status_code == 200
    second = put(client, project, [GLUE], 0)
    assert second.status_code == 409 and second.get_json()["version"] == 1
    kept = client.get(f"/api/projects/{project}/materials").get_json()
    assert [m["name"] for m in kept["materials"]] == ["butt hinge"]
    assert put(client, project, [{**GLUE, "each": -1}], 1).status_code == 422
    assert put(client, 999, [], 0).status_code == 404


def test_the_card_for_the_yard_names_what_is_bought_besides_boards(client: FlaskClient) -> None:
    project = make(client)["pk"]
    assert put(client, project, [HINGES, GLUE], 0).status_code == 200
    text = told(client, f"/api/projects/{project}/shopping.pdf")
    assert "Besides boards" in text and "34.40 in all" in text
    assert "4 butt hinge, 6.35 each: 25.40 (brass)" in text and "0.5 hide glue" in text


def told(client: FlaskClient, paper: str) -> str:
    content = pypdfium2.PdfDocument(client.get(paper).data)
    return "".join(page.get_textpage().get_text_range() for page in content)


def test_paper_tells_money_in_the_currency_of_the_workshop(client: FlaskClient) -> None:
    project = make(client)["pk"]
    assert put(client, project, [HINGES], 0).status_code == 200
    shop = only(client)
    assert put_workshop(client, shop, currency="EUR") == 200
    card = told(client, f"/api/projects/{project}/shopping.pdf")
    assert "6.35 EUR each: 25.40 EUR" in card and "25.40 EUR in all" in card
    books = f"/api/workshops/{shop['pk']}/books-file?form=pdf&by=grade"
    assert "paid EUR" in told(client, books)
