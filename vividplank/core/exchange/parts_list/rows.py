"""The rows of a list as people have it: CSV, TSV, a Markdown table, columns lined up by blanks, or
one part a line.
"""

import csv
import io
import re

from vividplank.core.cutlist.headings import TITLE_ROWS, headings

#: What stands between columns that are lined up by blanks.
_BLANKS = re.compile(r"\s{2,}")
#: A row that is only the rule under the headings.
_RULE = re.compile(r"\s*:?[-=_+]{2,}:?\s*")
_LENGTH = r"\d+(?:[.,]\d+)?(?:[ -]\d+/\d+|/\d+)?\s*(?:mm|cm|m|inch(?:es)?|in|ft|\"|''|″|'|′)?"
#: Three sizes with an x between them.
SIZE = re.compile(rf"{_LENGTH}\s*[x×*]\s*{_LENGTH}\s*[x×*]\s*{_LENGTH}(?![\w/])", re.IGNORECASE)
_BULLET = r"(?:[-*•–·]\s+|\d{1,3}[.)]\s+)?"
_LINE = re.compile(
    rf"\s*{_BULLET}(?P<name>.*?[^\W\d_].*?)[\s:,;–-]*(?P<size>{SIZE.pattern})(?P<rest>.*)",
    re.IGNORECASE,
)
#: How many there are, in front of a name or behind it.
_BEFORE = re.compile(
    r"(\d{1,3})\s*(?:[x×]|off|pcs?\.?|no\.?|stk\.?|st\.)?\s+(?=[^\W\d_])", re.IGNORECASE
)
_BEHIND = re.compile(
    r"[\s,]*(?:\((?:x\s*)?(\d{1,3})(?:\s*x)?\)|(?<=[\s,])[x×]\s?(\d{1,3})|\b(?:qty|no)\.?:?\s*(\d{1,3})|[,;:]\s*(\d{1,3})(?:\s*(?:off|pcs?\.?|st(?:k|ck)?\.?))?)\s*[,;]?\s*$",
    re.IGNORECASE,
)
#: And behind the sizes.
_AFTER = re.compile(
    r"\(?\s*(?:[x×]\s*)?(\d{1,3})\s*(?:[x×]|off|pcs?\.?|stk\.?)?\s*\)?(?=$|[\s,;])", re.IGNORECASE
)


#: The name behind the sizes: 2 @ 1100 x 82 x 22 Rail.
_NAME_LAST = re.compile(
    rf"\s*{_BULLET}(?:(?P<many>\d{{1,3}})\s*(?:@|[x×]|off|pcs?\.?|no\.?|:)\s+)?(?P<size>{SIZE.pattern})\s*(?P<name>[^\W\d_].*)",
    re.IGNORECASE,
)


def rows_of(text: str) -> tuple[list[list[str]], bool]:
    """The cells of each row; and whether the rows are lines of one part each, cut into name, count,
    size and what follows.
    """
    text = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").strip("\n")
    if not text.strip():
        return [], False
    lines = text.split("\n")
    # A quote mark is an inch mark here unless the table is a CSV that quotes its cells.
    if any("\t" in line for line in lines):
        return [line.split("\t") for line in lines], False
    if all(line.strip().startswith("|") for line in lines if line.strip()):
        return [
            row
            for row in (line.strip().strip("|").split("|") for line in lines if line.strip())
            if not _rule(row)
        ], False
    if _free(lines):
        return [_cut(line) for line in lines], True
    semicolons, commas = (sum(mark in line for line in lines) for mark in ";,")
    if (
        not semicolons
        and not commas
        and any(len(_BLANKS.split(line.strip())) > 2 for line in lines)
    ):
        return [
            row for row in (_BLANKS.split(line.strip()) for line in lines) if not _rule(row)
        ], False
    mark = ";" if semicolons >= max(commas, 1) or lines[0].count(";") > lines[0].count(",") else ","
    return list(csv.reader(io.StringIO(text), delimiter=mark, skipinitialspace=True)), False


def counted(name: str) -> tuple[str, str]:
    """A name without the count that stands in front of it or behind it, and that count.

    >>> [counted(cell) for cell in ("Legs (4)", "2x Rail", "4 legs", "Shelf x3", "Rail")]
    [('Legs', '4'), ('Rail', '2'), ('legs', '4'), ('Shelf', '3'), ('Rail', '')]
    """
    if before := _BEFORE.match(name):
        return name[before.end() :].strip(), before[1]
    if behind := _BEHIND.search(name):
        found = next(g for g in behind.groups() if g)
        return name[: behind.start()].strip(), found
    return name, ""


def _rule(row: list[str]) -> bool:
    return any(cell.strip() for cell in row) and all(
        _RULE.fullmatch(cell) or not cell.strip() for cell in row
    )


def _free(lines: list[str]) -> bool:
    """Whether at least half of the lines are a part each, and stand under no headings."""
    filled = [line for line in lines if line.strip()]
    if any(
        headings([cell.strip() for cell in line.split(mark)])
        for line in filled[:TITLE_ROWS]
        for mark in ";,"
    ):
        return False
    return 2 * sum(
        bool(_LINE.fullmatch(line) or _NAME_LAST.fullmatch(line)) for line in filled
    ) >= len(filled)


def _cut(line: str) -> list[str]:
    found = _LINE.fullmatch(line)
    if not found and (last := _NAME_LAST.fullmatch(line)):
        name, many = counted(last["name"].strip(" ,;.–-"))
        return [name, last["many"] or many, last["size"].strip(), ""]
    if not found:
        return [line.strip()]
    name, many = counted(found["name"].strip(" ,;:–-"))
    rest = found["rest"].strip(" ,;.–-")
    if not many and (behind := _AFTER.match(rest)):
        many, rest = behind[1], rest[behind.end() :].strip(" ,;.–-")
    return [name, many, found["size"].strip(), rest]
