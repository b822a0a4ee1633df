"""Defocus over the frame for each way of one frame, for the picture at Plane."""

import numpy as np

from just_plane.contract.plane_plan import BlurMap, BlurMaps
from just_plane.core.depth import best_focus
from just_plane.core.errors import OpticsError
from just_plane.planning.plane.subject_surface import SubjectSurface
from just_plane.planning.setup.setup import NoSetup, make_setup

COLUMNS, ROWS = 36, 24
MOST_PERCENT = 9999


def blur_maps(shot):
    """Defocus over the frame for each way of one frame, tilted or not.

    Parameters
    ----------
    shot : Shot

    Returns
    -------
    BlurMaps          In percent of the blur allowed; none without points, or where the shot cannot be set up.
    """
    setup = make_setup(shot)
    if isinstance(setup, NoSetup) or not setup.plane.cloud.points:
        return BlurMaps(maps=[])
    work, stops = setup.plane, setup.stops
    left, top = np.meshgrid((np.arange(COLUMNS) + 0.5) / COLUMNS, (np.arange(ROWS) + 0.5) / ROWS)
    points, _ = SubjectSurface(work, setup.depth).points_at(left.ravel(), top.ravel())
    maps = []
    for way, (setting, stop) in _settings(setup).items():
        allowed = float(stops.blurs[stop])
        if allowed <= 0:
            continue
        try:
            blur = work.lens.blur(setting, points, float(stops.effective_f_numbers[stop]))
        except OpticsError:
            continue
        percent = np.clip(np.rint(blur / allowed * 100), -MOST_PERCENT, MOST_PERCENT).astype(int)
        maps.append(BlurMap(way=way, columns=COLUMNS, rows=ROWS, percent=percent.tolist()))
    return BlurMaps(maps=maps)


def _settings(setup):
    """Setting of the lens and index of the stop of each way of one frame: {way id: (TiltSetting, int)}."""
    work, stops = setup.plane, setup.stops
    straight = work.lens.straight
    focused = _focused(work, best_focus(setup.depth, setup.view.pupil_distance))
    best = straight._replace(image_distance=focused)
    wanted = {
        "one": (straight, stops.chosen),
        "one_best": (best, setup.best.place),
        "one_narrowest": (best, stops.clicks - 1),
    }
    if work.laid is not None and work.laid.setting is not None:
        wanted["tilt"] = (work.laid.setting, stops.chosen)
        narrower = work.stopped_down(stops)
        if narrower is not None:
            wanted["tilt_best"] = (work.laid.setting, narrower)
    if work.strip is not None and work.strip.setting is not None:
        wanted["strip"] = (work.strip.setting, stops.chosen)
    return wanted


def _focused(work, behind_nearest):
    """Image distance at which the straight lens is focused so far behind the nearest point, mm."""
    away = work.cloud.nearest + behind_nearest
    return away * work.lens.focal_length / (away - work.lens.focal_length)
