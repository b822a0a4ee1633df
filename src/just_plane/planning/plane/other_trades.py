"""What else can be done at the plane: turn square, shift, join frames, leave only a strip."""

import math

from just_plane.contract.plan import Finding
from just_plane.contract.plane_plan import CircleAnswer, JoinAnswer, ShiftAnswer, StripAnswer, TurnAnswer
from just_plane.core.errors import OpticsError
from just_plane.core.plane import plane_of_setting
from just_plane.core.plane.shifting import join, largest_shift, radius_needed, shift_for_offset
from just_plane.core.plane.strip import strip_width
from just_plane.planning.plane.lines import line_of
from just_plane.planning.plane.words import direction
from just_plane.planning.setup.plane import ENOUGH
from just_plane.planning.words.findings import Answered, caution, refused
from just_plane.planning.words.numbers import count, percent


def turn(setup):
    """Turning the camera square to the plane laid (Setup): TurnAnswer."""
    work, wording, square = setup.plane, setup.wording, setup.plane.square
    limit = _shift_limit(setup.rigged)
    shift = shift_for_offset(_size_beside(work, square.angle), square.offset)
    degrees = math.degrees(square.angle)
    toward = direction(math.degrees(square.azimuth))
    length = wording.length
    words = (
        "The camera stands square to the plane already."
        if degrees < 0.5
        else f"Walk the camera {length(square.walk)} round the subject, {toward}, turning it {degrees:.0f}°. The "
        f"raking view goes: things along the slope stand {square.stretch:.2f} times as long, the near edge no longer "
        f"{square.keystone:.2f} times as wide as the far one, and uprights converge instead. Turned on its place "
        f"the camera would need {length(shift)} of shift to frame it again"
        + ("." if limit >= shift else f"; the lens has {length(limit)}." if limit else "; the lens has none.")
    )
    return TurnAnswer(
        angle_deg=degrees,
        toward=toward,
        depth_left_mm=square.depth,
        stretch=square.stretch,
        keystone=min(square.keystone, 1e6),
        walk_mm=square.walk,
        shift_mm=shift,
        shift_possible=limit >= shift,
        words=words,
    )


def _size_beside(work, angle):
    """Size on the sensor of the subject's middle once the camera turned on its place: it is nearer in depth then."""
    lens = work.lens
    room = lens.distance * math.cos(angle) - lens.focal_length
    return lens.scale_behind * lens.focal_length / room if room > 0 else work.frame.magnification


def _shift_limit(rigged):
    return float(getattr(rigged.row.gear(rigged.row.lens), "shift_mm", 0.0))


def shift(setup):
    """Shift that keeps the sensor parallel.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    Answered         Of contract ShiftAnswer; None for a lens without shift when none is wanted.
    """
    work, wanted, area = setup.plane, setup.shot.plane.shift, setup.area
    limit, m = _shift_limit(setup.rigged), work.frame.magnification
    said: tuple[Finding, ...] = ()
    asked = bool(wanted.right_mm or wanted.up_mm)
    if limit == 0 and not asked:
        return Answered(None)
    right, up = (
        math.copysign(shift_for_offset(m, abs(mm)), mm) if mm else 0.0 for mm in (wanted.right_mm, wanted.up_mm)
    )
    setting = work.laid.setting if work.laid and work.laid.setting else work.lens.straight
    swung = [a - b for a, b in zip(work.displaced(setting, wanted), (right, up), strict=True)]
    free = [
        limit
        if work.lit is None
        else largest_shift(area.width, area.height, work.lit, limit, along_x=along_x, displaced=swung)
        for along_x in (True, False)
    ]
    possible = math.hypot(right, up) <= limit * (1 + 1e-9)
    light = circle_answer(setup, setting)
    length = setup.wording.length
    if not asked:
        words = f"Up to {length(free[0])} sideways or {length(free[1])} up and down before the corners go dark."
    elif not possible:
        words = f"It takes {length(math.hypot(right, up))} of shift; the lens has {length(limit)}."
        said = (
            caution(
                "shift.beyond",
                "/plane/shift",
                words,
                "Move the camera nearer to where the subject is square in front of it, or take a smaller size.",
            ),
        )
    else:
        words = f"Shift {length(math.hypot(right, up))}, {direction(math.degrees(math.atan2(up, right)))}"
        words += ": parallels stay parallel." if light.inside is not False else ": but the corners go dark."
    answer = ShiftAnswer(
        right_mm=right,
        up_mm=up,
        possible=possible,
        largest_right_mm=free[0],
        largest_up_mm=free[1],
        circle=light,
        words=words,
    )
    return Answered(answer, said)


