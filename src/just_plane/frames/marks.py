"""What is drawn over a picture when it is looked at: depth, where the brush is needed, where two proofs differ."""

import numpy as np

from just_plane.contract.check import DifferenceReport, MarksReport
from just_plane.frames.outputs import LEAST_KNOWN, in_mm, reduced_picture

ACROSS = 160
"""Cells of the grid that is told."""
FEWER = (8, 4, 2, 1)
"""Times fewer pixels each way at which proofs may be held against each other."""


def marks_of(report, used, found, depth, brush, pictures):
    """The marks of a merged stack.

    Parameters
    ----------
    report : CheckReport
    used : list of int
    found : FocusMap
    depth : (h, w) array     Filled, in frames used.
    brush : Brush
    pictures : dict          Method to Picture.

    Returns
    -------
    MarksReport
    """
    values, unit = in_mm(depth, report, used)
    across = min(ACROSS, depth.shape[1], report.size[0] // 2)
    down = max(round(across * depth.shape[0] / depth.shape[1]), 1)
    known = cells((found.confidence >= LEAST_KNOWN).astype(np.float32), across, down) > 0.5
    told = cells(values, across, down)
    times = next((times for times in FEWER if report.size[0] // times >= 2 * across), 1)
    small = {method: reduced_picture(picture, times).astype(np.float32) for method, picture in pictures.items()}
    methods = list(small)
    return MarksReport(
        across=across,
        down=down,
        unit=unit,
        depth=[
            round(float(value), 4) if sure else None for value, sure in zip(told.ravel(), known.ravel(), strict=True)
        ],
        brush=_rounded(cells(brush.mask.astype(np.float32), across, down)),
        differences=[
            DifferenceReport(one=one, other=other, levels=_differ(small[one], small[other], across, down))
            for place, one in enumerate(methods)
            for other in methods[place + 1 :]
        ],
    )


def cells(values, across, down):
    """Means over the cells of a grid.

    Parameters
    ----------
    values : (h, w) array   At least as many as cells.
    across, down : int

    Returns
    -------
    (down, across) array
    """
    height, width = values.shape
    rows = np.arange(down + 1) * height // down
    columns = np.arange(across + 1) * width // across
    sums = np.add.reduceat(np.add.reduceat(values.astype(np.float64), rows[:-1], axis=0), columns[:-1], axis=1)
    answer: np.ndarray = sums / (np.diff(rows)[:, np.newaxis] * np.diff(columns))
    return answer


def _differ(one, other, across, down):
    """Largest difference in a cell between means of a quarter of it: grain that is not alike is none."""
    means = [
        np.stack([cells(picture[..., channel], 2 * across, 2 * down) for channel in range(3)])
        for picture in (one, other)
    ]
    apart = np.abs(means[0] - means[1]).max(axis=0)
    return _rounded(apart.reshape(down, 2, across, 2).max(axis=(1, 3)), 2)


def _rounded(values, digits=3):
    return [round(float(value), digits) for value in values.ravel()]
