"""Use cases are tried through the API, on a real temporary vault."""

from tests.api.conftest import api, closed

__all__ = ["api", "closed"]
