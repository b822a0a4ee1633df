"""What a chain of thin elements does to light at one setting: one ray matrix, the marginal ray and the chief ray.

Used through :class:`just_plane.core.rig.Rig`, which knows which chains can be and how they are set. See
docs/derivations/rig.md.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.errors import NoImageError
from just_plane.core.pieces import Bellows, FacingLens, Tube
from just_plane.core.ray import gap, thin_lens, through

TELECENTRIC = 1e6
"""Distance to the entrance pupil, mm, that stands for an endless one: the stop of an objective lies at its far focus,
so things keep their size through focus."""


class Imaging(NamedTuple):
    """What a rig does at one setting. Lengths in mm; each is a float, or an array over settings or rigs."""

    magnification: float
    """Of the whole rig: image size / subject size."""
    subject_to_first_lens: float
    """From the plane of focus to the first element; inf at infinity."""
    subject_to_sensor: float
    length: float
    """From the first element to the sensor, the lens as thin as the model has it."""
    f_number_factor: float
    """Effective f-number / marked f-number, as far as the lens's own stop limits it."""
    pupil_distance: float
    """From the plane of focus to the rig's entrance pupil."""
    chief_scale: float
    """Image height per unit of angle at the entrance pupil: how large things stand on the sensor while the camera
    stays. Its change over a focus throw is the crop that a stack by ring costs."""
    f_number_floor: float = 0.0
    """Effective f-number that a facing lens or objective in front imposes by its own stop; 0 without one."""
    lens_magnification: float = 0.0
    """At which the lens itself works: what it images is what the elements in front of it show."""
    floor_pupil_distance: float = 0.0
    """To the entrance pupil where the stop in front limits; 0 without one."""

    def through_stop(self, f_number):
        """The same with the entrance pupil of whichever stop limits the cone of light.

        Parameters
        ----------
        f_number : float   Marked, of the lens on the camera, > 0, dimensionless.

        Returns
        -------
        Imaging            mm and ratios.
        """
        if not np.all(self.f_number_floor > f_number * self.f_number_factor):
            return self
        distance = self.floor_pupil_distance
        return self._replace(pupil_distance=distance, chief_scale=self.magnification * distance)

    def effective_f_number(self, f_number):
        """Effective f-number at a marked one: whichever stop limits the cone of light.

        Parameters
        ----------
        f_number : float or (N,) array   Marked, > 0, dimensionless.

        Returns
        -------
        float or array   Dimensionless.
        """
        works_as = f_number * self.f_number_factor
        return (
            works_as
            if isinstance(self.f_number_floor, float) and self.f_number_floor == 0.0
            else np.maximum(works_as, self.f_number_floor)
        )


def image(elements, place, size_correction=1.0):
    """What a chain does, its lens standing at index ``place``.

    Parameters
    ----------
    elements : sequence           Subject to sensor, as :class:`just_plane.core.rig.Rig` has checked them.
    place : int                   Index of the lens whose aperture is set.
    size_correction : float       Measured size / modelled size, > 0; the sensor is moved to make it so.

    Returns
    -------
    Imaging        mm and ratios.

    Raises
    ------
    NoImageError   Light leaves the rig diverging (no subject in front of it comes to focus), or a converter would have
                   to stand inside the lens.
    """
    lens, first = elements[place], elements[0]
    front, behind, length = _around(elements, place)
    a, b, c, d = through(behind, through(thin_lens(lens.focal_length_now), front))
    _must_image(a)
    magnification = abs(a)  # the picture stands upside down, so a is below 0
    if size_correction != 1.0:
        # As far back as makes the size right: moving the sensor by e changes a by c e.
        back = (size_correction - 1) * magnification / -c
        a, b, length = a + c * back, b + d * back, length + back
        behind = through(gap(back), behind)
        magnification = abs(a)
    distance = _divided(b, magnification)
    factor, lens_magnification = _cone(lens, front, behind, magnification / b)
    floor = floor_pupil = 0.0 * magnification
    if isinstance(first, FacingLens):
        floor = magnification * first.cone_toward_subject(distance)
        floor_pupil = TELECENTRIC + floor_pupil if first.telecentric else distance - first.pupil_ahead
        pupil_distance = _pupil_through_facing(lens, front, distance)
        chief = magnification * pupil_distance
    else:
        pupil_ahead, chief = _pupil(lens, front, behind)
        pupil_distance = distance - pupil_ahead
    return Imaging(
        magnification,
        distance,
        distance + length + lens.hiatus,
        length,
        factor,
        pupil_distance,
        chief,
        floor,
        lens_magnification,
        floor_pupil,
    )


