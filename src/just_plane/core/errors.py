"""What the core raises: one class, with the parts a caller needs to say it well."""


class OpticsError(ValueError):
    """A quantity for which the formula has no honest answer.

    Attributes
    ----------
    code : str       Stable, ``quantity.reason``; for programs.
    quantity : str   The argument at fault, by its name in the signature.
    value : object   What was received.
    unit : str       Unit of ``value``; empty for ratios.
    message : str    What is wrong and why, one sentence.
    remedy : str     What would work, one sentence; may be empty.
    """

    def __init__(self, code, *, quantity, message, value=None, unit="", remedy=""):
        super().__init__(f"{message} {remedy}".strip())
        self.code = code
        self.quantity = quantity
        self.value = value
        self.unit = unit
        self.message = message
        self.remedy = remedy


class OutOfDomainError(OpticsError):
    """An argument outside the range in which the formula means anything."""


class NoImageError(OpticsError):
    """The rig, as built, puts no image of a subject in front of it on the sensor."""


class UnreachableError(OpticsError):
    """The rig works, but not at what was asked of it."""
