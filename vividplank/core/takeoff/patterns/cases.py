"""Case pieces: carcass, frame and panel, drawer box, edged sheet panel."""

from collections.abc import Mapping

from vividplank.core.takeoff.patterns.pattern import (
    PANEL_GROOVE,
    Built,
    Choice,
    Dim,
    Given,
    Line,
    Pattern,
    Rect,
    between,
    movement_measures,
    panel_warns,
)


def _carcass(chosen: Mapping[str, str]) -> Built:
    corner, shelf = chosen["corner"], chosen["shelf"]
    built = Built(
        [
            Given("W", "width over all", "36", "900"),
            Given("H", "height over all", "48", "1200"),
            Given("D", "depth over all", "11 1/4", "285"),
            Given("stock", "thickness of the carcass", "13/16", "20"),
            Given("shelves", "shelves in each bay", "3", kind="number"),
            Given("dividers", "upright dividers", "1", kind="number"),
            Given(
                "housing",
                "depth of a housing",
                "round(stock / 3, 1/16 in)",
                "round(stock / 3, 1 mm)",
                own=False,
            ),
            Given(
                "back",
                "thickness of the back",
                *(("1/4", "6") if chosen["back"] == "a sheet" else ("1/2", "12")),
            ),
            Given("rebate", "rebate for the back", "3/8", "10"),
            Given("play", "room for the back in its rebate, each way", "1/16", "1.5"),
            Given(
                "bay",
                "clear width of a bay",
                "down((W - 2 * stock - dividers * stock) / (dividers + 1), 1/64 in)",
                "down((W - 2 * stock - dividers * stock) / (dividers + 1), 0.1 mm)",
                own=False,
            ),
            Given(
                "clear",
                "clear height between shelves",
                "down((H - 2 * stock - shelves * stock) / (shelves + 1), 1/64 in)",
                "down((H - 2 * stock - shelves * stock) / (shelves + 1), 0.1 mm)",
                own=False,
            ),
        ]
    )
    ends = {"dovetail": ("W", "2 * stock"), "mitre": ("W", "2 * stock")}.get(corner) or between(
        "W - 2 * stock", corner
    )
    length, adds = between("bay", shelf)
    upright, upright_adds = between("H - 2 * stock", shelf)
    # A side that is housed or doweled into takes the joint in and has none at its own ends.
    side_joint = corner if corner in ("dovetail", "mitre") else ""
    built.lines = [
        Line("Side", "2", "H", "D", "stock", "clear-one", side_joint, glued=True),
        Line(
            "Top and bottom", "2", ends[0], "D", "stock", "clear-one", corner, ends[1], glued=True
        ),
        Line(
            "Divider",
            "dividers",
            upright,
            "D - back",
            "stock",
            "clear-two",
            shelf,
            upright_adds,
            glued=True,
        ),
        Line(
            "Shelf",
            "shelves * (dividers + 1)",
            length,
            "D - back",
            "stock",
            "clear-one",
            shelf,
            adds,
            glued=True,
            fitted=True,
        ),
    ]
    tall, wide = "H - 2 * stock + 2 * rebate - play", "W - 2 * stock + 2 * rebate - play"
    if chosen["back"] == "a sheet":
        built.lines.append(Line("Back", "1", tall, wide, "back", "clear-one", stock="sheet"))
    else:
        built.measures += [
            Given("cover", "what one back board covers, at most", "4", "100"),
            Given("tongue", "width of a tongue", "1/4", "6"),
            Given("slats", "back boards", f"up(({wide}) / cover)", kind="number", own=False),
        ]
        note = "leave a hair at each tongue: the boards must move"
        joint = "tongue and groove"
        built.lines.append(
            Line(
                "Back board",
                "slats",
                tall,
                f"({wide}) / slats + tongue",
                "back",
                joint=joint,
                note=note,
            )
        )
    pitch, rise = "bay + stock", "clear + stock"
    built.rects = [
        Rect("front", "Side", "0 in", "0 in", "stock", "H", "2", "W - stock"),
        Rect(
            "front",
            "Top and bottom",
            "stock",
            "0 in",
            "W - 2 * stock",
            "stock",
            "2",
            "0 in",
            "H - stock",
        ),
        Rect(
            "front", "Divider", "stock + bay", "stock", "stock", "H - 2 * stock", "dividers", pitch
        ),
        *(
            Rect(
                "front",
                "Shelf",
                f"stock + {k} * ({pitch})",
                "stock + clear",
                "bay",
                "stock",
                f"shelves * min(1, max(0, dividers - {k - 1}))",
                "0 in",
                rise,
            )
            for k in range(6)
        ),
        Rect("side", "Side", "0 in", "0 in", "D", "H"),
        Rect("side", built.lines[-1].name, "0 in", "stock - rebate + play / 2", "back", tall),
        Rect("plan", "Top and bottom", "0 in", "0 in", "W", "D"),
    ]
    built.dims = [
        Dim("front", "x", "0 in", "W"),
        Dim("front", "y", "0 in", "H", 1),
        Dim("front", "x", "stock", "stock + bay", 1),
        Dim("front", "y", "stock", "stock + clear"),
        Dim("side", "x", "0 in", "D"),
        Dim("plan", "x", "0 in", "W"),
    ]
    return built


