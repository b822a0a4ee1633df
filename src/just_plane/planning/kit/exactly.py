"""A row that the search found, worked out exactly as a shot's rig is, with what stands against it."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from just_plane.contract.base import LARGEST_RATIO, TINIEST
from just_plane.contract.search import FoundRig, SearchAsked
from just_plane.contract.shot import FramingByMagnification, MeasuredSize
from just_plane.core.aperture import stops_lost
from just_plane.core.errors import OpticsError
from just_plane.planning.kit.trial import LIGHT_AT
from just_plane.planning.rig.cautions import rig_faults
from just_plane.planning.rig.chain import arrange
from just_plane.planning.rig.kinds import LENS_KINDS, name_of
from just_plane.planning.rig.rigging import RigAsked, assemble, build_rig, rig_key, sensor
from just_plane.planning.words.findings import RefusedError
from just_plane.planning.words.numbers import Wording

FITS = 0.02
"""Share by which a frame may be wider or narrower than asked and still be that one."""
ZOOMS_TRIED = 40


@dataclass(frozen=True, slots=True)
class Exactly:
    """What every row is worked out for."""

    base: RigAsked
    asked: SearchAsked
    measured: dict[tuple, Any]
    """Rigs of the kit whose size was measured, by key."""
    wording: Wording

    def found(self, candidate):
        """A row worked out (Candidate): FoundRig, or None when it turns out to give nothing."""
        setting = replace(self.base, rig=candidate.row)
        known = self.measured.get(tuple(rig_key(setting)))
        if known is not None:
            measured = MeasuredSize(
                magnification=known.magnification, uncertainty=known.uncertainty, modelled=known.modelled
            )
            setting = replace(setting, measured=measured)
        setting, made = self._built(setting, candidate)
        if made is None or made.working_distance <= 0:
            return None
        return self._answer(setting, made)

    def _built(self, setting, candidate):
        """Set for the frame asked, its zoom turned where that helps; else as near as it comes: (RigAsked, Rigged)."""
        if self.asked.look_for == "frame":
            made = _built_or_none(setting, self.wording)
            if made is not None:
                return setting, made
            for zoomed in _zoomed(setting):
                made = _built_or_none(zoomed, self.wording)
                if made is not None:
                    return zoomed, made
            wanted = sensor(setting).width / self.asked.frame_width_mm
        else:
            wanted = candidate.size
        size = _nearest_size(setting, wanted, self.wording)
        if size is None or not TINIEST <= size <= LARGEST_RATIO:
            return setting, None
        setting = replace(setting, framing=FramingByMagnification(by="magnification", magnification=size))
        return setting, _built_or_none(setting, self.wording)

    def _answer(self, setting, made):
        asked, wording = self.asked, self.wording
        area, m = sensor(setting), made.imaging.magnification
        width = area.width / m
        marked = min(max(LIGHT_AT, made.lens.widest), made.lens.narrowest)
        effective = float(made.imaging.effective_f_number(marked))
        fits = asked.look_for != "frame" or abs(width / asked.frame_width_mm - 1) <= FITS
        room_enough, against = self._room(made)
        if not fits:
            against.append(
                f"{wording.length(width)} wide: {'wider' if width > asked.frame_width_mm else 'narrower'} than asked"
            )
        against += [said.message.rstrip(".") for said in rig_faults(made, wording)]
        return FoundRig(
            title=title(setting.rig),
            rig=setting.rig,
            framing=setting.framing,
            measured=setting.measured,
            fits=fits,
            room_enough=room_enough,
            magnification=m,
            frame_width_mm=width,
            frame_height_mm=area.height / m,
            working_distance_mm=made.working_distance,
            subject_to_sensor_mm=made.imaging.subject_to_sensor,
            f_number=marked,
            effective_f_number=effective,
            stops_lost=stops_lost(marked, effective),
            against=against,
            outline=list(made.pieces),
        )

    def _room(self, made):
        """Whether the room is as asked, and what stands against it: (bool, list of str)."""
        room, asked = made.working_distance, self.asked.room_mm
        if self.asked.look_for == "widest":
            enough = room <= asked * (1 + 1e-3)
            return enough, [] if enough else [f"stands {self.wording.length(room)} away: farther than there is room"]
        # A size looked up between two settings of the ring is good to a little.
        slack = 1e-6 if self.asked.look_for == "frame" else 2e-2
        enough = room >= asked * (1 - slack)
        return enough, [] if enough else [f"{self.wording.length(room)} of room: nearer than asked"]


def title(row):
    """The row in words, lens first (list of Placed): ``60 mm macro, f/2.8 · tube 12 mm``."""
    lenses = [placed for placed in row if placed.gear.kind in LENS_KINDS]
    words = []
    for placed in reversed(lenses):
        at = placed.at_focal_length_mm
        words.append(
            name_of(placed.gear)
            + (f" at {at:g} mm" if at is not None else "")
            + (" turned round" if placed.reversed else "")
        )
    others = [placed for placed in reversed(row) if placed not in lenses and not placed.gear.kind.endswith("ring")]
    words += [name_of(placed.gear) for placed in others]
    return " · ".join(words)


def _built_or_none(setting, wording):
    try:
        return build_rig(setting, wording)
    except RefusedError:
        return None


def _nearest_size(setting, wanted, wording):
    """The size nearest to one wanted that a row gives; None where it gives none."""
    try:
        smallest, largest = assemble(setting, arrange(setting.rig), wording)[1].magnification_range()
    except (RefusedError, OpticsError):
        return None
    return min(max(wanted, smallest), largest) or None


def _zoomed(setting):
    """The same row with its zoom elsewhere, nearest to where it stands first: yields RigAsked."""
    at = next((index for index, placed in enumerate(setting.rig) if placed.at_focal_length_mm is not None), None)
    if at is None:
        return
    placed = setting.rig[at]
    gear, stands_at = placed.gear, placed.at_focal_length_mm
    short, long = gear.short.focal_length_mm, gear.long.focal_length_mm
    # Whole millimetres, as a hand can set them, and both ends.
    tried = {short, long, *(float(round(each)) for each in np.geomspace(short, long, ZOOMS_TRIED))}
    for focal_length in sorted(tried, key=lambda each: abs(each - stands_at)):
        if not short <= focal_length <= long:
            continue
        turned = placed.model_copy(update={"at_focal_length_mm": focal_length})
        yield replace(setting, rig=[*setting.rig[:at], turned, *setting.rig[at + 1 :]])
