"""A shot set up: rig, points, depth, focus, circle, stops and plane worked out once, for all who answer from them."""

from dataclasses import dataclass, replace

import numpy as np

from just_plane.contract.plan import Finding
from just_plane.contract.shot import Shot
from just_plane.core.defocus import View
from just_plane.core.depth import best_focus
from just_plane.core.errors import OpticsError
from just_plane.core.kept import Kept
from just_plane.core.units import MM_PER_NM
from just_plane.planning.rig.rigging import Rigged, Sensor, build_rig, rig_asked, sensor
from just_plane.planning.setup.circles import circles
from just_plane.planning.setup.measured import measured_notes, pace_of
from just_plane.planning.setup.plane import PlaneSetup, plane_of
from just_plane.planning.setup.points import ReadPoint, depth_of, read_points
from just_plane.planning.setup.stops import Best, Stop, Stops, marked_stop, stops_of, worst_over_depth
from just_plane.planning.words.findings import RefusedError, refused, trouble
from just_plane.planning.words.numbers import Wording


@dataclass(frozen=True, slots=True, eq=False)
class Framed:
    """The rig before the subject: how far one can get without knowing what counts as sharp. mm."""

    shot: Shot
    wording: Wording
    rigged: Rigged
    area: Sensor
    points: tuple[ReadPoint, ...]
    depth: float
    """That must be sharp."""
    depth_from_points: bool
    focus: float
    """Plane of focus behind the nearest point that must be sharp."""
    circles: dict
    """Blur on the sensor by each school of what counts as sharp, or the refusal."""


@dataclass(frozen=True, slots=True, eq=False)
class Setup(Framed):
    """Everything that stations, ways and pictures answer from."""

    circle: float
    stops: Stops
    stop: Stop
    """The one in use."""
    worst: np.ndarray
    """Worst contrast over the depth at each of the stops, signed: (N,)."""
    best: Best
    """The stop that serves it best."""
    view: View
    plane: PlaneSetup
    said: tuple[Finding, ...]

    @property
    def pace(self):
        """What each frame takes besides its exposure: Pace."""
        return pace_of(self.shot)

    @property
    def middle(self):
        """Where one frame is best focused, mm behind the nearest point."""
        return best_focus(self.depth, self.view.pupil_distance)

    @property
    def wavelength(self):
        """mm."""
        return self.view.wavelength


@dataclass(frozen=True, slots=True, eq=False)
class NoSetup:
    """A shot that cannot be worked out; one of ``said`` is the trouble that says why."""

    said: tuple[Finding, ...]
    framed: Framed | None = None
    """As far as it got; None when there is no rig."""


def make_setup(shot, units="mm"):
    """Set a shot up.

    Parameters
    ----------
    shot : Shot
    units : str   ``mm`` or ``in``: how sentences speak of lengths.

    Returns
    -------
    Setup or NoSetup   Never raises for a valid shot.
    """
    wording = Wording(units)
    try:
        rigged = rig_of(rig_asked(shot), wording)
        rigged = _through_stop(rigged, marked_stop(shot.aperture, rigged))
    except RefusedError as error:
        return NoSetup((error.finding,))
    framed, said = _framed(shot, rigged, wording)
    circle = framed.circles[shot.sharp.school]
    if isinstance(circle, OpticsError):
        return NoSetup((*said, refused(circle, "/body/pixels_across", wording)), framed)
    if framed.focus >= rigged.imaging.pupil_distance:
        return NoSetup((*said, _behind_pupil()), framed)
    try:
        stops, of_stops = stops_of(rigged, shot.aperture, shot.sharp, circle, shot.light, wording)
    except RefusedError as error:
        return NoSetup((*said, error.finding), framed)
    imaging, wavelength = rigged.imaging, shot.sharp.wavelength_nm * MM_PER_NM
    plane, of_plane = plane_of(
        rigged, framed.area, framed.points, framed.focus, shot.plane.strip, shot.plane.rail_counts, wording
    )
    worst, best = worst_over_depth(framed.depth, stops, imaging, circle, wavelength, shot.sharp.contrast_threshold)
    return Setup(
        **{name: getattr(framed, name) for name in Framed.__slots__},
        circle=circle,
        stops=stops,
        stop=stops.at(stops.chosen),
        worst=worst,
        best=best,
        view=View(imaging.magnification, imaging.pupil_distance, circle, framed.depth, wavelength),
        plane=plane,
        said=(*said, *of_stops, *of_plane, *measured_notes(shot, imaging.magnification)),
    )


rig_of = Kept(build_rig)


def _through_stop(rigged, f_number):
    """The rig seen from the entrance pupil that limits at a marked stop."""
    imaging = rigged.imaging.through_stop(f_number)
    return rigged if imaging is rigged.imaging else _seen_through(rigged, imaging)


_seen_through = Kept(lambda rigged, imaging: replace(rigged, imaging=imaging))
_points_of = Kept(read_points)


def _framed(shot, rigged, wording):
    """Where the camera stands before the subject: (Framed, findings)."""
    area, work = sensor(shot), shot.plane
    points, said = _points_of(work.points, work.rail_counts, work.rail_at_mm, rigged.imaging.subject_to_sensor, wording)
    read = depth_of(points)
    depth = shot.subject.depth_mm if read is None else float(read)
    focus = shot.focus_behind_nearest_mm
    if focus is None:
        focus = best_focus(depth, rigged.imaging.pupil_distance)
    by_school = circles(shot.picture, shot.sharp.pixel_factor, area)
    return Framed(shot, wording, rigged, area, points, depth, read is not None, focus, by_school), said


def _behind_pupil():
    return trouble(
        "focus.behind_pupil",
        "/focus_behind_nearest_mm",
        "The nearest point would lie behind the lens with this focus.",
        "Focus nearer to the nearest point, or make less of the subject sharp.",
    )
