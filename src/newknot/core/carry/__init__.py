"""Carrying a vault: what two copies that went separate ways become when they come together."""
