"""Open formats in and out, one a file."""
