"""Frames as a camera writes them: a JPEG with its notes, and a linear DNG beside it."""

from typing import NamedTuple

import numpy as np
import tifffile
from PIL import Image

from just_plane.core.view.sensor import toned
from just_plane.pictures.frames_out import written
from just_plane.pictures.reading import NOTES, TAKEN

QUALITY = 95
EXPOSURE, F_NUMBER, ISO, FOCAL_LENGTH, MODEL = 33434, 33437, 34855, 37386, 272
FOCAL_PLANE, FOCAL_PLANE_Y, FOCAL_PLANE_UNIT, IN_MM, NOTED_WIDTH = 41486, 41487, 41488, 4, 40962
LINEAR_RAW = 34892
DNG_VERSION, DNG_BACKWARD, UNIQUE_MODEL, WHITE_LEVEL, COLOUR_MATRIX, AS_SHOT_NEUTRAL, LIGHT_SOURCE = (
    50706,
    50707,
    50708,
    50717,
    50721,
    50728,
    50778,
)
D65 = 21
XYZ_TO_SRGB = np.array(
    [[3.2404542, -1.5371385, -0.4985314], [-0.9692660, 1.8760108, 0.0415560], [0.0556434, -0.2040259, 1.0572252]]
)
"""Daylight to the linear primaries of common screens (IEC 61966-2-1)."""


class Notes(NamedTuple):
    """What a camera notes of a frame."""

    shutter_s: float
    f_number: float
    iso: float
    taken: str
    """YYYY:MM:DD HH:MM:SS."""
    camera: str
    focal_length_mm: float | None = None
    pitch_mm: float | None = None
    """Of a pixel on the sensor."""


def write_jpeg(path, light, notes):
    """A JPEG with its notes.

    Parameters
    ----------
    path : Path
    light : (H, W, 3) array   Linear, 0 to 1.
    notes : Notes

    Raises
    ------
    WriteError
    """
    exif = Image.Exif()
    exif[MODEL] = notes.camera
    inside = exif.get_ifd(NOTES)
    inside.update(
        {TAKEN: notes.taken, EXPOSURE: notes.shutter_s, F_NUMBER: notes.f_number, ISO: round(notes.iso)}
        | ({} if notes.focal_length_mm is None else {FOCAL_LENGTH: notes.focal_length_mm})
    )
    image = Image.fromarray(toned(np.clip(light, 0.0, 1.0)))
    if notes.pitch_mm is not None:
        per_mm = 1 / notes.pitch_mm
        inside.update({FOCAL_PLANE: per_mm, FOCAL_PLANE_Y: per_mm, FOCAL_PLANE_UNIT: IN_MM, NOTED_WIDTH: image.width})
    written(path, lambda to: image.save(to, "JPEG", quality=QUALITY, subsampling=0, exif=exif.tobytes()))


def write_dng(path, light, notes):
    """A raw file that any program for raw files reads: three linear channels of 16 bits.

    Parameters
    ----------
    path : Path
    light : (H, W, 3) array   Linear, 0 to 1.
    notes : Notes

    Raises
    ------
    WriteError
    """
    values = np.rint(np.clip(light, 0.0, 1.0) * 65535).astype(np.uint16)
    matrix = [(round(value * 10_000), 10_000) for value in XYZ_TO_SRGB.ravel()]
    tags = [
        (DNG_VERSION, 1, 4, bytes((1, 4, 0, 0)), True),
        (DNG_BACKWARD, 1, 4, bytes((1, 1, 0, 0)), True),
        (UNIQUE_MODEL, 2, 0, notes.camera, True),
        (MODEL, 2, 0, notes.camera, True),
        (WHITE_LEVEL, 4, 3, (65535,) * 3, True),
        (COLOUR_MATRIX, 10, 9, [part for pair in matrix for part in pair], True),
        (AS_SHOT_NEUTRAL, 5, 3, (1, 1) * 3, True),
        (LIGHT_SOURCE, 3, 1, D65, True),
        (EXPOSURE, 5, 1, _rational(notes.shutter_s), True),
        (F_NUMBER, 5, 1, _rational(notes.f_number), True),
        (ISO, 3, 1, min(round(notes.iso), 65535), True),
    ]
    written(
        path,
        lambda to: tifffile.imwrite(
            to,
            values,
            photometric=LINEAR_RAW,
            planarconfig="contig",
            datetime=notes.taken,
            extratags=tags,
            metadata=None,
        ),
    )


def _rational(value):
    return (1_000_000, round(1_000_000 / value)) if value < 1 else (round(value * 1000), 1000)
