"""The best stop of a lens at a size, from what two frames at each stop share of a texture's detail.

The top is read, not a parabola, while noise is low; every stop within 2 % of it is named. Relative to the model, the
curve is scaled so that its three smallest stops agree: there diffraction rules and every lens is alike.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.contrast import perfect_contrast, pixel_contrast
from just_plane.core.domain import positive

ALIKE = 0.98
"""Contrast, as a share of the best, that nobody tells from it."""
LEAST_SURE = 3.0
"""Standard deviations that the best stop's energy must stand over noise."""
NOISY = 0.02
"""Noise of a pixel, as a share of the mean, from which neighbours are asked too."""
AROUND_STOPS = 1.4
"""Stops on either side that a parabola is laid through."""
DOUBT = 2.0
MOST_UNSURE = 2.0
"""Stops from one end to the other that noise may leave open; where it leaves more, nothing was measured."""
SMALLEST = 3
"""Stops, from the smallest opening, by which a relative curve is scaled to the model."""
LEAST_ETA = 0.05
TOO_LITTLE = "There is too little detail to tell the stops apart: noise is as large. Use print, and more light."


class MeasuredStop(NamedTuple):
    """One stop as it was measured."""

    f_number: float
    contrast: float
    """Relative to the best; or absolute, from an edge."""
    doubt: float
    """Standard deviation."""


class BestStop(NamedTuple):
    """What a trial of stops says."""

    best: float
    """f-number."""
    alike: tuple
    """f-numbers within 2 % of it, rising; the best among them."""
    could_be: tuple
    """f-numbers that noise does not tell from the best."""
    at_end: bool
    """The best is the first or last that was tried: it may lie beyond."""
    stops: tuple
    """Of MeasuredStop, rising f-number."""


def best_stop(f_numbers, energies, spreads, noise=0.0):
    """Find the best stop.

    Parameters
    ----------
    f_numbers : (S,) array    Rising.
    energies : (S,) array     As :func:`just_plane.core.trials.texture.shared_detail` gives them.
    spreads : (S,) array      Standard deviations of these.
    noise : float             Of a pixel, share of the mean.

    Returns
    -------
    BestStop, or str          Why it cannot be told, as a sentence.
    """
    n = np.asarray(positive("f_numbers", np.asarray(f_numbers, dtype=float)))
    energy, spread = np.asarray(energies, dtype=float), np.asarray(spreads, dtype=float)
    top = int(np.argmax(energy))
    if energy[top] < LEAST_SURE * spread[top] or energy[top] <= 0:
        return TOO_LITTLE
    contrast = np.sqrt(np.maximum(energy, 0.0))
    doubt = spread / (2 * np.maximum(contrast, np.sqrt(np.maximum(spread, 1e-30))))
    judged = _smoothed(np.log2(n) * 2, contrast, doubt) if noise > NOISY and len(n) >= 5 else contrast
    best = int(np.argmax(judged))
    scale = judged[best]
    alike = [value for value, share in zip(n, judged, strict=True) if share >= ALIKE * scale]
    unsure = [
        value
        for k, value in enumerate(n)
        if k == best or judged[k] + DOUBT * math.hypot(doubt[k], doubt[best]) >= scale
    ]
    if 2 * math.log2(unsure[-1] / unsure[0]) > MOST_UNSURE:
        return TOO_LITTLE
    stops = tuple(
        MeasuredStop(float(value), float(share / scale), float(part / scale))
        for value, share, part in zip(n, judged, doubt, strict=True)
    )
    at_end = len(n) > 1 and best in (0, len(n) - 1)
    return BestStop(float(n[best]), tuple(map(float, alike)), tuple(map(float, unsure)), at_end, stops)


def _smoothed(stops, contrast, doubt):
    """Each value by a parabola through those around it, weighted by their doubts and by how near they are."""
    answer = np.empty_like(contrast)
    for k, at in enumerate(stops):
        away = (stops - at) / AROUND_STOPS
        near = np.abs(away) < 1
        if near.sum() < 4:
            near = np.argsort(np.abs(away))[:4]
        weight = np.sqrt(1 - np.minimum(np.abs(away[near]), 0.99) ** 3) / np.maximum(doubt[near], 1e-12)
        powers = np.vander(away[near], 3)
        answer[k] = np.linalg.lstsq(powers * weight[:, np.newaxis], contrast[near] * weight, rcond=None)[0][-1]
    return answer


def model_contrast(frequency, effective_f_numbers, pixel_pitch, wavelength):
    """What a perfect lens would leave, with the pixel.

    Parameters
    ----------
    frequency : float                 Cycles per mm.
    effective_f_numbers : (S,) array
    pixel_pitch, wavelength : float   mm.

    Returns
    -------
    (S,) array
    """
    effective = np.asarray(effective_f_numbers, dtype=float)
    return perfect_contrast(frequency * wavelength * effective) * pixel_contrast(frequency, pixel_pitch)


def spread_of(measured, modelled, frequency, *, relative):
    """The spread that a lens adds at each stop, as a standard deviation on the sensor.

    Parameters
    ----------
    measured, modelled : (S,) array   Contrast by rising f-number.
    frequency : float                 Cycles per mm at which both are.
    relative : bool                   Scale the measured curve to the model at its three smallest stops.

    Returns
    -------
    (S,) array                        mm: contrast at nu is multiplied by exp(-2 (pi nu spread)^2).
    """
    measured, modelled = np.asarray(measured, dtype=float), np.asarray(modelled, dtype=float)
    share = measured / np.maximum(modelled, 1e-9)
    if relative:
        share = share / np.median(share[-SMALLEST:])
    return np.sqrt(np.maximum(-np.log(np.maximum(share, LEAST_ETA)), 0.0) / 2) / (np.pi * frequency)
