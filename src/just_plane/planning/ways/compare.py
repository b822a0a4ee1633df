"""The ways section: every way to get the shot with its price, ranked, and why each stands where it does."""

from dataclasses import replace

import numpy as np

from just_plane.contract.plan import WayAnswer
from just_plane.core.ranking import MAY_EXCEED, deciding, merit, ranked
from just_plane.core.ways import Single, one_frames
from just_plane.planning.setup.soft import softness
from just_plane.planning.ways.by_backing_off import back_off, words
from just_plane.planning.ways.by_hand import hand_way
from just_plane.planning.ways.by_plane import plane_ways
from just_plane.planning.ways.by_stack import stack_by
from just_plane.planning.ways.compared import Compared, impossible
from just_plane.planning.ways.feasible import weighed
from just_plane.planning.ways.steady import against, steady
from just_plane.planning.words.numbers import f_stop, percent

AT_THE_EDGE = 1e-9
"""mm by which a point may lie beside a band by rounding alone."""


def compared(setup):
    """Every way to get the shot, in fixed order, not ranked yet (Setup): list of Compared."""
    stops = setup.stops
    found = _singles(setup, {"one": stops.chosen, "one_best": setup.best.place, "one_narrowest": stops.clicks - 1})
    upright, tilted = plane_ways(setup)
    found += upright
    if found[0].way.cover < 1 or setup.shot.back_off_factor is not None:
        found.append(_back_off(setup))
    if setup.shot.steadiness.held == "hand":
        found.append(hand_way(setup))
    return [*found, stack_by(setup, "rail"), stack_by(setup, "ring"), *tilted]


def compare(setup):
    """Every way to get the shot, in fixed order, ranked (Setup): list of WayAnswer."""
    items = [_with_points(setup, item) for item in compared(setup)]
    steadiness = [steady(setup, item) for item in items]
    items = [weighed(setup, item, each) for item, each in zip(items, steadiness, strict=True)]
    soft = softness(setup, [item.way for item in items])
    places = _ranks(items, setup.shot.sharp.contrast_threshold)
    return [
        _answer(setup, item, rank, reason, each, words)
        for item, (rank, reason), each, words in zip(items, places, steadiness, soft, strict=True)
    ]


def _with_points(setup, item):
    """Where points are read, what a way holds is how many of them; else, and by hand, the share of the depth."""
    depths = setup.plane.cloud.depths_asked
    if item.points_held is not None or item.way.kind == "hand" or not item.way.bands or not depths.size:
        return item
    held = np.zeros(depths.shape, dtype=bool)
    for near, far in item.way.bands:
        if near < far:
            held |= (near - AT_THE_EDGE <= depths) & (depths <= far + AT_THE_EDGE)
    return replace(item, points_held=int(held.sum()), way=replace(item.way, cover=float(held.mean())))


def _ranks(items, threshold):
    """(rank, reason) of each way; those that cannot be, or that are another picture altogether, come last."""
    possible = [index for index, item in enumerate(items) if item.way.frames and item.id != "strip"]
    merits = [merit(items[i].way, threshold, items[i].excess, keeps_picture=items[i].keeps_picture) for i in possible]
    order = ranked(merits)
    places = {}
    for place, at in enumerate(order):
        beside = order[1] if place == 0 and len(order) > 1 else order[0]
        reason = _reason(items, possible[at], possible[beside], merits[at], merits[beside]) if beside != at else ""
        places[possible[at]] = (place + 1, reason or "It is the only way that there is.")
    last = len(order) + 1
    return [places.get(index, (last, _not_ranked(item))) for index, item in enumerate(items)]


def _not_ranked(item):
    return "Another picture on purpose: not ranked." if item.way.frames else "Not possible with this set-up."


def _reason(items, index, beside, own, other):
    item, rival = items[index], items[beside].title
    better = own > other
    nearly = "comes nearest to what can be done" if own.feasible < 0 else "can be done as things are"
    say = {
        "feasible": (nearly, item.against[0] if item.against else "cannot be done as things are"),
        "whole": ("holds all of it", f"holds only {percent(item.way.cover)}"),
        "steady": ("asks no more than subject and hand allow", item.against[0] if item.against else "takes too long"),
        "contrast_enough": ("keeps enough contrast everywhere", "loses contrast somewhere"),
        "keeps_picture": ("keeps view and pixels", item.changes),
        "part": (f"holds more, {percent(item.way.cover)}", f"holds less, {percent(item.way.cover)}"),
        "single": ("takes one frame", "takes more frames"),
        "contrast": ("shows more contrast at its worst place", "shows less contrast at its worst place"),
        "quick": ("is quicker", "takes longer"),
    }
    decided = deciding(own, other)
    if decided is None:
        return f"As good as {rival}."
    if better:
        return f"It {say[decided][0]}; next best is {rival}."
    own_words = say[decided][1]
    return f"Behind {rival}: {own_words if decided in ('feasible', 'steady') else 'it ' + own_words}."


