"""Files in and out: the job and plan formats, parts lists, drawings of a plan."""

from vividplank.core.exchange.job_file import job_document, read_job, read_workshop
from vividplank.core.exchange.plan_file import plan_document, read_plan
from vividplank.core.refusal import Refusal

__all__ = [
    "Refusal",
    "job_document",
    "plan_document",
    "read_job",
    "read_plan",
    "read_workshop",
]
