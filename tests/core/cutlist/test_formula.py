"""Formulas and named measures: worked by hand, and what is wrong said."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import a_part, t
from vividplank.core.cutlist import FormulaError, Measure, MeasureTrouble, values_of
from vividplank.core.cutlist.formula import (
    Value,
    count_of,
    evaluate,
    length_of,
    names_in,
    renamed,
    with_units,
)
from vividplank.core.exchange import Refusal
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put, changed
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import parse
from vividplank.core.shop import Shop

VALUES = {
    "w": Value(Fraction(48 * INCH), True),
    "stock": Value(Fraction(13 * INCH, 16), True),
    "n": Value(Fraction(5), False),
}


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("W", 48),
        ("w - 2 * stock", 48 - 1.625),
        ("W - 2 3/16", 45.8125),
        ("1' 4 1/2\" / 3", 5.5),
        ("W/3 + 1/4", 16.25),
        ("max(W, 300 mm)", 48),
        ("min(W; 1 ft)", 12),
        ("(W + 1) / n", 9.8),
        ("round(W / 5, 1/16 in)", 9.625),
        ("up(W / 5, 1 in)", 10),
        ("down(W / 5, 1 in)", 9),
        ("3½ + ¼", 3.75),
        ("-W + 50", 2),
        ("W × 3/4", 36),
        ("W*.5", 24),
        ("50.8 mm + 0", 2),
        ("abs(W - 50)", 2),
        ("=W", 48),
        ("24 * 2", 48),
        ("2 ft 3 in", 27),
        ("5'-6\"", 66),
        ("5′–6″", 66),
        ("W + 5'-6 1/2\"", 114.5),
        ("5 ft.-6 in.", 66),
        ("5' 6''", 66),
        ("5' - 18\"", 42),
        ("(5') - 6\"", 54),
        ("5' - W / 4", 48),
        ("5' - 2 * stock", 58.375),
        ("1 1/4 in. + 0", 1.25),
        ("W - (2 + 3) * 2", 38),
        ("n * stock", 4.0625),
        ("W/3/4", 4),
        ("W/3/4 + 3/4", 4.75),
        ("12/3/4", 1),
        ("W * 3/4 / 2", 18),
        ("W / 1/2", 24),
    ],
)
def test_worked_by_hand(text: str, inches: float) -> None:
    assert length_of(text, "in", VALUES) == round(Fraction(str(inches)) * INCH)


def test_bare_numbers_are_in_the_unit_of_the_project() -> None:
    assert length_of("W - 10", "mm", VALUES) == 48 * INCH - 3200
    assert length_of("W - 10", "in", VALUES) == 38 * INCH


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "is empty"),
        ("W *", "ends where"),
        ("W + * 2", "where a measure or number was due"),
        ("W)", "goes on after its end"),
        ("(W", "not closed"),
        ("W * W", "an area"),
        ("2 / W", "divides a number by a length"),
        ("W / 0", "divides by nothing"),
        ("W / (2 - 2)", "divides by nothing"),
        ("1/0", "divides by nothing"),
        ("foo + 1", "'foo', which is no measure"),
        ("sin(W)", "'sin', which is not known"),
        ("W - n", "give the number a unit"),
        ("2-3/16", "mixed number or a difference"),
        ("5' - 6\"", "feet and inches or a difference"),
        ("5'-2 * stock", "feet and inches or a difference"),
        ("5'-18\"", "twelve inches or more"),
        ("5' 18\"", "twelve inches or more"),
        ("round(W)", "to what step"),
        ("round(W, 0 in)", "steps by 0"),
        ("min(W)", "gives min 1 value"),
        ("W - 48", "nothing or less"),
        ("W ; 2", "goes on after its end"),
        ("W $ 2", "cannot be read at '$ 2'"),
        ("(" * 60 + "1" + ")" * 60, "nested too deep"),
        ("1+" * 200 + "1", "longer than 300"),
        ("__import__('os')", "cannot be read"),
    ],
)
def test_what_has_no_value_is_said(text: str, why: str) -> None:
    with pytest.raises(
        FormulaError,
        match=why.replace("(", r"\(").replace(")", r"\)").replace("$", r"\$").replace("*", r"\*"),
    ):
        length_of(text, "in", VALUES)


def test_counts_are_whole_numbers() -> None:
    assert count_of("n + 2", "in", VALUES) == 7
    assert count_of("down(W / 9 in)", "in", VALUES) == 5
    with pytest.raises(FormulaError, match=r"comes to 2\.5; expected a whole number"):
        count_of("n / 2", "in", VALUES)
    with pytest.raises(FormulaError, match="is a length; expected a number"):
        count_of("W", "in", VALUES)


@given(st.text(max_size=40))
def test_any_text_has_a_value_or_a_sentence(text: str) -> None:
    try:
        assert length_of(text, "in", VALUES) > 0
    except FormulaError as problem:
        assert problem.why


numbers = st.fractions(min_value=Fraction(1, 8), max_value=90, max_denominator=8)


@given(
    st.recursive(
        numbers.map(lambda f: f"{float(f):g}")
        | numbers.map(lambda f: f"{float(f):g} mm")
        | st.sampled_from(["W", "stock"]),
        lambda part: (
            st.tuples(part, st.sampled_from("+-"), part).map(lambda p: f"({p[0]} {p[1]} {p[2]})")
            | st.tuples(st.integers(1, 4), part).map(lambda p: f"{p[0]} * ({p[1]})")
        ),
        max_leaves=8,
    )
)
def test_writing_the_units_in_changes_no_value_and_leaves_none_bare(text: str) -> None:
    value = evaluate(text, "in", VALUES, length=True)
    told = with_units(text, "in", VALUES, length=True)
    assert evaluate(told, "in", VALUES, length=True).amount == value.amount
    assert (
        evaluate(told, "mm", VALUES, length=True).amount == value.amount
    )  # the unit no longer matters


def test_names_are_found_and_changed_without_regard_to_case() -> None:
    assert names_in("max(W, stock) - w") == ["W", "stock", "w"]
    assert renamed("max(W, stock) - w", {"w": "W2"}) == "max(W2, stock) - W2"


def test_measures_hang_on_each_other_in_any_order() -> None:
    found = values_of(
        (
            Measure("inner", "W - 2 * t"),
            Measure("W", "36"),
            Measure("t", "3/4"),
            Measure("n", "3", "number"),
        ),
        "in",
    )
    assert (found["inner"].amount, found["inner"].length, found["n"].amount) == (
        Fraction(34.5) * INCH,
        True,
        3,
    )


@pytest.mark.parametrize(
    ("measures", "why"),
    [
        ([("a", "b + 1"), ("b", "c"), ("c", "a")], "a needs b needs c needs a"),
        ([("a", "a")], "a needs a"),
        ([("a", "1"), ("A", "2")], "stands there already"),
        ([("mm", "1")], "is a unit or a function"),
        ([("2x", "1")], "is no name"),
        ([("a", "b")], "'b', which is no measure"),
    ],
)
def test_what_is_wrong_with_measures_is_said(measures: list[tuple[str, str]], why: str) -> None:
    with pytest.raises(MeasureTrouble, match=why):
        values_of([Measure(*m) for m in measures], "in")


def job(*formulas: tuple[str, str]) -> Job:
    part = a_part("A", 1, 10, 3, 0.75)
    made = Job("", Shop(), (part,), (), "in", (Measure("W", "36"), Measure("stock", "3/4")))
    from dataclasses import replace

    return changed(made, Change("formulas", put_parts=(Put(replace(part, formulas=formulas)),)))


def test_one_measure_changed_and_the_list_follows() -> None:
    before = job(("length", "W - 2 * stock"), ("quantity", "down(W / 10 in)"))
    assert (before.parts[0].length, before.parts[0].quantity) == (t(34.5), 3)
    after = changed(before, Change("wider", measures=(Measure("W", "48"), Measure("stock", "1"))))
    assert (after.parts[0].length, after.parts[0].quantity) == (t(46), 4)


def test_another_unit_changes_how_things_are_shown_and_nothing_else() -> None:
    before = job(("length", "W - 2"))
    after = changed(before, Change("units", unit="mm"))
    assert after.parts[0].length == before.parts[0].length == t(34)
    assert after.parts[0].formulas == (("length", "W - 2 in"),)
    assert [m.text for m in after.measures] == ["36 in", "3/4 in"]
    wider = changed(after, Change("wider", measures=(Measure("W", "1000"), after.measures[1])))
    assert wider.parts[0].length == 1000 * 320 - t(2)


def test_a_measure_that_parts_need_cannot_go_and_nothing_is_lost() -> None:
    before = job(("length", "W - 2"))
    with pytest.raises(Refusal, match="'W', which is no measure"):
        changed(before, Change("gone", measures=(Measure("stock", "3/4"),)))
    with pytest.raises(Refusal, match="nothing or less"):
        changed(before, Change("too small", measures=(Measure("W", "1"), Measure("stock", "3/4"))))


def test_a_renamed_measure_leaves_the_case_of_the_others_whatever_signs_there_are() -> None:
    assert renamed("W × Depth + ½", {"w": "Wide"}) == "Wide × Depth + 1/2"


def test_a_measure_field_and_a_formula_read_the_same_figure() -> None:
    for text in (
        "5'-6\"",
        "5′–6″",
        "5' 6\"",
        "5 ft 6 in",
        "2 3/16",
        "1 1/4 in.",
        "16.5",
        "419 mm",
        "½",
        "5'-6",
    ):
        assert length_of(text, "in", {}) == parse(text, "in"), text


def test_products_of_products_end_with_a_sentence() -> None:
    measures = [Measure("a0", "7/3", "number")]
    measures += [Measure(f"a{k}", " * ".join([f"a{k - 1}"] * 40), "number") for k in range(1, 12)]
    with pytest.raises(MeasureTrouble, match="grows beyond any figure of a shop"):
        values_of(measures, "in")
