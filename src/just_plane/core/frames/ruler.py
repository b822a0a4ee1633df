"""The ticks of a ruler in a photograph: their spacing, direction and places, found by their rhythm.

A ruler's ticks are a comb: their spectrum has one strong line, at one over the spacing, across the ticks. The line is
found in the power spectrum of the whole frame averaged over overlapping squares (so that a part that is covered or out
of focus only weakens it), then the frame is folded onto that direction strip by strip, and the spacing is read from how
the phase of the comb runs on along the ruler. See docs/derivations/ruler.md.
"""

from typing import NamedTuple

import numpy as np

from just_plane.core.errors import OpticsError
from just_plane.core.frames.comb import Comb, comb_along
from just_plane.core.frames.spectrum import averaged, candidates, evened, power_spectrum
from just_plane.core.frames.ticks import has_ruler_pattern

LONGEST_SIDE = 2400
"""Pixels along the longer side that are searched; a larger frame is first averaged down by a whole number."""
COARSER = 4
"""Widely spaced ticks are looked for in a frame averaged down by this much more."""
BESIDE = 0.5
"""Of its width, that a comb may show beside where a coarser frame has it."""
MOST_MARKS = 400
CLEAR_LIKENESS = 0.9
CLEAR_TICKS = 15
SYSTEMATIC = 1e-4
"""Share of the spacing added to its uncertainty: folding onto whole pixels and lens distortion leave that much."""


class NoRulerError(OpticsError):
    """No rhythm of ticks stands out in the frame."""


class Ruler(NamedTuple):
    """Ticks found in a frame. Pixels of the frame as given, x right and y down from the top left corner."""

    spacing: float
    """Between neighbouring ticks, along the ruler."""
    spacing_uncertainty: float
    """Standard uncertainty of it, from how evenly the ticks run."""
    angle: float
    """Of the ruler's length, radians from the x axis, clockwise on the picture; between -pi/2 and pi/2."""
    likeness: float
    """Share of the variation along the ruler that an even comb explains, 0 to 1."""
    drift: float
    """How much the spacing changes from one end to the other, as a share: a ruler not square to the camera."""
    marks: np.ndarray
    """(n, 4): x1, y1, x2, y2 of each tick."""


def find_ruler(frame):
    """Find the ticks of a ruler, at any angle.

    Parameters
    ----------
    frame : (h, w) array   Brightness, any scale; at least 64 pixels each way.

    Returns
    -------
    Ruler

    Raises
    ------
    NoRulerError           The frame is too small, has no rhythm, fewer than six ticks of it can be told apart, or what
                           repeats has strokes of one length only and so is no ruler's.
    """
    frame = np.asarray(frame)
    if frame.dtype != np.uint8:
        frame = frame.astype(np.float32)
    whole = frame.dtype == np.uint8 or bool(np.all(np.isfinite(frame)))
    if frame.ndim != 2 or min(frame.shape) < 64 or not whole:
        raise _refusal(
            "frame.too_small", "This picture is too small to find a ruler in: 64 pixels each way are needed."
        )
    shrink = -(-max(frame.shape) // LONGEST_SIDE)
    flat = evened(averaged(frame, shrink))
    found = _Found(flat)
    for coarser, most in ((COARSER, 14), (1, 8)):
        level = averaged(flat, coarser)
        if min(level.shape) < 48:
            continue
        for best in found.ordered:
            # Perhaps only the long ticks were told apart so far; and the same comb is measured better here.
            found.take(_again(level, best.comb), coarser, instead_of=best)
        if found.clear:
            continue
        for frequency in candidates(power_spectrum(level), most):
            found.take(comb_along(level, frequency), coarser)
            if found.clear:
                break
    if found.ruler is not None:
        return _as_ruler(found.ruler.comb, shrink * found.ruler.coarser)
    if found.combs:
        raise _refusal(
            "frame.only_periodic",
            "Something in this picture repeats evenly, but nothing tells a ruler: its strokes are all of one length.",
        )
    raise _refusal("frame.no_ruler", "No ruler was found: nothing in this picture repeats evenly.")


def _again(level, comb):
    """A comb that a coarser frame has, looked for in the band where it showed; the frame is averaged down less."""
    pace = 1 / (comb.spacing * COARSER)
    near, far = (COARSER * across for across in comb.across)
    around = BESIDE * (far - near)
    frequency = (pace * np.cos(comb.angle), pace * np.sin(comb.angle))
    return comb_along(level, frequency, (near - around, far + around))


class _At(NamedTuple):
    """A comb found in a frame averaged down so many times more."""

    comb: Comb
    coarser: int


class _Found:
    """What repeats evenly in a frame, best first, and which of it is a ruler."""

    def __init__(self, flat):
        self.flat = flat
        self.combs = []
        self.ruler = None

    @property
    def ordered(self):
        """The comb to look for again in a finer frame: a list of it, or of none.

        Returns
        -------
        list of _At
        """
        return sorted(self.combs, key=lambda at: -at.comb.score)[:1] if self.ruler is None else [self.ruler]

    def take(self, comb, coarser, instead_of=None):
        """Take a comb in; a ruler stays until a clearly better one is met, or the same one in a finer frame.

        Parameters
        ----------
        comb : Comb or None        Pixels of the frame that it was found in.
        coarser : int              How many times that was averaged down.
        instead_of : _At or None   The same comb, as a coarser frame has it.

        Returns
        -------
        None
        """
        if comb is None:
            return
        at = _At(comb, coarser)
        self.combs.append(at)
        least = 1.05 if instead_of is None else 0.8
        if (self.ruler is None or comb.score > least * self.ruler.comb.score) and self._is_ruler(at):
            self.ruler = at

    @property
    def clear(self):
        """Whether nothing else in the frame could be a better ruler, so that the search may end.

        Returns
        -------
        bool
        """
        comb = self.ruler and self.ruler.comb
        return comb is not None and comb.likeness > CLEAR_LIKENESS and len(comb.ticks) >= CLEAR_TICKS

    def _is_ruler(self, at):
        comb, coarser = at
        ticks, *across = ((np.asarray(each) + 0.5) * coarser - 0.5 for each in (comb.ticks[:MOST_MARKS], *comb.across))
        return has_ruler_pattern(self.flat, comb.spacing * coarser, comb.angle, ticks, tuple(map(float, across)))


def _refusal(code, message):
    return NoRulerError(
        code,
        quantity="frame",
        message=message,
        remedy="Fill a good part of the frame with the ruler, focus on its ticks and light it evenly; or place two "
        "points by hand.",
    )


def _as_ruler(comb, shrink):
    cos, sin = np.cos(comb.angle), np.sin(comb.angle)
    along = comb.ticks[:MOST_MARKS]
    ends = [(along * cos - across * sin, along * sin + across * cos) for across in comb.across]
    marks = np.stack([ends[0][0], ends[0][1], ends[1][0], ends[1][1]], axis=1)
    # The middle of a block of averaged pixels lies half a block in.
    marks = (marks + 0.5) * shrink - 0.5
    angle = (comb.angle + np.pi / 2) % np.pi - np.pi / 2
    uncertainty = float(np.hypot(comb.uncertainty, SYSTEMATIC * comb.spacing))
    return Ruler(comb.spacing * shrink, uncertainty * shrink, float(angle), comb.likeness, comb.drift, marks)
