"""Curved and round things, however a program cuts them into triangles: their least box, and what is
the same as what.
"""

import math

import numpy as np
import pytest
import trimesh

from tests.takeoff.making import sizes, taken_off, written
from vividplank.core.takeoff import Settings, read


def strip(
    outer: list[tuple[float, float]], inner: list[tuple[float, float]], thick: float
) -> trimesh.Trimesh:
    """A piece of even thickness between two lines of as many points."""
    n = len(outer)
    points = [(x, y, z) for z in (0.0, thick) for x, y in (*outer, *inner)]
    faces: list[tuple[int, int, int]] = []
    for k in range(n - 1):
        a, b, c, d = k, k + 1, n + k + 1, n + k
        faces += [(a, b, c), (a, c, d)]  # below
        faces += [(2 * n + a, 2 * n + c, 2 * n + b), (2 * n + a, 2 * n + d, 2 * n + c)]
        faces += [
            (a, 2 * n + b, b),
            (a, 2 * n + a, 2 * n + b),
            (d, c, 2 * n + c),
            (d, 2 * n + c, 2 * n + d),
        ]
    for k in (0, n - 1):
        a, d = k, n + k
        ends = [(a, d, 2 * n + d), (a, 2 * n + d, 2 * n + a)]
        faces += ends if k == 0 else [(p, r, q) for p, q, r in ends]
    mesh = trimesh.Trimesh(points, faces, process=False)
    mesh.fix_normals()
    return mesh


def rocker(segments: int, wide: float = 60, end: float = 60) -> trimesh.Trimesh:
    """A rocker of 1100 mm radius over 50 degrees, 30 thick; `end` is how wide it is at its far
    end.
    """
    turns = np.linspace(-0.436, 0.436, segments)
    outer = [(1100 * math.sin(a), 1100 * math.cos(a)) for a in turns]
    widths = np.linspace(wide, end, segments)
    inner = [
        ((1100 - w) * math.sin(a), (1100 - w) * math.cos(a))
        for a, w in zip(turns, widths, strict=True)
    ]
    return strip(outer, inner, 30)


def turned(mesh: trimesh.Trimesh, turn: float, x: float) -> trimesh.Trimesh:
    mesh.apply_transform(trimesh.transformations.rotation_matrix(turn, (0.3, 1, 0.5)))
    mesh.apply_translation((x, 0, 0))
    return mesh


@pytest.mark.parametrize("turn", [0.0, 0.7, 2.1])
def test_a_rocker_has_its_least_box_however_it_lies(turn: float) -> None:
    # The chord of 1100 sin 0.436 twice, and from the chord of the inner line to the top: 1100 -
    # 1040 cos 0.436.
    long, high = 2 * 1100 * math.sin(0.436), 1100 - 1040 * math.cos(0.436)
    (count, size), *more = sizes(
        taken_off(written([turned(rocker(90), turn, 0)], "stl"), "rocker.stl")
    )
    assert (count, more) == (1, []) and size == pytest.approx((long, high, 30), abs=0.3)


def test_curved_things_are_one_part_though_cut_otherwise_into_triangles() -> None:
    pair = [turned(rocker(90), 0.3, 0), turned(rocker(61), 1.2, 3000)]
    reading = taken_off(written(pair, "stl"), "rockers.stl")
    assert [p.quantity for p in reading.parts] == [2] and reading.parts[0].mirrored == 0
    other = taken_off(written([*pair, turned(rocker(75, end=52), 0.9, 6000)], "stl"), "rockers.stl")
    assert sorted(p.quantity for p in other.parts) == [1, 2]


