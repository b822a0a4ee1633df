"""The reach section of a plan: what the rig gives, what each piece does, and what another order would give."""

from just_plane.contract.plan import Contribution, CropAnswer, OrderAnswer, Reach
from just_plane.core.aperture import stops_lost
from just_plane.core.errors import OpticsError
from just_plane.core.kept import Kept
from just_plane.planning.rig.cautions import rig_cautions
from just_plane.planning.rig.chain import arrange
from just_plane.planning.rig.kinds import name_of
from just_plane.planning.rig.rigging import assemble, framing_field, rig_key, rigged, sensor
from just_plane.planning.words.findings import Answered, RefusedError, caution, trouble

LEAST_ROOM = 5.0
"""Working distance, mm, under which nothing can be lit or placed: the subject stands in the lens's shade."""
ENDLESS = float("inf")


def reach(framed):
    """The reach section of a plan, and what stands against the room in front of the lens and against the rig.

    Parameters
    ----------
    framed : Framed

    Returns
    -------
    Answered          Of contract Reach.
    """
    made, focus, wording = framed.rigged, framed.focus, framed.wording
    given, said = _rig_alone(made, wording)
    room = made.working_distance - focus
    return Answered(Reach(nearest_point_mm=room, **given), (*_room(framed.shot.framing, made, room, wording), *said))


def _given(made, wording):
    """What the rig gives whatever the subject: members of Reach, and what to mind."""
    asked = made.asked
    imaging, rig, area = made.imaging, made.rig, sensor(asked)
    near, far = made.focus_range()
    smallest, largest = rig.magnification_range()
    m = imaging.magnification
    measured = asked.measured
    given = {
        "magnification": m,
        "smallest_magnification": float(smallest),
        "largest_magnification": float(largest),
        "frame_width_mm": area.width / m,
        "frame_height_mm": area.height / m,
        "working_distance_mm": made.working_distance,
        "subject_to_sensor_mm": imaging.subject_to_sensor,
        "lens_front_to_sensor_mm": made.front_to_sensor,
        "nearest_focus_mm": float(near),
        "farthest_focus_mm": None if far == ENDLESS else float(far),
        "focal_length_now_mm": rig.lens.focal_length_now,
        "own_magnification": rig.lens.own_magnification,
        "lens_magnification": float(imaging.lens_magnification),
        "bellows_draw_mm": None if rig.bellows is None else float(rig.bellows.length),
        "entrance_pupil_mm": imaging.pupil_distance,
        "sensor_width_mm": area.width,
        "sensor_height_mm": area.height,
        "is_fixed": rig.is_fixed,
        "widest_f_number": made.lens.widest,
        "narrowest_f_number": made.lens.narrowest,
        "size_uncertainty": None if measured is None else measured.uncertainty / measured.magnification * m,
        "measured_as": rig_key(asked),
        "crops": [_crop(asked, mode, m) for mode in asked.body.crop_modes],
        "contributions": _contributions(made, wording),
        "orders": _orders(made, wording),
        "pieces": list(made.pieces),
    }
    return given, rig_cautions(made, wording)


_rig_alone = Kept(_given)


def _crop(shot, mode, magnification):
    width, height = (side / magnification for side in (mode.width_mm, mode.height_mm))
    if shot.camera_on_its_side:
        width, height = height, width
    return CropAnswer(name=mode.name, frame_width_mm=width, frame_height_mm=height)


def _contributions(made, wording):
    """The rig with each piece, less the rig without it."""
    f_number = made.lens.widest
    lost = stops_lost(f_number, float(made.imaging.effective_f_number(f_number)))
    found = []
    for index in range(len(made.row.pieces)):
        if index == made.row.lens:
            continue
        without = _at_same_setting(made, [*made.asked.rig[:index], *made.asked.rig[index + 1 :]], wording)
        if without is None:
            change = (None, None, None)
        else:
            endless = without.working_distance == ENDLESS
            change = (
                made.imaging.magnification - without.imaging.magnification,
                lost - stops_lost(f_number, float(without.imaging.effective_f_number(f_number))),
                None if endless else made.working_distance - without.working_distance,
            )
        found.append(
            Contribution(
                index=index,
                name=name_of(made.row.gear(index)),
                magnification=change[0],
                stops=change[1],
                room_mm=change[2],
            )
        )
    return found


