"""What the rig does while the focus ring turns and the camera stands: size and depth change along the subject."""

from dataclasses import dataclass

import numpy as np

from just_plane.core.depth import allowed_blur, depth_from_blur
from just_plane.core.units import MM_PER_NM
from just_plane.core.ways import FramesView

NODES = 17
"""Settings of the ring worked out over the subject; between them straight lines are good to 1e-5."""


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

    def depth_at(self, place):
        """Depth of field (mm) when focused at a place (mm behind the nearest point)."""
        return float(np.interp(place, self.places, self._depths))

    @property
    def _depths(self):
        return depth_from_blur(self.blurs, self.effective_f_numbers, self.magnifications)

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
    rig, depth = rigged.rig, shot.subject.depth_mm
    to_nearest_point = rigged.imaging.subject_to_sensor - focus_behind_nearest
    own = np.linspace(0, rig.prime.closest_magnification, 129)
    distances = rig.focused(own).imaging().subject_to_sensor
    turning = int(np.argmin(distances)) + 1
    own, distances = own[:turning], distances[:turning]
    nearest, farthest = float(distances[-1] - to_nearest_point), float(distances[0] - to_nearest_point)
    if turning < 3 or nearest > 0 or farthest < depth:
        return None if turning < 3 else Throw(*(np.zeros(1),) * 6, nearest, farthest)
    reach = max(depth * 0.2, 1e-3)
    ends = np.clip(np.array([-reach, depth + reach]), nearest, min(farthest, 1e9))
    inverse = 1 / distances
    setting = np.interp(1 / (to_nearest_point + ends), inverse, own)
    imaging = rig.focused(np.linspace(setting[1], setting[0], NODES)[::-1]).imaging()
    order = np.argsort(imaging.subject_to_sensor)
    effective = f_number * imaging.f_number_factor
    blurs = allowed_blur(
        shot.sharp.depth_school,
        circle,
        effective,
        shot.sharp.wavelength_nm * MM_PER_NM,
        shot.sharp.contrast_threshold,
    )
    return Throw(
        *(
            table[order]
            for table in (
                imaging.subject_to_sensor - to_nearest_point,
                imaging.magnification,
                imaging.pupil_distance,
                effective,
                blurs,
                imaging.chief_scale,
            )
        ),
        nearest,
        farthest,
    )
