"""Laying parts out on boards: the search, its bound, and the audit."""
