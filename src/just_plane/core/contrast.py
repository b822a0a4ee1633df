"""Contrast of fine detail: the exact account of defocus and diffraction together.

The optical transfer function of an aberration-free circular pupil with defocus. With the normalised frequency
``s = nu lambda N_e`` (1 is the cut-off) and the phase ``a = pi nu b`` for a geometric blur of diameter b,

    OTF(s, a) = (4/pi) * integral from 0 to 1-s of sqrt(1 - (x+s)^2) cos(a x) dx.

(The usual form has cos(8 pi W s x) with W = b / (8 N_e lambda) waves; the product is ``a``, and N_e drops out.)
The root at the upper end is taken into the weight of the quadrature, so that a fixed Gauss rule converges as fast
as the cosine allows; see docs/derivations/contrast.md.
"""

from functools import cache, lru_cache

import numpy as np

from just_plane.core.domain import fraction, non_negative, positive
from just_plane.core.units import DEFAULT_WAVELENGTH

# Nodes are doubled by need. A rule of K nodes is exact to 1e-9 up to phases a(1-s) of about 2.4 (K - 5).
_RULES = (12, 16, 24, 48, 96, 192, 384)
_CROSSING_NODES = 40
_LARGEST_PHASE = 900.0  # past it the leading asymptotic term is within 2e-6 of the integral


def contrast(spatial_frequency, effective_f_number, defocus_blur, wavelength=DEFAULT_WAVELENGTH):
    """Contrast of a sine pattern in the image, signed (negative: light and dark exchanged).

    Parameters
    ----------
    spatial_frequency : float or array    Cycles per mm on the sensor, >= 0.
    effective_f_number : float or array   > 0, dimensionless.
    defocus_blur : float or array         Diameter of the geometric blur disc on the sensor, mm, >= 0.
    wavelength : float or array           mm, > 0.

    Returns
    -------
    float or array                        1 is full contrast; 0 at and beyond the cut-off 1/(lambda N_e).

    Raises
    ------
    OutOfDomainError                      An input is not finite or is outside its stated range.

    Notes
    -----
    Absolute error below 1e-9 for phases pi nu b (1-s) up to 900, below 2e-6 beyond.
    defocus_blur = 0 gives (2/pi)(acos s - s sqrt(1 - s^2)); wavelength -> 0 gives 2 J1(a)/a.

    References
    ----------
    docs/derivations/contrast.md
    """
    non_negative("spatial_frequency", spatial_frequency, "cycles/mm")
    positive("effective_f_number", effective_f_number)
    non_negative("defocus_blur", defocus_blur, "mm")
    positive("wavelength", wavelength, "mm")
    s = np.asarray(spatial_frequency * np.multiply(wavelength, effective_f_number), dtype=float)
    a = np.asarray(np.pi * np.multiply(spatial_frequency, defocus_blur), dtype=float)
    answer = transfer(*np.broadcast_arrays(s, a))
    return float(answer) if answer.ndim == 0 else answer


def transfer(s, a):
    """The transfer function at normalised frequency ``s`` and phase ``a``: arrays of one shape, s >= 0, a >= 0."""
    length = np.maximum(1 - s, 0.0)
    phase = a * length
    top = float(phase.max(initial=0.0))
    if top <= _reach(_RULES[1]):
        return _gauss(s, a, length, _RULES[0] if top <= _reach(_RULES[0]) else _RULES[1])
    answer = np.empty(s.shape)
    todo = np.ones(s.shape, dtype=bool)
    for nodes in _RULES:
        part = todo & (phase <= min(_reach(nodes), _LARGEST_PHASE))
        answer[part] = _gauss(s[part], a[part], length[part], nodes)
        todo &= ~part
    answer[todo] = _asymptotic(s[todo], a[todo], length[todo])
    return answer


def perfect_contrast(s):
    """Contrast in perfect focus at normalised frequency ``s`` >= 0 (array): (2/pi)(acos s - s sqrt(1 - s^2))."""
    inside = np.minimum(s, 1.0)
    return (2 / np.pi) * (np.arccos(inside) - inside * np.sqrt(1 - inside * inside))


