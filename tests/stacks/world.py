"""Made-up subjects as layers of paint at known depths, far to near. Depth counts in steps; places in pixels."""

from functools import lru_cache
from typing import NamedTuple

import cv2
import numpy as np

LAYERS_A_STEP = 3


class Layer(NamedTuple):
    depth: float
    paint: np.ndarray
    """(H, W, 4): linear light, premultiplied, and how much it covers, 0 to 1."""
    ground: bool = False
    """Part of the surface, whose layers share it out."""


class World(NamedTuple):
    layers: list
    """Far to near."""
    depth: np.ndarray
    """(H, W) depth of what is seen, in steps."""
    sharp: np.ndarray
    """(H, W, 3) linear light: everything sharp."""
    hairs: np.ndarray
    """(H, W) bool: near parts that cross in front."""


def texture(generator, size, *, strength=1.0, weak=False):
    """Linear light: grain of every size, crumbs with edges, a slow change of tone; weak: hardly any of it."""
    light = np.zeros(size, np.float32)
    for sigma, weight in ((0.7, 0.5), (1.4, 0.6), (3, 0.6), (7, 0.5), (18, 0.5)):
        grain = cv2.GaussianBlur(generator.standard_normal(size).astype(np.float32), (0, 0), sigma)
        light += weight * grain / grain.std()
    crumbs = cv2.GaussianBlur(generator.standard_normal(size).astype(np.float32), (0, 0), 2.2)
    light += 1.2 * (crumbs > crumbs.std())
    light = 0.30 * np.exp((0.03 if weak else 0.38) * strength * light)
    tint = np.stack(
        [
            1 + 0.12 * _slow(generator, size, 25),
            np.ones(size, np.float32) * 0.85,
            0.62 + 0.1 * _slow(generator, size, 40),
        ],
        axis=-1,
    )
    return np.clip(light[..., None] * tint, 0.004, 0.9).astype(np.float32)


def _slow(generator, size, sigma):
    field = cv2.GaussianBlur(generator.standard_normal(size).astype(np.float32), (0, 0), sigma)
    return (field / field.std()).astype(np.float32)


def surface(depth, paint):
    """A surface as layers that share it out softly by depth: their light is added, not laid one over the other.

    Laid over each other the nearer slices would draw the blurred picture toward themselves, as no surface does.
    """
    lowest, highest = float(depth.min()), float(depth.max())
    count = max(int(np.ceil((highest - lowest) * LAYERS_A_STEP)), 1)
    places = np.linspace(lowest, highest, count + 1)
    gap = max(places[1] - places[0], 1e-6)
    layers = []
    for place in places[::-1]:
        share = np.clip(1 - np.abs(depth - place) / gap, 0, 1).astype(np.float32)
        if share.any():
            layers.append(Layer(float(place), np.dstack([paint * share[..., None], share]), ground=True))
    return layers


@lru_cache(maxsize=24)
def make_world(kind, seed, size, steps):
    """A subject of one kind that reaches from depth 1 to ``steps`` - 2."""
    generator = np.random.default_rng([seed, sum(map(ord, kind))])
    height, width = size
    y, x = np.mgrid[:height, :width].astype(np.float32)
    x, y = x / width, y / height
    low, high = 1.0, steps - 2.0
    span = high - low
    crossing = np.zeros(size, bool)
    if kind in ("dome", "weak", "sparkle"):
        depth = low + span * np.clip(((x - 0.5) ** 2 / 0.3 + (y - 0.5) ** 2 / 0.3), 0, 1)
    elif kind == "plane":
        depth = low + span * (0.75 * x + 0.25 * y)
    elif kind == "terraces":
        depth = low + span * np.floor(x * 4.999) / 4 + 0.3 * y
    elif kind in ("hairs", "spines"):
        depth = low + span * (0.6 + 0.4 * (0.6 * y + 0.4 * x))
    else:
        raise ValueError(kind)
    depth = depth.astype(np.float32)
    paint = texture(generator, size, weak=kind == "weak")
    if kind == "sparkle":
        for _ in range(30):
            cv2.circle(paint, (int(generator.integers(width)), int(generator.integers(height))), 1, (3, 3, 3), -1)
    layers = surface(depth, paint)
    sharp, seen = paint.copy(), depth.copy()
    if kind in ("hairs", "spines"):
        items = []
        for _ in range(9 if kind == "hairs" else 6):
            cover = np.zeros(size, np.float32)
            z = float(generator.uniform(low, low + 0.45 * span))
            if kind == "hairs":
                start = np.array([generator.uniform(0, width), generator.uniform(0, height)])
                angle, bend = generator.uniform(0, np.pi), generator.uniform(-1, 1)
                t = np.linspace(-0.7, 0.7, 60)
                line = np.stack([np.cos(angle + bend * t), np.sin(angle + bend * t)], -1) * t[:, None] * width + start
                cv2.polylines(cover, [np.round(line * 16).astype(np.int32)], False, 1.0, 3, cv2.LINE_AA, 4)
            else:
                foot = np.array([generator.uniform(0.1, 0.9) * width, generator.uniform(0.3, 1.0) * height])
                tip = foot + np.array([generator.uniform(-0.3, 0.3) * width, -0.6 * height])
                side = np.array([0.035 * width, 0])
                cv2.fillPoly(
                    cover,
                    [np.round(np.array([foot - side, foot + side, tip]) * 16).astype(np.int32)],
                    1.0,
                    cv2.LINE_AA,
                    4,
                )
            cover = np.clip(cover, 0, 1)
            own = texture(generator, size) * (2.0 if kind == "hairs" else 1.3)
            items.append((z, cover, np.clip(own, 0, 0.95)))
        for z, cover, own in sorted(items, key=lambda item: -item[0]):
            layers.append(Layer(z, np.dstack([own * cover[..., None], cover])))
            sharp = sharp * (1 - cover[..., None]) + own * cover[..., None]
            seen[cover > 0.5] = z
            crossing |= cover > 0.3
    return World(layers, seen, sharp, crossing)
