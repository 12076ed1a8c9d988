"""Pieces on legs and frames: table or bench, mitred frame, settle."""

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
    Warn,
    between,
    movement_measures,
    panel_warns,
)

#: Where the tenons of two rails come into a leg from two sides, each a third of its rail thick and
#: in its middle, the rails : `set` behind the leg's outer faces: they meet when either reaches
#: further than this.
_MEETS = "{leg} - set - t * 2 / 3"


def _table(chosen: Mapping[str, str]) -> Built:
    joint = chosen["joint"]
    built = Built(
        [
            Given("W", "length of the top", "44", "1100"),
            Given("D", "width of the top", "20", "500"),
            Given("H", "height", "18", "450"),
            Given("leg", "leg, square", "1 3/4", "44"),
            Given("top", "thickness of the top", "13/16", "20"),
            Given("over", "top beyond the legs, each side", "1", "25"),
            Given("rail", "height of the rails", "2 3/4", "70"),
            Given("t", "thickness of the rails", "13/16", "20"),
            Given("set", "rails behind the legs' outer faces", "1/8", "3"),
            Given(
                "tenon",
                "length of a tenon",
                f"min(1 in, down({_MEETS.format(leg='leg')}, 1/16 in))",
                f"min(25 mm, down({_MEETS.format(leg='leg')}, 1 mm))",
            ),
            *movement_measures(),
            Given(
                "slot",
                "room the fixing of the top must give",
                "up(D * move, 1/32 in)",
                "up(D * move, 0.5 mm)",
                own=False,
            ),
        ]
    )
    long, adds = between("W - 2 * over - 2 * leg", joint)
    short, _ = between("D - 2 * over - 2 * leg", joint)
    built.lines = [
        Line("Leg", "4", "H - top", "leg", "leg", "clear-two"),
        Line("Long rail", "2", long, "rail", "t", "clear-one", joint, adds),
        Line("Short rail", "2", short, "rail", "t", "clear-one", joint, adds),
        Line(
            "Top",
            "1",
            "W",
            "D",
            "top",
            "clear-one",
            glued=True,
            note="fixed with buttons or slotted screws: it must move across",
        ),
    ]
    if joint == "mortise and tenon":
        built.warns = [
            Warn(
                f"tenon - ({_MEETS.format(leg='leg')})",
                "The tenons are too long",
                "those of two rails meet in the leg. Make them shorter, or mitre their ends",
            )
        ]
    if chosen["stretcher"] == "with a stretcher":
        # It ends in the foot rails, which are no thicker than other rails.
        stub = Given(
            "stub",
            "stretcher's tenon",
            "down(t * 2 / 3, 1/16 in)",
            "down(t * 2 / 3, 1 mm)",
            own=False,
        )
        mid, mid_adds = "W - 2 * over - leg - t", ""
        if joint == "mortise and tenon":
            built.measures.append(stub)
            mid, mid_adds = f"{mid} + 2 * stub", "2 * stub"
        built.lines += [
            Line("Foot rail", "2", short, "rail * 2 / 3", "t", "clear-one", joint, adds),
            Line(
                "Stretcher",
                "1",
                mid,
                "rail * 2 / 3",
                "t",
                "clear-one",
                joint,
                mid_adds,
                fitted=True,
            ),
        ]
        built.rects += [
            Rect(
                "front",
                "Stretcher",
                "over + leg",
                "H / 5",
                "W - 2 * over - 2 * leg",
                "rail * 2 / 3",
            )
        ]
    built.rects += [
        Rect("front", "Leg", "over", "0 in", "leg", "H - top", "2", "W - 2 * over - leg"),
        Rect(
            "front", "Long rail", "over + leg", "H - top - rail", "W - 2 * over - 2 * leg", "rail"
        ),
        Rect("front", "Top", "0 in", "H - top", "W", "top"),
        Rect("side", "Leg", "over", "0 in", "leg", "H - top", "2", "D - 2 * over - leg"),
        Rect(
            "side", "Short rail", "over + leg", "H - top - rail", "D - 2 * over - 2 * leg", "rail"
        ),
        Rect("side", "Top", "0 in", "H - top", "D", "top"),
        Rect("plan", "Top", "0 in", "0 in", "W", "D"),
    ]
    built.dims = [
        Dim("front", "x", "0 in", "W", 1),
        Dim("front", "y", "0 in", "H", 1),
        Dim("front", "x", "over + leg", "W - over - leg"),
        Dim("front", "y", "H - top - rail", "H - top"),
        Dim("side", "x", "0 in", "D", 1),
        Dim("side", "x", "over + leg", "D - over - leg"),
        Dim("plan", "x", "0 in", "W"),
        Dim("plan", "y", "0 in", "D"),
    ]
    return built


