"""Marks made up from names, where a part has none yet. The front end's stages/list/marks.ts makes
the same ones.
"""

import re
from collections.abc import Collection


def mark_for(name: str, used: Collection[str]) -> str:
    """Initials of the name, with a number where they are taken.

    >>> mark_for("Back post", {"BP"}), mark_for("Seat", ())
    ('BP2', 'SE')
    """
    words = re.findall(r"[A-Za-z0-9]+", name)
    stem = (
        "".join(w[0] for w in words[:3]).upper() if len(words) > 1 else "".join(words)[:2].upper()
    )
    stem = stem or "P"
    if stem not in used:
        return stem
    return next(f"{stem}{n}" for n in range(2, 10**6) if f"{stem}{n}" not in used)
