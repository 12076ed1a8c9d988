"""What a search needs is compiled when it is warmed, its bound included: a search of ten seconds must not wait for it."""

import subprocess
import sys

ASK = """
import importlib, pkgutil
from numba.core.dispatcher import Dispatcher
import vividplank.core.layout as layout
from vividplank.core.layout.warm import warm
warm()
for found in pkgutil.iter_modules(layout.__path__):
    if found.name.endswith("_kernel"):
        module = importlib.import_module(f"vividplank.core.layout.{found.name}")
        for name, made in vars(module).items():
            if isinstance(made, Dispatcher) and made.__module__ == module.__name__:
                print(found.name, name, len(made.signatures))
"""


def test_every_kernel_of_the_layout_is_compiled() -> None:
    told = subprocess.run([sys.executable, "-c", ASK], capture_output=True, text=True, check=True).stdout.split("\n")
    made = {(module, name): int(times) for module, name, times in (line.split() for line in told if line)}
    assert {"room_kernel", "propose_kernel", "ahead_kernel", "stretch_kernel"} <= {module for module, _ in made}
    tables = "along", "across", "any_width", "jumps", "side_by_side", "short_pairs"
    entered = [("room_kernel", n) for n in tables]
    entered += [("segment_kernel", "segments"), ("tight_kernel", "fill_strip")]
    entered += [("sweep_kernel", n) for n in ("workspace", "lower", "fullest")]
    entered += [("ahead_kernel", "lengths"), ("ahead_kernel", "promising")]
    entered += [("stretch_kernel", n) for n in ("widest_bands", "faults_over", "free_areas")]
    assert [each for each in entered if not made[each]] == []
