"""The way that stands back and crops: how far back one frame holds all of it, and what that leaves."""

from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from just_plane.contract.plan import BackOffAnswer
from just_plane.contract.shot import FramingClosest
from just_plane.core.backoff import blur_at_ends, equal_effective_f_number
from just_plane.core.defocus import View
from just_plane.core.depth import allowed_blur
from just_plane.core.kept import Kept
from just_plane.core.roots import growing_root
from just_plane.core.ways import Single, Way, one_frames
from just_plane.planning.rig.kinds import KINDS, name_of
from just_plane.planning.rig.outline import front_to_sensor
from just_plane.planning.rig.rigging import build_rig
from just_plane.planning.setup.exposure import shutter
from just_plane.planning.setup.tried import tried_stops
from just_plane.planning.words.findings import RefusedError
from just_plane.planning.words.numbers import f_stop, times

MOST = 8.0
"""Factor past which so few pixels are left that nothing is gained by looking further."""
STAYS_AS_IT_IS = {"objective", "coupling_ring"}
"""Rigs that are nothing without what stands between their parts."""
MARGIN = 1 + 1e-9
"""The factor found is taken this much larger, so that nothing is missed by a rounding."""


@dataclass(frozen=True, slots=True)
class BackedOff:
    """The way, what it costs, and what stands against it."""

    way: Way
    answer: BackOffAnswer
    against: tuple[str, ...]


def back_off(setup):
    """Back off at the stop in use until one frame holds the whole depth; without the extension where it is in the way.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    BackedOff, or str             Why it does not help, as a clause.
    """
    f_number = setup.stop.f_number
    found = _with(setup, setup.rigged, f_number, [])
    if isinstance(found, str):
        plain, taken_out = _without_extension(setup.rigged, setup.wording)
        other = found if plain is None else _with(setup, plain, f_number, taken_out)
        return found if isinstance(other, str) else other
    return found


def _lens_alone(made, wording):
    """The same lens with nothing that only brings it nearer, and the places of what was taken out of the row:
    (Rigged or None, list of int)."""
    asked = made.asked
    kinds = {placed.gear.kind for placed in asked.rig}
    nearer = [index for index, placed in enumerate(asked.rig) if KINDS[placed.gear.kind].brings_nearer]
    if not nearer or kinds & STAYS_AS_IT_IS or any(placed.reversed for placed in asked.rig):
        return None, []
    rest = [placed for index, placed in enumerate(asked.rig) if index not in nearer]
    try:
        alone = replace(asked, rig=rest, framing=FramingClosest(by="closest"), measured=None)
        return build_rig(alone, wording), nearer
    except RefusedError:
        return None, nearer


_without_extension = Kept(_lens_alone)


def _with(setup, made, f_number, taken_out):
    """Back off with a rig: BackedOff, or why it does not help."""
    if made.over_throw is None:
        return "this rig gives one size only"
    m = setup.rigged.imaging.magnification
    sizes = np.asarray(made.over_throw.magnification)
    if setup.shot.back_off_factor is not None:
        return _by_own_factor(setup, made, f_number, taken_out)
    further = np.flatnonzero((sizes < m) & (sizes > m / MOST))[::-1]
    if not further.size:
        return "the focus ring ends here: no farther back with this rig"
    settings = made.settings[further]
    if made is setup.rigged and made.rig.has_ring and float(made.rig.lens.own_magnification) > settings[0]:
        # Where the camera stands now: the factor may lie before the first setting of the table.
        settings = np.insert(settings, 0, float(made.rig.lens.own_magnification))
    at = _excess(setup, made.rig.focused(settings).imaging(), f_number)
    enough = np.flatnonzero((at.excess <= 0) & (at.allowed > 0))
    if not enough.size:
        if at.allowed[-1] > 0:
            return f"{at.factor[-1]:.2g}× back, the farthest this rig focuses, does not hold all of it"
        return "light itself blurs too much before all of it is sharp, as it would stopping down"
    first, factor = int(enough[0]), float(at.factor[enough[0]])
    if first > 0 and at.excess[first - 1] > 0:
        start, turned = float(settings[first - 1]), float(settings[first] - settings[first - 1])

        def there(share):
            return _excess(setup, made.rig.focused(start + share * turned).imaging(), f_number)

        share = growing_root(
            lambda share: -float(there(share).excess),
            (0.0, -float(at.excess[first - 1])),
            (1.0, -float(at.excess[first])),
        )
        factor = float(there(share).factor)
    return _way(setup, made, f_number, min(factor * MARGIN, float(at.factor[-1])), setup.wavelength, taken_out)


