"""The plane worked out once for everything that needs it: the section, the ways, the pictures."""

from dataclasses import dataclass, replace

import numpy as np

from just_plane.core.errors import OpticsError
from just_plane.core.frame import Frame
from just_plane.core.kept import Kept
from just_plane.core.plane.points import spanned
from just_plane.core.plane.rest import Turn, least_turn, rolled
from just_plane.core.plane.shifting import radius_needed
from just_plane.core.plane.tilting_lens import Laid, TiltingLens, lay_plane
from just_plane.core.plane.turning import Square, turn_square
from just_plane.core.plane.wedge import wedge_defocus
from just_plane.planning.rig.rigging import Sensor
from just_plane.planning.setup.cloud import Cloud, cloud
from just_plane.planning.setup.image_circle import displacement, lit_radius
from just_plane.planning.setup.rail_marks import TOWARD, mark_to_stand_at
from just_plane.planning.setup.strip import StripSetting, strip_setting
from just_plane.planning.setup.tilting import tilting_lens
from just_plane.planning.words.findings import caution, note, refused, trouble

ENOUGH = 1.005
"""Share of the lit circle up to which a corner counts as lit: circles on paper are round numbers."""


@dataclass(frozen=True, slots=True, eq=False)
class PlaneSetup:
    """The lens that tilts or not, the points before it, and the plane laid through them. mm."""

    lens: TiltingLens
    frame: Frame
    area: Sensor
    cloud: Cloud
    laid: Laid | None
    strip: StripSetting | None
    lit: float | None
    """Radius of the lit circle on the sensor; None: not known."""
    rail_mark: float | None
    """At which the camera stands; None: no point was read on the rail."""
    rail_counts: str
    square: Square | None
    """The camera turned square to the plane; None where none is laid."""
    rest: Turn | None
    """The least turn after which the tilt reaches the plane; None where it does as it stands, or none helps."""
    rolled: Laid | None
    """The plane laid with the camera rolled a quarter turn, where the mechanism leans another way than the plane."""

    across_assumed: bool = False
    """The points lie in one line, and across it the plane is taken as square to the camera."""

    def blurs(self, effective_f_number):
        """Blur on the sensor of each point that must be sharp, with the setting laid: (N,) mm."""
        if self.laid is None or self.laid.defocus is None:
            raise ValueError("no setting is laid: look at ``laid`` first")
        return np.abs(self.lens.blur_of(self.laid.defocus, effective_f_number))

    def covering(self, stops):
        """Index of the widest stop of the lens at which the setting laid holds every point; None where none does."""
        fine = self.blurs(1.0).max() / stops.effective_f_numbers[: stops.clicks] <= stops.blurs[: stops.clicks]
        return int(np.argmax(fine)) if fine.any() else None

    def stopped_down(self, stops):
        """Index of that stop where the one in use does not hold every point; None where it does, or none does."""
        chosen = stops.chosen
        held = (self.blurs(float(stops.effective_f_numbers[chosen])) <= stops.blurs[chosen] * (1 + 1e-9)).all()
        return None if held else self.covering(stops)

    def mark_moved(self, toward):
        """The rail's mark when the camera has moved so far toward the subject, mm; None without marks."""
        return None if self.rail_mark is None else self.rail_mark + TOWARD[self.rail_counts] * toward

    def displaced(self, setting, shift):
        """Of the lit circle's middle from the sensor's, by a setting and the shift wanted: (x, y) mm."""
        return displacement(self.lens, setting, self.frame.magnification, shift)

    def is_lit(self, setting, shift):
        """Radius that a setting and the shift ask for, mm, and whether the whole frame is lit (None: unknown)."""
        needed = radius_needed(self.area.width, self.area.height, self.displaced(setting, shift))
        return needed, None if self.lit is None else needed <= self.lit * ENOUGH


def _plane_of(rigged, area, points, focus, strip, rail_counts, wording):
    """The plane through the points with the camera where one frame is best focused: (PlaneSetup, findings)."""
    lens, imaging = tilting_lens(rigged), rigged.imaging
    frame = Frame(area.width, area.height, imaging.magnification, imaging.pupil_distance, lens.distance)
    seen = cloud(points, frame, focus)
    spanning, across_assumed = _spanning(seen)
    laid, said = _laid(lens, seen, spanning, wording)
    square = None if laid is None else turn_square(seen.sharp, laid.wanted, frame.distance)
    rest, on_its_side = _beyond(lens, spanning, laid)
    found = PlaneSetup(
        lens,
        frame,
        area,
        seen,
        laid,
        strip_setting(strip, lens, seen, laid, wording),
        lit_radius(rigged, lens),
        mark_to_stand_at(seen, frame, rail_counts),
        rail_counts,
        square,
        rest,
        on_its_side,
        across_assumed,
    )
    return found, said + ((_across_assumed(len(seen.sharp)),) if laid is not None and across_assumed else ())


plane_of = Kept(_plane_of)


def _beyond(lens, points, laid):
    """What would reach a plane that the tilt does not: (Turn or None, Laid or None)."""
    if laid is None or laid.setting is None or not laid.limited:
        return None, None
    try:
        on_its_side = None if lens.turns else rolled(lens, points)
    except OpticsError:
        on_its_side = None
    return least_turn(lens, points, laid.wanted), on_its_side


def _spanning(seen):
    """The points to lay a plane through, and whether its slope across them is assumed: ((N, 3) array, bool)."""
    if len(seen.sharp) < 2 or not np.all(np.isfinite(seen.sharp)):
        return seen.sharp, False
    try:
        return spanned(seen.sharp)
    except OpticsError:
        return seen.sharp, False


def _laid(lens, seen, asked, wording):
    """The plane laid, or None, and what there is to say of it: (Laid or None, tuple of Finding)."""
    if len(seen.sharp) < 2:
        return None, (_too_few(2 - len(seen.sharp)),) if seen.points else ()
    if len(asked) < 3 and np.all(np.isfinite(asked)):
        return None, (_one_place(),)
    if not (np.all(np.isfinite(asked)) and asked[:, 2].min() > lens.focal_length):
        return None, (
            trouble(
                "points.inside_lens",
                "/plane/points",
                "A point lies within a focal length of the lens, where it has no image.",
                "Check its reading, or stand farther back.",
            ),
        )
    try:
        laid = lay_plane(lens, asked)
    except OpticsError as error:
        return None, (refused(error, "/plane/points", wording),)
    if laid.setting is not None and len(asked) != len(seen.sharp):
        # Ghosts laid the plane; what counts is what the points make of it.
        laid = replace(laid, defocus=wedge_defocus(lens.focal_length, laid.setting, seen.sharp))
    if laid.why_not is None:
        return laid, ()
    return laid, (refused(laid.why_not, "/plane/points", wording, trouble if laid.setting is None else caution),)


def _across_assumed(count):
    return note(
        "points.across_assumed",
        "/plane/points",
        f"{'Two points' if count == 2 else 'Points in one line'} tell how the plane leans along the line between them; "
        "across it, it is taken as square to the camera.",
        "Add a point beside the line to be sure.",
    )


def _one_place():
    return trouble(
        "points.one_place",
        "/plane/points",
        "The points stand at one place of the frame: they say nothing of how the plane leans.",
        "Drag each to where it is seen, or type its place; the farther apart the better.",
    )


def _too_few(missing):
    return note(
        "points.too_few",
        "/plane/points",
        f"A plane needs two points that must be sharp and are read, better three; {missing} more "
        f"{'is' if missing == 1 else 'are'} wanted.",
        "Choose them far apart; or give a flat subject by its angle.",
    )
