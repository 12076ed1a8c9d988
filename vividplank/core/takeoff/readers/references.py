"""Other files that a model refers to for its parts. Without the CAD kernel: the server asks as
well.
"""

import re

#: So many other files an assembly may lie in.
_MOST_FILES = 60


def refers_to(content: bytes) -> list[str]:
    """The names, without folders, of the files that a STEP assembly has its parts in; none for any
    other file.

    >>> refers_to(b"ISO-10303-21; #7 = DOCUMENT_FILE('parts/Rail.stp','',$,#8,'',$);")
    ['Rail.stp']
    """
    if b"ISO-10303-21" not in content[:4096]:
        return []
    named = re.findall(rb"DOCUMENT_FILE\s*\(\s*'((?:[^']|'')*)'", content)
    found = dict.fromkeys(
        n.decode("utf-8", "replace").rsplit("/", 1)[-1].rsplit("\\", 1)[-1] for n in named
    )
    return [n for n in found if n not in ("", ".", "..")][:_MOST_FILES]
