"""What a checked and merged stack is written out as: report, proofs, depth in mm, points, contact sheet."""

import cv2
import numpy as np

from just_plane.contract.check import DepthReport, PictureReport
from just_plane.pictures.frames import read_colour
from just_plane.pictures.frames_out import (
    THUMB,
    contact_sheet,
    depth_counts,
    depth_files,
    points_ply,
    proof_tiff,
    written,
)

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
    full = cv2.resize(values.astype(np.float32), (width, height), interpolation=cv2.INTER_LINEAR)
    known = cv2.resize(found.confidence, (width, height), interpolation=cv2.INTER_LINEAR) >= LEAST_KNOWN
    counts, zero, scale = depth_counts(full, known)
    stem = folder / f"{report.name}-depth"
    depth_files(stem, counts, zero, scale, unit)
    return DepthReport(file=stem.name + ".tif", zero_mm=zero, mm_per_count=scale, unit=unit)


def with_depth(report, merger, depth, told):
    """The report with what the depth map says.

    Parameters
    ----------
    report : CheckReport
    merger : Merger
    depth : (h, w) array   Filled, in frames used.
    told : DepthReport

    Returns
    -------
    CheckReport
    """
    brush = merger.brush(depth)
    return report.model_copy(
        update={"depth": told, "brush_share": round(brush.share, 5), "method_that_suits": brush.method}
    )


def write_proofs(folder, report, intake, facts, pictures):
    """The proofs.

    Parameters
    ----------
    folder : Path
    report : CheckReport
    intake : Intake
    facts : StackFacts
    pictures : dict      Method to picture.

    Returns
    -------
    list of PictureReport
    """
    px_per_mm = facts.magnification / facts.pixel_pitch if facts.magnification and facts.pixel_pitch else None
    told = []
    for method, picture in pictures.items():
        name = f"{report.name}-proof-{method}.tif"
        proof_tiff(folder / name, picture, intake.facts[report.reference_frame], px_per_mm)
        told.append(PictureReport(method=method, file=name))
    return told


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
    picture : (H, W, 3) array

    Returns
    -------
    str or None              Name of the file; None where mm are not known.
    """
    values, unit = in_mm(depth, report, used)
    if unit != "mm" or not facts.magnification or not facts.pixel_pitch:
        return None
    height, width = depth.shape
    reduction = facts.reduction(report.width_px)
    small = cv2.resize(picture, (width, height), interpolation=cv2.INTER_AREA)
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
    colours = np.rint(np.clip(small[..., ::-1][sure], 0, 1) * 255).astype(np.uint8)
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
        where = f"{told.focus_mm:.2f} mm" if told.focus_mm is not None else ""
        light = f"{told.ev:+.2f} EV" if told.ev is not None else ""
        thumbs.append(np.ascontiguousarray(small[..., ::-1]))
        captions.append(
            (f"{frame + 1}  {told.file[:22]}", "  ".join(part for part in (where, light, told.why_not) if part))
        )
    name = f"{report.name}-sheet.jpg"
    contact_sheet(folder / name, thumbs, captions, marked)
    return name
