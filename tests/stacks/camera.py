"""A camera on a rail, on its ring or in a hand, that photographs a world: discs of defocus, grain, JPEG; its faults."""

from functools import lru_cache
from typing import NamedTuple

import cv2
import numpy as np
from scipy import fft
from scipy.special import j1

STEP_BLUR_PX = 2.7
"""Diameter of the blur that one step adds, px."""


class Faults(NamedTuple):
    """What goes wrong; frames are numbered as they were meant, from 0."""

    skipped: tuple = ()
    """(frame, how many): the rail is moved one step more, or two, before that frame."""
    twice: int | None = None
    """This frame is taken at the place of the one before."""
    bump: tuple = ()
    """(frame, dx, dy) px from there on."""
    rotation: tuple = ()
    """(frame, degrees) from there on."""
    drift_ev: float = 0.0
    jump: tuple = ()
    """(frame, EV) from there on."""
    dead_flash: int | None = None
    shake: tuple = ()
    """(frame, px, degrees)."""
    same_file: int | None = None
    swapped: int | None = None
    """This frame and the next change their names."""
    foreign: int | None = None
    dust: tuple = ()
    """(x, y, radius px, share of light taken) on the sensor."""
    moved: tuple = ()
    """(frame, x, y, radius, dx): a part moves from there on."""


class Stack(NamedTuple):
    frames: list
    """(H, W, 3) uint8 or uint16, BGR."""
    to_reference: np.ndarray
    """(K, 2, 3) at the middle depth: pixels of the frame to pixels of the world."""
    places: np.ndarray
    """(K,) depth in steps where each frame is sharp."""
    light_ev: np.ndarray
    world: object
    jpeg: bool
    views: list
    """(shift, turn) of each frame."""
    kind: str
    pupil_steps: float


def sharp_view(stack, frame):
    """What a frame would show were everything sharp, by the same optics: (H, W, 3) encoded, BGR."""
    shift, turn = stack.views[frame]
    middle = (len(stack.frames) - 1) / 2
    picture, _ = _seen(
        stack.world,
        stack.places[frame],
        middle,
        shift,
        turn,
        stack.kind,
        stack.pupil_steps,
        frame,
        Faults(),
        blurs=False,
    )
    return np.clip(picture, 0, 1)[..., ::-1] ** (1 / 2.2)


def depth_view(stack, frame):
    """Depth in steps of what is seen at each place of a frame, (H, W)."""
    places = stack.to_reference[frame]
    size = stack.world.depth.shape[::-1]
    return cv2.warpAffine(
        stack.world.depth, places, size, flags=cv2.INTER_NEAREST | cv2.WARP_INVERSE_MAP, borderMode=cv2.BORDER_REPLICATE
    )


