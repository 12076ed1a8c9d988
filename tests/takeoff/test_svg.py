"""SVG: what is drawn once and used again, the sheet's own edge, what is not shown, and what a group
is called.
"""

from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff import Reading, Settings, read

SETTINGS = Settings()


def svg(*drawn: str, size: tuple[int, int] = (1200, 800)) -> bytes:
    wide, high = size
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" '
        f'xmlns:inkscape="http://www.inkscape.org/namespaces/inkscape" '
        f'width="{wide}mm" height="{high}mm" viewBox="0 0 {wide} {high}">{"".join(drawn)}</svg>'
    ).encode()


def taken_off(*drawn: str, settings: Settings = SETTINGS) -> Reading:
    return read(svg(*drawn), "a.svg", settings)[0]


def sizes(reading: Reading) -> list[tuple[int, float, float]]:
    return [(p.quantity, p.length / TICKS_PER_MM, p.width / TICKS_PER_MM) for p in reading.parts]


def test_a_part_drawn_once_and_used_again_is_counted_each_time() -> None:
    reading = taken_off(
        '<defs><rect id="rail" width="600" height="70"/></defs>',
        '<use xlink:href="#rail" x="20" y="20"/>',
        '<use href="#rail" x="20" y="120"/>',
        '<use xlink:href="#rail" transform="translate(900 20) rotate(90)"/>',
    )
    assert sizes(reading) == [(3, 600, 70)]


def test_the_edge_of_the_sheet_is_no_part_until_it_is_taken_for_one() -> None:
    drawn = (
        '<rect id="rect1" x="0" y="0" width="1200" height="800"/>',
        '<rect id="shelf" x="50" y="50" width="700" height="240"/>',
        '<rect id="rail" x="50" y="400" width="700" height="60"/>',
    )
    reading = taken_off(*drawn)
    assert [p.name for p in reading.parts] == ["shelf", "rail"]
    [frame] = [d for d in reading.decisions if d.kind == "frame"]
    turned = taken_off(*drawn, settings=Settings(turned=(frame.key,)))
    assert (1, 1200, 800) in sizes(turned)


def test_what_is_not_shown_is_no_part_and_is_told() -> None:
    reading = taken_off(
        '<rect x="50" y="50" width="700" height="240"/>',
        '<rect x="50" y="400" width="600" height="60" style="display:none"/>',
        '<g visibility="hidden"><rect x="50" y="500" width="500" height="50"/></g>',
    )
    assert sizes(reading) == [(1, 700, 240)]
    assert [d.what for d in reading.decisions if d.kind == "hidden"] == [
        "Left out: 2 things not shown"
    ]


def test_a_group_round_one_part_and_its_holes_names_it() -> None:
    reading = taken_off(
        '<g inkscape:label="Seat rail"><rect id="rect12" x="50" y="50" width="700" height="90"/>'
        '<circle cx="100" cy="95" r="8"/></g>',
        '<g inkscape:label="Ash"><rect id="rect13" x="50" y="300" width="500" height="60"/>'
        '<rect id="rect14" x="50" y="420" width="400" height="60"/></g>',
    )
    assert [p.name for p in reading.parts][:1] == ["Seat rail"]
    assert reading.layers == ("", "Ash"), "a group round several is what they lie on"
