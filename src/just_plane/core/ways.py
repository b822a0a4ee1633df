"""The ways to get one shot, each with what it covers and costs, and the choice among them.

Positions lie along the axis, in mm behind the nearest point that must be sharp; the depth ends at ``depth``.
"""

import math
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from just_plane.core.depth import best_focus, limits_from_pupil, worst_contrast
from just_plane.core.errors import OutOfDomainError
from just_plane.core.stack import hold_time, stack_time


class Band(NamedTuple):
    """What one frame holds sharp, mm behind the nearest point; ``far`` may be inf."""

    near: float
    far: float


@dataclass(frozen=True, slots=True)
class Way:
    """One way to get the shot."""

    kind: str
    """``one_frame``, ``rail`` or ``ring``."""
    f_number: float
    effective_f_number: float
    focuses: tuple[float, ...]
    bands: tuple[Band, ...]
    cover: float
    """Share of the depth that is sharp in some frame, 0 to 1."""
    worst_contrast: float
    """Lowest contrast at 1/c over the depth, each point taken from the frame that shows it best; signed."""
    worst_at: float
    """Where that is, mm behind the nearest point."""
    time: float
    """s, from the first settling to the last file."""
    hold: float = 0.0
    """s that the subject must hold still: from the first exposure to the last."""
    edge_blur: float = 0.0
    """Of the most defocused place of the depth in the frame that shows it best, mm on the sensor."""

    @property
    def frames(self):
        """How many frames it takes; 0 for a way that is not possible.

        Returns
        -------
        int
        """
        return len(self.focuses)


@dataclass(frozen=True, slots=True)
class Pace:
    """What each frame takes besides its exposure: times in s, as for :func:`just_plane.core.stack.stack_time`."""

    settle: float
    recovery: float
    noise_reduction: bool = False
    """A dark frame as long follows each exposure ..."""
    dark_from: float = 0.0
    """... that is at least so long."""

    def dark(self, exposure):
        """Whether a dark frame follows.

        Parameters
        ----------
        exposure : float   s.

        Returns
        -------
        bool
        """
        return self.noise_reduction and exposure >= self.dark_from


class Single(NamedTuple):
    """One frame to be compared."""

    f_number: float
    effective_f_number: float
    blur: float
    """Blur still allowed on the sensor by the chosen school, mm, >= 0."""
    exposure: float
    """Shutter time, s."""
    focus: float | None = None
    """mm behind the nearest point; None puts it best."""
    lens_share: float = 1.0
    """Of a perfect lens's contrast that this one leaves at the stop."""


def one_frame(view, single, pace):
    """A single frame; :func:`one_frames` of one.

    Parameters
    ----------
    view : View
    single : Single
    pace : Pace

    Returns
    -------
    Way
    """
    return one_frames(view, (single,), pace)[0]


def one_frames(view, singles, pace):
    """Single frames of one view, worked out together.

    Parameters
    ----------
    view : View
    singles : sequence of Single
    pace : Pace                    A single frame does not settle after a move.

    Returns
    -------
    list of Way                    In the order given.

    Raises
    ------
    OutOfDomainError               The nearest point would lie behind the entrance pupil.
    """
    best = best_focus(view.depth, view.pupil_distance)
    places = np.array([best if single.focus is None else single.focus for single in singles])
    if places.max() >= view.pupil_distance:
        raise OutOfDomainError(
            "focus.behind_pupil",
            quantity="focus",
            value=float(places.max()),
            unit="mm",
            message="The nearest point would lie behind the lens with this focus.",
            remedy="Focus nearer to the nearest point, or make less of the subject sharp.",
        )
    effective = np.array([single.effective_f_number for single in singles])
    ends = np.stack([0.0 - places, view.depth - places])
    edges = view.blur_at(ends, effective)
    worst = worst_contrast(view.circle_of_confusion, np.tile(effective, 2), edges.ravel(), view.wavelength)
    shares = np.array([single.lens_share for single in singles])
    contrasts, blurs = worst.contrast.reshape(2, -1) * shares, worst.blur.reshape(2, -1)
    ways = []
    for index, single in enumerate(singles):
        end = int(np.argmin(contrasts[:, index]))
        toward_far = ends[end, index] > 0
        limits = _limits(view, single.effective_f_number, float(blurs[end, index]))
        at = places[index] + (min(limits.far, ends[end, index]) if toward_far else -limits.near)
        around = _limits(view, single.effective_f_number, single.blur)
        band = Band(float(places[index]) - around.near, float(places[index]) + around.far)
        seconds = stack_time(1, 0.0, single.exposure, pace.recovery, noise_reduction=pace.dark(single.exposure))
        ways.append(
            Way(
                "one_frame",
                single.f_number,
                single.effective_f_number,
                (float(places[index]),),
                (band,),
                _cover((band,), view.depth),
                float(contrasts[end, index]),
                min(max(float(at), 0.0), view.depth),
                seconds,
                single.exposure,
                float(edges[:, index].max()),
            )
        )
    return ways


class FramesView(NamedTuple):
    """What the rig does at each frame of a stack; floats for a rail, (K,) arrays for a ring."""

    magnification: float | np.ndarray
    pupil_distance: float | np.ndarray
    effective_f_number: float | np.ndarray
    blur: float | np.ndarray
    """Blur still allowed on the sensor by the chosen school, mm."""
    lens_share: float = 1.0
    """Of a perfect lens's contrast that this one leaves at the stop."""


