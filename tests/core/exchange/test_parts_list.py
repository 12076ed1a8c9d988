"""Parts lists as tables: tolerant in headings, strict in figures, and nothing dropped in
silence.
"""

import pytest
from hypothesis import given

from tests.conftest import ROOT
from tests.jobs import jobs
from tests.profiles import examples
from vividplank.core.exchange import read_job
from vividplank.core.exchange.parts_list import ListAnswers, plain_cell, read_parts, write_parts
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import TICKS_PER_MM, System

SETTLE = ROOT / "docs" / "examples" / "settle.job.json"


def test_a_spreadsheet_with_headings_in_any_order() -> None:
    found = read_parts(
        'Qty\tDescription\tT\tW\tL\tMaterial\n2x\tSeat rail\t13/16\t3"\t44 1/2\twhite oak\n', "in"
    )
    assert found.refused == ()
    part = found.parts[0]
    assert (part.id, part.name, part.quantity, part.species) == ("SR", "Seat rail", 2, "white oak")
    assert (part.length, part.width, part.thickness) == (89 * INCH // 2, 3 * INCH, 13 * INCH // 16)


def test_bare_rows_take_the_usual_order_and_marks_are_never_doubled() -> None:
    found = read_parts(
        "Back post,2,37 1/2,2 1/4,1 1/2,ash,clear-two\nBig panel,1,20,10,1/2,ash",
        "in",
        frozenset({"BP"}),
    )
    assert [p.id for p in found.parts] == ["BP2", "BP3"] and found.parts[0].faces == "clear-two"


def test_metric_lists_with_decimal_commas_and_semicolons() -> None:
    found = read_parts(
        "Teil;Part;Count;Length;Width;Thickness;Wood\n;Rail;2;1120,5;75;20;ash\n", "mm"
    )
    assert found.parts[0].length == round(1120.5 * 320) and found.refused == ()


@pytest.mark.parametrize(
    ("row", "word"),
    [
        ("Rail,2,x,3,1,oak", "'x' cannot be read"),
        ("Rail,two,4,3,1,oak", "no count"),
        ("Rail,2,4,,1,oak", "no width"),
        ("Rail,2,4,3,1", "no wood"),
        ("Rail,2,4,3,1,oak,shiny", "no quality"),
        ("Rail,2,0,3,1,oak", "more than nothing"),
    ],
)
def test_a_row_that_is_not_understood_is_told_beside_those_that_are(row: str, word: str) -> None:
    found = read_parts(f"Good,1,10,2,1,oak\n{row}\nAlso,1,10,2,1,oak", "in")
    assert [p.name for p in found.parts] == ["Good", "Also"]
    assert [r.row for r in found.refused] == [2] and word in found.refused[0].why


def test_a_wood_for_rows_that_name_none() -> None:
    assert read_parts("Rail,2,4,3,1", "in", species="cherry").parts[0].species == "cherry"


def test_an_empty_table_is_no_parts() -> None:
    assert read_parts(" \n\n", "in").parts == ()


@examples(60)
@given(jobs())
def test_what_is_written_is_read_back(job: Job) -> None:
    assert read_parts(write_parts(job.parts, "in"), "in").parts == tuple(
        p if p.name else type(p)(**{**vars(p), "name": p.id}) for p in job.parts
    )


def test_the_settle_survives_in_millimetres_too() -> None:
    job = read_job(SETTLE.read_text(encoding="utf-8"))
    assert read_parts(write_parts(job.parts, "mm"), "mm").parts == job.parts


def test_a_cell_never_becomes_a_formula() -> None:
    text = write_parts(read_parts("=1+1,1,10,2,1,oak", "in").parts, "in")
    assert "'=1+1" in text and read_parts(text, "in").parts[0].name == "=1+1"


@pytest.mark.parametrize("name", ["\r=1+1", " =1+1", "\u00a0-2", "\t@x", "'quoted", " \t+3"])
def test_nor_whatever_stands_before_its_sign(name: str) -> None:
    written = plain_cell(name)
    assert written == "'" + name
    assert (
        plain_cell("= 2") == "'= 2"
        and plain_cell("Rail - long") == "Rail - long"
        and plain_cell("'tis") == "''tis"
    )


def test_columns_that_are_not_known_go_into_the_notes_and_are_told() -> None:
    text = "Part,Length,Width,Thickness,Wood,Finish,Note,Shelf no,Qty\n"
    text += "Rail,20,2,1,ash,oil,show face up,,1\nLeg,28,2,2,ash,,,4,1,loose\n"
    found = read_parts(text, "in")
    assert [p.note for p in found.parts] == [
        "show face up; Finish: oil",
        "Shelf no: 4; column 10: loose",
    ]
    assert found.noted == ("Finish", "Shelf no", "column 10")
    assert read_parts(write_parts(found.parts, "in"), "in").noted == ()
    full = read_parts(
        f"Part,Length,Width,Thickness,Wood,Finish\nRail,20,2,1,ash,{'oil ' * 600}\n", "in"
    )
    assert not full.parts and "at most 2000" in full.refused[0].why


def test_titles_above_the_headings_and_units_in_them() -> None:
    found = read_parts(
        "Stool\t\t\n\t\t\nPart\tL (mm)\tW [cm]\tT, in\tWood\nLeg\t420\t4\t1 1/2\tash", "in"
    )
    part = found.parts[0]
    assert (part.length, part.width, part.thickness) == (
        420 * 320,
        40 * 320,
        3 * INCH // 2,
    ) and found.refused == ()


def test_a_size_in_one_cell_and_a_count_in_the_name() -> None:
    found = read_parts("Item\tSize\tWood\n3 x Shelf\t30 x 8 1/2 x 3/4\tash\nLid\t30 x 8\tash", "in")
    shelf = found.parts[0]
    assert (shelf.name, shelf.quantity, shelf.length, shelf.width, shelf.thickness) == (
        "Shelf",
        3,
        30 * INCH,
        17 * INCH // 2,
        3 * INCH // 4,
    )
    assert [r.why for r in found.refused] == [
        "'30 x 8' is no size; expected length x width x thickness"
    ]


@pytest.mark.parametrize(
    ("column", "word", "why"),
    [
        ("stock", "paper", "'paper' is not known here"),
        ("grain", "up", "'up' is not known"),
        ("edged_long", "3", "'3' is not known"),
    ],
)
def test_an_unknown_word_is_refused_with_those_that_are(column: str, word: str, why: str) -> None:
    headings = f"name\tlength\twidth\tthickness\twood\tstock\tedging\t{column}"
    found = read_parts(f"{headings}\nA\t9\t9\t1\tash\tsheet\t1/4\t{word}", "in")
    assert not found.parts and why in found.refused[0].why


def sizes(text: str, system: System = "mm") -> list[tuple[str, int, float, float, float]]:
    found = read_parts(text, system, species="ash")
    assert found.refused == (), found.refused
    return [
        (p.name, p.quantity, *(v / TICKS_PER_MM for v in (p.length, p.width, p.thickness)))
        for p in found.parts
    ]


@pytest.mark.parametrize(
    "text",
    [
        "Bezeichnung;Stück;Stärke (mm);Breite (mm);Länge (mm)\nSeite;2;19;286;762",
        "Désignation\tQté\tÉpaisseur\tLargeur\tLongueur\nSeite\t2\t19\t286\t762",
        "Pieza,Cantidad,Grosor en mm,Ancho,Largo\nSeite,2,19,286,762".replace(" en mm", " (mm)"),
        "Onderdeel;Aantal;Dikte;Breedte;Lengte\nSeite;2;19;286;762",
        "Benämning;Antal;Tjocklek;Bredd;Längd\nSeite;2;19;286;762",
        "Part,Qty,Dimensions (T x W x L)\nSeite,2,19 x 286 x 762",
        "Part,Qty,T x W x L\nSeite,2,19 × 286 × 762",
        (
            "| Part | Qty | Thickness | Width | Length |\n|---|---:|---|---|---|\n"
            "| Seite | 2 | 19 | 286 | 762 |"
        ),
        "Part    Qty   Thickness   Width   Length\nSeite   2     19          286     762",
        "Part\tQty\tFinished size\t\t\n\t\tThickness\tWidth\tLength\nSeite\t2\t19\t286\t762",
        (
            "The reading-room settle\n\nMade for the hall, 2026\nPart;Qty;Net thickness;Net "
            "width;Net length\nSeite;2;19;286;762"
        ),
    ],
)
def test_headings_in_other_words_and_another_order(text: str) -> None:
    assert sizes(text) == [("Seite", 2, 762, 286, 19)]


@pytest.mark.parametrize(
    ("text", "system", "row", "why"),
    [
        ("Shelf,1,19,286,762", "mm", 1, "which of 19, 286, 762"),
        ("Part,Dimensions\nShelf,19 x 286 x 762", "mm", 2, "which of 19, 286, 762"),
        (
            "Part,Length,Length,Width,Thickness\nShelf,762,800,286,19",
            "mm",
            1,
            "two columns of length",
        ),
        ("Part,Length,Width,Thickness\nShelf,762,286,19", "in", 2, "a thickness of 19 in?"),
        ("Part,Length,Width,Thickness\nShelf,30,11.25,0.75", "mm", 2, "a thickness of 0.75 mm?"),
        (
            "Part;Length;Width;Thickness\nShelf;2.400;286;19",
            "mm",
            2,
            "'2.400' is a length of 2400 mm or of 2.400 mm",
        ),
    ],
)
def test_what_may_mean_something_else_is_asked(
    text: str, system: System, row: int, why: str
) -> None:
    found = read_parts(text, system, species="ash")
    assert found.parts == ()
    assert [r.row for r in found.refused] == [row] and found.refused[0].why.startswith(why)


def test_a_heading_that_names_its_unit_or_its_order_is_never_doubted() -> None:
    assert sizes("Part,Length (mm),Width (mm),Thickness (mm)\nBlock,40,8,1", "in") == [
        ("Block", 1, 40, 8, 1)
    ]
    assert sizes("Part,Length,Width,Thickness\nBlock,100 mm,40 mm,320 mm", "in") == [
        ("Block", 1, 100, 40, 320)
    ]


def test_a_size_with_its_unit_and_figures_above_the_headings() -> None:
    assert sizes("Part,Size (mm)\nRail,600 x 70 x 19", "in") == [("Rail", 1, 600, 70, 19)]
    found = read_parts(
        "Rail,2,600,70,19\nPart,Length,Width,Thickness\nShelf,762,286,19", "mm", species="ash"
    )
    assert [p.name for p in found.parts] == ["Shelf"]
    assert [(r.row, r.why) for r in found.refused] == [
        (1, "stands above the headings; expected below them")
    ]


def answered(
    text: str, answers: ListAnswers, system: System = "mm"
) -> list[tuple[str, int, float, float, float]]:
    found = read_parts(text, system, species="ash", answers=answers)
    assert found.questions == () and found.refused == (), (found.questions, found.refused)
    return [
        (
            p.name,
            p.quantity,
            *(round(v / TICKS_PER_MM, 3) for v in (p.length, p.width, p.thickness)),
        )
        for p in found.parts
    ]


UNKNOWN = (
    "Ding;Wieviel;Drittes "
    "(cm);Zweites;Erstes;Woraus\nSeite;2;1.9;286;762;Esche\nBein;4;4.5;45;430;ash"
)


def test_headings_nobody_knows_are_proposed_by_what_stands_under_them_and_asked_once() -> None:
    found = read_parts(UNKNOWN, "mm", species="ash")
    assert [(c.heading, c.meaning, c.sure) for c in found.columns] == [
        ("Ding", "name", False),
        ("Wieviel", "quantity", False),
        ("Drittes (cm)", "thickness", False),
        ("Zweites", "width", False),
        ("Erstes", "length", False),
        ("Woraus", "species", False),
    ]
    assert [q.kind for q in found.questions] == ["columns"]
    right = [("Seite", 2, 762, 286, 19), ("Bein", 4, 430, 45, 45)]
    assert answered(UNKNOWN, ListAnswers(confirmed=True)) == right
    # What was once said of the headings needs no question in the next list; it may say otherwise
    # than was proposed.
    told = {c.heading.casefold(): c.meaning for c in found.columns}
    assert answered(UNKNOWN, ListAnswers(columns=told)) == right
    swapped = {**told, "zweites": "length", "erstes": "width"}
    assert answered(UNKNOWN, ListAnswers(columns=swapped))[0] == ("Seite", 2, 286, 762, 19)


def test_what_is_answered_of_a_heading_rules_over_the_word_known_here() -> None:
    text = "Part,Length,Width,Thickness,Depth\nRail,600,19,70,19"
    assert answered(
        text, ListAnswers(columns={"width": "thickness", "thickness": "width", "depth": "note"})
    ) == [("Rail", 1, 600, 70, 19)]


def test_the_unit_the_order_and_the_thousands_of_a_list_are_asked_once() -> None:
    fractions = "Part,Qty,Length,Width,Thickness\nRail,2,44,3 1/4,13/16\nLeg,4,17,1 3/4,1 3/4"
    assert [q.kind for q in read_parts(fractions, "mm", species="ash").questions] == ["unit"]
    assert answered(fractions, ListAnswers(unit="in"))[0] == ("Rail", 2, 1117.6, 82.55, 20.637)
    lines = "Top 3/4 x 14 x 36\nApron 3/4 x 4 x 30"
    assert [q.kind for q in read_parts(lines, "in", species="ash").questions] == ["order"]
    assert answered(lines, ListAnswers(order="TWL"), "in")[1] == ("Apron", 1, 762, 101.6, 19.05)
    marked = "Part;Qty;Length (mm);Width (mm);Thickness (mm)\nRail;2;2.400;82;21\nLeg;4;1.430;45;45"
    assert [q.kind for q in read_parts(marked, "mm", species="ash").questions] == ["thousands"]
    assert answered(marked, ListAnswers(thousands=True)) == [
        ("Rail", 2, 2400, 82, 21),
        ("Leg", 4, 1430, 45, 45),
    ]
    assert answered(marked, ListAnswers(thousands=False))[0] == ("Rail", 2, 2.4, 82, 21)


@pytest.mark.parametrize(
    ("line", "part"),
    [
        ("Seat rail 1118 x 82 x 21", ("Seat rail", 1, 1118, 82, 21)),
        ("- 4 legs: 420 x 40 x 40 mm", ("legs", 4, 420, 40, 40)),
        ("Slats (7) 380 x 60 x 12", ("Slats", 7, 380, 60, 12)),
        ("* 2x rail 300 x 60 x 20", ("rail", 2, 300, 60, 20)),
        ("3. Shelf, 600.5 × 220 × 18, 4 off", ("Shelf", 4, 600.5, 220, 18)),
        ('Top 36" x 14" x 3/4"', ("Top", 1, 914.4, 355.6, 19.05)),
        ('Side 2: 28 1/2" x 11 1/4" x 3/4"', ("Side 2", 1, 723.9, 285.75, 19.05)),
    ],
)
def test_a_part_a_line(line: str, part: tuple[str, int, float, float, float]) -> None:
    assert answered(line, ListAnswers()) == [part]


def test_a_line_without_sizes_among_such_is_told_not_dropped() -> None:
    found = read_parts("Stool\nseat 400 x 300 x 30\nlegs 420 x 40 x 40", "mm", species="ash")
    assert [p.name for p in found.parts] == ["seat", "legs"] and [
        (r.row, r.text) for r in found.refused
    ] == [(1, "Stool")]


def test_figures_with_both_marks_and_a_numbered_first_column() -> None:
    text = (
        "#;Part;Stück;Länge (mm);Breite (mm);Dicke "
        "(mm)\n1;Rail;2;1.100,5;82,0;22,0\n2;Stile;4;1,200.25;60.0;22.0"
    )
    assert answered(text, ListAnswers()) == [
        ("Rail", 2, 1100.5, 82, 22),
        ("Stile", 4, 1200.25, 60, 22),
    ]


def test_width_height_and_depth_of_a_piece_say_nothing_of_its_grain_and_are_asked_about() -> None:
    found = read_parts(
        "Name,Width,Height,Depth,Qty\nSide,18,720,560,2\nBack,564,720,18,1", "mm", species="ash"
    )
    assert [q.kind for q in found.questions] == ["columns"]
    assert {c.heading for c in found.columns if not c.sure} == {"Width", "Height", "Depth"}
