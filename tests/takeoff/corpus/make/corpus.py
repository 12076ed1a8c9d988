"""Where the files of the corpus go, with the list that each of them ought to become beside it."""

import json
from pathlib import Path

CORPUS = Path(__file__).resolve().parent.parent
#: Name, how many, length, width, thickness in mm; thickness 0 where a flat drawing does not say it.
Row = tuple[str, int, float, float, float]


def least_box(points: list[tuple[float, float]]) -> tuple[float, float]:
    """Long and short side of the smallest rectangle round many points of a curve."""
    from shapely.geometry import MultiPoint

    ring = MultiPoint(points).minimum_rotated_rectangle.exterior.coords
    sides = sorted(
        ((ring[k][0] - ring[k + 1][0]) ** 2 + (ring[k][1] - ring[k + 1][1]) ** 2) ** 0.5
        for k in (0, 1)
    )
    return sides[1], sides[0]


class Writer:
    """The files of one program or library: its folder, and `truth.json` in it."""

    def __init__(self, name: str) -> None:
        self.folder = CORPUS / name
        self.folder.mkdir(exist_ok=True)
        self.truth: dict[str, object] = {}

    def path(self, name: str) -> str:
        return str(self.folder / name)

    def holds(self, name: str, parts: list[Row], unit: str = "", says: str = "") -> None:
        """`unit` is what the maker would answer where the file does not say it, `says` what is
        special about the file.
        """
        truth: dict[str, object] = {"parts": parts}
        if unit:
            truth["unit"] = unit
        if says:
            truth["says"] = says
        self.truth[name] = truth

    def done(self) -> None:
        lines = ",\n".join(
            f"{json.dumps(name)}: {json.dumps(truth, ensure_ascii=False)}"
            for name, truth in self.truth.items()
        )
        (self.folder / "truth.json").write_text("{\n" + lines + "\n}\n", encoding="utf-8")
