"""Frames of a stack in and out of files: JPEG, PNG, TIFF, DNG and camera raw; each refused by itself, in words.

Pictures are the right way up, encoded as they came, 8 or 16 bits, blue-green-red as OpenCV keeps them.
"""

import hashlib
import struct
from typing import NamedTuple

import cv2
import numpy as np
import rawpy
from PIL import Image, UnidentifiedImageError

from just_plane.pictures.reading import LEAST_BYTES_A_MEGAPIXEL, MOST_PIXELS, NOTES, PLAIN_UP_TO, PictureError

RAW_KINDS = (".dng", ".nef", ".cr2", ".cr3", ".arw", ".orf", ".rw2", ".raf", ".pef", ".srw")
PLAIN_KINDS = (".jpg", ".jpeg", ".png", ".tif", ".tiff")
LEAST_SIDE = 48
SCREEN_CURVE = (2.4, 12.92)
"""Exponent and slope near black of common screens (IEC 61966-2-1): what comes out of a raw file is as a JPEG is."""
ORIENTATION, MAKE_MODEL, EXPOSURE, F_NUMBER, ISO, TAKEN, FOCAL_LENGTH = (
    274,
    (271, 272),
    33434,
    33437,
    34855,
    36867,
    37386,
)
LENS_MODEL, EXPOSURE_MODE, WHITE_BALANCE, FLASH = 42036, 41986, 41987, 37385
FOCAL_PLANE, FOCAL_PLANE_UNIT, NOTED_WIDTH = 41486, 41488, 40962
UNITS_MM = {2: 25.4, 3: 10.0, 4: 1.0, 5: 0.001}
"""Of the unit in which pixels of the sensor are counted (Exif 2.3)."""
LEAST_PITCH_MM, MOST_PITCH_MM = 0.0002, 0.1
SAME_WIDTH = 0.03
TAKEN_PART = 37521
"""Parts of the second at which it was taken."""
_TURNS = {
    2: lambda a: a[:, ::-1],
    3: lambda a: a[::-1, ::-1],
    4: lambda a: a[::-1],
    5: lambda a: a.swapaxes(0, 1),
    6: lambda a: a.swapaxes(0, 1)[:, ::-1],
    7: lambda a: a[::-1, ::-1].swapaxes(0, 1),
    8: lambda a: a.swapaxes(0, 1)[::-1],
}
_ENDS = {"JPEG": b"\xff\xd9", "MPO": b"\xff\xd9", "PNG": b"IEND"}


class FrameFacts(NamedTuple):
    """A frame by what its file says before a pixel is unpacked."""

    path: str
    kind: str
    """JPEG, PNG, TIFF or raw."""
    width: int
    height: int
    """The right way up."""
    turned: int
    """Orientation as the camera noted it, 1 to 8."""
    icc: bytes | None
    taken: str
    exposure_s: float | None
    f_number: float | None
    iso: float | None
    focal_length_mm: float | None
    camera: str
    grey: bool
    """One channel only."""
    lens: str = ""
    auto_exposure: bool | None = None
    """The camera chose the exposure; None: not noted. The same of the next two."""
    auto_white: bool | None = None
    flash: bool | None = None
    """It fired."""
    pitch_mm: float | None = None
    """Of a pixel on the sensor, as the camera noted it; not of a picture that was made smaller since."""


def frame_facts(path):
    """What a file says of itself.

    Parameters
    ----------
    path : Path

    Returns
    -------
    FrameFacts

    Raises
    ------
    PictureError   No picture, cut short, too large, too small.
    """
    try:
        if path.suffix.lower() in RAW_KINDS:
            return _raw_facts(path)
        with Image.open(path, formats=("JPEG", "PNG", "TIFF")) as opened:
            return _plain_facts(path, opened)
    except (UnidentifiedImageError, rawpy.LibRawError, SyntaxError, ValueError, EOFError, OverflowError) as error:
        if isinstance(error, PictureError):
            raise
        raise PictureError(
            "It is no picture that the program can read.", "Take the frame as the camera wrote it."
        ) from error
    except FileNotFoundError as error:
        raise PictureError("It is gone.", "Put it back, or check the folder again.") from error
    except OSError as error:
        raise PictureError("It cannot be read.", "Look whether it is whole and may be read.") from error


