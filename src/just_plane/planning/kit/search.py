"""What of the kit gets this frame: every sensible row tried together, the best of each lens worked out exactly."""

import math
from dataclasses import replace

import numpy as np

from just_plane.contract.search import FoundRig, SearchAnswer
from just_plane.contract.shot import FramingByWidth
from just_plane.planning.kit.bounds import worth_trying
from just_plane.planning.kit.combinations import BOUNDS, added_glass
from just_plane.planning.kit.exactly import FITS, Exactly
from just_plane.planning.kit.on_body import rows_on
from just_plane.planning.kit.trial import NONE_TRIED, Aim, candidates_of, joined
from just_plane.planning.rig.kinds import LENS_KINDS
from just_plane.planning.rig.rigging import RigAsked, sensor
from just_plane.planning.words.numbers import count, times

MOST_OF_A_LENS = 4
MOST_SHOWN = 24
MUCH_ROOM = 1.02
LITTLE_LIGHT = 0.05
"""How many times the room, and how many stops, make a row with more pieces in it worth them."""
ALIKE = 0.1
"""Stops: rows that cost as much to so much of one are alike, and the one with most room goes first."""


def search(kit, asked, wording):
    """Rows of the kit's pieces that get the frame asked, best first.

    Parameters
    ----------
    kit : Kit
    asked : SearchAsked
    wording : Wording

    Returns
    -------
    SearchAnswer
    """
    gear = [piece.gear for piece in kit.pieces if piece.carried or not asked.carried_only]
    base = RigAsked(
        asked.body,
        asked.crop_mode,
        [],
        FramingByWidth(by="frame_width", frame_width_mm=asked.frame_width_mm),
        camera_on_its_side=asked.camera_on_its_side,
    )
    wanted = sensor(base).width / asked.frame_width_mm
    measured = {tuple(rig.rig): rig for rig in kit.measured_rigs}
    rows = rows_on(asked.body, gear)
    aim = Aim(asked.look_for, wanted, asked.room_mm)
    near, left_out = worth_trying(rows.outlook, wanted if asked.look_for == "frame" else None)
    candidates = _tried(rows, near, aim)
    if not len(candidates) and asked.look_for == "frame":
        # Nothing comes near: the nearest there is.
        aim = replace(aim, within=math.inf)
        near, left_out = worth_trying(rows.outlook, None)
        candidates = _tried(rows, near, aim)
    tried = int(rows.outlook.rows.sum()) - left_out
    exact = Exactly(base, asked, measured, wording)
    ranked = map(candidates.candidate, _ranked(candidates, asked, aim).tolist())
    results = [found for each in _few_of_each(ranked, aim) if (found := exact.found(each))]
    results.sort(key=lambda found: _order(found, asked, aim))
    told: dict[tuple, FoundRig] = {}
    for found in results:
        told.setdefault(_told(found), found)
    results = list(told.values())[:MOST_SHOWN]
    return SearchAnswer(
        tried=tried,
        bounds=_bounds(tried, left_out),
        headline=_headline(results, tried, gear, kit, asked, wording),
        results=results,
    )


def _bounds(tried, left_out):
    """What was combined and what was not, and what of it was tried: sentences."""
    if not left_out:
        return BOUNDS
    return (
        f"{BOUNDS} This kit makes {left_out + tried:,} rows: {left_out:,} with the most pieces were left out for want "
        "of time. Tick what is on the table today, and all of that is tried."
    )


def _tried(rows, near, aim):
    """All rows of the groups near (KitOnBody, list of Group, Aim): Tried."""
    return joined([NONE_TRIED, *(candidates_of(rows.assembled(group), aim) for group in near)])


def _cost(lost, pieces, added_glass):
    """What a row costs, in tenths of a stop: its light, and as much as one for each piece, and for glass more."""
    return np.rint((lost + pieces + added_glass) / ALIKE)


def _ranked(tried, asked, aim):
    """Indices, the first first, before the exact answer: whether it fits, whether there is room, then what it costs."""
    if aim.look_for != "frame" or math.isinf(aim.within):
        return np.lexsort((tried.pieces, tried.off))
    first = {
        "best": _cost(tried.lost, tried.pieces, tried.added_glass),
        "room": -tried.room,
        "light": tried.lost,
        "pieces": tried.pieces,
    }[asked.order]
    return np.lexsort((-tried.room, first, tried.room < asked.room_mm * (1 - 1e-6), tried.off > FITS))