def photograph(
    world,
    seed,
    *,
    count=12,
    kind="rail",
    pupil_steps=230.0,
    electrons=12_000,
    jpeg=True,
    faults=None,
    start=0.0,
    wobble=0.12,
):
    """The stack of a world, near to far, one step from frame to frame."""
    faults = faults or Faults()
    generator = np.random.default_rng([seed, 77])
    places, rows, frames, lights, views = [], [], [], [], []
    extra = 0
    for k in range(count):
        for frame, more in _pairs(faults.skipped):
            extra += more if k == frame else 0
        place = start + k + extra - (1 if faults.twice is not None and k >= faults.twice else 0)
        places.append(place)
    places = np.array(places, float)
    middle = float(np.mean([0, count - 1]))
    for k in range(count):
        shift = generator.normal(0, wobble, 2)
        turn = generator.normal(0, 0.004 if kind != "hand" else 0.3)
        if kind == "hand":
            shift = generator.normal(0, 4, 2)
        for frame, dx, dy in _triples(faults.bump):
            shift = shift + (np.array([dx, dy]) if k >= frame else 0)
        for frame, degrees in _pairs(faults.rotation):
            turn += degrees if k >= frame else 0
        ev = faults.drift_ev * (k / max(count - 1, 1) - 0.5)
        for frame, change in _pairs(faults.jump):
            ev += change if k >= frame else 0
        if faults.dead_flash == k:
            ev -= 3.0
        ev += generator.normal(0, 0.002)
        picture, matrix = _seen_once(world, places[k], middle, shift, turn, kind, pupil_steps, k, faults)
        for frame, length, angle in _triples(faults.shake):
            picture = _streaked(picture, length, angle) if k == frame else picture
        picture = picture * 2.0**ev
        for x, y, radius, taken in _fours(faults.dust):
            yy, xx = np.mgrid[: picture.shape[0], : picture.shape[1]]
            spot = 1 - taken * np.clip(radius + 0.5 - np.hypot(xx - x, yy - y), 0, 1)
            picture = picture * cv2.GaussianBlur(spot.astype(np.float32), (0, 0), 0.7)[..., None]
        frames.append(_file(picture, generator, electrons, jpeg))
        rows.append(matrix)
        views.append((shift, turn))
        lights.append(ev)
    order = list(range(count))
    if faults.swapped is not None:
        order[faults.swapped], order[faults.swapped + 1] = order[faults.swapped + 1], order[faults.swapped]
    frames, rows, lights, views = ([part[i] for i in order] for part in (frames, rows, lights, views))
    places = places[order]
    if faults.same_file is not None:
        frames[faults.same_file] = frames[faults.same_file - 1].copy()
        rows[faults.same_file] = rows[faults.same_file - 1]
        places[faults.same_file] = places[faults.same_file - 1]
    if faults.foreign is not None:
        other = np.random.default_rng([seed, 5])
        from stacks.world import texture

        picture = cv2.GaussianBlur(texture(other, world.depth.shape), (0, 0), 1.2)
        frames[faults.foreign] = _file(picture, generator, electrons, jpeg)
    return Stack(frames, np.array(rows), places, np.array(lights), world, jpeg, views, kind, pupil_steps)


def _pairs(value):
    return [value] if value else []


_triples = _fours = _pairs


def _seen(world, place, middle, shift, turn, kind, pupil, k, faults, blurs=True):
    """One frame in linear light, and where its plane of focus lies on the world."""
    height, width = world.depth.shape
    centre = np.array([(width - 1) / 2, (height - 1) / 2])
    cosine, sine = np.cos(np.radians(turn)), np.sin(np.radians(turn))

    def matrix_at(depth):
        """World to frame at one depth."""
        if kind == "ring":  # the camera stands; the image grows with the bellows
            scale = (pupil + middle) / (pupil + depth) * (1 + 0.33 * (middle - place) / pupil)
        else:
            scale = pupil / (pupil + depth - place)
        linear = scale * np.array([[cosine, -sine], [sine, cosine]])
        return np.column_stack([linear, centre + shift - linear @ centre])

    margin = 40
    size = (fft.next_fast_len(height + 2 * margin, real=True), fft.next_fast_len(width + 2 * margin, real=True))

    def spectrum_of(layer):
        matrix = matrix_at(layer.depth)
        matrix[:, 2] += margin
        paint = layer.paint
        for frame, x, y, radius, dx in _pairs(faults.moved):
            if k >= frame:
                paint = _pushed(paint, x, y, radius, dx)
        warped = cv2.warpAffine(paint, matrix, size[::-1], flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE)
        blur = abs(layer.depth - place) * STEP_BLUR_PX if blurs else 0.0
        spectrum = fft.rfft2(warped, axes=(0, 1), overwrite_x=True)
        spectrum *= _disc(size, blur)[..., None]
        return spectrum

    def seen_of(spectrum):
        return fft.irfft2(spectrum, size, axes=(0, 1))[margin : margin + height, margin : margin + width]

    # Layers of the surface share it out: their light is added, so one way back does for all of them.
    whole = None
    for layer in world.layers:
        if layer.ground:
            whole = spectrum_of(layer) if whole is None else np.add(whole, spectrum_of(layer), out=whole)
    ground = seen_of(whole)
    picture = ground[..., :3] / np.maximum(ground[..., 3:], 1e-3)
    for layer in world.layers:
        if not layer.ground:
            seen = seen_of(spectrum_of(layer))
            cover = np.clip(seen[..., 3:], 0, 1)
            picture = picture * (1 - cover) + seen[..., :3]
    to_frame = np.vstack([matrix_at(middle), [0, 0, 1]])
    return np.clip(picture, 0, None), np.linalg.inv(to_frame)[:2]


