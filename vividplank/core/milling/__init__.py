"""From the layout to finished blanks: the steps at the machines, with reasons and limits."""

from vividplank.core.milling.machines import Machines
from vividplank.core.milling.route import Route, routes
from vividplank.core.milling.school import Milling
from vividplank.core.milling.step import Step

__all__ = ["Machines", "Milling", "Route", "Step", "routes"]
