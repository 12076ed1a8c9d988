"""Buy through a real PostgreSQL: suppliers, simulated trips, and boards on offer."""

from typing import Any

import pypdfium2
import pytest
from flask.testing import FlaskClient

from tests.web.test_api import INCH, JOB, edit, make

Project = dict[str, Any]
YARD, MILL = "lantern-yard", "otter-bend"


@pytest.fixture
def listed(client: FlaskClient) -> Project:
    """A list of ash: eight rails and a wide one."""
    parts = [
        {
            "id": "R",
            "name": "Rail",
            "quantity": 8,
            "species": "ash",
            "length": 24,
            "width": 2.5,
            "thickness": 0.75,
            "faces": "clear-one",
        },
        {
            "id": "W",
            "name": "Wide",
            "quantity": 1,
            "species": "ash",
            "length": 30,
            "width": 5,
            "thickness": 0.75,
            "faces": "clear-one",
        },
    ]
    job = {**JOB, "parts": parts, "boards": []}
    return make(client, job)


def base(project: Project) -> str:
    return f"/api/projects/{project['pk']}"


def a_board(mark: str, length: int = 80, width: int = 6, **more: object) -> dict[str, Any]:
    ends = [
        {"x": x, "y0": 0, "y1": width * INCH, "t0": INCH, "t1": INCH} for x in (0, length * INCH)
    ]
    board = {
        "id": mark,
        "species": "ash",
        "length": length * INCH,
        "stations": ends,
        "quarter": "4/4",
        **more,
    }
    return {"board": board, "supplier": MILL, "per_foot": 2.2}


def ask(
    client: FlaskClient, project: Project, supplier: str, trips: int = 3, grade: str = ""
) -> None:
    body = {"supplier": supplier, "trips": trips, "grade": grade}
    answer = client.post(f"{base(project)}/estimates", json=body)
    assert answer.status_code == 202, answer.get_json()


def ways(client: FlaskClient, project: Project, **query: object) -> dict[tuple[str, bool], Any]:
    found = client.get(f"{base(project)}/ways", query_string=query).get_json()
    return {(w["supplier"], w["grade"]): w for w in found["ways"]} | {("", ""): found}


def test_what_to_ask_for(client: FlaskClient, listed: Project) -> None:
    (ask,) = client.get(f"{base(listed)}/needs").get_json()["asks"]
    assert (ask["key"], ask["pieces"]) == ("ash 4/4", 9)
    assert ask["lengths"][0]["parts"] == ["W"] and ask["thumb"] > ask["blanks"] > 3


def test_the_card_for_the_yard_is_in_the_readers_units(
    client: FlaskClient, listed: Project
) -> None:
    def card() -> str:
        content = client.get(f"{base(listed)}/shopping.pdf").data
        text: str = pypdfium2.PdfDocument(content)[0].get_textpage().get_text_range()
        return text

    assert "ash 4/4" in card() and "bd ft" in card() and "30 1/2" in card()
    assert edit(client, listed, system="mm").status_code == 200
    assert "m³" in card() and "bd ft" not in card() and "775" in card()


def test_suppliers_are_kept_by_hand_and_taken_off(client: FlaskClient) -> None:
    first = client.get("/api/suppliers").get_json()["suppliers"]
    mine = {**first[0], "name": "Otter Bend, up the hill", "trip": 12.5}
    assert client.put("/api/suppliers/otter-bend", json={"supplier": mine}).status_code == 204
    new = {"id": "x", "name": "The barn", "kind": "yard"}
    assert client.put("/api/suppliers/the-barn", json={"supplier": new}).status_code == 204
    assert client.delete("/api/suppliers/quill-dressed").status_code == 204
    names = [s["name"] for s in client.get("/api/suppliers").get_json()["suppliers"]]
    assert names == ["Otter Bend, up the hill", "Lantern Street yard", "The barn"]
    assert client.delete("/api/suppliers/nobody").status_code == 404


def test_a_price_book_goes_out_and_comes_in(client: FlaskClient) -> None:
    text = client.get("/api/suppliers.csv").get_data(as_text=True)
    assert client.get("/api/suppliers.xlsx").data[:2] == b"PK"
    dearer = text.replace("Lantern Street yard", "Kingfisher").replace(
        "FAS,S2S,9.8,", "FAS,S2S,11,"
    )
    found = client.post("/api/suppliers.csv", json={"text": dearer}).get_json()["suppliers"]
    new = next(s for s in found if s["name"] == "Kingfisher")
    assert new["prices"][0]["asks"] == 11
    broken = client.post("/api/suppliers.csv", json={"text": dearer.replace("0.8125", "thick")})
    assert broken.status_code == 422 and "Thickness" in broken.get_json()["where"]


