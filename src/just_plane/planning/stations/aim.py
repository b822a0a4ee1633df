"""Where to aim one frame: the point that matters most first, or the plane through the body; both schools in words."""

from just_plane.contract.plan import AimAnswer
from just_plane.core.aim import aim_at, presses_that_hold
from just_plane.core.depth import limits_from_pupil
from just_plane.planning.setup.hands import sway_of
from just_plane.planning.words.numbers import percent

TELLS_APART = 0.05
"""Of the slack: a difference of place that nobody aims at."""


def aim(setup, ways):
    """Where to aim, in figures and words.

    Parameters
    ----------
    setup : Setup
    ways : sequence of WayAnswer   For what turning the camera square would hold.

    Returns
    -------
    AimAnswer or None              None where no point is read, there are corners of flat parts alone, of which none
                                   matters more, or the stop holds nothing.
    """
    cloud, stop, view = setup.plane.cloud, setup.stop, setup.view
    if stop.blur == 0 or all(cloud.points[index].corner is not None for index in cloud.asked):
        return None
    scale = view.magnification**2 * view.pupil_distance / stop.effective_f_number
    near, far = limits_from_pupil(view.pupil_distance, scale, stop.blur)
    depths = cloud.depths_asked
    found = aim_at(depths, near, far)
    names = list(dict.fromkeys(cloud.name(cloud.asked[index]) for index in found.held))
    missed = [cloud.name(index) for place, index in enumerate(cloud.asked) if place not in found.held]
    behind_first = found.place - float(depths[0])
    sway, _ = sway_of(setup.shot)
    share = presses_that_hold(found.slack, sway) if setup.shot.steadiness.held == "hand" else None
    return AimAnswer(
        behind_nearest_mm=found.place,
        behind_first_mm=behind_first,
        slack_mm=found.slack,
        first=cloud.name(cloud.asked[0]),
        held=names,
        missed=list(dict.fromkeys(missed)),
        presses=share,
        words=[_first_school(setup, names, missed, behind_first, found.slack, share), _second_school(ways)],
    )


def _first_school(setup, names, missed, behind, slack, share):
    length = setup.wording.length
    first = names[0]
    place = f"on {first}"
    if abs(behind) > TELLS_APART * slack:
        place = f"{length(abs(behind))} {'behind' if behind > 0 else 'before'} {first}"
    others = len(names) - 1
    holds = f"{first} alone" if not others else f"{first} and {_listed(names[1:])}"
    sentence = f"What matters most first: focus {place}, good to {length(slack)} either way; it holds {holds}"
    if missed:
        sentence += f", not {_listed(list(dict.fromkeys(missed)))}"
    if share is not None:
        sentence += f". Of your presses about {percent(min(share, 0.99))} come that close"
    return f"{sentence}."


def _second_school(ways):
    turn = next((way for way in ways if way.id == "turn" and way.frames), None)
    if turn is None or turn.points_held is None:
        return "The plane through the body first: name and read a third point, and the turn that lays it is told here."
    held = "holds every point" if turn.cover >= 1 - 1e-9 else f"holds {percent(turn.cover)} of the points"
    angle = turn.title.split(",")[0].lower()
    return f"The plane through the body first: {angle}, so that it lies in the plane of focus; one frame then {held}."


def _listed(names, most=3):
    if len(names) <= most:
        return " and ".join(names) if len(names) < 3 else f"{', '.join(names[:-1])} and {names[-1]}"
    return f"{', '.join(names[:most])} and {len(names) - most} more"
