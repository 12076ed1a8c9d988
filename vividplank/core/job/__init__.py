"""The job of a project: what is wanted, what stock there is, and edits of it."""

from vividplank.core.job.job import Job

__all__ = ["Job"]
