"""What a hand does to a shot: every body differs from the one before, so that no kept answer stands in for it."""

from itertools import count

import numpy as np

from just_plane.contract.kit import Kit
from just_plane.contract.points import ByRail, Point
from just_plane.demo.catalogue import demo_shots
from just_plane.shelf.starter import starter_shelf


def twelve_points():
    """The bonbon tray with twelve points to be sharp: Shot."""
    tray = demo_shots()[0]
    rng = np.random.default_rng(4)
    points = list(tray.plane.points)
    for index in range(13 - len(points)):
        left, top = rng.uniform(0.1, 0.9, 2)
        depth = ByRail(by="rail", readings_mm=[62 + 72 * (0.5 - float(top)) + float(rng.normal(0, 0.5))])
        points.append(Point(id=f"more-{index}", from_left=float(left), from_top=float(top), depth=depth))
    return tray.model_copy(update={"plane": tray.plane.model_copy(update={"points": points})})


def drags():
    """By name, a function that gives the next shot of a drag, each time another."""
    plain, tray = demo_shots()[1], twelve_points()
    steps = count(1)

    def focus():
        return plain.model_copy(update={"focus_behind_nearest_mm": round(0.3 + next(steps) * 0.003, 4)})

    def depth():
        deeper = plain.subject.model_copy(
            update={"depth_mm": round(plain.subject.depth_mm * (1 + next(steps) * 0.0007), 4)}
        )
        return plain.model_copy(update={"subject": deeper})

    def stop():
        return plain.model_copy(
            update={"aperture": plain.aperture.model_copy(update={"f_number": round(4 + next(steps) * 0.011, 3)})}
        )

    def point():
        points = list(tray.plane.points)
        points[3] = points[3].model_copy(update={"from_left": round(0.2 + (next(steps) % 5000) * 0.0001, 5)})
        return tray.model_copy(update={"plane": tray.plane.model_copy(update={"points": points})})

    return {"focus": focus, "depth": depth, "stop": stop, "a point among 12": point}


def kit_of(many):
    """A kit of that many pieces: the generic shelf over and over, every copy a little different."""
    shelf = starter_shelf().pieces
    pieces = []
    for index in range(many):
        piece, turn = shelf[index % len(shelf)], index // len(shelf)
        gear = piece.gear
        if turn:
            changed = {"name": f"{gear.name} {turn}", "kit_id": f"{gear.kit_id}-{turn}"}
            if gear.kind == "tube":
                changed["length_mm"] = gear.length_mm + 0.1 * turn
            if gear.kind == "lens":
                changed["focal_length_mm"] = gear.focal_length_mm * (1 + 0.003 * turn)
                changed["minimum_focus_distance_mm"] = gear.minimum_focus_distance_mm * (1 + 0.003 * turn)
            gear = gear.model_copy(update=changed)
        pieces.append(piece.model_copy(update={"gear": gear}))
    return Kit(format="just-plane/kit", version=1, pieces=pieces)
