"""Nothing silently wrong: what is doubtful of a reading is asked on the drawing, and one tap turns
it round.
"""

import io

import ezdxf  # type: ignore[import-untyped]
import pytest
import trimesh

from tests.takeoff.making import a_block, taken_off, written
from vividplank.core.takeoff import Settings, read
from vividplank.core.takeoff.model.found import Reading

Ends = tuple[tuple[float, float], tuple[float, float]]


def dxf(*lines: Ends, unit: int = 4, words: tuple[tuple[str, float, float], ...] = ()) -> bytes:
    document = ezdxf.new("R2010")  # type: ignore[attr-defined]
    document.header["$INSUNITS"] = unit
    for text, x, y in words:
        document.modelspace().add_text(text, dxfattribs={"insert": (x, y), "height": 6})
    for a, b in lines:
        document.modelspace().add_line(a, b)
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def again(content: bytes, name: str, reading: Reading, kind: str) -> Reading:
    """Read anew with the one decision of this kind turned round."""
    (decision,) = [d for d in reading.decisions if d.kind == kind]
    turned, _ = read(content, name, Settings("mm", turned=frozenset({decision.key})))
    assert [d.turned for d in turned.decisions if d.kind == kind] == [True]
    return turned


@pytest.mark.parametrize(
    ("size", "why"),
    [
        ((5200, 140, 25), "is longer than boards come (16 ft, 4.9 m)"),
        ((900, 150, 120), "is thicker than boards come (4 in, 102 mm)"),
        ((900, 150, 0.4), "is thinner than any board"),
    ],
)
def test_a_size_no_board_has_is_asked_about_and_one_tap_drops_it(
    size: tuple[float, float, float], why: str
) -> None:
    content = written([a_block(size), a_block((600, 80, 20), (0, 2000, 0))], "stl")
    reading = taken_off(content, "a.stl")
    assert [d.what.endswith(why) for d in reading.decisions] == [True], reading.decisions
    assert reading.decisions[0].refs == reading.parts[0].refs
    turned = again(content, "a.stl", reading, "doubt")
    assert [p.length // 320 for p in turned.parts] == [600]


def test_usual_boards_raise_no_doubt() -> None:
    content = written([a_block((2400, 300, 50)), a_block((600, 80, 20), (0, 2000, 0))], "stl")
    assert taken_off(content, "a.stl").decisions == ()


def test_a_room_round_all_is_no_part_unless_it_is_said_to_be() -> None:
    scene = trimesh.Scene()
    scene.add_geometry(a_block((4000, 3000, 2500)), node_name="Envelope", geom_name="Envelope")
    for k in range(4):
        scene.add_geometry(
            a_block((600, 80, 20), (0, 200.0 * k, 0)), node_name=f"Rail {k}", geom_name=f"Rail {k}"
        )
    scene.apply_scale(0.001)
    content = bytes(scene.export(file_type="glb"))
    reading = taken_off(content, "a.glb")
    assert [(p.name, p.quantity) for p in reading.parts] == [("Rail", 4)] and reading.pieces == 5
    (room,) = reading.decisions
    assert room.kind == "room" and room.what == "No part: 'Envelope' holds all 4 others within it"
    turned, _ = read(content, "a.glb", Settings("m", turned=frozenset({room.key})))
    assert "Envelope" in [p.name for p in turned.parts]


def test_one_name_for_things_that_differ_is_told() -> None:
    scene = trimesh.Scene()
    for k, wide in enumerate((80, 60)):
        scene.add_geometry(
            a_block((600, wide, 20), (0, 200.0 * k, 0)),
            node_name=f"Rail.00{k + 1}",
            geom_name=f"R{k}",
        )
    reading = taken_off(bytes(scene.apply_scale(0.001).export(file_type="glb")), "a.glb")
    assert sorted(p.name for p in reading.parts) == ["Rail", "Rail 2"]
    assert [(d.kind, d.turn) for d in reading.decisions] == [("name", "")]
    assert reading.decisions[0].refs == next(p for p in reading.parts if p.name == "Rail 2").refs


RAIL: tuple[Ends, ...] = (
    ((0, 0), (600, 0)),
    ((600, 0), (600, 80)),
    ((600, 80), (0, 80)),
    ((0, 80), (0, 0)),
)


def test_a_line_across_a_part_makes_two_or_one_as_the_maker_says() -> None:
    content = dxf(*RAIL, ((200, 0), (200, 80)))
    reading = taken_off(content, "a.dxf")
    assert sorted(p.length // 320 for p in reading.parts) == [200, 400]
    assert {r for p in reading.parts for r in p.refs} == set(reading.decisions[0].refs)
    turned = again(content, "a.dxf", reading, "across")
    assert [(p.length // 320, p.width // 320, p.outline) for p in turned.parts] == [(600, 80, ())]


def test_parts_that_meet_in_a_corner_only_are_no_question() -> None:
    other = tuple(((a[0] + 600, a[1] + 80), (b[0] + 600, b[1] + 80)) for a, b in RAIL)
    assert taken_off(dxf(*RAIL, *other), "a.dxf").decisions == ()


def box(x: float, y: float, long: float, wide: float) -> tuple[Ends, ...]:
    ring = ((x, y), (x + long, y), (x + long, y + wide), (x, y + wide))
    return tuple(zip(ring, ring[1:] + ring[:1], strict=True))


@pytest.mark.parametrize(
    ("unit", "long", "wide", "asks", "right"),
    [
        (
            1,
            900,
            120,
            (
                "By the file's own word it would be 900 in long. The biggest thing is 900: "
                "millimetres?"
            ),
            900,
        ),
        (
            4,
            24,
            3.5,
            "By the file's own word it would be 24 mm long. The biggest thing is 24: inches?",
            609,
        ),
        (4, 900, 120, "", 900),
        (1, 24, 3.5, "", 609),
    ],
)
def test_a_unit_that_cannot_be_is_asked_about(
    unit: int, long: float, wide: float, asks: str, right: int
) -> None:
    reading, _ = read(dxf(*box(0, 0, long, wide), unit=unit), "a.dxf", Settings())
    assert reading.asks == asks and [p.length // 320 for p in reading.parts] == [right]


def test_a_title_block_of_lines_with_empty_boxes_is_no_part_and_names_none() -> None:
    lines = [
        *box(0, 0, 1189, 841),
        *(((989.0, y), (1189.0, y)) for y in (20.0, 40.0, 60.0)),
        ((989, 0), (989, 60)),
        ((1089, 0), (1089, 60)),
    ]
    content = dxf(
        *lines,
        *box(60, 120, 700, 120),
        *box(60, 320, 700, 120),
        words=(
            ("SCALE 1:1", 995, 5),
            ("DATE", 995, 25),
            ("2026-11-03", 1095, 25),
            ("Shelf", 90, 150),
            ("Shelf", 90, 350),
        ),
    )
    reading = taken_off(content, "a.dxf")
    assert [(p.name, p.quantity, p.length // 320, p.width // 320) for p in reading.parts] == [
        ("Shelf", 2, 700, 120)
    ]
    assert {d.kind for d in reading.decisions} == {"frame", "title block", "across"}
