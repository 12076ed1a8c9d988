"""Reading a drawing as a job: the reader's process started, watched and, past its limits, ended."""

import base64
import json
import logging
import signal
import subprocess
import sys
from collections.abc import Sequence
from dataclasses import asdict
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from vividplank.core.survey.photo import Corner, Ends, NoPhoto
from vividplank.core.takeoff import (
    Page,
    Reading,
    Stumbled,
    Unreadable,
    kind_of,
    reading_from_document,
)
from vividplank.core.takeoff.readers.references import refers_to
from vividplank.jobs.reader import CPU_SECONDS
from vividplank.store import drawings
from vividplank.store.database import session
from vividplank.store.errors import NotFoundError

log = logging.getLogger("vividplank.jobs")

WALL_SECONDS = 90
#: A photograph is waited for in the request that brings it.
_PICTURE_SECONDS = 30


def read_in_process(
    content: bytes,
    name: str,
    answers: dict[str, object],
    seconds: float = WALL_SECONDS,
    beside: Path | None = None,
) -> tuple[Reading, list[Page]]:
    """What the file holds; Unreadable with a sentence for every way in which it cannot be read.

    Where the reader itself fails on a model, its bare solids are tried.
    """
    how: dict[str, object] = {"name": name, "answers": answers, "beside": str(beside or "")}
    try:
        answer = _in_process(content, "drawing", how, seconds)
    except Stumbled:
        if kind_of(content, name) != "step":
            raise
        log.warning("reading the bare solids of a model that the reader failed on")
        answer = _in_process(content, "drawing", {**how, "plain": True}, seconds)
    return reading_from_document(answer["reading"]), [
        Page(base64.b64decode(p)) for p in answer["pages"]
    ]


def upright(content: bytes) -> bytes:
    """A photograph upright as a JPEG, or NoPhoto."""
    return _picture(content, {})


def straightened(content: bytes, corners: Sequence[Corner], board: Ends, face: str) -> bytes:
    """A photograph straightened by its corners, or NoPhoto."""
    return _picture(
        content, {"corners": [list(c) for c in corners], "board": asdict(board), "face": face}
    )


def _picture(content: bytes, how: dict[str, object]) -> bytes:
    try:
        return base64.b64decode(
            _in_process(content, "photograph", how, _PICTURE_SECONDS)["picture"]
        )
    except Unreadable as problem:
        raise NoPhoto(str(problem)) from None


def _in_process(
    content: bytes, what: str, how: dict[str, object], seconds: float
) -> dict[str, Any]:
    """The answer of the reader's process; Unreadable with its sentence, or with ours where it ended
    without one.
    """
    command = [sys.executable, "-m", "vividplank.jobs.reader", what, json.dumps(how)]
    try:
        done = subprocess.run(command, input=content, capture_output=True, timeout=seconds)
    except subprocess.TimeoutExpired:
        raise Unreadable(
            f"this file takes longer than {seconds:.0f} s to read; export fewer parts or less "
            f"detail"
        ) from None
    if done.stderr.strip():
        log.info("reading a %s: %s", what, done.stderr.decode(errors="replace").strip()[-2000:])
    if done.returncode in (-signal.SIGXCPU, -signal.SIGKILL):
        raise Unreadable(
            f"this file takes more than {CPU_SECONDS} s of work to read; export fewer parts or "
            f"less detail"
        )
    if done.returncode or not done.stdout:
        log.error("the reader of a %s ended with %s", what, done.returncode)
        raise Stumbled(_kind(content, how))
    answer: dict[str, Any] = json.loads(done.stdout)
    if answer.get("stumbled"):
        raise Stumbled(_kind(content, how))
    if "trouble" in answer:
        raise Unreadable(answer["trouble"])
    return answer


def _kind(content: bytes, how: dict[str, Any]) -> str:
    return kind_of(content, how["name"]) if "name" in how else "picture"


def read_drawing(drawing: int) -> None:
    """Read one drawing and write down what it holds, all or nothing; one that is gone or read is
    nobody's work.
    """
    try:
        with session() as opened:
            found, content = drawings.content(opened, drawing)
            if found.state not in ("waiting", "reading"):
                return
            answers = drawings.settings(opened, drawing)
            drawings.begin(opened, drawing)
            others = drawings.named(opened, found.project, refers_to(content))
        try:
            with TemporaryDirectory() as folder:
                for name, other in others.items():
                    (Path(folder) / name).write_bytes(other)
                beside = Path(folder) if others else None
                reading, pages = read_in_process(content, found.name, answers, beside=beside)
        except Unreadable as problem:
            with session() as opened:
                drawings.fail(opened, drawing, str(problem))
            return
        with session() as opened:
            if (
                drawings.settings(opened, drawing) == answers
            ):  # else it is to be read again, with other answers
                drawings.finish(opened, drawing, reading, pages)
    except NotFoundError:
        log.info("drawing %s was removed while it was read", drawing)
