"""What the store raises."""


class StoreError(Exception):
    """Something that is kept could not be read or written; ``message`` and ``remedy`` are sentences."""

    def __init__(self, message, remedy=""):
        super().__init__(f"{message} {remedy}".strip())
        self.message = message
        self.remedy = remedy


class NotFoundError(StoreError):
    """There is no such shot."""


class ConflictError(StoreError):
    """The shot has moved on since the caller last saw it."""


class MigrationError(StoreError):
    """The database could not be brought to this program's form; nothing of it was changed."""


class GoneError(StoreError):
    """The data file is not where it was; it may come back."""


class DamagedError(StoreError):
    """A record cannot be read; others can."""


class DiskError(StoreError):
    """The disk refused: full, read-only, or failing."""
