"""A shot in, a plan out: the shot is set up once, every station answers from that, and the answers are joined."""

from just_plane.contract.plan import Plan
from just_plane.planning.plane.section import plane
from just_plane.planning.setup.setup import NoSetup, make_setup
from just_plane.planning.stations.aim import aim
from just_plane.planning.stations.aperture import aperture
from just_plane.planning.stations.care import care
from just_plane.planning.stations.cost import gear_cost
from just_plane.planning.stations.light import light
from just_plane.planning.stations.reach import reach
from just_plane.planning.stations.room import room
from just_plane.planning.stations.sharpness import sharpness
from just_plane.planning.stations.subject import hold_still, subject
from just_plane.planning.stations.verdict import no_setup, verdict
from just_plane.planning.ways.compare import compare
from just_plane.planning.words.findings import Answered, gathered


def plan_shot(shot, units="mm"):
    """Everything the program works out for a shot.

    Parameters
    ----------
    shot : Shot
    units : str   ``mm`` or ``in``: how the sentences speak of lengths. Numbers are in the units of their names.

    Returns
    -------
    Plan          Never raises for a valid shot: what cannot be worked out is null, and a finding says why.
    """
    setup = make_setup(shot, units)
    return _no_plan(shot, setup) if isinstance(setup, NoSetup) else _plan(setup)


def _plan(setup):
    ways = compare(setup)
    section = plane(setup)
    begun, of_begun = _begun(setup)
    answers = {"plane": section, "aperture": aperture(setup), "light": light(setup)}
    said = gathered(
        (
            *setup.said,
            *of_begun,
            *(finding for each in answers.values() for finding in each.said),
            *hold_still(setup, ways),
        ),
        setup.shot.put_aside,
    )
    return Plan(
        findings=said,
        ways=ways,
        aim=aim(setup, ways),
        verdict=verdict(setup, ways, section.section, said),
        **begun,
        **{name: each.section for name, each in answers.items()},
    )


def _no_plan(shot, nothing):
    if nothing.framed is None:
        begun = {"depth_mm": shot.subject.depth_mm, "depth_from_points": False}
        of_begun = (*care(shot), *subject(shot.subject.depth_mm, shot.sharp))
    else:
        begun, of_begun = _begun(nothing.framed)
    said = gathered((*nothing.said, *of_begun), shot.put_aside)
    return Plan(findings=said, verdict=no_setup(said), **begun)


def _begun(framed):
    """The sections that ask for no more than the rig before the subject: (members of Plan, findings)."""
    answers = {"room": room(framed), "reach": reach(framed), "sharpness": sharpness(framed)}
    of_shot = Answered(None, (*care(framed.shot), *subject(framed.depth, framed.shot.sharp)))
    cost, unknown = gear_cost(framed.shot)
    parts = {
        "gear_cost": cost,
        "gear_cost_unknown": unknown,
        "depth_mm": framed.depth,
        "depth_from_points": framed.depth_from_points,
        "focus_behind_nearest_mm": framed.focus,
        **{name: each.section for name, each in answers.items()},
    }
    return parts, [finding for each in (of_shot, *answers.values()) for finding in each.said]
