"""From the layout to finished blanks: the steps at the machines, with reasons and limits."""

from vividplank.core.milling.model.step import Step
from vividplank.core.milling.recent import recent_routes
from vividplank.core.milling.route.routes import Route, routes
from vividplank.core.milling.shop.machines import Machines
from vividplank.core.milling.shop.school import Milling

__all__ = ["Machines", "Milling", "Route", "Step", "recent_routes", "routes"]
