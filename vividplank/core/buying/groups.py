"""The list in groups that are bought together: parts of one wood and one quarter."""

from dataclasses import dataclass, replace

from vividplank.core.board import same_species
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.timber import QUARTERS, Quarter, quarter_for


@dataclass(frozen=True)
class Group:
    """`job` has the parts of this wood and quarter alone, and no boards. `quarter` is None where no
    quarter gives the thickness: such parts are built up.
    """

    species: str
    quarter: Quarter | None
    job: Job

    @property
    def key(self) -> str:
        return f"{' '.join(self.species.casefold().split())} {self.quarter_name}".strip()

    @property
    def quarter_name(self) -> str:
        return self.quarter.name if self.quarter else ""

    @property
    def pieces(self) -> int:
        return sum(p.quantity for p in self.job.parts)


def groups(job: Job, surfaced: dict[str, int] | None = None) -> tuple[Group, ...]:
    """The groups of a list, by wood and from the thinnest quarter up.

    `surfaced` says how thick a supplier leaves its boards by quarter, where that is not the usual:
    the thinnest quarter that gives a part is bought for it. For parts that are to come out of a
    board which is here nothing is bought.
    """
    job = job.on_boards()
    here = {mark for b in job.boards for mark in (b.id, b.came_from)} - {""}
    quarters = tuple(
        replace(q, surfaced=(surfaced or {}).get(q.name, q.surfaced)) for q in QUARTERS
    )
    found: list[tuple[str, Quarter | None, list[Part]]] = []
    for part in job.parts:
        if part.from_board in here:
            continue
        part = replace(part, from_board="")
        quarter = quarter_for(part.thickness, quarters)
        for species, theirs, parts in found:
            if same_species(species, part.species) and theirs == quarter:
                parts.append(part)
                break
        else:
            found.append((part.species, quarter, [part]))
    found.sort(key=lambda g: (g[0].casefold(), g[1].rough if g[1] else 10**9))
    return tuple(
        Group(species, quarter, replace(job, parts=tuple(parts), boards=()))
        for species, quarter, parts in found
    )
