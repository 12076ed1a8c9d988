"""The web server: `python -m vividplank.serve --port 8128`, on loopback. Here web and queue are put
together.
"""

import argparse
import logging
import sys
import threading
from functools import partial

from waitress import create_server

from vividplank import logs
from vividplank.core.board.flat.warm import warm
from vividplank.devices.simulated import SimulatedBench
from vividplank.devices.yards import SimulatedYard
from vividplank.jobs.queue import (
    ask_for_days,
    ask_for_work,
    ask_to_read,
    ask_to_simulate,
    ask_to_think,
    make_app,
)
from vividplank.jobs.reading import straightened, upright
from vividplank.web.app import create_app
from vividplank.web.asking import Asking


def main() -> int:
    options = argparse.ArgumentParser(prog="vividplank.serve")
    options.add_argument("--port", type=int, required=True)
    options.add_argument(
        "--host", default="127.0.0.1", help="listen elsewhere than on this machine only"
    )
    chosen = options.parse_args()
    logs.set_up("web")
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    threading.Thread(
        target=warm, daemon=True
    ).start()  # the first look at a board shall not wait for it
    queue = make_app()
    with queue.open():
        try:
            server = create_server(
                create_app(
                    Asking(
                        partial(ask_for_work, queue),
                        partial(ask_to_read, queue),
                        partial(ask_to_think, queue),
                        partial(ask_for_days, queue),
                        partial(ask_to_simulate, queue),
                        upright,
                        straightened,
                    ),
                    SimulatedBench(),
                    SimulatedYard(),
                ),
                host=chosen.host,
                port=chosen.port,
                threads=8,
                max_request_body_size=21 << 20,
                ident=None,
            )
        except OSError as problem:
            print(f"port {chosen.port} cannot be opened: {problem.strerror}", file=sys.stderr)
            return 1
        server.run()
    return 0


if __name__ == "__main__":
    sys.exit(main())
