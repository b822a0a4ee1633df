"""The rig as a lens that tilts, and the plane that it can lay through points."""

import math
from dataclasses import dataclass

from just_plane.core.errors import OpticsError
from just_plane.core.plane import (
    PlaneFit,
    TiltSetting,
    fit_on_clicks,
    fit_plane,
    fit_within,
    reachable_slope,
    tilt_for_plane,
    wedge_defocus,
)

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
        return self.focal_length * (1 + self.magnification)

    def f_number(self, effective_f_number):
        """The f-number of a symmetrical thin lens that blurs alike at the plane of focus."""
        return effective_f_number / (self.scale_behind * (1 + self.magnification))

    def blur(self, setting, points, effective_f_number):
        """Blur on the sensor, mm, signed: below 0 before the plane. (N,) array."""
        pupil = self.focal_length / self.f_number(effective_f_number)
        return self.scale_behind * pupil * wedge_defocus(self.focal_length, setting, points)

    @property
    def steepest(self):
        """The steepest slope it follows with the size held."""
        return reachable_slope(self.limit, self.magnification)

    @property
    def straight(self):
        """The setting without tilt."""
        return TiltSetting(0.0, math.pi / 2, self.image_distance)


def tilting_lens(rigged):
    """What tilts in a rig; a lens without the movement has a limit of 0."""
    row, imaging, lens = rigged.row, rigged.imaging, rigged.rig.lens
    gear, placed = row.gear(row.lens), row.pieces[row.lens]
    m = float(imaging.magnification)
    if row.facing is not None or gear.kind == "objective":
        # Nothing tilts here; a lens alone that does the same in the subject stands for the whole.
        distance = float(imaging.pupil_distance)
        return TiltingLens(
            distance / (1 + 1 / m), distance, m, 1.0, 0.0, UP, turns=False, click=None, pivot_behind_node=None
        )
    power = 1 / lens.focal_length_now
    power += sum(row.gear(index).dioptres / 1000 for index in row.front if row.kind(index) == "close_up")
    focal_length = float(1 / power)
    own = lens.focal_length_now * (1 + float(imaging.lens_magnification)) / focal_length - 1
    tilts = gear.kind == "lens" and not placed.reversed
    return TiltingLens(
        focal_length,
        focal_length * (1 + 1 / own),
        own,
        m / own,
        math.radians(gear.tilt_deg) if tilts else 0.0,
        ACROSS if rigged.on_its_side else UP,
        tilts and gear.rotates != "no",
        math.radians(gear.click_apart_deg) if tilts and gear.rotates == "clicks" and gear.click_apart_deg else None,
        gear.pivot_behind_node_mm if tilts else None,
    )


@dataclass(frozen=True, slots=True)
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

    @property
    def azimuth(self):
        return math.atan2(self.wanted.slope_y, self.wanted.slope_x) if self.slope > LEVEL else math.pi / 2

    @property
    def slope(self):
        return math.hypot(self.wanted.slope_x, self.wanted.slope_y)


def lay_plane(lens, points, findings):
    """The plane through the points that must be sharp and the setting that comes nearest to it.

    Parameters
    ----------
    lens : TiltingLens
    points : (N, 3) array     That must be sharp.
    findings : Findings       Told why there is no plane, or no setting.

    Returns
    -------
    Laid or None
    """
    if not len(points) > 0:
        return None
    try:
        wanted = fit_plane(points)
    except OpticsError as error:
        findings.refused(error, "/plane/points")
        return None
    asked, why_not = None, None
    try:
        asked = tilt_for_plane(lens.focal_length, *wanted[:3])
    except OpticsError as error:
        why_not = error
    if why_not is not None and (lens.limit == 0 or why_not.code == "slope.too_steep"):
        findings.refused(why_not, "/plane/points")
        return Laid(wanted, None, wanted, None, limited=True)
    if lens.limit == 0:
        return Laid(wanted, asked, wanted, None, limited=True)
    aside = wanted.slope_y * math.cos(lens.rest) - wanted.slope_x * math.sin(lens.rest)
    on_axis = lens.turns or abs(aside) < LEVEL
    reached = asked is not None and asked.tilt <= lens.limit * (1 + 1e-9) and on_axis
    if reached and lens.click is None:
        return Laid(wanted, asked, wanted, asked, limited=False)
    if why_not is not None:
        findings.caution(why_not.code, "/plane/points", why_not.message, why_not.remedy)
    try:
        fit = _best_within(lens, points, wanted)
        setting = tilt_for_plane(lens.focal_length, *fit[:3])
        setting = setting._replace(tilt=min(setting.tilt, lens.limit))  # to the last digit
        return Laid(wanted, asked, fit, setting, limited=not reached)
    except OpticsError as error:
        findings.refused(why_not or error, "/plane/points")
        return Laid(wanted, asked, wanted, None, limited=True)


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
