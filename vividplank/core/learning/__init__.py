"""What a shop learns from what has happened in it."""
