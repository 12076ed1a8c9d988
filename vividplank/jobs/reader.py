"""Decode one file from outside in a process of its own: `python -m vividplank.jobs.reader WHAT
[HOW] < file`.

WHAT is `drawing` (HOW: its name and the answers given), `photograph`, or `straighten` (HOW:
corners, board and face), HOW one JSON document. The answer is one JSON document on standard output.
Time, memory and what may be written are limited before a byte of the file is looked at, so that a
hostile file takes down nothing but this process.
"""

import base64
import json
import os
import resource
import sys
import traceback
from pathlib import Path
from typing import Any

CPU_SECONDS = 60
MEMORY_BYTES = 4 << 30
#: The CAD kernel reads from a file, so something must be writable.
_FILE_BYTES = 128 << 20


def main() -> int:
    what, how = sys.argv[1], json.loads(sys.argv[2])
    out = os.fdopen(os.dup(1), "wb")
    os.dup2(2, 1)  # libraries chat on standard output; the answer must stand alone there
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_SECONDS, CPU_SECONDS + 5))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_FSIZE, (_FILE_BYTES, _FILE_BYTES))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    content = sys.stdin.buffer.read()
    try:
        answer = _drawing(content, how) if what == "drawing" else _photograph(content, how)
    except MemoryError:
        answer = {
            "trouble": f"this file needs more than {MEMORY_BYTES >> 30} GB of memory to read; "
            f"export fewer parts or less detail"
        }
    out.write(json.dumps(answer).encode())
    out.close()
    return 0


def _drawing(content: bytes, how: dict[str, Any]) -> dict[str, Any]:
    from vividplank.core.takeoff import (
        Stumbled,
        Unreadable,
        read,
        reading_document,
        settings_from_document,
    )

    try:
        beside = Path(how["beside"]) if how.get("beside") else None
        reading, pages = read(
            content,
            how["name"],
            settings_from_document(how["answers"]),
            beside,
            plain=bool(how.get("plain")),
        )
    except Unreadable as problem:
        if problem.__cause__:
            traceback.print_exception(problem)
        return {"trouble": str(problem), "stumbled": isinstance(problem, Stumbled)}
    return {
        "reading": reading_document(reading),
        "pages": [base64.b64encode(p.png).decode() for p in pages],
    }


def _photograph(content: bytes, how: dict[str, Any]) -> dict[str, Any]:
    from vividplank.core.survey.photo import Ends, NoPhoto, opened, straightened

    try:
        if "corners" in how:
            corners = [(x, y) for x, y in how["corners"]]
            picture = straightened(content, corners, Ends(**how["board"]), how["face"])
        else:
            picture = opened(content)
    except NoPhoto as problem:
        return {"trouble": str(problem)}
    return {"picture": base64.b64encode(picture).decode()}


if __name__ == "__main__":
    sys.exit(main())
