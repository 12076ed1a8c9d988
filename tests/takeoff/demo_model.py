"""The demo's model of the settle: `python -m tests.takeoff.demo_model` writes
vividplank/demo/settle.step anew.

Sizes are the list's own; places are where a maker would put the pieces, tenons and all, x along the
seat, z up.
"""

from pathlib import Path

from tests.takeoff.step_files import Assembly, block, place

INCH = 25.4
#: Name, size along x, y and z, and where each piece's lower corner stands, in inches.
PIECES: tuple[
    tuple[str, tuple[float, float, float], tuple[tuple[float, float, float], ...]], ...
] = (
    ("Back post", (2.25, 1.5, 37.5), ((0, 16, 0), (50.25, 16, 0))),
    ("Front leg", (2.25, 1.5, 17), ((0, 0, 0), (50.25, 0, 0))),
    ("Crest rail", (50.5, 0.8125, 3.5), ((1, 16.35, 33.5),)),
    ("Back lower rail", (50.5, 0.8125, 2.75), ((1, 16.35, 17.9),)),
    ("Seat rail, long", (50.5, 0.8125, 3), ((1, 0.35, 14), (1, 16.35, 14))),
    ("Seat rail, short", (0.8125, 15.5, 3), ((0.7, 1, 14), (25.85, 1, 14), (51, 1, 14))),
    ("Back slat", (3.25, 0.5, 16.25), tuple((5.406 + 6.406 * i, 16.5, 18.95) for i in range(7))),
    ("Seat", (52, 17.5, 0.8125), ((0.25, 0, 17),)),
    ("Arm", (0.8125, 18.5, 3), ((0, -1, 17.8125), (51.6875, -1, 17.8125))),
    ("Drawer front", (16, 0.75, 4.5), tuple((2.25 + 16 * i, 0.2, 9.2) for i in range(3))),
    (
        "Drawer side",
        (0.5, 14, 4.25),
        tuple((x + 16 * i, 0.95, 9.3) for i in range(3) for x in (2.4, 17.6)),
    ),
    ("Drawer back", (15.25, 0.5, 3.75), tuple((2.6 + 16 * i, 14.4, 9.6) for i in range(3))),
    (
        "Seat cleat",
        (0.75, 14.5, 1.25),
        ((2.4, 1.5, 15.7), (24.9, 1.5, 15.7), (26.8, 1.5, 15.7), (49.3, 1.5, 15.7)),
    ),
)


def settle() -> bytes:
    a = Assembly()
    whole = a.group("Reading-room settle")
    for name, size, places in PIECES:
        product = a.product(block(*(s * INCH for s in size)), name)
        for x, y, z in places:
            a.put(whole, product, place(x * INCH, y * INCH, z * INCH))
    return a.write(unit="INCH")


if __name__ == "__main__":
    (Path(__file__).parents[2] / "vividplank" / "demo" / "settle.step").write_bytes(settle())
