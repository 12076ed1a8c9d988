"""Bodies of the API's requests and answers."""
