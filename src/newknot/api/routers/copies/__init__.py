"""Sealed copies of the whole vault: backups, bundles, merging."""
