"""The oriented bounding box along a solid's own planes, and which solids are the same thing."""

import math

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from tests.profiles import examples
from tests.takeoff.making import a_block, a_prism, solid
from vividplank.core.takeoff.model.found import Settings
from vividplank.core.takeoff.solids.bodies import split
from vividplank.core.takeoff.solids.oriented_box import oriented_box, outline, same
from vividplank.core.takeoff.solids.solids import parts_of

lengths = st.floats(5, 2000)
turns = st.floats(0, 2 * math.pi)
directions = st.tuples(*(st.floats(-1, 1) for _ in range(3))).filter(
    lambda d: sum(c * c for c in d) > 0.05
)


@given(
    st.tuples(lengths, lengths, lengths),
    turns,
    directions,
    st.tuples(*(st.floats(-3000, 3000) for _ in range(3))),
)
@examples(60)
def test_a_block_is_measured_the_same_however_it_lies(
    size: tuple, turn: float, about: tuple, at: tuple
) -> None:  # type: ignore[type-arg]
    box = oriented_box(solid(a_block(size, at, turn, about)))
    assert box.size == pytest.approx(sorted(size, reverse=True), abs=1e-6)
    assert np.linalg.det(box.axes) == pytest.approx(1)
    assert box.centre == pytest.approx(at, abs=1e-6)


def test_the_box_follows_the_planes_and_not_the_mass() -> None:
    # A rail with one end cut at 45 degrees: its axes of inertia lie askew, its planes do not.
    rail = a_prism([(0, 0), (400, 0), (340, 60), (0, 60)], 20)
    rail.apply_transform(trimesh.transformations.rotation_matrix(0.6, (1, 1, 0)))
    box = oriented_box(solid(rail))
    assert box.size == pytest.approx((400, 60, 20), abs=1e-6)
    # What is not a plain box keeps its outline: 400 x 60 less a corner of 60 x 60 / 2.
    ring = outline(solid(rail), box)
    assert len(ring) == 4
    area = (
        abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)))
        / 2
    )
    assert area == pytest.approx(400 * 60 - 60 * 60 / 2, rel=1e-3)


def test_a_round_leg_has_a_box_and_fills_pi_quarters_of_it() -> None:
    leg = solid(trimesh.creation.cylinder(20, 700, sections=64))
    box = oriented_box(leg)
    assert box.size == pytest.approx((700, 40, 40), rel=2e-3)
    taken = parts_of([leg], Settings())
    parts, troubles = taken.parts, taken.troubles
    assert parts[0].fill == pytest.approx(math.pi / 4, rel=5e-3) and troubles == ()


def test_a_ball_has_no_planes_and_still_a_box() -> None:
    ball = solid(trimesh.creation.icosphere(subdivisions=2, radius=30))
    assert oriented_box(ball).size == pytest.approx((60, 60, 60), rel=0.1)


#: A piece without any mirror symmetry: a tapered one with a corner off on one side.
HANDED = [(0.0, 0.0), (300.0, 0.0), (280.0, 50.0), (0.0, 80.0)]


def handed(mirrored: bool) -> trimesh.Trimesh:
    mesh = a_prism(HANDED, 20)
    # A chamfer along one long edge makes front and back differ; without it turning it over is its
    # mirror image.
    mesh.vertices[mesh.vertices[:, 2] > 10] *= (0.97, 1, 1)
    if mirrored:
        mesh.apply_transform(np.diag([-1.0, 1, 1, 1]))
    return mesh


def test_mirrored_pieces_are_known_from_equal_ones() -> None:
    one, turned, other = solid(handed(False)), solid(handed(False), "s2"), solid(handed(True), "s3")
    moved = trimesh.Trimesh(turned.vertices, turned.faces, process=False)
    moved.apply_transform(trimesh.transformations.rotation_matrix(1.1, (3, -1, 2)))
    turned = solid(moved, "s2")
    boxes = [oriented_box(s) for s in (one, turned, other)]
    assert same(one, turned, boxes[0], boxes[1]) == "same"
    assert same(one, other, boxes[0], boxes[2]) == "mirrored"
    parts = parts_of([one, turned, other], Settings()).parts
    assert [(p.quantity, p.mirrored) for p in parts] == [(3, 1)]
    assert "1 of them mirrored" in parts[0].note


def test_a_piece_that_is_its_own_mirror_image_is_no_pair() -> None:
    one, other = (
        solid(a_block((300, 60, 20))),
        solid(a_block((300, 60, 20), (500, 0, 0), 0.3), "s2"),
    )
    assert same(one, other, oriented_box(one), oriented_box(other)) == "same"


def test_sizes_that_differ_by_more_than_a_hair_stay_apart() -> None:
    one, other = solid(a_block((300, 60, 20))), solid(a_block((300, 60.3, 20)), "s2")
    assert same(one, other, oriented_box(one), oriented_box(other)) == ""


@pytest.mark.parametrize(
    "names",
    [("Left side", "Right side"), ("Rail:1", "Rail:2"), ("Rail.001", "Rail.002"), ("", "Rail")],
)
def test_copies_and_sides_are_counted_together(names: tuple[str, str]) -> None:
    solids = [
        solid(a_block((300, 60, 20), (k * 100, 0, 0)), f"s{k}", name)
        for k, name in enumerate(names)
    ]
    parts = parts_of(solids, Settings()).parts
    assert [p.quantity for p in parts] == [2]


def test_like_pieces_with_names_of_their_own_stay_apart() -> None:
    solids = [
        solid(a_block((300, 60, 20), (k * 100, 0, 0)), f"s{k}", name)
        for k, name in enumerate(("Shelf", "Apron"))
    ]
    assert [p.name for p in parts_of(solids, Settings()).parts] == ["Shelf", "Apron"]


@pytest.mark.parametrize("at", [(0, 0, 20), (500, 0, 0), (500, 60, 0), (250, 30, 20)])
def test_bodies_that_touch_come_apart(at: tuple[float, float, float]) -> None:
    # Face on face, end on end, edge on edge, and half over: all in one mesh with welded points.
    both = trimesh.util.concatenate([a_block((500, 60, 20)), a_block((500, 60, 20), at)])
    bodies = split(np.asarray(both.vertices, float), np.asarray(both.faces, np.int64))
    assert len(bodies) == 2
    assert all(
        oriented_box(solid(trimesh.Trimesh(v, f, process=False))).size
        == pytest.approx((500, 60, 20))
        for v, f in bodies
    )


def test_an_open_body_is_named_and_not_dropped() -> None:
    block = a_block((300, 60, 20))
    block.update_faces(np.arange(len(block.faces)) > 1)
    taken = parts_of([solid(block, name="Lid")], Settings())
    parts, troubles = taken.parts, taken.troubles
    assert parts[0].quantity == 1 and "'Lid' is open or broken" in troubles[0]
