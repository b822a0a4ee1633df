"""Dust of a stack: looked for in a few of its frames, told by its place in the whole picture."""

import cv2
import numpy as np

from just_plane.core.frames.check.depth_map import everywhere
from just_plane.core.frames.check.dust import LEAST_FRAMES, LOOKED_AT, WIDEST, dust
from just_plane.core.frames.check.findings import Found
from just_plane.core.frames.check.foretold import Sharpest
from just_plane.core.frames.check.similarity import enlarged


def spots_of(follower, load, usable, fit, places, reference):
    """Spots on the sensor.

    Parameters
    ----------
    follower : Follower
    load : function        Number of a frame to its (H, W) float32 picture.
    usable : list of int   Frames that are well, in the order of focus.
    fit : FocusFit         Depth by tile of the reference.
    places : dict          Frame to the depth where it is sharp, steps.
    reference : int        The frame that the depth is laid on.

    Returns
    -------
    list of Spot or None   In px of the picture that is measured; None where too few frames are of use.
    """
    if len(usable) < LEAST_FRAMES or not np.isfinite(fit.depths).any():
        return None
    grid = follower.grid
    times = max(round(grid.width / WIDEST), 1)
    shape = (grid.height // times, grid.width // times)
    chosen = [usable[k] for k in np.unique(np.round(np.linspace(0, len(usable) - 1, LOOKED_AT)).astype(int))]
    pictures = {
        frame: load(frame) if times == 1 else cv2.resize(load(frame), shape[::-1], interpolation=cv2.INTER_AREA)
        for frame in chosen
    }
    depth = cv2.resize(everywhere(fit.depths.reshape(grid.down, grid.across)), shape[::-1])

    def between(first, second):
        return enlarged(follower.between(reference if first is None else first, second), 1 / times)

    sharpest = Sharpest(pictures, {frame: places[frame] for frame in chosen}, depth, between)
    spots = dust(sharpest, grid.step_blur_px / times, grid.circle_px / times)
    return [
        spot._replace(
            x=times * spot.x + (times - 1) / 2, y=times * spot.y + (times - 1) / 2, radius=times * spot.radius
        )
        for spot in spots
    ]


def spot_findings(spots, times):
    """Spots as findings.

    Parameters
    ----------
    spots : list of Spot or None   px of the picture that is measured.
    times : int                    Full pixels to one of those, each way.

    Returns
    -------
    list of Found                  Of no frame: they are in all.
    """
    said = []
    for spot in spots or ():
        place = (times * spot.x + (times - 1) / 2, times * spot.y + (times - 1) / 2)
        said.append(Found("sensor_dust", None, spot.darkness, "share", place=place))
    return said
