"""Second factors: codes that change with time."""

from newknot.core.second_factor.totp import Code, CodeKey

__all__ = ["Code", "CodeKey"]
