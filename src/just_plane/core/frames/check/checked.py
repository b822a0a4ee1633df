"""A stack checked: all frames followed, put in order, measured against each other, and what went wrong named."""

from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.again import set_repeats_aside
from just_plane.core.frames.check.findings import Found, dark_frames, light_findings, pair_findings
from just_plane.core.frames.check.focus_fit import FocusFit, fit_focus, found_steps
from just_plane.core.frames.check.later import place_later_frames
from just_plane.core.frames.check.members import (
    FEWEST,
    copies,
    in_order,
    light_of,
    near_first,
    outsiders,
    reference_of,
)
from just_plane.core.frames.check.pairs import Pairs, neighbours
from just_plane.core.frames.check.places import STOOD, in_front, places_of, spans_of
from just_plane.core.frames.check.runs import bridge_runs, join_runs
from just_plane.core.frames.check.shake import Stillness, stillness
from just_plane.core.frames.check.similarity import enlarged, inverse, moved
from just_plane.core.frames.check.spots import spot_findings, spots_of
from just_plane.core.frames.check.steps import steps_around_later, steps_between, steps_of_order
from just_plane.core.frames.check.tiles import CURVE, Grid, sampled

MOST_STEPS_AWAY = 2.0
"""A part that moved is told only where it lies so near to the plane of focus."""


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
    stack, said = _gathered(follower, load, same_files, missing)
    order, left_out = stack.order, stack.left_out
    if stack.pairs is None:
        return _nothing(order, left_out, said)
    spans = spans_of(order, left_out)
    left_out |= dict.fromkeys(stack.dark, "dead_flash")
    seen = _seen(follower, stack.reference, stack.energies, _to_judge(order, left_out))
    found = found_steps(seen.energies[:, CURVE])
    blind = {*stack.dark, *_plainly_shaken(seen)}
    steps = steps_of_order(order, seen.frames, found)
    # A hand goes by steps of its own, and the view goes with it: nothing of that is a fault.
    by_hand = follower.facts.kind == "hand"
    if not by_hand:
        both = steps_between(steps, stack.pairs.scale, np.isin(order, stack.dark))
        steps = both.found
        unseen = {*blind, *(order[p + 1] for p in spans)}
        said += pair_findings(stack.pairs, order, both.but_at(spans), follower.reduction, follower.grid.width, unseen)
    around = steps_around_later(order, seen.frames, found, stack.later)
    places = places_of(order, steps, said, spans, around, in_front(order, left_out, STOOD))
    fit = fit_focus(seen.energies[:, CURVE], np.array([places[frame] for frame in seen.frames]))
    said = [one for one in said if one.code != "moved" or _in_focus(one, fit, places, follower, stack.reference)]
    still = stillness(seen.energies, seen.slopes, fit)
    if not by_hand:
        said += _shaken(still, seen.frames, said, blind, left_out)
    usable = [frame for frame in seen.frames if frame not in left_out]
    spots = spots_of(follower, load, usable, fit, places, stack.reference)
    return Checked(
        order=order,
        left_out=left_out,
        reference=stack.reference,
        to_reference=_to_reference(follower, stack),
        places=places,
        light={frame: ev - stack.light[stack.reference] for frame, ev in stack.light.items()},
        steps=steps,
        pairs=stack.pairs,
        fit=fit,
        judged=seen.frames,
        energies=seen.energies,
        stillness=still,
        dust=spots,
        findings=said + spot_findings(spots, follower.reduction),
        grid=follower.grid,
        clipped={frame: follower.frames[frame].measured.clipped for frame in stack.light},
    )


class _Stack(NamedTuple):
    """Frames that make the stack, and how they lie: before anything is judged of their steps."""

    order: list
    left_out: dict
    later: list
    """Of those in the order, the ones that came later."""
    dark: list
    reference: int | None
    light: dict
    """Of all of the run, in EV on the first that came."""
    energies: dict
    """Frame to (4, N)."""
    pairs: Pairs | None
    """None where no two frames fit each other: nothing can be measured."""


