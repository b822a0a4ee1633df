"""The rig: a chain of thin elements from subject to sensor, answered by one paraxial ray matrix.

Elements stand in the order in which light meets them: close-up lens or facing lens, then the lens (a prime, a lens
turned round, or an objective), then tubes, bellows and converters, then the sensor. The lens brings its own image
distance; a tube adds to the gap behind what stands before it; a converter moves the image and so the sensor. No
accessory has a rule of thumb of its own. A model: thin elements, no aberrations; measured values, where there are some,
replace its answers. See docs/derivations/rig.md.
"""

import math
from dataclasses import dataclass, field, replace

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.errors import NoImageError, OutOfDomainError, Quantity, UnreachableError
from just_plane.core.imaging import image, size
from just_plane.core.lens import Objective, Prime, Reversed
from just_plane.core.pieces import Bellows, CloseUpLens, FacingLens, Teleconverter, Tube
from just_plane.core.roots import growing_root

LENSES = (Prime, Reversed, Objective)
IN_FRONT = (CloseUpLens, FacingLens)
BEHIND = (Tube, Bellows, Teleconverter)
RING_SAMPLES = 33
DRAWS = 65
"""Settings of the ring tried before a size is closed in on."""


@dataclass(frozen=True, slots=True)
class Rig:
    """A chain of elements, subject to sensor, with one lens in it.

    Parameters
    ----------
    elements : tuple          Of :mod:`~just_plane.core.lens` and :mod:`~just_plane.core.pieces`.
    size_correction : float   Measured / modelled magnification where a ruler was photographed through this rig, else 1.
                              The sensor is then reckoned as far back as makes the measured size true, at every setting.
    """

    elements: tuple
    size_correction: float = 1.0
    _place: int = field(init=False, repr=False, compare=False)
    """Index of the lens."""

    def __post_init__(self):
        positive("size_correction", self.size_correction)
        count = sum(isinstance(element, LENSES) for element in self.elements)
        if count != 1:
            raise OutOfDomainError(
                "elements.not_one_prime",
                quantity="elements",
                value=count,
                message=f"The rig needs one lens; it has {count}.",
                remedy="Put one lens in the chain; a second one goes in front of it, facing it.",
            )
        place = next(index for index, element in enumerate(self.elements) if isinstance(element, LENSES))
        object.__setattr__(self, "_place", place)
        front = self.elements[:place]
        if not all(isinstance(e, IN_FRONT) for e in front) or not all(
            isinstance(e, BEHIND) for e in self.elements[place + 1 :]
        ):
            raise OutOfDomainError(
                "elements.order",
                quantity="elements",
                message="Close-up and facing lenses go in front of the lens; tubes and converters go behind it.",
                remedy="Move the piece to the other side of the lens.",
            )
        if any(isinstance(e, FacingLens) for e in front[1:]):
            raise OutOfDomainError(
                "elements.facing_not_first",
                quantity="elements",
                message="A facing lens or objective is the first thing that light from the subject meets.",
                remedy="Take out what stands in front of it.",
            )

    @property
    def lens(self):
        """The lens whose aperture is set: a prime, a reversed lens or an objective.

        Returns
        -------
        Prime, Reversed or Objective
        """
        return self.elements[self._place]

    @property
    def bellows(self):
        """The bellows in the chain, or None.

        Returns
        -------
        Bellows or None
        """
        return next((element for element in self.elements if isinstance(element, Bellows)), None)

    @property
    def closest_setting(self):
        """Own magnification of the lens at the near end of its ring; 0 when the ring is left at infinity, as it is on a
        reversed lens and behind a facing one: turning it there hardly changes the size, and not always upward.

        Returns
        -------
        float   Dimensionless, >= 0.
        """
        facing = isinstance(self.elements[0], FacingLens)
        return self.farthest_setting if facing else self.lens.closest_magnification

    @property
    def farthest_setting(self):
        """Own magnification of the lens at the far end of its ring: 0, which is infinity, but for lenses that are made
        for large sizes only.

        Returns
        -------
        float   Dimensionless, >= 0.
        """
        return self.lens.farthest_magnification

    @property
    def has_ring(self):
        """Whether there is a ring to turn.

        Returns
        -------
        bool
        """
        return self.closest_setting > self.farthest_setting

    def ring(self, samples):
        """Settings of the ring from its far end to its near one.

        Parameters
        ----------
        samples : int   >= 2.

        Returns
        -------
        (N,) array      Own magnifications; one where there is no ring to turn.
        """
        if not self.has_ring:
            return np.full(1, self.farthest_setting)
        return np.linspace(self.farthest_setting, self.closest_setting, samples)

    @property
    def is_fixed(self):
        """Whether nothing in it can be set: it has one magnification and one distance.

        Returns
        -------
        bool
        """
        return not self.has_ring and self.bellows is None

    def focused(self, own_magnification):
        """The same rig with the focus ring elsewhere; an array asks for many settings at once.

        Parameters
        ----------
        own_magnification : float or (N,) array   >= 0; 0 is infinity.

        Returns
        -------
        Rig
        """
        return self._with(LENSES, lambda lens: lens.focused(own_magnification))

    def drawn(self, draw):
        """The same rig with its bellows at another draw, mm; an array asks for many at once."""
        return self._with(Bellows, lambda bellows: replace(bellows, draw=draw))

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
        return image(self.elements, self._place, self.size_correction)

    def magnification(self):
        """Of the whole rig at this setting: image size / subject size. Raises NoImageError as :meth:`imaging`.

        Returns
        -------
        float or (N,) array   Dimensionless.
        """
        return size(self.elements, self._place, self.size_correction)

    def at_magnification(self, magnification):
        """The rig set to give a magnification: bellows first, its ring at its far end, then the ring.

        Parameters
        ----------
        magnification : float   Wanted, > 0.

        Returns
        -------
        Rig

        Raises
        ------
        UnreachableError        Outside what the rig can do; the message says what it can.
        NoImageError            As for :meth:`imaging`.
        """
        positive("magnification", magnification)
        over_ring = self._over_ring() if self.bellows is None else None
        smallest, largest = self.magnification_range() if over_ring is None else _ends(over_ring[1])
        slack = 1e-9 * largest
        if not smallest - slack <= magnification <= largest + slack:
            more = magnification > largest
            reach = "{smallest} to {largest}" if smallest < largest - slack else "{largest} only"
            if smallest <= slack < largest:
                reach = "at most {largest}"
            raise UnreachableError(
                "magnification.beyond" if more else "magnification.below",
                quantity="magnification",
                value=magnification,
                message=f"{{wanted}} is {'beyond' if more else 'below'} this rig: it gives {reach}.",
                remedy="Add a tube, or ask for a wider frame." if more else "Use a shorter tube, or a narrower frame.",
                wanted=Quantity(magnification, "x"),
                smallest=Quantity(smallest, "x"),
                largest=Quantity(largest, "x"),
            )
        bellows = self.bellows
        if bellows is None:
            return self._ring_at(magnification, over_ring)
        far = self.focused(self.farthest_setting)
        open_, drawn = far.drawn(bellows.shortest), far.drawn(bellows.longest)
        start, end = _magnification_or_none(open_), drawn.magnification()
        if magnification >= end:
            return drawn._ring_at(magnification)
        if start is not None and magnification < start:
            return open_._ring_at(magnification)
        shortest = bellows.shortest if start is not None else _first_that_images(drawn, bellows)
        start = open_.drawn(shortest).magnification()
        draw = growing_root(
            lambda draw: open_.drawn(draw).magnification() - magnification,
            (shortest, start - magnification),
            (bellows.longest, end - magnification),
        )
        return open_.drawn(draw)

    def magnification_range(self):
        """Smallest and largest magnification over all that can be set.

        Returns
        -------
        (float, float)   Dimensionless; 0 at infinity.

        Raises
        ------
        NoImageError     As :meth:`imaging`.

        Notes
        -----
        Neither need stand at an end of the ring: behind a close-up lens, a lens that shortens as it focuses near gives
        less, not more.
        """
        bellows = self.bellows
        if bellows is None:
            return _ends(self._over_ring()[1])
        shut = self.drawn(bellows.shortest)
        smallest = (
            0.0
            if _magnification_or_none(shut.focused(self.farthest_setting)) is None
            else float(shut._over_ring()[1].min())
        )
        return smallest, float(self.drawn(bellows.longest)._over_ring()[1].max())

    def focus_range(self):
        """Nearest and farthest plane of focus over ring and bellows, as (subject_to_sensor near, far) in mm.

        Drawn past life size, bellows send it away again: neither end of theirs need be an end of it. far may be inf.
        """
        settings, bellows = self.ring(RING_SAMPLES), self.bellows
        if bellows is None:
            apart = self.focused(settings).imaging().subject_to_sensor
            return float(np.min(apart)), float(np.max(apart))
        shortest, at_infinity = bellows.shortest, self.focused(self.farthest_setting)
        endless = _magnification_or_none(at_infinity.drawn(shortest)) is None
        if endless:
            shortest = _first_that_images(at_infinity, bellows)
        draws = np.linspace(shortest, bellows.longest, DRAWS)[:, None]
        apart = self.drawn(draws).focused(settings[None, :]).imaging().subject_to_sensor
        return float(np.min(apart)), math.inf if endless else float(np.max(apart))

    def _over_ring(self):
        """Settings of the ring, infinity first, and the magnification at each, its extremes among them: two arrays."""
        settings = self.ring(RING_SAMPLES)
        if not self.has_ring:
            return settings, np.array([float(self.magnification())])
        sizes = np.asarray(self.focused(settings).magnification(), dtype=float)
        for sign, at in ((1, int(sizes.argmin())), (-1, int(sizes.argmax()))):
            if 0 < at < RING_SAMPLES - 1:
                # Here and not above: hardly any rig turns back, and the import costs a third of a plan from the shell.
                from scipy.optimize import minimize_scalar

                found = minimize_scalar(
                    lambda own, sign=sign: sign * self.focused(float(own)).magnification(),
                    bounds=(float(settings[at - 1]), float(settings[at + 1])),
                    method="bounded",
                    options={"xatol": 1e-12},
                )
                place = int(np.searchsorted(settings, found.x))
                settings, sizes = np.insert(settings, place, found.x), np.insert(sizes, place, sign * found.fun)
        return settings, sizes

    def _with(self, kind, changed):
        elements = tuple(changed(element) if isinstance(element, kind) else element for element in self.elements)
        # The same kinds in the same order: nothing to check anew, and a search sets thousands of rigs.
        rig = object.__new__(Rig)
        for name, value in (
            ("elements", elements),
            ("size_correction", self.size_correction),
            ("_place", self._place),
        ):
            object.__setattr__(rig, name, value)
        return rig

    def _ring_at(self, magnification, over_ring=None):
        """The ring set for a size; of several such settings the one nearest to infinity."""
        if not self.has_ring:
            return self
        settings, sizes = over_ring or self._over_ring()
        over = sizes - magnification
        crossings = np.flatnonzero((over[:-1] == 0) | (over[:-1] * over[1:] < 0))
        if not crossings.size:
            # At an extreme, or a rounding past it.
            return self.focused(float(settings[int(np.argmin(np.abs(over)))]))
        at = int(crossings[0])
        grows = 1.0 if over[at] <= 0 else -1.0
        own = growing_root(
            lambda own: grows * (self.focused(own).magnification() - magnification),
            (float(settings[at]), grows * float(over[at])),
            (float(settings[at + 1]), grows * float(over[at + 1])),
        )
        return self.focused(own)


def _ends(sizes):
    return float(sizes.min()), float(sizes.max())


def _magnification_or_none(rig):
    try:
        return rig.magnification()
    except NoImageError:
        return None


def _first_that_images(rig, bellows):
    """The shortest draw with an image, mm, where the bellows' own shortest has none: the size grows evenly with it."""
    draws = np.linspace(bellows.shortest, bellows.longest, 257)
    for draw in draws:
        if _magnification_or_none(rig.drawn(float(draw))) is not None:
            return float(draw)
    return bellows.longest
