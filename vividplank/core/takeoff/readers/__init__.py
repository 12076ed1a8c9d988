"""One reader for each kind of file."""
