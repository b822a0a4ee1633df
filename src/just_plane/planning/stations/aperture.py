"""The aperture section: every stop of the lens on this rig, and the one that serves the depth best."""

from just_plane.contract.plan import ApertureAnswer, DepthSchool, StopAnswer
from just_plane.core.aperture import airy_diameter, numerical_aperture, stops_lost
from just_plane.core.depth import SCHOOLS, allowed_blur, depth_from_blur, limits_from_pupil
from just_plane.core.errors import OpticsError
from just_plane.core.kept import Kept
from just_plane.core.stack import rail_frames_by_stop
from just_plane.core.units import UM_PER_MM
from just_plane.planning.setup.own_steps import is_own, own_frames_of
from just_plane.planning.setup.soft import softness_of_stops
from just_plane.planning.words.findings import Answered, note, trouble
from just_plane.planning.words.numbers import count, f_stop, percent, times

PALE = 0.5
"""Contrast in perfect focus under which a stack is softer than it need be, where a wider stop keeps more."""
EMPTY_FROM = 4.0
"""Pixels to the finest period that light keeps at the widest stop: two would do."""


def aperture(setup):
    """The aperture section of a plan, and what stands against the stop in use.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    Answered         Of contract ApertureAnswer.
    """
    stops, stop, options = setup.stops, setup.stop, setup.shot.stack
    frames = _own_count(setup) or rail_frames_by_stop(
        setup.depth,
        stops.depths.tolist(),
        options.overlap,
        spare=options.spare_before + options.spare_after,
        smallest_step=options.rail_smallest_step_mm,
    )
    soft = softness_of_stops(setup)
    columns = zip(
        stops.f_numbers.tolist(),
        stops.effective_f_numbers.tolist(),
        setup.worst.tolist(),
        stops.perfect.tolist(),
        stops.depths.tolist(),
        frames,
        stops.shutters.tolist(),
        soft,
        strict=True,
    )
    answer = ApertureAnswer(
        f_number=stop.f_number,
        effective_f_number=stop.effective_f_number,
        stops_lost=stops_lost(stop.f_number, stop.effective_f_number),
        airy_um=airy_diameter(stop.effective_f_number, setup.wavelength) * UM_PER_MM,
        numerical_aperture=numerical_aperture(stop.effective_f_number, setup.view.magnification),
        depth_of_field_mm=stop.depth,
        best_f_number=float(stops.f_numbers[setup.best.place]),
        best_worst_contrast=float(setup.worst[setup.best.place]),
        best_by=setup.best.by,
        best_words=_best_words(setup, soft) + _by_trial(setup.stops.tried),
        schools=_schools(setup.rigged, setup.circle, stop, setup.shot.sharp, setup.wavelength),
        stops=[
            StopAnswer(
                f_number=f_number,
                effective_f_number=works_as,
                worst_contrast=worst,
                perfect_contrast=perfect,
                depth_of_field_mm=depth,
                frames=count,
                shutter_s=time,
                soft=words,
            )
            for f_number, works_as, worst, perfect, depth, count, time, words in columns
        ],
    )
    return Answered(answer, (*_no_depth(setup), *_pale(setup, frames), *_empty(setup)))


def _by_trial(tried):
    """That the lens's own contrast was measured, where it was."""
    return f" What the lens itself loses is {tried}." if tried else ""


def _best_words(setup, soft):
    """What the best stop is best in, in a sentence."""
    index, by = setup.best
    stop = f_stop(setup.stops.f_numbers[index])
    if by == "contrast":
        return f"Best for this depth: {stop}, nowhere under {percent(float(setup.worst[index]))} contrast."
    if by == "most_of_depth":
        held = setup.wording.length(float(setup.stops.depths[index]))
        return (
            f"No stop holds the whole depth in one frame. {stop} holds most of it, {held}; its ends are {soft[index]}."
        )
    return (
        f"No stop holds any depth for a picture of this size: light itself blurs too much. {stop} shows most contrast "
        f"in focus, {percent(float(setup.stops.perfect[index]))}; at the ends {soft[index]}."
    )