def _frame(chosen: Mapping[str, str]) -> Built:
    joint = chosen["joint"]
    built = Built(
        [
            Given("W", "width over all", "16", "400"),
            Given("H", "height over all", "28", "700"),
            Given("t", "thickness of the frame", "13/16", "20"),
            Given("stile", "width of a stile", "2 1/4", "57"),
            Given("rail", "width of the top rail", "2 1/4", "57"),
            Given("lower", "width of the bottom rail", "3", "76"),
            PANEL_GROOVE,
            Given("tenon", "length of a tenon", "1 1/4", "32"),
            Given("panel", "thickness of the panel", "1/2", "12"),
            *movement_measures(),
            Given(
                "gap",
                "room for the panel to grow, both sides together",
                "up((W - 2 * stile) * move, 1/32 in)",
                "up((W - 2 * stile) * move, 0.5 mm)",
                own=False,
            ),
        ]
    )
    built.warns = panel_warns("stile")
    crossing = joint in (
        "mitre",
        "half-lap",
    )  # the stiles too run into the joint; else they are mortised or bored
    length, adds = ("W", "2 * stile") if crossing else between("W - 2 * stile", joint)
    stile_joint = (joint, "rail + lower") if crossing else ("", "")
    built.lines = [
        Line("Stile", "2", "H", "stile", "t", "clear-two", *stile_joint),
        Line("Top rail", "1", length, "rail", "t", "clear-two", joint, adds),
        Line("Bottom rail", "1", length, "lower", "t", "clear-two", joint, adds),
        Line(
            "Panel",
            "1",
            "H - rail - lower + 2 * groove - groove / 4",
            "W - 2 * stile + 2 * groove - gap",
            "panel",
            "clear-two",
            glued=True,
            joint="loose in its groove",
            note="no glue in the groove: it must move",
        ),
    ]
    built.rects = [
        Rect("front", "Stile", "0 in", "0 in", "stile", "H", "2", "W - stile"),
        Rect("front", "Bottom rail", "stile", "0 in", "W - 2 * stile", "lower"),
        Rect("front", "Top rail", "stile", "H - rail", "W - 2 * stile", "rail"),
        Rect("front", "Panel", "stile", "lower", "W - 2 * stile", "H - rail - lower"),
        Rect("side", "Stile", "0 in", "0 in", "t", "H"),
        Rect("plan", "Stile", "0 in", "0 in", "stile", "t", "2", "W - stile"),
        Rect(
            "plan",
            "Panel",
            "stile - groove + gap / 2",
            "t / 2 - panel / 2",
            "W - 2 * stile + 2 * groove - gap",
            "panel",
        ),
    ]
    built.dims = [
        Dim("front", "x", "0 in", "W", 1),
        Dim("front", "y", "0 in", "H", 1),
        Dim("front", "x", "0 in", "stile"),
        Dim("front", "x", "stile", "W - stile"),
        Dim("front", "y", "0 in", "lower"),
        Dim("front", "y", "H - rail", "H"),
        Dim("side", "x", "0 in", "t"),
    ]
    return built


def _drawer(chosen: Mapping[str, str]) -> Built:
    front, bottom = chosen["front"], chosen["bottom"]
    into = "groove" if bottom == "in a groove" else "side / 2"
    built = Built(
        [
            Given("W", "width of the opening", "16", "400"),
            Given("H", "height of the opening", "5", "125"),
            Given("D", "depth of the opening", "18", "450"),
            Given("n", "drawers", "3", kind="number"),
            Given("front", "thickness of the front", "13/16", "20"),
            Given("side", "thickness of sides and back", "1/2", "12"),
            Given("lap", "wood left before the tails", "1/4", "6"),
            Given("bottom", "thickness of the bottom", "1/4", "6"),
            Given("groove", "depth of the groove", "1/4", "6"),
            Given("above", "groove above the lower edge", "3/8", "10"),
            Given("clear", "room at each side", "1/32", "0.8"),
            Given("play", "room for the bottom, each way", "1/16", "1.5"),
            *movement_measures(),
            Given(
                "rise",
                "room above, for the sides to grow",
                "up(H * move, 1/32 in)",
                "up(H * move, 0.5 mm)",
                own=False,
            ),
            Given("wide", "width of the box", "W - 2 * clear", own=False),
            Given("high", "height of the box", "H - rise", own=False),
            Given("deep", "length of the box", "D - 1/2 in", "D - 12 mm", own=False),
        ]
    )
    side = {
        "lapped dovetail": "deep - lap",
        "through dovetail": "deep",
        "rebate": "deep - front / 3",
    }[front]
    under = (
        "above + bottom" if bottom == "in a groove" else "bottom"
    )  # the bottom runs through below the back
    built.lines = [
        Line(
            "Drawer front",
            "n",
            "wide",
            "high",
            "front",
            "clear-two",
            front,
            run="fronts",
            fitted=True,
        ),
        Line("Drawer side", "2 * n", side, "high", "side", "sound", front, fitted=True),
        Line(
            "Drawer back",
            "n",
            "wide",
            f"high - ({under})",
            "side",
            "sound",
            "through dovetail",
            "2 * side",
        ),
        Line(
            "Drawer bottom",
            "n",
            f"wide - 2 * side + 2 * ({into}) - play",
            f"deep - front + {into} - play",
            "bottom",
            "sound",
            stock="sheet",
            joint=bottom,
            grain="length",
        ),
    ]
    built.rects = [
        Rect("front", "Drawer front", "clear", "0 in", "wide", "high"),
        Rect("side", "Drawer side", "0 in", "0 in", "deep - front", "high"),
        Rect("side", "Drawer front", "deep - front", "0 in", "front", "high"),
        Rect("plan", "Drawer side", "clear", "0 in", "side", "deep - front", "2", "wide - side"),
        Rect("plan", "Drawer front", "clear", "deep - front", "wide", "front"),
        Rect("plan", "Drawer back", "clear + side", "0 in", "wide - 2 * side", "side"),
        Rect(
            "plan",
            "Drawer bottom",
            "clear + side",
            "side",
            "wide - 2 * side",
            "deep - front - side",
        ),
    ]
    built.dims = [
        Dim("front", "x", "0 in", "W"),
        Dim("front", "y", "0 in", "high"),
        Dim("front", "y", "0 in", "H", 1),
        Dim("side", "x", "0 in", "deep"),
        Dim("plan", "x", "clear", "clear + wide"),
        Dim("plan", "y", "0 in", "deep"),
    ]
    return built