def contrast_through_focus(spatial_frequency, effective_f_numbers, blur_steps, count, wavelength=DEFAULT_WAVELENGTH):
    """Contrast from perfect focus outward in equal steps of blur, for many apertures at once.

    Parameters
    ----------
    spatial_frequency : float              Cycles per mm on the sensor, > 0.
    effective_f_numbers : (A,) array       > 0.
    blur_steps : (A,) array                Growth of the blur diameter from one sample to the next, mm, >= 0.
    count : int                            Samples, the first at blur 0.
    wavelength : float                     mm, > 0.

    Returns
    -------
    (A, count) array                       Signed contrast; row i, sample j at blur j * blur_steps[i].

    Raises
    ------
    OutOfDomainError                       An input is not finite or is outside its stated range.

    Notes
    -----
    Equal steps let exp(i (p + q) x) be taken apart into products, so the map is a batched matrix product over
    powers of one exponential a node: a few ms for 200 x 400.
    """
    positive("spatial_frequency", spatial_frequency, "cycles/mm")
    ne = np.asarray(positive("effective_f_numbers", np.asarray(effective_f_numbers, dtype=float)))
    steps = np.asarray(non_negative("blur_steps", np.asarray(blur_steps, dtype=float), "mm"))
    positive("wavelength", wavelength, "mm")
    s = spatial_frequency * wavelength * ne
    a_step = np.pi * spatial_frequency * steps
    length = np.maximum(1 - s, 0.0)
    top = a_step * length * count
    if top.max(initial=0.0) > _LARGEST_PHASE:
        return transfer(np.broadcast_to(s[:, None], (len(s), count)), a_step[:, None] * np.arange(count))
    answer = np.empty((len(s), count))
    todo = np.ones(len(s), dtype=bool)
    for nodes in _RULES:
        part = todo & (top <= _reach(nodes))
        if part.any():
            answer[part] = _in_equal_steps(s[part], a_step[part], length[part], count, nodes)
        todo &= ~part
    return answer


def _in_equal_steps(s, a_step, length, count, nodes):
    """Rows of the through-focus map that need ``nodes`` nodes; shapes (A,) in, (A, count) out."""
    x, g = _integrand(s, length, *_rule(nodes))
    block = int(np.ceil(np.sqrt(count)))
    turn = np.exp(1j * a_step[:, None] * x)[:, None, :]
    fine = _powers(turn, block)
    coarse = _powers(fine[:, -1:, :] * turn, block) * g[:, None, :]
    product = coarse.real @ fine.real.transpose(0, 2, 1) - coarse.imag @ fine.imag.transpose(0, 2, 1)
    return product.reshape(len(s), block * block)[:, :count]


def _powers(base, count):
    """base**0 ... base**(count-1) along axis 1, by doubling: a product each in place of a cosine each."""
    powers = np.ones((base.shape[0], 1, base.shape[2]), dtype=complex)
    factor = base
    while powers.shape[1] < count:
        powers = np.concatenate([powers, powers * factor], axis=1)
        factor = factor * factor
    return powers[:, :count]


def largest_defocus(spatial_frequency, effective_f_number, wavelength=DEFAULT_WAVELENGTH, contrast_threshold=0.2):
    """Largest blur diameter up to which contrast stays at or above a threshold.

    Parameters
    ----------
    spatial_frequency : float              Cycles per mm on the sensor, > 0.
    effective_f_number : float or (N,)     > 0.
    wavelength : float                     mm, > 0.
    contrast_threshold : float             Between 0 and 1; 0.2 by default.

    Returns
    -------
    float or (N,) array                    mm; 0 where even perfect focus stays below the threshold.

    Raises
    ------
    OutOfDomainError                       An input is not finite or is outside its stated range.

    Notes
    -----
    The first crossing: contrast that comes back farther out is not counted. Without diffraction and at 20 % the
    answer is 0.98 / spatial_frequency. The square of the phase at the crossing is an analytic function of the
    normalised frequency; it is solved for once a threshold, at Chebyshev nodes, and is good to 1e-9 between them.
    """
    positive("spatial_frequency", spatial_frequency, "cycles/mm")
    ne = np.atleast_1d(np.asarray(positive("effective_f_number", effective_f_number), dtype=float))
    positive("wavelength", wavelength, "mm")
    threshold = positive("contrast_threshold", fraction("contrast_threshold", contrast_threshold))
    phase = _phase_at_threshold(spatial_frequency * wavelength * ne, float(threshold))
    blur = phase / (np.pi * spatial_frequency)
    return float(blur[0]) if np.ndim(effective_f_number) == 0 else blur


