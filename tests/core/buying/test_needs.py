"""What the list asks of the yard, by hand."""

import json
from fractions import Fraction

import pytest

from tests.conftest import ROOT
from tests.core.layout.model.test_audit import JOB
from vividplank.core.buying import needs
from vividplank.core.exchange import read_job
from vividplank.core.measure import TICKS_PER_INCH as INCH

SETTLE = ROOT / "docs" / "examples" / "settle.job.json"


def test_board_feet_by_hand() -> None:
    found = needs(read_job(json.dumps(JOB)), Fraction(1, 4))
    assert [(n.species, n.quarter) for n in found] == [("oak", "4/4")]
    # With 1/2 over in length and 1/8 in width, at 1 in rough: 2 shelves 20.5 x 3.125; the top as 6
    # in net and two staves' allowances, 20.5 x 6.25; 2 tiles 8.5 x 3.125; 2 laths 14.5 x 2.125;
    # over 144.
    inches = 2 * 20.5 * 3.125 + 20.5 * 6.25 + 2 * 8.5 * 3.125 + 2 * 14.5 * 2.125
    assert float(found[0].net) == pytest.approx(inches / 144)
    assert found[0].to_buy == found[0].net * Fraction(5, 4)
    assert found[0].longest == round(20.5 * INCH) and found[0].widest == round(3.125 * INCH)
    # Boards: 60 x 6.5 for 20.00 and 50 x 7 for 15.50, both 1 in: 7.38 and 6.38 a board foot,
    # between them 6.88.
    assert str(found[0].price) == "6.88"


def test_the_settle_needs_oak_in_two_quarters_and_ash() -> None:
    found = needs(read_job(SETTLE.read_text(encoding="utf-8")))
    assert [(n.species, n.quarter) for n in found] == [
        ("ash", "4/4"),
        ("white oak", "4/4"),
        ("white oak", "8/4"),
    ]
    assert found[2].parts == ("BP", "FL")


def test_a_run_wants_its_whole_length_in_one_piece() -> None:
    job = json.loads(json.dumps(JOB))
    job["parts"] = [job["parts"][2]]  # two tiles of 8 in a row: 16, a kerf of 1/8 and 1/2 over
    assert needs(read_job(json.dumps(job)))[0].longest == round(16.625 * INCH)


def test_too_thick_for_any_quarter_is_built_up_and_has_no_price() -> None:
    job = json.loads(json.dumps(JOB))
    job["parts"][0]["thickness"] = 4
    thick = needs(read_job(json.dumps(job)))[-1]
    assert thick.quarter == "" and thick.price is None and thick.cost is None
