"""What the rig does while the focus ring turns and the camera stands: size and depth change along the subject."""

from bisect import bisect_right
from dataclasses import dataclass

import numpy as np

from just_plane.core.depth import allowed_blur, depth_from_blur
from just_plane.core.units import MM_PER_NM
from just_plane.core.ways import FramesView

NODES = 33
"""Settings of the ring worked out over the subject; between them straight lines are good to 3e-5."""


@dataclass(frozen=True, slots=True)
class Throw:
    """The ring's throw over the subject, tabulated. Places in mm behind the nearest point, growing."""

    places: np.ndarray
    magnifications: np.ndarray
    pupil_distances: np.ndarray
    effective_f_numbers: np.ndarray
    blurs: np.ndarray
    chief_scales: np.ndarray
    nearest: float
    """Nearest place that the ring can focus on, mm behind the nearest point; farthest likewise, may be inf."""
    farthest: float

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
        """The core's view of each frame focused at these places."""
        return FramesView(
            *(
                np.interp(places, self.places, table)
                for table in (self.magnifications, self.pupil_distances, self.effective_f_numbers, self.blurs)
            )
        )

    def crop(self, places):
        """Share of the frame's width lost when frames of different scale are laid on each other."""
        scales = np.interp(places, self.places, self.chief_scales)
        return float(1 - scales.min() / scales.max())


def throw(shot, rigged, circle, f_number, focus_behind_nearest):
    """The ring's throw with the camera standing where the framing put it, or None when it cannot be followed.

    Below life size the plane of focus goes away as the ring turns toward infinity. Past the setting where it comes
    no nearer (life size for a lens that does not breathe) turning on moves it back: that branch is left out.
    """
    if rigged.over_throw is None:
        return None
    rig, depth = rigged.rig, shot.subject.depth_mm
    to_nearest_point = rigged.imaging.subject_to_sensor - focus_behind_nearest
    distances = rigged.over_throw.subject_to_sensor
    turning = int(np.argmin(distances)) + 1
    own, distances = rigged.settings[:turning], distances[:turning]
    nearest, farthest = float(distances[-1] - to_nearest_point), float(distances[0] - to_nearest_point)
    if turning < 3 or nearest > 0 or farthest < depth:
        nothing = np.zeros(1)
        return None if turning < 3 else Throw(nothing, nothing, nothing, nothing, nothing, nothing, nearest, farthest)
    reach = max(depth * 0.2, 1e-3)
    ends = np.clip(np.array([-reach, depth + reach]), nearest, min(farthest, 1e9))
    inverse = 1 / distances
    setting = np.interp(1 / (to_nearest_point + ends), inverse, own)
    imaging = rig.focused(np.linspace(setting[1], setting[0], NODES)[::-1]).imaging()
    order = np.argsort(imaging.subject_to_sensor)
    if not np.all(np.diff(imaging.subject_to_sensor[order]) > 0):
        return None
    effective = imaging.effective_f_number(f_number)
    blurs = allowed_blur(
        shot.sharp.depth_school,
        circle,
        effective,
        shot.sharp.wavelength_nm * MM_PER_NM,
        shot.sharp.contrast_threshold,
    )
    return Throw(
        (imaging.subject_to_sensor - to_nearest_point)[order],
        imaging.magnification[order],
        imaging.pupil_distance[order],
        effective[order],
        blurs[order],
        imaging.chief_scale[order],
        nearest,
        farthest,
    )