def pixel_contrast(spatial_frequency, pixel_pitch):
    """What a full square pixel leaves of contrast: sinc(nu p), signed.

    Parameters
    ----------
    spatial_frequency : float or array   Cycles per mm, >= 0.
    pixel_pitch : float or array         mm, > 0.
    """
    non_negative("spatial_frequency", spatial_frequency, "cycles/mm")
    positive("pixel_pitch", pixel_pitch, "mm")
    return np.sinc(np.multiply(spatial_frequency, pixel_pitch))


def _phase_at_threshold(s, threshold):
    """Phase at which contrast first falls to the threshold; 0 where it never reaches it. Shape of ``s``."""
    end, coefficients = _crossings(threshold)
    angle = np.arccos(np.clip(s / end * 2 - 1, -1.0, 1.0))
    squared = np.cos(angle[..., None] * np.arange(len(coefficients))) @ coefficients
    return np.where(s < end, np.sqrt(np.maximum(squared, 0.0)) / (1 - np.minimum(s, end)), 0.0)


@lru_cache(maxsize=64)
def _crossings(threshold):
    """Largest s at which perfect focus meets the threshold, and Chebyshev coefficients of (phase (1-s))^2 up to it."""
    low, high = 0.0, 1.0
    for _ in range(60):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if perfect_contrast(middle) >= threshold else (low, middle)
    nodes = 0.5 * (np.cos(np.pi * (np.arange(_CROSSING_NODES) + 0.5) / _CROSSING_NODES) + 1)
    squared = (_first_crossing(nodes * low, threshold) * (1 - nodes * low)) ** 2
    coefficients = np.polynomial.chebyshev.chebfit(nodes * 2 - 1, squared, _CROSSING_NODES - 1)
    return low, np.polynomial.chebyshev.chebtrim(coefficients, 1e-12 * float(squared.max()))


def _first_crossing(s, threshold):
    """The phase itself, solved: Newton steps kept inside a bracket, to 1e-12."""
    length = 1 - s
    x, g = _integrand(s, length, *_rule(16))
    low, high = np.zeros(s.shape), 1.5 * np.pi / length  # the first zero lies below 4.5/length for every s
    a = 0.5 * high
    for _ in range(60):
        angle = a[:, None] * x
        value = (g * np.cos(angle)).sum(axis=1) - threshold
        slope = -(g * x * np.sin(angle)).sum(axis=1)
        low, high = np.where(value >= 0, a, low), np.where(value >= 0, high, a)
        step = a - value / np.where(slope == 0, -1.0, slope)
        following = np.where((step >= low) & (step <= high), step, 0.5 * (low + high))
        if np.all(np.abs(following - a) <= 1e-12 * high):
            return following
        a = following
    return a


def _gauss(s, a, length, nodes):
    y, weight = _rule(nodes)
    x, g = _integrand(s, length, y, weight)
    return np.einsum("...k,...k->...", g, np.cos(a[..., None] * x))


def _integrand(s, length, y, weight):
    """Nodes x and weights times everything but the cosine; shapes (..., K)."""
    x = length[..., None] * y
    smooth = (4 / np.pi) * (length**1.5)[..., None] * np.sqrt(1 + s[..., None] + x)
    return x, smooth * weight


def _asymptotic(s, a, length):
    """Leading term for fast oscillation: only the root-like end of the integrand is left."""
    return (4 / np.pi) * np.sqrt(np.pi / 2) * a**-1.5 * np.cos(a * length - 0.75 * np.pi)


def _reach(nodes):
    return 2.4 * (nodes - 5)


@cache
def _rule(nodes):
    """Gauss rule on [0, 1] for the weight sqrt(1 - y).

    With y = 1 - t^2 it is the even half of the Legendre rule with 2K+1 nodes and weight 2 t^2.
    """
    t, w = np.polynomial.legendre.leggauss(2 * nodes + 1)
    t, w = t[nodes + 1 :], w[nodes + 1 :]
    return 1 - t * t, 2 * t * t * w
