"""What the process holds that the application's processes are forked from (tests/forked.py): all
modules imported, all compiled code loaded.
"""

import vividplank.jobs.__main__
import vividplank.serve
from vividplank.core.layout.search.warm import warm

assert vividplank.jobs.__main__ and vividplank.serve
warm()
