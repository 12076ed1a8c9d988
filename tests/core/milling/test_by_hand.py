"""Routes worked by hand, each carried out on the wood: the wide board, wane, pith, every way over a
narrow jointer, dressed stock, a panel of nine staves, thick stock, the maker's own steps.
"""

from dataclasses import replace

import pytest

from tests.machine_shop import told, violations
from tests.making import a_board, a_fault, a_part, t
from vividplank.core.board import Board, Station, Warp
from vividplank.core.cutlist import Part
from vividplank.core.exchange.route_file import route_document
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_MM as MM
from vividplank.core.milling import Machines, Milling, Step, routes
from vividplank.core.milling.model.step import Method
from vividplank.core.milling.shop.machines import Planer
from vividplank.core.milling.shop.school import OwnStep
from vividplank.core.shop import Shop, metric_shop

SHOP = Shop()


def strip(low: float, high: float, *items: Item, x0: float = 5, x1: float = 45) -> Strip:
    return Strip(t(low), t(high), (Blank(t(x0), t(x1), (items,)),))


def made(
    board: Board,
    parts: tuple[Part, ...],
    strips: tuple[Strip, ...],
    milling: Milling | None = None,
    y0: float = 0,
) -> dict[str, Step]:
    """The steps of one segment from 5 to 45, which the machine shop has carried out."""
    job = Job("", SHOP, parts, (board,))
    plan = Plan(
        (BoardPlan(board.id, (Segment(t(5), t(45), t(y0), 0.0, strips),)),), cost=board.price
    )
    assert not audit(job, plan), audit(job, plan)
    return carried_out(job, plan, milling or Milling())


def carried_out(job: Job, plan: Plan, milling: Milling) -> dict[str, Step]:
    found = routes(job, plan, milling)
    wrong = violations(job, plan, milling.machines, route_document(found, job.unit))
    assert not wrong, told(wrong)
    return {s.key: s for r in found for s in r.steps}


def test_of_a_ten_inch_board_only_the_five_that_are_used_go_over_an_eight_inch_jointer() -> None:
    # The part lies from 0 to 5 1/8: the line is at 5 1/8, and what is left is 5 1/8 wide.
    found = made(a_board("W", width=10), (a_part("R", 1, 39, 5),), (strip(0, 5.125, Item("R", 1)),))
    saw, face = found["W.1/rough-width"], found["W.1/face"]
    assert list(found)[:3] == ["W/rough-length", "W.1/rough-width", "W.1/face"]
    assert saw.along == "line" and saw.machine == "bandsaw"
    assert saw.sizes_in["W.1"][1] == t(10) and saw.sizes_out["W.1"][1] == t(5.125)
    assert "10 in wide; the jointer takes 8 in" in saw.why and face.machine == "jointer"


def test_wane_along_an_edge_is_sawn_off_before_that_edge_is_the_reference() -> None:
    wane = a_fault("wane", 0, 60, 0, 0.5)
    found = made(
        a_board("W", width=6, defects=(wane,)),
        (a_part("R", 1, 39, 4),),
        (strip(0, 4.125, Item("R", 1)),),
        y0=0.5,
    )
    saw = found["W.1/rough-width"]
    assert "wane lies along the edge that is to be the reference" in saw.why
    assert saw.gives[0].h0 == 0 and saw.gives[0].y0 == t(0.5)
    assert list(found).index(saw.key) < list(found).index("W.1/edge")


