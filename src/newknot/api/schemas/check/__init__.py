"""The check of the vault, and what it says is to be done."""
