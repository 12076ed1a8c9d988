"""A newer version against the one before."""

from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from vividplank.core.takeoff.model.compare import differences
from vividplank.core.takeoff.model.found import Found

LEG = Found("Leg", "Leg", 4, 144000, 14080, 14080)
RAIL = Found("Rail", "Rail", 2, 192000, 22400, 6400)
TOP = Found("Top", "Top", 1, 240000, 160000, 6400)


def said(before: list[Found], after: list[Found]) -> list[tuple[str, ...]]:
    return [d.what for d in differences(before, after)]


def test_nothing_changed() -> None:
    assert said([LEG, RAIL], [RAIL, LEG]) == [("same",), ("same",)]


def test_each_kind_of_change_is_named() -> None:
    longer, more = replace(LEG, length=150000), replace(RAIL, quantity=3)
    assert said([LEG, RAIL, TOP], [longer, more]) == [("size",), ("count",), ("gone",)]
    assert said([LEG], [LEG, TOP]) == [("same",), ("new",)]
    assert said([LEG], [replace(LEG, length=150000, quantity=2)]) == [("size", "count")]


def test_a_renamed_part_is_known_by_its_size() -> None:
    found = differences([LEG, RAIL], [replace(LEG, key="Post", name="Post"), RAIL])
    assert found[0].what == ("name",) and found[0].before == LEG


def test_a_name_counts_for_more_than_a_size() -> None:
    # The rail has become as long as the old top was; it is still the rail.
    rail = replace(RAIL, length=TOP.length, width=TOP.width)
    found = differences([TOP, RAIL], [rail])
    assert [(d.before, d.what) for d in found] == [(RAIL, ("size",)), (TOP, ("gone",))]


names = st.sampled_from(["Leg", "Rail", "Top", "Part 1"])
parts = st.lists(
    st.builds(
        Found,
        names,
        names,
        st.integers(1, 4),
        st.integers(1, 3).map(lambda n: n * 32000),
        st.just(16000),
        st.just(6400),
    ),
    max_size=6,
)


@given(parts, parts)
def test_every_part_of_both_versions_is_spoken_of_once(
    before: list[Found], after: list[Found]
) -> None:
    found = differences(before, after)
    assert [d.after for d in found if d.after] == after
    spoken = [d.before for d in found if d.before]
    assert sorted(map(id, spoken)) == sorted(map(id, before))
    assert all(
        d.before and d.after and d.before.quantity == d.after.quantity
        for d in found
        if d.what == ("same",)
    )