_SEEN = {}


def _seen_once(world, place, middle, shift, turn, kind, pupil, k, faults):
    """The same, kept: stacks of one world with different faults share most of their frames."""
    if faults.moved:
        return _seen(world, place, middle, shift, turn, kind, pupil, k, faults)
    key = (id(world), float(place), middle, *map(float, shift), float(turn), kind, pupil)
    if key not in _SEEN:
        if len(_SEEN) > 300:
            _SEEN.pop(next(iter(_SEEN)))
        _SEEN[key] = world, _seen(world, place, middle, shift, turn, kind, pupil, k, faults)
    return _SEEN[key][1]


_DISCS = {}


def _disc(size, blur):
    """Transfer of a disc of that diameter, a little diffraction and the pixel itself."""
    key = (size, round(blur, 3))
    if key not in _DISCS:
        if len(_DISCS) > 600:
            _DISCS.clear()
        nu, others = _without_blur(size)
        phase = np.pi * blur * nu
        disc = np.where(phase < 1e-6, 1.0, 2 * j1(np.maximum(phase, 1e-6)) / np.maximum(phase, 1e-6))
        for other in others:
            disc = disc * other
        _DISCS[key] = disc.astype(np.float32)
    return _DISCS[key]


@lru_cache(maxsize=4)
def _without_blur(size):
    """Frequency in waves a pixel, and what diffraction and the pixel leave of each."""
    y, x = np.meshgrid(fft.fftfreq(size[0]), fft.rfftfreq(size[1]), indexing="ij")
    nu = np.hypot(x, y)
    return nu, (np.exp(-2 * (np.pi * 0.45 * nu) ** 2), np.sinc(x), np.sinc(y))


def _streaked(picture, length, angle):
    size = int(np.ceil(length)) * 2 + 3
    kernel = np.zeros((size, size), np.float32)
    middle = size // 2
    for t in np.linspace(-length / 2, length / 2, 41):
        x, y = middle + t * np.cos(np.radians(angle)), middle + t * np.sin(np.radians(angle))
        i, j = int(np.floor(x)), int(np.floor(y))
        for (p, q), w in (
            ((i, j), (i + 1 - x) * (j + 1 - y)),
            ((i + 1, j), (x - i) * (j + 1 - y)),
            ((i, j + 1), (i + 1 - x) * (y - j)),
            ((i + 1, j + 1), (x - i) * (y - j)),
        ):
            kernel[q, p] += w
    return cv2.filter2D(picture, -1, kernel / kernel.sum(), borderType=cv2.BORDER_REFLECT)


def _pushed(stacked, x, y, radius, dx):
    height, width = stacked.shape[:2]
    yy, xx = np.mgrid[:height, :width].astype(np.float32)
    weight = np.clip((radius - np.hypot(xx - x, yy - y)) / 4, 0, 1)
    return cv2.remap(stacked, xx - dx * weight, yy, cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE)


def _file(picture, generator, electrons, jpeg):
    counted = np.clip(picture, 0, None) * electrons
    noisy = (counted + generator.standard_normal(counted.shape) * np.sqrt(counted + 9)) / electrons
    encoded = np.clip(noisy, 0, 1) ** (1 / 2.2)
    if not jpeg:
        return np.ascontiguousarray(np.round(encoded[..., ::-1] * 65535).astype(np.uint16))
    data = np.ascontiguousarray(np.round(encoded[..., ::-1] * 255).astype(np.uint8))
    packed = cv2.imencode(".jpg", data, [cv2.IMWRITE_JPEG_QUALITY, 93])[1]
    return cv2.imdecode(packed, cv2.IMREAD_COLOR)


def write(stack, folder):
    """The frames as files of a camera: DSC_0101 and on."""
    folder.mkdir(parents=True, exist_ok=True)
    for k, frame in enumerate(stack.frames):
        name = folder / f"P{k + 101:04d}"
        if stack.jpeg:
            cv2.imwrite(str(name) + ".jpg", frame, [cv2.IMWRITE_JPEG_QUALITY, 97])
        else:
            cv2.imwrite(str(name) + ".tif", frame, [cv2.IMWRITE_TIFF_COMPRESSION, 1])