def test_trips_are_simulated_and_compared(client: FlaskClient, listed: Project) -> None:
    before = ways(client, listed)
    assert before[MILL, ""]["way"] is None and before[MILL, ""]["per_foot"]["ash 4/4"] > 0
    ask(client, listed, MILL)
    ask(client, listed, YARD, grade="FAS")
    ask(client, listed, YARD, grade="No. 1 Common")
    found = ways(client, listed, chance=0.9)
    mill, yard = found[MILL, ""], found[YARD, "FAS"]
    assert mill["done"] == mill["trips"] == 3
    (group,) = mill["way"]["groups"]
    assert group["trips"] == 3 and group["come"]["value"] > 0
    surer = ways(client, listed, chance=0.97)[MILL, ""]["way"]["groups"][0]
    assert surer["come"]["value"] > group["come"]["value"]
    assert mill["way"]["money"] < yard["way"]["money"]
    common = found[YARD, "No. 1 Common"]  # a grade below: less a foot, and more of it
    assert common["per_foot"]["ash 4/4"] < yard["per_foot"]["ash 4/4"]
    feet = [sum(g["cost"] for g in w["way"]["groups"]) for w in (common, yard)]
    assert feet[0] != feet[1]
    best = found["", ""]["recommended"]
    assert best["supplier"] in (MILL, YARD) and best["saves"] > 0
    # A part is changed: what was simulated for the old list is not said of the new one.
    part = {**listed["parts"][0], "quantity": 9, "was": "R"}
    assert edit(client, listed, put_parts=[part]).status_code == 200
    assert ways(client, listed)[MILL, ""]["way"] is None


def test_two_woods_are_bought_at_two_places_where_that_is_cheaper(client: FlaskClient) -> None:
    """The mill sells only ash here and the yard only oak: neither gives the list, both together
    do.
    """
    wood = {"length": 20, "width": 2.5, "thickness": 0.5, "faces": "sound"}
    parts = [
        {"id": id, "name": id, "quantity": 2, "species": species, **wood}
        for id, species in (("R", "ash"), ("S", "white oak"))
    ]
    project = make(client, {**JOB, "parts": parts, "boards": []})
    known = client.get("/api/suppliers").get_json()["suppliers"]
    for supplier in known:
        sold = {MILL: "ash", YARD: "white oak"}.get(supplier["id"], "none")
        supplier["prices"] = [
            p for p in supplier["prices"] if p["species"] == sold and p["grade"] != "No. 1 Common"
        ]
        put = client.put(f"/api/suppliers/{supplier['id']}", json={"supplier": supplier})
        assert put.status_code == 204
    assert ways(client, project)["", ""]["mixture"] is None
    for at in (MILL, YARD):
        ask(client, project, at, 2)
    found = ways(client, project)["", ""]
    assert found["recommended"] is None
    shares = {s["supplier"]: s["groups"] for s in found["mixture"]["shares"]}
    assert shares == {MILL: ["ash 4/4"], YARD: ["white oak 4/4"]}
    assert found["mixture"]["money"] > 37  # the trips alone


def test_a_first_look_needs_no_trip(client: FlaskClient, listed: Project) -> None:
    query = {"supplier": YARD, "grade": "FAS", "chance": 0.9}
    (group,) = client.get(f"{base(listed)}/first-look", query_string=query).get_json()["groups"]
    assert group["key"] == "ash 4/4" and group["amount"]["value"] > 4 and group["cost"] > 0


def test_lengths_and_sheets_are_offered_by_their_true_sizes(client: FlaskClient) -> None:
    batten = {"id": "B", "name": "Batten", "quantity": 3, "species": "ash", "stock": "bought"}
    size = {"length": 30, "width": 1.5, "thickness": 0.75, "faces": "sound"}
    panel = {"id": "P", "name": "Back", "quantity": 1, "species": "ash plywood", "stock": "sheet"}
    wide = {"length": 40, "width": 30, "thickness": 0.5, "faces": "sound"}
    job = {**JOB, "version": 3, "parts": [{**batten, **size}, {**panel, **wide}], "boards": []}
    project = make(client, job)
    needs = client.get(f"{base(project)}/needs").get_json()
    first, *others = needs["lengths"][0]["offers"]
    # Three of 30 in: an eight foot length of 1 1/2 gives all three.
    (item,) = first["items"]
    assert item["pieces"] == 1 and item["length"] == 96 * INCH and item["width"] == 1.5 * INCH
    assert item["cuts"] == [["B", "B", "B"]]
    assert all(first["cost"] <= o["cost"] for o in others)
    (sheet,) = needs["sheets"][0]["offers"][0]["items"]
    assert (sheet["pieces"], sheet["length"]) == (1, 48 * INCH)  # half a sheet is enough