def test_pith_between_two_strips_is_ripped_out_and_ends_in_no_part() -> None:
    # Strips of 2 1/8 at 0 and at 2 3/4, the pith from 2 1/4 to 2 5/8 between them. From the jointed
    # edge at 0 the first rip stops a kerf short of 2 3/4: fence at 2 5/8. Then the 2 in wide part
    # is ripped off that, and the pith falls beside it.
    pith = a_fault("pith", 0, 60, 2.25, 2.625)
    parts = (a_part("R", 2, 39, 2),)
    found = made(
        a_board("W", width=6, defects=(pith,)),
        parts,
        (strip(0, 2.125, Item("R", 1)), strip(2.75, 4.875, Item("R", 2))),
    )
    wide, trimmed, second = (found[f"W.1{k}"] for k in ("a/width", "a/trim-width", "b/width"))
    assert (wide.setting, trimmed.setting, second.setting) == (t(2.625), t(2), t(2))
    assert wide.gives[1].h0 == t(2.75) and second.takes == (wide.gives[1].piece,)


def test_strips_are_ripped_in_the_order_they_lie() -> None:
    parts = (a_part("N", 1, 39, 1.5), a_part("R", 1, 39, 3))
    found = made(
        a_board("W", width=6),
        parts,
        (strip(0, 1.625, Item("N", 1)), strip(1.75, 4.875, Item("R", 1))),
    )
    rips = [s for s in found.values() if s.kind == "width"]
    assert [s.setting for s in rips] == [t(1.5), t(3)]


#: Every way over an 8 in jointer, and which face is cut first where face B is the hollow one.
WAYS: list[tuple[Method, str, str]] = [
    ("carrier", "planer", "A"),
    ("bridge", "router bridge", "B"),
    ("hand", "hand plane", "B"),
    ("ridge", "hand plane", "B"),
    ("step-and-carrier", "planer", "A"),
    ("outside", "outside shop", "B"),
]


@pytest.mark.parametrize(("way", "machine", "cuts"), WAYS)
def test_a_wide_board_goes_any_way_that_is_offered_each_on_the_right_face(
    way: Method, machine: str, cuts: str
) -> None:
    width = 9.5 if way == "ridge" else 12.0
    shop = Machines(router_bridge=t(24), outside="the joiner's", planer=Planer(width=t(15)))
    milling = Milling(shop, chosen={"W.1/face": way})
    found = made(
        a_board("W", width=width, warp=Warp(bow=t(0.1), cup=t(0.05)), thick=1.1),
        (a_part("R", 1, 39, width - 0.125),),
        (strip(0, width, Item("R", 1)),),
        milling,
    )
    face, plane = found["W.1/face"], found["W.1/thickness"]
    assert (face.way, face.machine, face.cuts) == (way, machine, cuts)
    # What is cut first goes down; the planer then cuts the other.
    assert plane.face_down == cuts and plane.cuts != cuts
    if way in ("carrier", "bridge", "hand"):
        assert face.face_down != cuts  # they cut what looks up
    if way == "carrier":
        assert face.shims and all(0 < s.height < t(0.2) for s in face.shims)
    if way == "step-and-carrier":
        assert found["W.1/step"].machine == "jointer" and len(found["W.1/step"].passes) == 1
    if way == "bridge":
        # 12 in and a bit of 1 in on both sides; 12 / 0.8 = 15 strokes.
        assert "clear span of 14 in" in face.why and "15 strokes" in face.why
    danger = next(w.danger for w in face.ways if w.method == way)
    assert bool(danger) == (way != "outside")


def test_a_way_with_a_guard_off_is_offered_last_and_never_taken_by_itself() -> None:
    found = made(
        a_board("W", width=9.5, thick=1.1),
        (a_part("R", 1, 39, 9.375),),
        (strip(0, 9.5, Item("R", 1)),),
    )
    face = found["W.1/face"]
    assert face.way == "carrier"
    assert [w.method for w in face.ways if w.guard_off] == ["ridge", "step-and-carrier"]


def test_a_shop_of_planer_and_hand_plane_has_no_jointer_to_go_to() -> None:
    milling = Milling(Machines(off=("jointer", "table saw")))
    found = made(
        a_board("W", width=6, warp=Warp(bow=t(0.1))),
        (a_part("R", 1, 39, 4),),
        (strip(0, 4.125, Item("R", 1)),),
        milling,
    )
    assert found["W.1/face"].way == "carrier" and found["W.1/edge"].machine == "hand plane"
    assert found["W.1a/width"].machine == "bandsaw"
    assert not {s.machine for s in found.values()} & {"jointer", "table saw"}