def _few_of_each(candidates, aim):
    """The best few of each lens and manner (best first), so that one lens with many tubes does not fill the list."""
    seen: dict[tuple, int] = {}
    kept: list = []
    for candidate in candidates:
        if any(_adds_nothing(candidate, other, aim) for other in kept):
            continue
        manner = tuple(
            (placed.gear.kit_id, placed.reversed) for placed in candidate.row if placed.gear.kind in LENS_KINDS
        )
        seen[manner] = seen.get(manner, 0) + 1
        if seen[manner] <= MOST_OF_A_LENS:
            kept.append(candidate)
        if len(kept) == MOST_SHOWN:
            break
    return kept


def _adds_nothing(candidate, other, aim):
    """Whether a row is another one with more pieces in it, and no better for them."""
    return (
        other.pieces < candidate.pieces
        and (candidate.off >= other.off * (1 - FITS) or (aim.look_for == "frame" and other.off <= FITS))
        and candidate.room <= other.room * MUCH_ROOM
        and candidate.lost >= other.lost - LITTLE_LIGHT
    )


def _told(found):
    """What is read of a row: of those alike in it, held by other rings or with their zoom set alike, one is enough."""
    return found.title, round(found.working_distance_mm, 1), round(found.stops_lost, 1), found.f_number


def _order(found, asked, aim):
    if aim.look_for == "closest":
        return (not found.room_enough, -found.magnification)
    if aim.look_for == "widest":
        return (not found.room_enough, found.magnification)
    beside = abs(math.log(found.frame_width_mm / asked.frame_width_mm))
    if math.isinf(aim.within):
        return (beside,)
    pieces = len(found.rig)
    first = {
        "best": _cost(found.stops_lost, pieces + len(found.against), added_glass(found.rig)),
        "room": -found.working_distance_mm,
        "light": found.stops_lost,
        "pieces": pieces,
    }[asked.order]
    return (not found.fits, not found.room_enough, first, -found.working_distance_mm, beside)


def _headline(results, tried, gear, kit, asked, wording):
    width = wording.length(asked.frame_width_mm)
    if not any(piece.kind in LENS_KINDS for piece in gear):
        has_one = any(piece.gear.kind in LENS_KINDS for piece in kit.pieces)
        return "No lens of the kit is on the table today." if has_one else "There is no lens in the kit to search with."
    if not tried:
        return "An objective needs a lens, tubes or bellows behind it, and none is on the table today."
    if asked.look_for != "frame" and results:
        return _end(results[0], asked, wording)
    good = [found for found in results if found.fits and found.room_enough]
    if good:
        return f"{good[0].title} gets {width} with {wording.length(good[0].working_distance_mm)} to work in."
    if any(found.fits for found in results):
        best = max((found for found in results if found.fits), key=lambda found: found.working_distance_mm)
        return (
            f"Nothing gets {width} with that much room; the most is {wording.length(best.working_distance_mm)}, "
            f"with {best.title}."
        )
    if results:
        nearest = results[0]
        return (
            f"Nothing gets {width}; the nearest is {wording.length(nearest.frame_width_mm)} "
            f"({times(nearest.magnification)}) with {nearest.title}."
        )
    if asked.look_for != "frame":
        within = "keeps" if asked.look_for == "closest" else "focuses within"
        room = wording.length(asked.room_mm)
        return f"Nothing on the table {within} {room} {'of room' if within == 'keeps' else 'of its front'}."
    return f"None of {count(tried, 'combination')} comes near {width}."


def _end(found, asked, wording):
    """The first of those that come closest, or show most, in a sentence."""
    width, room = wording.length(found.frame_width_mm), wording.length(found.working_distance_mm)
    if asked.look_for == "closest":
        return f"{found.title} gets closest: {width} wide ({times(found.magnification)}), with {room} to work in."
    return f"{found.title} shows most: {width} wide ({times(found.magnification)}) from {room}."
