"""Logins, what belongs to them, and what they had before."""