def _gathered(follower, load, same_files, missing):
    """The stack, and what is said of its members, their order and their light."""
    again = set_repeats_aside(follower, load, same_files)
    needless = dict.fromkeys([frame for take in again for frame in take.frames], "taken_again")
    main, moved_runs = join_runs(follower, load, follower.main_run())
    main, later = place_later_frames(follower, load, main)
    main = bridge_runs(follower, load, main)
    repeated, twice = copies(same_files, main)
    left_out, said = outsiders(follower, main, missing, repeated)
    said, left_out = again + said + twice, left_out | repeated | needless
    main = near_first(follower, main)
    order = [frame for frame in main if frame not in left_out]
    if len(order) < FEWEST:
        return _Stack(order, left_out, later, [], None, {}, {}, None), said
    light = light_of(follower, main)
    dark = [order[k] for k in dark_frames(np.array([light[frame] for frame in order]))]
    reference = reference_of(main, order, dark)
    energies = {frame: _laid_on(reference, follower, frame, "energy") for frame in order}
    moved_in = [*moved_runs, *later]
    given, (order, wrong) = order, in_order(order, dark, energies, moved_in)
    if order != given:  # a frame that was smeared is unlike those beside it, and goes nowhere for that
        smeared = _plainly_shaken(_seen(follower, reference, energies, given))
        order, wrong = in_order(given, [*dark, *smeared], energies, moved_in)
    pairs = neighbours(follower, load, order, later, moved_runs)
    lit, dark = light_findings(np.array([light[frame] for frame in order]), order, follower.facts.kind, pairs.scale)
    return _Stack(order, left_out, later, dark, reference, light, energies, pairs), said + wrong + lit


class _Seen(NamedTuple):
    """Frames that can be judged, in the order of focus, by the tiles of the reference."""

    frames: list
    energies: np.ndarray
    """(K, 4, N)."""
    slopes: np.ndarray
    """(K, 3, N)."""


def _to_judge(order, left_out):
    """All but those that are left out; where fewer than two are left, all."""
    frames = [frame for frame in order if frame not in left_out]
    return frames if len(frames) >= FEWEST else order


def _seen(follower, reference, energies, frames):
    slopes = [_laid_on(reference, follower, frame, "slopes") for frame in frames]
    return _Seen(frames, np.stack([energies[frame] for frame in frames]), np.stack(slopes))


def _laid_on(reference, follower, frame, what):
    """What was measured in a frame's tiles, in those of the reference."""
    where = moved(follower.between(reference, frame), follower.grid.places)
    return sampled(getattr(follower.frames[frame].measured, what), follower.grid, where)


def _to_reference(follower, stack):
    """All of the run, px of the full frame."""
    return {
        frame: enlarged(inverse(follower.between(stack.reference, frame)), follower.reduction) for frame in stack.light
    }


def _nothing(order, left_out, said):
    """No two frames that fit each other: nothing can be measured."""
    none = np.array([])
    return Checked(order, left_out, None, {}, {}, {}, none, None, None, [], None, None, None, said, None, {})


def _plainly_shaken(seen):
    """Frames that nothing but shake explains, before anything is known of the steps."""
    as_planned = fit_focus(seen.energies[:, CURVE], np.arange(len(seen.frames), dtype=float))
    return [seen.frames[k] for k in np.flatnonzero(stillness(seen.energies, seen.slopes, as_planned).plainly_shaken)]


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


def _in_focus(found, fit, places, follower, reference):
    """Whether a part that seems to have moved was in focus in those frames: what is not pulls with its own blur."""
    small = (np.array([found.place]) - (follower.reduction - 1) / 2) / follower.reduction
    there = moved(follower.between(found.before, reference), small)
    depth = float(fit.depths[follower.grid.tile_at(there)[0]])
    return not np.isfinite(depth) or abs(depth - (places[found.before] + places[found.frame]) / 2) <= MOST_STEPS_AWAY


def _disturbed(said):
    """Frames on either side of a place where the stack was disturbed: detail lost there has that cause."""
    causes = ("skipped_step", "bump", "rotation", "moved")
    return {frame for one in said if one.code in causes for frame in (one.frame, one.before)}
