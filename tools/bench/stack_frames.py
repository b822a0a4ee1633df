"""A made-up stack of any size for benchmarks: texture of all sizes on a bowl, photon noise, JPEG as of a camera."""

from pathlib import Path

import cv2
import numpy as np

from just_plane.contract.stack_numbers import StackNumbers

PITCH_MM, CIRCLE_MM, PUPIL_MM = 0.006, 0.030, 200.0
ELECTRONS = 12_000
LADDER = (0.0, 2.0, 4.0, 8.0, 16.0)
"""Blurs that are made once, px; those between are mixed."""


def numbers_of(count):
    """The plan of such a stack: StackNumbers."""
    return StackNumbers(
        kind="rail",
        magnification=1.0,
        effective_f_number=8.0,
        pixel_pitch_mm=PITCH_MM,
        c_mm=CIRCLE_MM,
        depth_of_field_mm=16 * CIRCLE_MM,
        step_mm=8 * CIRCLE_MM,
        planned_frames=count,
        entrance_pupil_distance_mm=PUPIL_MM,
    )


def write_frames(folder, count, width):
    """Write a stack of JPEGs, two thirds as high as wide; returns the folder."""
    folder = Path(folder)
    folder.mkdir(parents=True, exist_ok=True)
    height, generator = width * 2 // 3, np.random.default_rng(3)
    sharp = _texture(generator, height, width)
    ladder = [sharp if sigma == 0 else cv2.GaussianBlur(sharp, (0, 0), sigma) for sigma in LADDER]
    rows, columns = np.mgrid[-1 : 1 : height * 1j, -1 : 1 : width * 1j].astype(np.float32)
    depth = (count - 1) * (rows**2 + columns**2) / 2
    for k in range(count):
        blur = np.abs(depth - k) * 2.2
        frame = np.zeros_like(sharp)
        for place, picture in enumerate(ladder):
            share = np.interp(blur, LADDER, [float(place == other) for other in range(len(LADDER))])
            frame += picture * share.astype(np.float32)[..., np.newaxis]
        turn = cv2.getRotationMatrix2D((width / 2, height / 2), 0, 1 + 8 * CIRCLE_MM / PUPIL_MM * (k - count / 2))
        frame = cv2.warpAffine(frame, turn, (width, height), flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REFLECT)
        light = np.maximum(frame, 0) ** 2.2
        light += generator.standard_normal(light.shape, np.float32) * np.sqrt(light / ELECTRONS)
        encoded = np.rint(np.clip(light, 0, 1) ** (1 / 2.2) * 255).astype(np.uint8)
        cv2.imwrite(str(folder / f"f{k + 1:03d}.jpg"), encoded, [cv2.IMWRITE_JPEG_QUALITY, 93])
    return folder


def _texture(generator, height, width):
    grey = np.full((height, width), 0.45, np.float32)
    for size, strength in ((1, 0.10), (2, 0.08), (6, 0.06), (24, 0.06), (90, 0.08)):
        shape = (height // max(size // 2, 1) + 2, width // max(size // 2, 1) + 2)
        grain = cv2.GaussianBlur(generator.standard_normal(shape, np.float32), (0, 0), 1.0)
        grey += strength * cv2.resize(grain / grain.std(), (width, height), interpolation=cv2.INTER_CUBIC)
    grey = np.clip(grey, 0.03, 0.93)
    return np.stack([grey * 0.8, grey * 0.95, grey], axis=-1)
