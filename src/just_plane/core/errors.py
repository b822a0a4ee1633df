"""What the core raises: one class, with the parts a caller needs to say it well."""

from typing import NamedTuple


class Quantity(NamedTuple):
    """A number with its unit, for a sentence that is spoken later, in whatever unit is in use."""

    value: float
    unit: str
    """``mm``, ``x`` for a magnification, empty for a plain ratio."""
    digits: int = 3
    """Significant digits that the sentence needs."""


def spoken_plainly(quantity):
    """A quantity in the core's own unit: ``0.938 mm``, ``1.5x``, ``4``."""
    gap = " " if quantity.unit not in ("", "x") else ""
    return f"{quantity.value:.{quantity.digits}g}{gap}{quantity.unit}"


class OpticsError(ValueError):
    """A quantity for which the formula has no honest answer.

    Attributes
    ----------
    code : str       Stable, ``quantity.reason``; for programs.
    quantity : str   The argument at fault, by its name in the signature.
    value : object   What was received.
    unit : str       Unit of ``value``; empty for ratios.
    message : str    What is wrong and why, one sentence, lengths in mm.
    remedy : str     What would work, one sentence; may be empty.

    ``message`` and ``remedy`` are given as templates: ``{name}`` stands for one of the quantities given by name, so
    that whoever speaks to a person can say them in the unit in use (:meth:`spoken`).
    """

    def __init__(self, code, *, quantity, message, value=None, unit="", remedy="", **quantities):
        self.code = code
        self.quantity = quantity
        self.value = value
        self.unit = unit
        self.quantities = quantities
        self._templates = (message, remedy)
        super().__init__(" ".join(part for part in self.spoken() if part))

    @property
    def message(self):
        """What is wrong and why, one sentence.

        Returns
        -------
        str   Lengths in mm.
        """
        return self.spoken()[0]

    @property
    def remedy(self):
        """What would work, one sentence.

        Returns
        -------
        str   Lengths in mm; may be empty.
        """
        return self.spoken()[1]

    def spoken(self, speak=spoken_plainly):
        """Message and remedy, every quantity said by ``speak(Quantity) -> str``: (str, str)."""
        if not self.quantities:
            return self._templates
        words = {name: speak(quantity) for name, quantity in self.quantities.items()}
        return tuple(template.format(**words) for template in self._templates)

    def with_remedy(self, remedy):
        """The same refusal with another way out.

        Parameters
        ----------
        remedy : str   A template as the constructor takes it.

        Returns
        -------
        OpticsError    Of the same class.
        """
        message, _ = self._templates
        return type(self)(
            self.code,
            quantity=self.quantity,
            value=self.value,
            unit=self.unit,
            message=message,
            remedy=remedy,
            **self.quantities,
        )


class OutOfDomainError(OpticsError):
    """An argument outside the range in which the formula means anything."""


class NoImageError(OpticsError):
    """The rig, as built, puts no image of a subject in front of it on the sensor."""


class UnreachableError(OpticsError):
    """The rig works, but not at what was asked of it."""
