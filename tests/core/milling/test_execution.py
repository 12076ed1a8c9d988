"""Every route can be carried out to the letter: by a machine shop that shares nothing with what
planned it, on random jobs in random shops by every school.
"""

import time
from dataclasses import replace

import pytest
from hypothesis import given

from tests.conftest import ROOT
from tests.core.layout.search.test_limits import millings
from tests.jobs import jobs
from tests.machine_shop import told, violations
from tests.profiles import examples
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.exchange.route_file import route_document
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.route.routes import usual_milling
from vividplank.core.milling.shop.school import SCHOOLS, School

DOCS = ROOT / "docs" / "examples"


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("name", ["settle", "lectern"])
def test_the_examples_can_be_made_as_their_steps_say(name: str, school: School) -> None:
    job = read_job((DOCS / f"{name}.job.json").read_bytes()).on_boards()
    plan = read_plan((DOCS / f"{name}.plan.json").read_bytes())
    milling = replace(usual_milling(job), school=school)
    document = route_document(routes(job, plan, milling), job.unit)
    found = violations(job, plan, milling.machines, document)
    assert not found, told(found)


@examples(120)
@given(jobs(), millings())
def test_any_job_in_any_shop_can_be_made_as_its_steps_say(job: Job, milling: Milling) -> None:
    job = job.on_boards()
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    document = route_document(routes(job, plan, milling), job.unit)
    found = violations(job, plan, milling.machines, document)
    assert not found, told(found)
