"""A stack of files checked: frames unpacked one after the other, judged by the core, told as a report."""

from just_plane.contract.check import CheckReport
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.core.frames.check.checked import Checked, check_stack
from just_plane.core.frames.check.facts import StackFacts
from just_plane.core.frames.check.series import Follower
from just_plane.frames.report import report
from just_plane.pictures.frames import as_float, read_grey, same_pixels
from just_plane.pictures.reading import PictureError

NM = 1e-6
"""mm in a nanometre."""


def stack_facts(numbers: StackNumbers, width: int) -> StackFacts:
    """The core's facts of the contract's numbers, for frames so many pixels wide."""
    pitch = numbers.pixel_pitch_mm
    if pitch is None and numbers.sensor_width_mm is not None:
        pitch = numbers.sensor_width_mm / width
    return StackFacts(
        kind=numbers.kind,
        magnification=numbers.magnification,
        effective_f_number=numbers.effective_f_number,
        pixel_pitch=pitch,
        circle=numbers.c_mm,
        depth_of_field=numbers.depth_of_field_mm,
        step=numbers.step_mm,
        frames=numbers.planned_frames,
        pupil_distance=numbers.entrance_pupil_distance_mm,
        wavelength=numbers.wavelength_nm * NM,
        threshold=numbers.contrast_threshold,
    )


def check_intake(intake, numbers=None, progress=None) -> tuple[CheckReport, Checked]:
    """Check the frames of a stack.

    Parameters
    ----------
    intake : Intake
    numbers : StackNumbers or None   Without them what can be said without a plan is said.
    progress : function or None      Called with (frames done, frames in all, name); what it raises stops the check.

    Returns
    -------
    (CheckReport, Checked)           What is told, and what the merges go by.
    """
    numbers = numbers or StackNumbers()
    width, height = intake.size
    facts = stack_facts(numbers, width)
    if facts.pixel_pitch is not None and numbers.pixel_pitch_mm is None:
        numbers = numbers.model_copy(update={"pixel_pitch_mm": facts.pixel_pitch})
    reduction = facts.reduction(width)
    follower = None
    unreadable: dict = {}
    pixels: dict = {}
    same: dict = {}
    for frame, one in enumerate(intake.facts):
        if progress:
            progress(frame, len(intake.facts), intake.names[frame])
        if one is None:
            continue
        try:
            picture = read_grey(one, reduction)
        except PictureError as error:
            unreadable[frame] = f"{error.message} {error.remedy}"
            continue
        if follower is None:
            follower = Follower(picture.shape, facts, reduction)
        elif picture.shape != follower.watch.shape:
            unreadable[frame] = "Its pixels are not as many as its file says."
            continue
        name = same_pixels(picture)
        if name in pixels:
            same[frame] = pixels[name]
        else:
            pixels[name] = frame
        follower.add(frame, as_float(picture))
    if follower is None:
        follower = Follower((height // reduction, width // reduction), facts, reduction)
    missing = [frame for frame, one in enumerate(intake.facts) if one is None or frame in unreadable]

    def load(frame):
        return as_float(read_grey(intake.facts[frame], reduction))

    checked = check_stack(follower, load, same, missing)
    return report(intake, numbers, facts, reduction, checked, unreadable), checked