def _plain_facts(path, opened):
    kind = str(opened.format)
    width, height = opened.size
    size = path.stat().st_size
    _judge_size(width, height, size)
    if not _whole(path, opened, kind, size):
        raise PictureError("It is cut short.", "Copy it from the camera again.")
    notes = _notes(opened.getexif())
    turned = notes.get(ORIENTATION, 1)
    turned = turned if turned in range(1, 9) else 1
    pitch = _pitch(notes, width)
    if turned >= 5:
        width, height = height, width
    return FrameFacts(
        path=str(path),
        kind="JPEG" if kind == "MPO" else kind,
        width=width,
        height=height,
        turned=turned,
        icc=opened.info.get("icc_profile"),
        grey=opened.mode in ("1", "L", "LA", "I;16", "I;16B", "I", "F"),
        pitch_mm=pitch,
        **_noted(notes),
    )


def _notes(exif):
    return {**dict(exif), **dict(exif.get_ifd(NOTES))}


def _noted(notes):
    """What the camera noted of its settings, as members of FrameFacts."""
    exposure, stop, iso, focal = (_number(notes.get(tag)) for tag in (EXPOSURE, F_NUMBER, ISO, FOCAL_LENGTH))
    mode, white, flash = (notes.get(tag) for tag in (EXPOSURE_MODE, WHITE_BALANCE, FLASH))
    return {
        "taken": _moment(notes.get(TAKEN, ""), notes.get(TAKEN_PART)),
        "exposure_s": exposure,
        "f_number": stop,
        "iso": iso,
        "focal_length_mm": focal,
        "camera": " ".join(str(notes[tag]).strip("\0 ") for tag in MAKE_MODEL if tag in notes)[:100],
        "lens": str(notes.get(LENS_MODEL, "")).strip("\0 ")[:100],
        "auto_exposure": mode != 1 if mode in (0, 1, 2) else None,
        "auto_white": white == 0 if white in (0, 1) else None,
        "flash": bool(flash & 1) if isinstance(flash, int) else None,
    }


def _pitch(notes, width):
    """How wide a pixel is on the sensor, where the notes are of pixels as many as these."""
    each, noted = _number(notes.get(FOCAL_PLANE)), _number(notes.get(NOTED_WIDTH))
    unit = UNITS_MM.get(notes.get(FOCAL_PLANE_UNIT, 2))
    if each is None or noted is None or unit is None or abs(noted / width - 1) > SAME_WIDTH:
        return None
    return unit / each if LEAST_PITCH_MM <= unit / each <= MOST_PITCH_MM else None


def _moment(taken, part):
    """When it was taken, with the parts of a second where they are noted."""
    if not isinstance(taken, str):
        return ""
    digits = part.strip("\0 ") if isinstance(part, str) else ""
    return taken.strip("\0 ")[:40] + (f".{digits[:6]}" if digits.isdigit() and taken else "")


def _raw_facts(path):
    with rawpy.imread(str(path)) as raw:
        sizes = raw.sizes
        width, height = sizes.width, sizes.height
        if sizes.flip in (5, 6):
            width, height = height, width
    _judge_size(width, height, path.stat().st_size)
    return FrameFacts(
        path=str(path), kind="raw", width=width, height=height, turned=1, icc=None, grey=False,
        **_noted(_raw_notes(path)),
    )  # fmt: skip


def _raw_notes(path):
    """The camera's notes of a raw file, where it is built as a TIFF as most are; else none."""
    exif = Image.Exif()
    try:
        with open(path, "rb") as opened:
            exif.load_from_fp(opened)
            return _notes(exif)
    except (SyntaxError, ValueError, KeyError, TypeError, EOFError, OverflowError, OSError, struct.error):
        return {}


def _judge_size(width, height, size):
    megapixels = width * height / 1e6
    if width * height > MOST_PIXELS:
        raise PictureError(
            f"It has {megapixels:,.0f} megapixels; the program unpacks up to {MOST_PIXELS / 1e6:.0f}.",
            "Save it smaller.",
        )
    if min(width, height) < LEAST_SIDE:
        raise PictureError(f"It is only {width} x {height} pixels.", "Take the frame itself, not its thumbnail.")
    if megapixels > PLAIN_UP_TO and size < megapixels * LEAST_BYTES_A_MEGAPIXEL:
        raise PictureError(
            f"A file of {size / 1000:,.0f} kB that says it holds {megapixels:,.0f} megapixels is no photograph.",
            "Take the frame as the camera wrote it.",
        )


