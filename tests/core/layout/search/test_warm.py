"""What a search needs is compiled when it is warmed, its bound included: a search of ten seconds
must not wait for it.
"""

import subprocess
import sys

ASK = """
import importlib, pkgutil, sys
from numba.core.dispatcher import Dispatcher
import vividplank.core.layout as layout
from vividplank.core.layout.search.warm import warm
def kernels():
    for found in pkgutil.walk_packages(layout.__path__, "vividplank.core.layout."):
        if found.name.endswith("_kernel"):
            module = importlib.import_module(found.name)
            for name, made in vars(module).items():
                if isinstance(made, Dispatcher) and made.__module__ == module.__name__:
                    yield found.name.rpartition(".")[2], name, made
warm()
times = [(module, name, len(made.signatures), made) for module, name, made in kernels()]
if "again" in sys.argv:
    import time
    from bench.shop_jobs import shop_job
    from vividplank.core.layout.search.search import Limits, search
    search(shop_job(20, 2), Limits(60, rounds=1), time.monotonic)
    from vividplank.core.layout.bound.lower_bound import lower_bound
    lower_bound(shop_job(20, 2), cuts=1)
for module, name, before, made in times:
    print(module, name, len(made.signatures) - before if "again" in sys.argv else before)
"""


def asked(*how: str) -> dict[tuple[str, str], int]:
    told = subprocess.run(
        [sys.executable, "-c", ASK, *how], capture_output=True, text=True, check=True
    ).stdout.split("\n")
    return {
        (module, name): int(times)
        for module, name, times in (line.split() for line in told if line)
    }


def test_every_kernel_of_the_layout_is_compiled() -> None:
    made = asked()
    assert {"knapsack_kernel", "proposals_kernel", "lookahead_kernel", "stretches_kernel"} <= {
        module for module, _ in made
    }
    tables = "along", "across", "any_width", "jumps", "side_by_side", "short_pairs"
    entered = [("knapsack_kernel", n) for n in tables]
    entered += [("segment_kernel", "segments"), ("rounding_kernel", "fill_strip")]
    entered += [("sweep_kernel", n) for n in ("workspace", "fullest")]
    entered += [("chain_kernel", "lower")]
    entered += [("lookahead_kernel", "lengths"), ("lookahead_kernel", "promising")]
    entered += [("stretches_kernel", n) for n in ("widest_bands", "faults_over", "free_areas")]
    assert [each for each in entered if not made[each]] == []


def test_a_job_with_everything_in_it_compiles_nothing_more() -> None:
    assert [each for each, more in asked("again").items() if more] == []
