"""What `./plank` does before the application's own Python exists. Standard library only."""
