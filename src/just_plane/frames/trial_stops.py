"""A trial of stops: two frames at each, of one target, told as a result."""

from itertools import pairwise
from pathlib import Path
from statistics import median

import numpy as np

from just_plane.contract.trial import StopsFound, TrialFrame, TrialResult, TriedStop
from just_plane.core.aperture import effective_f_number
from just_plane.core.errors import OpticsError
from just_plane.core.stops import THIRD_STOPS
from just_plane.core.trials.edge import read_edge
from just_plane.core.trials.stops import TOO_LITTLE, best_stop, model_contrast, spread_of
from just_plane.core.trials.texture import shared_detail
from just_plane.core.units import DEFAULT_WAVELENGTH
from just_plane.frames.trial_intake import CLIPPED, linear, stop_of
from just_plane.pictures.reading import PictureError

CIRCLE_PX = 5.0
"""Circle of confusion where it is not given: what viewers see of common cameras."""
MOST_SHIFT_PX = 2.0
MOST_OFF_EV = 1 / 3
SAME_STOP = 0.03
LEAST_STOPS = 3
ALIKE_SHARE = 0.25
"""Of the usual detail shared, under which two frames do not show the same."""


def stops_trial(frames, asked, progress=None):
    """Measure the best stop.

    Parameters
    ----------
    frames : TrialFrames
    asked : TrialAsked
    progress : function or None   Called with (done, count, name).

    Returns
    -------
    TrialResult
    """
    odd: list[TrialFrame] = list(frames.odd)
    warnings: list[str] = []
    stops = _stops(frames.facts, asked)
    if isinstance(stops, str):
        return refused("stops", stops, odd)
    groups, said = _grouped(frames.facts, stops, asked.target)
    odd += said
    if len(groups) < LEAST_STOPS:
        words = f"{len(groups)} stops with frames enough are too few: take two frames at each of three or more."
        return refused("stops", words, odd)
    frequency = _frequency(asked)
    measure = _by_edge if asked.target == "edge" else _by_texture
    try:
        measured = measure(groups, frequency, odd, warnings, progress)
    except OpticsError as error:
        return refused("stops", str(error), odd)
    if isinstance(measured, str):
        return refused("stops", measured, odd)
    numbers, energies, spreads, noise, lights = measured
    warnings += _light(groups, numbers, lights)
    found = best_stop(numbers, energies, spreads, noise)
    if isinstance(found, str):
        return refused("stops", found, odd, warnings)
    warnings += _careful(found, numbers)
    return TrialResult(
        kind="stops",
        refused=False,
        sentence=_sentence(found, asked),
        warnings=warnings,
        frames=odd,
        used=sum(len(group) for group in groups.values()),
        stops=_told(found, asked, frequency, np.sqrt(np.maximum(energies, 0.0))),
    )


def refused(kind, sentence, odd, warnings=()):
    """A trial that measured nothing.

    Parameters
    ----------
    kind, sentence : str
    odd : list of TrialFrame
    warnings : sequence of str

    Returns
    -------
    TrialResult
    """
    return TrialResult(kind=kind, refused=True, sentence=sentence, warnings=list(warnings), frames=odd, used=0)


def without_scale(kind, asked, odd):
    """What is said where a trial needs size and pixel and was not given both.

    Parameters
    ----------
    kind : str
    asked : TrialAsked
    odd : list of TrialFrame

    Returns
    -------
    TrialResult or None        None where both are given.
    """
    if asked.magnification is None or asked.pixel_pitch_mm is None:
        return refused(kind, "The size and the pixel must be known: give both.", odd)
    return None


def _frequency(asked):
    """Cycles a pixel: 1/c."""
    if asked.c_mm is not None and asked.pixel_pitch_mm is not None:
        return min(asked.pixel_pitch_mm / asked.c_mm, 0.37)
    return 1 / CIRCLE_PX


def _stops(facts, asked):
    """f-number of every frame, or why they are not known."""
    if asked.f_numbers:
        if len(asked.f_numbers) == len(facts):
            return list(asked.f_numbers)
        if len(facts) == 2 * len(asked.f_numbers):
            return [stop for stop in asked.f_numbers for _ in range(2)]
        return (
            f"{len(asked.f_numbers)} stops were given for {len(facts)} frames: give one for each frame, "
            "or one for each two in a row."
        )
    stops = [stop_of(one) for one in facts]
    if any(stop is None for stop in stops):
        return "The files do not say at which stop they were taken: give the stops in the order of the frames."
    if len(set(stops)) == 1:
        return (
            f"All files say f/{stops[0]:g}: the lens does not tell its stop. Give the stops in the order of the frames."
        )
    return stops