def size(elements, place, size_correction=1.0):
    """Magnification alone: image size / subject size. Raises NoImageError as :func:`image`.

    Parameters
    ----------
    elements, place, size_correction   As for :func:`image`.

    Returns
    -------
    float or array                     Dimensionless, > 0.
    """
    front, behind, _ = _around(elements, place)
    a = through(behind, through(thin_lens(elements[place].focal_length_now), front))[0]
    _must_image(a)
    return abs(a) * size_correction


def _around(elements, place):
    """Ray matrices before and behind the lens, and the distance from the first element to the sensor."""
    front, ahead = (1.0, 0.0, 0.0, 1.0), 0.0
    for element in elements[:place]:
        lens = (1.0, 0.0, -element.matrix_power, 1.0)
        front = through(gap(element.separation), through(lens, front))
        ahead = ahead + element.separation
    behind, length = _behind(elements[place], elements[place + 1 :])
    return front, behind, ahead + length


def _must_image(a):
    if _any(a > 1e-12):
        raise NoImageError(
            "rig.no_image",
            quantity="elements",
            value=float(np.max(a)),
            message="With these pieces nothing in front of the lens comes to focus.",
            remedy="Add extension, or take out the converter.",
        )


def _behind(lens, elements):
    """Matrix from just behind the lens to the sensor, and the distance between the two."""
    matrix, room, length = gap(0.0), lens.image_distance, 0.0
    for element in elements:
        if isinstance(element, Tube | Bellows):
            room = room + element.length
            continue
        ahead = room - element.before_image
        if _any(ahead <= 0):
            raise NoImageError(
                "converter.inside_lens",
                quantity="thickness",
                value=element.thickness,
                unit="mm",
                message=f"This {element.factor:g}x converter would have to stand inside the lens to work.",
                remedy="Use a longer lens, or put a tube between lens and converter.",
            )
        matrix = through(thin_lens(element.focal_length), through(gap(ahead), matrix))
        length = length + ahead
        room = element.factor * element.before_image
    return through(gap(room), matrix), length + room


def _any(found):
    return found if isinstance(found, bool) else bool(found.any())


def _divided(length, magnification):
    """length / magnification, endless at infinity focus."""
    if isinstance(magnification, float):
        return length / magnification if magnification > 1e-12 else math.inf
    with np.errstate(divide="ignore"):
        return np.where(magnification > 1e-12, length / magnification, np.inf)


def _cone(lens, front, behind, angle):
    """Effective f-number / marked f-number, and the magnification at which the lens itself works.

    Follow the ray from the subject through unit height at the first element: the cone behind the lens is the lens's own
    matter, times what stands behind it.
    """
    height = front[0] + front[1] * angle
    before = front[2] + front[3] * angle
    after = before - height / lens.focal_length_now
    at_sensor = behind[2] * height + behind[3] * after
    lens_magnification = 0.0 - before / after
    return lens.cone(lens_magnification) * abs(after / at_sensor), lens_magnification


def _pupil_through_facing(lens, front, distance):
    """From the plane of focus to the iris of the lens behind, as the lens in front shows it, mm.

    A wide one in front shows it beyond the subject; no view is reckoned from there: endless is the nearest there is.
    """
    a, b = through(gap(-lens.focal_length_now * (1 - 1 / lens.pupil_ratio)), front)[:2]
    with np.errstate(divide="ignore", invalid="ignore"):
        seen = distance + np.divide(b, a)
    seen = np.where(np.isfinite(seen) & (seen > 0), np.minimum(seen, TELECENTRIC), TELECENTRIC)
    return float(seen) if seen.ndim == 0 else seen


def _pupil(lens, front, behind):
    """How far the entrance pupil lies before the first element, mm, and the chief ray's height per unit angle."""
    ahead = lens.focal_length_now * (1 - 1 / lens.pupil_ratio)
    # The pupil as the front elements show it: from it, light would seem to come back to the true one.
    a, b, c, d = through(gap(-ahead), front)
    seen_ahead = -b / a
    height_at_lens = front[0] * seen_ahead + front[1]
    angle_at_lens = c * seen_ahead + d
    angle_behind = angle_at_lens - height_at_lens / lens.focal_length_now
    return seen_ahead, abs(behind[0] * height_at_lens + behind[1] * angle_behind)
