"""From the row of pieces to the core's rig, focused for the framing asked."""

import math
from contextlib import contextmanager
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from just_plane.contract.plan import Piece
from just_plane.core.errors import NoImageError, OpticsError, UnreachableError
from just_plane.core.imaging import Imaging
from just_plane.core.lens import Objective
from just_plane.core.pieces import FacingLens, Tube
from just_plane.core.rig import Rig
from just_plane.planning.rig.chain import Row, arrange
from just_plane.planning.rig.kinds import KINDS, field_of
from just_plane.planning.rig.lens_numbers import LensNumbers, lens_numbers
from just_plane.planning.rig.objectives import objective_in, room
from just_plane.planning.rig.outline import front_to_sensor, outline
from just_plane.planning.words.findings import RefusedError, refused

THROW_SETTINGS = 129
BRING_NEARER = ("tube", "bellows", "converter", "close_up", "reversing_ring", "coupling_ring", "objective")
"""Kinds without which a rig gives smaller sizes."""


@dataclass(frozen=True, slots=True)
class RigAsked:
    """As much of a shot as its rig is built from, each as the contract has it."""

    body: object
    crop_mode: str | None
    rig: list
    framing: object
    measured: object = None
    camera_on_its_side: bool = False


def rig_asked(shot):
    """The part of a shot from which its rig is built: RigAsked."""
    return RigAsked(shot.body, shot.crop_mode, shot.rig, shot.framing, shot.measured, shot.camera_on_its_side)


@dataclass(frozen=True, slots=True, eq=False)
class Rigged:
    """A rig focused for the framing, in the core's terms."""

    asked: RigAsked
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

    @property
    def converters(self):
        """By how much the converters in the row multiply a marked f-number; 1 without one."""
        row = self.row
        return math.prod(row.gear(index).factor for index in row.rear if row.kind(index) == "converter")

    @property
    def working_distance(self):
        """Front of the rig to the plane of focus, mm."""
        return self.imaging.subject_to_sensor - self.front_to_sensor

    def focus_range(self):
        """Nearest and farthest plane of focus from the sensor, mm: as the core has them, moved by what is known better
        on paper of an objective's room, which is the same at every setting."""
        near, far = self.rig.focus_range()
        if objective_in(self.row.pieces) is None:
            return near, far
        moved = float(self.imaging.subject_to_sensor - self.rig.imaging().subject_to_sensor)
        return near + moved, far + moved


class Sensor(NamedTuple):
    """The part of the sensor in use as the picture has it, mm: upright when the camera is on its side."""

    width: float
    height: float
    pixels_across: int | None


def sensor(asked):
    """The sensor, or the part of it that the crop mode leaves.

    Parameters
    ----------
    asked : RigAsked or Shot   Body, crop mode, and whether the camera is on its side.

    Returns
    -------
    Sensor
    """
    body = asked.body
    width, height = body.sensor_width_mm, body.sensor_height_mm
    mode = next((mode for mode in body.crop_modes if mode.name == asked.crop_mode), None)
    if mode is not None:
        width, height = min(mode.width_mm, width), min(mode.height_mm, height)
    if asked.camera_on_its_side:
        width, height = height, width
    pixels = body.pixels_across
    return Sensor(width, height, None if pixels is None else max(round(pixels * width / body.sensor_width_mm), 1))


def framing_field(framing):
    """Pointer of the field that holds the framing's number."""
    names = {"magnification": "/framing/magnification", "frame_width": "/framing/frame_width_mm"}
    return names.get(framing.by, "/framing")


def rig_key(asked):
    """By which a measured size is kept: the kit's pieces, subject to sensor, the body last; empty when one of them is
    not of the kit, because then nothing tells it apart from another: list of str."""
    ids = [("~" if placed.reversed else "") + (placed.gear.kit_id or "") for placed in asked.rig]
    ids.append(asked.body.kit_id or "")
    return ids if all(each.strip("~") for each in ids) else []


def build_rig(asked, wording):
    """The rig at the framing asked.

    Parameters
    ----------
    asked : RigAsked
    wording : Wording

    Returns
    -------
    Rigged

    Raises
    ------
    RefusedError             No such rig can be, or it does not reach the framing.
    """
    row = arrange(asked.rig)
    lens, rig = assemble(asked, row, wording)
    try:
        return rigged(asked, row, lens, _framed(asked, rig))
    except NoImageError as error:
        if error.quantity == "elements":
            error = error.with_remedy(_to_get_an_image(row))
        raise RefusedError(refused(error, _field_at_fault(asked, row, error), wording)) from error
    except OpticsError as error:
        raise RefusedError(refused(error, _field_at_fault(asked, row, error), wording)) from error


