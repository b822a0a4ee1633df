"""The aperture section: every stop of the lens on this rig, and the one that serves the depth best."""

from dataclasses import dataclass

import numpy as np

from just_plane.contract.plan import ApertureAnswer, DepthSchool, StopAnswer
from just_plane.core.aperture import airy_diameter, numerical_aperture, stops_lost
from just_plane.core.contrast import perfect_contrast
from just_plane.core.depth import SCHOOLS, allowed_blur, best_aperture, depth_from_blur, limits_from_pupil
from just_plane.core.errors import OpticsError
from just_plane.core.stack import MOST_FRAMES
from just_plane.core.stops import marked_stops
from just_plane.core.units import MM_PER_NM, UM_PER_MM
from just_plane.planning.light import shutter
from just_plane.planning.wording import f_stop


@dataclass(frozen=True, slots=True)
class Stops:
    """Every stop of the lens, worked out together. Arrays of one length, widest first; mm."""

    f_numbers: np.ndarray
    effective_f_numbers: np.ndarray
    blurs: np.ndarray
    """Blur that the chosen school still allows."""
    depths: np.ndarray
    worst: np.ndarray
    perfect: np.ndarray
    shutters: np.ndarray
    """Shutter time, s."""
    best: int
    chosen: int
    """Index of the stop in use; the last entry when the lens does not click there."""
    clicks: int
    """How many entries are stops of the lens."""


def work_out_stops(shot, rigged, circle, findings, wording):
    """Every stop of the lens and the one in use, or None after saying why not."""
    imaging, lens = rigged.imaging, rigged.lens
    wavelength = shot.sharp.wavelength_nm * MM_PER_NM
    try:
        f_numbers = marked_stops(lens.widest, lens.narrowest, lens.stops)
    except OpticsError as error:
        findings.refused(error, f"/rig/{rigged.row.lens}/gear/widest_f_number")
        return None
    clicks = len(f_numbers)
    marked = _marked(shot, rigged)
    chosen = next((i for i, stop in enumerate(f_numbers) if abs(stop / marked - 1) < 0.005), clicks)
    if chosen == clicks:
        f_numbers = (*f_numbers, marked)
        _say_stop(lens, marked, findings)
    marked_array = np.array(f_numbers)
    effective = np.asarray(imaging.effective_f_number(marked_array))
    blurs = allowed_blur(shot.sharp.depth_school, circle, effective, wavelength, shot.sharp.contrast_threshold)
    curve = best_aperture(
        shot.subject.depth_mm,
        marked_array,
        effective,
        imaging.magnification,
        circle,
        wavelength,
        imaging.pupil_distance,
    )
    s = wavelength * effective / circle
    return Stops(
        marked_array,
        effective,
        blurs,
        depth_from_blur(blurs, effective, imaging.magnification),
        curve.worst_contrast,
        perfect_contrast(s),
        shutter(shot, marked_array, imaging),
        int(np.argmax(curve.worst_contrast[:clicks])),
        chosen,
        clicks,
    )


def aperture(shot, rigged, circle, stops):
    """The aperture section of a plan."""
    imaging, chosen = rigged.imaging, stops.chosen
    effective = float(stops.effective_f_numbers[chosen])
    wavelength = shot.sharp.wavelength_nm * MM_PER_NM
    frames = _rail_frames(shot, stops)
    columns = zip(
        stops.f_numbers.tolist(),
        stops.effective_f_numbers.tolist(),
        stops.worst.tolist(),
        stops.perfect.tolist(),
        stops.depths.tolist(),
        frames,
        stops.shutters.tolist(),
        strict=True,
    )
    return ApertureAnswer(
        f_number=float(stops.f_numbers[chosen]),
        effective_f_number=effective,
        stops_lost=stops_lost(float(stops.f_numbers[chosen]), effective),
        airy_um=airy_diameter(effective, wavelength) * UM_PER_MM,
        numerical_aperture=numerical_aperture(effective, imaging.magnification),
        depth_of_field_mm=float(stops.depths[chosen]),
        best_f_number=float(stops.f_numbers[stops.best]),
        best_worst_contrast=float(stops.worst[stops.best]),
        schools=_schools(shot, rigged, circle, effective, stops),
        stops=[
            StopAnswer(
                f_number=f_number,
                effective_f_number=works_as,
                worst_contrast=worst,
                perfect_contrast=perfect,
                depth_of_field_mm=depth,
                frames=count,
                shutter_s=time,
            )
            for f_number, works_as, worst, perfect, depth, count, time in columns
        ],
    )


def _rail_frames(shot, stops):
    """Frames of a rail stack at each stop, spare ones included; None where there is no depth or no end of frames."""
    step = stops.depths * (1 - shot.stack.overlap)
    smallest = shot.stack.rail_smallest_step_mm
    if smallest is not None:
        step = np.floor(step / smallest * (1 + 1e-9)) * smallest
    with np.errstate(divide="ignore", invalid="ignore"):
        steps = np.ceil(shot.subject.depth_mm / step * (1 - 1e-12))
    spare = shot.stack.spare_before + shot.stack.spare_after
    return [
        int(count) + 1 + spare if gap > 0 and count <= MOST_FRAMES else None
        for gap, count in zip(step, steps, strict=True)
    ]


def _schools(shot, rigged, circle, effective, stops):
    imaging = rigged.imaging
    answers: list[DepthSchool] = []
    image = imaging.magnification**2 * imaging.pupil_distance / effective
    for school in SCHOOLS:
        blur = (
            float(stops.blurs[stops.chosen])
            if school == shot.sharp.depth_school
            else allowed_blur(
                school, circle, effective, shot.sharp.wavelength_nm * MM_PER_NM, shot.sharp.contrast_threshold
            )
        )
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


def _marked(shot, rigged):
    """The marked stop in use. An aperture that cannot be set is what it is."""
    lens = rigged.lens
    if lens.widest == lens.narrowest:
        return lens.widest
    shown = shot.aperture.f_number
    return shown / rigged.imaging.f_number_factor if shot.aperture.reading == "effective" else shown


def _say_stop(lens, marked, findings):
    if marked < lens.widest * 0.995 or marked > lens.narrowest * 1.005:
        findings.trouble(
            "f_number.not_on_lens",
            "/aperture/f_number",
            f"This lens goes from {f_stop(lens.widest)} to {f_stop(lens.narrowest)}; "
            f"{f_stop(marked)} marked cannot be set.",
            "Choose a stop in that range.",
        )
    else:
        findings.note(
            "f_number.between_clicks",
            "/aperture/f_number",
            f"{f_stop(marked)} lies between two {lens.stops} stops of this lens.",
        )
