"""How often files that general programs wrote become the right list: those of tests/takeoff/corpus,
their truth beside them.

    .plank/venv/bin/python -m bench.takeoff_corpus [word in the path]

Right: counts and sizes are the truth at once. One answer: they are once a single question is
answered: the unit, the columns, one decision turned round. Told: they are not, but the reading
names a trouble or asks, or the file is refused. Wrong without a word is the rest. Names are
compared only where the truth has one.
"""

import json
import re
import sys
from collections import Counter
from dataclasses import dataclass, field, replace
from pathlib import Path

from vividplank.core.exchange.parts_list import ListAnswers, Question, read_parts
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff import Settings, Unreadable, read

CORPUS = Path(__file__).resolve().parent.parent / "tests" / "takeoff" / "corpus"
#: Sizes agree within this (mm): facets of round things stand off so far.
WITHIN = 0.25
Row = tuple[str, int, float, float, float]


@dataclass(frozen=True)
class File:
    path: Path
    parts: list[Row]
    unit: str = ""

    @property
    def kind(self) -> str:
        return (
            "list"
            if (ending := self.path.suffix[1:]) in ("csv", "tsv", "txt", "xlsx", "ods")
            else ending
        )


@dataclass(frozen=True)
class Became:
    """What a file was read as, in mm; `words` are what was asked and told about it."""

    parts: list[Row] = field(default_factory=list)
    words: list[str] = field(default_factory=list)
    asks: bool = False
    turns: tuple[str, ...] = ()
    questions: tuple[Question, ...] = ()


def files(word: str = "") -> list[File]:
    found = []
    for truth in sorted(CORPUS.glob("*/truth.json")):
        for name, holds in json.loads(truth.read_text()).items():
            if word in f"{truth.parent.name}/{name}":
                found.append(
                    File(
                        truth.parent / name,
                        [tuple(p) for p in holds["parts"]],
                        holds.get("unit", ""),
                    )
                )
    return found


def became(file: File, settings: Settings, answers: ListAnswers | None = None) -> Became:
    try:
        reading, _ = read(file.path.read_bytes(), file.path.name, settings)
    except Unreadable as problem:
        return Became(words=[str(problem)])
    if reading.kind == "list":
        listed = read_parts(reading.table, "mm", species="ash", answers=answers)
        words = [*(q.says for q in listed.questions), *(r.why for r in listed.refused)]
        parts, mm = listed.parts, TICKS_PER_MM
        rows = [(p.name, p.quantity, p.length / mm, p.width / mm, p.thickness / mm) for p in parts]
        return Became(rows, words, bool(listed.questions), questions=listed.questions)
    mm = TICKS_PER_MM
    rows = [
        (p.name, p.quantity, p.length / mm, p.width / mm, p.thickness / mm) for p in reading.parts
    ]
    words = [*filter(None, [reading.asks]), *reading.troubles]
    return Became(
        rows, words, bool(reading.asks), tuple(d.key for d in reading.decisions if d.turn)
    )


def judged(file: File) -> tuple[str, Became]:
    first = became(file, Settings())
    if same(first.parts, file.parts) and not first.questions:
        return "right", first
    answers = [Settings(turned=frozenset({key})) for key in first.turns]
    if file.unit and first.asks:
        answers += [Settings(file.unit), *(replace(a, unit=file.unit) for a in answers)]  # type: ignore[arg-type]
    if any(same(became(file, answer).parts, file.parts) for answer in answers):
        return "one answer", first
    for question in first.questions:
        for option, _ in question.options:
            after = became(file, Settings(), _answer(question.kind, option))
            if same(after.parts, file.parts) and not after.questions:
                return "one answer", first
    return ("told" if first.words else "wrong"), first


def _answer(kind: str, option: str) -> ListAnswers:
    if kind == "unit":
        return ListAnswers(unit=option)  # type: ignore[arg-type]
    if kind == "order":
        return ListAnswers(order=option)
    return (
        ListAnswers(thousands=option == "yes")
        if kind == "thousands"
        else ListAnswers(confirmed=True)
    )


def same(found: list[Row], truth: list[Row]) -> bool:
    """Whether each row of the truth is found as often as it is there, and nothing else."""
    left = [list(row) for row in found]
    for name, many, *size in truth:
        for row in left:
            close = all(abs(a - b) < WITHIN for a, b in zip(row[2:], size, strict=True))
            if row[1] == many and close and (not name or _plain(name) in _plain(row[0])):
                left.remove(row)
                break
        else:
            return False
    return not left


def _plain(name: str) -> str:
    return re.sub(r"[\W_]+", "", name.casefold())


def main(word: str = "") -> None:
    counts: dict[str, Counter[str]] = {}
    for file in files(word):
        result, first = judged(file)
        counts.setdefault(file.kind, Counter())[result] += 1
        if result in ("told", "wrong") or word:
            print(
                f"{result}: {file.path.parent.name}/{file.path.name}: "
                f"{'; '.join(first.words)[:300]}"
            )
            if word or result == "wrong":
                print(
                    "   found",
                    [(n, m, *(round(s, 2) for s in size)) for n, m, *size in first.parts],
                )
                print("   truth", file.parts)
    print(f"\n{'':6}  right  one answer  told  wrong without a word")
    for kind, c in [*sorted(counts.items()), ("all", sum(counts.values(), Counter()))]:
        print(f"{kind:6}  {c['right']:5}  {c['one answer']:10}  {c['told']:4}  {c['wrong']:5}")


if __name__ == "__main__":
    main(*sys.argv[1:2])
