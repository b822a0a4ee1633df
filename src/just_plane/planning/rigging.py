"""From the row of pieces to the core's rig, focused for the framing asked."""

from dataclasses import dataclass, replace

import numpy as np

from just_plane.contract.plan import Piece
from just_plane.core.errors import OpticsError, UnreachableError
from just_plane.core.imaging import Imaging
from just_plane.core.lens import Objective
from just_plane.core.pieces import Bellows, CloseUpLens, FacingLens, Teleconverter, Tube
from just_plane.core.rig import Rig
from just_plane.planning.chain import Row, arrange
from just_plane.planning.lens_numbers import LensNumbers, field_of, lens_numbers
from just_plane.planning.outline import front_to_sensor, outline

THROW_SETTINGS = 129


@dataclass(frozen=True, slots=True)
class Rigged:
    """A rig focused for the framing, in the core's terms."""

    row: Row
    lens: LensNumbers
    rig: Rig
    imaging: Imaging
    front_to_sensor: float
    """Front of the glass, hood or piece in front to the sensor, mm."""
    pieces: tuple[Piece, ...]
    settings: np.ndarray | None
    """Own magnifications over the focus throw, infinity first; None when there is no ring to turn."""
    over_throw: Imaging | None
    """What the rig does at each of them."""
    on_its_side: bool
    """The camera is."""

    @property
    def working_distance(self):
        return self.imaging.subject_to_sensor - self.front_to_sensor


@dataclass(frozen=True, slots=True)
class Sensor:
    """The part of the sensor in use as the picture has it, mm: upright when the camera is on its side."""

    width: float
    height: float
    pixels_across: int | None


def sensor(shot):
    """The sensor, or the part of it that the crop mode leaves."""
    body = shot.body
    width, height = body.sensor_width_mm, body.sensor_height_mm
    mode = next((mode for mode in body.crop_modes if mode.name == shot.crop_mode), None)
    if mode is not None:
        width, height = min(mode.width_mm, width), min(mode.height_mm, height)
    if shot.camera_on_its_side:
        width, height = height, width
    pixels = body.pixels_across
    return Sensor(width, height, None if pixels is None else max(round(pixels * width / body.sensor_width_mm), 1))


def framing_field(shot):
    """Pointer of the field that holds the framing's number."""
    names = {"magnification": "/framing/magnification", "frame_width": "/framing/frame_width_mm"}
    return names.get(shot.framing.by, "/framing")


def build_rig(shot, findings):
    """The rig at the framing asked, or None after saying why not."""
    row = arrange(shot.rig, findings)
    if row is None:
        return None
    assembled = assemble(shot, row, findings)
    if assembled is None:
        return None
    lens, rig = assembled
    try:
        rig = _framed(shot, rig)
        return rigged(shot, row, lens, rig)
    except OpticsError as error:
        findings.refused(error, _field_at_fault(shot, row, error))
        return None


def rigged(shot, row, lens, rig):
    """Everything about a rig at its setting. Raises NoImageError."""
    imaging = rig.imaging()
    front = front_to_sensor(shot.body, row, lens, rig)
    stands_off = _paper_working_distance(row)
    if stands_off is not None:
        # An objective's working distance is engraved or on paper, and better than a thin lens knows.
        imaging = imaging._replace(subject_to_sensor=front + stands_off)
    settings = over_throw = None
    if rig.closest_setting:
        settings = np.linspace(0.0, rig.closest_setting, THROW_SETTINGS)
        over_throw = rig.focused(settings).imaging()
    return Rigged(
        row,
        lens,
        rig,
        imaging,
        front,
        tuple(outline(shot, row, lens, rig)),
        settings,
        over_throw,
        shot.camera_on_its_side,
    )


def assemble(shot, row, findings):
    """The lens's numbers and the core's rig, its ring at infinity; None after saying which piece cannot be."""
    numbers = {}
    for index in (row.lens, row.facing):
        if index is not None:
            try:
                numbers[index] = lens_numbers(row.pieces[index])
            except OpticsError as error:
                findings.refused(error, field_of(index, row.kind(index), error.quantity))
                return None
    lens = numbers[row.lens]
    elements = []
    for index in range(len(row.pieces)):
        try:
            element = _element(shot.body, row, index, numbers)
        except OpticsError as error:
            findings.refused(error, field_of(index, row.kind(index), error.quantity))
            return None
        if element is not None:
            elements.append(element)
    measured = shot.measured
    correction = measured.magnification / measured.modelled if measured else 1.0
    return lens, Rig(tuple(elements), correction)


def _element(body, row, index, numbers):
    """One piece as an element of the core; None for those that only hold others in front."""
    gear, kind = row.gear(index), row.kind(index)
    if index == row.lens:
        lens = numbers[index]
        if isinstance(lens.core, Objective):
            return replace(lens.core, image_distance=body.register_mm)
        if not row.pieces[index].reversed:
            return lens.core
        thread_to_lens = lens.barrel - lens.hood - lens.thin_from_mount(body.register_mm)
        return lens.core.turned_round(thread_to_lens + body.register_mm)
    if index == row.facing:
        return _facing(body, row, numbers)
    if kind == "close_up":
        return CloseUpLens(gear.dioptres)
    if kind == "tube":
        return Tube(gear.length_mm)
    if kind == "bellows":
        return Bellows(gear.shortest_mm, gear.longest_mm)
    if kind == "converter":
        return Teleconverter(gear.factor, gear.thickness_mm)
    if index > row.lens:
        return Tube(gear.thickness_mm)
    return None


def _facing(body, row, numbers):
    """The lens or objective in front, at its distance before the one on the camera."""
    gear, rear, front = row.gear(row.facing), numbers[row.lens], numbers[row.facing]
    rings = sum(row.gear(index).thickness_mm for index in range(row.facing + 1, row.lens))
    before_rear = rear.barrel - rear.thin_from_mount(body.register_mm) + rings
    if gear.kind == "objective":
        return FacingLens(
            gear.reference_focal_length_mm / gear.magnification,
            front.widest,
            max(before_rear + gear.barrel_mm, 0.0),
        )
    behind = front.barrel - front.hood - front.thin_from_mount(body.register_mm)
    return FacingLens(
        front.core.focal_length,
        max(row.pieces[row.facing].f_number or front.widest, front.widest),
        max(before_rear + behind, 0.0),
        front.core.pupil_magnification,
    )


def _paper_working_distance(row):
    for index in (row.facing, row.lens):
        if index is not None and row.kind(index) == "objective":
            return row.gear(index).working_distance_mm
    return None


def _framed(shot, rig):
    """The rig set for the framing. Raises UnreachableError, NoImageError."""
    framing = shot.framing
    if framing.by == "closest":
        closest = rig.focused(rig.closest_setting)
        return closest if rig.bellows is None else closest.drawn(rig.bellows.longest)
    wanted = framing.magnification if framing.by == "magnification" else sensor(shot).width / framing.frame_width_mm
    try:
        return rig.at_magnification(wanted)
    except UnreachableError as error:
        if rig.is_fixed:
            error.remedy = "Frame by what the rig gives, or change what stands between lens and body."
        raise


def _field_at_fault(shot, row, error):
    if error.quantity == "magnification":
        return framing_field(shot)
    if error.quantity in ("thickness", "elements"):
        converters = [index for index in row.rear if row.kind(index) == "converter"]
        return f"/rig/{converters[0]}/gear" if converters else "/rig"
    return field_of(row.lens, row.kind(row.lens), error.quantity)
