"""What a reading of a drawing is made of, whatever the file's format."""
