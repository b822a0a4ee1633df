"""The rig as it would lie on the table: every piece with its place, length and width, from the sensor outward."""

from just_plane.contract.plan import Piece
from just_plane.planning.rig.kinds import KINDS, name_of
from just_plane.planning.rig.lens_numbers import lens_numbers

BODY_WIDTH = 92.0
"""As a body is drawn, mm."""


def outline(body, row, lens, rig):
    """The pieces from the sensor outward: list of contract Piece, lengths in mm."""
    pieces = [Piece(kind="body", name=body.name, index=None, from_sensor_mm=0.0, length_mm=body.register_mm,
                    width_mm=BODY_WIDTH, reversed=False)]  # fmt: skip
    at = body.register_mm
    for index in reversed(range(len(row.pieces))):
        length = _length(row, index, lens, rig)
        pieces.append(
            Piece(
                kind=row.kind(index),
                name=name_of(row.gear(index)),
                index=index,
                from_sensor_mm=at,
                length_mm=length,
                width_mm=KINDS[row.kind(index)].width(row.gear(index)),
                reversed=row.pieces[index].reversed,
            )
        )
        at += length
    return pieces


def front_to_sensor(body, row, lens, rig):
    """Front of the foremost piece to the sensor, mm."""
    return body.register_mm + sum(_length(row, index, lens, rig) for index in range(len(row.pieces)))


def _length(row, index, lens, rig):
    gear, placed = row.gear(index), row.pieces[index]
    if index == row.lens:
        if placed.reversed:
            return lens.barrel - lens.hood
        return lens.barrel_at(float(rig.lens.own_magnification))
    if gear.kind == "bellows":
        return float(rig.bellows.length)
    if gear.kind in ("lens", "zoom"):
        # Facing the subject, held by its thread: the lens that it is where it is set, without its hood.
        numbers = lens_numbers(placed)
        return numbers.barrel - numbers.hood
    return KINDS[gear.kind].length(gear)
