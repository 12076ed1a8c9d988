"""What the process holds that the application's processes are forked from (tests/forked.py): all
modules imported, all compiled code loaded.
"""

import vividplank.jobs.__main__
import vividplank.jobs.compiled
import vividplank.serve

assert vividplank.jobs.__main__ and vividplank.jobs.compiled and vividplank.serve
