"""Lengths: whole ticks, every notation, nothing guessed."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import ROOT
from vividplank.core.measure import (
    LONGEST,
    SYSTEMS,
    MeasureError,
    System,
    about,
    from_number,
    parse,
    rule_step,
    show,
    to_number,
    written,
)

CASES = json.loads((ROOT / "tests" / "measure_cases.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize(("text", "system", "ticks"), CASES["read"])
def test_reads(text: str, system: System, ticks: int) -> None:
    assert parse(text, system) == ticks


@pytest.mark.parametrize(("text", "system", "word"), CASES["refuse"])
def test_refuses_and_says_what_was_expected(text: str, system: System, word: str) -> None:
    with pytest.raises(MeasureError, match=word):
        parse(text, system)


@pytest.mark.parametrize(("ticks", "system", "text"), CASES["print"])
def test_prints(ticks: int, system: System, text: str) -> None:
    assert show(ticks, system) == text


@given(st.integers(0, 64 * 3937), st.sampled_from(SYSTEMS), st.booleans())
def test_every_64th_survives_in_every_system(n: int, system: System, unit: bool) -> None:
    assert parse(show(n * 127, system, unit=unit), system) == n * 127


@given(st.integers(0, 1_000_000), st.sampled_from(SYSTEMS), st.booleans())
def test_every_tenth_of_a_millimetre_survives_in_every_system(
    n: int, system: System, unit: bool
) -> None:
    ticks = n * 32
    if ticks <= LONGEST:
        assert parse(show(ticks, system, unit=unit), system) == ticks


@given(st.integers(-LONGEST, LONGEST), st.sampled_from(SYSTEMS))
def test_every_tick_survives_with_its_sign(ticks: int, system: System) -> None:
    assert parse(show(ticks, system), system, signed=True) == ticks


@given(st.integers(0, 10**7), st.sampled_from(["in", "mm"]))
def test_numbers_of_the_files_survive(ticks: int, unit: str) -> None:
    assert from_number(to_number(ticks, unit), unit) == ticks  # type: ignore[arg-type]


@given(st.text(max_size=12))
def test_any_text_is_a_length_or_a_refusal(text: str) -> None:
    try:
        ticks = parse(text)
    except MeasureError as refusal:
        assert "expected a length" in str(refusal)
    else:
        assert 0 <= ticks <= LONGEST


def test_one_rounding_for_a_figure_and_its_sentence() -> None:
    assert about(27.9 * 127, "in") == "7/16" and about(27.9 * 127, "in", down=True) == "27/64"
    assert about(27.9999 * 127, "in", down=True) == "7/16"  # a float that means a mark
    assert about(190.96 * 32, "mm") == "19.1" and about(190.96 * 32, "mm", down=True) == "19"


@given(st.integers(0, 10**6), st.sampled_from(SYSTEMS))
def test_what_is_written_is_on_a_rule_or_the_nearest_mark_of_the_shops(
    ticks: int, system: System
) -> None:
    text = written(ticks, system)
    if system == "in-decimal" or ticks % 127 == 0 or ticks % 32 == 0:
        assert parse(text, system) == ticks
    else:
        assert abs(parse(text, system) - ticks) <= rule_step(system) / 2
        assert "." not in text or system in ("mm", "cm", "m")


def test_a_metric_figure_means_the_same_in_an_inch_project() -> None:
    assert parse("419 mm", "in") == parse("419", "mm") == parse("41.9 cm", "ft-in") == 419 * 320
