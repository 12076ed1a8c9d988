"""A worker: `python -m vividplank.jobs`."""

import asyncio
import contextlib
import os
import signal
import threading

import procrastinate
from procrastinate.exceptions import AlreadyEnqueued

from vividplank import logs
from vividplank.core.layout.search.warm import warm
from vividplank.jobs.processes import make_ready
from vividplank.jobs.queue import ending, log, make_app
from vividplank.store import buying, drawings, layouts, milling
from vividplank.store.database import session

#: A worker that has not been heard of for so long is dead, and its work is taken over.
_HEARTBEAT_SECONDS = 2.0
_DEAD_AFTER_SECONDS = 8.0
_LOOK_ROUND_SECONDS = 2.0
#: So long it may take to hand its work back once it is asked to end.
_ENDING_SECONDS = 12.0


async def main() -> None:
    make_ready()
    warm()
    app = make_app(worker=True)
    async with app.open_async():
        asked = asyncio.Event()

        def end() -> None:
            ending.set()
            asked.set()
            # Whatever holds on to its work, an ended database or a search deep in a kernel, the
            # next start shall not wait.
            last = threading.Timer(_ENDING_SECONDS, os._exit, (1,))
            last.daemon = True
            last.start()

        for name in (signal.SIGTERM, signal.SIGINT):
            asyncio.get_running_loop().add_signal_handler(name, end)
        # A drawing must not wait for a search, nor a search for thoughts: each has a worker of its
        # own.
        workers = [
            asyncio.create_task(
                app.run_worker_async(
                    queues=[queue],
                    concurrency=1,
                    install_signal_handlers=False,
                    fetch_job_polling_interval=1.0,
                    update_heartbeat_interval=_HEARTBEAT_SECONDS,
                    stalled_worker_timeout=_DEAD_AFTER_SECONDS,
                    shutdown_graceful_timeout=10.0,
                )
            )
            for queue in ("layout", "reading", "thinking", "days", "buying")
        ]
        watching = asyncio.create_task(_look_round(app))
        told = asyncio.create_task(asked.wait())
        await asyncio.wait({*workers, watching, told}, return_when=asyncio.FIRST_COMPLETED)
        for task in (watching, *workers, told):
            task.cancel()
        for worker in workers:
            with contextlib.suppress(asyncio.CancelledError):
                await worker
        if watching.done() and not watching.cancelled() and watching.exception():
            raise watching.exception() or RuntimeError


async def _look_round(app: procrastinate.App) -> None:
    """Take over from workers that were killed, and pick up what was asked for but never queued."""
    while True:
        for job in await app.job_manager.get_stalled_jobs(
            seconds_since_heartbeat=_DEAD_AFTER_SECONDS
        ):
            log.warning("taking over %s from a worker that is gone", job.task_kwargs)
            await app.job_manager.retry_job(job)
        with session() as opened:
            work = (
                ("layout", "layout", "layout", "plank:lay_out", layouts.unfinished(opened)),
                ("reading", "drawing", "drawing", "plank:read", drawings.unread(opened)),
                ("days", "layout", "days", "plank:plan_days", milling.unplanned(opened)),
                ("buying", "estimate", "estimate", "plank:simulate", buying.unfinished(opened)),
            )
        for queue, thing, lock, task, waiting in work:
            queued = {
                job.task_kwargs.get(thing)
                for status in ("todo", "doing")
                for job in await app.job_manager.list_jobs_async(queue=queue, status=status)
            }
            for pk in waiting:
                if pk not in queued:
                    with contextlib.suppress(AlreadyEnqueued):
                        await app.configure_task(
                            task, queueing_lock=f"{lock}-{pk}", queue=queue
                        ).defer_async(**{thing: pk})
        await asyncio.sleep(_LOOK_ROUND_SECONDS)


if __name__ == "__main__":
    logs.set_up("worker")
    asyncio.run(main())
