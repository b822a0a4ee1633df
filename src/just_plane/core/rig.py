"""The rig: a chain of thin elements from subject to sensor, answered by one paraxial ray matrix.

Elements stand in the order in which light meets them: close-up lens, prime, tube, converter, tube, sensor. The prime
brings its own image distance; a tube adds to the gap behind what stands before it; a converter moves the image and so
the sensor. No accessory has a rule of thumb of its own. A model: thin elements, no aberrations; measured values, where
the photographer has them, replace its answers. See docs/derivations/rig.md.
"""

import math
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import non_negative, positive
from just_plane.core.errors import NoImageError, OutOfDomainError, UnreachableError
from just_plane.core.lens import Prime


@dataclass(frozen=True, slots=True)
class CloseUpLens:
    """A lens on the filter thread; ``power`` in dioptres (1/m), >= 0. Touches the prime in this model."""

    power: float

    def __post_init__(self):
        non_negative("power", self.power, "dioptres")


@dataclass(frozen=True, slots=True)
class Tube:
    """An extension tube, or bellows at one setting; ``length`` in mm, >= 0."""

    length: float

    def __post_init__(self):
        non_negative("length", self.length, "mm")


@dataclass(frozen=True, slots=True)
class Teleconverter:
    """A teleconverter: ``factor`` > 1, ``thickness`` between its mounts in mm, > 0."""

    factor: float
    thickness: float

    def __post_init__(self):
        positive("thickness", self.thickness, "mm")
        if not 1 < self.factor <= 10:
            raise OutOfDomainError(
                "factor.not_above_1",
                quantity="factor",
                value=self.factor,
                message=f"A converter's factor must be above 1 and at most 10; got {self.factor:g}.",
                remedy="Leave the converter out if there is none.",
            )

    @property
    def focal_length(self):
        """Of the thin negative lens that stands for it, mm: -k t / (k - 1)^2."""
        return -self.factor * self.thickness / (self.factor - 1) ** 2

    @property
    def before_image(self):
        """How far it stands before the image it enlarges, mm: t / (k - 1)."""
        return self.thickness / (self.factor - 1)


class Imaging(NamedTuple):
    """What a rig does at one setting. Lengths in mm; each is a float, or an array over own magnifications."""

    magnification: float
    """Of the whole rig: image size / subject size."""
    subject_to_first_lens: float
    """From the plane of focus to the first element; inf at infinity."""
    subject_to_sensor: float
    length: float
    """From the first element to the sensor."""
    f_number_factor: float
    """Effective f-number / marked f-number."""
    pupil_distance: float
    """From the plane of focus to the rig's entrance pupil."""
    chief_scale: float
    """Image height per unit of angle at the entrance pupil: how large things stand on the sensor while the camera
    stays. Its change over a focus throw is the crop that a stack by ring costs."""


@dataclass(frozen=True, slots=True)
class Rig:
    """A chain of elements, subject to sensor, with one :class:`~just_plane.core.lens.Prime` in it."""

    elements: tuple

    def __post_init__(self):
        kinds = [type(element) for element in self.elements]
        if kinds.count(Prime) != 1:
            raise OutOfDomainError(
                "elements.not_one_prime",
                quantity="elements",
                value=kinds.count(Prime),
                message=f"The rig needs one lens; it has {kinds.count(Prime)}.",
                remedy="Put one lens in the chain.",
            )
        place = kinds.index(Prime)
        if any(kind is not CloseUpLens for kind in kinds[:place]) or CloseUpLens in kinds[place:]:
            raise OutOfDomainError(
                "elements.order",
                quantity="elements",
                message="A close-up lens goes in front of the lens; tubes and converters go behind it.",
                remedy="Move the piece to the other side of the lens.",
            )

    @property
    def prime(self):
        return next(element for element in self.elements if isinstance(element, Prime))

    def focused(self, own_magnification):
        """The same rig with the focus ring elsewhere; an array asks for many settings at once."""
        return Rig(
            tuple(
                replace(element, own_magnification=own_magnification) if isinstance(element, Prime) else element
                for element in self.elements
            )
        )

    def imaging(self):
        """What the rig does at this setting.

        Returns
        -------
        Imaging        mm and ratios.

        Raises
        ------
        NoImageError   Light leaves the rig diverging (no subject in front of it comes to focus), or a converter would
                       have to stand inside the lens.
        """
        prime = self.prime
        front, behind, length = self._around_prime()
        a, b = self._image_row(front, behind)
        magnification = abs(a)
        distance = _divided(b, magnification)
        pupil_ahead, chief = _pupil(prime, front, behind)
        return Imaging(
            magnification,
            distance,
            distance + length,
            length,
            _f_number_factor(prime, front, behind, magnification / b),
            distance - pupil_ahead,
            chief,
        )

    def magnification(self):
        """Of the whole rig at this setting: image size / subject size. Raises NoImageError as :meth:`imaging`."""
        front, behind, _ = self._around_prime()
        return 0.0 - self._image_row(front, behind)[0]  # from 0.0, so that infinity is 0 and not -0

    def at_magnification(self, magnification):
        """The rig with its focus ring set to give a magnification.

        Parameters
        ----------
        magnification : float   Wanted, > 0.

        Returns
        -------
        Rig

        Raises
        ------
        UnreachableError        Outside what the ring can do with these pieces; the message says what it can.
        NoImageError            As for :meth:`imaging`.
        """
        positive("magnification", magnification)
        smallest, largest = self.magnification_range()
        slack = 1e-9 * largest
        if not smallest - slack <= magnification <= largest + slack:
            reach = f"{smallest:.3g}x to {largest:.3g}x" if smallest < largest - slack else f"{largest:.3g}x only"
            more = magnification > largest
            raise UnreachableError(
                "magnification.beyond" if more else "magnification.below",
                quantity="magnification",
                value=magnification,
                message=f"{magnification:.3g}x is {'beyond' if more else 'below'} this rig: it gives {reach}.",
                remedy="Add a tube, or ask for a wider frame." if more else "Use a shorter tube, or a narrower frame.",
            )
        # Magnification grows along the throw: find the stretch it lies in, all settings at once, then close in.
        settings = np.linspace(0.0, self.prime.closest_magnification, 33)
        reached = self.focused(settings).magnification()
        after = min(max(int(np.searchsorted(reached, magnification)), 1), len(settings) - 1)
        own = _solve(
            lambda own: self.focused(own).magnification() - magnification,
            (float(settings[after - 1]), float(reached[after - 1]) - magnification),
            (float(settings[after]), float(reached[after]) - magnification),
        )
        return self.focused(own)

    def magnification_range(self):
        """Smallest and largest magnification over the focus throw, far end first."""
        return self.focused(0.0).magnification(), self.focused(self.prime.closest_magnification).magnification()

    def focus_range(self):
        """Nearest and farthest plane of focus, as (subject_to_sensor near, far) in mm; far may be inf."""
        ends = self.focused(np.array([0.0, self.prime.closest_magnification])).imaging().subject_to_sensor
        return float(ends[1]), float(ends[0])

    def _around_prime(self):
        """Ray matrices before and behind the prime, and the distance from it to the sensor."""
        place = self.elements.index(self.prime)
        return _front(self.elements[:place]), *_behind(self.prime, self.elements[place + 1 :])

    def _image_row(self, front, behind):
        """The row of the whole matrix that makes the image: -magnification, and the length it maps to distance."""
        a, b, _, _ = _through(behind, _through(_lens(self.prime.focal_length_now), front))
        if _any(a > 1e-12):
            raise NoImageError(
                "rig.no_image",
                quantity="elements",
                value=float(np.max(a)),
                message="With these pieces nothing in front of the lens comes to focus.",
                remedy="Add extension, or take out the converter.",
            )
        return a, b


