"""From what was entered about the points to depths on one scale: rail, tape and angle made one, uncertainty with them.

Depths here count away from the camera from a common zero that does not matter; the nearest sharp point makes it matter.
"""

import math
from collections import Counter
from dataclasses import dataclass
from itertools import pairwise

from just_plane.planning.words.findings import caution, note, trouble

SPREAD_OF_OTHERS = 6.0
"""Readings of one point that lie farther apart than so many standard deviations of the others contradict each other."""
SAME_PLACE = 0.004
"""Share of the frame within which two points stand at one place."""


@dataclass(frozen=True, slots=True)
class ReadPoint:
    """A point, or a corner of a flat part, with its depth if there is one."""

    index: int
    """In the shot's list."""
    id: str
    name: str
    wanted: str
    from_left: float
    from_top: float
    """Place on the frame; of a flat part, of its middle."""
    depth: float | None
    uncertainty: float | None
    """Standard, mm."""
    rail_mark: float | None
    """Where it is sharp, the lens not tilted, mm: the mean of its readings; None when it was not read on the rail."""
    corner: int | None = None
    beside: tuple[float, float] = (0.0, 0.0)
    """Of a corner: how far it lies from the middle, mm right and up."""
    corner_words: str = ""
    """Of a corner: which one, ``near left``."""

    @property
    def is_asked(self):
        """Whether it must be sharp and its depth is known."""
        return self.wanted == "sharp" and self.depth is not None


def read_points(points, rail_counts, rail_at_mm, focused_at, wording):
    """Every point with its depth on one scale.

    Parameters
    ----------
    points : list of contract Point
    rail_counts : str         ``toward`` the subject, or ``away``.
    rail_at_mm : float        Where the camera stands on the rail; None: nothing ties rail and tape together.
    focused_at : float        Sensor to plane of focus as the rig is framed, mm: ties the rail to the tape.
    wording : Wording

    Returns
    -------
    (tuple of ReadPoint, tuple of Finding)   In the order entered; a flat part gives its four corners.
    """
    by = Counter(point.depth.by for point in points if point.depth.by == "angle" or point.depth.readings_mm)
    tied, said = rail_at_mm is not None, []
    if by["rail"] and by["tape"] and not tied:
        said.append(
            trouble(
                "points.not_tied",
                "/plane/rail_at_mm",
                "Some depths were read on the rail and some with a tape, and nothing ties the two.",
                "Say where on the rail the camera stood when the tape was held.",
            )
        )
    sign = 1.0 if rail_counts == "toward" else -1.0

    def on_rail(mark):
        return sign * mark if rail_at_mm is None else focused_at + sign * (mark - rail_at_mm)

    alone = by["angle"] == 1 and not by["rail"] and not by["tape"]
    scatter = _scatter(points)
    found = []
    for index, point in enumerate(points):
        field = f"/plane/points/{index}/depth/readings_mm"
        said += _contradiction(point, scatter, field, wording)
        usable = point.depth.by != "tape" or not by["rail"] or tied
        depth = _depth(point, on_rail, usable=usable, alone=alone)
        if depth is None:
            said.append(
                note(
                    "points.not_read",
                    field,
                    f"{_called(point)} has no reading yet: it is left out.",
                    _how_to_read(point.depth.by),
                )
            )
        found += _with_corners(index, point, depth, _uncertainty(point, scatter))
    return tuple(found), (*said, *_same_place(found, wording))


def _depth(point, on_rail, *, usable, alone):
    """Depth on the common scale: from the sensor where rail and tape are tied, along the rail where not."""
    readings = point.depth.readings_mm
    if not readings:
        return 0.0 if point.depth.by == "angle" and alone else None
    if not usable:
        return None
    mean = math.fsum(readings) / len(readings)
    return mean if point.depth.by == "tape" else on_rail(mean)


def _how_to_read(by):
    if by == "tape":
        return "Hold a tape from the sensor mark to it."
    return "Move the camera along the rail until it is sharp, and type the rail's mark."


def _called(point):
    return point.name or f"Point {point.id}"


def _scatter(points):
    """{point id: standard deviation of its readings} where there are two or more."""
    return {point.id: _deviation(point.depth.readings_mm) for point in points if len(point.depth.readings_mm) > 1}