def _sheet(chosen: Mapping[str, str]) -> Built:
    edges = chosen["edges"]
    long_edges, ends = {"all round": (2, 2), "both long edges": (2, 0), "front edge": (1, 0)}[edges]
    built = Built(
        [
            Given("L", "length over all", "48", "1200"),
            Given("W", "width over all", "20", "500"),
            Given("n", "panels", "1", kind="number"),
            Given("sheet", "thickness of the sheet", "3/4", "18"),
            Given("edge", "thickness of the edging", "1/4", "6"),
        ]
    )
    built.lines = [
        Line(
            "Panel",
            "n",
            "L",
            "W",
            "sheet",
            stock="sheet",
            edging=("edge", long_edges, ends),
            note=f"edging {edges}",
        ),
        Line(
            "Long edging",
            f"{long_edges} * n",
            "L",
            "sheet + 1/16 in",
            "edge",
            joint="mitre" if ends else "",
            fitted=True,
        ),
    ]
    if ends:
        built.lines.append(
            Line(
                "End edging",
                f"{ends} * n",
                "W",
                "sheet + 1/16 in",
                "edge",
                joint="mitre",
                fitted=True,
            )
        )
    low = "edge" if ends else "0 in"
    built.rects = [
        Rect(
            "front",
            "Panel",
            low,
            "edge" if long_edges == 2 else "0 in",
            f"L - {ends} * edge",
            f"W - {long_edges} * edge",
        ),
        Rect(
            "front",
            "Long edging",
            "0 in",
            "W - edge",
            "L",
            "edge",
            str(long_edges),
            "0 in",
            "edge - W",
        ),
        *(
            [Rect("front", "End edging", "0 in", "0 in", "edge", "W", "2", "L - edge")]
            if ends
            else []
        ),
        Rect("side", "Panel", "0 in", "0 in", "W", "sheet"),
        Rect("plan", "Panel", "0 in", "0 in", "L", "sheet"),
    ]
    built.dims = [
        Dim("front", "x", "0 in", "L"),
        Dim("front", "y", "0 in", "W"),
        Dim("front", "x", low, f"L - {low}", 1),
        Dim("side", "x", "0 in", "W"),
        Dim("plan", "x", "0 in", "L"),
    ]
    return built


CASES = (
    Pattern(
        "carcass",
        "Carcass",
        "A case with shelves and dividers, its back in a rebate.",
        (
            Choice("corner", "corners", ("dovetail", "housing", "mitre", "dowel")),
            Choice("shelf", "shelves and dividers", ("housing", "dowel")),
            Choice("back", "back", ("a sheet", "tongue and groove boards")),
        ),
        _carcass,
    ),
    Pattern(
        "frame",
        "Frame and panel",
        "A door or a back: a solid panel free to move in a grooved frame.",
        (
            Choice(
                "joint",
                "corners",
                ("mortise and tenon", "stub tenon", "dowel", "half-lap", "mitre"),
            ),
        ),
        _frame,
    ),
    Pattern(
        "drawer",
        "Drawer box",
        "Drawers for equal openings, their fronts out of one run of grain.",
        (
            Choice("front", "front corners", ("lapped dovetail", "through dovetail", "rebate")),
            Choice("bottom", "bottom", ("in a groove", "in a rebate")),
        ),
        _drawer,
    ),
    Pattern(
        "sheet",
        "Edged sheet panel",
        "Sheet material with strips of solid wood on its edges.",
        (Choice("edges", "edging", ("all round", "both long edges", "front edge")),),
        _sheet,
    ),
)
