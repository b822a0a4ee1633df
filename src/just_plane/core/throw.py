"""What a rig does while its focus ring turns and the camera stands: size and depth change along the subject."""

from bisect import bisect_right
from dataclasses import dataclass

import numpy as np

from just_plane.core.depth import allowed_blur, depth_from_blur
from just_plane.core.domain import non_negative, positive
from just_plane.core.units import DEFAULT_WAVELENGTH
from just_plane.core.ways import FramesView

NODES = 33
"""Settings of the ring worked out over the subject; between them straight lines are good to 3e-5."""


@dataclass(frozen=True, slots=True)
class Throw:
    """The ring's throw over the subject, tabulated: (K,) arrays. Places in mm behind the nearest point, growing."""

    places: np.ndarray
    magnifications: np.ndarray
    pupil_distances: np.ndarray
    effective_f_numbers: np.ndarray
    blurs: np.ndarray
    """Allowed on the sensor, mm."""
    chief_scales: np.ndarray
    nearest: float
    """Nearest place that the ring can focus on, mm behind the nearest point; farthest likewise, may be inf."""
    farthest: float
    depth: float = 0.0
    """That must be sharp, mm."""

    def spans(self, first, last):
        """Whether everything between two places, ``first`` and ``last`` (mm), was tabulated: bool."""
        return self.places.size > 0 and self.places[0] <= first + 1e-9 and last - 1e-9 <= self.places[-1]

    def depth_at(self):
        """A function: depth of field (mm) when focused at a place (mm behind the nearest point).

        Plain numbers and bisection: a march asks once a frame, and an array call costs more than the answer.
        """
        places = self.places.tolist()
        depths = depth_from_blur(self.blurs, self.effective_f_numbers, self.magnifications).tolist()

        def at(place):
            index = min(max(bisect_right(places, place), 1), len(places) - 1)
            low, high = places[index - 1], places[index]
            share = min(max((place - low) / (high - low), 0.0), 1.0)
            return depths[index - 1] + share * (depths[index] - depths[index - 1])

        return at

    def view(self, places):
        """The core's view of each frame focused at these places (mm, (N,)): FramesView of (N,) arrays."""
        return FramesView(
            *(
                np.interp(places, self.places, table)
                for table in (self.magnifications, self.pupil_distances, self.effective_f_numbers, self.blurs)
            )
        )

    def crop(self, places):
        """Share of the frame's width lost when frames focused at these places (mm, (N,)) are laid on each other.

        The entrance pupil moves with the ring, so size on the sensor goes by the distance from it too: reckoned at the
        end of the depth where it costs most.
        """
        places = np.asarray(places, dtype=float)
        chief, pupils = (np.interp(places, self.places, table) for table in (self.chief_scales, self.pupil_distances))
        scales = [chief / (pupils + end - places) for end in (0.0, self.depth)]
        return float(max(1 - scale.min() / scale.max() for scale in scales))


def throw_over(
    rig,
    settings,
    distances,
    *,
    to_nearest_point,
    depth,
    f_number,
    school,
    circle_of_confusion,
    wavelength=DEFAULT_WAVELENGTH,
    contrast_threshold=0.2,
    beyond=None,
):
    """The ring's throw with the camera standing still.

    Parameters
    ----------
    rig : Rig                     Whose ring is turned.
    settings : (N,) array         Own magnifications over the whole throw, infinity first.
    distances : (N,) array        Plane of focus to sensor at each of them, mm.
    to_nearest_point : float      Sensor to the nearest point that must be sharp, mm, > 0.
    depth : float                 That must be sharp, mm, >= 0.
    f_number : float              Marked, > 0.
    school, circle_of_confusion, wavelength, contrast_threshold
                                  As for :func:`just_plane.core.depth.allowed_blur`.
    beyond : (float, float)       How far before the nearest and behind the farthest point the tables go, mm, as far
                                  as the ring does; a fifth of the depth unless given.

    Returns
    -------
    Throw or None                 None where it cannot be followed. Where the ring does not reach both ends of the
                                  depth its tables are empty, and ``nearest`` and ``farthest`` say how far it goes.

    Raises
    ------
    OutOfDomainError              An input is outside its range.

    Notes
    -----
    Below life size the plane of focus goes away as the ring turns toward infinity. Past the setting where it comes
    no nearer (life size for a lens that does not breathe) turning on moves it back: that branch is left out.
    """
    positive("to_nearest_point", to_nearest_point, "mm")
    non_negative("depth", depth, "mm")
    turning = int(np.argmin(distances)) + 1
    if turning < 3:
        return None
    own, distances = settings[:turning], distances[:turning]
    nearest, farthest = float(distances[-1] - to_nearest_point), float(distances[0] - to_nearest_point)
    if nearest > 0 or farthest < depth:
        nothing = np.zeros(0)
        return Throw(nothing, nothing, nothing, nothing, nothing, nothing, nearest, farthest, depth)
    before, after = beyond or (max(depth * 0.2, 1e-3),) * 2
    ends = np.clip(np.array([-before, depth + after]), nearest, min(farthest, 1e9))
    setting = np.interp(1 / (to_nearest_point + ends), 1 / distances, own)
    imaging = rig.focused(np.linspace(setting[1], setting[0], NODES)[::-1]).imaging()
    order = np.argsort(imaging.subject_to_sensor)
    if not np.all(np.diff(imaging.subject_to_sensor[order]) > 0):
        return None
    effective = imaging.effective_f_number(f_number)
    blurs = allowed_blur(school, circle_of_confusion, effective, wavelength, contrast_threshold)
    return Throw(
        (imaging.subject_to_sensor - to_nearest_point)[order],
        imaging.magnification[order],
        imaging.pupil_distance[order],
        effective[order],
        blurs[order],
        imaging.chief_scale[order],
        nearest,
        farthest,
        depth,
    )