def _deviation(values):
    mean = math.fsum(values) / len(values)
    return math.sqrt(math.fsum((value - mean) ** 2 for value in values) / (len(values) - 1))


def _uncertainty(point, scatter):
    """Standard uncertainty of a point's depth: of its own readings, or of one reading as the others scatter."""
    readings = len(point.depth.readings_mm)
    if not readings or not scatter:
        return None
    if point.id in scatter:
        return scatter[point.id] / math.sqrt(readings)
    return math.sqrt(sum(value**2 for value in scatter.values()) / len(scatter))


def _contradiction(point, scatter, field, wording):
    readings = sorted(point.depth.readings_mm)
    if len(readings) < 2:
        return
    apart = readings[-1] - readings[0]
    others = [value for each, value in scatter.items() if each != point.id]
    usual = math.sqrt(sum(value**2 for value in others) / len(others)) if others else None
    if usual is not None and apart > SPREAD_OF_OTHERS * max(usual, 1e-3):
        usually = f"the other points' readings lie within {wording.length(2 * max(usual, 1e-3))}"
    elif len(readings) > 2 and apart > SPREAD_OF_OTHERS * max(_without_the_odd_one(readings), 1e-3):
        usually = "all but one agree much better"
    else:
        return
    yield caution(
        "points.contradict",
        field,
        f"The readings of {_called(point)} contradict each other: {readings[0]:g} and {readings[-1]:g}, "
        f"{wording.length(apart)} apart; {usually}.",
        "Read it again, and strike out the one that is wrong.",
    )


def _without_the_odd_one(readings):
    """Spread of sorted readings when the end that lies farther off is left out."""
    return min(readings[-1] - readings[1], readings[-2] - readings[0])


def _with_corners(index, point, depth, uncertainty):
    common = (index, point.id, _called(point), point.wanted, point.from_left, point.from_top)
    if point.depth.by != "angle":
        marks = point.depth.readings_mm if point.depth.by == "rail" else []
        return [ReadPoint(*common, depth, uncertainty, math.fsum(marks) / len(marks) if marks else None)]
    flat = point.depth
    angle, turn = math.radians(flat.angle_deg), math.radians(flat.recedes_deg)
    corners = []
    for corner, (along, aside) in enumerate(((-1, -1), (-1, 1), (1, 1), (1, -1))):
        reach, side = along * flat.length_mm / 2 * math.cos(angle), aside * flat.width_mm / 2
        beside = (
            reach * math.cos(turn) - side * math.sin(turn),
            reach * math.sin(turn) + side * math.cos(turn),
        )
        deeper = None if depth is None else depth + along * flat.length_mm / 2 * math.sin(angle)
        words = f"{'near' if along < 0 else 'far'} {_side_words(-aside * math.sin(turn), aside * math.cos(turn))}"
        corners.append(ReadPoint(*common, deeper, uncertainty, None, corner, beside, words))
    return corners


def _side_words(right, up):
    """On which side something lies, seen from behind the camera."""
    if abs(right) >= abs(up):
        return "right" if right > 0 else "left"
    return "upper" if up > 0 else "lower"


def _same_place(points, wording):
    """Two points at one place of the frame and at different depths: no plane passes both, and one may be misread."""
    single = sorted((p for p in points if p.corner is None and p.is_asked), key=lambda p: (p.from_left, p.from_top))
    for one, other in pairwise(single):
        apart = abs(one.depth - other.depth)
        unsure = 3 * math.hypot(one.uncertainty or 0.05, other.uncertainty or 0.05)
        if math.hypot(one.from_left - other.from_left, one.from_top - other.from_top) < SAME_PLACE and apart > unsure:
            yield caution(
                "points.same_place",
                f"/plane/points/{other.index}",
                f"{one.name} and {other.name} stand at one place of the frame, {wording.length(apart)} apart in depth: "
                "no plane passes both.",
                "Is one of them read or placed wrong? If both are right, a stack must do it.",
            )


def depth_of(points):
    """Depth from the nearest to the farthest point that must be sharp, mm; None for fewer than two."""
    depths = [point.depth for point in points if point.is_asked]
    return max(depths) - min(depths) if len(depths) > 1 else None
