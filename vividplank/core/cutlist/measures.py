"""A project's named measures, and the parts whose sizes are formulas over them."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal, get_args

from vividplank.core.cutlist.formula import (
    RESERVED,
    FormulaError,
    Value,
    count_of,
    evaluate,
    length_of,
    names_in,
    with_units,
)
from vividplank.core.cutlist.part import FormulaField, Part
from vividplank.core.fields import FormulaText, Name, Note
from vividplank.core.measure import Unit

FORMULA_FIELDS: tuple[FormulaField, ...] = get_args(FormulaField)


@dataclass(frozen=True)
class Measure:
    """A named length or number, `text` its formula over the others."""

    name: Name
    text: FormulaText
    kind: Literal["length", "number"] = "length"
    note: Note = ""


class MeasureTrouble(ValueError):
    """A measure that has no value: which one, and why."""

    def __init__(self, name: str, why: str) -> None:
        super().__init__(f"{name}: {why}")
        self.name = name
        self.why = why


def values_of(measures: Sequence[Measure], unit: Unit) -> dict[str, Value]:
    """The value of each measure by its name in lower case. Raises MeasureTrouble for names twice or
    unfit, and for loops.
    """
    by_name: dict[str, Measure] = {}
    for m in measures:
        if not re.fullmatch(r"[A-Za-z_][A-Za-z_0-9]{0,39}", m.name):
            raise MeasureTrouble(
                m.name, "is no name for a measure; expected a letter, then letters, figures or _"
            )
        if m.name.lower() in RESERVED:
            raise MeasureTrouble(m.name, "is a unit or a function; expected another name")
        if m.name.lower() in by_name:
            raise MeasureTrouble(
                m.name, "stands there already; expected every name once, upper and lower case alike"
            )
        by_name[m.name.lower()] = m
    values: dict[str, Value] = {}

    def work_out(name: str, waiting: tuple[str, ...]) -> None:
        if name in values or name not in by_name:
            return
        m = by_name[name]
        if name in waiting:
            ring = [by_name[n].name for n in (*waiting[waiting.index(name) :], name)]
            raise MeasureTrouble(
                m.name,
                f"needs itself: {' needs '.join(ring)}; expected one of them to stand on its own",
            )
        try:
            for other in names_in(m.text):
                work_out(other.lower(), (*waiting, name))
            values[name] = evaluate(m.text, unit, values, length=m.kind == "length")
        except FormulaError as problem:
            raise MeasureTrouble(m.name, problem.why) from problem

    for name in by_name:
        work_out(name, ())
    return values


def worked_out(part: Part, unit: Unit, values: dict[str, Value]) -> Part:
    """The part with its formulas' values in place. Raises FormulaError."""
    found: dict[str, int] = {}
    for name, text in part.formulas:
        found[name] = (
            count_of(text, unit, values) if name == "quantity" else length_of(text, unit, values)
        )
    return replace(part, **found) if found else part  # type: ignore[arg-type]


def in_other_unit(
    measures: Sequence[Measure], parts: Sequence[Part], unit: Unit
) -> tuple[tuple[Measure, ...], tuple[Part, ...]]:
    """Measures and parts whose bare numbers carry `unit`, so that the project can be shown in
    another one.
    """
    values = values_of(measures, unit)
    told = tuple(
        replace(m, text=with_units(m.text, unit, values, length=m.kind == "length"))
        for m in measures
    )
    return told, tuple(
        replace(
            p,
            formulas=tuple(
                (name, with_units(text, unit, values, length=name != "quantity"))
                for name, text in p.formulas
            ),
        )
        for p in parts
    )
