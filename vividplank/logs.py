"""What the web server and the worker say, in bounds: an error that comes again and again is told a
few times, then counted.
"""

import logging
import time
from dataclasses import dataclass, field

#: So many of one error in so many seconds are told whole.
_MOST, _SECONDS = 3, 60.0


@dataclass
class Repeats(logging.Filter):
    """Lets the first few of a kind through, and with the first after a while says how many were not
    told.
    """

    seen: dict[tuple[object, ...], tuple[float, int]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        super().__init__()

    def filter(self, record: logging.LogRecord) -> bool:
        """One kind is one place in the code with one kind of error."""
        if record.levelno < logging.WARNING:
            return True
        kind = (
            record.name,
            record.pathname,
            record.lineno,
            record.exc_info[0] if record.exc_info else None,
        )
        now = time.monotonic()
        began, count = self.seen.get(kind, (now, 0))
        untold = 0
        if now - began > _SECONDS:
            untold = max(0, count - _MOST)
            began, count = now, 0
        self.seen[kind] = (began, count + 1)
        if untold:
            record.msg = f"{record.getMessage()} (and {untold} times more, not told)"
            record.args = ()
        return count < _MOST


def set_up(who: str) -> None:
    """Log to standard error, with the time and who says it."""
    handler = logging.StreamHandler()
    handler.setFormatter(logging.Formatter(f"%(asctime)s {who} %(levelname)s %(message)s"))
    handler.addFilter(Repeats())
    logging.basicConfig(level=logging.INFO, handlers=[handler])
    logging.getLogger("procrastinate").setLevel(logging.WARNING)