def _singles(setup, indices):
    """One frame at each of some stops, {way id: index of the stop}; a stop that stands for two is said once."""
    stops = setup.stops
    once = {index: way_id for way_id, index in reversed(indices.items())}
    wanted = [(way_id, index) for way_id, index in indices.items() if once[index] == way_id]
    ways = one_frames(
        setup.view,
        [
            Single(
                float(stops.f_numbers[index]),
                float(stops.effective_f_numbers[index]),
                float(stops.blurs[index]),
                float(stops.shutters[index]),
                setup.focus if way_id == "one" else None,
                float(stops.lens_share[index]),
            )
            for way_id, index in wanted
        ],
        setup.pace,
    )
    best = {"contrast": "best stop", "most_of_depth": "most of the depth", "in_focus": "most contrast in focus"}
    name = {
        "one": "One frame",
        "one_best": f"One frame, {best[setup.best.by]}",
        "one_narrowest": "One frame, stopped right down",
    }
    return [
        Compared(
            way_id,
            way,
            f"{name[way_id]}, {f_stop(way.f_number)}",
            _single_note(setup, way),
            (f"diffraction alone leaves {percent(max(float(stops.perfect[index]), 0.0))} contrast",)
            if stops.blurs[index] == 0
            else (),
        )
        for (way_id, index), way in zip(wanted, ways, strict=True)
    ]


def _single_note(setup, way):
    near, far = way.bands[0]
    depth, length = setup.depth, setup.wording.length
    if far <= near:
        return "nothing is wholly sharp for a picture of this size"
    before, behind = max(near, 0.0), max(depth - far, 0.0)
    if (before or behind) and max(before, behind) >= depth:
        return "misses all of it: the focus lies outside"
    missed = [f"{length(before)} in front"] * (before > 0) + [f"{length(behind)} behind"] * (behind > 0)
    if missed:
        return "misses " + " and ".join(missed)
    return f"{length(min(-near, far - depth))} to spare at the tighter end"


def _back_off(setup):
    backed = back_off(setup)
    if isinstance(backed, str):
        return impossible(setup, "back_off", "one_frame", "Back off and crop", backed)
    stop_words = f_stop(backed.way.f_number)
    return Compared(
        "back_off",
        backed.way,
        f"Back off {backed.answer.factor:.2g}× and crop, {stop_words}",
        words(setup.shot, backed.answer, setup.wording) + _leaves_out(setup, backed.way),
        backed.against,
        back_off=backed.answer,
        keeps_picture=False,
        changes="gives up pixels",
    )


def _leaves_out(setup, way):
    """What standing back by one's own factor does not hold; nothing where it holds all."""
    return f"; {_single_note(setup, way)}" if way.cover < 1 else ""


def _answer(setup, item, rank, reason, steadiness, soft):
    way = item.way
    limit = 1e9  # an endless far limit, as far as any drawing goes
    return WayAnswer(
        id=item.id,
        kind=way.kind,
        title=item.title,
        note=item.note,
        f_number=way.f_number,
        effective_f_number=way.effective_f_number,
        cover=way.cover,
        worst_contrast=way.worst_contrast,
        worst_behind_nearest_mm=way.worst_at,
        frames=way.frames,
        time_s=way.time,
        hold_s=way.hold,
        focuses_mm=list(way.focuses),
        bands_mm=[[band.near, min(band.far, limit)] for band in way.bands],
        against=[*item.against, *(against(setup, steadiness) if way.frames else ())],
        soft=soft,
        feasible=way.frames > 0 and item.excess <= MAY_EXCEED,
        stack=item.stack,
        back_off=item.back_off,
        rank=rank,
        reason=reason,
        points_held=item.points_held,
        steady=steadiness,
        recommended=rank == 1 and way.frames > 0,
    )