def _whole(path, opened, kind, size):
    """Whether the end of the file is there: OpenCV fills what is missing with grey, and does not say so."""
    if kind == "TIFF":
        tags = opened.tag_v2
        places, lengths = tags.get(273) or tags.get(324) or (), tags.get(279) or tags.get(325) or ()
        return all(place + length <= size for place, length in zip(places, lengths, strict=False))
    with open(path, "rb") as file:
        file.seek(max(size - 65_536, 0))
        return _ENDS[kind] in file.read()


def _number(value):
    try:
        number = float(value[0] if isinstance(value, tuple) else value)
    except (TypeError, ValueError, ZeroDivisionError, OverflowError, IndexError):
        return None
    return number if 0 < number < 1e9 else None


def read_grey(facts, reduction=1):
    """Brightness of a frame, at fewer pixels where that is asked.

    Parameters
    ----------
    facts : FrameFacts
    reduction : int     1, 2, 4 or 8.

    Returns
    -------
    (H, W) array        uint8 or uint16, encoded.

    Raises
    ------
    PictureError        Its pixels cannot be read.
    """
    if facts.kind == "JPEG" and reduction > 1:
        flag = {2: cv2.IMREAD_REDUCED_GRAYSCALE_2, 4: cv2.IMREAD_REDUCED_GRAYSCALE_4, 8: cv2.IMREAD_REDUCED_GRAYSCALE_8}
        grey = _read(facts, flag[reduction])
        return _upright(grey[: facts_rows(facts, reduction), : facts_columns(facts, reduction)], facts)
    if facts.kind == "raw":
        grey = cv2.cvtColor(_developed(facts), cv2.COLOR_BGR2GRAY)
    else:
        grey = _upright(_read(facts, cv2.IMREAD_GRAYSCALE | cv2.IMREAD_ANYDEPTH), facts)
    if reduction > 1:
        height, width = (side // reduction for side in grey.shape)
        grey = cv2.resize(
            grey[: height * reduction, : width * reduction], (width, height), interpolation=cv2.INTER_AREA
        )
    return grey


def facts_rows(facts, reduction):
    """Whole rows of the reduced picture, before it is turned."""
    return (facts.width if facts.turned >= 5 else facts.height) // reduction


def facts_columns(facts, reduction):
    """Whole columns of the reduced picture, before it is turned."""
    return (facts.height if facts.turned >= 5 else facts.width) // reduction


def read_colour(facts):
    """All of a frame.

    Parameters
    ----------
    facts : FrameFacts

    Returns
    -------
    (H, W, 3) array   uint8 or uint16, blue-green-red, encoded.

    Raises
    ------
    PictureError      Its pixels cannot be read.
    """
    if facts.kind == "raw":
        return _developed(facts)
    return _upright(_read(facts, cv2.IMREAD_COLOR | cv2.IMREAD_ANYDEPTH), facts)


def _read(facts, flags):
    try:
        picture = cv2.imread(facts.path, flags | cv2.IMREAD_IGNORE_ORIENTATION)
    except cv2.error:
        picture = None
    if picture is None or picture.dtype not in (np.uint8, np.uint16):
        raise PictureError("Its pixels cannot be read.", "Copy it from the camera again.")
    return picture


def _developed(facts):
    """A raw frame with one white balance for all and nothing done by itself."""
    try:
        with rawpy.imread(facts.path) as raw:
            developed = raw.postprocess(
                user_wb=[1.0, 1.0, 1.0, 1.0] if not any(raw.daylight_whitebalance) else list(raw.daylight_whitebalance),
                no_auto_bright=True,
                gamma=SCREEN_CURVE,
                output_bps=16,
            )
    except (rawpy.LibRawError, OSError, ValueError) as error:
        raise PictureError("Its pixels cannot be read.", "Copy it from the camera again.") from error
    return np.ascontiguousarray(developed[..., ::-1])


def _upright(picture, facts):
    turn = _TURNS.get(facts.turned)
    return picture if turn is None else np.ascontiguousarray(turn(picture))


def as_float(picture):
    """Encoded values from 0 to 1.

    Parameters
    ----------
    picture : array   uint8 or uint16.

    Returns
    -------
    array             float32.
    """
    return picture.astype(np.float32) / np.float32(255 if picture.dtype == np.uint8 else 65535)


def same_pixels(picture):
    """A name for these very pixels.

    Parameters
    ----------
    picture : array

    Returns
    -------
    str   32 hexadecimal digits.
    """
    return hashlib.blake2b(np.ascontiguousarray(picture).tobytes(), digest_size=16).hexdigest()
