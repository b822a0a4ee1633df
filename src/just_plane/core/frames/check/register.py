"""Where one frame lies on the next: enhanced correlation on the plain picture, started and judged by bands.

Where contrast comes and goes from frame to frame, a picture without its low frequencies may read the loss of contrast
as a change of size. A subject with hardly any texture is the other way round: there its slow tones move with the blur,
and bands with their strength divided out hold better. Both are tried, and the one under which fine detail agrees better
is kept. See docs/derivations/registration.md.
"""

from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.bands import band, evened, likeness
from just_plane.core.frames.check.similarity import IDENTITY, enlarged, similar_part

ACROSS = 420
"""Pixels across that registration works on, about: more gain nothing."""
ROUNDS, EPSILON = 50, 1e-4
NEAR = 3.0
"""A shift found under so many pixels is no better a start than none."""
DOUBTFUL, FAILED = 0.45, 0.35
"""Likeness of an aligned pair under which another start is tried; under which there is no pair."""
COARSE, COARSE_PX = 0.7, 4.0
"""Likeness of coarse detail from which two frames are of one subject, and its size, px of the small picture: neighbours
that share nothing sharp reach 0.8, frames of other subjects 0.12."""
BANDS = (1, 2, 4, 8)
"""Sizes of detail that registration by bands looks at, px of the small picture."""
SMALLEST_RATIO = 0.7
"""Neighbours that differ in size by more are no neighbours."""
TEMPLATE = 0.6
"""Share of the middle of a frame that is looked for in the other when all else fails."""


class Ready(NamedTuple):
    """A frame prepared to be laid on another."""

    small: np.ndarray
    """(h, w) float32, plain."""
    evened: np.ndarray
    """(h, w) float32: bands of all sizes, their strength divided out."""
    fine: np.ndarray
    """(H', W') float32: fine detail, its strength divided out."""
    small_times: float
    """Times fewer pixels each way than the picture that is measured."""
    fine_times: int


class Laid(NamedTuple):
    """How a frame lies on the one before."""

    similarity: np.ndarray | None
    """(2, 3): places of the one before to places of this, px of the picture that is measured; None when it failed."""
    likeness: float
    """Normalised correlation of fine detail, as laid."""


def ready(grey, circle_px):
    """Prepare a frame.

    Parameters
    ----------
    grey : (H, W) float32 array   0 to 1, the picture that is measured.
    circle_px : float             Circle of confusion in it, px.

    Returns
    -------
    Ready
    """
    times = max(1, round(grey.shape[1] / ACROSS))
    small = _fewer(grey, times)
    fine_times = 2 if circle_px >= 3.6 or grey.shape[1] > 1600 else 1
    finer = _fewer(grey, fine_times)
    size = circle_px / fine_times / 3
    fine = evened(band(finer, max(size, 0.5), 3 * max(size, 0.5)), 8 * max(size, 0.5))
    return Ready(small, _all_bands(small), fine, times, fine_times)


def _all_bands(small):
    parts = (evened(band(small, s, 1.8 * s), 6 * s + 4) * s**0.5 for s in BANDS)
    return sum(parts, np.zeros_like(small))


