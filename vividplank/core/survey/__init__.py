"""How a board is recorded: instruments, scans, photographs, questions."""
