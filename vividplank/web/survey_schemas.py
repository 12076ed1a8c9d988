"""A board surveyed before any cut, over the wire. Lengths in ticks."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.web.schemas import BoardBody, Body, PieceBody, Ticks


class CutPieceBody(PieceBody):
    """`corners` to take off face B first: datum edge near and far, then the other edge; `saved` by shimming it so."""

    corners: list[Ticks]
    saved: Ticks


class AreaBody(Body):
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks
    face: Literal["A", "B", "both"]


class TryCuts(Body):
    board: BoardBody
    places: Annotated[list[Ticks], Field(max_length=20)] = []


class TriedCuts(Body):
    pieces: list[CutPieceBody]


class SurveyAsk(Body):
    """A board; a thickness wanted of it; a quality looked for."""

    board: BoardBody
    wanted: Annotated[Ticks, Field(gt=0)] | None = None
    quality: Literal["clear-two", "clear-one", "sound"] = "clear-one"


class RestBody(Body):
    """`away` from equilibrium in points; `shrinks` in ticks of its width until then, quarter-sawn and flat-sawn."""

    equilibrium: float
    away: float
    days: float
    least: float
    most: float
    own: bool
    shrinks: list[Ticks] | None


class SurveyBody(Body):
    said: str
    rest: RestBody | None
    areas: list[AreaBody]
    grade: str
    share: float
    surface: int
