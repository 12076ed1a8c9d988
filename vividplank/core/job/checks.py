"""What a good foreman would ask of a list before any wood is bought: what, why, and a fix where
there is one.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import combinations

from vividplank.core.board import same_species
from vividplank.core.cutlist.formula import FormulaError, Value, evaluate, names_in
from vividplank.core.cutlist.measures import values_of
from vividplank.core.cutlist.part import FormulaField, Part
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH, System, about, show
from vividplank.core.timber import QUARTERS, quarter_for
from vividplank.core.timber.moisture import equilibrium_moisture
from vividplank.core.timber.woods import wood_named

#: Rough hardwood is rarely sold longer (NHLA grades measure lengths of 4 to 16 ft).
LONGEST_SOLD = 16 * 12 * TICKS_PER_INCH
#: Usual limits of a thickness planer and a jointer; the machine's manual decides.
PLANER_THINNEST = TICKS_PER_INCH // 4
#: Sizes nearer than this to each other were meant to be one.
HAIR = TICKS_PER_INCH // 16
#: A panel is held by at least this much in its two grooves together.
_HELD = TICKS_PER_INCH // 4
_SHEET = (97 * TICKS_PER_INCH, 49 * TICKS_PER_INCH)
_TENONED = ("mortise and tenon", "stub tenon", "housing", "half-lap")


@dataclass(frozen=True)
class Check:
    """`fixed` holds the parts as they would be after the fix, under their own ids; empty where
    there is none to offer.
    """

    parts: tuple[str, ...]
    what: str
    why: str
    fix: str = ""
    fixed: tuple[Part, ...] = ()


def checks(job: Job, system: System) -> tuple[Check, ...]:
    """Everything doubtful on the list, in the order of the list."""
    values = values_of(job.measures, job.unit)
    found: list[Check] = []
    for part in job.parts:
        found.extend(_one(part, job, system, values))
    found.extend(_hairs(job, system))
    return tuple(found)


def _one(p: Part, job: Job, system: System, values: dict[str, Value]) -> Iterator[Check]:
    def say(ticks: int) -> str:
        return show(ticks, system, unit=True)

    if p.stock == "sheet":
        if max(p.cut_size()) > _SHEET[0] or min(p.cut_size()) > _SHEET[1]:
            yield Check(
                (p.id,),
                f"{p.name} is larger than a sheet",
                f"{say(p.length)} by {say(p.width)}; common sheets measure 97 by 49 in",
            )
        return
    if p.stock == "bought":
        return
    boards = [b for b in job.boards if b.comes_from(p.from_board)]
    if p.from_board and not any(same_species(b.species, p.species) for b in boards):
        yield Check(
            (p.id,),
            f"{p.name} cannot come out of {p.from_board}",
            f"{p.from_board} is of {boards[0].species}; {p.id} is wanted in {p.species}"
            if boards
            else f"no board here has the mark {p.from_board}, or was cut out of it",
            "Take it from any board",
            (replace(p, from_board=""),),
        )
    if p.width > p.length and not p.panel:  # a glued panel may well stand on its grain
        yield Check(
            (p.id,),
            f"{p.name} has its grain across",
            f"it is {say(p.length)} along the grain and {say(p.width)} across: it would break "
            f"along its short grain",
            "Turn the grain",
            (_turned(p),),
        )
    if p.length + job.shop.allowance.length > LONGEST_SOLD:
        yield Check(
            (p.id,),
            f"{p.name} is longer than boards are sold",
            f"it needs {say(p.length + job.shop.allowance.length)} rough; "
            f"boards go to {say(LONGEST_SOLD)}. Scarf it, or divide the piece",
        )
    each = -(-p.thickness // p.layers)
    if quarter_for(each) is None:
        layers = next(n for n in range(2, 21) if quarter_for(-(-p.thickness // n)) or n == 20)
        yield Check(
            (p.id,),
            f"no quarter gives {p.name} its thickness",
            f"{say(each)} finished; the thickest quarter, {QUARTERS[-1].name}, surfaces to "
            f"{say(QUARTERS[-1].surfaced)}",
            "" if p.run else f"Glue it up from {layers} layers",
            () if p.run else (replace(p, layers=layers),),
        )
    if p.thickness < PLANER_THINNEST:
        yield Check(
            (p.id,),
            f"{p.name} is thinner than the planer takes",
            f"{say(p.thickness)}; most planers stop at {say(PLANER_THINNEST)}: "
            "resaw it from thicker stock and plane it on a carrier board, or finish it by hand",
            "" if p.resawn else "Mark it resawn",
            () if p.resawn else (replace(p, resawn=True),),
        )
    yield from _short(p, job, system)
    yield from _panel(p, job, system)
    if p.joint in _TENONED and not p.joint_length:
        yield Check(
            (p.id,),
            f"{p.name} has no length for its joint",
            f"it is to have a {p.joint} at its ends, and nothing was added to its "
            "length for it. Measure between the shoulders, then add both tenons",
        )
    yield from _movement(p, job, system, values)


def _short(p: Part, job: Job, system: System) -> Iterator[Check]:
    shop = job.shop
    blank = p.length + shop.allowance.length
    if p.run or p.panel or blank >= shop.min_blank_length:
        return
    n = -(-(shop.min_blank_length - shop.allowance.length + shop.apart) // (p.length + shop.apart))
    together = n * p.length + (n - 1) * shop.apart + shop.allowance.length
    why = (
        f"{show(blank, system, unit=True)} rough; nothing under "
        f"{show(shop.min_blank_length, system, unit=True)} goes through the "
        f"machines. {n} in one blank make {show(together, system, unit=True)}: mill them "
        f"together, then cut apart"
    )
    if p.quantity < n:
        why += (
            f". There are {p.quantity}: the layout puts other short parts beside, or leaves "
            f"the blank long"
        )
    yield Check((p.id,), f"{p.name} is too short to mill alone", why)


def _panel(p: Part, job: Job, system: System) -> Iterator[Check]:
    if not p.panel:
        return
    need = p.width + job.shop.allowance.panel_width
    fewest = -(-need // p.panel.stave_max)
    if fewest == 1 or fewest * p.panel.stave_min <= p.width:
        return
    fix = replace(p, panel=replace(p.panel, stave_min=p.width // fewest))
    yield Check(
        (p.id,),
        f"{p.name} cannot be made of its staves",
        f"glued up it must be {show(need, system, unit=True)} wide; {fewest - 1} staves "
        f"of {show(p.panel.stave_max, system, unit=True)} are too little, "
        f"{fewest} of {show(p.panel.stave_min, system, unit=True)} too "
        "much",
        f"Allow staves from {show(p.width // fewest, system, unit=True)}",
        (fix,),
    )


def _movement(p: Part, job: Job, system: System, values: dict[str, Value]) -> Iterator[Check]:
    """A panel in a groove: the room its formula leaves against what its own wood will want."""
    width = dict(p.formulas).get("width", "")
    try:
        room_name = next(
            (n for n in names_in(width) if n.lower().startswith("gap") and n.lower() in values),
            None,
        )
        wood = wood_named(p.species)
        if room_name is None or wood is None:
            return
        number = room_name[3:]
        dry, damp = (float(values[f"{n}{number}".lower()].amount) / 100 for n in ("dry", "damp"))
        room = round(evaluate(room_name, job.unit, values, length=True).amount)
        wants = (
            p.width
            * wood.coef_tangential
            * (equilibrium_moisture(21.1, damp) - equilibrium_moisture(21.1, dry))
        )
    except (FormulaError, KeyError, ValueError):
        return  # the measures it was written with are gone: there is nothing to compare
    if wants > room + HAIR / 2:
        yield Check(
            (p.id,),
            f"{p.name} has too little room to move",
            f"{p.species} of {show(p.width, system, unit=True)} moves by "
            f"{about(float(wants), system, unit=True)} between {dry:.0%} and "
            f"{damp:.0%} humidity; its groove leaves "
            f"{show(room, system, unit=True)}: it would force the frame apart. Raise {room_name}",
        )
    groove = values.get(f"groove{number}".lower())
    if groove is not None and 2 * groove.amount - room < _HELD:
        yield Check(
            (p.id,),
            f"{p.name} may fall out of its frame",
            f"both its grooves together are {show(round(2 * groove.amount), system, unit=True)} "
            f"deep, and when it is driest it "
            f"is {show(room, system, unit=True)} narrower than they reach. Raise groove{number}, "
            f"divide the panel, or take a "
            "wood that moves less",
        )


def _hairs(job: Job, system: System) -> Iterator[Check]:
    boards = [p for p in job.parts if p.stock == "board"]
    for a, b in combinations(boards, 2):
        if not same_species(a.species, b.species):
            continue
        off = [n for n in ("length", "width", "thickness") if getattr(a, n) != getattr(b, n)]
        if len(off) != 1 or abs(getattr(a, off[0]) - getattr(b, off[0])) >= HAIR:
            continue
        name = off[0]
        formulas = tuple(f for f in b.formulas if f[0] != name)
        fix = replace(b, formulas=formulas, **{name: getattr(a, name)})
        yield Check(
            (a.id, b.id),
            f"{a.name} and {b.name} differ by a hair",
            f"{name} {show(getattr(a, name), system, unit=True)} against "
            f"{show(getattr(b, name), system, unit=True)}, all else alike: one setting would do "
            f"for both",
            f"Make {b.id} as {a.id}",
            (fix,),
        )


def _turned(p: Part) -> Part:
    """Its grain the other way, formulas and outline with it."""
    other: dict[FormulaField, FormulaField] = {"length": "width", "width": "length"}
    formulas = tuple((other.get(name, name), text) for name, text in p.formulas)
    return replace(
        p,
        length=p.width,
        width=p.length,
        formulas=formulas,
        outline=tuple((y, x) for x, y in p.outline),
    )
