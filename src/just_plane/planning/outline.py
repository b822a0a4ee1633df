"""The rig as it would lie on the table: every piece with its place, length and width, from the sensor outward."""

from just_plane.contract.gear import ASSUMED_BARREL_WIDTH_MM, ASSUMED_THREAD_MM
from just_plane.contract.plan import Piece

MOUNT_WIDTH = 62.0
"""Tubes, bellows and converters are drawn as wide as a common mount, mm: their widths are seldom on paper."""
BODY_WIDTH = 92.0
OBJECTIVE_WIDTH = 30.0
THREAD_TO_BARREL = 6.0
"""How much wider than its filter thread a barrel is, mm."""


def outline(shot, row, lens, rig):
    """The pieces from the sensor outward: list of contract Piece, lengths in mm."""
    body = shot.body
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
                width_mm=_width(row, index),
                reversed=row.pieces[index].reversed,
            )
        )
        at += length
    return pieces


def front_to_sensor(body, row, lens, rig):
    """Front of the foremost piece to the sensor, mm."""
    return body.register_mm + sum(_length(row, index, lens, rig) for index in range(len(row.pieces)))


def name_of(gear):
    """The piece's name, or what it is."""
    if gear.name:
        return gear.name
    match gear.kind:
        case "tube":
            return f"tube {gear.length_mm:g}"
        case "converter":
            return f"{gear.factor:g}× converter"
        case "close_up":
            return f"+{gear.dioptres:g} close-up"
        case "lens":
            return f"{gear.focal_length_mm:g} mm lens"
        case "objective":
            return f"{gear.magnification:g}× objective"
    return gear.kind.replace("_", " ")


def _length(row, index, lens, rig):
    gear, placed = row.gear(index), row.pieces[index]
    if index == row.lens:
        if placed.reversed:
            return lens.barrel - lens.hood
        return lens.barrel_at(float(rig.lens.own_magnification))
    match gear.kind:
        case "tube":
            return gear.length_mm
        case "bellows":
            return float(rig.bellows.length)
        case "lens":
            return max(gear.barrel_mm - gear.hood_mm, 0.0)
        case "zoom":
            return max(gear.long.barrel_mm - gear.hood_mm, 0.0)
        case "objective":
            return gear.barrel_mm
    return gear.thickness_mm


def _width(row, index):
    gear = row.gear(index)
    match gear.kind:
        case "lens" | "zoom":
            return gear.thread_mm + THREAD_TO_BARREL if gear.thread_mm else ASSUMED_BARREL_WIDTH_MM
        case "close_up":
            return (gear.thread_mm or ASSUMED_THREAD_MM) + 2
        case "step_ring":
            return max(gear.lens_thread_mm, gear.front_thread_mm) + 2
        case "reversing_ring":
            return gear.thread_mm + 4
        case "coupling_ring":
            return max(gear.lens_thread_mm, gear.front_thread_mm) + 2
        case "objective":
            return OBJECTIVE_WIDTH
    return MOUNT_WIDTH