def _orders(made, wording):
    """Extension before the converter and behind it, where the row has both."""
    rear = [made.row.pieces[index] for index in made.row.rear]
    converters = [piece for piece in rear if piece.gear.kind == "converter"]
    gaps = [piece for piece in rear if piece.gear.kind in ("tube", "bellows")]
    if not converters or not gaps:
        return []
    rest = [piece for piece in rear if piece not in converters and piece not in gaps]
    front = list(made.row.pieces[: made.row.lens + 1])
    noun = "bellows" if all(piece.gear.kind == "bellows" for piece in gaps) else "tube" if len(gaps) == 1 else "tubes"
    f_number, width = made.lens.widest, sensor(made.asked).width
    orders = []
    for words, pieces in (
        (f"{noun} between lens and converter", front + rest + gaps + converters),
        (f"{noun} between converter and body", front + rest + converters + gaps),
    ):
        other = _at_same_setting(made, pieces, wording)
        if other is not None and other.imaging.magnification > 0:
            orders.append(
                OrderAnswer(
                    words=words,
                    magnification=other.imaging.magnification,
                    frame_width_mm=width / other.imaging.magnification,
                    working_distance_mm=other.working_distance,
                    stops_lost=stops_lost(f_number, float(other.imaging.effective_f_number(f_number))),
                    this=pieces == list(made.row.pieces),
                )
            )
    return orders


def _at_same_setting(made, pieces, wording):
    """The rig of other pieces with its ring and bellows where they are, or None when it gives no picture."""
    try:
        asked, row = made.asked, arrange(pieces)
        lens, rig = assemble(asked, row, wording)
        own = float(made.rig.lens.own_magnification)
        rig = rig.focused(min(max(own, rig.farthest_setting), rig.closest_setting))
        if rig.bellows is not None and made.rig.bellows is not None:
            rig = rig.drawn(made.rig.bellows.length)
        return rigged(asked, row, lens, rig)
    except (RefusedError, OpticsError):
        return None


def _room(framing, made, room, wording):
    """What stands against the room in front of the lens: yields Finding."""
    row, length = made.row, wording.length
    tubes = [index for index in row.rear if row.kind(index) == "tube"]
    extension = sum(row.gear(index).length_mm for index in tubes)
    focal_length = made.rig.lens.focal_length_now
    too_long = bool(tubes) and extension > focal_length and not row.pieces[row.lens].reversed
    field = f"/rig/{tubes[0]}/gear/length_mm" if tubes else framing_field(framing)
    if made.working_distance < 0:
        cause = (
            f" The tubes ({length(extension)}) are longer than the lens's focal length here ({length(focal_length)})."
            if too_long
            else ""
        )
        yield trouble(
            "working_distance.inside_lens",
            field,
            f"The focus falls {length(-made.working_distance)} inside the lens.{cause}",
            "Use a shorter tube or a longer lens, or ask for a wider frame.",
        )
    elif room < 0:
        yield trouble(
            "subject.behind_lens_front",
            "/subject/depth_mm",
            f"The nearest point would lie {length(-room)} inside the lens: the subject is deeper than the "
            f"{length(made.working_distance)} in front of it.",
            "Make less of it sharp, use a longer lens, or ask for a wider frame.",
        )
    elif room < LEAST_ROOM:
        yield caution(
            "working_distance.in_shade",
            framing_field(framing),
            f"Only {length(room)} stay between lens and subject: it stands in the lens's own shade.",
            "A longer lens gives more room at the same framing.",
        )
    if too_long and made.working_distance >= 0:
        yield caution(
            "tubes.longer_than_focal_length",
            field,
            f"The tubes ({length(extension)}) are longer than the lens's focal length here "
            f"({length(focal_length)}); this model is least exact there.",
            "Measure the size of a ruler in one frame.",
        )