def test_a_shop_may_prefer_its_edges_by_hand() -> None:
    milling = Milling(Machines(preferred=(("edge", "hand"),)))
    found = made(
        a_board("W", width=6), (a_part("R", 1, 39, 4),), (strip(0, 4.125, Item("R", 1)),), milling
    )
    assert found["W.1/edge"].machine == "hand plane" and not found["W.1/edge"].obstacle
    assert found["W.1/face"].machine == "jointer"


def test_dressed_stock_of_its_thickness_meets_nothing_but_saws() -> None:
    # 19 mm pine, flat, with true edges, for a shelf of 19 mm: rough length, width, one end, length.
    ends = tuple(Station(x, 0, 140 * MM, 19 * MM, 19 * MM) for x in (0, 1000 * MM))
    board = Board("D", "pine", 1000 * MM, ends, dressed=("A", "B", "datum-edge", "far-edge"))
    shelf = Part("S", "Shelf", 1, "pine", 700 * MM, 120 * MM, 19 * MM)
    job = Job("", metric_shop(), (shelf,), (board,), "mm")
    one = Strip(0, 123 * MM, (Blank(25 * MM, 740 * MM, ((Item("S", 1),),)),))
    plan = Plan((BoardPlan("D", (Segment(25 * MM, 740 * MM, 0, 0.0, (one,)),)),))
    assert not audit(job, plan)
    found = carried_out(job, plan, Milling())
    assert [s.does for s in found.values()] == ["crosscut", "rip", "square", "length"]
    # The same boards with a bow somebody measured are to be flattened, and 19 mm are too thin.
    bent = replace(board, warp=Warp(bow=2 * MM))
    assert any(v.rule == 5 for v in audit(replace(job, boards=(bent,)), plan))


def test_nine_staves_make_a_panel_that_is_wide_enough_after_jointing() -> None:
    # Nine staves of 2 1/4 net are 20 1/4. Each keeps 1/64 over for every edge that is glued, two
    # passes less for the outer ones, so the joints cost nothing: 20 1/4 glued, 1/8 off either side.
    panel = a_part("P", 1, 24, 20, panel=(2, 3))
    boards = tuple(a_board(f"B{k}", 30, 8, 1.05) for k in range(3))
    cut = []
    for k, board in enumerate(boards):
        strips = tuple(
            Strip(
                t(2.5 * j),
                t(2.5 * j + 2.375),
                (Blank(t(1), t(26), ((Item("P", 1, 3 * k + j + 1),),)),),
            )
            for j in range(3)
        )
        cut.append(BoardPlan(board.id, (Segment(t(1), t(26), 0, 0.0, strips),)))
    job = Job("", SHOP, (panel,), boards)
    plan = Plan(tuple(cut), cost=sum((b.price for b in boards), start=boards[0].price * 0))
    assert not audit(job, plan)
    found = carried_out(job, plan, Milling(Machines(planer=Planer(width=t(24)))))
    jointed = [s for s in found.values() if s.does == "glue-edge"]
    assert [len(s.edge) for s in jointed] == [1, 2, 2, 2, 2, 2, 2, 2, 1]
    assert {s.stock_in - t(2.25) for s in jointed} == {t(1 / 64), t(1 / 32)}
    assert {s.stock_out for s in jointed} == {t(2.25)}
    trim = found["P1/trim"]
    assert (trim.stock_in, trim.stock_out) == (t(20.25), t(20)) and trim.gives[0].h0 == t(0.125)
    assert found["P1/glue"].takes == tuple(s.piece for s in jointed)
    # Through a planer of 15 in it is glued up in two parts that fit, and one joint is planed flush.
    parts = carried_out(job, plan, Milling())
    glued = [s for s in parts.values() if s.does == "glue"]
    assert [s.setting for s in glued] == [t(13.5), t(6.75), t(20.25)]
    assert parts["P1/clean-joint"].machine == "hand plane"


