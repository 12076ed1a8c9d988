"""One blueprint for each area of the API."""
