"""Whether a part's figures can be those of a part; each refusal is a sentence with its place."""

from typing import get_type_hints

from vividplank.core.board.species import same_species
from vividplank.core.cutlist.formula import FormulaError, Value
from vividplank.core.cutlist.measures import FORMULA_FIELDS, worked_out
from vividplank.core.cutlist.part import Part
from vividplank.core.fields import Name
from vividplank.core.measure import Unit
from vividplank.core.refusal import Refusal, one_line, prose

#: Fields that are one line of text.
_LINES = [name for name, hint in get_type_hints(Part, include_extras=True).items() if hint == Name]


def check_part(part: Part, path: str) -> Part:
    """The part if its figures can be those of a part, or a Refusal."""
    for name in _LINES:
        one_line(getattr(part, name), f"{path}.{name}")
    prose(part.note, f"{path}.note")
    for name in ("length", "width", "thickness"):
        if getattr(part, name) <= 0:
            raise Refusal(f"{path}.{name}", "expected more than nothing")
    if part.quantity < 1:
        raise Refusal(f"{path}.quantity", "expected a count of 1 or more")
    if part.panel and not 0 < part.panel.stave_min <= part.panel.stave_max:
        raise Refusal(
            f"{path}.panel.stave_max", "expected at least stave_min, and both above nothing"
        )
    if part.panel and part.run:
        raise Refusal(
            f"{path}.run", "a panel is glued from several blanks; expected no run beside a panel"
        )
    if part.glued_up:
        raise Refusal(f"{path}.glued_up", "is said of layers in a plan; expected layers instead")
    if not 1 <= part.layers <= 20:
        raise Refusal(f"{path}.layers", "expected 1 to 20 layers")
    if part.layers > 1 and part.run:
        raise Refusal(f"{path}.layers", "a run is one blank; expected no layers beside a run")
    if part.edging:
        if part.stock != "sheet":
            raise Refusal(f"{path}.edging", "edging goes on sheet parts; expected stock 'sheet'")
        if (
            part.edging.thickness <= 0
            or not 0 <= part.edging.long_edges <= 2
            or not 0 <= part.edging.ends <= 2
        ):
            raise Refusal(
                f"{path}.edging",
                "expected strips of some thickness on none, one or two edges each way",
            )
        if min(part.cut_size()) <= 0:
            raise Refusal(
                f"{path}.edging", "is thicker than the part; expected some sheet between the strips"
            )
    if any(name not in FORMULA_FIELDS for name, _ in part.formulas):
        raise Refusal(f"{path}.formulas", f"expected formulas for {', '.join(FORMULA_FIELDS)}")
    if not 0 <= part.joint_length < part.length:
        raise Refusal(f"{path}.joint_length", "expected less than the part's length")
    return part


def worked_out_anew(part: Part, unit: Unit, values: dict[str, Value], path: str) -> Part:
    """The part with its formulas worked out, checked; a Refusal where one has no value."""
    if not part.formulas:
        return part
    try:
        return check_part(worked_out(part, unit, values), path)
    except FormulaError as problem:
        raise Refusal(path, str(problem)) from None


def check_runs(parts: tuple[Part, ...]) -> None:
    """Parts of one run must share wood, width and thickness, and name one board at most; a Refusal
    names the one that does not.
    """
    first: dict[str, Part] = {}
    boards: dict[str, Part] = {}
    for i, part in enumerate(parts):
        if not part.run:
            continue
        other = first.setdefault(part.run, part)
        if not same_species(part.species, other.species):
            raise Refusal(
                f"$.parts[{i}].species",
                f"run '{part.run}' is of {other.species}; expected the same wood",
            )
        named = boards.setdefault(part.run, part) if part.from_board else part
        if named.from_board != part.from_board:
            raise Refusal(
                f"$.parts[{i}].from_board",
                f"expected {named.from_board} as for {named.id}, with which it shares the run "
                f"'{part.run}': it is cut in one piece",
            )
        for name in ("width", "thickness"):
            if getattr(part, name) != getattr(other, name):
                raise Refusal(
                    f"$.parts[{i}].{name}",
                    f"expected the {name} of {other.id}, with which it shares the run '{part.run}'",
                )
