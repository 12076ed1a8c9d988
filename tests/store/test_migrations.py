"""What older databases hold is there after they are brought up to date."""

import json
from collections.abc import Iterator
from dataclasses import replace

import psycopg
import pytest
from alembic import command

from launcher.postgres import Cluster
from tests.conftest import sql
from vividplank.core.cutlist import Edging, Panel, Part, Source
from vividplank.core.layout.model.fixings import Fixings, Forbidden
from vividplank.core.layout.model.plan import Item
from vividplank.core.log.events import Did
from vividplank.core.milling.shop.machines import Jointer, Machines, usual_machines
from vividplank.core.milling.shop.workshop import Instruments, Workshop
from vividplank.core.shop import Allowance, Kerf, Shop
from vividplank.core.timber.rest import Climate
from vividplank.store import buying, layouts, log, milling, projects, workshops
from vividplank.store.database import engine, session
from vividplank.store.models import LayoutRow
from vividplank.store.prepare import configured, migrate

PROJECT = {
    "name": "Old",
    "system": "in",
    "method": "mill-wide",
    "kerf_crosscut": 1016,
    "kerf_rip": 1016,
    "kerf_resaw": 508,
    "allowance_length": 4064,
    "allowance_width": 1016,
    "allowance_face": 254,
    "allowance_panel_width": 2032,
    "end_trim": 8128,
    "min_blank_length": 97536,
    "max_slope": 0.02,
    "version": 1,
    "demo": False,
}
PLAIN = {
    "id": "A",
    "name": "Rail",
    "quantity": 2,
    "species": "ash",
    "length": 81280,
    "width": 16256,
    "thickness": 6096,
    "faces": "clear-one",
    "run": "",
    "note": "",
}
RICH = PLAIN | {
    "id": "B",
    "faces": "sound",
    "stave_min": 8128,
    "stave_max": 16256,
    "note": "look",
    "stock": "sheet",
    "grain": "any",
    "fitted": True,
    "layers": 2,
    "match": "m",
    "same_board": "s",
    "figure": "curly",
    "edging_thickness": 508,
    "edging_long_edges": 2,
    "edging_ends": 1,
    "joint": "tenon",
    "joint_length": 100,
    "formulas": json.dumps([["length", "10"]]),
    "source_drawing": 7,
    "source_key": "k",
    "outline": json.dumps([[0, 0], [81280, 0], [0, 16256]]),
}


def insert(connection: psycopg.Connection, table: str, row: dict[str, object]) -> int:
    names = ", ".join(f'"{n}"' for n in row)
    places = ", ".join(["%s"] * len(row))
    found = connection.execute(
        f"insert into {table} ({names}) values ({places}) returning pk",  # type: ignore[call-overload]
        list(row.values()),
    ).fetchone()
    assert found
    return int(found[0])


@pytest.fixture
def old(cluster: Cluster, monkeypatch: pytest.MonkeyPatch) -> Iterator[str]:
    """A database as it was before parts became documents."""
    sql(cluster, "drop database if exists plank_old")
    sql(cluster, "create database plank_old")
    url = cluster.url("plank_old")
    monkeypatch.setenv("PLANK_DATABASE", url)
    command.upgrade(configured(url), "0011")
    yield url
    engine(url).dispose()
    sql(cluster, "drop database plank_old with (force)")


def test_parts_shop_and_fixings_of_an_older_database(old: str) -> None:
    with psycopg.connect(old) as connection:
        pk = insert(connection, "project", PROJECT)
        for position, row in enumerate((PLAIN, RICH)):
            insert(connection, "part", row | {"project": pk, "position": position})
        held = {
            "pins": [{"part": "A", "n": 1, "stave": 0}],
            "forbidden": [{"board": "W", "x0": 0, "x1": 9, "y0": 0, "y1": 9}],
            "rested": ["W"],
            "first": ["A"],
        }
        empty = {"name": "", "shop": {}, "parts": [], "boards": []}
        layout = {
            "project": pk,
            "state": "done",
            "seconds": 1,
            "made_from": "",
            "job": json.dumps(empty),
            "stop_asked": False,
            "spent": 0,
            "rounds": 0,
            "trying": "",
            "trouble": "",
            "holds": json.dumps(held),
            "made_by": "search",
            "name": "",
            "undone": False,
            "plan": json.dumps({}),
        }
        number = insert(connection, "layout", layout)
        for key, minutes in (("W/rough-length", 4), ("W.1/face", None)):
            connection.execute(
                "insert into step_done (layout, key, minutes) values (%s, %s, %s)",
                [number, key, minutes],
            )
    migrate(old)
    with session() as opened:
        assert projects.load(opened, pk).job.parts == (
            Part("A", "Rail", 2, "ash", 81280, 16256, 6096),
            Part(
                "B",
                "Rail",
                2,
                "ash",
                81280,
                16256,
                6096,
                "sound",
                Panel(8128, 16256),
                note="look",
                stock="sheet",
                grain="any",
                fitted=True,
                layers=2,
                match="m",
                same_board="s",
                figure="curly",
                edging=Edging(508, 2, 1),
                joint="tenon",
                joint_length=100,
                formulas=(("length", "10"),),
                source=Source(7, "k"),
                outline=((0, 0), (81280, 0), (0, 16256)),
            ),
        )
        assert projects.load(opened, pk).job.shop == Shop(
            "mill-wide",
            Kerf(1016, 1016, 508),
            Allowance(4064, 1016, 254, 2032),
            8128,
            97536,
            0.02,
        )
        happened = [e.event for e in log.entries(opened, pk)]
        assert [(e.n, e.step, e.minutes) for e in happened if isinstance(e, Did)] == [
            (1, "W.1/face", None),
            (2, "W/rough-length", 4),
        ]
        assert layouts.steps_done(opened, number) == {"W.1/face", "W/rough-length"}
        row = opened.get_one(LayoutRow, number)
        row.plan = None
        assert layouts.load(opened, number).fixings == Fixings(
            (Item("A", 1),), (Forbidden("W", 0, 9, 0, 9),), ("W",), ("A",)
        )


