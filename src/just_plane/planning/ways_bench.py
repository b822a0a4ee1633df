"""What every way to get a shot starts from, and what one is before it is ranked."""

from dataclasses import dataclass

from just_plane.contract.plan import BackOffAnswer, StackAnswer
from just_plane.contract.shot import Shot
from just_plane.core.plane import TiltSetting
from just_plane.core.units import MM_PER_NM
from just_plane.core.ways import Pace, View, Way
from just_plane.planning.apertures import Stops
from just_plane.planning.plane_work import PlaneWork
from just_plane.planning.rigging import Rigged
from just_plane.planning.wording import Wording


@dataclass(frozen=True, slots=True)
class Compared:
    """One way with its words, before one of them is recommended."""

    id: str
    way: Way
    title: str
    note: str
    against: tuple[str, ...] = ()
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


@dataclass(frozen=True, slots=True)
class Bench:
    """What every way starts from."""

    shot: Shot
    rigged: Rigged
    stops: Stops
    view: View
    circle: float
    focus: float
    wording: Wording
    plane: PlaneWork | None

    @property
    def pace(self):
        options = self.shot.stack
        return Pace(options.settle_s, options.recovery_s, options.noise_reduction)

    @property
    def chosen(self):
        """The stop in use: marked f-number, effective f-number, blur still allowed on the sensor (mm)."""
        stops, index = self.stops, self.stops.chosen
        return float(stops.f_numbers[index]), float(stops.effective_f_numbers[index]), float(stops.blurs[index])

    def exposure(self, index):
        """Shutter time at a stop, s."""
        return float(self.stops.shutters[index])


def bench(shot, rigged, stops, circle, focus, wording, plane=None):
    """The common ground of all ways."""
    imaging = rigged.imaging
    view = View(
        imaging.magnification,
        imaging.pupil_distance,
        circle,
        shot.subject.depth_mm,
        shot.sharp.wavelength_nm * MM_PER_NM,
    )
    return Bench(shot, rigged, stops, view, circle, focus, wording, plane)


def impossible(bench, way_id, kind, title, reason):
    """A way that this set-up does not have, and why."""
    index = bench.stops.chosen
    way = Way(
        kind,
        float(bench.stops.f_numbers[index]),
        float(bench.stops.effective_f_numbers[index]),
        *((), (), 0.0, 0.0, 0.0, 0.0),
    )
    return Compared(way_id, way, title, "not with this set-up", (reason[:1].lower() + reason[1:].rstrip("."),))
