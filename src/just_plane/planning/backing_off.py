"""The way that stands back and crops: how far back one frame holds all of it, and what that leaves."""

from dataclasses import dataclass

import numpy as np

from just_plane.contract.plan import BackOffAnswer
from just_plane.contract.shot import FramingClosest
from just_plane.core.backoff import blur_at_ends, equal_effective_f_number
from just_plane.core.depth import allowed_blur
from just_plane.core.units import MM_PER_NM
from just_plane.core.ways import Single, View, Way, one_frames
from just_plane.planning.findings import Findings
from just_plane.planning.light import shutter
from just_plane.planning.outline import front_to_sensor, name_of
from just_plane.planning.rigging import build_rig, sensor
from just_plane.planning.wording import f_stop

MOST = 8.0
"""Factor past which so few pixels are left that nothing is gained by looking further."""
BRINGS_NEARER = {"tube", "bellows", "close_up"}
STAYS_AS_IT_IS = {"objective", "coupling_ring"}
"""Rigs that are nothing without what stands between their parts."""
MARGIN = 1.002
"""The factor found between two settings of the ring is taken this much larger, so that nothing is missed by a hair."""


@dataclass(frozen=True, slots=True)
class BackedOff:
    """The way, what it costs, and what stands against it."""

    way: Way
    answer: BackOffAnswer
    against: tuple[str, ...]


def back_off(bench, stop):
    """Back off at one of the stops until one frame holds the whole depth; without the extension where it is in the way.

    Parameters
    ----------
    bench : planning.ways.Bench
    stop : int                    Index of the stop.

    Returns
    -------
    BackedOff, or str             Why it does not help, as a clause.
    """
    f_number = float(bench.stops.f_numbers[stop])
    found = _with(bench, bench.rigged, f_number, [])
    if isinstance(found, str):
        plain, taken_out = _without_extension(bench.shot)
        other = found if plain is None else _with(bench, plain, f_number, taken_out)
        return found if isinstance(other, str) else other
    return found


def _without_extension(shot):
    """The same lens with nothing that only brings it nearer, and the places of what was taken out of the row:
    (Rigged or None, list of int)."""
    kinds = {placed.gear.kind for placed in shot.rig}
    nearer = [index for index, placed in enumerate(shot.rig) if placed.gear.kind in BRINGS_NEARER]
    if not nearer or kinds & STAYS_AS_IT_IS or any(placed.reversed for placed in shot.rig):
        return None, []
    rest = [placed for index, placed in enumerate(shot.rig) if index not in nearer]
    alone = shot.model_copy(update={"rig": rest, "framing": FramingClosest(by="closest"), "measured": None})
    return build_rig(alone, Findings()), nearer


def _with(bench, made, f_number, taken_out):
    """Back off with a rig: BackedOff, or why it does not help."""
    shot = bench.shot
    if made.over_throw is None:
        return "this rig gives one size only"
    m = bench.rigged.imaging.magnification
    table = made.over_throw
    further = (table.magnification < m) & (table.magnification > m / MOST)
    if not further.any():
        return "the focus ring ends here: no farther back with this rig"
    sizes, pupils = table.magnification[further][::-1], table.pupil_distance[further][::-1]
    works_as = np.asarray(table.effective_f_number(f_number))[further][::-1]
    factors = m / sizes
    wavelength, school = shot.sharp.wavelength_nm * MM_PER_NM, shot.sharp.depth_school
    # The final picture is as it would be here at q N_e: what may blur in that, over q, may blur on the sensor there.
    equal = equal_effective_f_number(factors, works_as)
    allowed = allowed_blur(school, bench.circle, equal, wavelength, shot.sharp.contrast_threshold) / factors
    blurred = blur_at_ends(shot.subject.depth_mm, sizes, pupils, works_as)
    enough = np.flatnonzero((blurred <= allowed) & (allowed > 0))
    if not len(enough):
        if allowed[-1] > 0:
            return f"{factors[-1]:.2g}× back, the farthest this rig focuses, does not hold all of it"
        return "light itself blurs too much before all of it is sharp, as it would stopping down"
    factor = _between(factors, blurred - allowed, int(enough[0])) * MARGIN
    return _way(bench, made, f_number, min(factor, float(factors[-1])), wavelength, taken_out)


def _between(factors, excess, first):
    """The factor at which the excess of blur is 0, between the last setting that fails and the first that does not."""
    if first == 0 or excess[first - 1] <= 0:
        return float(factors[first])
    share = excess[first - 1] / (excess[first - 1] - excess[first])
    return float(factors[first - 1] + share * (factors[first] - factors[first - 1]))


def _way(bench, made, f_number, factor, wavelength, taken_out):
    shot, here = bench.shot, bench.rigged
    rig = made.rig.at_magnification(here.imaging.magnification / factor)
    imaging = rig.imaging()
    works_as = float(imaging.effective_f_number(f_number))
    circle = bench.circle / factor
    blur = allowed_blur(shot.sharp.depth_school, circle, works_as, wavelength, shot.sharp.contrast_threshold)
    view = View(imaging.magnification, imaging.pupil_distance, circle, shot.subject.depth_mm, wavelength)
    worked_as = float(here.imaging.effective_f_number(f_number))
    exposure = float(shutter(shot, f_number, here.imaging)) * (works_as / worked_as) ** 2
    way = one_frames(view, (Single(f_number, works_as, blur, exposure),), bench.pace)[0]
    room = imaging.subject_to_sensor - front_to_sensor(shot.body, made.row, made.lens, rig)
    pixels = sensor(shot).pixels_across
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
    return BackedOff(way, answer, _against(bench, answer))


def _against(bench, answer):
    """Pixels left under what the picture can show: two a smallest detail, by the eye's school."""
    shot = bench.shot
    if answer.pixels_across is None or shot.sharp.school != "viewing":
        return ()
    asked = 2 * sensor(shot).width * shot.picture.share_of_frame / bench.circle
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
