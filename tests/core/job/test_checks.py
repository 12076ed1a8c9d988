"""The foreman's checks: each found where it belongs, silent where it does not, its fix a cure."""

from dataclasses import replace

import pytest

from tests.conftest import ROOT
from tests.making import a_part, t
from vividplank.core.cutlist import Edging, Part
from vividplank.core.exchange import read_job
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put, changed
from vividplank.core.job.checks import Check, checks
from vividplank.core.shop import Shop
from vividplank.core.takeoff.patterns import pattern_named, write

DEMO = ROOT / "vividplank" / "demo" / "settle.job.json"


def asked(*parts: Part) -> list[Check]:
    return list(checks(Job("", Shop(), parts, ()), "in"))


def fixed(part: Part, check: Check) -> list[Check]:
    """What is asked once the fix is made."""
    job = changed(
        Job("", Shop(), (part,), ()), Change("fix", put_parts=tuple(Put(p) for p in check.fixed))
    )
    return list(checks(job, "in"))


def test_a_sound_list_is_left_in_peace() -> None:
    assert checks(read_job(DEMO.read_bytes()), "in") == ()


@pytest.mark.parametrize(
    ("part", "what"),
    [
        (a_part("A", 1, 4, 20), "grain across"),
        (a_part("A", 1, 30, 3, 5), "no quarter gives"),
        (a_part("A", 1, 30, 3, 0.125), "thinner than"),
        (a_part("A", 1, 30, 10, panel=(4, 4.5)), "cannot be made of its staves"),
    ],
)
def test_found_and_cured(part: Part, what: str) -> None:
    found = [c for c in asked(part) if what in c.what]
    assert len(found) == 1 and found[0].fix and found[0].fixed
    assert not any(what in c.what for c in fixed(part, found[0])) or what == "thinner than"


def test_grain_across_is_cured_with_its_formulas() -> None:
    ring = ((0, 0), (t(4), 0), (t(4), t(20)), (0, t(18)))
    part = replace(a_part("A", 1, 4, 20), formulas=(("length", "4"),), outline=ring)
    cure = next(c for c in asked(part) if "grain" in c.what).fixed[0]
    assert (cure.length, cure.width, cure.formulas) == (t(20), t(4), (("width", "4"),))
    assert cure.fitting_outline().outline == ((0, 0), (0, t(4)), (t(20), t(4)), (t(18), 0))


def test_an_outline_of_another_size_is_no_longer_its_own() -> None:
    ring = ((0, 0), (t(20), 0), (t(20), t(3)), (0, t(2)))
    part = replace(a_part("A", 1, 20, 3), outline=ring)
    job = changed(Job("", Shop(), (), ()), Change("put", put_parts=(Put(part),)))
    assert job.parts[0].outline == ring
    longer = changed(job, Change("longer", put_parts=(Put(replace(part, length=t(22))),)))
    assert longer.parts[0].outline == ()


def test_short_parts_are_ganged_with_the_arithmetic() -> None:
    # 9 in and 1/2 allowance: 9 1/2 rough. Two make 9 + 9 + 1/8 + 1/2 = 18 5/8.
    found = next(c for c in asked(a_part("A", 4, 9)) if "too short" in c.what)
    assert "9 1/2 in rough" in found.why and "2 in one blank make 18 5/8 in" in found.why


def test_longer_than_boards_are_sold() -> None:
    assert any("longer than boards are sold" in c.what for c in asked(a_part("A", 1, 200)))
    assert not any("longer" in c.what for c in asked(a_part("A", 1, 191)))


def test_a_forgotten_tenon() -> None:
    rail = replace(a_part("A", 1, 30), joint="mortise and tenon")
    assert any("no length for its joint" in c.what for c in asked(rail))
    assert asked(replace(rail, joint_length=t(2))) == []


def test_two_parts_that_differ_by_a_hair() -> None:
    found = [c for c in asked(a_part("A", 1, 30), a_part("B", 1, 30 + 1 / 32)) if "hair" in c.what]
    assert found[0].parts == ("A", "B") and found[0].fixed[0].length == t(30)
    assert not any("hair" in c.what for c in asked(a_part("A", 1, 30), a_part("B", 1, 30 + 1 / 16)))


def test_a_panel_with_too_little_room_to_move() -> None:
    written = write(pattern_named("frame"), "in", "white oak")
    job = Job("", Shop(), written.parts, (), "in", written.measures)
    assert not any("room to move" in c.what for c in checks(job, "in"))
    tight = tuple(replace(m, text="1/16") if m.name == "gap" else m for m in written.measures)
    found = [
        c
        for c in checks(changed(job, Change("tight", measures=tight)), "in")
        if "room to move" in c.what
    ]
    assert len(found) == 1 and "its groove leaves 1/16 in" in found[0].why


def test_sheets_larger_than_they_are_made() -> None:
    sheet = replace(a_part("A", 1, 100, 30, 0.75), stock="sheet")
    assert any("larger than a sheet" in c.what for c in asked(sheet))
    # Its edging is not cut from the sheet: 97 1/2 with two strips of 1/4 is 97.
    edged = replace(sheet, length=t(97.5), edging=Edging(t(0.25), 0, 2))
    assert asked(edged) == []
