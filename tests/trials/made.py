"""Photographs to try the trials on: lenses, textures, edges and slopes made here, of nothing that the program has.

Optics in closed form: diffraction by the formula of the circular pupil, aberration as a Gaussian, defocus as a disc.
"""

import numpy as np
from scipy.special import j1

THIRDS = (2.8, 3.2, 3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10, 11, 13, 14, 16, 18, 20, 22)
WAVELENGTH, PITCH = 0.00055, 0.006


def diffraction(nu, n_e):
    s = np.clip(nu * WAVELENGTH * n_e, 0, 1)
    return 2 / np.pi * (np.arccos(s) - s * np.sqrt(1 - s * s))


class Lens:
    """Aberration that falls with the stop, and focus that may be off."""

    def __init__(self, seed, m=1.0):
        made = np.random.default_rng(seed)
        self.m = m
        self.sigma = made.uniform(0.004, 0.014)
        self.power = made.uniform(0.9, 1.8)
        self.rest = made.uniform(0.0, 0.0015)

    def contrast(self, nu, n):
        spread = np.hypot(self.sigma * (2.8 / n) ** self.power, self.rest)
        return diffraction(nu, n * (1 + self.m)) * np.exp(-2 * (np.pi * nu * spread) ** 2)

    def best(self, nu, stops=THIRDS):
        values = [float(self.contrast(nu, n)) for n in stops]
        return stops[int(np.argmax(values))], np.array(values)


def texture(kind, shape, seed):
    made = np.random.default_rng(seed)
    if kind == "printed":
        total = np.zeros(shape)
        for size in (1, 2, 4, 8):
            grain = made.random((shape[0] // size + 2, shape[1] // size + 2)) < 0.5
            total += np.kron(grain, np.ones((size, size)))[: shape[0], : shape[1]] - 0.5
        return np.clip(0.45 + 0.16 * total, 0.02, 0.98)
    smooth = made.standard_normal(shape)
    return np.clip(0.5 + 0.012 * smooth, 0, 1)


def through(picture, otf):
    """A picture through a transfer function of radial frequency, cycles/px."""
    rows, columns = picture.shape
    radius = np.hypot(np.fft.fftfreq(rows)[:, None], np.fft.rfftfreq(columns)[None, :])
    return np.fft.irfft2(np.fft.rfft2(picture) * otf(radius), s=picture.shape)


def exposed(light, noise, made):
    noisy = light + made.standard_normal(light.shape) * noise
    return np.clip(noisy, 0, 1)


def coded(light):
    value = np.where(light <= 0.0031308, 12.92 * light, 1.055 * np.maximum(light, 0) ** (1 / 2.4) - 0.055)
    return np.rint(np.clip(value, 0, 1) * 255).astype(np.uint8)


def pair(lens, n, scene, noise, made, extra=None):
    def otf(radius):
        value = lens.contrast(radius / PITCH, n) * np.sinc(radius)
        return value if extra is None else value * extra(radius)

    sharp = through(scene, otf)
    return exposed(sharp, noise, made), exposed(sharp, noise, made)


def edge(angle_deg, shape=(200, 260), low=0.2, high=0.75):
    """A step, drawn by area a pixel."""
    fine = 8
    y, x = np.mgrid[: shape[0] * fine, : shape[1] * fine] / fine
    angle = np.radians(angle_deg)
    side = (x - shape[1] / 2) * np.cos(angle) - (y - shape[0] / 2) * np.sin(angle) > 0
    return np.where(side, high, low)


def disc(radius, diameter_px):
    """Transfer function of a disc of defocus."""
    a = np.pi * radius * diameter_px
    return np.where(a < 1e-6, 1.0, 2 * j1(np.maximum(a, 1e-6)) / np.maximum(a, 1e-6))


def slope_stack(places, *, phi_deg=30.0, m=1.0, n_e=11.0, shape=(420, 160), seed=1, noise=0.01, patchy=False):
    """Frames of a slanted surface, sharp at each of ``places`` (mm along the axis)."""
    made = np.random.default_rng(seed)
    rows = np.arange(shape[0]) - (shape[0] - 1) / 2
    depth = rows * PITCH / m / np.tan(np.radians(phi_deg))
    scene = texture("printed", shape, seed + 1)
    if patchy:
        amount = np.repeat(np.exp(made.normal(0, 0.7, shape[0] // 12 + 1)), 12)[: shape[0], None]
        scene = 0.5 + (scene - 0.5) * np.clip(amount / 2, 0.05, 1.3)
    levels = np.geomspace(0.5, 60, 28)
    blurred = np.array([scene] + [through(scene, lambda r, b=b: disc(r, b)) for b in levels])
    ladder = np.concatenate([[0.0], levels])
    frames = []
    for place in places:
        blur = np.abs(depth - place) * m * m / n_e / PITCH
        at = np.interp(blur, ladder, np.arange(len(ladder)))
        below = np.clip(at.astype(int), 0, len(ladder) - 2)
        part = (at - below)[:, None]
        index = np.arange(shape[0])
        light = blurred[below, index] * (1 - part) + blurred[below + 1, index] * part
        frames.append(exposed(light, noise, made))
    return frames


def climbing(count, at, wide=1.6):
    """Energies (K, H) of rows, each sharpest where ``at`` (H,) says, in frames."""
    return 1e-3 + np.exp(-(((np.arange(count)[:, None] - at) / wide) ** 2) / 2)
