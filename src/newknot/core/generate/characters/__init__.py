"""Strings of characters to a site policy: counted, and drawn uniformly."""
