"""Logins in and out by open formats."""