def test_a_twisted_piece_and_its_mirror_image_are_a_pair() -> None:
    def twisted(hand: int) -> trimesh.Trimesh:
        bar = trimesh.creation.box((40, 60, 600))
        bar = bar.subdivide().subdivide().subdivide().subdivide()
        x, y, z = bar.vertices.T
        angle = hand * 0.6 * (z / 600 + 0.5)
        bar.vertices = np.column_stack(
            [x * np.cos(angle) - y * np.sin(angle), x * np.sin(angle) + y * np.cos(angle), z]
        )
        return bar

    right, left = twisted(1), twisted(-1)
    reading = taken_off(
        written([right, turned(left, 0.8, 2000), turned(twisted(1), 2.0, 4000)], "stl"), "bars.stl"
    )
    assert [(p.quantity, p.mirrored) for p in reading.parts] in ([(3, 1)], [(3, 2)])


def test_an_object_of_two_materials_is_one_thing_with_its_name() -> None:
    box = trimesh.creation.box((600, 70, 19))
    lines = ["o Left side", *(f"v {x} {y} {z}" for x, y, z in box.vertices)]
    for k, (a, b, c) in enumerate(box.faces + 1):
        lines += [f"usemtl {'ash' if k < 6 else 'oak'}", f"f {a} {b} {c}"]
    reading = taken_off("\n".join(lines).encode(), "a.obj")
    assert sizes(reading) == [(1, (600.0, 70.0, 19.0))] and reading.troubles == ()
    more = [line.replace("Left side", "Shelf") for line in lines if not line.startswith("f")]
    more += [f"f {a + 8} {b + 8} {c + 8}" for a, b, c in box.faces + 1]
    moved = [f"v {x + 900} {y} {z}" for x, y, z in box.vertices * 0.5]
    two = taken_off("\n".join([*lines, more[0], *moved, *more[9 + 12 :]]).encode(), "a.obj")
    assert {p.name for p in two.parts} == {"Left side", "Shelf"}


def test_a_group_that_holds_one_nameless_mesh_names_it() -> None:
    scene = trimesh.Scene()
    for k, name in enumerate(("Left rail", "Shelf")):
        scene.graph.update(
            frame_from="world",
            frame_to=name,
            matrix=trimesh.transformations.translation_matrix((0, k, 0)),
        )
        box = trimesh.creation.box((0.6 - 0.1 * k, 0.07, 0.019))
        scene.add_geometry(
            box, node_name=f"mesh_{k}", geom_name=f"geometry_{k}", parent_node_name=name
        )
    reading = taken_off(scene.export(file_type="glb"), "a.glb")
    assert {p.name for p in reading.parts} == {"Left rail", "Shelf"}


def test_several_boards_in_one_body_are_asked_about() -> None:
    points = [(0, 0), (600, 0), (600, 20), (20, 20), (20, 400), (0, 400)]
    corner = trimesh.Trimesh(
        [(x, y, z) for z in (0.0, 300.0) for x, y in points],
        [(0, 2, 1), (0, 3, 2), (0, 4, 3), (0, 5, 4), (6, 7, 8), (6, 8, 9), (6, 9, 10), (6, 10, 11)]
        + [f for k in range(6) for j in [(k + 1) % 6] for f in ((k, j, 6 + j), (k, 6 + j, 6 + k))],
        process=False,
    )
    content = written([corner], "stl")
    reading = taken_off(content, "a.stl")
    (asked,) = reading.decisions
    assert (
        asked.kind == "fused"
        and asked.what.endswith("is it several boards in one body?")
        and not asked.turned
    )
    assert asked.turn == "Part it into 2 boards: 1 of 600 × 300 × 20 mm; 1 of 380 × 300 × 20 mm"
    # One tap parts it, the larger board running through at the corner.
    parted, _ = read(content, "a.stl", Settings("mm", turned=frozenset({asked.key})))
    assert [(p.length // 320, p.width // 320, p.thickness // 320) for p in parted.parts] == [
        (600, 300, 20),
        (380, 300, 20),
    ]
    assert parted.decisions[0].turned and set(parted.decisions[0].refs) == {
        r for p in parted.parts for r in p.refs
    }
