"""Base of every error that New Knot raises on purpose: a class, a stable code, and data."""

import re


class NewKnotError(Exception):
    """An expected failure. `code` names it for other layers; `data` holds no secret, ever."""

    def __init__(self, **data: object) -> None:
        self.data = data
        super().__init__(self.code)

    @property
    def code(self) -> str:
        """The class name in snake_case: what HTTP answers and the interface's sentences key on."""
        return re.sub(r"(?<!^)(?=[A-Z])", "_", type(self).__name__).lower()


class FieldInvalid(NewKnotError):
    """A value that cannot be used. data: field (dotted path), reason (a plain sentence)."""

    def __init__(self, field: str, reason: str) -> None:
        super().__init__(field=field, reason=reason)
