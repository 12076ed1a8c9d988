"""From a plan to the steps of each board and panel."""
