"""The lens of a row in numbers: a prime, a zoom where it is set, or an objective; measured values win."""

from dataclasses import dataclass

from just_plane.contract.gear import ASSUMED_PUPIL_MAGNIFICATION
from just_plane.core.lens import Objective, Prime, prime_from_data_sheet
from just_plane.core.zoom import Zoom, ZoomEnd


@dataclass(frozen=True, slots=True)
class LensNumbers:
    """What the rest of the planning needs of a lens, mm."""

    core: Prime | Objective
    """At infinity, the right way round."""
    widest: float
    narrowest: float
    stops: str
    barrel: float
    growth: float
    hood: float

    def barrel_at(self, own_magnification):
        """Mount to front of glass with the ring at a setting."""
        closest = self.core.closest_magnification
        return self.barrel + (self.growth * own_magnification / closest if closest else 0.0)

    def thin_from_mount(self, register):
        """Where the thin lens that stands for it lies before its mount when focused at infinity."""
        return self.core.focal_length_now - register


def lens_numbers(placed):
    """The numbers of a lens in the row.

    Raises
    ------
    OpticsError   The data sheet disagrees with itself, or the zoom is set outside its range or stands the wrong way.
    """
    gear = placed.gear
    if gear.kind == "objective":
        widest = 1 / (2 * gear.numerical_aperture)
        narrowest = 1 / (2 * gear.iris_to) if gear.iris_to is not None else widest
        objective = Objective(gear.magnification, gear.numerical_aperture, gear.tube_length_mm)
        return LensNumbers(objective, widest, max(narrowest, widest), "third", gear.barrel_mm, 0.0, 0.0)
    if gear.kind == "zoom":
        return _zoom(gear, placed.at_focal_length_mm)
    pupil = gear.measured_pupil_magnification or gear.pupil_magnification or ASSUMED_PUPIL_MAGNIFICATION
    marked = gear.measured_focal_length_mm or gear.focal_length_mm
    if gear.measured_closest_focal_length_mm is not None:
        core = Prime(marked, 0.0, gear.closest_magnification, gear.measured_closest_focal_length_mm, pupil)
    else:
        core = prime_from_data_sheet(marked, gear.minimum_focus_distance_mm, gear.closest_magnification, pupil)
    return LensNumbers(
        core,
        gear.widest_f_number,
        gear.narrowest_f_number,
        gear.stops,
        gear.barrel_mm,
        gear.barrel_growth_mm,
        min(gear.hood_mm, gear.barrel_mm),
    )


def zoom_in_core(gear):
    """A zoom's data sheet in the core's terms. Raises OutOfDomainError when its ends stand the wrong way round."""
    return Zoom(
        *(
            ZoomEnd(
                end.focal_length_mm,
                end.minimum_focus_distance_mm,
                end.closest_magnification,
                end.widest_f_number,
                end.narrowest_f_number,
                max(end.barrel_mm, 1e-3),
                end.pupil_magnification or ASSUMED_PUPIL_MAGNIFICATION,
            )
            for end in (gear.short, gear.long)
        )
    )


def _zoom(gear, set_to):
    there = zoom_in_core(gear).at(gear.long.focal_length_mm if set_to is None else set_to)
    core = prime_from_data_sheet(
        there.focal_length, there.minimum_focus_distance, there.closest_magnification, there.pupil_magnification
    )
    return LensNumbers(
        core,
        there.widest_f_number,
        there.narrowest_f_number,
        gear.stops,
        there.barrel,
        gear.barrel_growth_mm,
        min(gear.hood_mm, there.barrel),
    )
