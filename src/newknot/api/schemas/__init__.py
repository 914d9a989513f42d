"""The shapes of requests and answers."""
