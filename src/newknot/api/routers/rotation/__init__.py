"""Secrets changed at their sites, by hand or driven."""
