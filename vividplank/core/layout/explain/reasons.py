"""Why a plan is as it is: for each board, cut and piece a sentence with its figures."""

from collections.abc import Iterator
from dataclasses import dataclass

from vividplank.core.board import Board, flat_slab, same_species
from vividplank.core.board.flat.thick import flat_between
from vividplank.core.board.volume import board_volume
from vividplank.core.cutlist.part import blank_need
from vividplank.core.job import Job
from vividplank.core.layout.explain.chalk import to_rule
from vividplank.core.layout.model.figure import share_shown, shown_in
from vividplank.core.layout.model.plan import Blank, BoardPlan, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_64TH, System, about, written

#: A gain of flat thickness less than this is not worth a sentence.
_WORTH_SAYING = TICKS_PER_64TH
#: A part that lies so far in its figure shows it.
_SHOWS = 0.9


@dataclass(frozen=True)
class Reason:
    """`about` is a board, or a board with the number of a cut piece (O1.2), or the name of what
    lies in a blank; of a wish that is not kept it is the wish's word, or the part that has it. What
    is said of a whole board goes on from its name and price.
    """

    about: str
    text: str
    wish: bool = False


def reasons(job: Job, plan: Plan, system: System) -> list[Reason]:
    """Boards in the order of the plan, then those left in the rack, then wishes that are not
    kept.
    """
    told = _Telling(job, plan, system)
    found: list[Reason] = []
    for board_plan in plan.boards:
        found += told.board(board_plan)
    return [*found, *told.excluded(), *told.wishes()]


