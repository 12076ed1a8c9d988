"""Sources of wood and their price books."""

from dataclasses import replace

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.buying.market.price_book import (
    price_book_csv,
    price_book_xlsx,
    read_price_book,
)
from vividplank.store import buying
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas.buying import (
    PriceBook,
    SourceList,
    SourcePath,
    SourcePut,
)
from vividplank.web.schemas.project import (
    TroubleBody,
)

area = APIBlueprint(
    "sources", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/sources", responses={200: SourceList})
def get_sources() -> Response:
    with session() as opened:
        return answer.body(SourceList(sources=list(buying.sources(opened))))


@area.put("/sources/<source>", responses={204: None})
def put_source(path: SourcePath, body: SourcePut) -> Response:
    with session() as opened:
        buying.put_source(opened, replace(body.source, id=path.source))
    return Response(status=204)


@area.delete("/sources/<source>", responses={204: None})
def drop_source(path: SourcePath) -> Response:
    with session() as opened:
        buying.drop_source(opened, path.source)
    return Response(status=204)


@area.get("/sources.csv", responses={200: None})
def get_price_book() -> Response:
    with session() as opened:
        text = price_book_csv(buying.sources(opened))
    return answer.file(text, "price book.csv", "text/csv")


@area.get("/sources.xlsx", responses={200: None})
def get_price_workbook() -> Response:
    with session() as opened:
        content = price_book_xlsx(buying.sources(opened))
    kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
    return answer.file(content, "price book.xlsx", kind)


@area.post("/sources.csv", responses={200: SourceList})
def read_prices(body: PriceBook) -> Response:
    """Take in a price book: the prices of the sources it names are replaced, new ones are added."""
    with session() as opened:
        for source in read_price_book(body.text, buying.sources(opened)):
            buying.put_source(opened, source)
        return answer.body(SourceList(sources=list(buying.sources(opened))))
