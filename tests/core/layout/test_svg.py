"""A plan as SVG: to scale, named, and safe whatever the names."""

import json
import re
from dataclasses import replace
from xml.etree import ElementTree

import pytest

from tests.core.layout.model.test_audit import JOB, PLAN
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.layout.explain.svg import plan_svg

HAND_JOB, HAND_PLAN = read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))
SVG = "{http://www.w3.org/2000/svg}"


def test_it_is_drawn_one_to_one_in_millimetres() -> None:
    root = ElementTree.fromstring(plan_svg(HAND_JOB, HAND_PLAN))
    assert root.get("width") == "1524mm"  # the longest board, 60 in
    assert (root.get("viewBox") or "").startswith("0 0 1524 ")
    outline = root.find(f".//{SVG}polygon[@class='board']")
    assert outline is not None
    points = [tuple(map(float, p.split(","))) for p in (outline.get("points") or "").split()]
    assert max(x for x, _ in points) == pytest.approx(60 * 25.4)
    assert max(y for _, y in points) == pytest.approx(6.5 * 25.4)


def test_every_blank_is_there_with_what_it_holds() -> None:
    root = ElementTree.fromstring(plan_svg(HAND_JOB, HAND_PLAN))
    assert len(root.findall(f".//{SVG}polygon[@class='blank']")) == 6
    words = [text.text for text in root.iter(f"{SVG}text")]
    assert {"A1", "A2", "P1·1", "P1·2", "R1 + R2", "L1 / L2"} <= set(words)
    assert {g.get("id") for g in root.iter(f"{SVG}g")} == {"B1", "B2"}


def test_faults_are_marked_with_their_kind() -> None:
    text = plan_svg(HAND_JOB, HAND_PLAN)
    assert "tight-knot (A)" in text and "check (both)" in text


def test_names_cannot_break_out_of_the_drawing() -> None:
    rude = '<script>alert("x")</script>'
    boards = tuple(
        replace(b, species=rude, defects=tuple(replace(d, kind=rude) for d in b.defects))
        for b in HAND_JOB.boards
    )
    text = plan_svg(replace(HAND_JOB, name=rude, boards=boards), HAND_PLAN)
    assert not re.search("<script", text)
    words = [element.text for element in ElementTree.fromstring(text).iter(f"{SVG}text")]
    assert any(rude in (word or "") for word in words)


def test_an_empty_plan_is_an_empty_drawing() -> None:
    root = ElementTree.fromstring(plan_svg(HAND_JOB, replace(HAND_PLAN, boards=())))
    assert root.findall(f".//{SVG}polygon") == [] and list(root.iter(f"{SVG}text")) == []
