"""The one table of what each kind of gear in the row is: where it stands, what it does to light, how large it is drawn.

A new kind of gear is a model in ``contract/gear.py`` and an entry here.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from just_plane.contract.gear import ASSUMED_BARREL_WIDTH_MM, ASSUMED_THREAD_MM, KIND_WORDS
from just_plane.core.pieces import Bellows, CloseUpLens, Teleconverter, Tube

MOUNT_WIDTH = 62.0
"""Tubes, bellows and converters are drawn as wide as a common mount, mm: their widths are seldom on paper."""
OBJECTIVE_WIDTH = 30.0
THREAD_TO_BARREL = 6.0
"""How much wider than its filter thread a barrel is, mm."""

LENS, BEHIND = "lens", "behind the lens"
FRONT, FILTER, REVERSING, COUPLING = "in front", "on a filter thread", "behind a turned lens", "between two lenses"


@dataclass(frozen=True, slots=True)
class Kind:
    """What there is to know of one kind of gear. Functions take the piece of the contract; lengths in mm."""

    place: str
    """Where in the row it stands."""
    length: Callable = lambda gear: 0.0
    """Along the axis; of a lens its numbers know, where it is set."""
    width: Callable = lambda gear: MOUNT_WIDTH
    called: Callable = lambda gear: gear.kind.replace("_", " ")
    """What it is called when it has no name."""
    element: Callable = lambda gear: None
    """The core's element; None for what only holds others. Lenses are made by the rig, which knows how they stand."""
    screws_on: str | None = None
    """Field of the thread by which it screws on a lens."""
    carries_on: str | None = None
    """Field of the thread that it offers to the next."""
    opening: Callable = lambda gear: None
    """Diameter of the thread that light passes in front of the lens; None: not known, or none."""
    brings_nearer: bool = False
    """It does nothing but bring the plane of focus nearer."""
    fields: Mapping[str, str] = field(default_factory=dict)
    """Field of the contract for each quantity that the core may refuse."""


def _barrel_width(gear):
    return gear.thread_mm + THREAD_TO_BARREL if gear.thread_mm else ASSUMED_BARREL_WIDTH_MM


def _two_threads_width(gear):
    return max(gear.lens_thread_mm, gear.front_thread_mm) + 2


KINDS: dict[str, Kind] = {
    "lens": Kind(
        LENS,
        width=_barrel_width,
        called=lambda gear: f"{gear.focal_length_mm:g} mm lens",
        fields={
            "minimum_focus_distance": "minimum_focus_distance_mm",
            "focal_length": "focal_length_mm",
            "closest_magnification": "closest_magnification",
            "largest_magnification": "closest_magnification",
            "smallest_magnification": "smallest_magnification",
            "pupil_magnification": "pupil_magnification",
        },
    ),
    "zoom": Kind(
        LENS,
        width=_barrel_width,
        fields={"minimum_focus_distance": "long/minimum_focus_distance_mm", "long": "long/focal_length_mm"},
    ),
    "objective": Kind(
        LENS,
        length=lambda gear: gear.barrel_mm,
        width=lambda gear: OBJECTIVE_WIDTH,
        called=lambda gear: f"{gear.magnification:g}× objective",
        fields={"numerical_aperture": "numerical_aperture"},
    ),
    "tube": Kind(
        BEHIND,
        length=lambda gear: gear.length_mm,
        called=lambda gear: f"tube {gear.length_mm:g}",
        element=lambda gear: Tube(gear.length_mm),
        brings_nearer=True,
    ),
    "bellows": Kind(
        BEHIND,
        length=lambda gear: gear.shortest_mm,
        element=lambda gear: Bellows(gear.shortest_mm, gear.longest_mm),
        brings_nearer=True,
        fields={"longest": "longest_mm", "shortest": "shortest_mm"},
    ),
    "converter": Kind(
        BEHIND,
        length=lambda gear: gear.thickness_mm,
        called=lambda gear: f"{gear.factor:g}× converter",
        element=lambda gear: Teleconverter(gear.factor, gear.thickness_mm),
        fields={"thickness": "thickness_mm", "factor": "factor"},
    ),
    "close_up": Kind(
        FRONT,
        length=lambda gear: gear.thickness_mm,
        width=lambda gear: (gear.thread_mm or ASSUMED_THREAD_MM) + 2,
        called=lambda gear: f"+{gear.dioptres:g} close-up",
        element=lambda gear: CloseUpLens(gear.dioptres),
        screws_on="thread_mm",
        carries_on="thread_mm",
        opening=lambda gear: gear.thread_mm,
        brings_nearer=True,
    ),
    "step_ring": Kind(
        FILTER,
        length=lambda gear: gear.thickness_mm,
        width=_two_threads_width,
        screws_on="lens_thread_mm",
        carries_on="front_thread_mm",
        opening=lambda gear: min(gear.lens_thread_mm, gear.front_thread_mm),
    ),
    "reversing_ring": Kind(
        REVERSING,
        length=lambda gear: gear.thickness_mm,
        width=lambda gear: gear.thread_mm + 4,
        screws_on="thread_mm",
    ),
    "coupling_ring": Kind(
        COUPLING,
        length=lambda gear: gear.thickness_mm,
        width=_two_threads_width,
        screws_on="lens_thread_mm",
        carries_on="front_thread_mm",
    ),
}


def noun_of(kind):
    """One of a kind with its article, to begin a sentence: ``A tube``, ``An objective``, ``Bellows``."""
    one, many = KIND_WORDS[kind]
    if one == many.lower():
        return many
    return f"{'An' if one[0] in 'aeiou' else 'A'} {one}"


LENS_KINDS = tuple(name for name, kind in KINDS.items() if kind.place == LENS)


def name_of(gear):
    """The piece's name, or what it is: ``tube 12``, ``+4 close-up``."""
    return gear.name or KINDS[gear.kind].called(gear)


def field_of(index, kind, quantity):
    """Pointer of the field of a piece that a refusal of the core is about.

    Parameters
    ----------
    index : int      Place in the row.
    kind : str
    quantity : str   As the core names it.
    """
    if kind == "zoom" and quantity == "focal_length":
        return f"/rig/{index}/at_focal_length_mm"
    name = KINDS[kind].fields.get(quantity) if kind in KINDS else None
    return f"/rig/{index}/gear/{name}" if name else f"/rig/{index}/gear"