def test_one_change_of_the_list_is_set_beside_it(client: FlaskClient, listed: Project) -> None:
    part = {**listed["parts"][0], "faces": "sound", "length": 40 * INCH, "was": "R"}
    assert edit(client, listed, put_parts=[part]).status_code == 200
    where = f"{base(listed)}/variations"

    def asked() -> dict[str, Any]:
        query = {"supplier": YARD, "grade": "No. 1 Common"}
        found = client.get(where, query_string=query).get_json()["variations"]
        return {w["variation"]["kind"]: w for w in found}

    assert set(asked()) == {"grade", "joined"} and not any(w["done"] for w in asked().values())
    ask(client, listed, YARD, grade="No. 1 Common")
    for one in asked().values():
        body = {
            "supplier": YARD,
            "grade": "No. 1 Common",
            "trips": 3,
            "variation": one["variation"],
        }
        assert client.post(f"{base(listed)}/estimates", json=body).status_code == 202
    after = asked()
    assert after["grade"]["done"] == after["joined"]["done"] == 3
    assert after["joined"]["moved"]["trips"] >= 2
    gone = {**after["joined"]["variation"], "part": "no such"}
    refused = client.post(
        f"{base(listed)}/estimates", json={"supplier": YARD, "variation": gone, "trips": 1}
    )
    assert refused.status_code == 422 and refused.get_json()["where"] == "$.variation.part"


def test_a_list_without_boards_has_nothing_to_simulate(client: FlaskClient) -> None:
    project = make(client, {**JOB, "parts": [], "boards": []})
    answer = client.post(f"{base(project)}/estimates", json={"supplier": MILL})
    assert answer.status_code == 422 and "no part" in answer.get_json()["what"]


def offers(client: FlaskClient, project: Project) -> dict[str, Any]:
    found: dict[str, Any] = client.get(
        f"{base(project)}/offers", query_string={"supplier": MILL}
    ).get_json()
    return found


def put(client: FlaskClient, project: Project, offer: dict[str, Any]) -> dict[str, Any]:
    answer = client.put(f"{base(project)}/offers/{offer['board']['id']}", json=offer)
    assert answer.status_code == 200, answer.get_json()
    found: dict[str, Any] = answer.get_json()
    return found


def test_a_board_in_the_aisle_is_judged_and_the_cart_counts(
    client: FlaskClient, listed: Project
) -> None:
    ask(client, listed, MILL)
    good = put(client, listed, a_board("Y1"))
    assert good["verdict"]["word"] == "take" and good["verdict"]["worth"] > good["verdict"]["price"]
    assert good["feet"] == 3 and good["kg"] > 3  # 6 x 80 / 144 = 3.3, by the surface rule 3
    check = {
        "kind": "check",
        "face": "both",
        "x0": 0,
        "x1": 50 * INCH,
        "y0": 2 * INCH,
        "y1": 3 * INCH,
    }
    bad = put(client, listed, a_board("Y2", defects=[check]))
    assert bad["verdict"]["worth"] < good["verdict"]["worth"]
    assert bad["verdict"]["reason"] == "faults"
    put(client, listed, {**a_board("Y1"), "state": "cart"})
    put(client, listed, {**a_board("Y3"), "state": "cart"})
    found = offers(client, listed)
    (cart,) = found["cart"]
    assert cart["remaining"] < cart["pieces"] == 9
    assert [o["offer"]["board"]["id"] for o in found["offers"]] == ["Y1", "Y2", "Y3"]
    for _ in range(3):  # the list is covered before long
        put(client, listed, {**a_board(f"Z{_}", 120, 8), "state": "cart"})
    assert offers(client, listed)["cart"][0]["remaining"] == 0
    last = put(client, listed, a_board("Y9"))
    assert (last["verdict"]["word"], last["verdict"]["reason"]) == ("not-wanted", "covered")


def test_a_cart_says_its_chance(client: FlaskClient, listed: Project) -> None:
    def known() -> Any:
        query = {"supplier": MILL}
        return client.get(f"{base(listed)}/offers/chance", query_string=query).get_json()["known"]

    assert known() is None
    put(client, listed, {**a_board("Y1"), "state": "cart"})
    first = known()
    assert first["chance"] < 0.3 and first["more"] >= 1 and first["error"] > 0
    for n in range(4):
        put(client, listed, {**a_board(f"Z{n}", 120, 8), "state": "cart"})
    last = known()
    assert last["chance"] > 0.8 and last["more"] == 0


def test_a_ticket_that_says_too_much_is_told(client: FlaskClient, listed: Project) -> None:
    said = put(client, listed, {**a_board("Y1"), "ticket_feet": 5})
    assert (said["over_feet"], said["over"]) == (2, 4.4)
    assert said["offer"]["board"]["price"] == 11