def test_who_sold_a_board_moves_out_of_its_note(old: str) -> None:
    board = {
        "species": "ash",
        "length": 81280,
        "price": 8,
        "quarter": "",
        "bow": 0,
        "cup": 0,
        "twist": 0,
        "grain": "{}",
    }
    notes = ("long; bought at The barn", "bought at The barn", "was bought at home")
    with psycopg.connect(old) as connection:
        pk = insert(connection, "project", PROJECT)
        for n, note in enumerate(notes):
            insert(
                connection,
                "board",
                board | {"project": pk, "position": n, "id": f"W{n}", "note": note},
            )
    migrate(old)
    with psycopg.connect(old) as connection:
        found = connection.execute("select supplier, note from board order by position").fetchall()
    assert found == list(zip(("The barn", "The barn", ""), notes, strict=True))


def test_projects_with_the_same_machines_come_into_one_workshop(old: str) -> None:
    """None lose what they had: the usual of their unit, or what was set."""
    narrow = {"machines": {"jointer": {"bed_width": 48768}}, "exceptions": {"W": "by-hand"}}
    with psycopg.connect(old) as connection:
        of = {
            name: insert(
                connection,
                "project",
                PROJECT
                | {"name": name, "system": system}
                | ({"milling": json.dumps(milling)} if milling else {}),
            )
            for name, system, milling in (
                ("plain", "in", None),
                ("metric", "mm", None),
                ("narrow", "in", narrow),
                ("narrow too", "in", narrow | {"exceptions": {}}),
            )
        }
    migrate(old)
    with session() as opened:
        place = {name: workshops.of_project(opened, pk) for name, pk in of.items()}
        assert place["narrow"].pk == place["narrow too"].pk
        assert place["narrow"].name == "Our workshop" and place["narrow"].projects == 2
        assert len({p.pk for p in place.values()}) == 3
        had = {
            name: milling.of_project(opened, pk, projects.load(opened, pk).job)
            for name, pk in of.items()
        }
    assert had["plain"].machines == usual_machines("in")
    assert had["metric"].machines == usual_machines("mm")
    assert had["narrow"].machines == replace(Machines(), jointer=Jointer(bed_width=48768))
    assert had["narrow"].exceptions == {"W": "by-hand"} and not had["narrow too"].exceptions


def test_the_air_and_the_instruments_come_into_the_workshop(old: str) -> None:
    """Of projects of one workshop what was said last, where that is more than the usual."""
    command.upgrade(configured(old), "0019")
    same = {"method": "mill-wide", "end_trim": 8128}
    plain = {"climate": {"celsius": 20, "humidity": 0.5}, "instruments": {"caliper": ""}}
    said = {"climate": {"celsius": 17, "humidity": 0.7}, "instruments": {"caliper": "simulated"}}
    damp = {"climate": {"celsius": 15, "humidity": 0.8}}
    with psycopg.connect(old) as connection:
        ours, school = (
            insert(connection, "workshop", {"name": name, "document": json.dumps({"over": over})})
            for name, over in (("ours", 900), ("school", 800))
        )
        of = [
            insert(
                connection,
                "project",
                {
                    "name": name,
                    "system": "in",
                    "version": 0,
                    "workshop": workshop,
                    "demo": False,
                    "edited": f"2026-11-{day:02}",
                    "shop": json.dumps(same | shop),
                },
            )
            for name, workshop, day, shop in (
                ("damp", ours, 1, damp),
                ("said", ours, 2, said),
                ("plain", ours, 3, plain),
                ("school's", school, 4, plain),
            )
        ]
    migrate(old)
    with session() as opened:
        now = workshops.load(opened, ours).workshop
        assert now.climate == Climate(17, 0.7) and now.over == 900
        assert now.instruments == Instruments(caliper="simulated")
        assert workshops.load(opened, school).workshop == Workshop(over=800)
        assert projects.load(opened, of[1]).job.shop == Shop(end_trim=8128)


def test_prices_from_before_they_had_units_are_for_a_board_foot(old: str) -> None:
    command.upgrade(configured(old), "0020")
    line = {
        "species": "ash",
        "quarter": "4/4",
        "grade": "FAS",
        "surfacing": "S2S",
        "thickness": 6604,
        "length": {"least": 1, "usual": 2, "most": 3},
        "width": {"least": 1, "usual": 2, "most": 3},
    }
    lines = [line | {"per_foot": n, "quarter": f"{n}/4"} for n in (4, 5, 6)]
    barn = {"id": "barn", "name": "The barn", "kind": "yard", "prices": lines}
    with psycopg.connect(old) as connection:
        connection.execute(
            "insert into supplier (id, document) values ('barn', %s), ('bare', %s), ('gone', null)",
            (json.dumps(barn), json.dumps(barn | {"id": "bare", "prices": []})),
        )
    migrate(old)
    with session() as opened:
        kept = {s.id: s for s in buying.suppliers(opened)}
    assert [(p.quarter, p.asks, p.per) for p in kept["barn"].prices] == [
        (f"{n}/4", n, "board foot") for n in (4, 5, 6)
    ]
    assert kept["bare"].prices == () and "gone" not in kept
