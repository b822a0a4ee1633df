"""The order of ways to get a shot, and what decides between two of them."""

from typing import NamedTuple

CRITERIA = ("whole", "in_time", "contrast_enough", "keeps_picture", "part", "single", "contrast", "quick")
"""In the order in which they decide. ``part`` is the share held by one that does not hold all."""


class Merit(NamedTuple):
    """What counts for a way, one entry a criterion; more is better."""

    whole: bool
    in_time: bool
    contrast_enough: bool
    keeps_picture: bool
    part: float
    single: bool
    contrast: float
    quick: float


def merit(way, contrast_threshold, hold_still=None, *, keeps_picture=True):
    """What counts for a way.

    Parameters
    ----------
    way : Way
    contrast_threshold : float       That counts as sharp.
    hold_still : float or None       s that the subject keeps still; None: for ever.
    keeps_picture : bool             False for a way that changes the view or gives up pixels.

    Returns
    -------
    Merit
    """
    whole = way.cover >= 1 - 1e-9
    return Merit(
        whole,
        hold_still is None or way.time <= hold_still,
        way.worst_contrast >= contrast_threshold,
        keeps_picture,
        0.0 if whole else way.cover,
        way.frames == 1,
        round(way.worst_contrast, 3),
        -way.time,
    )


def ranked(merits):
    """Indices of ways, the best first; of equals the one that came first.

    Parameters
    ----------
    merits : sequence of Merit

    Returns
    -------
    list of int
    """
    return sorted(range(len(merits)), key=lambda index: merits[index], reverse=True)


def deciding(one, other):
    """The first criterion in which two merits differ; None when they are alike.

    Parameters
    ----------
    one, other : Merit

    Returns
    -------
    str or None   One of ``CRITERIA``.
    """
    return next((name for name, a, b in zip(CRITERIA, one, other, strict=True) if a != b), None)


def recommend(ways, contrast_threshold, hold_still=None):
    """Index of the best way; None when there is none. As :func:`ranked`, every way keeping the picture.

    Parameters
    ----------
    ways : sequence of Way
    contrast_threshold : float     That counts as sharp.
    hold_still : float or None     s; None: for ever.

    Returns
    -------
    int or None
    """
    order = ranked([merit(way, contrast_threshold, hold_still) for way in ways])
    return order[0] if order else None
