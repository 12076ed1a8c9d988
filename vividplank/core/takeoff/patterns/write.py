"""A pattern written out: measures and formula parts for a project, and its views with figures."""

import re
from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, replace

from vividplank.core.cutlist import (
    Edging,
    FormulaError,
    Measure,
    MeasureTrouble,
    Panel,
    Part,
    values_of,
)
from vividplank.core.cutlist.formula import Value, count_of, evaluate, length_of, renamed
from vividplank.core.cutlist.marks import mark_for
from vividplank.core.cutlist.part import FormulaField
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_INCH, TICKS_PER_MM, Unit, show
from vividplank.core.takeoff.patterns.cases import CASES
from vividplank.core.takeoff.patterns.pattern import Built, Given, Line, Pattern
from vividplank.core.takeoff.patterns.standing import STANDING
from vividplank.core.timber.moisture import equilibrium_moisture
from vividplank.core.timber.woods import wood_named

PATTERNS: tuple[Pattern, ...] = (*CASES, *STANDING)

#: A glued part narrower than this comes out of one board.
_ONE_BOARD = 7 * TICKS_PER_INCH
_ROOM_CELSIUS = 21.1


class PatternTrouble(ValueError):
    """A pattern that cannot be written with these measures; says which and why."""


@dataclass(frozen=True)
class SketchRect:
    part: str
    x: float
    y: float
    w: float
    h: float


@dataclass(frozen=True)
class SketchDim:
    """In mm along the view's axes, y down; `figure` in ticks."""

    along: str
    start: float
    end: float
    tier: int
    figure: int


@dataclass(frozen=True)
class Sketch:
    name: str
    width: float
    height: float
    rects: tuple[SketchRect, ...]
    dims: tuple[SketchDim, ...]


@dataclass(frozen=True)
class Written:
    """`measures` are those of the pattern under the names they get in the project, in the order of
    `givens`.

    `warnings` say what these measures make go wrong, though the parts can be cut.
    """

    givens: tuple[Given, ...]
    measures: tuple[Measure, ...]
    parts: tuple[Part, ...]
    sketches: tuple[Sketch, ...]
    arithmetic: tuple[str, ...]
    warnings: tuple[str, ...] = ()


def pattern_named(key: str) -> Pattern:
    found = next((p for p in PATTERNS if p.key == key), None)
    if found is None:
        raise PatternTrouble(
            f"there is no pattern '{key}'; expected one of {', '.join(p.key for p in PATTERNS)}"
        )
    return found


def write(
    pattern: Pattern,
    unit: Unit,
    species: str,
    texts: Mapping[str, str] | None = None,
    choices: Mapping[str, str] | None = None,
    taken_measures: Collection[str] = (),
    taken_marks: Collection[str] = (),
) -> Written:
    """The pattern with the maker's measures (`texts` by the pattern's own names) and choices.

    Names that the project has already get a number; so do marks. Raises PatternTrouble where it
    comes to nothing.
    """
    chosen = {c.name: (choices or {}).get(c.name, c.options[0]) for c in pattern.choices}
    for choice in pattern.choices:
        if chosen[choice.name] not in choice.options:
            raise PatternTrouble(
                f"'{chosen[choice.name]}' is no way to make {choice.says}; expected "
                f"{', '.join(choice.options)}"
            )
    built = pattern.build(chosen)
    names = _names(built, taken_measures)
    metric = unit == "mm"
    arithmetic: list[str] = []
    measures: list[Measure] = []
    for given in built.measures:
        text = (texts or {}).get(given.name, "").strip() if given.own else ""
        text = text or given.text(metric)
        if text == "MOVE":
            text, said = _movement(species, measures)
            arithmetic.append(said)
        measures.append(Measure(given.name, text, given.kind, given.says))
    try:
        values = values_of(measures, unit)
        parts = _parts(built, unit, values, species, names, taken_marks)
        sketches = _sketches(built, unit, values)
        warnings = tuple(_warnings(built, unit, values))
    except (FormulaError, MeasureTrouble) as problem:
        raise PatternTrouble(str(problem)) from None
    arithmetic.extend(
        _worked(g, values, unit) for g in built.measures if g.name in ("gap", "rise", "slot")
    )
    told = tuple(
        replace(m, name=names[m.name.lower()], text=renamed(m.text, names)) for m in measures
    )
    return Written(tuple(built.measures), told, parts, sketches, tuple(arithmetic), warnings)


def _names(built: Built, taken: Collection[str]) -> dict[str, str]:
    """Each measure's name in the project; all of a pattern get one number where any is taken."""
    used = {n.lower() for n in taken}
    own = [g.name for g in built.measures]
    number = next(
        n
        for n in range(1, 1000)
        if not any((f"{g}{n}" if n > 1 else g).lower() in used for g in own)
    )
    return {g.lower(): f"{g}{number}" if number > 1 else g for g in own}


def _movement(species: str, measures: list[Measure]) -> tuple[str, str]:
    """The share of its width by which flat-sawn wood moves between the driest and the dampest air,
    and how it was found.
    """
    wood = wood_named(species)
    if wood is None:
        raise PatternTrouble(
            f"how '{species}' moves is not in the table of woods; choose one that is, such as "
            f"white oak"
        )
    given = {m.name: m.text for m in measures}
    try:
        dry, damp = float(given["dry"]), float(given["damp"])
    except ValueError:
        raise PatternTrouble(
            f"'{given['dry']}' and '{given['damp']}' are no humidities; expected % such as 30 "
            f"and 70"
        ) from None
    if not 0 <= dry < damp < 100:
        raise PatternTrouble(
            f"{dry:g} to {damp:g} % is no range of humidity; expected the driest first, both "
            f"from 0 to below 100"
        )
    low, high = (
        equilibrium_moisture(_ROOM_CELSIUS, dry / 100),
        equilibrium_moisture(_ROOM_CELSIUS, damp / 100),
    )
    share = wood.coef_tangential * (high - low)
    return f"{share:.5f}", (
        f"{wood.name} flat-sawn follows the air by {wood.coef_tangential:.5f} of its width for "
        f"each 1 % of moisture; "
        f"from {dry:g} to {damp:g} % "
        f"humidity its moisture goes from {low:.1f} to {high:.1f} %: "
        f"{wood.coef_tangential:.5f} × {high - low:.1f} = {share:.4f} of its width"
    )


