"""Pieces: what is cut out of a board is all there again, whatever the order, and a piece cut out of
a piece is the piece cut out at once.
"""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import boards
from tests.making import a_board, a_fault, t
from tests.profiles import examples
from vividplank.core.board import Board, Warp
from vividplank.core.board.volume import board_volume
from vividplank.core.piece import Line, Piece, Plane, piece_of_board
from vividplank.core.piece import operations as op
from vividplank.core.piece.volume import chips, volume

BENT = a_board(warp=Warp(t(0.3), t(0.1), t(0.2)), far_width=5.5)
#: Of all the wood; floats in between (a board has some 10^14 cubic ticks).
CLOSE = 1e-10


def test_a_board_has_its_volume() -> None:
    # 60 x (6 + 5 1/2) / 2 x 1 = 345 cubic inches.
    whole = piece_of_board(BENT)
    assert volume(whole) == pytest.approx(345 * t(1) ** 3, rel=CLOSE)
    assert whole.size == (t(60), t(6), t(1)) and whole.thick == whole.thin == t(1)


@examples(60)
@given(boards("W"))
def test_a_piece_is_as_much_wood_as_its_board_whatever_was_measured(board: Board) -> None:
    # Columns stand in the middle of their ground: exact where thickness runs straight.
    assert volume(piece_of_board(board)) == pytest.approx(float(board_volume(board)), rel=2e-3)


@st.composite
def cut_lines(draw: st.DrawFn, piece: Piece) -> Line:
    share, tilt = draw(st.floats(0.2, 0.8)), draw(st.floats(-0.02, 0.02))
    return op.along(piece, share * piece.width, tilt, 0.0)


