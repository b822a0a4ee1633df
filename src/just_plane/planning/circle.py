"""The image circle against what tilt and shift ask of it."""

from just_plane.contract.plane_plan import CircleAnswer
from just_plane.core.plane.shifting import circle_displacement, circle_radius, radius_needed
from just_plane.planning.rigging import sensor


def radius(rigged, work):
    """Radius of the lit circle on the sensor, mm; None when it is not known."""
    known = getattr(rigged.row.gear(rigged.row.lens), "image_circle_mm", None)
    return None if known is None else circle_radius(known, work.lens.magnification) * work.lens.scale_behind


def displacement(shot, rigged, work, setting):
    """Of the circle's middle from the sensor's, (x, y) mm, by tilt and by the shift wanted together."""
    m, wanted = float(rigged.imaging.magnification), shot.plane.shift
    swung = circle_displacement(setting.image_distance, setting)
    scale = work.lens.scale_behind
    return swung[0] * scale + m * wanted.right_mm, swung[1] * scale + m * wanted.up_mm


def circle(shot, rigged, work, setting):
    """Whether the whole frame is lit: CircleAnswer."""
    area = sensor(shot)
    lit = radius(rigged, work)
    needed = radius_needed(area.width, area.height, displacement(shot, rigged, work, setting))
    return CircleAnswer(radius_mm=lit, needed_mm=needed, inside=None if lit is None else needed <= lit * 1.005)