def test_a_panel_of_one_stave_is_not_glued() -> None:
    panel = a_part("P", 1, 24, 3, panel=(2, 4))
    found = made(a_board("W"), (panel,), (strip(0, 3.375, Item("P", 1, 1)),))
    assert not {s.does for s in found.values()} & {"glue", "glue-edge", "unclamp"}
    assert found["P1/trim" if "P1/trim" in found else "W.1a/trim"].stock_out == t(3)


def test_thick_stock_for_a_thin_part_is_resawn_and_the_rest_is_kept() -> None:
    # 2 in for 7/8: to plane it down would take 1 1/8 of chips. Facing takes 1/64; sawn off at
    # 7/8 + 1/32, a kerf of 1/16 leaves 1 1/64 for the rack.
    found = made(
        a_board("W", thick=2.0), (a_part("R", 1, 39, 4, 0.875),), (strip(0, 4.125, Item("R", 1)),)
    )
    saw = found["W.1/resaw"]
    assert saw.setting == t(0.875 + 1 / 32) and saw.gives[1].z0 == saw.setting + t(1 / 16)
    assert sum(found["W.1/thickness"].passes) <= t(1 / 32)
    assert saw.sizes_out["W.1 thick"][2] == pytest.approx(t(1 + 1 / 64), abs=2)


def test_a_thin_part_beside_one_that_is_resawn_is_sawn_off_too() -> None:
    # Two of 7/8 with 1/32 over and a kerf want 2 x 29/32 + 1/16 = 1 7/8 of the segment; to plane
    # the narrow one beside them down from that would take 1 in of chips. Sawn off at 29/32 it
    # loses 1/32, and 1 7/8 - 29/32 - 1/16 = 29/32 is kept.
    two = (Blank(t(5), t(45), ((Item("R", 1),), (Item("R", 2),))),)
    found = made(
        a_board("W", thick=2.0),
        (a_part("R", 2, 39, 3, 0.875), a_part("S", 1, 39, 1.75, 0.875)),
        (Strip(0, t(3.125), two), strip(3.25, 5.125, Item("S", 1))),
    )
    saw = found["W.1b/resaw"]
    assert found["W.1/thickness"].setting - saw.setting - t(1 / 16) == t(29 / 32)
    assert saw.setting == t(0.875 + 1 / 32) and saw.gives[1].piece == "W.1b thick"
    assert sum(found["W.1b/finish-thickness"].passes) <= t(1 / 32)
    assert found["W.1a/resaw"].gives[0].piece == "W.1a-1"


def test_staves_resawn_from_thick_stock_rest_are_skimmed_and_glued_side_by_side() -> None:
    # Two staves of 3/4 with 1/32 over on their faces and 1/32 for cupping: 2 x 13/16 and a kerf of
    # 1/16 are 1 11/16 out of 2 in. The panel keeps 1/32 for the flattening after the glue.
    shop = replace(SHOP, allowance=replace(SHOP.allowance, layer=t(1 / 32)))
    panel = a_part("P", 1, 39, 6, panel=(2, 4))
    staves = (Blank(t(5), t(45), ((Item("P", 1, 1),), (Item("P", 1, 2),))),)
    board = a_board("W", thick=2.0)
    job = Job("", shop, (panel,), (board,))
    strips = (Strip(0, t(3.25), staves),)
    plan = Plan((BoardPlan("W", (Segment(t(5), t(45), 0, 0.0, strips),)),), cost=board.price)
    assert not audit(job, plan), audit(job, plan)
    found = carried_out(job, plan, Milling())
    saw = found["W.1a/resaw"]
    assert saw.setting == t(0.75 + 1 / 16) and len(saw.gives) == 2
    skimmed = [s for s in found.values() if s.kind == "finish-thickness" and s.machine == "planer"]
    assert [s.setting for s in skimmed] == [t(0.75 + 1 / 32)] * 2
    (glue,) = [s for s in found.values() if s.does == "glue"]
    assert set(glue.takes) == {g.piece for g in saw.gives}


