"""Parts from flat drawings: closing outlines, nesting, naming."""
