"""Calibrating the measure of strength, and holding it against an open set."""
