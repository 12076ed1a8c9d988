"""Patterns: starting points that write formula parts with their joinery."""

from vividplank.core.takeoff.patterns.write import (
    PATTERNS,
    PatternTrouble,
    Sketch,
    Written,
    pattern_named,
    write,
)

__all__ = ["PATTERNS", "PatternTrouble", "Sketch", "Written", "pattern_named", "write"]
