"""Outlines on a flat drawing: holes, words, written figures, likes."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.takeoff.making import rectangle
from vividplank.core.takeoff.model.found import Decision, Found, LayerMeaning, Settings, Words
from vividplank.core.takeoff.outlines.flat import parts_of_outlines, view_of
from vividplank.core.takeoff.outlines.outline import Outline, Written

MM = 320


def read(
    outlines: list[Outline],
    words: list[Words] | None = None,
    written: list[Written] | None = None,
    settings: Settings | None = None,
) -> tuple[tuple[Found, ...], tuple[str, ...]]:
    parts, troubles, _ = parts_of_outlines(
        outlines, words or [], written or [], "mm", settings or Settings()
    )
    return parts, troubles


def outline(
    ref: str, x: float, y: float, w: float, h: float, turn: float = 0.0, **kept: object
) -> Outline:
    return Outline(ref, tuple(rectangle(x, y, w, h, turn)), **kept)  # type: ignore[arg-type]


@given(st.floats(50, 3000), st.floats(10, 49), st.floats(0, math.pi), st.floats(-1e4, 1e4))
def test_a_rectangle_is_measured_the_same_however_it_lies(
    length: float, width: float, turn: float, x: float
) -> None:
    parts, troubles = read([outline("a", x, -x, length, width, turn)])
    assert (parts[0].length, parts[0].width) == pytest.approx((length * MM, width * MM), abs=2)
    assert troubles == () and parts[0].outline == ()


def decided(
    outlines: list[Outline], words: list[Words] | None = None, *turned: str
) -> tuple[list[str], dict[str, Decision]]:
    """The names of outlines that are parts, and the decisions by their kind."""
    settings = Settings(turned=frozenset(turned))
    parts, _, decisions = parts_of_outlines(outlines, words or [], [], "mm", settings)
    taken = {r for p in parts for r in p.refs}
    named = {r for d in decisions for r in d.refs}
    assert {o.ref for o in outlines} == taken | named, "nothing is left out without a decision"
    return sorted(taken), {d.kind: d for d in decisions}


def circle(ref: str, x: float, y: float, r: float) -> Outline:
    return Outline(
        ref,
        tuple((x + r * math.cos(k / 8), y + r * math.sin(k / 8)) for k in range(50)),
        circle=True,
    )


def test_what_lies_in_a_part_is_a_cut_out_of_it_unless_it_is_named() -> None:
    door, opening = outline("a", 0, 0, 600, 400), outline("b", 60, 60, 480, 280)
    parts, why = decided([door, opening, circle("c", 20, 20, 8)])
    assert parts == ["a"] and why["cut-out"].refs == ("b",) and why["holes"].refs == ("c",)
    assert why["cut-out"].what == "Cut-outs: 1 of 480 × 280 mm in the outline of 600 × 400 mm"
    turned, again = decided([door, opening], None, why["cut-out"].key)
    assert turned == ["a", "b"] and again["cut-out"].turned
    # With words of its own in it, it is a part laid in the other; that too can be turned round.
    words = [Words((300, 200), "Panel"), Words((5, 5), "Door")]
    named, told = decided([door, opening], words)
    assert named == ["a", "b"]
    assert decided([door, opening], words, told["inside"].key)[0] == ["a"]


def test_what_lies_in_a_cut_out_is_looked_at_by_itself() -> None:
    nested = [
        outline("a", 0, 0, 600, 400),
        outline("b", 60, 60, 480, 280),
        outline("c", 100, 100, 90, 40),
    ]
    assert decided(nested)[0] == ["a", "c"]


SHEET = outline("f", -100, -100, 1414, 1000)
RAILS = [outline(f"r{k}", 0, 100 * k, 600, 70) for k in range(3)]


@pytest.mark.parametrize(
    ("frame", "words"),
    [
        (SHEET, [Words((10, 10), "Rail")]),  # the ratio of paper, words in what lies in it
        (outline("f", -100, -100, 900, 700, layer="BORDER"), []),
        (outline("f", -100, -100, 2440, 1220), []),  # a sheet that parts are nested on
    ],
)
def test_a_frame_round_everything_is_taken_as_one(frame: Outline, words: list[Words]) -> None:
    parts, why = decided([frame, *RAILS], words)
    assert parts == ["r0", "r1", "r2"] and why["frame"].refs == ("f",)
    turned, _ = decided([frame, *RAILS], [], why["frame"].key)
    assert turned == ["f"]


def test_a_frame_in_a_frame_and_the_boxes_of_a_title_block() -> None:
    inner = outline("g", -80, -80, 1374, 960)
    box = outline("t", 1000, -70, 200, 30)
    parts, why = decided(
        [SHEET, inner, box, *RAILS], [Words((1010, -60), "SCALE 1:10"), Words((10, 10), "Rail")]
    )
    assert parts == ["r0", "r1", "r2"] and why["title block"].refs == ("t",)


def test_a_part_with_its_own_cut_outs_alone_on_a_drawing_is_no_frame() -> None:
    panel = outline("a", 0, 0, 800, 300)
    assert decided([panel, outline("b", 100, 100, 80, 80), outline("c", 300, 100, 80, 80)])[0] == [
        "a"
    ]


def test_words_go_to_the_smallest_outline_they_lie_in_else_to_the_nearest() -> None:
    outer, inner, far = (
        outline("a", 0, 0, 600, 400),
        outline("b", 100, 100, 400, 200),
        outline("c", 0, 800, 300, 60),
    )
    words = [
        Words((300, 200), "Panel"),
        Words((10, 10), "Frame"),
        Words((310, 830), "Rail"),
        Words((5000, 0), "Title"),
    ]
    assert [p.name for p in read([outer, inner, far], words)[0]] == ["Frame", "Panel", "Rail"]


def test_written_figures_belong_to_the_outline_they_span() -> None:
    rail = outline("a", 0, 0, 600, 70)
    along = Written((0, -40), (600, -40), 0.0, 610 * MM, 600)
    across = Written((-40, 0), (-40, 70), math.pi / 2, 70 * MM, 70)
    elsewhere = Written((0, 900), (500, 900), 0.0, 500 * MM, 500)
    parts, troubles = read([rail], written=[along, across, elsewhere])
    assert (parts[0].length, parts[0].width) == (610 * MM, 70 * MM)
    assert troubles == ("'a': written 610 mm, drawn 600 mm; the written figure was taken",)


def test_written_figures_on_a_turned_outline() -> None:
    turn = 0.5
    rail = outline("a", 0, 0, 600, 70, turn)
    a, b = rail.points[0], rail.points[1]
    parts, _ = read([rail], written=[Written(a, b, turn, 604 * MM, 600)])
    assert parts[0].length == 604 * MM


def test_likes_are_counted_by_size_layer_and_shape() -> None:
    notched = Outline("c", ((0, 900), (300, 900), (300, 930), (280, 930), (280, 960), (0, 960)))
    parts, _ = read(
        [
            outline("a", 0, 0, 300, 60),
            outline("b", 900, 0, 300, 60, 1.0),
            notched,
            outline("d", 0, 500, 300, 60, layer="ash"),
        ]
    )
    assert [(p.refs, p.quantity) for p in parts] == [(("a", "b"), 2), (("c",), 1), (("d",), 1)]


def test_layers_say_wood_and_thickness() -> None:
    settings = Settings(
        layers=(("ply", LayerMeaning("birch ply", 6 * MM)), ("notes", LayerMeaning(ignore=True)))
    )
    parts, _ = read(
        [outline("a", 0, 0, 300, 200, layer="ply"), outline("b", 500, 0, 300, 200, layer="notes")],
        settings=settings,
    )
    assert [(p.species, p.thickness) for p in parts] == [("birch ply", 6 * MM)]


def test_the_view_lies_at_the_origin_with_y_down() -> None:
    view = view_of([outline("a", 100, 200, 300, 60)], [Words((100, 200), "Rail")])
    assert (view.width, view.height) == (300, 60)
    assert set(view.shapes[0].outline) == {(0, 60), (300, 60), (300, 0), (0, 0)} and view.words[
        0
    ].at == (0, 60)


def test_of_two_alike_a_dimension_belongs_to_the_nearer() -> None:
    low, high = outline("a", 0, 0, 600, 70), outline("b", 0, 500, 600, 90)
    parts, _ = read([low, high], written=[Written((0, -40), (600, -40), 0.0, 610 * MM, 600)])
    assert {p.refs: p.length for p in parts} == {("a",): 610 * MM, ("b",): 600 * MM}


def test_shapes_of_one_size_are_told_apart_and_mirrored_ones_counted() -> None:
    def rail(ref: str, x: float, *notch: float) -> Outline:
        low, high = notch
        upper = ((400, 60), (high, 60), (high, 40), (low, 40), (low, 60), (0, 60))
        return Outline(ref, tuple((x + a, b) for a, b in ((0, 0), (400, 0), *upper)))

    left, right = rail("a", 0, 20, 80), rail("b", 900, 320, 380)
    parts, _ = read([left, right, rail("c", 1800, 170, 230), rail("d", 2700, 20, 80)])
    assert [(p.refs, p.quantity, p.mirrored) for p in parts] == [
        (("a", "d", "b"), 3, 1),
        (("c",), 1, 0),
    ]
