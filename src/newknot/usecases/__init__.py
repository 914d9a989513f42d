"""What a screen asks for: one noun a file, one verb a function, no HTTP words."""
