"""Long work on a queue that lives in PostgreSQL."""
