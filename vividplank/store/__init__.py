"""Projects, boards, layouts and drawings in PostgreSQL, through SQLAlchemy."""