def _by_own_factor(setup, made, f_number, taken_out):
    """Back off by the factor asked, whatever that holds: BackedOff, or why it cannot be."""
    factor, m = setup.shot.back_off_factor, setup.rigged.imaging.magnification
    smallest, largest = made.rig.magnification_range()
    if not smallest <= m / factor <= largest:
        return f"{factor:.3g}× back gives {times(m / factor)}; this rig gives {times(smallest)} to {times(largest)}"
    return _way(setup, made, f_number, factor, setup.wavelength, taken_out)


class _Excess(NamedTuple):
    """By how much the ends of the depth blur more than is allowed, and what is allowed, mm on the sensor."""

    excess: np.ndarray
    allowed: np.ndarray
    factor: np.ndarray


def _excess(setup, imaging, f_number):
    """With the rig standing farther back; the final picture is as it would be here at q N_e: what may blur in that,
    over q, may blur on the sensor there."""
    sharp = setup.shot.sharp
    factor = setup.rigged.imaging.magnification / imaging.magnification
    works_as = imaging.effective_f_number(f_number)
    equal = equal_effective_f_number(factor, works_as)
    allowed = allowed_blur(sharp.depth_school, setup.circle, equal, setup.wavelength, sharp.contrast_threshold) / factor
    blurred = blur_at_ends(setup.depth, imaging.magnification, imaging.pupil_distance, works_as)
    return _Excess(blurred - allowed, np.asarray(allowed), factor)


def _way(setup, made, f_number, factor, wavelength, taken_out):
    shot, here = setup.shot, setup.rigged
    rig = made.rig.at_magnification(here.imaging.magnification / factor)
    imaging = rig.imaging()
    works_as = float(imaging.effective_f_number(f_number))
    circle = setup.circle / factor
    blur = allowed_blur(shot.sharp.depth_school, circle, works_as, wavelength, shot.sharp.contrast_threshold)
    view = View(imaging.magnification, imaging.pupil_distance, circle, setup.depth, wavelength)
    worked_as = float(here.imaging.effective_f_number(f_number))
    exposure = float(shutter(shot.light, f_number, here.imaging)) * (works_as / worked_as) ** 2
    gear = here.row.gear(here.row.lens)
    share = tried_stops(gear, imaging.magnification, (f_number,), circle).share[0]
    way = one_frames(view, (Single(f_number, works_as, blur, exposure, None, share),), setup.pace)[0]
    room = imaging.subject_to_sensor - front_to_sensor(shot.body, made.row, made.lens, rig)
    pixels = setup.area.pixels_across
    equal = equal_effective_f_number(factor, works_as)
    answer = BackOffAnswer(
        factor=factor,
        magnification=imaging.magnification,
        entrance_pupil_mm=imaging.pupil_distance,
        room_mm=room,
        subject_to_sensor_mm=imaging.subject_to_sensor,
        room_gained_mm=room - here.working_distance,
        pixels_across=None if pixels is None else int(pixels * shot.picture.share_of_frame / factor),
        equal_f_number=equal / here.imaging.f_number_factor,
        equal_effective_f_number=equal,
        without=taken_out,
    )
    return BackedOff(way, answer, _against(setup, answer))


def _against(setup, answer):
    """Pixels left under what the picture can show: two a smallest detail, by the eye's school."""
    shot = setup.shot
    if answer.pixels_across is None or shot.sharp.school != "viewing":
        return ()
    asked = 2 * setup.area.width * shot.picture.share_of_frame / setup.circle
    if answer.pixels_across >= asked:
        return ()
    return (f"{answer.pixels_across:,} pixels are left; the picture can show {asked:,.0f}",)


def words(shot, answer, wording):
    """What the way is, in a clause: what it equals from here, and the room."""
    taken_out = " and ".join(name_of(shot.rig[index].gear) for index in answer.without)
    without = f"without {taken_out}; " if taken_out else ""
    pixels = "" if answer.pixels_across is None else f", {answer.pixels_across:,} pixels across"
    room = wording.length(answer.room_mm)
    return f"{without}the same picture as {f_stop(answer.equal_f_number)} from here; {room} of room{pixels}"
