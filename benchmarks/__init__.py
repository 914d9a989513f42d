"""Measured figures: `./run bench`."""
