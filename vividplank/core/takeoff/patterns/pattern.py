"""What a pattern is: measures, parts as formulas over them with their joinery, and views drawn from
the same formulas.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from vividplank.core.cutlist import Faces, Grain, Stock


@dataclass(frozen=True)
class Given:
    """A measure of the pattern: its formula in an inch and in a metric shop. `own` ones are the
    maker's to set.
    """

    name: str
    says: str
    inch: str
    mm: str = ""
    kind: Literal["length", "number"] = "length"
    own: bool = True

    def text(self, metric: bool) -> str:
        return self.mm if metric and self.mm else self.inch


@dataclass(frozen=True)
class Choice:
    name: str
    says: str
    options: tuple[str, ...]


@dataclass(frozen=True)
class Line:
    """A part of the pattern; sizes and count are formulas. `joint_length` is what `joint` adds to
    `shoulder`.
    """

    name: str
    quantity: str
    length: str
    width: str
    thickness: str
    faces: Faces = "clear-one"
    joint: str = ""
    joint_length: str = ""
    stock: Stock = "board"
    grain: Grain = "length"
    glued: bool = False
    fitted: bool = False
    run: str = ""
    match: str = ""
    edging: tuple[str, int, int] | None = None
    species: str = ""
    note: str = ""


@dataclass(frozen=True)
class Rect:
    """A part seen in a view: corner (from the left and the floor) and size as formulas, drawn
    `times` at a pitch.
    """

    view: str
    part: str
    x: str
    y: str
    w: str
    h: str
    times: str = "1"
    dx: str = "0 in"
    dy: str = "0 in"


@dataclass(frozen=True)
class Dim:
    """A dimension line: below (`"x"`) or left (`"y"`) of the view, from and to as formulas, in
    tiers outward.
    """

    view: str
    along: Literal["x", "y"]
    start: str
    end: str
    tier: int = 0


@dataclass(frozen=True)
class Warn:
    """What goes wrong where the formula `excess` comes to more than nothing."""

    excess: str
    what: str
    why: str


@dataclass
class Built:
    """A pattern with its choices made."""

    measures: list[Given] = field(default_factory=list)
    lines: list[Line] = field(default_factory=list)
    rects: list[Rect] = field(default_factory=list)
    dims: list[Dim] = field(default_factory=list)
    warns: list[Warn] = field(default_factory=list)


@dataclass(frozen=True)
class Pattern:
    key: str
    title: str
    says: str
    choices: tuple[Choice, ...]
    build: Callable[[Mapping[str, str]], Built]


#: What a corner joint adds to each end of the piece between two others, as a formula over the
#: pattern's measures.
TENONS = {
    "mortise and tenon": "tenon",
    "stub tenon": "groove",
    "dowel": "",
    "half-lap": "stile",
    "mitre": "stile",
    "housing": "housing",
    "tongue and groove": "groove",
    "dovetail": "stock",
}


def between(span: str, joint: str) -> tuple[str, str]:
    """The length of a piece between two others with this joint at both ends, and what the joint
    adds.

    >>> between("W - 2 * stock", "housing")
    ('W - 2 * stock + 2 * housing', '2 * housing')
    """
    adds = TENONS[joint]
    return (f"{span} + 2 * {adds}", f"2 * {adds}") if adds else (span, "")


#: Deep enough that a panel, narrowest when driest, is still held by 3/16 in at each side.
PANEL_GROOVE = Given(
    "groove",
    "depth of the groove",
    "up(max(3/8 in, gap / 2 + 3/16 in), 1/16 in)",
    "up(max(10 mm, gap / 2 + 5 mm), 1 mm)",
)


def panel_warns(framing: str) -> list[Warn]:
    """A panel that falls out of its frame, or whose grooves leave too little of the pieces around
    it.
    """
    return [
        Warn(
            "gap / 2 + 1/8 in - groove",
            "The groove is too shallow",
            "when it is driest the panel falls out of its frame. Deepen the groove, divide the "
            "panel, or take a wood that "
            "moves less",
        ),
        Warn(
            f"groove - {framing} / 2",
            "The groove is too deep",
            "it takes more than half of the piece it is cut in. Divide the panel, make that "
            "piece wider, or take a wood that "
            "moves less",
        ),
    ]


def movement_measures() -> list[Given]:
    """The humidity the piece will live in, and the share of its width by which the wood follows
    it.
    """
    return [
        Given("dry", "driest air, % humidity", "30", kind="number"),
        Given("damp", "dampest air, % humidity", "70", kind="number"),
        Given(
            "move", "movement across the grain, share of width", "MOVE", kind="number", own=False
        ),
    ]
