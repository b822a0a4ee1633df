"""A stack checked: all frames followed, put in order, measured against each other, and what went wrong named."""

from itertools import pairwise
from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.depth_map import everywhere
from just_plane.core.frames.check.dust import LEAST_FRAMES, LOOKED_AT, WIDEST, dust
from just_plane.core.frames.check.findings import Found, dark_frames, light_findings, pair_findings
from just_plane.core.frames.check.focus_fit import FocusFit, fit_focus, found_steps
from just_plane.core.frames.check.foretold import Sharpest
from just_plane.core.frames.check.growth import steps_by_growth
from just_plane.core.frames.check.later import place_later_frames
from just_plane.core.frames.check.order import distances, found_order
from just_plane.core.frames.check.pairs import Pairs, pairs_of
from just_plane.core.frames.check.places import STOOD, in_front, places_of, spans_of, steps_around_later, steps_of_order
from just_plane.core.frames.check.register import Laid
from just_plane.core.frames.check.shake import Stillness, stillness
from just_plane.core.frames.check.similarity import enlarged, inverse, moved, scale_and_turn
from just_plane.core.frames.check.tiles import CURVE, Grid, sampled

MOST_STEPS_AWAY = 2.0
"""A part that moved is told only where it lies so near to the plane of focus."""
LEAST_TO_TURN, LEAST_GROWTH = 6, 5e-4
"""Frames from which the direction of focus is looked at; growth a frame under which it cannot be told."""
FEWEST = 2
"""Frames that make a stack."""


class Checked(NamedTuple):
    """What is known of a stack. Frames are numbered as they were given; J of them are in the run that was judged."""

    order: list
    """(J,) frames in the order of focus, near first as given."""
    left_out: dict
    """Frame to reason (a code of a finding) for those that coverage and merges do without."""
    reference: int | None
    """The frame that all are laid on."""
    to_reference: dict
    """Frame to (2, 3): its places to places of the reference, px of the full frame."""
    places: dict
    """Frame to depth in steps where it is sharp, 0 for the first; of those in the order."""
    light: dict
    """Frame to EV against the reference; NaN where not known."""
    steps: np.ndarray
    """(J - 1,) steps found between neighbours in the order, in steps as planned; NaN where they cannot be told."""
    pairs: Pairs | None
    fit: FocusFit | None
    """Of the frames in the order that were judged."""
    judged: list
    """(K',) frames that ``fit`` and ``energies`` are of, in the order of focus."""
    energies: np.ndarray | None
    """(K', 4, N)."""
    stillness: Stillness | None
    dust: list | None
    """Spots; None when too few frames came to tell."""
    findings: list
    grid: Grid | None
    clipped: dict
    """Frame to the share of it that is burnt out."""


def check_stack(follower, load, same_files, missing=()):
    """Judge frames that were followed.

    Parameters
    ----------
    follower : Follower        Holds every frame that could be read.
    load : function            Number of a frame to its (H, W) float32 picture, for the few looked at twice.
    same_files : dict          Frame to an earlier frame with the very same pixels.
    missing : sequence of int  Frames that could not be read.

    Returns
    -------
    Checked
    """
    main, later = place_later_frames(follower, load, follower.main_run())
    left_out, said = _outsiders(follower, main, missing)
    said += _copies(same_files, main, left_out)
    main = _near_first(follower, main)
    order = [frame for frame in main if frame not in left_out]
    if len(order) < FEWEST:
        return _nothing(order, left_out, said)
    light = _light(follower, main)
    dark = [order[k] for k in dark_frames(np.array([light[frame] for frame in order]))]
    reference = _reference(main, order, dark)
    energies = {frame: _energies(follower, reference, frame) for frame in order}
    order, wrong = _in_order(order, dark, energies, later)
    said += wrong
    followed = _neighbours(follower, load, order)
    middle = ((follower.grid.width - 1) / 2, (follower.grid.height - 1) / 2)
    pairs = _as_taken(pairs_of(followed, middle), order, later)
    lit, dark = light_findings(np.array([light[f] for f in order]), order, follower.facts.kind, pairs.scale)
    said += lit
    spans = spans_of(order, left_out)
    left_out |= dict.fromkeys(dark, "dead_flash")
    judged = [frame for frame in order if frame not in left_out]
    judged = judged if len(judged) >= FEWEST else order
    stacked = np.stack([energies[frame] for frame in judged])
    slopes = np.stack([_slopes(follower, reference, frame) for frame in judged])
    found = found_steps(stacked[:, CURVE])
    steps = steps_of_order(order, judged, found)
    by_growth = np.full(len(steps), np.nan)
    if follower.facts.kind != "hand":
        by_growth = steps_by_growth(pairs.scale, np.isin(order, dark))
    steps = np.where(np.isfinite(by_growth), by_growth, steps)
    blind = {*dark, *_plainly_shaken(judged, stacked, slopes)}
    if follower.facts.kind != "hand":
        silent = {*blind, *(order[p + 1] for p in spans)}
        told = np.isfinite(by_growth) & ~np.isin(np.arange(len(steps)), [*spans])
        parts = [one.moved for one in followed]
        said += pair_findings(pairs, order, steps, follower.reduction, parts, follower.grid.width, silent, told)
    around = steps_around_later(order, judged, found, later)
    places = places_of(order, steps, said, spans, around, in_front(order, left_out, STOOD))
    fit = fit_focus(stacked[:, CURVE], np.array([places[frame] for frame in judged]))
    said = [one for one in said if one.code != "moved" or _in_focus(one, fit, places, follower, reference)]
    still = stillness(stacked, slopes, fit)
    if follower.facts.kind != "hand":
        said += _shaken(still, judged, said, blind, left_out)
    usable = [frame for frame in judged if frame not in left_out]
    spots = _dust(follower, load, usable, fit, places, reference)
    said += _dust_findings(spots, follower.reduction)
    return Checked(
        order=order,
        left_out=left_out,
        reference=reference,
        to_reference={
            frame: enlarged(inverse(follower.between(reference, frame)), follower.reduction) for frame in main
        },
        places=places,
        light={frame: light[frame] - light[reference] for frame in main},
        steps=steps,
        pairs=pairs,
        fit=fit,
        judged=judged,
        energies=stacked,
        stillness=still,
        dust=spots,
        findings=said,
        grid=follower.grid,
        clipped={frame: follower.frames[frame].measured.clipped for frame in main},
    )


