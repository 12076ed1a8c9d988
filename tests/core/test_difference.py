"""An edit keeps what it changed, and that is enough to go back and on."""

from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tests.profiles import examples
from vividplank.core.difference import applied, difference

ROWS = st.lists(
    st.fixed_dictionaries({"id": st.sampled_from("ABCDEF"), "length": st.integers(1, 3)}),
    unique_by=lambda row: str(row["id"]),
)
DOCUMENTS = st.fixed_dictionaries(
    {"name": st.sampled_from("xy"), "shop": st.fixed_dictionaries({"trim": st.integers(0, 2)})}
    | {"parts": ROWS, "boards": ROWS}
)


@examples(300)
@given(DOCUMENTS, DOCUMENTS)
def test_it_leads_back_and_on(before: dict[str, Any], after: dict[str, Any]) -> None:
    back, on = difference(before, after)
    assert applied(after, back) == before
    assert applied(before, on) == after
    assert difference(before, before) == ({}, {})


def test_a_board_that_stays_as_it_is_is_not_kept_again() -> None:
    same = {"id": "A", "length": 1}
    before = {"boards": [same, {"id": "B", "length": 2}]}
    after = {"boards": [{"id": "B", "length": 3}, same, {"id": "C", "length": 4}]}
    back, on = difference(before, after)
    assert back == {"boards": {"order": ["A", "B"], "rows": [{"id": "B", "length": 2}]}}
    assert on["boards"]["rows"] == [{"id": "B", "length": 3}, {"id": "C", "length": 4}]


def test_a_whole_document_from_before_there_were_differences_takes_its_place() -> None:
    whole = {"name": "was", "parts": [{"id": "A"}], "boards": []}
    assert applied({"name": "now", "parts": [], "boards": [{"id": "X"}]}, whole) == whole
