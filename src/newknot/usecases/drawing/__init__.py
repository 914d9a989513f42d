"""Secrets drawn by chance, and what is kept of them."""