def circle_answer(setup, setting):
    """Whether the whole frame is lit with a setting (Setup, TiltSetting): CircleAnswer."""
    needed, inside = setup.plane.is_lit(setting, setup.shot.plane.shift)
    return CircleAnswer(radius_mm=setup.plane.lit, needed_mm=needed, inside=inside)


def joined(setup):
    """Frames shifted and joined along the side asked.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    Answered         Of contract JoinAnswer; None where none are wanted, or the lens does not go so far.
    """
    work, wanted, wording = setup.plane, setup.shot.plane.shift, setup.wording
    if wanted.joined_mm is None:
        return Answered(None)
    area, m, lit = setup.area, work.frame.magnification, work.lit
    wide = wanted.joined_along == "width"
    sides = (area.width, area.height) if wide else (area.height, area.width)
    try:
        found = join(*sides, wanted.joined_mm * m, wanted.joined_overlap, _shift_limit(setup.rigged))
    except OpticsError as error:
        return Answered(None, (refused(error, "/plane/shift/joined_mm", wording),))
    size = (found.length, area.height) if wide else (area.width, found.length)
    per_mm = None if area.pixels_across is None else area.pixels_across / area.width
    pixels = (None, None) if per_mm is None else tuple(round(side * per_mm) for side in size)
    setting = work.laid.setting if work.laid and work.laid.setting else work.lens.straight
    needed = radius_needed(*size, work.displaced(setting, wanted))
    inside = None if lit is None else needed <= lit * ENOUGH
    ways = ("right", "left") if wide else ("up", "down")
    words = count(found.frames, "frame")
    if found.frames == 1:
        words += ": one holds it"
    else:
        words += f", shifted from {wording.length(-found.shifts[0])} {ways[1]} to {wording.length(found.shifts[-1])} "
        words += f"{ways[0]}, {percent(found.overlap)} in common"
    words += "" if per_mm is None else f"; {pixels[0]:,} × {pixels[1]:,} pixels"
    words += "; the ends lie outside the lit circle." if inside is False else "."
    answer = JoinAnswer(
        frames=found.frames,
        shifts_mm=list(found.shifts),
        overlap=found.overlap,
        pixels_wide=pixels[0],
        pixels_high=pixels[1],
        circle=CircleAnswer(radius_mm=lit, needed_mm=needed, inside=inside),
        words=words,
    )
    return Answered(answer)


def strip(setup, azimuth):
    """The narrow strip.

    Parameters
    ----------
    setup : Setup
    azimuth : float   Of the side view, radians.

    Returns
    -------
    Answered          Of contract StripAnswer; None where none is wanted or possible.
    """
    work, found = setup.plane, setup.plane.strip
    if found is None:
        return Answered(None)
    if found.setting is None:
        none = caution("strip.none", "/plane/strip", f"There is no narrow strip: {found.why_not}.")
        return Answered(None, (none,))
    lens, setting, wording, stop = work.lens, found.setting, setup.wording, setup.stop
    surface = (work.laid.wanted.slope_x, work.laid.wanted.slope_y) if work.laid else (0.0, 0.0)
    wide = strip_width(
        lens.focal_length,
        lens.f_number(stop.effective_f_number),
        setting,
        stop.blur / lens.scale_behind,
        work.cloud.xyz[list(found.ends)],
        surface,
    )
    try:
        plane = plane_of_setting(lens.focal_length, setting)
    except OpticsError as error:
        return Answered(None, (refused(error, "/plane/strip", wording),))
    faces = math.degrees(setting.azimuth) + 180
    faces = (faces + 180) % 360 - 180
    degrees = math.degrees(setting.tilt)
    width = "the whole subject" if math.isinf(wide) else f"a strip {wording.length(wide)} wide"
    answer = StripAnswer(
        tilt_deg=degrees,
        faces_deg=faces,
        faces=direction(faces),
        width_mm=None if math.isinf(wide) else wide,
        line=line_of(plane, azimuth, work.cloud.nearest),
        words=f"Tilt {degrees:.1f}° so that the lens faces {direction(faces)}, away from the subject's slope: "
        f"{width} stays sharp, and the rest goes soft.",
    )
    return Answered(answer)