class _Telling:
    def __init__(self, job: Job, plan: Plan, system: System) -> None:
        self.job = job
        self.plan = plan
        self.system = system

    def says(self, ticks: float) -> str:
        return to_rule(ticks, self.job, self.system)

    def fixings(self, ticks: float) -> str:
        """What wood gives, as every figure of it is rounded."""
        return about(ticks, self.system, unit=True, down=True)

    def board(self, plan: BoardPlan) -> Iterator[Reason]:
        board = self.job.board(plan.board)
        gone = {i for c in self.plan.closed for i in c.items}
        items = [
            i for s in plan.segments for _, b in s.blanks() for i in b.items() if i not in gone
        ]
        made = sum(self.job.part(i.part).volume / self._staves(i.part, i.n) for i in items)
        share = made / float(board_volume(board))
        pieces = "one piece" if len(plan.segments) == 1 else f"{len(plan.segments)} pieces"
        yield Reason(board.id, f"{100 * share:.0f} % of it becomes parts, in {pieces}")
        whole = flat_between(board, 0, board.length)
        for n, segment in enumerate(sorted(plan.segments, key=lambda s: s.x0), 1):
            yield Reason(f"{board.id}.{n}", self._cut(board, segment, whole))
            for strip, blank in segment.blanks():
                yield Reason(blank.name, self._piece(board, segment, strip, blank))

    def _staves(self, part: str, n: int) -> int:
        return (
            sum(1 for *_, i in self.plan.items() if i.part == part and i.n == n)
            if self.job.part(part).panel
            else 1
        )

    def _cut(self, board: Board, segment: Segment, whole: float) -> str:
        flat = flat_slab(board, segment.milled_region()).thickness
        cut = f"Cut at {self.says(segment.x0)} and {self.says(segment.x1)}"
        if self.job.shop.method == "rough-rip":
            return f"{cut}; its blanks are sawn free first and flattened one by one"
        need = max(self._need(b) for _, b in segment.blanks())
        if board.lies_flat:
            need -= self.job.shop.allowance.face
        asked = f"{written(need, self.system, unit=True)} is needed"
        if flat - whole < _WORTH_SAYING:
            return f"{cut}: {self.fixings(flat)} flat, {asked}"
        before = f"where the whole board is {self.fixings(whole)}"
        return (
            f"{cut}, it is {self.fixings(flat)} flat, {before}: cutting first saves "
            f"{self.fixings(flat - whole)}; {asked}"
        )

    def _piece(self, board: Board, segment: Segment, strip: Strip, blank: Blank) -> str:
        region = segment.blank_region(strip, blank)
        names = blank.name
        inside = [d for d in board.defects if d.overlaps(region)]
        clear = {f for f in ("A", "B") if not any(d.face in (f, "both") for d in inside)}
        some = f"face {min(clear)} is clear" if clear else "its faults are sound"
        looks = "both faces are clear" if len(clear) == 2 else some
        beside = [
            d
            for d in board.defects
            if not d.sound and d not in inside and d.x1 > region.x0 and d.x0 < region.x1
        ]
        spared = (
            f"; the {beside[0].kind.replace('-', ' ')} at {self.says(beside[0].x0)} stays outside"
            if beside
            else ""
        )
        text = f"{names} on {board.id}: {looks}{spared}"
        if self.job.shop.method == "rough-rip":
            flat = flat_slab(board, region).thickness
            need = self._need(blank)
            if board.lies_flat:
                need -= self.job.shop.allowance.face
            text += (
                f"; {self.fixings(flat)} flat there, "
                f"{written(need, self.system, unit=True)} is needed"
            )
        for figure in dict.fromkeys(self.job.part(i.part).figure for i in blank.items()):
            if figure and share_shown(board, figure, region) >= _SHOWS:
                text += f"; it shows {figure} figure, as wished"
        if len(blank.layers) > 1:
            text += f"; thick enough to be resawn in {len(blank.layers)}"
        return text

    def _need(self, blank: Blank) -> int:
        return blank_need(
            [max(self.job.part(i.part).thickness for i in blank.items())] * len(blank.layers),
            self.job.shop,
        )

    def _noted(self, figure: str) -> bool:
        return any(z.figure == figure for b in self.job.boards for z in b.grain.zones)

    def excluded(self) -> Iterator[Reason]:
        """Boards that are not cut."""
        used = {b.board for b in self.plan.boards}
        left = {u.part for u in self.plan.unplaced}
        for board in self.job.boards:
            if board.id in used:
                continue
            if not any(same_species(p.species, board.species) for p in self.job.parts):
                yield Reason(
                    board.id,
                    f"stays in the rack: nothing on the list is of {board.species}",
                )
            elif any(same_species(self.job.part(p).species, board.species) for p in left):
                yield Reason(
                    board.id,
                    "stays in the rack: nothing that is left out fits it; its sentence says why",
                )
            else:
                price = f", {board.price:.2f} saved" if board.price else ""
                yield Reason(
                    board.id,
                    f"stays in the rack: everything comes out of the others{price}",
                )

    def wishes(self) -> Iterator[Reason]:
        """What was wished for and is not so: one board, a figure, or opened like a book."""
        lies: dict[str, set[str]] = {}
        blanks: dict[str, list[Blank]] = {}
        for board, _, _, blank, item in self.plan.items():
            lies.setdefault(item.part, set()).add(board.board)
            blanks.setdefault(item.part, []).append(blank)
        for wish in dict.fromkeys(p.same_board for p in self.job.parts if p.same_board):
            ids = [p.id for p in self.job.parts if p.same_board == wish]
            on = sorted(set().union(*(lies.get(i, set()) for i in ids)))
            if len(on) > 1:
                yield Reason(
                    wish,
                    f"{' and '.join(ids)} were to come from one board ({wish}); no board holds "
                    f"all, they lie on "
                    f"{', '.join(on)}",
                    wish=True,
                )
        for part, share in shown_in(self.job, self.plan).items():
            if share < _SHOWS:
                figure = self.job.part(part).figure
                where = (
                    f"{100 * share:.0f} % of it does"
                    if self._noted(figure)
                    else "no board has such figure noted"
                )
                yield Reason(part, f"{part} was to show {figure} figure; {where}", wish=True)
        for wish in dict.fromkeys(p.match for p in self.job.parts if p.match):
            ids = [p.id for p in self.job.parts if p.match == wish]
            found = [b for i in ids for b in blanks.get(i, [])]
            if found and (len({id(b) for b in found}) > 1 or len(found[0].layers) < 2):
                wished = f"{' and '.join(ids)} were to be opened like a book ({wish})"
                yield Reason(
                    wish,
                    f"{wished}; no board thick and clear enough for that was left, so they are "
                    f"laid apart",
                    wish=True,
                )
