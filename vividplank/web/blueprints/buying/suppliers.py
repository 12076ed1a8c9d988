"""Suppliers of wood and their price books."""

from dataclasses import replace

from flask import Response, request
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
    SupplierList,
    SupplierPath,
    SupplierPut,
)
from vividplank.web.schemas.project import (
    TroubleBody,
)

area = APIBlueprint(
    "suppliers", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/suppliers", responses={200: SupplierList})
def get_suppliers() -> Response:
    with session() as opened:
        return answer.body(SupplierList(suppliers=list(buying.suppliers(opened))))


@area.put("/suppliers/<supplier>", responses={204: None})
def put_supplier(path: SupplierPath, body: SupplierPut) -> Response:
    with session() as opened:
        buying.put_supplier(opened, replace(body.supplier, id=path.supplier))
    return Response(status=204)


@area.delete("/suppliers/<supplier>", responses={204: None})
def drop_supplier(path: SupplierPath) -> Response:
    with session() as opened:
        buying.drop_supplier(opened, path.supplier)
    return Response(status=204)


@area.get("/suppliers.csv", responses={200: None})
def get_price_book() -> Response:
    with session() as opened:
        text = price_book_csv(buying.suppliers(opened))
    return answer.file(text, "price book.csv", "text/csv")


@area.get("/suppliers.xlsx", responses={200: None})
def get_price_workbook() -> Response:
    with session() as opened:
        content = price_book_xlsx(buying.suppliers(opened))
    kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
    return answer.file(content, "price book.xlsx", kind)


@area.post("/suppliers.csv", responses={200: SupplierList})
def read_prices(body: PriceBook) -> Response:
    """Take in a price book: prices of the suppliers it names are replaced, new ones added."""
    return _taken_in(body.text)


@area.post("/suppliers.xlsx", responses={200: SupplierList})
def read_price_workbook() -> Response:
    """The same from a workbook, sent as it is."""
    return _taken_in(request.get_data())


def _taken_in(content: str | bytes) -> Response:
    with session() as opened:
        for supplier in read_price_book(content, buying.suppliers(opened)):
            buying.put_supplier(opened, supplier)
        return answer.body(SupplierList(suppliers=list(buying.suppliers(opened))))