def _solve(error, start, end):
    """Root of a growing function between two settings with their errors: false position, to 1e-13."""
    (low, at_low), (high, at_high) = start, end
    if at_low >= 0 or high == low:
        return low
    if at_high <= 0:
        return high
    moved = None
    for _ in range(80):
        guess = low - at_low * (high - low) / (at_high - at_low)
        value = error(guess)
        end = "low" if value < 0 else "high"
        # When the same end moves twice the other is stuck; halving its error (Illinois) frees it.
        halve = 0.5 if end == moved else 1.0
        if end == "low":
            low, at_low, at_high = guess, value, at_high * halve
        else:
            high, at_high, at_low = guess, value, at_low * halve
        moved = end
        if abs(value) < 1e-13 or high - low < 1e-13:
            break
    return guess


def _lens(focal_length):
    return (1.0, 0.0, -1 / focal_length, 1.0)


def _gap(length):
    return (1.0, length, 0.0, 1.0)


def _through(later, earlier):
    """Product of two ray matrices (a, b, c, d), elementwise so that entries may be arrays."""
    a, b, c, d = later
    p, q, r, s = earlier
    return (a * p + b * r, a * q + b * s, c * p + d * r, c * q + d * s)


def _front(close_up_lenses):
    power = sum(lens.power for lens in close_up_lenses) / 1000
    return (1.0, 0.0, -power, 1.0)


def _behind(prime, elements):
    """Matrix from just behind the prime to the sensor, and the distance between the two."""
    matrix, gap, length = _gap(0.0), prime.image_distance, 0.0
    for element in elements:
        if isinstance(element, Tube):
            gap = gap + element.length
            continue
        ahead = gap - element.before_image
        if _any(ahead <= 0):
            raise NoImageError(
                "converter.inside_lens",
                quantity="thickness",
                value=element.thickness,
                unit="mm",
                message=f"This {element.factor:g}x converter would have to stand inside the lens to work.",
                remedy="Use a longer lens, or put a tube between lens and converter.",
            )
        matrix = _through(_lens(element.focal_length), _through(_gap(ahead), matrix))
        length = length + ahead
        gap = element.factor * element.before_image
    return _through(_gap(gap), matrix), length + gap


def _any(found):
    return found if isinstance(found, bool) else bool(found.any())


def _divided(length, magnification):
    """length / magnification, endless at infinity focus."""
    if isinstance(magnification, float):
        return length / magnification if magnification > 1e-12 else math.inf
    with np.errstate(divide="ignore"):
        return np.where(magnification > 1e-12, length / magnification, np.inf)


def _f_number_factor(prime, front, behind, angle):
    """Follow the ray from the subject through unit height: (1 + m_lens/P) from the lens, times what stands behind."""
    before = front[2] + angle
    after = before - 1 / prime.focal_length_now
    at_sensor = behind[2] + behind[3] * after
    return (1 + abs(before / after) / prime.pupil_magnification) * abs(after / at_sensor)


def _pupil(prime, front, behind):
    """How far the entrance pupil lies before the first element, mm, and the chief ray's height per unit angle."""
    ahead = prime.focal_length_now * (1 - 1 / prime.pupil_magnification)
    # The pupil as the front elements show it: from it, light would seem to come back to the true one.
    a, b, c, d = _through(_gap(-ahead), front)
    seen_ahead = -b / a
    height_at_prime = seen_ahead
    angle_behind = (c * seen_ahead + d) - height_at_prime / prime.focal_length_now
    return seen_ahead, abs(behind[0] * height_at_prime + behind[1] * angle_behind)
