"""Every stop of the lens on this rig, worked out together, and the one in use."""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from just_plane.core.contrast import perfect_contrast
from just_plane.core.depth import allowed_blur, best_aperture, depth_from_blur
from just_plane.core.errors import OpticsError
from just_plane.core.kept import Kept
from just_plane.core.stops import marked_stops
from just_plane.core.units import MM_PER_NM
from just_plane.planning.setup.exposure import shutter
from just_plane.planning.setup.tried import tried_stops
from just_plane.planning.words.findings import RefusedError, note, refused, trouble
from just_plane.planning.words.numbers import f_stop

BETWEEN_CLICKS = 0.005
"""Share by which a stop may lie beside an engraved one and still be that one."""


class Stop(NamedTuple):
    """One stop in plain numbers."""

    f_number: float
    effective_f_number: float
    blur: float
    """That the chosen school still allows on the sensor, mm; 0: none."""
    depth: float
    """Of field, mm."""
    perfect: float
    """Contrast in perfect focus."""
    shutter: float
    """s."""
    lens_share: float = 1.0
    """Of a perfect lens's contrast, as a trial measured it; 1 where none did."""


@dataclass(frozen=True, slots=True, eq=False)
class Stops:
    """Every stop of the lens. (N,) arrays, widest first; mm, s."""

    f_numbers: np.ndarray
    effective_f_numbers: np.ndarray
    blurs: np.ndarray
    """Blur that the chosen school still allows."""
    depths: np.ndarray
    perfect: np.ndarray
    shutters: np.ndarray
    clicks: int
    """How many entries are stops of the lens; one more stands for a stop in use between them."""
    chosen: int
    """Index of the stop in use."""
    lens_share: np.ndarray
    """Of a perfect lens's contrast that a trial found; 1 where there is none."""
    tried: str
    """By which trial; empty: by none."""

    def at(self, index):
        """One of them: Stop."""
        columns = (
            *(self.f_numbers, self.effective_f_numbers, self.blurs, self.depths, self.perfect, self.shutters),
            self.lens_share,
        )
        return Stop(*(float(column[index]) for column in columns))


def stops_of(rigged, aperture, sharp, circle, light, wording):
    """Every stop of the lens and the one in use.

    Parameters
    ----------
    rigged : Rigged
    aperture : contract Aperture
    sharp : contract Sharp
    circle : float               mm.
    light : contract Light
    wording : Wording

    Returns
    -------
    (Stops, tuple of Finding)

    Raises
    ------
    RefusedError                 The lens's stops cannot be.
    """
    lens = rigged.lens
    marked = marked_stop(aperture, rigged)
    try:
        f_numbers = marked_stops(lens.widest, lens.narrowest, lens.stops)
    except OpticsError as error:
        raise RefusedError(refused(error, f"/rig/{rigged.row.lens}/gear/widest_f_number", wording)) from error
    clicks = len(f_numbers)
    chosen = next((i for i, stop in enumerate(f_numbers) if abs(stop / marked - 1) < BETWEEN_CLICKS), clicks)
    if chosen < clicks:
        return _worked_out(rigged, f_numbers, clicks, chosen, sharp, circle, light), ()
    return (
        _worked_out(rigged, (*f_numbers, marked), clicks, chosen, sharp, circle, light),
        (_not_engraved(lens, marked),),
    )


class Best(NamedTuple):
    """The stop that serves best, and what it is best in."""

    place: int
    """Index of the stop."""
    by: str
    """``contrast`` over the depth; ``most_of_depth`` where none holds all of it; ``in_focus`` where none holds any."""


def worst_over_depth(depth, stops, imaging, circle, wavelength, threshold):
    """Worst contrast over the depth at each stop, and the stop that serves best: ((N,) array, Best).

    Parameters
    ----------
    depth, circle, wavelength : float   mm.
    stops : Stops
    imaging : Imaging
    threshold : float                   Contrast that counts as sharp.
    """
    curve = best_aperture(
        depth,
        stops.f_numbers,
        stops.effective_f_numbers,
        imaging.magnification,
        circle,
        wavelength,
        imaging.pupil_distance,
    )
    worst = curve.worst_contrast * stops.lens_share
    return worst, _best(worst[: stops.clicks], stops, threshold)


def _best(worst, stops, threshold):
    """Contrasts near zero, or reversed, say nothing: then what is held counts; or where none is, what is in focus."""
    depths, perfect = stops.depths[: stops.clicks], stops.perfect[: stops.clicks]
    if worst.max() >= threshold:
        return Best(int(np.argmax(worst)), "contrast")
    if depths.max() > 0:
        return Best(int(np.argmax(depths)), "most_of_depth")
    return Best(int(np.argmax(perfect)), "in_focus")


def _all_stops(rigged, f_numbers, depth_school, threshold, wavelength, circle, light, lens_share):
    """The columns of Stops for some marked stops."""
    imaging = rigged.imaging
    marked = np.array(f_numbers)
    effective = np.asarray(imaging.effective_f_number(marked))
    blurs = _allowed(depth_school, circle, effective, wavelength, threshold, lens_share)
    return {
        "f_numbers": marked,
        "effective_f_numbers": effective,
        "blurs": blurs,
        "depths": depth_from_blur(blurs, effective, imaging.magnification),
        "perfect": perfect_contrast(wavelength * effective / circle) * np.array(lens_share),
        "shutters": shutter(light, marked, imaging),
    }


def _allowed(depth_school, circle, effective, wavelength, threshold, lens_share):
    """Blur still allowed at every stop: what a lens loses by itself, defocus may not take as well."""
    if depth_school != "contrast" or min(lens_share) == 1.0:
        return allowed_blur(depth_school, circle, effective, wavelength, threshold)
    blurs = []
    for works_as, share in zip(effective, lens_share, strict=True):
        left = threshold / max(share, 1e-9)
        blurs.append(float(allowed_blur(depth_school, circle, float(works_as), wavelength, left)) if left < 1 else 0.0)
    return np.array(blurs)


_columns = Kept(_all_stops)


def _worked_out(rigged, f_numbers, clicks, chosen, sharp, circle, light):
    wavelength = sharp.wavelength_nm * MM_PER_NM
    tried = tried_stops(rigged.row.gear(rigged.row.lens), rigged.imaging.magnification, f_numbers, circle)
    columns = _columns(
        rigged, f_numbers, sharp.depth_school, sharp.contrast_threshold, wavelength, circle, light, tried.share
    )
    return Stops(**columns, clicks=clicks, chosen=chosen, lens_share=np.array(tried.share), tried=tried.said)


def marked_stop(aperture, rigged):
    """The marked stop in use (contract Aperture, Rigged): float. An aperture that cannot be set is what it is."""
    lens = rigged.lens
    if lens.widest == lens.narrowest:
        return lens.widest
    shown = aperture.f_number
    if aperture.reading == "effective":
        return shown / rigged.imaging.f_number_factor
    return shown / rigged.converters if aperture.reading == "with_converter" else shown


def _not_engraved(lens, marked):
    field = "/aperture/f_number"
    if marked < lens.widest * (1 - BETWEEN_CLICKS) or marked > lens.narrowest * (1 + BETWEEN_CLICKS):
        return trouble(
            "f_number.not_on_lens",
            field,
            f"This lens goes from {f_stop(lens.widest)} to {f_stop(lens.narrowest)}; "
            f"{f_stop(marked)} marked cannot be set.",
            "Choose a stop in that range.",
        )
    return note("f_number.between_clicks", field, f"{f_stop(marked)} lies between two {lens.stops} stops of this lens.")
