"""The HTTP API and the pages: one blueprint per stage."""
