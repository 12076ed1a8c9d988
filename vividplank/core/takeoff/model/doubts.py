"""What is doubtful about parts that were read, each as a decision that can be turned round: sizes
no board has, one name for different things.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, System, about
from vividplank.core.takeoff.model.found import Decision, Found, Settings

#: Rough hardwood is sold up to 16 ft long and 4 in thick (16/4), and no part of furniture is
#: planed thinner than veneer.
_LONGEST, _THICKEST, _THINNEST = 16 * 12 * TICKS_PER_INCH, 4 * TICKS_PER_INCH, TICKS_PER_MM
#: An outline narrower than this (ticks) is a line that was drawn with a width.
_NARROWEST = 4 * TICKS_PER_MM


def doubted(
    parts: Sequence[Found], settings: Settings, system: System, asked: Sequence[Decision] = ()
) -> tuple[tuple[Found, ...], tuple[Decision, ...]]:
    """The parts without those that were said to be none, and what is doubtful, part by part, beside
    what is `asked` of it.
    """
    about_them = {ref for decision in asked for ref in decision.refs}
    kept: list[Found] = []
    decisions: list[Decision] = []
    called = Counter(p.name.casefold() for p in parts if p.name)
    seen: Counter[str] = Counter()
    for part in parts:
        size = _size(part, system)
        name = part.name or "A part"
        wrong = _sizes(part)
        if wrong and not about_them & set(part.refs):
            key = f"doubt:{part.layer}:{part.name}:{size}"
            turned = key in settings.turned
            what = f"{name}, {size}, {' and '.join(wrong)}"
            decisions.append(Decision(key, "doubt", part.refs, what, "It is no part", turned))
            if turned:
                continue
        if part.name and called[part.name.casefold()] > 1:
            seen[part.name.casefold()] += 1
            if seen[part.name.casefold()] > 1:
                again = f"{name} {seen[part.name.casefold()]}"
                what = (
                    f"{called[part.name.casefold()]} things that differ are called {name}; "
                    f"the one of {size} is {again} here"
                )
                decisions.append(
                    Decision(f"name:{part.layer}:{part.name}:{size}", "name", part.refs, what)
                )
        kept.append(part)
    return tuple(kept), tuple(decisions)


def _sizes(part: Found) -> list[str]:
    found = []
    if part.length > _LONGEST:
        found.append("is longer than boards come (16 ft, 4.9 m)")
    if part.thickness > _THICKEST:
        found.append("is thicker than boards come (4 in, 102 mm)")
    if 0 < part.thickness < _THINNEST:
        found.append("is thinner than any board")
    if part.width < _NARROWEST and not part.thickness:
        found.append("is hardly wider than a line")
    return found


def _size(part: Found, system: System) -> str:
    sizes = [s for s in (part.length, part.width, part.thickness) if s]
    return (
        " × ".join(about(s, system) for s in sizes[:-1])
        + f" × {about(sizes[-1], system, unit=True)}"
    )


def renamed(parts: Sequence[Found]) -> tuple[Found, ...]:
    """Every part with a key and a name of its own: a second Rail is Rail 2."""
    counts: Counter[str] = Counter()
    named = []
    for i, part in enumerate(parts, 1):
        name = part.name or f"Part {i}"
        counts[name.casefold()] += 1
        n = counts[name.casefold()]
        called = name if n == 1 else f"{name} {n}"
        named.append(replace(part, name=called, key=called))
    return tuple(named)
