"""Files that other programs wrote, their truth beside them: right at once or after one answer,
never wrong without a word.
"""

from collections import Counter

import pytest

from bench.takeoff_corpus import files, judged
from tests.profiles import half

FILES = files()
#: What is told of a file that nobody's answer makes right: a body with a face missing.
ONLY_TOLD = {"trimesh/open-end.stl"}


def test_there_are_many_files_of_many_writers() -> None:
    assert len(FILES) >= 120 and len({f.path.parent for f in FILES}) >= 12
    assert all(f.path.is_file() for f in FILES)
    beside = {p for f in FILES for p in f.path.parent.iterdir() if p.name != "truth.json"}
    assert beside == {f.path for f in FILES}  # none lies there without its truth


@pytest.mark.parametrize("kind", sorted({f.kind for f in FILES}))
def test_files_become_the_right_list_or_a_question(kind: str) -> None:
    of_kind = [f for f in FILES if f.kind == kind]
    tried = half(of_kind) if kind == "step" else of_kind  # these take most of the time
    results = {f"{f.path.parent.name}/{f.path.name}": judged(f)[0] for f in tried}
    assert {
        name for name, result in results.items() if result not in ("right", "one answer")
    } <= ONLY_TOLD
    asked = Counter(results.values())["one answer"]
    assert asked <= len(results) / 4, "most files need no answer at all"
