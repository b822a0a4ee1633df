"""The plane: through the points that must be sharp, and the tilt, turn or shift that lays focus along it.

Camera frame: origin at the lens, z along the normal of the sensor toward the subject, x right, y up as seen from behind
the camera. A plane is z = z0 + slope_x x + slope_y y. Thin lens. One module an idea:

- ``points``, ``fit``, ``limited``, ``uncertainty``: the plane through points; the best that a lens can do; how sure.
- ``tilt``, ``wedge``: from the plane to the lens's setting, and what is sharp around it.
- ``readings``: what was read at the camera after tilting, and what that says of the setting.
- ``turning``, ``shifting``, ``strip``, ``sweep``: turning square, shift and joined frames, the narrow strip, frames
  that go on where the tilt leaves off.
"""

from just_plane.core.plane.fit import PlaneFit, carrying_points, deviations, fit_plane
from just_plane.core.plane.limited import fit_on_clicks, fit_within
from just_plane.core.plane.tilt import (
    STEEPEST,
    TiltSetting,
    hinge_distance,
    plane_of_setting,
    reachable_slope,
    tilt_for_plane,
    tilt_holding_magnification,
)
from just_plane.core.plane.uncertainty import deviation_uncertainty, fit_uncertainty, held_deviation_uncertainty
from just_plane.core.plane.wedge import Face, wedge_blur, wedge_defocus, wedge_faces

__all__ = [
    "STEEPEST",
    "Face",
    "PlaneFit",
    "TiltSetting",
    "carrying_points",
    "deviation_uncertainty",
    "deviations",
    "fit_on_clicks",
    "fit_plane",
    "fit_uncertainty",
    "fit_within",
    "held_deviation_uncertainty",
    "hinge_distance",
    "plane_of_setting",
    "reachable_slope",
    "tilt_for_plane",
    "tilt_holding_magnification",
    "wedge_blur",
    "wedge_defocus",
    "wedge_faces",
]
