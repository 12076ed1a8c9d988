"""Patterns: sizes by hand for each, with the joinery that each joint adds, and views from the same
formulas.
"""

from itertools import product

import pytest

from tests.making import t
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put, changed
from vividplank.core.job.checks import checks
from vividplank.core.shop import Shop
from vividplank.core.takeoff.patterns import PATTERNS, PatternTrouble, Written, pattern_named, write


def part(written: Written, name: str) -> tuple[int, int, int, int]:
    found = next(p for p in written.parts if p.name == name)
    return found.quantity, found.length, found.width, found.thickness


@pytest.mark.parametrize("unit", ["in", "mm"])
@pytest.mark.parametrize("pattern", PATTERNS, ids=lambda p: p.key)
def test_every_choice_makes_a_whole_list_that_stands_in_a_project(pattern, unit: str) -> None:  # type: ignore[no-untyped-def]
    for options in product(*(c.options for c in pattern.choices)):
        written = write(
            pattern,
            unit,
            "white oak",
            None,
            dict(zip([c.name for c in pattern.choices], options, strict=True)),
        )  # type: ignore[arg-type]
        assert [s.name for s in written.sketches] == ["front", "side", "plan"] and all(
            s.dims for s in written.sketches[:1]
        )
        job = changed(
            Job("", Shop(), (), (), unit),
            Change(
                "put", put_parts=tuple(Put(p) for p in written.parts), measures=written.measures
            ),
        )  # type: ignore[arg-type]
        # Formulas come to what the pattern showed.
        assert job.parts == written.parts
        drawn = {r.part for s in written.sketches for r in s.rects}
        assert drawn <= {p.name for p in written.parts}
        # Nor has a foreman anything to say of its joints, or the maker of its grooves and tenons.
        assert not [c.what for c in checks(job, unit) if "joint" in c.what or "frame" in c.what]  # type: ignore[arg-type]
        assert written.warnings == ()


def test_a_carcass_by_hand() -> None:
    # 36 wide of 13/16 with one divider: (36 - 3 x 13/16) / 2 = 16 25/32 clear. Housings of 1/4 in
    # both ends: 17 9/32.
    made = write(
        pattern_named("carcass"), "in", "cherry", None, {"corner": "dovetail", "shelf": "housing"}
    )
    assert part(made, "Shelf") == (6, t(17 + 9 / 32), t(11), t(13 / 16))
    assert part(made, "Top and bottom") == (2, t(36), t(11.25), t(13 / 16))
    # A sixteenth of room each way for the back in its rebate.
    assert part(made, "Back") == (
        1,
        t(48 - 1.625 + 0.75 - 1 / 16),
        t(36 - 1.625 + 0.75 - 1 / 16),
        t(0.25),
    )
    doweled = write(
        pattern_named("carcass"), "in", "cherry", None, {"corner": "dowel", "shelf": "dowel"}
    )
    assert part(doweled, "Top and bottom")[1] == t(36 - 1.625) and part(doweled, "Shelf")[1] == t(
        16 + 25 / 32
    )


def test_a_back_of_boards_divides_its_width_evenly() -> None:
    # 36 less two of 13/16 and 1/16 of room, and twice a rebate of 3/8: 35 1/16. At most 4 each:
    # nine, and a tongue of 1/4.
    made = write(pattern_named("carcass"), "in", "ash", None, {"back": "tongue and groove boards"})
    count, length, width, thickness = part(made, "Back board")
    assert (count, length, thickness) == (9, t(48 - 1.625 + 0.75 - 1 / 16), t(0.5))
    assert width == round((35.0625 / 9 + 0.25) * 8128)


def test_no_divider_is_no_part() -> None:
    made = write(pattern_named("carcass"), "in", "cherry", {"dividers": "0"})
    assert "Divider" not in {p.name for p in made.parts}


@pytest.mark.parametrize(
    ("joint", "rail"),
    [
        ("mortise and tenon", 16 - 4.5 + 2.5),
        ("stub tenon", 16 - 4.5 + 0.75),
        ("dowel", 11.5),
        ("half-lap", 16),
        ("mitre", 16),
    ],
)
def test_frame_rails_by_joint(joint: str, rail: float) -> None:
    assert part(write(pattern_named("frame"), "in", "ash", None, {"joint": joint}), "Top rail")[
        1
    ] == t(rail)


