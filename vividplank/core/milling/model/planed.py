"""How thick a blank leaves the planer."""

from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, Segment


def planed(job: Job, blank: Blank) -> int:
    """Its finished thickness; one that is resawn keeps the allowance of each layer and the saw's
    kerf between them, a stave what its panel loses when it is flattened after glue-up.
    """
    finish = max(job.part(i.part).thickness for i in blank.items())
    layers = len(blank.layers)
    if layers == 1:
        return finish + (job.shop.allowance.face if any(i.stave for i in blank.items()) else 0)
    return job.shop.flat_for(finish, layers)


def segment_planed(job: Job, segment: Segment) -> int:
    """Of a segment that is milled in one piece: the most any blank in it asks for; 0 where it holds
    none.
    """
    return max(
        (planed(job, blank) for strip in segment.strips for blank in strip.blanks), default=0
    )
