"""Runs of a folder that are one stack: frames whose numbers went round, or that were given in pieces.

As they come, frames are laid on the last ones only; where a stack was cut in two and the second half was given first,
its last frame shows nothing that the first of the other half does. Halves are laid on each other where they meet.
"""

from just_plane.core.frames.check.unlike import unlike_of

MOST = 6
"""Runs that are tried; a folder of more is none of pieces."""


NEAR_BY = 2
"""Places from the frame beside which a run would stand to the one that its end is likest to: the first frame of a stack
that was taken again is likest to the first. A single frame may hold nothing but noise to be like."""


def join_runs(follower, load, main):
    """Take whole runs into the main one that go on where it ends.

    Parameters
    ----------
    follower : Follower   What it knows of those frames is brought up to date.
    load : function       Number of a frame to its (H, W) float32 picture.
    main : list of int    The run that holds most frames, in the order they came.

    Returns
    -------
    (list of int, list of int)   The run with the others at their places; of all of them those out of order.
    """
    runs = [run for run in follower.runs() if len(run) > 1 and run != main]
    if not runs or len(runs) > MOST:
        return list(main), []
    unlike = unlike_of(follower, [frame for run in (main, *runs) for frame in run])
    order, *runs = (unlike.in_order(run) for run in (main, *runs))
    left = len(runs) + 1
    while len(runs) < left:  # what one run has brought, another may go on from
        left = len(runs)
        runs = [run for run in runs if not _joined(follower, load, run, order, unlike)]
    if order == unlike.in_order(main):
        return list(main), []
    return order, _out_of_order(order)


def bridge_runs(follower, load, main):
    """Take runs into the main one whose frames share nothing sharp with the frames beside them, but coarse detail.

    So it is with the frames past a gap of several steps, and with those in which next to nothing is in focus.

    Parameters
    ----------
    follower : Follower   What it knows of those frames is brought up to date.
    load : function       Number of a frame to its (H, W) float32 picture.
    main : list of int    The run, in the order they came but for those that came later.

    Returns
    -------
    list of int           With the others where they came.
    """
    order = list(main)
    runs = [run for run in follower.runs() if not {*run} & {*main}]
    if not runs or len(runs) > MOST:
        return order
    unlike = unlike_of(follower, [frame for run in (order, *runs) for frame in run])
    left = len(runs) + 1
    while len(runs) < left:
        left = len(runs)
        runs = [run for run in runs if not _bridged(follower, load, run, order, unlike)]
    return order


def _bridged(follower, load, run, order, unlike):
    """Whether a run fits the frames that came just before and after it; if so, it is put there."""
    before = max((frame for frame in order if frame < run[0]), default=None)
    after = min((frame for frame in order if frame > run[0]), default=None)
    if after is not None and after < run[-1]:
        return False
    for beside, end in ((before, run[0]), (after, run[-1])):
        if beside is None or (len(run) > 1 and unlike.places_off(end, beside, order) > NEAR_BY):
            continue
        if follower.lay_on(beside, load(beside), end, load(end), with_its_run=True, coarsely=True):
            at = order.index(beside) + (beside == before)
            order[at:at] = run
            return True
    return False


def _joined(follower, load, run, order, unlike):
    """Whether a run goes on where those in the order end; if so, it is put there."""
    end, next_to_it = min((run[:2], run[:-3:-1]), key=lambda way: unlike.of(way[0], unlike.likest(way[0], order)))
    beside = unlike.likest(end, order)
    # Where it leads away from there it goes on; one that shows the same depth again, or fits between, is like others.
    if unlike.likest(next_to_it, order) != beside:
        return False
    if not follower.lay_on(beside, load(beside), end, load(end), with_its_run=True):
        return False
    at = order.index(beside)
    order[:] = min(([*order[:k], *way, *order[k:]] for k in (at, at + 1) for way in (run, run[::-1])), key=unlike.along)
    return True


def _out_of_order(order):
    """The fewest frames without which the rest count up."""
    longest: list = []
    for k, frame in enumerate(order):
        before = [longest[j] for j in range(k) if order[j] < frame]
        longest.append([*max(before, key=len, default=[]), frame])
    kept: list = max(longest, key=len, default=[])
    return [frame for frame in order if frame not in kept]
