"""A stack of files checked: frames unpacked one after the other, judged by the core, told as a report."""

from just_plane.contract.check import CheckReport
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.core.frames.check.checked import Checked, check_stack
from just_plane.core.frames.check.facts import StackFacts
from just_plane.core.frames.check.series import Follower
from just_plane.frames.measuring import measure_slab, reduced, slabs
from just_plane.frames.report import CAN_BE_PUT_BACK, report
from just_plane.pictures.frames import as_float, read_grey

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
        spare_before=numbers.spare_before,
        spare_after=numbers.spare_after,
    )


def check_intake(intake, numbers=None, progress=None, put_back=()) -> tuple[CheckReport, Checked]:
    """Check the frames of a stack.

    Parameters
    ----------
    intake : Intake
    numbers : StackNumbers or None   Without them what can be said without a plan is said.
    progress : function or None      Called with (frames done, frames in all, name); what it raises stops the check.
    put_back : list of str           As for :func:`judge`.

    Returns
    -------
    (CheckReport, Checked)           What is told, and what the merges go by.
    """
    numbers = with_pitch(numbers or StackNumbers(), intake)
    facts = stack_facts(numbers, intake.size[0])
    last = None
    parts = []
    for part in slabs(len(intake.names)):
        begun = part[0]

        def told(done, _count, name, begun=begun):
            if progress:
                progress(begun + done, len(intake.names), name)

        slab, last = measure_slab(intake, facts, part, last, told)
        parts.append(slab)
    return judge(intake, numbers, parts, put_back)


def with_pitch(numbers, intake) -> StackNumbers:
    """The numbers with the pitch of pixels that these frames have, where the numbers leave it to them."""
    noted = next((one for one in intake.facts if one is not None and one.pitch_mm is not None), None)
    return of_pixels(numbers, intake.size[0], None if noted is None else noted.pitch_mm)


def of_pixels(numbers, width, noted_mm) -> StackNumbers:
    """The same for frames so many pixels wide: by what the camera noted, else by the width of the sensor."""
    if numbers.pixel_pitch_mm is not None:
        return numbers
    pitch = noted_mm or stack_facts(numbers, width).pixel_pitch
    return numbers if pitch is None else numbers.model_copy(update={"pixel_pitch_mm": pitch})


def judge(intake, numbers, parts, put_back=()) -> tuple[CheckReport, Checked]:
    """Judge a stack by what was measured of its frames.

    Parameters
    ----------
    intake : Intake
    numbers : StackNumbers   As :func:`with_pitch` gives them.
    parts : list of Slab     Of all frames, in order.
    put_back : list of str   Names of frames that are used all the same, though they would be left out.

    Returns
    -------
    (CheckReport, Checked)   What is told, and what the merges go by.
    """
    facts = stack_facts(numbers, intake.size[0])
    reduction = facts.reduction(intake.size[0])
    follower = Follower(reduced(intake, reduction), facts, reduction)
    unreadable: dict = {}
    same: dict = {}
    seen: dict = {}

    def load(frame):
        return as_float(read_grey(intake.facts[frame], reduction))

    for part in parts:
        unreadable |= part.unreadable
        for frame, measured in part.numbers.items():
            name = part.names[frame]
            if name in seen:
                same[frame] = seen[name]
            seen.setdefault(name, frame)
            pairs = {before: pair for (before, this), pair in part.pairs.items() if this == frame}
            follower.join(frame, measured, pairs, load)
    missing = [frame for frame, one in enumerate(intake.facts) if one is None or frame in unreadable]
    checked = check_stack(follower, load, same, missing)
    left_out = {
        frame: why
        for frame, why in checked.left_out.items()
        if intake.names[frame] not in put_back or why not in CAN_BE_PUT_BACK
    }
    checked = checked._replace(left_out=left_out)
    return report(intake, numbers, facts, reduction, checked, unreadable), checked