def _mitred(chosen: Mapping[str, str]) -> Built:
    joint = chosen["joint"]
    built = Built(
        [
            Given("W", "width of the picture", "16", "400"),
            Given("H", "height of the picture", "20", "500"),
            Given("face", "width of the frame", "1 1/2", "38"),
            Given("t", "thickness of the frame", "3/4", "19"),
            Given("rebate", "width of the rebate", "1/4", "6"),
            Given("play", "picture's room, both sides together", "1/8", "3"),
            Given("wide", "frame over all", "W + play + 2 * (face - rebate)", own=False),
            Given("high", "frame over all, upright", "H + play + 2 * (face - rebate)", own=False),
        ]
    )
    built.lines = [
        Line(
            "Frame, across", "2", "wide", "face", "t", "clear-one", joint, "2 * face", fitted=True
        ),
        Line(
            "Frame, upright", "2", "high", "face", "t", "clear-one", joint, "2 * face", fitted=True
        ),
    ]
    built.rects = [
        Rect("front", "Frame, upright", "0 in", "0 in", "face", "high", "2", "wide - face"),
        Rect(
            "front",
            "Frame, across",
            "face",
            "0 in",
            "wide - 2 * face",
            "face",
            "2",
            "0 in",
            "high - face",
        ),
        Rect("side", "Frame, upright", "0 in", "0 in", "t", "high"),
        Rect("plan", "Frame, across", "0 in", "0 in", "wide", "t"),
    ]
    built.dims = [
        Dim("front", "x", "0 in", "wide", 1),
        Dim("front", "x", "face", "wide - face"),
        Dim("front", "y", "0 in", "high", 1),
        Dim("front", "y", "face", "high - face"),
        Dim("side", "x", "0 in", "t"),
        Dim("plan", "x", "0 in", "wide"),
    ]
    return built


