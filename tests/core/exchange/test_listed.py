"""What holds for any list whatever: it is kept whole, goes out and comes back, and every fix
offered can be made.
"""

import json
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.listed import lists
from tests.making import a_board, a_part, t
from tests.profiles import examples
from tests.takeoff.making import taken_off
from vividplank.core.cutlist import Measure, MeasureTrouble, Part, values_of
from vividplank.core.cutlist.rough import rough_size
from vividplank.core.document import digest, job_from_document, job_to_document
from vividplank.core.exchange import Refusal, job_document, read_job
from vividplank.core.exchange.outlines_dxf import outlines_dxf
from vividplank.core.exchange.paper.cutlist_pdf import USUAL_LABELS, cutlist_pdf, labels_pdf
from vividplank.core.exchange.parts_list import read_parts, write_parts
from vividplank.core.exchange.tables.cutlist_xlsx import cutlist_xlsx
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put, changed
from vividplank.core.job.checks import checks
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Shop
from vividplank.core.takeoff.patterns import PATTERNS, PatternTrouble, write

Parts = tuple[Part, ...]
W = (Measure("W", "24"),)


def listed(parts: Parts) -> Job:
    """A job with this list, its formulas worked out."""
    return changed(
        Job("List", Shop(), (), ()),
        Change("all", put_parts=tuple(Put(p) for p in parts), measures=W),
    )


@given(lists)
def test_documents_lose_nothing(parts: Parts) -> None:
    job = listed(parts)
    assert job_from_document(job_to_document(job)) == job


@given(lists)
def test_tables_keep_all_but_formulas_sources_and_outlines(parts: Parts) -> None:
    job = listed(parts)
    back = read_parts(write_parts(job.parts, "in"), "in")
    assert back.refused == ()
    assert back.parts == tuple(replace(p, formulas=(), source=None, outline=()) for p in job.parts)


@given(lists)
def test_what_a_layout_does_not_depend_on_makes_no_plan_stale(parts: Parts) -> None:
    job = listed(parts)
    other = replace(
        job,
        name="Other",
        measures=(),
        parts=tuple(
            replace(
                p,
                name="x",
                note="y",
                formulas=(),
                source=None,
                outline=(),
                joint="",
                joint_length=0,
                fitted=not p.fitted,
            )
            for p in job.parts
        ),
    )
    assert digest(other) == digest(job)
    boards = [p for p in job.parts if p.stock == "board"]
    if boards:
        longer = replace(
            job,
            parts=tuple(
                replace(p, length=p.length + 1) if p is boards[0] else p for p in job.parts
            ),
        )
        assert digest(longer) != digest(job)


@given(lists)
def test_a_job_file_carries_all_that_a_part_can_say(parts: Parts) -> None:
    """But for the drawing it was taken off, which is a number of this database alone."""
    job = replace(listed(parts), boards=(a_board(),))
    again = read_job(json.dumps(job_document(job)))
    assert again.parts == tuple(replace(p, source=None) for p in job.parts)
    assert again == replace(job, parts=again.parts)


@examples(15)
@given(lists)
def test_workbooks_and_drawings_are_read_back_to_the_same_sizes(parts: Parts) -> None:
    job = listed(parts)
    table = taken_off(cutlist_xlsx(job, "in"), "x.xlsx").table
    back = read_parts(table, "in")
    wanted = [(p.id, p.quantity, p.length, p.width, p.thickness) for p in job.parts]
    assert [(p.id, p.quantity, p.length, p.width, p.thickness) for p in back.parts] == wanted
    plain = replace(
        job, parts=tuple(replace(p, name="Rail") for p in job.parts)
    )  # names may hold figures that read as sizes
    drawn = taken_off(outlines_dxf(plain, "in"), "x.dxf")
    assert sum(len(f.refs) for f in drawn.parts) == len(job.parts)
    longest = sorted(max(p.length, p.width) for p in job.parts)
    assert all(
        abs(f - p) < 20
        for f, p in zip(sorted(f.length for f in drawn.parts for _ in f.refs), longest, strict=True)
    )