def _grouped(facts, stops, target):
    """Frames by marked stop, rising; those that stand alone are told."""
    groups: dict = {}
    for one, stop in zip(facts, stops, strict=True):
        marked = min(THIRD_STOPS, key=lambda mark: abs(np.log(mark / stop)))
        value = float(marked) if abs(marked / stop - 1) < SAME_STOP else float(stop)
        groups.setdefault(value, []).append(one)
    need, said = (1 if target == "edge" else 2), []
    for stop, group in list(groups.items()):
        if len(group) < need:
            said.append(
                TrialFrame(
                    file=Path(group[0].path).name,
                    problem=f"It is the only frame at f/{stop:g}: two are needed to tell detail from noise.",
                )
            )
            del groups[stop]
        elif target == "texture" and len(group) > need:
            said += [
                TrialFrame(file=Path(one.path).name, problem=f"f/{stop:g} has two frames already; it is left out.")
                for one in group[need:]
            ]
            groups[stop] = group[:need]
    return dict(sorted(groups.items())), said


def _by_texture(groups, frequency, odd, warnings, progress):
    found = {}
    done, count = 0, sum(len(group) for group in groups.values())
    before = None
    for stop, group in groups.items():
        pair = []
        for one in group:
            if progress:
                progress(done, count, Path(one.path).name)
            done += 1
            read = _read(one, odd)
            if read is not None:
                pair.append(read)
        if len(pair) < 2:
            continue
        shared = shared_detail(pair[0], pair[1], frequency)
        if max(map(abs, shared.shift)) > MOST_SHIFT_PX:
            odd.append(
                TrialFrame(
                    file=Path(group[1].path).name,
                    problem=f"It moved by {max(map(abs, shared.shift)):.1f} px from the one before at the same stop; "
                    f"f/{stop:g} is left out. Use the timer, and a tripod that stands.",
                )
            )
            continue
        if before is not None:
            across = shared_detail(before, pair[0], frequency)
            if across.energy < ALIKE_SHARE * shared.energy and shared.energy > 5 * shared.spread:
                warnings.append(f"The frames at f/{stop:g} show another place of the target, or another target.")
        before = pair[0]
        found[stop] = (shared, float(pair[0].mean()))
    if len(found) < LEAST_STOPS:
        return "Too few stops are left with two frames that agree."
    numbers = list(found)
    return (
        numbers,
        np.array([found[n][0].energy for n in numbers]),
        np.array([found[n][0].spread for n in numbers]),
        median(found[n][0].noise for n in numbers),
        [found[n][1] for n in numbers],
    )


def _by_edge(groups, frequency, odd, warnings, progress):
    numbers, values, doubts, lights, why = [], [], [], [], TOO_LITTLE
    done, count = 0, sum(len(group) for group in groups.values())
    for stop, group in groups.items():
        read, light = [], []
        for one in group:
            if progress:
                progress(done, count, Path(one.path).name)
            done += 1
            picture = _read(one, odd)
            edge = None if picture is None else read_edge(picture)
            if isinstance(edge, str):
                why = edge
                odd.append(TrialFrame(file=Path(one.path).name, problem=edge))
            elif edge is not None:
                read.append(edge)
                light.append(float(picture.mean()))
        if not read:
            continue
        if any(edge.sharpened for edge in read):
            warnings.append(f"f/{stop:g} was sharpened in the camera: its contrast is not the lens's. Switch it off.")
        contrasts = [edge.at(frequency) for edge in read]
        numbers.append(stop)
        values.append(float(np.mean(contrasts)))
        lights.append(light[0])
        doubts.append(float(np.std(contrasts)) / np.sqrt(len(contrasts)) if len(contrasts) > 1 else 0.007)
    if len(numbers) < LEAST_STOPS:
        return why
    values_array = np.array(values)
    # Energies, so that both targets are judged alike.
    return numbers, values_array**2, 2 * values_array * np.maximum(doubts, 0.004), 0.0, lights


