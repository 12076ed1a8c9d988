"""Between the core's things and what goes over the wire."""

from decimal import Decimal

from vividplank.core.board import Board
from vividplank.core.change import Change, Put
from vividplank.core.cutlist import Part
from vividplank.core.document import board_from_document, part_from_document, shop_from_document
from vividplank.core.layout.plan import Plan
from vividplank.store.layouts import Layout
from vividplank.store.projects import Project
from vividplank.web.schemas import (
    AllowanceBody,
    BoardBody,
    DefectBody,
    EditBody,
    KerfBody,
    LayoutBody,
    PanelBody,
    PartBody,
    ProjectBody,
    ShopBody,
    StationBody,
    WarpBody,
)


def project_body(project: Project) -> ProjectBody:
    shop = project.job.shop
    return ProjectBody(
        pk=project.pk, name=project.job.name, system=project.system, version=project.version,
        shop=ShopBody(
            method=shop.method, kerf=KerfBody(**vars(shop.kerf)), allowance=AllowanceBody(**vars(shop.allowance)),
            end_trim=shop.end_trim, min_blank_length=shop.min_blank_length, max_slope=shop.max_slope,
        ),
        parts=[part_body(p) for p in project.job.parts], boards=[board_body(b) for b in project.job.boards],
        undo=project.undo, redo=project.redo,
    )


def part_body(p: Part) -> PartBody:
    panel = PanelBody(stave_min=p.panel.stave_min, stave_max=p.panel.stave_max) if p.panel else None
    return PartBody(
        id=p.id, name=p.name, quantity=p.quantity, species=p.species, length=p.length, width=p.width,
        thickness=p.thickness, faces=p.faces, panel=panel, run=p.run, note=p.note,
    )


def board_body(b: Board) -> BoardBody:
    return BoardBody(
        id=b.id, species=b.species, length=b.length, price=float(b.price), quarter=b.quarter, note=b.note,
        stations=[StationBody(x=s.x, y0=s.y0, y1=s.y1, t0=s.t0, t1=s.t1) for s in b.stations],
        warp=WarpBody(bow=b.warp.bow, cup=b.warp.cup, twist=b.warp.twist),
        defects=[DefectBody(kind=d.kind, face=d.face, x0=d.x0, x1=d.x1, y0=d.y0, y1=d.y1) for d in b.defects],
    )


def board_of(body: BoardBody) -> Board:
    document = body.model_dump(exclude={"was"})
    document["price"] = Decimal(str(body.price))
    return board_from_document(document)


def change_of(body: EditBody) -> Change:
    return Change(
        body.label, body.name, None, shop_from_document(body.shop.model_dump()) if body.shop else None,
        tuple(Put(part_from_document(p.model_dump(exclude={"was"})), p.was) for p in body.put_parts),
        frozenset(body.remove_parts), tuple(Put(board_of(b), b.was) for b in body.put_boards),
        frozenset(body.remove_boards),
    )


def layout_body(layout: Layout, project: Project) -> LayoutBody:
    return LayoutBody.model_validate({
        "pk": layout.pk, "state": layout.state, "stale": layout.stale(project.job), "seconds": layout.seconds,
        "spent": layout.spent, "rounds": layout.rounds, "unplaced": layout.unplaced,
        "cost": None if layout.cost is None else float(layout.cost), "lower_bound": layout.lower_bound,
        "trouble": layout.trouble, "system": project.system,
        "plan": plan_in_ticks(layout.plan) if layout.plan else None,
        "boards": [board_body(b) for b in layout.job.boards], "parts": [part_body(p) for p in layout.job.parts],
    })


def plan_in_ticks(plan: Plan) -> dict[str, object]:
    """The plan as the screens draw it."""
    return {
        "boards": [
            {"board": b.board, "segments": [
                {"x0": s.x0, "x1": s.x1, "y0": s.y0, "slope": s.slope, "strips": [
                    {"y0": t.y0, "y1": t.y1, "blanks": [
                        {"x0": k.x0, "x1": k.x1, "layers": [
                            [{"part": i.part, "n": i.n, "stave": i.stave} for i in layer] for layer in k.layers]}
                        for k in t.blanks]}
                    for t in s.strips]}
                for s in b.segments]}
            for b in plan.boards],
        "unplaced": [{"part": u.part, "n": u.n, "why": u.why} for u in plan.unplaced],
    }
