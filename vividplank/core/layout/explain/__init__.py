"""Why a plan is as it is, what else might be cheaper, and what to draw on the boards."""
