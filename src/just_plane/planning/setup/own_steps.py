"""Steps and counts that the photographer has already: in mm, in marks of the knob, in units of the camera's drive."""

from just_plane.core.errors import OpticsError
from just_plane.core.own_stack import own_stack, spread_step
from just_plane.core.ways import gaps
from just_plane.planning.setup.focus_units import unit_in_subject
from just_plane.planning.setup.rail_marks import knob_of
from just_plane.planning.words.numbers import count


class OwnStepError(OpticsError):
    """A step in marks or units of which nobody knows how far they move."""


def is_own(setup, kind):
    """Whether steps or count of a stack by ``rail`` or ``ring`` are the photographer's own.

    Parameters
    ----------
    setup : Setup
    kind : str

    Returns
    -------
    bool   False for units that were not tried yet, which are only kept: the steps worked out stand.
    """
    options = setup.shot.stack
    if kind == "ring" and options.own_step_units is not None:
        return unit_in_subject(setup) is not None
    marks = options.own_step_marks if kind == "rail" else None
    return not (options.own_step_mm is None and options.own_frames is None and marks is None)


def own_frames_of(setup, kind, magnification_at=None):
    """The frames of such a stack.

    Parameters
    ----------
    setup : Setup
    kind : str                    ``rail`` or ``ring``.
    magnification_at : callable   Of a ring: size on the sensor with the ring at a place, mm behind the nearest point.

    Returns
    -------
    Stack

    Raises
    ------
    OwnStepError                  Marks of a knob that is not known.
    OutOfDomainError              No such frames.
    """
    options = setup.shot.stack
    first = options.own_first_mm or 0.0
    step = _step(setup, kind, magnification_at)
    if step is None:
        smallest = options.rail_smallest_step_mm if kind == "rail" else None
        step = spread_step(setup.depth, options.own_frames, first, smallest)
    return own_stack(
        setup.depth,
        step,
        frames=options.own_frames,
        first=first,
        spare_before=options.spare_before,
        spare_after=options.spare_after,
    )


def _step(setup, kind, magnification_at):
    """The step: mm, a function of the place, or None where only a count is given."""
    options = setup.shot.stack
    if kind == "rail" and options.own_step_marks is not None:
        knob = knob_of(options)
        if knob is None:
            raise OwnStepError(
                "marks.unknown",
                quantity="own_step_marks",
                message="how far a mark of the knob moves is not known: give what a turn moves and its divisions, "
                "or the step in mm",
            )
        return options.own_step_marks * knob.division
    if kind == "ring" and options.own_step_units is not None:
        unit, tried_at = unit_in_subject(setup)
        # The drive moves the lens by the same each time; what that moves in the subject falls with the size's square.
        return lambda place: options.own_step_units * unit * (tried_at / magnification_at(place)) ** 2
    return options.own_step_mm


def left_open(bands, depth):
    """What no frame holds, as StackAnswer has it.

    Parameters
    ----------
    bands : sequence of Band
    depth : float              mm.

    Returns
    -------
    list of [float, float]     mm behind the nearest point, near to far.
    """
    return [[gap.near, gap.far] for gap in gaps(bands, depth)]


def gap_words(setup, open_still):
    """The gaps as a clause; empty where there are none.

    Parameters
    ----------
    setup : Setup
    open_still : list of [float, float]   As of :func:`left_open`.

    Returns
    -------
    str
    """
    length = setup.wording.length
    if not open_still:
        return ""
    if open_still == [[0.0, setup.depth]]:
        return "no frame holds any of it"
    inside = [gap for gap in open_still if gap[0] > 0 and gap[1] < setup.depth]
    parts = []
    if open_still[0][0] <= 0:
        parts.append(f"the nearest {length(open_still[0][1])}")
    if inside:
        widest = max(far - near for near, far in inside)
        many = "a gap" if len(inside) == 1 else f"{count(len(inside), 'gap')} of up to"
        parts.append(f"{many} {'of ' if len(inside) == 1 else ''}{length(widest)}")
    if open_still[-1][1] >= setup.depth:
        parts.append(f"the farthest {length(open_still[-1][1] - open_still[-1][0])}")
    return f"leaves {' and '.join(parts)}"