def test_the_pieces_of_a_run_are_cut_in_the_order_they_are_to_lie() -> None:
    parts = (
        a_part("F", 1, 9, 3, run="row"),
        a_part("G", 1, 16, 3, run="row"),
        a_part("H", 1, 9, 3, run="row"),
    )
    found = made(a_board("W"), parts, (strip(0, 3.125, Item("F", 1), Item("G", 1), Item("H", 1)),))
    assert [s.marks[0] for s in found.values() if s.does == "length"] == ["F1", "G1", "H1"]


def test_three_fronts_of_one_blank_have_a_measure_each_and_keep_their_mitre() -> None:
    front = replace(a_part("F", 3, 12, 3), fitted=True, joint="mitre")
    items = tuple(Item("F", n) for n in (1, 2, 3))
    milling = Milling(fitted={"F1": t(11.9), "F3": t(12.05)})
    found = made(a_board("W"), (front,), (strip(0, 3.125, *items),), milling)
    fits = {s.marks[0]: s for s in found.values() if s.does == "fit"}
    assert [fits[m].setting for m in ("F1", "F2", "F3")] == [t(11.9), 0, t(12.05)]
    mitred = [s.marks[0] for s in found.values() if s.kind.startswith("mitre-")]
    assert mitred == ["F1", "F3"] and "mitre and cut to the work" in fits["F2"].do


def test_the_makers_own_steps_stand_where_they_were_put() -> None:
    own = (
        OwnStep("R", "Groove 1/4 in", "table saw", "fence at 3/8", before=True, minutes=8),
        OwnStep("R", "Round over", "router table", "1/8 in", minutes=3),
    )
    found = made(
        a_board("W"),
        (a_part("R", 1, 39, 4),),
        (strip(0, 4.125, Item("R", 1)),),
        Milling(own=own),
    )
    mine = [s for s in found.values() if s.does == "own"]
    assert [(s.machine, s.against, s.minutes) for s in mine] == [
        ("table saw", "fence at 3/8", 8),
        ("bench", "1/8 in", 3),
    ]
    does = [s.does for s in found.values()]
    assert does.index("own") < does.index("square") and does[-1] == "own"


def test_a_twisted_piece_is_pressed_on_the_two_corners_it_stands_on() -> None:
    # Twist lifts the far corner of the far edge: it stands on the other two ends of the diagonals.
    found = made(
        a_board("W", width=4.125, thick=1.2, warp=Warp(twist=t(0.08))),
        (a_part("R", 1, 39, 4),),
        (strip(0, 4.125, Item("R", 1)),),
    )
    face = found["W.1/face"]
    lower = face.cuts == "B"
    touch = (
        "far end, datum edge and datum end, far edge"
        if lower
        else "datum end, datum edge and far end, far edge"
    )
    assert touch in face.why


def test_wane_under_a_sloping_line_is_found_at_its_far_end_too() -> None:
    # The lower line of the strip rises from 0.1 by 0.005 x 40 = 0.2 to 0.3: wane up to 0.27 at the
    # far end lies under it there, but over its height at the datum end.
    wane = a_fault("wane", 40, 45, 0.18, 0.27)
    job = Job("", SHOP, (a_part("R", 1, 39, 3),), (a_board("W", width=6, defects=(wane,)),))
    segment = Segment(t(5), t(45), 0, 0.005, (strip(0.1, 3.225, Item("R", 1)),))
    plan = Plan((BoardPlan("W", (segment,)),), cost=job.boards[0].price)
    assert not audit(job, plan), audit(job, plan)
    found = carried_out(job, plan, Milling())
    assert "wane lies along the edge" in found["W.1/rough-width"].why
