"""The base of the errors that the core raises about what it was given."""

from __future__ import annotations


class CoreError(ValueError):
    """Something given to the core cannot be used. The message says why, in words for whoever gave
    it; `field` names what is wrong, empty where it is the whole."""

    def __init__(self, message: str, field: str = "") -> None:
        super().__init__(message)
        self.field = field
