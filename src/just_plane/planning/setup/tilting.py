"""The rig as a lens that tilts."""

import math

from just_plane.core.plane.tilting_lens import ACROSS, UP, TiltingLens


def tilting_lens(rigged):
    """What tilts in a rig: TiltingLens; a lens without the movement has a limit of 0."""
    row, imaging, lens = rigged.row, rigged.imaging, rigged.rig.lens
    gear, placed = row.gear(row.lens), row.pieces[row.lens]
    m = float(imaging.magnification)
    if row.facing is not None or gear.kind == "objective":
        # Nothing tilts here; a lens alone that does the same in the subject stands for the whole.
        distance = float(imaging.pupil_distance)
        return TiltingLens(
            distance / (1 + 1 / m), distance, m, 1.0, 0.0, UP, turns=False, click=None, pivot_behind_node=None
        )
    power = 1 / lens.focal_length_now
    power += sum(row.gear(index).dioptres / 1000 for index in row.front if row.kind(index) == "close_up")
    focal_length = float(1 / power)
    own = lens.focal_length_now * (1 + float(imaging.lens_magnification)) / focal_length - 1
    tilts = gear.kind == "lens" and not placed.reversed
    return TiltingLens(
        focal_length,
        focal_length * (1 + 1 / own),
        own,
        m / own,
        math.radians(gear.tilt_deg) if tilts else 0.0,
        ACROSS if rigged.asked.camera_on_its_side else UP,
        tilts and gear.rotates != "no",
        math.radians(gear.click_apart_deg) if tilts and gear.rotates == "clicks" and gear.click_apart_deg else None,
        gear.pivot_behind_node_mm if tilts else None,
    )