@examples(60)
@given(st.data(), boards("W"))
def test_every_sequence_of_operations_closes(data: st.DataObject, board: Board) -> None:
    held = [piece_of_board(board)]
    whole, gone = volume(held[0]), 0.0
    for _ in range(data.draw(st.integers(1, 6))):
        piece = held.pop(data.draw(st.integers(0, len(held) - 1)))
        does = data.draw(st.sampled_from(["crosscut", "rip", "flatten", "skim", "plane"]))
        if does == "crosscut" and piece.length > t(4):
            a, b = (piece.length * k // 8 for k in (3, 4))
            gone += volume(op.crosscut(piece, "kerf", a, b))
            held += [
                op.crosscut(piece, "1", 0, a),
                op.crosscut(piece, "2", b, piece.x1 - piece.x0),
            ]
        elif does == "rip":
            line = data.draw(cut_lines(piece))
            above = replace(line, y0=line.y0 + t(0.125))
            gone += volume(op.rip(piece, "kerf", line, above))
            held += [op.rip(piece, "1", None, line), op.rip(piece, "2", above, None)]
        elif does == "skim":
            after = op.skim(piece, data.draw(st.sampled_from(["A", "B"])), piece.thick - 64)
            gone += chips(piece, after)
            held.append(after)
        else:
            slab = piece.slab
            low = Plane(slab.a, slab.b, slab.c)
            after = op.flatten(piece, "B", low)
            if does == "plane":
                after = op.plane(after, "A", max(1.0, slab.thickness / 2))
            gone += chips(piece, after)
            held.append(after)
    assert sum(volume(p) for p in held) + gone == pytest.approx(whole, rel=CLOSE)


@examples(60)
@given(st.data(), boards("W"))
def test_a_piece_of_a_piece_is_the_piece_at_once(data: st.DataObject, board: Board) -> None:
    whole = piece_of_board(board)
    a, b, c, d = sorted(data.draw(st.lists(st.integers(0, 1000), min_size=4, max_size=4)))
    long = board.length
    outer = op.crosscut(whole, "o", long * a / 1000, long * (d + 1) / 1000)
    inner = op.crosscut(outer, "i", long * (b - a) / 1000, long * (c + 1 - a) / 1000)
    low = op.along(whole, whole.width / 3, 0.003)
    once = op.rip(op.crosscut(whole, "i", long * b / 1000, long * (c + 1) / 1000), "i", low, None)
    twice = op.rip(inner, "i", low, None)
    assert (twice.x0, twice.x1) == pytest.approx((once.x0, once.x1))
    assert twice.low == once.low and volume(twice) == pytest.approx(volume(once), rel=1e-6)
    assert twice.faults == once.faults


@examples(60)
@given(st.data(), boards("W"))
def test_wood_taken_elsewhere_never_makes_a_piece_thicker(
    data: st.DataObject, board: Board
) -> None:
    whole = piece_of_board(board)
    part = op.crosscut(whole, "1", 0, board.length * data.draw(st.floats(0.3, 0.9)))
    slab = whole.slab.thickness
    # Less wood holds no less flat; and what a face has lost it has lost.
    assert part.slab.thickness >= slab - 1
    flat = op.flatten(part, "B", Plane(part.slab.a, part.slab.b, part.slab.c))
    assert flat.thick <= part.thick and flat.thin <= part.thick


def test_only_what_was_cut_is_flat() -> None:
    rough = piece_of_board(BENT)
    assert not rough.face_a.flat and not rough.face_b.flat and rough.reference == ""
    slab = rough.slab
    flat = op.flatten(rough, "B", Plane(slab.a, slab.b, slab.c))
    assert flat.face_b.flat and not flat.face_a.flat and flat.reference == "B"
    even = op.plane(flat, "A", slab.thickness)
    assert even.face_a.flat and even.thick == round(slab.thickness)
    with pytest.raises(ValueError, match="face A of B is not flat"):
        op.plane(flat, "B", slab.thickness)
    moved = op.rest(even)
    assert moved.face_a.state == moved.face_b.state == "to check"
    assert op.check(moved, "B").face_b.flat


def test_layers_are_to_be_checked() -> None:
    flat = piece_of_board(replace(a_board(thick=1.0), dressed=("A", "B")))
    one, two = op.resaw(flat, "1", 0, t(0.5)), op.resaw(flat, "2", t(0.5625), t(1))
    assert (one.thick, two.thick) == (t(0.5), t(0.4375))
    assert {one.face_a.state, one.face_b.state, two.face_a.state} == {"to check"}
    kerf = op.resaw(flat, "k", t(0.5), t(0.5625))
    assert volume(one) + volume(two) + volume(kerf) == pytest.approx(volume(flat), rel=CLOSE)


def test_a_dressed_board_is_flat_where_nobody_found_it_bent() -> None:
    dressed = replace(a_board(), dressed=("A", "B", "datum-edge"))
    piece = piece_of_board(dressed)
    assert piece.face_a.flat and piece.face_b.flat and piece.datum_edge == "straight"
    bent = piece_of_board(replace(dressed, warp=Warp(bow=t(0.1))))
    assert bent.face_a.state == "skimmed" and bent.reference == ""


def test_a_crooked_board_is_as_wide_as_it_measures_and_keeps_its_outline() -> None:
    # 6 wide at one end and 5 1/2 at the other; ripped along a slope at a third of it.
    line = Line(t(2.0), 0.005)
    above, below = (
        op.rip(piece_of_board(BENT), "a", line),
        op.rip(piece_of_board(BENT), "b", None, line),
    )
    assert above.width == t(4) and below.width == pytest.approx(t(2.3), abs=1)
    xs = np.array([0.0, t(60)])
    assert above.sides(xs)[1] == pytest.approx([t(6), t(5.5)])


def test_a_piece_for_the_rack_is_a_board_with_its_outline_thickness_and_faults() -> None:
    knot = a_fault("tight-knot", 12, 13, 1, 2)
    board = replace(BENT, defects=(knot,))
    part = op.crosscut(piece_of_board(board), "W1 thick", t(10), t(40))
    flat = op.flatten(part, "B", Plane(0, 0, t(0.6)))
    kept = op.as_board(flat)
    assert (kept.id, kept.length) == ("W1 thick", t(30))
    assert kept.widest == pytest.approx(part.width, abs=1)
    assert kept.defects[0].x0 == t(2) and kept.defects[0].y0 == t(1)
    # As thick at its corners as the wood over the cut: 1 in and the bow there less 0.6.
    lower, upper = flat.faces(*(np.array([[v]]) for v in (t(10.0), 0.0)))
    assert kept.thickness(0, 0) == pytest.approx(float((upper - lower)[0, 0]), abs=1)


def test_glue_makes_a_body_of_its_own_with_the_faults_where_they_came() -> None:
    knot = a_fault("tight-knot", 10, 11, 1, 2, "A")
    flat = replace(a_board(width=3, defects=(knot,)), dressed=("A", "B", "datum-edge", "far-edge"))
    staves = [replace(piece_of_board(flat), mark=m) for m in "12"]
    panel = op.glue(staves, "P", "width")
    assert panel.size == (t(60), t(6), t(1)) and panel.reference == "B"
    assert [d.y0 for d in panel.board.defects] == [t(1), t(4)]
    assert volume(panel) == pytest.approx(2 * volume(staves[0]), rel=CLOSE)
    block = op.glue(staves, "L", "thickness")
    assert block.size == (t(60), t(3), t(2)) and block.datum_edge == "straight"
