"""The plane worked out once for everything that needs it: the section, the ways, the preview."""

from dataclasses import dataclass

import numpy as np

from just_plane.planning.cloud import Cloud, Frame, cloud
from just_plane.planning.points import depth_of, read_points
from just_plane.planning.rigging import sensor
from just_plane.planning.tilting import Laid, TiltingLens, lay_plane, tilting_lens


@dataclass(frozen=True, slots=True)
class PlaneWork:
    """The lens that tilts or not, the points before it, and the plane laid through them."""

    lens: TiltingLens
    frame: Frame
    cloud: Cloud
    laid: Laid | None

    @property
    def depths_asked(self):
        """Of the points that must be sharp, mm behind the nearest: list."""
        return (self.cloud.sharp[:, 2] - self.cloud.nearest).tolist()

    def name(self, index):
        """How a point of the cloud is called; a corner of a flat part by its part."""
        point = self.cloud.points[index]
        return point.name if point.corner is None else f"a corner of {point.name}"


def points_of(shot, rigged, findings, wording):
    """The points as read, and the shot with its depth taken from them where they give one.

    Returns
    -------
    (list of ReadPoint, Shot, bool)   True when the depth came from the points.
    """
    points = read_points(shot, rigged.imaging.subject_to_sensor, findings, wording)
    depth = depth_of(points)
    if depth is None:
        return points, shot, False
    subject = shot.subject.model_copy(update={"depth_mm": float(depth)})
    return points, shot.model_copy(update={"subject": subject}), True


def work_out(shot, rigged, points, focus, findings):
    """The plane through the points with the camera where one frame is best focused: PlaneWork."""
    lens, area, imaging = tilting_lens(rigged), sensor(shot), rigged.imaging
    frame = Frame(area.width, area.height, imaging.magnification, imaging.pupil_distance, lens.distance)
    seen = cloud(points, frame, focus)
    asked = seen.sharp
    laid = None
    if len(asked) >= 3:
        if np.all(np.isfinite(asked)) and asked[:, 2].min() > lens.focal_length:
            laid = lay_plane(lens, asked, findings)
        else:
            findings.trouble(
                "points.inside_lens",
                "/plane/points",
                "A point lies within a focal length of the lens, where it has no image.",
                "Check its reading, or stand farther back.",
            )
    elif points:
        missing = 3 - len(asked)
        findings.note(
            "points.too_few",
            "/plane/points",
            f"A plane needs three points that must be sharp and are read; {missing} more "
            f"{'is' if missing == 1 else 'are'} wanted.",
            "Choose them far apart, not in one line; or give a flat subject by its angle.",
        )
    return PlaneWork(lens, frame, seen, laid)