def _read(facts, odd):
    try:
        picture, clipped = linear(facts)
    except PictureError as error:
        odd.append(TrialFrame(file=Path(facts.path).name, problem=f"{error.message} {error.remedy}"))
        return None
    if clipped > CLIPPED:
        odd.append(
            TrialFrame(
                file=Path(facts.path).name,
                problem=f"{100 * clipped:.0f} % of it is burnt out; it is left out. Expose less.",
            )
        )
        return None
    return picture


def _light(groups, numbers, lights):
    """Stops that are lighter or darker than what their exposures say."""
    said = []
    expected = []
    for stop in numbers:
        one = groups[stop][0]
        known = one.exposure_s and one.iso and one.f_number
        expected.append(np.log2(one.exposure_s * one.iso / stop**2) if known else np.nan)
    off = np.log2(np.maximum(lights, 1e-6)) - (np.array(expected) if np.isfinite(expected).all() else 0.0)
    off = off - np.median(off)
    for stop, value in zip(numbers, off, strict=True):
        if abs(value) > MOST_OFF_EV:
            said.append(
                f"f/{stop:g} is {abs(value):.1f} stops {'lighter' if value > 0 else 'darker'} than its exposure says: "
                "the light changed, or the stop is not what the file says."
            )
    return said


def _careful(found, numbers):
    said = []
    if found.at_end:
        side = "wider" if found.best == min(numbers) else "smaller"
        said.append(f"f/{found.best:g} is the last that was tried: the best may be {side} still. Try further.")
    loose = [stop for stop in found.could_be if stop not in found.alike]
    if len(loose) > 1:
        said.append(
            f"Noise leaves open which it is from f/{found.could_be[0]:g} to f/{found.could_be[-1]:g}: "
            "more light or stronger texture would tell."
        )
    marks = [mark for mark in THIRD_STOPS if min(numbers) <= mark <= max(numbers)]
    apart = [2 * np.log2(later / earlier) for earlier, later in pairwise(numbers)]
    usual = median(apart)
    missing = [
        (earlier, later)
        for (earlier, later), step in zip(pairwise(numbers), apart, strict=True)
        if step > 1.6 * usual and any(earlier < mark < later for mark in marks)
    ]
    for earlier, later in missing:
        said.append(f"Between f/{earlier:g} and f/{later:g} a stop is missing.")
    return said


def _sentence(found, asked):
    lens = asked.name or "this lens"
    size = f" at {asked.magnification:g}×" if asked.magnification else ""
    others = [f"f/{stop:g}" for stop in found.alike if stop != found.best]
    listed = " and ".join([", ".join(others[:-1]), others[-1]] if len(others) > 1 else others)
    also = f" {listed} {'are' if len(others) > 1 else 'is'} as good." if others else ""
    beyond = ", or beyond" if found.at_end else ""
    return f"f/{found.best:g} is the best stop of {lens}{size}{beyond}.{also}"


def _told(found, asked, frequency, contrast):
    numbers = np.array([stop.f_number for stop in found.stops])
    model: list[float | None] = [None] * len(numbers)
    spread: list[float | None] = [None] * len(numbers)
    per_mm = frequency / asked.pixel_pitch_mm if asked.pixel_pitch_mm else None
    absolute = asked.target == "edge"
    shown = contrast if absolute else np.array([stop.contrast for stop in found.stops])
    if per_mm is not None and asked.magnification is not None:
        effective = effective_f_number(numbers, asked.magnification, asked.pupil_magnification)
        modelled = model_contrast(per_mm, effective, asked.pixel_pitch_mm, DEFAULT_WAVELENGTH)
        spread = [round(float(value), 6) for value in spread_of(shown, modelled, per_mm, relative=not absolute)]
        # Relative to the model at the smallest stops, so that both curves stand in one drawing.
        scale = 1.0 if absolute else float(np.median((shown / np.maximum(modelled, 1e-9))[-3:]))
        model = [round(float(value * scale), 5) for value in modelled]
    stops = [
        TriedStop(
            f_number=stop.f_number,
            contrast=round(float(value), 5),
            doubt=round(stop.doubt, 5),
            model=one,
            spread_mm=wide,
        )
        for stop, value, one, wide in zip(found.stops, shown, model, spread, strict=True)
    ]
    return StopsFound(
        best_f_number=found.best,
        alike=list(found.alike),
        could_be=list(found.could_be),
        at_end=found.at_end,
        frequency_per_px=frequency,
        frequency_per_mm=per_mm,
        stops=stops,
    )