def test_the_panel_has_the_room_its_wood_asks_for() -> None:
    # White oak 0.00365 per 1 %; 30 to 70 % humidity at 21.1 C is 6.2 to 13.1 %: 0.0253 of 11 1/2 is
    # 0.291, up to 5/16.
    made = write(pattern_named("frame"), "in", "white oak")
    assert part(made, "Panel")[2] == t(11.5 + 0.75 - 5 / 16)
    assert (
        "0.00365 × 6.9 = 0.0253" in made.arithmetic[0] and "taken as 5/16 in" in made.arithmetic[1]
    )
    drier = write(pattern_named("frame"), "in", "white oak", {"dry": "45", "damp": "55"})
    assert part(drier, "Panel")[2] > part(made, "Panel")[2]


def test_a_drawer_by_hand() -> None:
    # Opening 16 x 5 x 18: box 15 15/16 wide, 17 1/2 long; lapped front of 13/16 with 1/4 left:
    # sides 17 1/4.
    made = write(pattern_named("drawer"), "in", "ash")
    assert part(made, "Drawer side")[:2] == (6, t(17.25)) and part(made, "Drawer front")[:2] == (
        3,
        t(15 + 15 / 16),
    )
    assert part(made, "Drawer bottom")[1] == t(15 + 15 / 16 - 1 + 0.5 - 1 / 16)
    # The groove begins 3/8 above the lower edge and is 1/4 wide; the bottom slides in below the
    # back.
    assert part(made, "Drawer back")[2] == part(made, "Drawer front")[2] - t(3 / 8 + 1 / 4)
    assert all(p.run == "fronts" for p in made.parts if p.name == "Drawer front")


def test_a_bottom_in_a_rebate_runs_below_the_back() -> None:
    made = write(pattern_named("drawer"), "in", "ash", None, {"bottom": "in a rebate"})
    bottom, back = part(made, "Drawer bottom"), part(made, "Drawer back")
    assert back[2] + bottom[3] == part(made, "Drawer side")[2]
    # 17 1/2 long behind a front of 13/16, into a rebate of 1/4, less 1/16 of room: it ends under
    # the back's outer face.
    assert bottom[2] == t(17.5 - 13 / 16 + 1 / 4 - 1 / 16)


def test_a_wide_panel_stays_in_its_frame() -> None:
    # 48 wide, stiles of 2 1/4: an opening of 43 1/2. White oak moves 0.0253 of it, 1.101, so 1 1/8
    # of room; the grooves are made 9/16 + 3/16 = 3/4 deep, and the panel of 43 1/2 + 1 1/2 - 1 1/8
    # is wider than the opening by 3/8.
    made = write(pattern_named("frame"), "in", "white oak", {"W": "48"})
    assert part(made, "Panel")[2] == t(43 + 7 / 8) and made.warnings == ()
    shallow = write(pattern_named("frame"), "in", "white oak", {"W": "48", "groove": "3/8"})
    assert part(shallow, "Panel")[2] == t(43 + 1 / 8)
    assert [
        "too shallow by 5/16 in: when it is driest the panel falls out" in w
        for w in shallow.warnings
    ] == [True]
    put = Change("put", put_parts=tuple(Put(p) for p in shallow.parts), measures=shallow.measures)
    job = changed(Job("", Shop(), (), ()), put)
    assert "Panel may fall out of its frame" in [c.what for c in checks(job, "in")]
    wider = write(pattern_named("frame"), "in", "white oak", {"W": "96"})
    assert ["too deep" in w for w in wider.warnings] == [True]