def _worked(given: Given, values: Mapping[str, Value], unit: Unit) -> str:
    text = given.text(unit == "mm")
    width = re.search(r"up\(\(?(.+?)\)? \* move", text)
    assert width is not None  # every allowance for movement is written so
    across = width[1] if width[1].count("(") == width[1].count(")") else width[1] + ")"
    wide = evaluate(across, unit, values, length=True).amount
    return (
        f"{given.says}: {show(round(wide), unit)} × {float(values['move'].amount):.4f} = "
        f"{show(round(wide * values['move'].amount / 32) * 32, 'mm', unit=True)}, "
        f"taken as {show(round(values[given.name].amount), unit, unit=True)}"
    )


def _warnings(built: Built, unit: Unit, values: Mapping[str, Value]) -> Iterator[str]:
    for warn in built.warns:
        excess = evaluate(warn.excess, unit, values, length=True).amount
        if excess > 0:
            step = TICKS_PER_64TH if unit == "in" else TICKS_PER_MM // 10
            yield f"{warn.what} by {show(-(-excess // step) * step, unit, unit=True)}: {warn.why}."


def _parts(
    built: Built,
    unit: Unit,
    values: Mapping[str, Value],
    species: str,
    names: Mapping[str, str],
    taken: Collection[str],
) -> tuple[Part, ...]:
    used = set(taken)
    parts = []
    for line in built.lines:
        count = evaluate(line.quantity, unit, values, length=False).amount
        if count == 0:
            continue
        part = _part(line, unit, values, species, names, mark_for(line.name, used))
        used.add(part.id)
        parts.append(part)
    return tuple(parts)


def _part(
    line: Line,
    unit: Unit,
    values: Mapping[str, Value],
    species: str,
    names: Mapping[str, str],
    mark: str,
) -> Part:
    sizes = {f: length_of(getattr(line, f), unit, values) for f in ("length", "width", "thickness")}
    formulas: list[tuple[FormulaField, str]] = [
        ("length", renamed(line.length, names)),
        ("width", renamed(line.width, names)),
        ("thickness", renamed(line.thickness, names)),
    ]
    if line.joint_length:
        formulas.append(("joint_length", renamed(line.joint_length, names)))
    if not line.quantity.isdigit():
        formulas.append(("quantity", renamed(line.quantity, names)))
    panel = None
    if line.glued and sizes["width"] > _ONE_BOARD:
        panel = (
            Panel(60 * TICKS_PER_MM, 150 * TICKS_PER_MM)
            if unit == "mm"
            else Panel(5 * TICKS_PER_INCH // 2, 6 * TICKS_PER_INCH)
        )
    edging = None
    if line.edging:
        edging = Edging(length_of(line.edging[0], unit, values), line.edging[1], line.edging[2])
    return Part(
        mark,
        line.name,
        count_of(line.quantity, unit, values),
        line.species or species,
        sizes["length"],
        sizes["width"],
        sizes["thickness"],
        line.faces,
        panel,
        line.run,
        line.note,
        line.stock,
        line.grain,
        line.fitted,
        match=line.match,
        edging=edging,
        joint=line.joint,
        joint_length=length_of(line.joint_length, unit, values) if line.joint_length else 0,
        formulas=tuple(formulas),
    )


def _sketches(built: Built, unit: Unit, values: Mapping[str, Value]) -> tuple[Sketch, ...]:
    def mm(text: str) -> float:
        return float(evaluate(text, unit, values, length=True).amount) / TICKS_PER_MM

    found = []
    for name in ("front", "side", "plan"):
        rects: list[SketchRect] = []
        for r in (r for r in built.rects if r.view == name):
            many = evaluate(r.times, unit, values, length=False).amount
            if many.denominator != 1:
                raise PatternTrouble(
                    f"{float(many):g} of '{r.part}' cannot be made; expected a whole number"
                )
            times = max(0, int(many))
            x, y, w, h, dx, dy = (mm(t) for t in (r.x, r.y, r.w, r.h, r.dx, r.dy))
            rects.extend(SketchRect(r.part, x + k * dx, y + k * dy, w, h) for k in range(times))
        if any(r.w <= 0 or r.h <= 0 for r in rects) or not rects:
            raise PatternTrouble(
                "with these measures a part comes to nothing or less; make the whole larger or "
                "the stock thinner"
            )
        width = max(r.x + r.w for r in rects)
        height = max(r.y + r.h for r in rects)
        dims = []
        for d in (d for d in built.dims if d.view == name):
            start, end = mm(d.start), mm(d.end)
            figure = round((end - start) * TICKS_PER_MM)
            if d.along == "y":
                start, end = height - end, height - start
            dims.append(SketchDim(d.along, round(start, 3), round(end, 3), d.tier, figure))
        found.append(
            Sketch(
                name,
                width,
                height,
                tuple(replace(r, y=height - r.y - r.h) for r in rects),
                tuple(dims),
            )
        )
    return tuple(found)
