"""Which hands a rocking drill is played with."""

from just_plane.core.practice.rocking import make_rocking
from just_plane.core.practice.sway import HOLDS, Hold


def rocking_of(asked):
    """The drill as it is asked for, with one's own sway where that was measured.

    Parameters
    ----------
    asked : ViewAsked or JudgeAsked

    Returns
    -------
    Rocking
    """
    hold = asked.hold if asked.sway_mm is None else Hold(asked.sway_mm, HOLDS[asked.hold].tremor)
    return make_rocking(asked.seed, hold, asked.subject)
