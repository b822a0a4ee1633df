"""Pictures of things that repeat as evenly as a ruler and are none."""

import math

import cv2
import numpy as np

SIZE = (600, 900)


def _grid(angle):
    y, x = np.mgrid[: SIZE[0], : SIZE[1]].astype(float)
    cos, sin = math.cos(angle), math.sin(angle)
    return x * cos + y * sin, y * cos - x * sin


def _finished(picture, seed, blur=1.0):
    noisy = cv2.GaussianBlur(picture.astype(np.float32), (0, 0), blur)
    return np.clip(noisy + np.random.default_rng(seed).normal(0, 0.02, noisy.shape), 0, 1)


def keyboard(seed, angle=0.05, pitch=58.0):
    along, across = _grid(angle)
    row = np.floor(across / pitch)
    shifted = along - row * 0.25 * pitch
    inside = (np.abs((shifted / pitch) % 1 - 0.5) < 0.42) & (np.abs((across / pitch) % 1 - 0.5) < 0.42)
    letter = (np.abs((shifted / pitch) % 1 - 0.4) < 0.08) & (np.abs((across / pitch) % 1 - 0.4) < 0.12)
    return _finished(0.75 - 0.5 * inside + 0.4 * letter, seed)


def cloth(seed, angle=0.3, pitch=11.0):
    along, across = _grid(angle)
    over = (np.floor(along / pitch) + np.floor(across / pitch)) % 2 == 0
    thread = np.where(over, np.sin(np.pi * (along / pitch % 1)), np.sin(np.pi * (across / pitch % 1)))
    return _finished(0.3 + 0.5 * np.abs(thread), seed)


def moire(seed, angle=0.1, pitch=9.0, other=9.9):
    along, across = _grid(angle)
    tilted = along * math.cos(0.04) + across * math.sin(0.04)
    return _finished(
        (0.5 + 0.5 * np.sin(2 * np.pi * along / pitch)) * (0.5 + 0.5 * np.sin(2 * np.pi * tilted / other)), seed
    )


def text(seed, angle=0.02, pitch=26.0):
    chance = np.random.default_rng(seed)
    picture = np.full(SIZE, 0.9)
    for top in np.arange(20, SIZE[0] - 20, pitch):
        at, end = 60.0, SIZE[1] - chance.uniform(60, 300 if chance.uniform() < 0.2 else 90)
        while at < end:
            word = chance.uniform(20, 80)
            for left in np.arange(at, min(at + word, end), 9.0):
                height = chance.uniform(6, 13)
                picture[int(top + 13 - height) : int(top + 13), int(left) : int(left + chance.uniform(3, 7))] = 0.15
            at += word + 10
    turn = cv2.getRotationMatrix2D((SIZE[1] / 2, SIZE[0] / 2), math.degrees(angle), 1.0)
    return _finished(cv2.warpAffine(picture, turn, SIZE[::-1], borderValue=0.9), seed, 0.7)


def fence(seed, angle=0.0, pitch=44.0):
    along, across = _grid(angle)
    bar = (np.abs((along / pitch) % 1 - 0.5) < 0.2) & (across > 90) & (across < 520)
    rail = (np.abs(across - 180) < 12) | (np.abs(across - 430) < 12)
    return _finished(0.8 - 0.55 * (bar | rail), seed, 1.5)


def blinds(seed, angle=math.pi / 2 + 0.02, pitch=30.0):
    along, _ = _grid(angle)
    return _finished(0.3 + 0.6 * ((along / pitch) % 1), seed, 1.2)


def beads(seed, angle=0.2, pitch=36.0):
    along, across = _grid(angle)
    from_middle = np.hypot(((along / pitch) % 1 - 0.5) * pitch, across - 230)
    return _finished(0.8 - 0.6 * np.clip(1.2 - from_middle / (0.45 * pitch), 0, 1), seed, 1.2)


def bonbons(seed, angle=0.1, pitch=84.0):
    along, across = _grid(angle)
    x, y = ((along / pitch) % 1 - 0.5) * pitch, ((across / pitch) % 1 - 0.5) * pitch
    from_middle, shine = np.hypot(x, y), np.hypot(x + 12, y + 12)
    return _finished(0.8 - 0.6 * (from_middle < 0.36 * pitch) + 0.5 * (shine < 6), seed, 1.5)


THINGS = (keyboard, cloth, moire, text, fence, blinds, beads, bonbons)


def ruler_by(pattern, spacing, angle=0.1, seed=1):
    """A ruler otherwise divided: ``pattern`` gives the length of a tick by its number, as a share of the longest."""
    along, across = _grid(angle)
    number = np.round(along / spacing)
    reach = 0.25 * min(SIZE)
    top = SIZE[0] / 2 - 0.6 * reach
    length = np.vectorize(pattern)(np.arange(-200, 201))[number.astype(int) + 200]
    picture = np.where((across > top) & (across < top + 2.2 * reach), 0.85, 0.3)
    tick = (np.abs(along - number * spacing) < 0.09 * spacing) & (across > top) & (across < top + length * reach)
    return _finished(np.where(tick, 0.1, picture), seed)
