"""New Knot: makes, keeps, checks and rotates secrets in a sealed vault on your own machine."""

__version__ = "0.1.0"
