"""What the program has to say about a kit: numbers that cannot be, and what it assumes where a number is not known."""

from just_plane.contract.gear import ASSUMED_PUPIL_MAGNIFICATION
from just_plane.contract.shot import Placed
from just_plane.core.errors import OpticsError
from just_plane.planning.rig.kinds import KINDS, LENS_KINDS, field_of
from just_plane.planning.rig.lens_numbers import closest_focus, lens_numbers, size_at_end
from just_plane.planning.words.findings import note, refused
from just_plane.planning.words.numbers import Wording, times


def check_kit(kit):
    """Findings at JSON pointers into the kit, in the order of its pieces: list of Finding."""
    wording, said = Wording(), []
    for index, piece in enumerate(kit.pieces):
        gear = piece.gear
        try:
            _try(gear)
        except OpticsError as error:
            field = field_of(index, gear.kind, error.quantity).replace("/rig/", "/pieces/", 1)
            said.append(refused(error, field, wording))
        said += _assumed(index, gear)
    return said


def smallest_step_mm(rail):
    """The smallest step of a rail, mm: as given, else one division of its knob; None when not known."""
    if rail.smallest_step_mm is not None:
        return rail.smallest_step_mm
    turn = mm_per_turn(rail)
    return turn / rail.divisions if turn and rail.divisions else None


def mm_per_turn(rail):
    """What a turn of a rail's knob moves, mm: measured, else as given; None when not known."""
    return rail.measured_mm_per_turn or rail.mm_per_turn


def _try(gear):
    """Make the core's element of a piece, to see whether its numbers can be."""
    if gear.kind in LENS_KINDS:
        lens_numbers(Placed(gear=gear))
    elif gear.kind in KINDS:
        KINDS[gear.kind].element(gear)


def _assumed(index, gear):
    at = f"/pieces/{index}/gear"
    if gear.kind == "lens" and gear.pupil_magnification is None and gear.measured_pupil_magnification is None:
        yield note(
            "assumed.pupil",
            f"{at}/pupil_magnification",
            f"Pupil magnification not known: {ASSUMED_PUPIL_MAGNIFICATION:g} is assumed.",
            "Measure it with two tubes, or look at the aperture from both ends and divide the diameters.",
        )
    if gear.kind == "lens" and gear.minimum_focus_distance_mm is None and gear.smallest_magnification is None:
        yield note(
            "assumed.closest_focus",
            f"{at}/minimum_focus_distance_mm",
            f"Closest focus not known: {Wording().length(closest_focus(gear, gear.focal_length_mm))} is assumed, "
            "as of a lens that does not breathe.",
            "Read it off the data sheet, or measure from the subject to the sensor mark.",
        )
    if gear.kind == "zoom":
        yield from _sizes_assumed(at, gear)
    if gear.kind == "rail" and smallest_step_mm(gear) is None:
        yield note(
            "assumed.rail_step",
            f"{at}/smallest_step_mm",
            "The rail's smallest step is not known: any step is taken as possible.",
            "Give it, or the mm a turn and the divisions of the knob.",
        )


def _sizes_assumed(at, gear):
    for name, end, other in (("short", gear.short, gear.long), ("long", gear.long, gear.short)):
        if end.closest_magnification is not None:
            continue
        try:
            size = times(size_at_end(end, other))
        except OpticsError:
            continue
        why = "it breathes as the other end does" if other.closest_magnification is not None else "it does not breathe"
        yield note(
            f"assumed.size_at_{name}_end",
            f"{at}/{name}/closest_magnification",
            f"Size at the {name} end not known: {size} is assumed, as follows when {why}.",
            "Photograph a ruler there to know it.",
        )
