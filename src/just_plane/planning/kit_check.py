"""What the program has to say about a kit: numbers that cannot be, and what it assumes where a number is not known."""

from just_plane.contract.gear import ASSUMED_PUPIL_MAGNIFICATION
from just_plane.contract.shot import Placed
from just_plane.core.errors import OpticsError
from just_plane.core.pieces import Bellows, Teleconverter
from just_plane.planning.chain import LENS_KINDS
from just_plane.planning.findings import Findings
from just_plane.planning.lens_numbers import field_of, lens_numbers


def check_kit(kit):
    """Findings at JSON pointers into the kit, trouble first in the order of its pieces: list of Finding."""
    findings = Findings()
    for index, piece in enumerate(kit.pieces):
        gear = piece.gear
        try:
            _try(gear)
        except OpticsError as error:
            field = field_of(index, gear.kind, error.quantity).replace("/rig/", "/pieces/", 1)
            findings.refused(error, field)
        _say_assumed(index, gear, findings)
    return findings.said


def smallest_step_mm(rail):
    """The smallest step of a rail, mm: as given, else one division of its knob; None when not known."""
    if rail.smallest_step_mm is not None:
        return rail.smallest_step_mm
    turn = rail.measured_mm_per_turn or rail.mm_per_turn
    return turn / rail.divisions if turn and rail.divisions else None


def _try(gear):
    """Make the core's element of a piece, to see whether its numbers can be."""
    if gear.kind in LENS_KINDS:
        lens_numbers(Placed(gear=gear))
    elif gear.kind == "bellows":
        Bellows(gear.shortest_mm, gear.longest_mm)
    elif gear.kind == "converter":
        Teleconverter(gear.factor, gear.thickness_mm)


def _say_assumed(index, gear, findings):
    at = f"/pieces/{index}/gear"
    if gear.kind == "lens" and gear.pupil_magnification is None and gear.measured_pupil_magnification is None:
        findings.note(
            "assumed.pupil",
            f"{at}/pupil_magnification",
            f"Pupil magnification not known: {ASSUMED_PUPIL_MAGNIFICATION:g} is assumed.",
            "Measure it with two tubes, or look at the aperture from both ends and divide the diameters.",
        )
    if gear.kind == "rail" and smallest_step_mm(gear) is None:
        findings.note(
            "assumed.rail_step",
            f"{at}/smallest_step_mm",
            "The rail's smallest step is not known: any step is taken as possible.",
            "Give it, or the mm a turn and the divisions of the knob.",
        )