def _fewer(grey, times):
    if times == 1:
        return grey
    height, width = (side // times * times for side in grey.shape)
    return cv2.resize(grey[:height, :width], (width // times, height // times), interpolation=cv2.INTER_AREA)


def lay(before, this, *, coarsely=False):
    """Lay a frame on the one before.

    Parameters
    ----------
    before, this : Ready   Of the same shape.
    coarsely : bool        Also where they share nothing sharp, if their coarse detail agrees.

    Returns
    -------
    Laid                   Without a similarity where nothing fits.
    """
    start = _start(before, this)
    first = _best(before, this, start)
    if first.likeness >= DOUBTFUL:
        return first
    best = max(first, _best(before, this, _by_template(before, this)), key=lambda laid: laid.likeness)
    fits = best.likeness >= FAILED or (coarsely and _coarsely_alike(before, this, best.similarity))
    return best if fits else Laid(None, best.likeness)


def _coarsely_alike(before, this, similarity):
    if similarity is None:
        return False
    detail = [evened(band(one.small, COARSE_PX, 3 * COARSE_PX), 4 * COARSE_PX) for one in (before, this)]
    laid, inside = laid_on(detail[1], enlarged(similarity, 1 / before.small_times))
    return likeness(detail[0], laid, inside) >= COARSE


def _best(before, this, start):
    plain = _judged(before, this, _refined(before.small, this.small, start, 5))
    bands = _judged(before, this, _refined(before.evened, this.evened, start, 1))
    return bands if bands.likeness > plain.likeness else plain


def _start(before, this):
    """Shift by phase correlation of the middle sizes of detail."""
    shift = _phase(before.small, this.small)
    start = IDENTITY.copy()
    if np.hypot(*shift) >= NEAR:
        start[:, 2] = shift
    return start


def _phase(first, second):
    bands = [evened(band(np.log(picture + 0.02), 1, 6), 12) for picture in (first, second)]
    window = cv2.createHanningWindow(first.shape[::-1], cv2.CV_32F)
    return np.array(cv2.phaseCorrelate(bands[0], bands[1], window)[0])


def _by_template(before, this):
    """Shift by looking for the middle of the one in the other, at half the pixels."""
    first, second = (_fewer(picture.small, 2) for picture in (before, this))
    first, second = (evened(band(picture, 0.7, 4), 10) for picture in (first, second))
    height, width = first.shape
    top, left = (round(side * (1 - TEMPLATE) / 2) for side in (height, width))
    middle = first[top : height - top, left : width - left]
    found = cv2.matchTemplate(second, middle, cv2.TM_CCOEFF_NORMED)
    y, x = np.unravel_index(int(np.argmax(found)), found.shape)
    start = IDENTITY.copy()
    start[:, 2] = 2.0 * (x - left), 2.0 * (y - top)
    return start


def _refined(first, second, start, smoothing):
    criteria = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_COUNT, ROUNDS, EPSILON)
    whole = np.full(first.shape, 255, np.uint8)
    try:
        affine = cv2.findTransformECC(
            first, second, start.astype(np.float32), cv2.MOTION_AFFINE, criteria, whole, smoothing
        )[1]
    except cv2.error:  # it does not settle: the pictures share nothing
        return None
    height, width = first.shape
    found = similar_part(affine.astype(float), np.array([(width - 1) / 2, (height - 1) / 2]))
    size = float(np.hypot(found[0, 0], found[1, 0]))
    return found if SMALLEST_RATIO < size < 1 / SMALLEST_RATIO else None


def _judged(before, this, similarity):
    if similarity is None:
        return Laid(None, -1.0)
    whole = enlarged(similarity, before.small_times)
    return Laid(whole, alike(before, this, whole))


def alike(before, this, similarity):
    """Likeness of the fine detail of two frames, as laid.

    Parameters
    ----------
    before, this : Ready
    similarity : (2, 3) array   Places of ``before`` to places of ``this``, px of the picture that is measured.

    Returns
    -------
    float
    """
    fine = enlarged(similarity, 1 / before.fine_times)
    laid, inside = laid_on(this.fine, fine)
    return likeness(before.fine, laid, inside)


def laid_on(picture, similarity):
    """A picture laid on another by a similarity, and where it has something to say.

    Parameters
    ----------
    picture : (H, W) float32 array   The later frame.
    similarity : (2, 3) array        Places of the earlier frame to places of the later.

    Returns
    -------
    (H, W) array, (H, W) bool array  In the pixels of the earlier frame.
    """
    size = picture.shape[::-1]
    flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
    laid = cv2.warpAffine(picture, similarity, size, flags=flags)
    inside = cv2.warpAffine(np.ones_like(picture, dtype=np.uint8), similarity, size, flags=flags)
    return laid, inside > 0
