"""Damaged files of other programs through the reader, in batches: nothing may crash untold, nothing
be half read in silence.

    .plank/venv/bin/python -m bench.takeoff_fuzz [mutations of each file] [first seed]

Every file of tests/takeoff/corpus is cut short, has bits turned, pieces doubled, dropped or moved,
figures changed. Told: refused with a sentence. Read: a list, perhaps with troubles and questions.
Stumbled: the reader failed in a way nobody foresaw, and said so. Half: a file that was only cut
short gave another list than the whole one without a word. Untold: it crashed otherwise. STEP goes
to the kernel in a process of its own, which the kernel may end: that is told as our fault by who
asked.
"""

import multiprocessing
import random
import sys
import time
from collections import Counter
from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory

from bench.takeoff_corpus import File, became, files, same
from vividplank.core.takeoff import Settings, Stumbled, Unreadable, read

_NUMBERS = (b"1e308", b"-1", b"nan", b"9" * 30, b"\x00\xff\xff\xff\xff", b"<", b"\n", b"'", b"#")


def mutated(content: bytes, random: random.Random) -> tuple[bytes, bool]:
    """The damaged file, and whether it was only cut short."""
    data = bytearray(content)
    if random.random() < 0.25:
        return bytes(data[: random.randrange(len(data))]), True
    for _ in range(random.randrange(1, 6)):
        at, size = random.randrange(max(1, len(data))), random.randrange(1, 60)
        how = random.choice(("flip", "flip", "double", "drop", "number", "move"))
        if how == "flip" and data:
            data[at] ^= 1 << random.randrange(8)
        elif how == "double":
            data[at:at] = data[at : at + size]
        elif how == "drop":
            del data[at : at + size]
        elif how == "number":
            data[at:at] = random.choice(_NUMBERS)
        else:
            piece = data[at : at + size]
            del data[at : at + size]
            to = random.randrange(max(1, len(data)))
            data[to:to] = piece
    return bytes(data), False


def outcome(file: File, content: bytes, only_cut: bool, folder: Path) -> str:
    try:
        reading, _ = read(content, file.path.name, Settings())
    except Stumbled as problem:
        return f"stumbled: {type(problem.__cause__).__name__}"
    except (Unreadable, MemoryError):
        return "told"
    except Exception as problem:
        return f"untold: {type(problem).__name__}: {problem}"[:120]
    if not only_cut or reading.troubles or reading.asks:
        return "read"
    path = folder / file.path.name
    path.write_bytes(content)
    cut = became(replace(file, path=path), Settings())
    return "read" if cut.words or not cut.parts or same(cut.parts, file.parts) else "half"


def batch(file: File, many: int, first: int) -> list[tuple[str, int]]:
    with TemporaryDirectory() as folder:
        found = []
        for seed in range(first, first + many):
            content, only_cut = mutated(
                file.path.read_bytes(), random.Random(f"{file.path.name} {seed}")
            )
            found.append((outcome(file, content, only_cut, Path(folder)), seed))
    return found


def _apart(
    file: File, many: int, first: int, answer: "multiprocessing.Queue[list[tuple[str, int]]]"
) -> None:
    answer.put(batch(file, many, first))


def main(many: int = 20, first: int = 1) -> None:
    counts: dict[str, Counter[str]] = {}
    begun = time.monotonic()
    for file in files():
        if file.kind == "step":  # the kernel may end its process
            results = []
            for seed in range(first, first + many):
                answer: multiprocessing.Queue[list[tuple[str, int]]] = multiprocessing.Queue()
                worker = multiprocessing.Process(target=_apart, args=(file, 1, seed, answer))
                worker.start()
                worker.join(60)
                results += answer.get() if not answer.empty() else [("ended its process", seed)]
                worker.kill()
        else:
            results = batch(file, many, first)
        for result, seed in results:
            counts.setdefault(file.kind, Counter())[result.split(":")[0]] += 1
            if result.startswith(("untold", "half", "stumbled")):
                print(f"{result}: {file.path.parent.name}/{file.path.name} {seed}", flush=True)
    print(f"{time.monotonic() - begun:.0f} s")
    for kind, c in sorted(counts.items()):
        print(f"{kind:6}", ", ".join(f"{many} {result}" for result, many in c.most_common()))


if __name__ == "__main__":
    main(*(int(a) for a in sys.argv[1:]))
