"""A plan as SVG, to scale: one board under the other, parts named, defects marked."""

from xml.sax.saxutils import escape, quoteattr

from vividplank.core.board import Board, Defect
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan, Segment
from vividplank.core.measure import TICKS_PER_MM, show

_GAP = 60 * TICKS_PER_MM
_STYLE = (
    ".board{fill:#e6c99a;stroke:#16202b}.blank{fill:#fff;fill-opacity:.55;stroke:#16202b}.cut{stroke:#d2202f}"
    ".fault{fill:#7a3b12;fill-opacity:.45}text{font-family:sans-serif;fill:#16202b}"
)


def plan_svg(job: Job, plan: Plan) -> str:
    """A drawing in millimetres of real size, 1:1, so that a viewer or plotter can scale it
    truly.
    """
    boards = [(job.board(b.board), b.segments) for b in plan.boards]
    long = max((b.length for b, _ in boards), default=TICKS_PER_MM)
    rows: list[str] = []
    y = _GAP
    for board, segments in boards:
        low = min(s.y0 for s in board.stations)
        high = max(s.y1 for s in board.stations)
        title = f"{board.id}  {board.species}  {show(board.length, job.unit, unit=True)}"
        rows.append(
            f'<text x="0" y="{_mm(y - 8 * TICKS_PER_MM)}" font-size="18">{escape(title)}</text>'
        )
        rows.append(
            f'<g id={quoteattr(board.id)} transform="translate(0 {_mm(y + high)}) scale(1 -1)">'
        )
        rows.append(_outline(board))
        rows += [_segment(job, s) for s in segments]
        rows += [_fault(d) for d in board.defects]
        rows.append("</g>")
        y += high - low + _GAP
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{_mm(long)}mm" height="{_mm(y)}mm" '
        f'viewBox="0 0 {_mm(long)} '
        f'{_mm(y)}"><title>{escape(job.name)}</title><style>{_STYLE}</style>\n'
        + "\n".join(rows)
        + "\n</svg>\n"
    )


def _outline(board: Board) -> str:
    points = [(s.x, s.y0) for s in board.stations] + [(s.x, s.y1) for s in reversed(board.stations)]
    return f'<polygon class="board" points="{" ".join(f"{_mm(x)},{_mm(y)}" for x, y in points)}"/>'


def _fault(d: Defect) -> str:
    title = f"<title>{escape(d.kind)} ({d.face})</title>"
    if d.shape == "outline":
        return (
            f'<polygon class="fault" '
            f'points="{" ".join(f"{_mm(x)},{_mm(y)}" for x, y in d.points)}">{title}</polygon>'
        )
    if d.shape == "ellipse":
        middle = f'cx="{_mm((d.x0 + d.x1) / 2)}" cy="{_mm((d.y0 + d.y1) / 2)}"'
        return (
            f'<ellipse class="fault" {middle} rx="{_mm((d.x1 - d.x0) / 2)}" '
            f'ry="{_mm((d.y1 - d.y0) / 2)}">{title}</ellipse>'
        )
    size = f'width="{_mm(d.x1 - d.x0)}" height="{_mm(d.y1 - d.y0)}"'
    return f'<rect class="fault" x="{_mm(d.x0)}" y="{_mm(d.y0)}" {size}>{title}</rect>'


def _segment(job: Job, segment: Segment) -> str:
    found: list[str] = []
    for strip, blank in segment.blanks():
        region = segment.blank_region(strip, blank)
        corners = [
            (x, region.line(x) + h)
            for x, h in (
                (region.x0, region.h0),
                (region.x1, region.h0),
                (region.x1, region.h1),
                (region.x0, region.h1),
            )
        ]
        points = " ".join(f"{_mm(x)},{_mm(y)}" for x, y in corners)
        middle = (region.x0 + region.x1) / 2
        at = region.line(middle) + (region.h0 + region.h1) / 2
        found.append(
            f'<polygon class="blank" points="{points}"/><text transform="translate({_mm(middle)} '
            f'{_mm(at)}) scale(1 -1)" '
            f'font-size="14" text-anchor="middle" '
            f'dominant-baseline="middle">{escape(blank.name)}</text>'
        )
    return "".join(found)


def _mm(ticks: float) -> str:
    return f"{ticks / TICKS_PER_MM:.3f}".rstrip("0").rstrip(".")
