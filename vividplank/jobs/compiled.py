"""Importing this loads the compiled code, for the processes that are forked from one that did."""

from vividplank.core.layout.search.warm import warm

warm()
