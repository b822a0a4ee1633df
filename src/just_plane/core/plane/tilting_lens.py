"""A rig that tilts, as one thin lens with a scale behind it; and the plane that it lays through points."""

import math
from dataclasses import dataclass, replace

import numpy as np

from just_plane.core.errors import OpticsError
from just_plane.core.plane.fit import PlaneFit, fit_plane
from just_plane.core.plane.limited import fit_on_clicks, fit_within
from just_plane.core.plane.tilt import TiltSetting, reachable_slope, tilt_for_plane
from just_plane.core.plane.wedge import wedge_defocus

MOST_ROUNDS = 12
"""Of letting the limit of the slope and the plane's distance agree; each leaves a few hundredths of what was off."""
UP, ACROSS = math.pi / 2, 0.0
LEVEL = 1e-6
"""Slopes below this are none: the points stand at one depth."""


@dataclass(frozen=True, slots=True)
class TiltingLens:
    """What tilts: lens and close-up lens as one thin lens, and the converter behind as a scale. mm, radians."""

    focal_length: float
    distance: float
    """Lens to plane of focus."""
    magnification: float
    """At which it works itself: image distance / focal length - 1."""
    scale_behind: float
    """Size on the sensor / size where the lens alone would form the picture."""
    limit: float
    """Largest tilt; 0: none."""
    rest: float
    """Azimuth along which its mechanism tilts when it is not turned: up and down, unless the camera is on its side."""
    turns: bool
    """Its mechanism turns about the axis."""
    click: float | None
    """Between two clicks of that; None: it stays anywhere."""
    pivot_behind_node: float | None

    @property
    def image_distance(self):
        """Lens to where it forms the picture, untilted, mm."""
        return self.focal_length * (1 + self.magnification)

    def f_number(self, effective_f_number):
        """The f-number of a symmetrical thin lens that blurs alike at the plane of focus; both dimensionless, > 0.

        Parameters
        ----------
        effective_f_number : float   Of the rig, > 0.

        Returns
        -------
        float                        Dimensionless.
        """
        return effective_f_number / (self.scale_behind * (1 + self.magnification))

    def blur(self, setting, points, effective_f_number):
        """Blur on the sensor of points seen with a setting.

        Parameters
        ----------
        setting : TiltSetting
        points : (N, 3) array        mm, in the camera frame.
        effective_f_number : float   Of the rig at the plane of focus, > 0.

        Returns
        -------
        (N,) array                   mm, signed: below 0 before the plane.

        Raises
        ------
        OutOfDomainError             A point lies within a focal length of the lens.
        """
        return self.blur_of(wedge_defocus(self.focal_length, setting, points), effective_f_number)

    def blur_of(self, defocus, effective_f_number):
        """Blur on the sensor, mm, signed, of points with this defocus ((N,), from wedge_defocus): (N,) array.

        Parameters
        ----------
        defocus : (N,) array         A share of each point's image distance.
        effective_f_number : float   Of the rig at the plane of focus, > 0.

        Returns
        -------
        (N,) array                   mm.
        """
        return self.scale_behind * (self.focal_length / self.f_number(effective_f_number)) * defocus

    @property
    def steepest(self):
        """The steepest slope it follows with the size held, a ratio."""
        return reachable_slope(self.limit, self.magnification)

    @property
    def straight(self):
        """The setting without tilt.

        Returns
        -------
        TiltSetting   Radians, mm.
        """
        return TiltSetting(0.0, math.pi / 2, self.image_distance)


@dataclass(frozen=True, slots=True, eq=False)
class Laid:
    """The plane wanted, and the one that the lens lays."""

    wanted: PlaneFit
    asked: TiltSetting | None
    """The setting for the plane wanted, were there no limit; None when no tilt reaches it."""
    fit: PlaneFit
    setting: TiltSetting | None
    """Within what the lens can do; None when it does not tilt at all."""
    limited: bool
    """The tilt asked for is more than the lens has, or leans in a direction that it cannot."""
    why_not: OpticsError | None = None
    """Why no tilt reaches the plane wanted; None when one does."""
    defocus: np.ndarray | None = None
    """Of each of the points with that setting, as :func:`just_plane.core.plane.wedge.wedge_defocus`: (N,)."""

    @property
    def azimuth(self):
        """Toward where the plane wanted recedes, radians; up when it does not."""
        return math.atan2(self.wanted.slope_y, self.wanted.slope_x) if self.slope > LEVEL else math.pi / 2

    @property
    def slope(self):
        """Of the plane wanted along that, a ratio."""
        return math.hypot(self.wanted.slope_x, self.wanted.slope_y)


