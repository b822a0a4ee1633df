"""How wide the bell of a place should be through the frames, by the optics of the plan.

A frame that was taken at another stop than planned holds another depth: the bells are wider or narrower than those of
the plan, whatever the subject. See docs/derivations/depth_from_focus.md.
"""

import numpy as np

from just_plane.core.contrast import contrast
from just_plane.core.frames.check.focus_fit import LOWEST_SHARE, REACH, bell_width
from just_plane.core.frames.check.tiles import CURVE

PHASES = np.linspace(-0.5, 0.5, 11)
"""Where a place lies between two frames."""
AROUND = 4
"""Frames on either side of it that are looked at."""
FREQUENCIES = np.linspace(0.2, 2.6, 25)
"""Over which the band is summed, of its own frequency."""
LEAST_CIRCLE_PX = 2.0
"""With coarser pixels what is measured is no detail of the plan's."""
WIDER = 1.6
"""The band is what lies between two smoothings of this ratio."""


def expected_width(facts, reduction, grid):
    """The width that the fit of the focus curve would find in a stack as planned.

    Parameters
    ----------
    facts : StackFacts
    reduction : int      Times fewer pixels each way that are measured.
    grid : Grid

    Returns
    -------
    float or None        In steps, the standard deviation of the bell; None where the plan does not say.

    Notes
    -----
    The band is no single frequency: it is summed with the weight it gives to each, over a texture whose power falls
    with the square of frequency, as that of most surfaces does.
    """
    if not facts.judges_contrast or not facts.pixel_pitch:
        return None
    if facts.circle / (facts.pixel_pitch * reduction) < LEAST_CIRCLE_PX:
        return None
    middle = grid.frequencies[CURVE]
    share = FREQUENCIES * middle
    sigma = 0.175 / middle
    passed = np.exp(-2 * (np.pi * sigma * share) ** 2) - np.exp(-2 * (np.pi * WIDER * sigma * share) ** 2)
    weight = passed**2 / share
    numbers = np.arange(-AROUND, AROUND + 1.0)
    away = np.abs(numbers[:, np.newaxis] - PHASES)
    energy = np.zeros(away.shape)
    for frequency, its in zip(share / (facts.pixel_pitch * reduction), weight, strict=True):
        blur = facts.blur(away * facts.step)
        energy += its * np.asarray(contrast(frequency, facts.effective_f_number, blur, facts.wavelength)) ** 2
    highest = energy.max(axis=0)
    samples = (energy > LOWEST_SHARE * highest) & (np.abs(numbers[:, np.newaxis]) <= REACH)
    y = np.where(samples, np.log(np.maximum(energy, 1e-30)), 0.0)
    return bell_width(y, samples, numbers)