def test_the_cart_comes_home_as_boards(client: FlaskClient, listed: Project) -> None:
    assert client.post(f"{base(listed)}/offers/bought").status_code == 422
    put(
        client, listed, {**a_board("Y1", moisture=[{"percent": 11, "day": 20000}]), "state": "cart"}
    )
    put(client, listed, a_board("Y2"))
    answer = client.post(f"{base(listed)}/offers/bought").get_json()
    assert answer["boards"] == ["Y1"]
    (board,) = client.get(base(listed)).get_json()["boards"]
    assert board["price"] == 6.6 and board["moisture"][0]["percent"] == 11
    assert board["supplier"] == "Otter Bend sawmill"
    assert [o["offer"]["board"]["id"] for o in offers(client, listed)["offers"]] == ["Y2"]
    # The same mark again, and the project's undo.
    put(client, listed, {**a_board("Y1"), "state": "cart"})
    assert client.post(f"{base(listed)}/offers/bought").get_json()["boards"] == ["Y1.2"]


def test_a_list_is_tried_with_boards_as_a_supplier_has_them(
    client: FlaskClient, listed: Project
) -> None:
    added = client.post(f"{base(listed)}/boards-to-try")
    assert added.status_code == 201
    boards = client.get(base(listed)).get_json()["boards"]
    assert [b["id"] for b in boards] == added.get_json()["boards"]
    assert {b["species"] for b in boards} == {"ash"} and all(b["price"] > 0 for b in boards)
    undone = client.post(f"{base(listed)}/undo", json={"version": added.get_json()["version"]})
    assert undone.status_code == 200 and client.get(base(listed)).get_json()["boards"] == []


def test_of_what_lies_there_the_cheapest_boards_are_named(
    client: FlaskClient, listed: Project
) -> None:
    body = {"supplier": MILL, "species": "ash", "quarter": "4/4", "count": 12}
    pile = client.post(f"{base(listed)}/offers/pile", json=body).get_json()
    assert len(pile["offers"]) == 12
    again = client.post(f"{base(listed)}/offers/pile", json=body).get_json()
    assert len(again["offers"]) == 12
    chosen = client.get(
        f"{base(listed)}/offers/cheapest", query_string={"supplier": MILL}
    ).get_json()
    prices = {o["offer"]["board"]["id"]: o["offer"]["board"]["price"] for o in pile["offers"]}
    assert chosen["left_out"] == {} and 0 < len(chosen["take"]) < 12
    assert chosen["cost"] == pytest.approx(sum(prices[m] for m in chosen["take"]))
    assert client.delete(f"{base(listed)}/offers/{chosen['take'][0]}").status_code == 204
    assert len(offers(client, listed)["offers"]) == 11


def test_first_words_for_where_no_server_is(client: FlaskClient, listed: Project) -> None:
    (words,) = client.get(
        f"{base(listed)}/offers/words", query_string={"supplier": MILL}
    ).get_json()["words"]
    assert words["quarter"] == "4/4" and words["per_foot"] > 0
    assert len(words["worths"]["check"]) == len(words["lengths"])
    assert words["worths"]["none"][-1][-1] > 0


def test_boards_looked_at_for_an_older_list_are_looked_at_anew(
    client: FlaskClient, listed: Project
) -> None:
    first = put(client, listed, a_board("Y1"))
    part = {**listed["parts"][1], "was": "W", "length": 60 * INCH}
    assert edit(client, listed, put_parts=[part]).status_code == 200
    (now,) = offers(client, listed)["offers"]
    assert now["verdict"]["gives"] and now["verdict"]["worth"] != first["verdict"]["worth"]


def test_a_cart_from_two_suppliers_is_read_by_the_wood_of_each(
    client: FlaskClient, listed: Project
) -> None:
    """Of 13/16 in the mill's 4/4 will do, the yard's skimmed boards are bought at 5/4: what was
    found for one grouping of the list is not used for the other.
    """
    thick = {**listed["parts"][0], "was": "R", "thickness": 13 * INCH // 16}
    assert edit(client, listed, put_parts=[thick]).status_code == 200
    first = put(client, listed, {**a_board("Y1"), "state": "cart"})
    yard = client.get(f"{base(listed)}/offers", query_string={"supplier": YARD}).get_json()
    wanted = {w["key"]: w for w in yard["cart"]}
    assert set(wanted) == {"ash 4/4", "ash 5/4"}
    (there,) = yard["offers"]
    # At the yard its 4/4 is for the thin seat alone.
    assert there["group"] == "ash 4/4" and set(there["verdict"]["gives"]) == {"W"}
    assert wanted["ash 5/4"]["remaining"] == 8 and wanted["ash 4/4"]["remaining"] == 0
    (again,) = offers(client, listed)["offers"]
    assert again["verdict"]["gives"] == first["verdict"]["gives"]
    assert there["feet"] == again["feet"]  # each by the rule of where it lies