def stacked(view, kind, f_number, frames_view, stack, exposure, pace):
    """A focus stack as planned by :mod:`just_plane.core.stack`.

    Parameters
    ----------
    view : View               At the nearest point.
    kind : str                ``rail`` or ``ring``.
    f_number : float          Marked, > 0.
    frames_view : FramesView  What the rig does at each frame.
    stack : Stack
    exposure : float          Shutter time, s.
    pace : Pace

    Returns
    -------
    Way                       Its worst contrast is met between two frames, or where the subject ends.
    """
    alike = isinstance(frames_view.magnification, float)
    bands = (_bands_alike if alike else _bands_apart)(frames_view, stack)
    worst, worst_at, edge_blur = _worst_of_stack(view, frames_view, np.array(stack.positions))
    ne = frames_view.effective_f_number
    nearest = next((index for index, place in enumerate(stack.positions) if place >= 0), 0)
    return Way(
        kind,
        f_number,
        float(ne if alike else ne[nearest]),
        stack.positions,
        bands,
        _cover(bands, view.depth),
        worst,
        worst_at,
        stack_time(stack.frames, pace.settle, exposure, pace.recovery, noise_reduction=pace.dark(exposure)),
        hold_time(stack.frames, pace.settle, exposure, pace.recovery, noise_reduction=pace.dark(exposure)),
        edge_blur,
    )


def _bands_alike(frames_view, stack):
    """Bands of frames that are all alike: plain numbers."""
    m, pupil, ne, blur = (float(value) for value in frames_view[:4])
    near, far = limits_from_pupil(pupil, m**2 * pupil / ne, blur)
    return tuple(Band(place - near, place + far) for place in stack.positions)


def _bands_apart(frames_view, stack):
    """The same for frames that differ, worked out together."""
    places = np.array(stack.positions)
    m, pupil, ne, blur = frames_view[:4]
    image = m**2 * pupil / ne
    near = places - blur * pupil / (image + blur)
    reach = np.divide(blur * pupil, image - blur, out=np.full(places.shape, np.inf), where=image > blur)
    return tuple(map(Band, near.tolist(), (places + reach).tolist()))


def _worst_of_stack(view, frames_view, places):
    """The lowest contrast anywhere in the depth, each point in the frame that blurs it least; where; and the most blur:
    floats.

    Between two frames that is the place which both blur alike, unless the subject ends before it.
    """
    m, pupil, ne = (np.broadcast_to(each, places.shape).astype(float) for each in frames_view[:3])
    turn = _blurred_alike(m**2 * pupil / ne, pupil, places)
    # What each frame has to show behind it, and before it, as far as the subject goes.
    behind = np.clip(np.append(turn, math.inf), 0.0, view.depth) - places
    before = np.clip(np.insert(turn, 0, -math.inf), 0.0, view.depth) - places
    offsets = np.concatenate([np.maximum(behind, 0.0), np.minimum(before, 0.0)])
    # A frame whose share of the subject lies all on its other side shows nothing on this one.
    used = (behind >= before) & (np.append(turn, math.inf) >= 0) & (np.insert(turn, 0, -math.inf) <= view.depth)
    offsets[~np.tile(used, 2)] = 0.0
    m, pupil, ne = np.tile(m, 2), np.tile(pupil, 2), np.tile(ne, 2)
    image = m**2 * pupil / ne
    blurs = image * np.abs(offsets) / (pupil + offsets)
    if isinstance(frames_view.magnification, float):
        # All alike: the most blurred is the worst.
        pick = np.array([int(np.argmax(blurs))])
        offsets, blurs, ne, image, pupil = offsets[pick], blurs[pick], ne[pick], image[pick], pupil[pick]
        where = places[pick % len(places)]
    else:
        where = np.tile(places, 2)
    worst = worst_contrast(view.circle_of_confusion, ne, blurs, view.wavelength)
    at = int(np.argmin(worst.contrast))
    met = float(worst.blur[at])
    limits = limits_from_pupil(float(pupil[at]), float(image[at]), met)
    off = min(limits.far, float(offsets[at])) if offsets[at] > 0 else max(-limits.near, float(offsets[at]))
    return (
        float(worst.contrast[at]) * frames_view.lens_share,
        min(max(float(where[at]) + off, 0.0), view.depth),
        float(blurs.max()),
    )


def _blurred_alike(image, pupil, places):
    """The place between each two neighbours that both blur alike: (K - 1,) mm.

    From a1 d/(u1 + d) = a2 (g - d)/(u2 - g + d), a quadratic in the distance d behind the first of the two.
    """
    gap, a1, a2, u1, u2 = np.diff(places), image[:-1], image[1:], pupil[:-1], pupil[1:]
    square, linear, rest = a1 + a2, a1 * (u2 - gap) + a2 * (u1 - gap), a2 * gap * u1
    return places[:-1] + 2 * rest / (linear + np.sqrt(linear**2 + 4 * square * rest))


def _limits(view, effective_f_number, blur):
    return limits_from_pupil(
        view.pupil_distance, view.magnification**2 * view.pupil_distance / effective_f_number, blur
    )


def gaps(bands, depth):
    """What no band holds of a depth.

    Parameters
    ----------
    bands : sequence of Band   In any order.
    depth : float              mm, >= 0.

    Returns
    -------
    list of Band               Near to far. Bands laid side by side lose a rounding between them: that is no gap.
    """
    found, reached, rounding = [], 0.0, depth * 1e-12
    for near, far in sorted(bands):
        if near >= depth:
            break
        if far > near:
            if near > reached + rounding:
                found.append(Band(reached, near))
            reached = max(reached, far)
    if reached < depth - rounding:
        found.append(Band(reached, depth))
    return found


def _cover(bands, depth):
    """Share of [0, depth] inside the union of bands."""
    if depth == 0:
        return 1.0 if any(band.near < band.far and band.near <= 0 <= band.far for band in bands) else 0.0
    open_still = gaps(bands, depth)
    return 1 - sum(gap.far - gap.near for gap in open_still) / depth if open_still else 1.0
