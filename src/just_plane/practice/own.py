"""A drill made of a shot: its points, its rig, its lens's limits; the plan's answer, step by step in its words."""

import math
from dataclasses import dataclass

import numpy as np

from just_plane.contract.practice import AnswerStep
from just_plane.core.plane import deviations
from just_plane.core.practice.drill import Drill, Gear, Place, Setting, start_of
from just_plane.core.practice.hands import as_asked
from just_plane.core.practice.own import own_drill
from just_plane.core.practice.seeing import raster_of
from just_plane.core.scenery import surface
from just_plane.core.view.scene import Scene, crumbs_at
from just_plane.planning.plane.section import steps_at_lens
from just_plane.planning.plane.words import STRAIGHT
from just_plane.planning.setup.setup import NoSetup, make_setup
from just_plane.planning.words.numbers import f_stop
from just_plane.practice.drills import told

SOFTEN = 0.05
"""Share of the set's width within which a point alone decides where its surface lies."""
FEWEST = 3


class NoOwnSetError(ValueError):
    """A shot that cannot be practised on; the message says why, the remedy what would work."""

    def __init__(self, message, remedy):
        super().__init__(message)
        self.remedy = remedy


@dataclass(frozen=True, slots=True, eq=False)
class Own:
    """A shot's set."""

    drill: Drill
    title: str
    planned: Setting
    """What the plan lays, in clicks, the focus shared between the points."""
    steps: list
    """Of the contract: how the plan gets there."""
    scene: Scene


def own_of(shot, seed):
    """The set of a shot.

    Parameters
    ----------
    shot : Shot
    seed : int

    Returns
    -------
    Own

    Raises
    ------
    NoOwnSetError   The shot cannot be worked out, has no three points that must be sharp, or no place is sharp at its
                    stop.
    """
    setup = make_setup(shot)
    if isinstance(setup, NoSetup):
        why = next(finding for finding in setup.said if finding.severity == "trouble")
        raise NoOwnSetError(why.message, why.remedy)
    work = setup.plane
    if len(work.cloud.asked) < FEWEST:
        raise NoOwnSetError(
            f"This shot has {len(work.cloud.asked)} of the three points that practising needs: each must be sharp, and "
            "its depth read.",
            "Name and read them at the Plane station, or give a flat part by its angle.",
        )
    if work.laid is None:
        of_plane = [finding for finding in setup.said if finding.field.startswith("/plane")]
        raise NoOwnSetError(of_plane[0].message, of_plane[0].remedy)
    lens, scale = work.lens, work.lens.scale_behind
    stop, laid = setup.stop, work.laid
    if stop.blur == 0:
        raise NoOwnSetError(
            f"At {f_stop(stop.f_number)} light itself blurs more than counts as sharp: no setting shows more.",
            "Open up at the Aperture station, or let a smaller picture be enough.",
        )
    pixels = setup.area.pixels_across
    gear = Gear(
        lens.focal_length,
        (setup.area.width / scale, setup.area.height / scale),
        stop.blur / scale,
        (lens.f_number(stop.effective_f_number),),
        lens.rest,
        lens.pivot_behind_node or 0.0,
        scale,
        (setup.area.width / pixels if pixels else Gear().pixel) / scale,
    )
    places = [Place(_named(work.cloud, index), *map(float, work.cloud.xyz[index])) for index in work.cloud.asked]
    setting = _as_said(laid.setting, lens) if laid.setting else lens.straight
    if laid.wanted.z0 <= lens.focal_length:
        raise NoOwnSetError(
            "The plane through the points passes the lens nearer than its focal length.",
            "Turn the camera toward the subject first.",
        )
    drill = own_drill(seed, lens, gear, places, setting, laid.wanted[1:3], laid.wanted.z0)
    planned = as_asked(drill)
    return Own(drill, shot.name, planned, _steps(setup, drill, planned), _scene(setup, drill))


def _as_said(setting, lens):
    """The setting as the plan says it: a turn that is called none is none."""
    off = (setting.azimuth - lens.rest + math.pi / 2) % math.pi - math.pi / 2
    return setting._replace(azimuth=setting.azimuth - off) if abs(math.degrees(off)) < STRAIGHT else setting


def _named(cloud, index):
    """What a point is called; corners of a flat part by where they lie."""
    point = cloud.points[index]
    if point.corner is None:
        return point.name
    left, top = cloud.places[index]
    middle_left, middle_top = (
        sum(cloud.places[other][axis] for other, each in enumerate(cloud.points) if each.index == point.index) / 4
        for axis in (0, 1)
    )
    high, side = "upper" if top < middle_top else "lower", "left" if left < middle_left else "right"
    return f"the {high} {side} corner of {point.name}"


def _steps(setup, drill, planned):
    """The Plane station's own words, with where the knobs stand after each."""
    start = start_of(drill)
    if setup.plane.laid.setting is None:
        words = "This lens does not tilt: focus so that the nearest and the farthest point are equally soft."
        return [AnswerStep(words=words, setting=told(planned))]
    turned = start._replace(turn=planned.turn)
    after = {"meter": start, "turn": turned, "tilt": turned._replace(tilt=planned.tilt)}
    steps = steps_at_lens(setup)
    said = [AnswerStep(words=step.words, setting=told(after.get(step.what, planned))) for step in steps]
    if all(step.what != "focus" for step in steps):
        said.append(AnswerStep(words="Focus until the nearest point is sharp.", setting=told(planned)))
    return said


def _scene(setup, drill):
    """A made-up surface through the points: the plane, and what lies off it drawn smoothly from point to point."""
    (rows, columns), texel = raster_of(drill)
    x = (np.arange(columns) - (columns - 1) / 2) * texel
    y = -(np.arange(rows) - (rows - 1) / 2) * texel
    kind = "pralines" if setup.shot.subject.nature in ("food", "liquid") else "lettering"
    made = surface(kind, x, y, 0.9 * columns * texel)
    light = made.light * crumbs_at(x, y, texel, drill.seed)[..., np.newaxis]
    cloud, known = setup.plane.cloud, setup.plane.cloud.known
    xyz = cloud.xyz[known]
    off = deviations(xyz, setup.plane.laid.wanted)
    near = (SOFTEN * columns * texel) ** 2
    total, weights = np.zeros((rows, columns)), np.zeros((rows, columns))
    for (at_x, at_y, _), value in zip(xyz, off, strict=True):
        weight = 1 / ((x - at_x)[np.newaxis, :] ** 2 + (y - at_y)[:, np.newaxis] ** 2 + near) ** 2
        total += weight * value
        weights += weight
    relief = (total / weights).astype(np.float32)
    planes = np.ascontiguousarray(np.moveaxis(light, -1, 0), dtype=np.float32)
    return Scene(drill.distance, drill.slope[0], drill.slope[1], relief, planes, texel)
