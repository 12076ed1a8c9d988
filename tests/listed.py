"""Random parts with everything that the list can hold."""

from hypothesis import strategies as st

from tests.jobs import inches
from vividplank.core.board.grain import FIGURES
from vividplank.core.cutlist import Edging, Panel, Part, Source

words = st.text(
    st.characters(codec="utf-8", exclude_categories=("Cs", "Cc", "Zl", "Zp", "Zs")),
    min_size=1,
    max_size=12,
)


@st.composite
def parts(draw: st.DrawFn, id: str) -> Part:
    """One part that `check_part` takes; sizes in 64ths of an inch."""
    length, width, thickness = draw(inches(8, 90)), draw(inches(2, 30)), draw(inches(0.25, 3))
    stock = draw(st.sampled_from(["board", "board", "sheet", "bought"]))
    kind = (
        draw(st.sampled_from(["plain", "panel", "run", "layers"])) if stock == "board" else "plain"
    )
    edging = (
        Edging(draw(inches(0.125, 0.5)), draw(st.integers(0, 2)), draw(st.integers(0, 2)))
        if stock == "sheet" and draw(st.booleans())
        else None
    )
    ring = ((0, 0), (length, 0), (length // 2, width), (0, width)) if draw(st.booleans()) else ()
    return Part(
        id,
        draw(words),
        draw(st.integers(1, 9)),
        draw(st.sampled_from(["white oak", "ash", "birch ply"])),
        length,
        width,
        thickness,
        draw(st.sampled_from(["clear-two", "clear-one", "sound"])),
        Panel(draw(inches(1, 2)), draw(inches(3, 7))) if kind == "panel" else None,
        f"run {id}" if kind == "run" else "",
        draw(st.just("") | words),
        stock,
        draw(st.sampled_from(["length", "width", "any"])),
        draw(st.booleans()),
        draw(st.booleans()),
        draw(st.integers(2, 6)) if kind == "layers" else 1,
        draw(st.just("") | words),
        draw(st.just("") | words),
        edging,
        draw(st.sampled_from(["", "mitre", "mortise and tenon"])),
        draw(st.just(0) | inches(0.25, 4)),
        draw(
            st.sampled_from([(), (("length", "W"),), (("width", "W / 2"), ("quantity", "2 + 1"))])
        ),
        draw(st.none() | st.builds(Source, st.integers(1, 9), words)),
        ring,
        figure=draw(st.sampled_from(["", *FIGURES])),
    )


lists = st.integers(1, 4).flatmap(lambda n: st.tuples(*(parts(f"P{k}") for k in range(n))))
