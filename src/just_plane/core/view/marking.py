"""Marks along edges that look sharp, worked out from the noisy frame only, as a camera must.

Where the Laplacian is large beside the slope, an edge is short: their ratio hardly depends on how strong the texture
is. The ratio from which an edge counts is that of a step blurred by the circle of confusion, at this stop and pitch.
"""

from functools import lru_cache

import numpy as np

from just_plane.core.contrast import transfer
from just_plane.core.domain import positive
from just_plane.core.units import DEFAULT_WAVELENGTH

SMOOTH_PX = 0.7
AROUND_PX = 9
STANDS_OUT = 3.0
"""Standard deviations that a slope must stand over noise."""
HONEST_PITCH = 1 / 5
"""Pitch, as a share of the circle of confusion, down to which a mark tells what is sharp."""
STEP_PX = 128


SAFFRON, INK = (239, 178, 42), (16, 18, 20)
HATCH = 6


def hatched(picture, marks):
    """Short saffron strokes along what is marked, each beside a dark one: seen without colours too. In place.

    Parameters
    ----------
    picture : (H, W, 3) uint8 array
    marks : (H, W) bool array
    """
    rows, columns = np.indices(marks.shape)
    picture[marks & ((rows + columns) % HATCH == 0)] = SAFFRON
    picture[marks & ((rows + columns) % HATCH == 1)] = INK


def sharp_edges(luminance, noise, threshold):
    """Where edges are sharp.

    Parameters
    ----------
    luminance : (H, W) array   Of the frame as it was taken.
    noise : float              Its standard deviation, in the same measure.
    threshold : float          As :func:`sharp_ratio` gives it.

    Returns
    -------
    (H, W) bool array
    """
    slope, bend = _measures(luminance)
    slope_noise, bend_noise = _noise_gains()
    g = slope - slope_noise * noise**2
    bent = np.maximum(bend - bend_noise * noise**2, 0.0)
    stands = g > STANDS_OUT * slope_noise * noise**2 / np.sqrt(AROUND_PX) + 1e-8
    return stands & (bent > threshold**2 * np.maximum(g, 0.0))


@lru_cache(maxsize=64)
def sharp_ratio(blur, effective_f_number, pitch, wavelength=DEFAULT_WAVELENGTH):
    """The ratio from which an edge counts as sharp: that of a step with a blur, seen at a stop.

    Parameters
    ----------
    blur : float                 mm on the sensor, >= 0; the circle of confusion, or more where pixels are coarse.
    effective_f_number : float   > 0.
    pitch : float                mm of a pixel of the view, > 0.
    wavelength : float           mm.

    Returns
    -------
    float                        1/px.
    """
    positive("pitch", pitch, "mm")
    frequency = np.fft.rfftfreq(STEP_PX)
    s, phase = np.broadcast_arrays(
        frequency * effective_f_number * wavelength / pitch, np.pi * frequency * blur / pitch
    )
    step = np.where(np.arange(STEP_PX) < STEP_PX // 2, 0.0, 1.0)
    edge = np.fft.irfft(np.fft.rfft(step) * transfer(s, phase), STEP_PX)
    slope, bend = _measures(np.tile(edge, (4 * AROUND_PX, 1)))
    row, at = 2 * AROUND_PX, STEP_PX // 2
    return float(np.sqrt(bend[row, at] / slope[row, at]))


def honest_marks(blur, pitch):
    """Whether marks at a pitch tell what is sharp to a blur: below a fifth of it they do.

    Parameters
    ----------
    blur, pitch : float   mm.

    Returns
    -------
    bool
    """
    return pitch <= blur * HONEST_PITCH * 1.001


def _measures(luminance):
    """Means of squared slope and squared Laplacian around every pixel."""
    from scipy import ndimage  # late: SciPy takes long to import

    smooth = ndimage.gaussian_filter(np.asarray(luminance, dtype=np.float32), SMOOTH_PX, mode="nearest")
    down, across = np.gradient(smooth)
    bend = ndimage.laplace(smooth, mode="nearest")
    return (
        ndimage.uniform_filter(down**2 + across**2, AROUND_PX, mode="nearest"),
        ndimage.uniform_filter(bend**2, AROUND_PX, mode="nearest"),
    )


@lru_cache(maxsize=1)
def _noise_gains():
    """What white noise of spread 1 gives each measure."""
    noise = np.random.default_rng(1).standard_normal((256, 256))
    slope, bend = _measures(noise)
    return float(slope.mean()), float(bend.mean())