@examples(10)
@given(lists)
def test_paper_holds_any_list(parts: Parts) -> None:
    job = listed(parts)
    assert cutlist_pdf(job, "in").startswith(b"%PDF")
    assert labels_pdf(
        job, "in", USUAL_LABELS["in"], lambda p: f"http://here/{p.id}", skip=7
    ).startswith(b"%PDF")
    assert cutlist_pdf(replace(job, parts=()), "mm").startswith(b"%PDF")


@given(lists)
def test_every_fix_that_is_offered_can_be_made(parts: Parts) -> None:
    job = listed(parts)
    for check in checks(job, "in"):
        assert check.what and check.why and set(check.parts) <= {p.id for p in job.parts}
        assert bool(check.fix) == bool(check.fixed)
        if check.fixed:
            after = changed(job, Change(check.fix, put_parts=tuple(Put(p) for p in check.fixed)))
            assert len(after.parts) == len(job.parts)


@given(lists)
def test_rough_is_never_less_than_what_is_cut(parts: Parts) -> None:
    for p in listed(parts).parts:
        rough = rough_size(p, Shop())
        assert (
            rough[0] >= p.cut_size()[0] and rough[1] >= p.cut_size()[1] and rough[2] >= p.thickness
        )


names = st.sampled_from(["a", "b", "c", "d"])
texts = st.sampled_from(
    ["1", "2 in", "a + 1", "b * 2", "c - a", "max(b, d)", "d / 2", "e", "a / b * c"]
)


@given(st.dictionaries(names, texts, min_size=1))
def test_measures_have_values_or_one_is_named(graph: dict[str, str]) -> None:
    measures = [Measure(n, text) for n, text in graph.items()]
    try:
        values = values_of(measures, "in")
    except MeasureTrouble as trouble:
        assert trouble.name in graph
        return
    assert set(values) == set(graph)
    # In any order they come to the same.
    assert values_of(measures[::-1], "in") == values


@examples(60)
@given(st.sampled_from(PATTERNS), st.data())
def test_any_measures_make_a_piece_or_a_sentence(pattern, data: st.DataObject) -> None:  # type: ignore[no-untyped-def]
    choices = {c.name: data.draw(st.sampled_from(c.options)) for c in pattern.choices}
    built = pattern.build({**{c.name: c.options[0] for c in pattern.choices}, **choices})
    own = [g.name for g in built.measures if g.own]
    texts = data.draw(
        st.dictionaries(
            st.sampled_from(own),
            st.sampled_from(["1", "3", "12", "40", "1/8", "0", "2 ft", "stock", "oops"]),
            max_size=3,
        )
    )
    try:
        made = write(pattern, "in", "ash", texts, choices)
    except PatternTrouble as trouble:
        assert len(str(trouble)) > 10
        return
    for part in made.parts:
        assert min(part.length, part.width, part.thickness) > 0 and part.joint_length < part.length
    for sketch in made.sketches:
        assert all(
            r.x >= -0.01 and r.x + r.w <= sketch.width + 0.01 and r.y >= -0.01 for r in sketch.rects
        )
    changed(
        Job("", Shop(), (), ()),
        Change("put", put_parts=tuple(Put(p) for p in made.parts), measures=made.measures),
    )


def test_layers_are_listed_once_and_cut_many_times() -> None:
    job = listed((Part("L", "Leg", 4, "ash", t(17), t(3), t(3), layers=4),))
    cut = job.on_boards().parts[0]
    assert (cut.quantity, cut.thickness, cut.layers) == (16, t(0.75), 1) and job.parts[
        0
    ].quantity == 4


def test_a_job_file_whose_formulas_have_no_value_is_refused_with_its_place() -> None:
    part = replace(a_part("A", 1, 20, 3), formulas=(("length", "H - 2"),))
    job = Job("", Shop(), (part,), (a_board(),), measures=(Measure("H", "30"),))
    document = job_document(job)
    # What the sizes said is worked out anew: 30 - 2.
    assert read_job(json.dumps(document)).parts[0].length == 28 * INCH
    with pytest.raises(Refusal, match=r"\$\.parts\[0\]"):
        read_job(json.dumps(document | {"measures": []}))
    with pytest.raises(Refusal, match=r"\$\.measures\.H"):
        read_job(json.dumps(document | {"measures": [{"name": "H", "text": "H + 1"}]}))
