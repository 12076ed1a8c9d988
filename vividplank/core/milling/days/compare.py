"""The schools side by side on this job in this shop: time, passes, settings and thickness, and
which to take.
"""

from dataclasses import dataclass, replace

from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan
from vividplank.core.measure import System, about
from vividplank.core.milling.days.day import distinct_setups
from vividplank.core.milling.route.routes import routes
from vividplank.core.milling.shop.pace import Factors
from vividplank.core.milling.shop.school import ORDERS, Milling, Order

#: Minutes that a day on stickers weighs in the advice: it costs floor and patience, no work.
_DAY_ON_STICKERS = 20
#: Minutes that each setting weighs beyond its own time, for what can go wrong with it.
_SETTING = 2


@dataclass(frozen=True)
class SchoolCost:
    """`minutes` at work without settings, `passes` over cutters, `setups` different settings,
    `rest` the longest wait on stickers in minutes, `spare` the least thickness left anywhere once a
    face is flat, `by_hand` steps done by hand or elsewhere, `not_here` steps nothing in the shop
    can do.
    """

    order: Order
    minutes: float
    passes: int
    setups: int
    rest: int
    spare: int
    by_hand: int
    not_here: int

    @property
    def weight(self) -> tuple[int, float]:
        """What the advice goes by, the least first."""
        return (
            self.not_here,
            self.minutes + _SETTING * self.setups + _DAY_ON_STICKERS * self.rest / 1440,
        )


def compare(
    job: Job, plan: Plan, milling: Milling, factors: Factors | None = None
) -> tuple[SchoolCost, ...]:
    """Every school for the whole job, exceptions left out."""
    found = []
    for order in ORDERS:
        steps = [
            s
            for r in routes(
                job, plan, replace(milling, school=order.school, exceptions={}), factors
            )
            for s in r.steps
        ]
        elsewhere = ("hand plane", "handsaw", "router bridge", "outside shop")
        found.append(
            SchoolCost(
                order,
                sum(s.minutes for s in steps),
                sum(len(s.passes) for s in steps),
                distinct_setups(steps),
                max((s.hold for s in steps if s.kind == "sticker"), default=0),
                min((s.spare for s in steps if s.kind == "face"), default=0),
                sum(s.machine in elsewhere for s in steps),
                sum(s.machine == "not here" for s in steps),
            )
        )
    return tuple(found)


def advise(
    costs: tuple[SchoolCost, ...], job: Job, system: System | None = None
) -> tuple[SchoolCost, str]:
    """The school to take and why, against the next best."""
    first, second = sorted(costs, key=lambda c: c.weight)[:2]
    why = (
        f"{round(first.minutes)} minutes and {first.setups} settings; "
        f"{second.order.title.lower()} would take "
        f"{round(second.minutes)} and {second.setups}"
    )
    if first.spare != second.spare:
        why += (
            f", and leaves {about(abs(first.spare - second.spare), system or job.unit, unit=True)} "
            f"{'more' if second.spare > first.spare else 'less'} at the thinnest place"
        )
    two = next(c for c in costs if c.order.school == "two-visits")
    panels = any(p.panel for p in job.parts)
    if panels and first is not two and not two.not_here:
        why += (
            f". For the panels two visits are the safer way: "
            f"{round(two.minutes - first.minutes)} minutes more and "
            f"{two.rest // 1440} days"
        )
    return first, why
