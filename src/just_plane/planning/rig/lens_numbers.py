"""The lens of a row in numbers: a prime, a zoom where it is set, or an objective; measured values win."""

from dataclasses import dataclass, replace

from just_plane.contract.gear import ASSUMED_PUPIL_MAGNIFICATION
from just_plane.core.data_sheet import closest_size, focal_length_at_closest, large_sizes_only, prime_from_data_sheet
from just_plane.core.lens import Objective, Prime
from just_plane.core.on_paper import OnPaper, RoomOnPaper
from just_plane.core.zoom import Zoom, ZoomEnd


@dataclass(frozen=True, slots=True)
class LensNumbers:
    """What the rest of the planning needs of a lens, mm."""

    core: Prime | Objective
    """At the far end of its ring, the right way round."""
    widest: float
    narrowest: float
    stops: str
    barrel: float
    growth: float
    hood: float
    room: RoomOnPaper | None = None
    """Of a lens whose working distances are on paper."""
    closest_focus: float | None = None
    """Subject to sensor mark at its largest size, of a lens for large sizes only of which no working distance is."""

    def barrel_at(self, own_magnification):
        """Mount to front of glass with the ring at a setting."""
        far = self.core.farthest_magnification
        span = self.core.closest_magnification - far
        return self.barrel + (self.growth * (own_magnification - far) / span if span else 0.0)

    def on_body(self, register):
        """Its thin lens on a body, its front where the paper has it: the core's lens.

        Parameters
        ----------
        register : float   Mount to sensor, mm.
        """
        if isinstance(self.core, Objective):
            return self.core
        sizes = (self.core.farthest_magnification, self.core.closest_magnification)
        room = self.room
        if self.closest_focus is not None and room is None:
            near = self.closest_focus - register - self.barrel - self.growth
            room = RoomOnPaper(sizes[1], near, self.core.focal_length)
        if room is None:
            return self.core
        return replace(self.core, on_paper=OnPaper(register + self.barrel, self.growth, sizes, room))

    def thin_from_mount(self, register):
        """Where its principal plane toward the subject lies before its mount with the ring at its far end."""
        return self.core.image_distance - register + self.on_body(register).hiatus


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
    if gear.smallest_magnification is not None:
        core = large_sizes_only(marked, gear.smallest_magnification, gear.closest_magnification, pupil)
    elif gear.measured_closest_focal_length_mm is not None:
        core = Prime(marked, 0.0, gear.closest_magnification, gear.measured_closest_focal_length_mm, pupil)
    else:
        core = prime_from_data_sheet(marked, closest_focus(gear, marked), gear.closest_magnification, pupil)
    return LensNumbers(
        core,
        gear.widest_f_number,
        gear.narrowest_f_number,
        gear.stops,
        gear.barrel_mm,
        gear.barrel_growth_mm,
        min(gear.hood_mm, gear.barrel_mm),
        _room_on_paper(gear, marked),
        gear.minimum_focus_distance_mm if gear.smallest_magnification is not None else None,
    )


def closest_focus(gear, focal_length):
    """Subject to sensor at closest focus: as given, else that of a thin lens of this size there, mm."""
    if gear.minimum_focus_distance_mm is not None:
        return gear.minimum_focus_distance_mm
    size = gear.closest_magnification
    return focal_length * (2 + size + 1 / size)


def _room_on_paper(gear, focal_length):
    """The working distances of a lens for large sizes only: RoomOnPaper, or None where none is given."""
    smallest, largest = gear.smallest_magnification, gear.closest_magnification
    near, far = gear.working_distance_mm, gear.farthest_working_distance_mm
    if smallest is None or (near is None and far is None):
        return None
    if near is None:
        return RoomOnPaper(smallest, far, focal_length)
    if far is None or smallest == largest:
        return RoomOnPaper(largest, near, focal_length)
    return RoomOnPaper(largest, near, (far - near) / (1 / smallest - 1 / largest))


def zoom_in_core(gear):
    """A zoom's data sheet in the core's terms. Raises OutOfDomainError when its ends stand the wrong way round."""
    return Zoom(
        *(
            ZoomEnd(
                end.focal_length_mm,
                end.minimum_focus_distance_mm,
                size_at_end(end, other),
                end.widest_f_number,
                end.narrowest_f_number,
                max(end.barrel_mm, 1e-3),
                end.pupil_magnification or ASSUMED_PUPIL_MAGNIFICATION,
            )
            for end, other in ((gear.short, gear.long), (gear.long, gear.short))
        )
    )


def size_at_end(end, other):
    """Size at closest focus of one end of a zoom: as given, else what follows when it breathes as the other end does.

    Parameters
    ----------
    end, other : contract ZoomEnd

    Returns
    -------
    float

    Raises
    ------
    OutOfDomainError   The end cannot focus so close: its size must be given.
    """
    if end.closest_magnification is not None:
        return end.closest_magnification
    breathes = 1.0
    if other.closest_magnification is not None:
        there = focal_length_at_closest(other.minimum_focus_distance_mm, other.closest_magnification)
        breathes = there / other.focal_length_mm
    return closest_size(end.focal_length_mm, end.minimum_focus_distance_mm, breathes)


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
