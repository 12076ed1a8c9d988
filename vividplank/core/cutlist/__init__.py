"""The cut list: parts as they are wanted, finished."""

from vividplank.core.cutlist.formula import FormulaError
from vividplank.core.cutlist.measures import (
    FORMULA_FIELDS,
    Measure,
    MeasureTrouble,
    in_other_unit,
    values_of,
    worked_out,
)
from vividplank.core.cutlist.part import (
    Edging,
    Faces,
    GluedUp,
    Grain,
    Panel,
    Part,
    Source,
    Stock,
    blank_need,
)

__all__ = [
    "FORMULA_FIELDS",
    "Edging",
    "Faces",
    "FormulaError",
    "GluedUp",
    "Grain",
    "Measure",
    "MeasureTrouble",
    "Panel",
    "Part",
    "Source",
    "Stock",
    "blank_need",
    "in_other_unit",
    "values_of",
    "worked_out",
]
