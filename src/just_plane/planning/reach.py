"""The reach section of a plan: what the rig gives, what each piece does, and what another order would give."""

from just_plane.contract.plan import Contribution, CropAnswer, OrderAnswer, Reach
from just_plane.core.aperture import stops_lost
from just_plane.core.errors import OpticsError
from just_plane.planning.chain import arrange
from just_plane.planning.findings import Findings
from just_plane.planning.outline import name_of
from just_plane.planning.rigging import assemble, framing_field, rigged, sensor

LEAST_ROOM = 5.0
"""Working distance, mm, under which nothing can be lit or placed: the subject stands in the lens's shade."""
ENDLESS = float("inf")


def reach(shot, made, focus_behind_nearest, findings, wording):
    """The reach section of a plan, and what stands against the room in front of the lens."""
    imaging, rig, area = made.imaging, made.rig, sensor(shot)
    near, far = rig.focus_range()
    smallest, largest = rig.magnification_range()
    room = made.working_distance - focus_behind_nearest
    _say_room(shot, made, room, findings, wording)
    m = imaging.magnification
    return Reach(
        magnification=m,
        smallest_magnification=float(smallest),
        largest_magnification=float(largest),
        frame_width_mm=area.width / m,
        frame_height_mm=area.height / m,
        working_distance_mm=made.working_distance,
        nearest_point_mm=room,
        subject_to_sensor_mm=imaging.subject_to_sensor,
        lens_front_to_sensor_mm=made.front_to_sensor,
        nearest_focus_mm=float(near),
        farthest_focus_mm=None if far == ENDLESS else float(far),
        focal_length_now_mm=rig.lens.focal_length_now,
        own_magnification=rig.lens.own_magnification,
        lens_magnification=float(imaging.lens_magnification),
        bellows_draw_mm=None if rig.bellows is None else float(rig.bellows.length),
        entrance_pupil_mm=imaging.pupil_distance,
        sensor_width_mm=area.width,
        sensor_height_mm=area.height,
        is_fixed=rig.is_fixed,
        widest_f_number=made.lens.widest,
        narrowest_f_number=made.lens.narrowest,
        size_uncertainty=_size_uncertainty(shot, m),
        measured_as=rig_key(shot),
        crops=[_crop(shot, mode, m) for mode in shot.body.crop_modes],
        contributions=_contributions(shot, made),
        orders=_orders(shot, made),
        pieces=list(made.pieces),
    )


def _crop(shot, mode, magnification):
    width, height = (side / magnification for side in (mode.width_mm, mode.height_mm))
    if shot.camera_on_its_side:
        width, height = height, width
    return CropAnswer(name=mode.name, frame_width_mm=width, frame_height_mm=height)


def rig_key(shot):
    """By which a measured size is kept: the kit's pieces, subject to sensor, the body last; empty when one of them is
    not of the kit, because then nothing tells it apart from another."""
    ids = [("~" if placed.reversed else "") + (placed.gear.kit_id or "") for placed in shot.rig]
    ids.append(shot.body.kit_id or "")
    return ids if all(each.strip("~") for each in ids) else []


def _size_uncertainty(shot, magnification):
    measured = shot.measured
    return None if measured is None else measured.uncertainty / measured.magnification * magnification


def _contributions(shot, made):
    """The rig with each piece, less the rig without it."""
    f_number = made.lens.widest
    lost = stops_lost(f_number, float(made.imaging.effective_f_number(f_number)))
    found = []
    for index in range(len(made.row.pieces)):
        if index == made.row.lens:
            continue
        without = _at_same_setting(shot, made, [*shot.rig[:index], *shot.rig[index + 1 :]])
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


def _orders(shot, made):
    """Extension before the converter and behind it, where the row has both."""
    rear = [made.row.pieces[index] for index in made.row.rear]
    converters = [piece for piece in rear if piece.gear.kind == "converter"]
    gaps = [piece for piece in rear if piece.gear.kind in ("tube", "bellows")]
    if not converters or not gaps:
        return []
    rest = [piece for piece in rear if piece not in converters and piece not in gaps]
    front = list(made.row.pieces[: made.row.lens + 1])
    noun = "bellows" if all(piece.gear.kind == "bellows" for piece in gaps) else "tube" if len(gaps) == 1 else "tubes"
    f_number, width = made.lens.widest, sensor(shot).width
    orders = []
    for words, pieces in (
        (f"{noun} between lens and converter", front + rest + gaps + converters),
        (f"{noun} between converter and body", front + rest + converters + gaps),
    ):
        other = _at_same_setting(shot, made, pieces)
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


def _at_same_setting(shot, made, pieces):
    """The rig of other pieces with its ring and bellows where they are, or None when it gives no picture."""
    nowhere = Findings()
    row = arrange(pieces, nowhere)
    assembled = None if row is None else assemble(shot, row, nowhere)
    if row is None or assembled is None:
        return None
    lens, rig = assembled
    own = float(made.rig.lens.own_magnification)
    rig = rig.focused(min(own, rig.closest_setting))
    if rig.bellows is not None and made.rig.bellows is not None:
        rig = rig.drawn(made.rig.bellows.length)
    try:
        return rigged(shot, row, lens, rig)
    except OpticsError:
        return None


def _say_room(shot, made, room, findings, wording):
    row, length = made.row, wording.length
    tubes = [index for index in row.rear if row.kind(index) == "tube"]
    extension = sum(row.gear(index).length_mm for index in tubes)
    focal_length = made.rig.lens.focal_length_now
    too_long = bool(tubes) and extension > focal_length and not row.pieces[row.lens].reversed
    field = f"/rig/{tubes[0]}/gear/length_mm" if tubes else framing_field(shot)
    if made.working_distance < 0:
        cause = (
            f" The tubes ({length(extension)}) are longer than the lens's focal length here ({length(focal_length)})."
            if too_long
            else ""
        )
        findings.trouble(
            "working_distance.inside_lens",
            field,
            f"The focus falls {length(-made.working_distance)} inside the lens.{cause}",
            "Use a shorter tube or a longer lens, or ask for a wider frame.",
        )
    elif room < 0:
        findings.trouble(
            "subject.behind_lens_front",
            "/subject/depth_mm",
            f"The nearest point would lie {length(-room)} inside the lens: the subject is deeper than the "
            f"{length(made.working_distance)} in front of it.",
            "Make less of it sharp, use a longer lens, or ask for a wider frame.",
        )
    elif room < LEAST_ROOM:
        findings.caution(
            "working_distance.in_shade",
            framing_field(shot),
            f"Only {length(room)} stay between lens and subject: it stands in the lens's own shade.",
            "A longer lens gives more room at the same framing.",
        )
    if too_long and made.working_distance >= 0:
        findings.caution(
            "tubes.longer_than_focal_length",
            field,
            f"The tubes ({length(extension)}) are longer than the lens's focal length here "
            f"({length(focal_length)}); this model is least exact there.",
            "Measure the size of a ruler in one frame.",
        )
