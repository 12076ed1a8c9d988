"""What the search has to place: like things together, runs and panels as one thing each."""

from dataclasses import dataclass

from vividplank.core.cutlist import Faces
from vividplank.core.cutlist.part import FACES
from vividplank.core.job import Job
from vividplank.core.layout.plan import Item


@dataclass(frozen=True)
class Want:
    """`count` equal lumps, each of `length` (with the kerfs inside a run) by `width` by `thickness`.

    For a panel the lump is a stave of any net width from `stave_min` to `stave_max`, and `width` is
    what the staves must add up to; each panel is a want of its own.
    """

    index: int
    members: tuple[tuple[Item, ...], ...]  # the items of each lump, in order
    species: str
    length: int
    width: int
    thickness: int
    faces: Faces
    volume: int  # finished, of one lump (or of the whole panel)
    stave_min: int = 0
    stave_max: int = 0
    is_run: bool = False

    @property
    def count(self) -> int:
        return len(self.members)

    @property
    def is_panel(self) -> bool:
        return self.stave_max > 0

    @property
    def name(self) -> str:
        return self.members[0][0].part


def together(job: Job, wants: list[Want]) -> list[list[int]]:
    """The places of wants that are to come from one board, group by group."""
    names = {p.id: p.same_board for p in job.parts}
    groups: dict[str, list[int]] = {}
    for w in wants:
        for name in dict.fromkeys(names[i.part] for lump in w.members for i in lump):
            if name:
                groups.setdefault(name, []).append(w.index)
    return list(groups.values())


def wants(job: Job) -> list[Want]:
    """The job's parts as wants, in the order of the file."""
    kerf = job.shop.kerf.crosscut
    found: list[Want] = []
    runs_done: set[str] = set()
    for part in job.parts:
        if part.run:
            if part.run in runs_done:
                continue
            runs_done.add(part.run)
            members = [p for p in job.parts if p.run == part.run]
            items = tuple(Item(p.id, n) for p in members for n in range(1, p.quantity + 1))
            length = sum(p.length * p.quantity for p in members) + (len(items) - 1) * kerf
            faces = min((p.faces for p in members), key=FACES.index)
            volume = sum(p.volume * p.quantity for p in members)
            found.append(Want(len(found), (items,), part.species, length, part.width, part.thickness, faces, volume,
                              is_run=True))
        elif part.panel:
            for n in range(1, part.quantity + 1):
                found.append(Want(
                    len(found), ((Item(part.id, n),),), part.species, part.length,
                    part.width + job.shop.allowance.panel_width, part.thickness, part.faces, part.volume,
                    part.panel.stave_min, part.panel.stave_max,
                ))
        else:
            each = tuple((Item(part.id, n),) for n in range(1, part.quantity + 1))
            found.append(Want(len(found), each, part.species, part.length, part.width, part.thickness, part.faces,
                              part.volume))
    return found