def _schools_of(rigged, circle, stop, sharp, wavelength):
    """Depth of field by each school at the stop in use: list of DepthSchool."""
    imaging, answers = rigged.imaging, []
    effective = stop.effective_f_number
    image = imaging.magnification**2 * imaging.pupil_distance / effective
    for school in SCHOOLS:
        blur = stop.blur
        if school != sharp.depth_school:
            blur = allowed_blur(school, circle, effective, wavelength, sharp.contrast_threshold)
        near, far = limits_from_pupil(imaging.pupil_distance, image, blur)
        answers.append(
            DepthSchool(
                school=school,  # type: ignore[arg-type]  # a str there, one of these here
                total_mm=depth_from_blur(blur, effective, imaging.magnification),
                near_mm=near,
                far_mm=None if far == float("inf") else far,
            )
        )
    return answers


_schools = Kept(_schools_of)


def _empty(setup):
    """Magnification that only enlarges the blur of light itself: said where half the size would record as much."""
    pixels = setup.area.pixels_across
    if pixels is None:
        return ()
    finest = setup.wavelength * float(setup.stops.effective_f_numbers[0])
    across = finest / (setup.area.width / pixels)
    if across < EMPTY_FROM:
        return ()
    return (
        note(
            "magnification.empty",
            "/framing",
            f"Even at {f_stop(setup.stops.f_numbers[0])} light keeps no detail finer than {across:.0f} pixels here: "
            "half the size, enlarged, would show as much.",
            "Take a smaller size on the sensor, or a lens with more numerical aperture.",
        ),
    )


def _pale(setup, frames):
    """A stack at a stop where light itself blurs much of the detail, though a wider one would keep it: note."""
    stops, stop = setup.stops, setup.stop
    if stop.blur <= 0 or setup.best.by == "contrast" or not _is_pale(stops.perfect[stops.chosen]):
        return ()
    wider = [i for i in range(stops.chosen) if frames[i] is not None and not _is_pale(stops.perfect[i])]
    if not wider:
        return ()
    at = wider[-1]
    return (
        note(
            "f_number.pale_stack",
            "/aperture/f_number",
            f"At {f_stop(stop.f_number)} light itself leaves {percent(float(stops.perfect[stops.chosen]))} of the "
            f"detail, even in focus. A stack at {f_stop(stops.f_numbers[at])}, {count(frames[at], 'frame')}, keeps "
            f"{percent(float(stops.perfect[at]))}.",
            "Of a stack the depth comes from the frames, not from the stop.",
        ),
    )


def _is_pale(contrast):
    return bool(contrast < PALE)


def _no_depth(setup):
    """What to do where light itself blurs too much at the stop in use: tuple of Finding."""
    stops, stop, wording = setup.stops, setup.stop, setup.wording
    if stop.blur > 0:
        return ()
    left = [i for i in range(stops.clicks) if stops.blurs[i] > 0]
    wider = f"Open up to {f_stop(stops.f_numbers[left[-1]])}, use" if left else "No stop of this lens reaches it: use"
    airy = airy_diameter(stop.effective_f_number, setup.wavelength)
    return (
        trouble(
            "depth.none",
            "/aperture/f_number",
            f"At {times(setup.view.magnification)} and {f_stop(stop.f_number)} (works as "
            f"{f_stop(stop.effective_f_number)}) light itself blurs {wording.length(airy)}: too much for detail of "
            f"{wording.length(setup.circle)}.",
            f"{wider} a coarser measure of sharp, or reckon depth by the wave school.",
        ),
    )


def _own_count(setup):
    """Frames at each stop where steps or count are the photographer's own: the same at all; None where they are not."""
    if not is_own(setup, "rail"):
        return None
    try:
        frames = own_frames_of(setup, "rail").frames
    except OpticsError:
        frames = None
    return [frames if depth > 0 else None for depth in setup.stops.depths.tolist()]
