"""A workshop: what is the same for all projects that are made in it."""

from dataclasses import dataclass, field, fields, replace
from typing import Annotated, Any

from pydantic import Field, TypeAdapter, ValidationError

from vividplank.core.fields import Name
from vividplank.core.measure import TICKS_PER_INCH, Unit
from vividplank.core.milling.shop.document import check_figures
from vividplank.core.milling.shop.machines import Machines, usual_machines
from vividplank.core.milling.shop.school import Hours, Milling, Waits
from vividplank.core.refusal import Refusal, json_path
from vividplank.core.timber.rest import Climate


@dataclass(frozen=True)
class Instruments:
    """The instrument of each kind that is connected, by its name; empty where figures are typed."""

    caliper: Name = ""
    moisture: Name = ""
    metal: Name = ""
    scanner: Name = ""
    readout: Name = ""


@dataclass(frozen=True)
class Workshop:
    """Its machines, waits and hours; `over` is what the first of two visits leaves, `enough` the
    share of a face that must be clean to go to the planer. `people` are those who work there,
    `unused` the keys of learned figures that are switched off, `currency` its money by ISO 4217
    (empty: figures alone), `climate` its air.
    """

    machines: Machines = field(default_factory=Machines)
    waits: Waits = field(default_factory=Waits)
    hours: Hours = field(default_factory=Hours)
    over: int = TICKS_PER_INCH // 8
    enough: Annotated[float, Field(gt=0, le=1)] = 0.8
    people: Annotated[tuple[Name, ...], Field(max_length=30)] = ()
    unused: Annotated[tuple[Name, ...], Field(max_length=200)] = ()
    currency: Annotated[str, Field(pattern=r"^([A-Z]{3})?$")] = ""
    climate: Climate = Climate()
    instruments: Instruments = Instruments()

    def milling(self, own: Milling) -> Milling:
        """How a project is milled here: what is its own, on these machines."""
        return replace(own, **{name: getattr(self, name) for name in _SHARED})

    def changed_by(self, milling: Milling) -> "Workshop":
        """The workshop with the machines, waits and hours of these settings."""
        return replace(self, **{name: getattr(milling, name) for name in _SHARED})


#: What settings of milling have of the workshop.
_SHARED = tuple({f.name for f in fields(Workshop)} & {f.name for f in fields(Milling)})
_ADAPTER = TypeAdapter(Workshop)


def usual_workshop(unit: Unit) -> Workshop:
    """Starting values in the steps of the shop's own rule."""
    return Workshop(usual_machines(unit))


def workshop_to_document(workshop: Workshop) -> dict[str, Any]:
    found: dict[str, Any] = _ADAPTER.dump_python(workshop, mode="json")
    return found


def workshop_from_document(document: dict[str, Any]) -> Workshop:
    """What is left out has its usual value; a Refusal names what is no such setting."""
    try:
        workshop = _ADAPTER.validate_python(document)
    except ValidationError as trouble:
        first = trouble.errors()[0]
        said = f"expected {first['msg'][0].lower()}{first['msg'][1:]}"
        raise Refusal(json_path(first["loc"]), said) from None
    check_figures(workshop)
    return workshop


def own_document(document: dict[str, Any]) -> dict[str, Any]:
    """What of a document of milling settings is the project's own."""
    return {name: value for name, value in document.items() if name not in _SHARED}
