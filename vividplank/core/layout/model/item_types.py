"""Item types: what the search has to place, like things together."""

from collections.abc import Collection
from dataclasses import dataclass

from vividplank.core.board import Board, same_species
from vividplank.core.cutlist import Faces, Part
from vividplank.core.cutlist.part import FACES
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Item


@dataclass(frozen=True)
class ItemType:
    """`count` equal units, each of `length` (with the kerfs inside a run) by `width` by
    `thickness`.

    For a panel the unit is a stave of any net width from `stave_min` to `stave_max`, and `width` is
    what the staves must add up to; it is made of `staves_most` at most, for together they are no
    wider than it once it is trimmed. Each panel is an item type of its own.
    """

    index: int
    members: tuple[tuple[Item, ...], ...]  # the items of each unit, in order
    species: str
    length: int
    width: int
    thickness: int
    faces: Faces
    volume: int  # finished, of one unit (or of the whole panel)
    stave_min: int = 0
    stave_max: int = 0
    is_run: bool = False  # a unit has a blank to itself
    opened: bool = False  # the items of a unit are layers of its blank, not end to end
    figure: str = ""  # of the wood it is to show
    staves_most: int = 0
    from_board: str = ""  # the mark of the board it is to come out of

    @property
    def count(self) -> int:
        return len(self.members)

    @property
    def is_panel(self) -> bool:
        return self.stave_max > 0

    @property
    def stave_least(self) -> int:
        """The least width to look for a stave in: of that width as many as it may have make it
        whole. A wide one beside it would allow a narrower; such pairs are not looked for.
        """
        if not self.staves_most:
            return self.stave_min
        return max(self.stave_min, min(self.stave_max, -(-self.width // self.staves_most)))

    def may_come_of(self, board: Board) -> bool:
        """Whether the board is of its wood, and the one it is to come out of where one is named."""
        return same_species(self.species, board.species) and board.comes_from(self.from_board)

    @property
    def name(self) -> str:
        return self.members[0][0].part


def together(job: Job, item_types: list[ItemType]) -> list[list[int]]:
    """The places of item types that are to come from one board, group by group."""
    names = {p.id: p.same_board for p in job.parts}
    groups: dict[str, list[int]] = {}
    for w in item_types:
        for name in dict.fromkeys(names[i.part] for unit in w.members for i in unit):
            if name:
                groups.setdefault(name, []).append(w.index)
    return list(groups.values())


def item_types(job: Job, wishes: bool = False, placed: Collection[Item] = ()) -> list[ItemType]:
    """The job's parts as item types, in the order of the file.

    With `wishes` parts that are to be opened like a book, or resawn, are units of two layers where
    some board is thick enough for that; pieces that are `placed` already, and their other halves,
    stay by themselves.
    """
    found: list[ItemType] = []
    runs_done: set[str] = set()
    pairs = _pairs(job, placed) if wishes else {}
    for part in job.parts:
        if part.run:
            if part.run in runs_done:
                continue
            runs_done.add(part.run)
            members = [p for p in job.parts if p.run == part.run]
            items = tuple(Item(p.id, n) for p in members for n in range(1, p.quantity + 1))
            length = sum(p.length * p.quantity for p in members) + (len(items) - 1) * job.shop.apart
            faces = min((p.faces for p in members), key=FACES.index)
            volume = sum(p.volume * p.quantity for p in members)
            found.append(
                ItemType(
                    len(found),
                    (items,),
                    part.species,
                    length,
                    part.width,
                    part.thickness,
                    faces,
                    volume,
                    is_run=True,
                    figure=next((p.figure for p in members if p.figure), ""),
                    from_board=next((p.from_board for p in members if p.from_board), ""),
                )
            )
        elif part.panel:
            for n in range(1, part.quantity + 1):
                found.append(
                    ItemType(
                        len(found),
                        ((Item(part.id, n),),),
                        part.species,
                        part.length,
                        part.width + job.shop.allowance.panel_width,
                        part.thickness,
                        part.faces,
                        part.volume,
                        part.panel.stave_min,
                        part.panel.stave_max,
                        figure=part.figure,
                        from_board=part.from_board,
                        staves_most=max(1, part.width // part.panel.stave_min),
                    )
                )
        else:
            each = [(Item(part.id, n),) for n in range(1, part.quantity + 1)]
            paired = [pairs[i] for (i,) in each if i in pairs and pairs[i][0] == i]
            if paired:
                thick = job.shop.flat_for(part.thickness, 2) - job.shop.allowance.face
                sound = all(job.part(i.part).faces == "sound" for pair in paired for i in pair)
                # A resawn blank carries no defect at all unless all in it may be sound.
                found.append(
                    ItemType(
                        len(found),
                        tuple(paired),
                        part.species,
                        part.length,
                        part.width,
                        thick,
                        "sound" if sound else "clear-two",
                        2 * part.volume,
                        is_run=True,
                        opened=True,
                        figure=part.figure,
                        from_board=part.from_board,
                    )
                )
            alone = tuple(unit for unit in each if unit[0] not in pairs)
            if alone:
                found.append(
                    ItemType(
                        len(found),
                        alone,
                        part.species,
                        part.length,
                        part.width,
                        part.thickness,
                        part.faces,
                        part.volume,
                        figure=part.figure,
                        from_board=part.from_board,
                    )
                )
    return found


def _pairs(job: Job, placed: Collection[Item]) -> dict[Item, tuple[Item, Item]]:
    """Pieces of one size that are to be two layers of one blank, by each of the two; one too many
    stays alone.
    """
    groups: dict[tuple[str, str, int, int, int, str], list[Item]] = {}
    for part in job.parts:
        if (
            (part.match or part.resawn)
            and not part.panel
            and not part.run
            and _thick_enough(job, part)
        ):
            key = (
                part.match or f"resawn {part.id}",
                part.species.casefold(),
                part.length,
                part.width,
                part.thickness,
                part.from_board,
            )
            groups.setdefault(key, []).extend(Item(part.id, n) for n in range(1, part.quantity + 1))
    found: dict[Item, tuple[Item, Item]] = {}
    for items in groups.values():
        for one, two in zip(items[::2], items[1::2], strict=False):
            if one not in placed and two not in placed:
                found[one] = found[two] = (one, two)
    return found


def _thick_enough(job: Job, part: Part) -> bool:
    need = job.shop.flat_for(part.thickness, 2)
    return any(
        b.thickest >= need
        and same_species(b.species, part.species)
        and b.comes_from(part.from_board)
        for b in job.boards
    )
