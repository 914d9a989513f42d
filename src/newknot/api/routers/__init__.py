"""Routes, one noun a file."""
