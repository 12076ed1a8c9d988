"""Routes worked out lately. A plan's routes are asked for again with every tap at a machine, and
they depend on nothing but what they are worked out from.
"""

from collections import deque
from threading import Lock

from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan
from vividplank.core.measure import System
from vividplank.core.milling.route.routes import Route, routes
from vividplank.core.milling.shop.pace import Factors
from vividplank.core.milling.shop.school import Milling

_Key = tuple[Job, Plan, Milling | None, Factors | None, System | None]
_MOST = 12
_kept: deque[tuple[_Key, tuple[Route, ...]]] = deque(maxlen=_MOST)
_lock = Lock()


def recent_routes(
    job: Job,
    plan: Plan,
    milling: Milling | None = None,
    factors: Factors | None = None,
    system: System | None = None,
) -> tuple[Route, ...]:
    """As `routes`, the same ones where they were asked for lately; to be called by any thread.
    No factors are as good as none, and the job's own unit as none told.
    """
    key = (job, plan, milling, factors or None, system or job.unit)
    with _lock:
        known = list(_kept)
    for asked, found in reversed(known):
        if asked == key:
            return found
    found = routes(*key)
    with _lock:
        _kept.append((key, found))
    return found
