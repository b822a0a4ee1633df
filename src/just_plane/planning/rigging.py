"""From body, tubes and lens to the core's rig, and what it gives at the framing asked."""

from dataclasses import dataclass

import numpy as np

from just_plane.contract.plan import Piece, Reach
from just_plane.core.errors import OpticsError
from just_plane.core.lens import prime_from_data_sheet
from just_plane.core.rig import Imaging, Rig, Tube

THROW_SETTINGS = 129
LEAST_ROOM = 5.0
"""Working distance, mm, under which nothing can be lit or placed: the subject stands in the lens's shade."""

FIELD_OF = {
    "minimum_focus_distance": "/lens/minimum_focus_distance_mm",
    "magnification": "/framing",
    "closest_magnification": "/lens/closest_magnification",
    "focal_length": "/lens/focal_length_mm",
    "pupil_magnification": "/lens/pupil_magnification",
    "length": "/tubes_mm",
}


@dataclass(frozen=True, slots=True)
class Rigged:
    """A rig focused for the framing, in the core's terms."""

    rig: Rig
    imaging: Imaging
    front_to_sensor: float
    """Front of the glass or hood to the sensor, mm."""
    settings: np.ndarray
    """Own magnifications over the focus throw, infinity first."""
    over_throw: Imaging
    """What the rig does at each of them."""

    @property
    def working_distance(self):
        return self.imaging.subject_to_sensor - self.front_to_sensor


def framed_magnification(shot):
    """Magnification that the framing asks for."""
    framing = shot.framing
    return (
        framing.magnification if framing.by == "magnification" else shot.body.sensor_width_mm / framing.frame_width_mm
    )


def framing_field(shot):
    """Pointer of the field that holds the framing's number."""
    return f"/framing/{'magnification' if shot.framing.by == 'magnification' else 'frame_width_mm'}"


def build_rig(shot, findings):
    """The rig at the framing asked, or None after saying why not."""
    lens = shot.lens
    try:
        prime = prime_from_data_sheet(
            lens.focal_length_mm, lens.minimum_focus_distance_mm, lens.closest_magnification, lens.pupil_magnification
        )
        rig = Rig((prime, *(Tube(length) for length in shot.tubes_mm)))
        rig = rig.at_magnification(framed_magnification(shot))
        imaging = rig.imaging()
        settings = np.linspace(0.0, prime.closest_magnification, THROW_SETTINGS)
        over_throw = rig.focused(settings).imaging()
    except OpticsError as error:
        field = framing_field(shot) if error.quantity == "magnification" else FIELD_OF.get(error.quantity, "/lens")
        findings.refused(error, field)
        return None
    return Rigged(rig, imaging, _front(shot, rig.prime.own_magnification), settings, over_throw)


def reach(shot, rigged, focus_behind_nearest, findings, wording):
    """The reach section of a plan, and what stands against the rig."""
    imaging, prime = rigged.imaging, rigged.rig.prime
    sizes, distances = rigged.over_throw.magnification, rigged.over_throw.subject_to_sensor
    farthest_focus = float(distances[0])
    room = rigged.working_distance - focus_behind_nearest
    _say_room(shot, rigged, room, findings, wording)
    width = shot.body.sensor_width_mm / imaging.magnification
    return Reach(
        magnification=imaging.magnification,
        smallest_magnification=float(sizes[0]),
        largest_magnification=float(sizes[-1]),
        frame_width_mm=width,
        frame_height_mm=shot.body.sensor_height_mm / imaging.magnification,
        working_distance_mm=rigged.working_distance,
        nearest_point_mm=room,
        subject_to_sensor_mm=imaging.subject_to_sensor,
        lens_front_to_sensor_mm=rigged.front_to_sensor,
        nearest_focus_mm=float(distances[-1]),
        farthest_focus_mm=None if farthest_focus == float("inf") else farthest_focus,
        focal_length_now_mm=prime.focal_length_now,
        own_magnification=prime.own_magnification,
        tube_magnification=imaging.magnification - prime.own_magnification,
        entrance_pupil_mm=imaging.pupil_distance,
        pieces=_pieces(shot, prime.own_magnification),
    )


def _barrel(shot, own_magnification):
    share = own_magnification / shot.lens.closest_magnification
    return shot.lens.barrel_mm + shot.lens.barrel_growth_mm * share


def _front(shot, own_magnification):
    return shot.body.register_mm + sum(shot.tubes_mm) + _barrel(shot, own_magnification)


def _pieces(shot, own_magnification):
    """The rig's outline, from the sensor outward, in mm from the sensor."""
    pieces = [Piece(kind="body", name=shot.body.name, from_sensor_mm=0.0, length_mm=shot.body.register_mm)]
    at = shot.body.register_mm
    for length in shot.tubes_mm:
        pieces.append(Piece(kind="tube", name=f"tube {length:g}", from_sensor_mm=at, length_mm=length))
        at += length
    barrel = _barrel(shot, own_magnification)
    pieces.append(Piece(kind="lens", name=shot.lens.name, from_sensor_mm=at, length_mm=barrel))
    return pieces


def _say_room(shot, rigged, room, findings, wording):
    tubes = sum(shot.tubes_mm)
    focal_length = rigged.rig.prime.focal_length_now
    if rigged.working_distance < 0:
        cause = (
            f" The tubes ({wording.length(tubes)}) are longer than the lens's focal length here "
            f"({wording.length(focal_length)})."
            if tubes > focal_length
            else ""
        )
        findings.trouble(
            "working_distance.inside_lens",
            "/tubes_mm" if tubes else framing_field(shot),
            f"The focus falls {wording.length(-rigged.working_distance)} inside the lens.{cause}",
            "Use a shorter tube or a longer lens, or ask for a wider frame.",
        )
    elif room < 0:
        findings.trouble(
            "subject.behind_lens_front",
            "/subject/depth_mm",
            f"The nearest point would lie {wording.length(-room)} inside the lens: the subject is deeper than the "
            f"{wording.length(rigged.working_distance)} in front of it.",
            "Make less of it sharp, use a longer lens, or ask for a wider frame.",
        )
    elif room < LEAST_ROOM:
        findings.caution(
            "working_distance.in_shade",
            framing_field(shot),
            f"Only {wording.length(room)} stay between lens and subject: it stands in the lens's own shade.",
            "A longer lens gives more room at the same framing.",
        )
    if tubes > focal_length and rigged.working_distance >= 0:
        findings.caution(
            "tubes.longer_than_focal_length",
            "/tubes_mm",
            f"The tubes ({wording.length(tubes)}) are longer than the lens's focal length here "
            f"({wording.length(focal_length)}); this model is least exact there.",
            "Measure the size of a ruler in one frame.",
        )