def lay_plane(lens, points):
    """The plane through points that must be sharp, and the setting of a lens that comes nearest to it.

    Parameters
    ----------
    lens : TiltingLens
    points : (N, 3) array   mm, in the camera frame; at least three, not in one line as the camera sees them.

    Returns
    -------
    Laid

    Raises
    ------
    OutOfDomainError        As :func:`just_plane.core.plane.fit.fit_plane`.
    """
    wanted = fit_plane(points)
    asked, why_not = None, None
    try:
        asked = tilt_for_plane(lens.focal_length, *wanted[:3])
    except OpticsError as error:
        why_not = error
    untilted = Laid(wanted, asked, wanted, None, limited=True, why_not=why_not)
    if lens.limit == 0 or (why_not is not None and why_not.code == "slope.too_steep"):
        return untilted
    aside = wanted.slope_y * math.cos(lens.rest) - wanted.slope_x * math.sin(lens.rest)
    on_axis = lens.turns or abs(aside) < LEVEL
    reached = asked is not None and asked.tilt <= lens.limit * (1 + 1e-9) and on_axis
    fit, setting = wanted, asked
    try:
        if not reached or lens.click is not None:
            fit = _best_within(lens, points, wanted)
            setting = tilt_for_plane(lens.focal_length, *fit[:3])
            setting = setting._replace(tilt=min(setting.tilt, lens.limit))  # to the last digit
        # Swung toward a near point, the lens may come too near for it: then there is no setting for the points.
        defocus = wedge_defocus(lens.focal_length, setting, points)
    except OpticsError as error:
        return replace(untilted, why_not=why_not or error)
    return Laid(wanted, asked, fit, setting, limited=not reached, why_not=why_not, defocus=defocus)


def setting_uncertainty(setting, wanted, spread):
    """How sure a tilt and its direction are, from how sure the plane is.

    Parameters
    ----------
    setting : TiltSetting        For the plane.
    wanted : PlaneFit            The plane; not square to the axis.
    spread : (3, 3) array        Covariance of its z0 (mm), slope_x, slope_y.

    Returns
    -------
    (float, float)               Standard uncertainties of tilt and azimuth, radians.

    Notes
    -----
    sin tilt = f slope / z0, so d tilt = tan tilt (d slope / slope - d z0 / z0); the azimuth turns by the change of the
    slopes across the slope, over the slope.
    """
    slope = math.hypot(wanted.slope_x, wanted.slope_y)
    along = np.array([0.0, wanted.slope_x, wanted.slope_y]) / slope
    aside = np.array([0.0, -wanted.slope_y, wanted.slope_x]) / slope**2
    steepness = math.tan(setting.tilt) * (along / slope - np.array([1 / wanted.z0, 0.0, 0.0]))
    tilt, azimuth = (math.sqrt(max(float(row @ spread @ row), 0.0)) for row in (steepness, aside))
    return tilt, azimuth


def _best_within(lens, points, wanted):
    """The best plane for the limit: its steepest slope goes with how far it lies, so round until both agree."""
    z0 = wanted.z0 if wanted.z0 > lens.focal_length else lens.distance
    for _ in range(MOST_ROUNDS):
        fit = _fit(lens, points, math.sin(lens.limit) * z0 / lens.focal_length)
        if abs(fit.z0 - z0) <= 1e-9 * abs(z0):
            break
        z0 = fit.z0
    return fit


def _fit(lens, points, steepest):
    if lens.turns and lens.click is not None:
        return fit_on_clicks(points, steepest, lens.click, lens.rest)
    return fit_within(points, steepest, None if lens.turns else lens.rest)