def _settle(chosen: Mapping[str, str]) -> Built:
    joint = chosen["joint"]
    built = Built(
        [
            Given("W", "width over all", "54", "1370"),
            Given("D", "depth of the seat", "17 1/2", "445"),
            Given("seat", "height of the seat", "17", "430"),
            Given("H", "height of the back", "37 1/2", "950"),
            Given("leg", "leg, across the front", "2 1/4", "57"),
            Given("thick", "leg, front to back", "1 1/2", "38"),
            Given("t", "thickness of rails and seat", "13/16", "20"),
            Given("rail", "height of the seat rails", "3", "76"),
            Given("crest", "height of the crest rail", "3 1/2", "89"),
            Given("lower", "height of the lower back rail", "2 3/4", "70"),
            Given("tenon", "length of a tenon", "1 1/4", "32"),
            Given("set", "rails behind the posts' outer faces", "1/8", "3"),
            PANEL_GROOVE,
            Given("panels", "panels in the back", "3", kind="number"),
            Given("muntin", "width of a muntin", "2", "50"),
            Given("panel", "thickness of a panel", "1/2", "12"),
            *movement_measures(),
            Given(
                "open",
                "clear width of a panel",
                "down((W - 2 * leg - (panels - 1) * muntin) / panels, 1/64 in)",
                "down((W - 2 * leg - (panels - 1) * muntin) / panels, 0.1 mm)",
                own=False,
            ),
            Given("tall", "clear height of the panels", "H - seat - crest - lower", own=False),
            Given(
                "gap",
                "room for each panel to grow",
                "up(open * move, 1/32 in)",
                "up(open * move, 0.5 mm)",
                own=False,
            ),
        ]
    )
    built.warns = panel_warns("muntin")
    if joint == "mortise and tenon":
        built.warns += [
            Warn(
                f"tenon - max({_MEETS.format(leg='leg')}, {_MEETS.format(leg='thick')})",
                "The tenons are too long",
                "those of two rails meet in the post. Make them shorter, or mitre their ends",
            ),
            Warn(
                "tenon + 1/8 in - min(leg, thick)",
                "The tenons are too long",
                "the mortises come out at the other side of the post. Make them shorter, or the "
                "post thicker",
            ),
        ]
    rail, adds = between("W - 2 * leg", joint)
    side, _ = between("D - 2 * thick", joint)
    upright, stub = between("tall", "stub tenon")
    built.lines = [
        Line("Back post", "2", "H", "leg", "thick", "clear-two"),
        Line("Front leg", "2", "seat - t", "leg", "thick", "clear-two"),
        Line("Crest rail", "1", rail, "crest", "t", "clear-two", joint, adds),
        Line("Lower back rail", "1", rail, "lower", "t", "clear-one", joint, adds),
        Line("Seat rail, long", "2", rail, "rail", "t", "clear-one", joint, adds),
        Line("Seat rail, short", "2", side, "rail", "t", "sound", joint, adds),
        Line("Muntin", "panels - 1", upright, "muntin", "t", "clear-one", "stub tenon", stub),
        Line(
            "Back panel",
            "panels",
            "tall + 2 * groove - groove / 4",
            "open + 2 * groove - gap",
            "panel",
            "clear-one",
            glued=True,
            joint="loose in its groove",
            match="back",
            note="no glue in the groove: it must move",
        ),
        Line("Seat", "1", "W - 2 * leg", "D", "t", "clear-one", glued=True, fitted=True),
    ]
    built.rects = [
        Rect("front", "Back post", "0 in", "0 in", "leg", "H", "2", "W - leg"),
        Rect("front", "Crest rail", "leg", "H - crest", "W - 2 * leg", "crest"),
        Rect(
            "front", "Back panel", "leg", "seat + lower", "open", "tall", "panels", "open + muntin"
        ),
        Rect(
            "front",
            "Muntin",
            "leg + open",
            "seat + lower",
            "muntin",
            "tall",
            "panels - 1",
            "open + muntin",
        ),
        Rect("front", "Lower back rail", "leg", "seat", "W - 2 * leg", "lower"),
        Rect("front", "Seat", "leg", "seat - t", "W - 2 * leg", "t"),
        Rect("front", "Seat rail, long", "leg", "seat - t - rail", "W - 2 * leg", "rail"),
        Rect("side", "Back post", "0 in", "0 in", "thick", "H"),
        Rect("side", "Front leg", "D - thick", "0 in", "thick", "seat - t"),
        Rect("side", "Seat rail, short", "thick", "seat - t - rail", "D - 2 * thick", "rail"),
        Rect("side", "Seat", "thick", "seat - t", "D - thick", "t"),
        Rect("plan", "Seat", "leg", "0 in", "W - 2 * leg", "D"),
        Rect("plan", "Back post", "0 in", "D - thick", "leg", "thick", "2", "W - leg"),
        Rect("plan", "Front leg", "0 in", "0 in", "leg", "thick", "2", "W - leg"),
    ]
    built.dims = [
        Dim("front", "x", "0 in", "W", 1),
        Dim("front", "x", "leg", "leg + open"),
        Dim("front", "y", "0 in", "H", 1),
        Dim("front", "y", "0 in", "seat"),
        Dim("front", "y", "seat + lower", "H - crest"),
        Dim("side", "x", "0 in", "D"),
        Dim("plan", "x", "leg", "W - leg"),
        Dim("plan", "y", "0 in", "D"),
    ]
    return built


STANDING = (
    Pattern(
        "table",
        "Table or bench",
        "Four legs, rails between them, a top that may move.",
        (
            Choice("joint", "rails to legs", ("mortise and tenon", "dowel")),
            Choice("stretcher", "below", ("open below", "with a stretcher")),
        ),
        _table,
    ),
    Pattern(
        "mitred",
        "Mitred frame",
        "A frame round a given picture, its rebate and its play.",
        (Choice("joint", "corners", ("mitre", "half-lap")),),
        _mitred,
    ),
    Pattern(
        "settle",
        "Settle",
        "A bench with a high panelled back.",
        (Choice("joint", "rails to posts", ("mortise and tenon", "dowel")),),
        _settle,
    ),
)
