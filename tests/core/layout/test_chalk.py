"""Marks on a board, measured from its datum end and edge, on paper and in DXF."""

import io
from dataclasses import replace

import ezdxf
import pypdfium2

from tests.making import BARE, a_board, a_fault, a_part, t
from vividplank.core.exchange.paper.chalk_pdf import chalk_pdf
from vividplank.core.exchange.plan_dxf import plan_dxf
from vividplank.core.job import Job
from vividplank.core.layout.explain.chalk import chalk_list
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip

BOARD = a_board("W1", length=60, width=8, far_width=6)
JOB = Job("Chest", BARE, (a_part("A", 1, 29, 2), a_part("B", 2, 12, 2)), (BOARD,))
PLAN = Plan(
    (
        BoardPlan(
            "W1",
            (
                Segment(
                    t(1),
                    t(31),
                    t(0.5),
                    0.01,
                    (
                        Strip(0, t(2), (Blank(t(1), t(30), ((Item("A", 1),),)),)),
                        Strip(
                            t(2.125),
                            t(4.125),
                            (
                                Blank(t(1), t(13), ((Item("B", 1),),)),
                                Blank(t(14), t(26), ((Item("B", 2),),)),
                            ),
                        ),
                    ),
                ),
            ),
        ),
    )
)


def test_every_measure_is_from_the_datum_end_and_edge() -> None:
    (found,) = chalk_list(JOB, PLAN, "in", KEPT)
    assert found.offcuts == KEPT["W1"]
    words = [m.words for m in found.marks]
    assert words[0] == "Square across at 1 in: piece 1 begins" and found.marks[0].saw == "before it"
    assert words[1] == "Square across at 31 in: piece 1 ends, 30 in long"
    # The line rises by 1/100 of 30 in = 0.3 from 1/2 in over the datum edge, which is straight at
    # 0: it is drawn on the waste side, at 3/4 for 0.8. The two strips are a kerf apart: between
    # them nothing may be rounded.
    assert (found.marks[2].y0, found.marks[2].y1) == (t(0.5), t(0.75))
    assert (found.marks[3].y0, found.marks[3].y1) == (t(2.5), round(t(2.8)))
    assert words[4] == "Write A1 in it to 30 in: 29 in by 2 in"
    assert words[-1] == "Write B2 in it from 14 in to 26 in: 12 in by 2 in"
    assert len({m.key for m in found.marks}) == len(found.marks)


def test_rough_marks_are_rounded_to_the_waste_side() -> None:
    # 1.03 and 30.97 are drawn at 1 and 31: to a sixteenth, outside the piece on either end.
    segment = replace(PLAN.boards[0].segments[0], x0=t(1.03), x1=t(30.97))
    plan = Plan((BoardPlan("W1", (segment,)),))
    (found,) = chalk_list(JOB, plan, "in")
    assert (found.marks[0].x0, found.marks[1].x0) == (t(1), t(31))
    # Beside a check that ends where the piece begins it is drawn where it is.
    check = a_fault("check", 0, 1.03, 0, 8)
    (near,) = chalk_list(replace(JOB, boards=(replace(BOARD, defects=(check,)),)), plan, "in")
    assert (near.marks[0].x0, near.marks[1].x0) == (t(1.03), t(31))
    # And where the next piece begins a kerf further on.
    other = replace(segment, x0=t(30.97) + BARE.kerf.crosscut, x1=t(40))
    (two,) = chalk_list(JOB, Plan((BoardPlan("W1", (segment, other)),)), "in")
    cuts = [m.x0 for m in two.marks if m.kind == "crosscut"]
    assert cuts[2] - cuts[1] >= BARE.kerf.crosscut


def test_a_line_along_the_datum_edge_needs_no_mark() -> None:
    segment = PLAN.boards[0].segments[0]
    level = replace(segment, y0=0, slope=0.0)
    (found,) = chalk_list(JOB, Plan((BoardPlan("W1", (level,)),)), "in")
    assert next(m.words for m in found.marks if m.kind == "line").startswith(
        "Strip 1, upper line: 2 in from the edge at 1 in"
    )


KEPT = {"W1": (a_board("W1-1", length=30, width=2.5625), a_board("W1-2", length=28.875, width=7))}


def test_on_paper_a_page_a_board_with_its_scale() -> None:
    pages = pypdfium2.PdfDocument(chalk_pdf(JOB, PLAN, "in", KEPT))
    text = pages[0].get_textpage().get_text_bounded()
    # Letter across gives 279 less 24 = 255 mm; 1524 mm go into it at 1 : 8, not at 1 : 5.
    assert (
        "1 : 8" in text
        and "Square across at 31 in" in text
        and "Keep: 30 in by 2 9/16 in, 28 7/8 in" in text
    )
    assert len(pypdfium2.PdfDocument(chalk_pdf(JOB, Plan(()), "in"))) == 1


def test_on_paper_is_no_board_that_is_being_cut() -> None:
    other = a_board("W2")
    job = replace(JOB, boards=(*JOB.boards, other))
    plan = Plan((*PLAN.boards, BoardPlan("W2", PLAN.boards[0].segments)))
    (page,) = pypdfium2.PdfDocument(chalk_pdf(job, plan, "in", begun=("W1",)))
    assert "W2" in (text := page.get_textpage().get_text_bounded()) and "W1" not in text
    (page,) = pypdfium2.PdfDocument(chalk_pdf(job, plan, "in", begun=("W1", "W2")))
    assert "nothing to mark any more" in page.get_textpage().get_text_bounded()


def test_as_dxf_true_to_size() -> None:
    document = ezdxf.read(io.StringIO(plan_dxf(JOB, PLAN).decode()))
    space = document.modelspace()
    outline = next(e for e in space.query("LWPOLYLINE") if e.dxf.layer == "board")
    assert max(x for x, *_ in outline.get_points()) == 60
    assert len([e for e in space.query("LWPOLYLINE") if e.dxf.layer == "piece"]) == 3
    assert {e.dxf.text for e in space.query("TEXT")} == {"A1", "B1", "B2", "W1"}
    assert sorted(e.dxf.start.x for e in space.query("LINE")) == [1, 31]
