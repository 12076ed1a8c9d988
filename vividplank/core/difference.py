"""What differs between two documents of a job, so that an edit keeps what it changed and no more.

A difference has the values of the names that differ. Parts and boards, of which few change in an
edit, are told apart by their ids: `order` has the ids of all, `rows` those that differ.
"""

from typing import Any

Document = dict[str, Any]
_ROWS = ("parts", "boards")


def difference(before: Document, after: Document) -> tuple[Document, Document]:
    """What `applied` makes of the later document to have the earlier one again, and the other way
    round.

    >>> difference({"name": "a", "unit": "in"}, {"name": "b", "unit": "in"})
    ({'name': 'a'}, {'name': 'b'})
    """
    back: Document = {}
    on: Document = {}
    for name in before.keys() | after.keys():
        was, now = before.get(name), after.get(name)
        if was == now:
            continue
        if name in _ROWS and was is not None and now is not None:
            back[name], on[name] = _rows(was, now), _rows(now, was)
        else:
            back[name], on[name] = was, now
    return back, on


def _rows(of: list[Document], other: list[Document]) -> Document:
    known = {row["id"]: row for row in other}
    return {
        "order": [row["id"] for row in of],
        "rows": [row for row in of if known.get(row["id"]) != row],
    }


def applied(document: Document, found: Document) -> Document:
    """The document with what differs. A difference that is a whole document takes its place."""
    made = {**document}
    for name, value in found.items():
        if name in _ROWS and isinstance(value, dict):
            rows = {row["id"]: row for row in (*document[name], *value["rows"])}
            made[name] = [rows[id] for id in value["order"]]
        else:
            made[name] = value
    return made
