"""What can go wrong with a seal."""

from newknot.core.errors import NewKnotError


class SealBroken(NewKnotError):
    """A sealed text that this key and these circumstances do not open: one error for every way."""


class KeyParametersRefused(NewKnotError):
    """Argon2id parameters outside the bounds within which they are believed. data: field."""