def _to_get_an_image(row):
    """What would let something in front of the rig come to focus."""
    if row.pieces[row.lens].reversed:
        return "Turn the lens back, or add extension behind it."
    if any(row.kind(index) == "converter" for index in row.rear):
        return "Add extension, or take out the converter."
    return "Add extension between lens and body."


def rigged(asked, row, lens, rig):
    """Everything about a rig at its setting: Rigged. Raises NoImageError."""
    imaging = rig.imaging()
    front = front_to_sensor(asked.body, row, lens, rig)
    objective = objective_in(row.pieces)
    if objective is not None:
        # Its working distance is engraved or on paper, and better than a thin lens knows.
        imaging = imaging._replace(subject_to_sensor=front + room(objective, imaging.subject_to_first_lens))
    settings = over_throw = None
    if rig.has_ring:
        settings = rig.ring(THROW_SETTINGS)
        over_throw = rig.focused(settings).imaging()
    return Rigged(
        asked,
        row,
        lens,
        rig,
        imaging,
        front,
        tuple(outline(asked.body, row, lens, rig)),
        settings,
        over_throw,
    )


def assemble(asked, row, wording):
    """The lens's numbers and the core's rig, its ring at infinity: (LensNumbers, Rig).

    Raises
    ------
    RefusedError   A piece's numbers cannot be.
    """
    numbers, elements = {}, []
    for index in (row.lens, row.facing):
        if index is not None:
            with _said_at(row, index, wording):
                numbers[index] = lens_numbers(row.pieces[index])
    for index in range(len(row.pieces)):
        with _said_at(row, index, wording):
            elements.append(_element(asked.body, row, index, numbers))
    measured = asked.measured
    correction = measured.magnification / measured.modelled if measured else 1.0
    return numbers[row.lens], Rig(tuple(each for each in elements if each is not None), correction)


@contextmanager
def _said_at(row, index, wording):
    """A refusal of the core becomes one at the piece that caused it."""
    try:
        yield
    except OpticsError as error:
        raise RefusedError(refused(error, field_of(index, row.kind(index), error.quantity), wording)) from error


def _element(body, row, index, numbers):
    """One piece as an element of the core; None for those that only hold others in front."""
    if index == row.lens:
        lens = numbers[index]
        if isinstance(lens.core, Objective):
            return replace(lens.core, image_distance=body.register_mm)
        if not row.pieces[index].reversed:
            return lens.on_body(body.register_mm)
        thread_to_lens = lens.barrel - lens.hood - lens.thin_from_mount(body.register_mm)
        return lens.on_body(body.register_mm).turned_round(thread_to_lens + body.register_mm)
    if index == row.facing:
        return _facing(body, row, numbers)
    gear = row.gear(index)
    element = KINDS[gear.kind].element(gear)
    # A ring behind the lens holds it farther from the body, as a tube does.
    return Tube(gear.thickness_mm) if element is None and index > row.lens else element


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
            telecentric=True,
        )
    behind = front.barrel - front.hood - front.thin_from_mount(body.register_mm)
    return FacingLens(
        front.core.focal_length,
        max(row.pieces[row.facing].f_number or front.widest, front.widest),
        max(before_rear + behind, 0.0),
        front.core.pupil_magnification,
    )


def _framed(asked, rig):
    """The rig set for the framing. Raises UnreachableError, NoImageError."""
    framing = asked.framing
    if framing.by == "closest":
        return rig.at_magnification(rig.magnification_range()[1])
    wanted = framing.magnification if framing.by == "magnification" else sensor(asked).width / framing.frame_width_mm
    try:
        return rig.at_magnification(wanted)
    except UnreachableError as error:
        if rig.is_fixed:
            raise error.with_remedy(
                "Frame by what the rig gives, or change what stands between lens and body."
            ) from error
        if wanted < rig.magnification_range()[0] and not any(each.gear.kind in BRING_NEARER for each in asked.rig):
            raise error.with_remedy("Ask for a narrower frame, or take another lens.") from error
        raise


def _field_at_fault(asked, row, error):
    if error.quantity == "magnification":
        return framing_field(asked.framing)
    if error.quantity in ("thickness", "elements"):
        converters = [index for index in row.rear if row.kind(index) == "converter"]
        return f"/rig/{converters[0]}/gear" if converters else "/rig"
    return field_of(row.lens, row.kind(row.lens), error.quantity)
