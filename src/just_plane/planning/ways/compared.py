"""What a way is before it is ranked, and one that this set-up does not have."""

from dataclasses import dataclass

from just_plane.contract.plan import BackOffAnswer, StackAnswer
from just_plane.core.plane import TiltSetting
from just_plane.core.ways import Way


@dataclass(frozen=True, slots=True)
class Compared:
    """One way with its words, before one of them is recommended."""

    id: str
    way: Way
    title: str
    note: str
    against: tuple[str, ...] = ()
    excess: float = 1.0
    """How many times over what is possible it goes, as :func:`just_plane.core.ranking.merit` takes it."""
    stack: StackAnswer | None = None
    back_off: BackOffAnswer | None = None
    points_held: int | None = None
    keeps_picture: bool = True
    changes: str = ""
    """What it gives up when it does not keep the picture, for the sentence that says why it ranks as it does."""
    setting: TiltSetting | None = None
    """Of the lens, when the way tilts it; the first frame's."""
    places: tuple[float, ...] = ()
    """Of a way that tilts and stacks: where its frames are taken, as the core's Sweep has them."""


def impossible(setup, way_id, kind, title, reason):
    """A way that this set-up does not have.

    Parameters
    ----------
    setup : Setup
    way_id, kind, title : str
    reason : str               Why, as a sentence or a clause.

    Returns
    -------
    Compared                   Without frames.
    """
    way = Way(kind, setup.stop.f_number, setup.stop.effective_f_number, (), (), 0.0, 0.0, 0.0, 0.0)
    return Compared(way_id, way, title, "not with this set-up", (reason[:1].lower() + reason[1:].rstrip("."),))