def _nothing(order, left_out, said):
    """No two frames that fit each other: nothing can be measured."""
    none = np.array([])
    return Checked(order, left_out, None, {}, {}, {}, none, None, None, [], None, None, None, said, None, {})


def _copies(same_files, main, left_out):
    """Frames with the very same pixels as one before, left out."""
    copies = {frame: twin for frame, twin in same_files.items() if frame in main and twin in main}
    left_out |= dict.fromkeys(copies, "duplicate")
    return [Found("duplicate", frame, 0.0, "steps", before=twin) for frame, twin in copies.items()]


def _reference(main, order, dark):
    """The frame that all are laid on: the middle one that has light."""
    bright = [frame for frame in order if frame not in dark] or order
    return min(bright, key=lambda frame: abs(main.index(frame) - len(main) // 2))


def _plainly_shaken(judged, stacked, slopes):
    """Frames that nothing but shake explains, before anything is known of the steps."""
    as_planned = fit_focus(stacked[:, CURVE], np.arange(len(judged), dtype=float))
    return [judged[k] for k in np.flatnonzero(stillness(stacked, slopes, as_planned).plainly_shaken)]


def _shaken(still, judged, said, blind, left_out):
    """Shaken frames, left out; beside a place where the stack was disturbed only the plain ones."""
    disturbed = _disturbed(said)
    found = []
    for k in np.flatnonzero(still.shaken):
        if judged[k] in disturbed and judged[k] not in blind:
            continue
        found.append(Found("shake", judged[k], float(still.loss[k] + still.fine_loss[k]), "ln"))
        left_out[judged[k]] = "shake"
    return found


def _dust(follower, load, usable, fit, places, reference):
    """Spots on the sensor, px of the picture that is measured; None where too few frames are of use."""
    if len(usable) < LEAST_FRAMES or not np.isfinite(fit.depths).any():
        return None
    grid = follower.grid
    times = max(round(grid.width / WIDEST), 1)
    shape = (grid.height // times, grid.width // times)
    chosen = [usable[k] for k in np.unique(np.round(np.linspace(0, len(usable) - 1, LOOKED_AT)).astype(int))]
    pictures = {
        frame: load(frame) if times == 1 else cv2.resize(load(frame), shape[::-1], interpolation=cv2.INTER_AREA)
        for frame in chosen
    }
    depth = cv2.resize(everywhere(fit.depths.reshape(grid.down, grid.across)), shape[::-1])

    def between(first, second):
        return enlarged(follower.between(reference if first is None else first, second), 1 / times)

    sharpest = Sharpest(pictures, {frame: places[frame] for frame in chosen}, depth, between)
    spots = dust(sharpest, grid.step_blur_px / times, grid.circle_px / times)
    return [
        spot._replace(
            x=times * spot.x + (times - 1) / 2, y=times * spot.y + (times - 1) / 2, radius=times * spot.radius
        )
        for spot in spots
    ]


def _near_first(follower, main):
    """The run from near to far: by a rail the view grows, by a ring it shrinks; told only where a plan says which."""
    facts = follower.facts
    if facts.step is None or facts.kind == "hand" or len(main) < LEAST_TO_TURN:
        return main
    growth = np.log(scale_and_turn(follower.between(main[0], main[-1]))[0]) / (len(main) - 1)
    growth = -growth if facts.kind == "ring" else growth
    return main[::-1] if growth < -LEAST_GROWTH else main


def _outsiders(follower, main, missing):
    """Frames of other runs: alone they are foreign, several together could not be laid on the rest."""
    left_out: dict = {}
    runs: dict = {}
    said: list = []
    for frame, followed in sorted(follower.frames.items()):
        if frame not in main:
            runs.setdefault(followed.run, []).append(frame)
    for frames in runs.values():
        code = "foreign_frame" if len(frames) == 1 and len(main) > FEWEST else "registration_failed"
        left_out |= dict.fromkeys(frames, code)
        said.append(Found(code, frames[0], float(len(frames)), "frames", frames=tuple(frames)))
    left_out |= dict.fromkeys(missing, "unreadable")
    return left_out, said


def _light(follower, main):
    """EV of each frame on the first; one that cannot be compared is unknown, those after it go by the last that can."""
    light: dict = {}
    base: dict = {}
    for frame in sorted(main):  # as they came: each was laid on one before it
        followed = follower.frames[frame]
        before = 0.0 if followed.before is None else base[followed.before]
        light[frame] = 0.0 if followed.before is None else before + followed.light_ev
        base[frame] = light[frame] if np.isfinite(light[frame]) else before
    return light


def _energies(follower, reference, frame):
    where = moved(follower.between(reference, frame), follower.grid.places)
    return sampled(follower.frames[frame].measured.energy, follower.grid, where)


def _slopes(follower, reference, frame):
    where = moved(follower.between(reference, frame), follower.grid.places)
    return sampled(follower.frames[frame].measured.slopes, follower.grid, where)


def _in_order(order, dark, energies, later):
    """The order of focus; dark frames, in which little can be seen, stay where they were.

    Frames that came later and are beside others already are out of order, too.
    """
    out = tuple(frame for frame in later if frame in order)
    said = [Found("wrong_order", min(out), float(len(out)), "frames", frames=out)] if out else []
    seen = [frame for frame in order if frame not in dark]
    if len(seen) < FEWEST:
        return order, said
    found = [seen[k] for k in found_order(distances(np.stack([energies[frame] for frame in seen])))]
    rest = iter(found)
    whole = [frame if frame in dark else next(rest) for frame in order]
    changed = tuple(
        frame for frame, was in zip(found, seen, strict=True) if frame != was and not {frame, was} & set(later)
    )
    if changed:
        said.append(Found("wrong_order", min(changed), float(len(changed)), "frames", frames=changed))
    return whole, said


def _neighbours(follower, load, order):
    """The later frame of every pair in the order; those that were not laid on each other as they came, now."""
    followed = []
    for before, this in pairwise(order):
        known = follower.frames[this]
        if known.before == before:
            followed.append(known)
        elif follower.frames[before].before == this:
            followed.append(_the_other_way(follower.frames[before], known.measured, before))
        else:
            followed.append(follower.relaid(before, load(before), this, load(this)))
    return followed


def _the_other_way(followed, measured, before):
    """A pair that was laid in the other direction."""
    laid = Laid(inverse(followed.laid.similarity), followed.laid.likeness)
    return followed._replace(measured=measured, before=before, laid=laid, light_ev=-followed.light_ev)


def _as_taken(pairs, order, later):
    """The pairs, without shift and turn where a frame of them came later: between those the view was not knocked."""
    shift, turn = pairs.shift.copy(), pairs.turn.copy()
    for p, pair in enumerate(pairwise(order)):
        if set(pair) & set(later):
            shift[p], turn[p] = np.nan, np.nan
    return pairs._replace(shift=shift, turn=turn)


def _in_focus(found, fit, places, follower, reference):
    """Whether a part that seems to have moved was in focus in those frames: what is not pulls with its own blur."""
    small = (np.array([found.place]) - (follower.reduction - 1) / 2) / follower.reduction
    there = moved(follower.between(found.before, reference), small)
    depth = float(_depth_lookup(fit, follower.grid)(there)[0])
    return not np.isfinite(depth) or abs(depth - (places[found.before] + places[found.frame]) / 2) <= MOST_STEPS_AWAY


def _disturbed(said):
    """Frames on either side of a place where the stack was disturbed: detail lost there has that cause."""
    causes = ("skipped_step", "bump", "rotation", "moved")
    return {frame for one in said if one.code in causes for frame in (one.frame, one.before)}


def _depth_lookup(fit, grid):
    def depth_at(places):
        x = np.clip(((places[:, 0] + 0.5) * grid.across / grid.width).astype(int), 0, grid.across - 1)
        y = np.clip(((places[:, 1] + 0.5) * grid.down / grid.height).astype(int), 0, grid.down - 1)
        return fit.depths.reshape(grid.down, grid.across)[y, x]

    return depth_at


def _dust_findings(dust, times):
    said = []
    for spot in dust or ():
        place = (times * spot.x + (times - 1) / 2, times * spot.y + (times - 1) / 2)
        said.append(Found("sensor_dust", None, spot.darkness, "share", place=place))
    return said