def test_tenons_that_meet_in_a_thin_leg() -> None:
    # Rails of 13/16 set 1/8 back: a tenon 13/48 thick in their middle lies 0.396 to 0.667 from the
    # outer face. In a leg of 1 3/4 the other may be 1 3/4 - 0.667 = 1.083 long: 1 in does; in one
    # of 1 1/4 only 0.583: 9/16.
    table = pattern_named("table")
    for leg, between, tenon in (("1 3/4", 38.5, 1.0), ("1 1/4", 39.5, 9 / 16)):
        made = write(table, "in", "ash", {"leg": leg})
        assert part(made, "Long rail")[1] == t(between + 2 * tenon) and not made.warnings
    forced = write(table, "in", "ash", {"leg": "1 1/4", "tenon": "1"})
    assert (
        len(forced.warnings) == 1
        and "too long by 27/64 in: those of two rails meet in the leg" in forced.warnings[0]
    )


def test_a_stretcher_does_not_come_through_the_foot_rail() -> None:
    # Between foot rails of 13/16 whose middles are 44 - 2 - 1 3/4 apart: two thirds of their
    # thickness, 1/2, at each end.
    made = write(pattern_named("table"), "in", "ash", None, {"stretcher": "with a stretcher"})
    assert part(made, "Stretcher")[1] == t(44 - 2 - 1.75 - 13 / 16 + 1)


def test_a_mitred_frame_follows_the_picture_and_the_rebate() -> None:
    # 16 x 20 with 1/8 play, 1 1/2 wide with a rebate of 1/4: 16 1/8 + 2 x 1 1/4 = 18 5/8 over all.
    made = write(pattern_named("mitred"), "in", "cherry")
    assert part(made, "Frame, across")[1] == t(18.625) and part(made, "Frame, upright")[1] == t(
        22.625
    )


def test_a_sheet_panel_gives_up_its_edging() -> None:
    made = write(pattern_named("sheet"), "in", "birch")
    panel = next(p for p in made.parts if p.name == "Panel")
    assert panel.stock == "sheet" and panel.cut_size() == (t(47.5), t(19.5))


def test_a_second_one_has_measures_and_marks_of_its_own() -> None:
    first = write(pattern_named("settle"), "in", "ash")
    second = write(
        pattern_named("settle"),
        "in",
        "ash",
        None,
        None,
        {m.name for m in first.measures},
        {p.id for p in first.parts},
    )
    assert not {m.name for m in first.measures} & {m.name for m in second.measures}
    assert not {p.id for p in first.parts} & {p.id for p in second.parts}
    job = changed(
        Job("", Shop(), (), ()),
        Change(
            "both",
            put_parts=tuple(Put(p) for p in (*first.parts, *second.parts)),
            measures=(*first.measures, *second.measures),
        ),
    )
    wider = tuple(m if m.name != "W2" else type(m)("W2", "60") for m in job.measures)
    after = changed(job, Change("wider", measures=wider))
    assert [p.length for p in after.parts[: len(first.parts)]] == [p.length for p in first.parts]
    crest = [p.length for p in after.parts if p.name == "Crest rail"]
    assert crest == [t(54 - 4.5 + 2.5), t(60 - 4.5 + 2.5)]


def test_a_settle_made_wider_keeps_its_posts_and_spreads_its_panels() -> None:
    narrow, wide = (
        write(pattern_named("settle"), "in", "white oak", {"W": w}) for w in ("54", "60")
    )
    assert part(narrow, "Back post") == part(wide, "Back post")
    assert part(wide, "Back panel")[2] - part(narrow, "Back panel")[2] == pytest.approx(
        t(2), abs=t(1 / 16)
    )


@pytest.mark.parametrize(
    ("key", "values", "choices", "species", "why"),
    [
        ("frame", {"W": "4"}, {}, "ash", "nothing or less"),
        ("frame", {"W": "wide"}, {}, "ash", "'wide', which is no measure"),
        ("frame", {}, {"joint": "glue"}, "ash", "no way to make"),
        ("frame", {}, {}, "unobtainium", "not in the table of woods"),
        ("frame", {"dry": "70", "damp": "30"}, {}, "ash", "no range of humidity"),
        ("carcass", {"shelves": "2.5"}, {}, "ash", "whole number"),
    ],
)
def test_what_makes_no_piece_is_said(
    key: str, values: dict, choices: dict, species: str, why: str
) -> None:  # type: ignore[type-arg]
    with pytest.raises(PatternTrouble, match=why):
        write(pattern_named(key), "in", species, values, choices)
