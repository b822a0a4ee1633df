"""What a checked and merged stack is written out as: report, proofs, depth in mm, points, contact sheet."""

import cv2
import numpy as np

from just_plane.contract.check import DepthReport
from just_plane.frames.merging import enlarged_rows
from just_plane.frames.words import lengths
from just_plane.pictures.frames import read_colour
from just_plane.pictures.frames_out import (
    THUMB,
    contact_sheet,
    count_scale,
    depth_counts,
    depth_files,
    points_ply,
    proof_tiff,
    written,
)

ROWS = 256
"""Rows of a picture that are worked on at once."""
LEAST_KNOWN = 0.05
"""Confidence under which depth is written as unknown."""
SURE = 0.5
"""Confidence from which a point goes into the cloud."""


def write_report(path, report):
    """The report as JSON.

    Parameters
    ----------
    path : Path
    report : CheckReport
    """
    written(path, lambda to: to.write_text(report.model_dump_json(indent=1) + "\n"))


def in_mm(depth, report, used):
    """Depth counted in frames used, in mm behind the nearest point; in steps where the step is not known.

    Parameters
    ----------
    depth : array           In frames used.
    report : CheckReport
    used : list of int

    Returns
    -------
    (array, str)            And the unit.
    """
    known = all(report.frames[frame].focus_mm is not None for frame in used)
    places = [report.frames[frame].focus_mm if known else report.frames[frame].place_steps for frame in used]
    return np.interp(depth, np.arange(len(used)), np.array(places, float)), "mm" if known else "steps"


def write_depth(folder, report, used, found, depth):
    """The depth map, as large as the proofs.

    Parameters
    ----------
    folder : Path
    report : CheckReport
    used : list of int
    found : FocusMap
    depth : (h, w) array   Filled, in frames used.

    Returns
    -------
    DepthReport
    """
    width, height = report.size
    values, unit = in_mm(depth, report, used)
    zero, scale = count_scale(values[found.confidence >= LEAST_KNOWN])
    counts = np.empty((height, width), np.uint16)
    times = height // depth.shape[0]
    for top in range(0, height, ROWS):
        rows = slice(top, min(top + ROWS, height))
        full = enlarged_rows(values.astype(np.float32), times, rows)
        known = enlarged_rows(found.confidence, times, rows) >= LEAST_KNOWN
        counts[rows] = depth_counts(full, known, zero, scale)
    stem = folder / f"{report.name}-depth"
    depth_files(stem, counts, zero, scale, unit)
    return DepthReport(file=stem.name + ".tif", zero_mm=zero, mm_per_count=scale, unit=unit)


def with_depth(report, brush, told):
    """The report with what the depth map says.

    Parameters
    ----------
    report : CheckReport
    brush : Brush
    told : DepthReport

    Returns
    -------
    CheckReport
    """
    return report.model_copy(
        update={"depth": told, "brush_share": round(brush.share, 5), "method_that_suits": brush.method}
    )


def write_proof(folder, report, intake, facts, which, picture):
    """A proof.

    Parameters
    ----------
    folder : Path
    report : CheckReport
    intake : Intake
    facts : StackFacts
    which : str     The method, or which slab.
    picture : Picture

    Returns
    -------
    str             Name of the file.
    """
    px_per_mm = facts.magnification / facts.pixel_pitch if facts.magnification and facts.pixel_pitch else None
    name = f"{report.name}-{which}.tif" if which.startswith("slab") else f"{report.name}-proof-{which}.tif"
    proof_tiff(folder / name, picture, intake.facts[report.reference_frame], px_per_mm)
    return name


def reduced_picture(picture, times):
    """A picture at fewer pixels.

    Parameters
    ----------
    picture : Picture
    times : int         Fewer each way; 1, 2, 4 or 8.

    Returns
    -------
    (h, w, 3) uint8 array
    """
    height, width = picture.shape[0] // times, picture.shape[1] // times
    small = np.empty((height, width, 3), np.uint8)
    for top in range(0, height, ROWS):
        rows = picture.read(top * times, min(top + ROWS, height) * times)[:, : width * times]
        fewer = cv2.resize(rows, (width, rows.shape[0] // times), interpolation=cv2.INTER_AREA)
        small[top : top + ROWS] = np.rint(fewer / np.float32(257))
    return small


def write_points(folder, report, facts, used, found, depth, picture):
    """The cloud of points, where size, pitch and step are known.

    Parameters
    ----------
    folder : Path
    report : CheckReport
    facts : StackFacts
    used : list of int
    found : FocusMap
    depth : (h, w) array     Filled, in frames used.
    picture : Picture

    Returns
    -------
    str or None              Name of the file; None where mm are not known.
    """
    values, unit = in_mm(depth, report, used)
    if unit != "mm" or not facts.magnification or not facts.pixel_pitch:
        return None
    height, width = depth.shape
    reduction = facts.reduction(report.width_px)
    small = reduced_picture(picture, reduction)
    rows, columns = np.mgrid[:height, :width]
    centre = (report.width_px - 1) / 2, (report.height_px - 1) / 2
    x = reduction * columns + (reduction - 1) / 2 + report.origin[0] - centre[0]
    y = reduction * rows + (reduction - 1) / 2 + report.origin[1] - centre[1]
    reference = report.frames[report.reference_frame].focus_mm
    pupil = facts.pupil_distance
    spread = 1.0 if pupil is None else (pupil + values - reference) / pupil
    per_px = facts.pixel_pitch / facts.magnification * spread
    sure = found.confidence > SURE
    points = np.stack([(x * per_px)[sure], (-y * per_px)[sure], values[sure]], axis=-1)
    colours = small[..., ::-1][sure]
    name = f"{report.name}-points.ply"
    points_ply(folder / name, points, colours)
    return name


def write_sheet(folder, report, intake):
    """The contact sheet: every frame that can be read, what it holds, and what was found.

    Parameters
    ----------
    folder : Path
    report : CheckReport
    intake : Intake

    Returns
    -------
    str   Name of the file.
    """
    thumbs: list = []
    captions: list = []
    marked: set = set()
    concerned = {one.frame for one in report.findings if one.frame is not None}
    for frame, (told, facts) in enumerate(zip(report.frames, intake.facts, strict=True)):
        if facts is None or told.why_not == "unreadable":
            continue
        picture = read_colour(facts)
        height = max(round(picture.shape[0] * THUMB / picture.shape[1]), 1)
        small = cv2.resize(picture, (THUMB, height), interpolation=cv2.INTER_AREA)
        small = small if small.dtype == np.uint8 else (small // 257).astype(np.uint8)
        if frame in concerned:
            marked.add(len(thumbs))
        units = report.plan.units
        where = f"{lengths([told.focus_mm], units)[0]} {units}" if told.focus_mm is not None else ""
        light = f"{told.ev:+.2f} EV" if told.ev is not None else ""
        thumbs.append(np.ascontiguousarray(small[..., ::-1]))
        captions.append(
            (f"{frame + 1}  {told.file[:22]}", "  ".join(part for part in (where, light, told.why_not) if part))
        )
    name = f"{report.name}-sheet.jpg"
    contact_sheet(folder / name, thumbs, captions, marked)
    return name
