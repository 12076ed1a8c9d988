"""Meshes taken apart: bodies that touch in every way come apart, and none is lost or cut in two."""

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from tests.profiles import examples
from tests.takeoff.making import a_block, a_prism, solid
from vividplank.core.takeoff.solids.bodies import split, weld
from vividplank.core.takeoff.solids.oriented_box import oriented_box

cells = st.sets(
    st.tuples(st.integers(0, 2), st.integers(0, 2), st.integers(0, 2)), min_size=1, max_size=9
)


def apart(mesh: trimesh.Trimesh) -> list[tuple[np.ndarray, np.ndarray]]:  # type: ignore[type-arg]
    return split(np.asarray(mesh.vertices, float), np.asarray(mesh.faces, np.int64))


@examples(60)
@given(cells, st.floats(0, 3), st.tuples(st.floats(-1, 1), st.floats(-1, 1), st.just(1.0)))
def test_blocks_side_by_side_on_edges_and_on_corners(
    places: set[tuple[int, int, int]], turn: float, about: tuple
) -> None:  # type: ignore[type-arg]
    # A stack of blocks 100 x 60 x 20, each its own body, faces on faces with one diagonal between
    # them.
    mesh = trimesh.util.concatenate(
        [a_block((100, 60, 20), (100.0 * x, 60.0 * y, 20.0 * z)) for x, y, z in sorted(places)]
    )
    mesh.apply_transform(trimesh.transformations.rotation_matrix(turn, about))
    bodies = apart(mesh)
    assert len(bodies) == len(places)
    for vertices, faces in bodies:
        body = solid(trimesh.Trimesh(vertices, faces, process=False))
        assert body.closed and oriented_box(body).size == pytest.approx((100, 60, 20), abs=1e-3)


@examples(40)
@given(cells, st.integers(0, 511), st.floats(0, 3))
def test_blocks_come_apart_whichever_way_their_faces_look(
    places: set[tuple[int, int, int]], inward: int, turn: float
) -> None:
    # Blocks in a row or a plate, some of them with their faces inward: none may be lost or merged
    # with its neighbour.
    flat = sorted({(x, y, 0) for x, y, _ in places})
    blocks = [a_block((100, 60, 20), (100.0 * x, 60.0 * y, 0.0)) for x, y, _ in flat]
    # One that is hemmed in on all four sides has no free face that tells which way is out; its
    # neighbours stay as they are.
    for k, (x, y, _) in enumerate(flat):
        if inward >> k & 1 and (x, y) != (1, 1):
            blocks[k].invert()
    mesh = trimesh.util.concatenate(blocks)
    mesh.apply_transform(trimesh.transformations.rotation_matrix(turn, (1, 2, 3)))
    bodies = apart(mesh)
    assert len(bodies) == len(flat)
    for body in bodies:
        assert solid(trimesh.Trimesh(*body, process=False)).volume == pytest.approx(
            100 * 60 * 20, rel=1e-6
        )


def test_a_face_between_two_boards_that_is_written_once_bounds_both() -> None:
    one, other = a_block((100, 60, 20)), a_block((100, 60, 20), (100, 0, 0))
    other.update_faces(~np.all(np.isclose(other.triangles[:, :, 0], other.bounds[0][0]), axis=1))
    bodies = apart(trimesh.util.concatenate([one, other]))
    assert [solid(trimesh.Trimesh(*b, process=False)).volume for b in bodies] == [
        pytest.approx(120_000)
    ] * 2


def test_the_room_that_boards_enclose_is_no_board() -> None:
    sides = [
        a_block((100, 20, 20), (100.0 * x, 20.0 * y, 20.0 * z))
        for x in range(3)
        for y in range(3)
        for z in range(3)
    ]
    del sides[13]  # the middle one of 27
    assert len(apart(trimesh.util.concatenate(sides))) == 26


def test_an_edge_cut_on_one_side_only_is_sealed() -> None:
    block = a_block((500, 60, 20))
    faces, points = np.asarray(block.faces), np.asarray(block.vertices)
    a, b, c = faces[0]
    middle = (points[a] + points[b]) / 2
    cut = np.vstack([faces[1:], [[a, len(points), c], [len(points), b, c]]])
    ((vertices, sealed),) = split(np.vstack([points, middle]), cut.astype(np.int64))
    assert solid(trimesh.Trimesh(vertices, sealed, process=False)).closed


def test_one_body_with_a_hole_through_it_stays_one() -> None:
    # Two U shapes would fall apart; a frame walked round is one body.
    outer, inner = (
        [(0, 0), (300, 0), (300, 200), (0, 200)],
        [(50, 50), (250, 50), (250, 150), (50, 150)],
    )
    points = [(x, y, z) for z in (0.0, 20.0) for x, y in outer + inner]
    faces = []
    for k in range(4):
        j = (k + 1) % 4
        a, b, c, d = k, j, 4 + j, 4 + k  # bottom ring, looking down
        faces += [(a, c, b), (a, d, c), (8 + a, 8 + b, 8 + c), (8 + a, 8 + c, 8 + d)]
        faces += [(a, b, 8 + b), (a, 8 + b, 8 + a), (d, 8 + c, c), (d, 8 + d, 8 + c)]
    bodies = apart(trimesh.Trimesh(points, faces, process=False))
    assert len(bodies) == 1
    frame = solid(trimesh.Trimesh(*bodies[0], process=False))
    assert frame.closed and frame.volume == pytest.approx((300 * 200 - 200 * 100) * 20)


def test_points_written_for_each_triangle_are_welded() -> None:
    block = a_block((500, 60, 20))
    loose = np.asarray(block.vertices, float)[np.asarray(block.faces)].reshape(-1, 3)
    vertices, faces = weld(loose, np.arange(len(loose)).reshape(-1, 3))
    assert len(vertices) == 8 and len(faces) == 12


def test_faces_without_area_are_dropped() -> None:
    block = a_block((500, 60, 20))
    faces = np.vstack([np.asarray(block.faces), [[0, 0, 1], [2, 2, 2]]]).astype(np.int64)
    assert len(weld(np.asarray(block.vertices, float), faces)[1]) == 12


def test_nothing_gives_nothing() -> None:
    assert split(np.zeros((1, 3)), np.zeros((0, 3), np.int64)) == []


@examples(30)
@given(st.floats(0.05, 0.9), st.floats(0.1, 3))
def test_a_tapered_piece_is_boxed_along_its_straight_edge(taper: float, turn: float) -> None:
    piece = a_prism([(0, 0), (700, 0), (700, 60 * taper), (0, 60)], 40)
    piece.apply_transform(trimesh.transformations.rotation_matrix(turn, (1, 2, 0.5)))
    assert oriented_box(solid(piece)).size == pytest.approx((700, 60, 40), rel=0.01)
