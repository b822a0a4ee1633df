"""Stage 3 of the view: blur at every pixel. It is affine in the place on the sensor and in 1/z, so no ray is needed.

    b = (f/N) (A cos(t)/f - 1 - (sin(t)/f) (xi cos(az) + yi sin(az)) - A/z)

For a rig of whatever pieces, square to its axis, seen from its entrance pupil (a distance u before the plane of focus):
b = (m^2 u / N_e) (1 - u/z), which near the plane is m^2 dz / N_e, as depth of field counts it.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive


class Focus(NamedTuple):
    """Signed blur b = constant + right xi + up yi + depth / z, mm on the sensor."""

    constant: float
    right: float
    up: float
    depth: float
    """mm^2."""

    def blur(self, grid, inverse):
        """Diameter of the blur at every pixel.

        Parameters
        ----------
        grid : Grid
        inverse : (H, W) array   1/z.

        Returns
        -------
        (H, W) float32 array     mm, >= 0.
        """
        xi, yi = grid.places()
        flat = self.constant + self.right * xi[np.newaxis, :] + self.up * yi[:, np.newaxis]
        return np.abs(flat + self.depth * inverse).astype(np.float32)


def focus_of_lens(focal_length, f_number, setting):
    """A thin lens, tilted about its node.

    Parameters
    ----------
    focal_length : float    mm, > 0.
    f_number : float        Marked, > 0.
    setting : TiltSetting   Tilt and azimuth, radians; image distance, mm.

    Returns
    -------
    Focus
    """
    positive("focal_length", focal_length, "mm")
    positive("f_number", f_number)
    opening, sine = focal_length / f_number, math.sin(setting.tilt)
    return Focus(
        opening * (setting.image_distance * math.cos(setting.tilt) / focal_length - 1),
        -sine * math.cos(setting.azimuth) / f_number,
        -sine * math.sin(setting.azimuth) / f_number,
        -opening * setting.image_distance,
    )


def focus_of_rig(magnification, effective_f_number, pupil_distance):
    """Any rig square to its axis.

    Parameters
    ----------
    magnification : float        > 0, in the plane of focus.
    effective_f_number : float   > 0.
    pupil_distance : float       From the entrance pupil to the plane of focus, mm, > 0.

    Returns
    -------
    Focus                        For depths counted from the entrance pupil.
    """
    positive("magnification", magnification)
    positive("effective_f_number", effective_f_number)
    positive("pupil_distance", pupil_distance, "mm")
    scale = magnification**2 * pupil_distance / effective_f_number
    return Focus(scale, 0.0, 0.0, -scale * pupil_distance)
