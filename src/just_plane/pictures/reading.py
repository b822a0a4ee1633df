"""A photograph as people send it, made into brightness and a preview; everything else is refused with a sentence.

Nothing in the file is believed more than it must be: the size is read from the header before a pixel is unpacked, and
the camera's notes may be missing, broken or untrue.
"""

import base64
import io
from typing import NamedTuple

import numpy as np
from PIL import Image, ImageOps, UnidentifiedImageError

from just_plane.contract.ruler import PictureFacts

KINDS = ("JPEG", "PNG", "TIFF")
MOST_PIXELS = 120_000_000
SMALLEST_SIDE = 64
PREVIEW_SIDE = 1400
LARGEST_BYTES = 150_000_000
LEAST_BYTES_A_MEGAPIXEL = 6_000
"""A photograph holds more than this, however plain; what holds less is a picture of nothing made to be unpacked, or a
header without its pixels."""
START_OF_SCAN, MOST_PASSES = b"\xff\xda", 60
"""Marks where a JPEG begins another pass over its pixels; a thumbnail or two among them."""
PLAIN_UP_TO = 16.0
"""Megapixels up to which even a picture of nothing is unpacked."""
# Opening reads the header alone; the size is judged below, with our own limit and in our own words.
Image.MAX_IMAGE_PIXELS = None
# Numbers of the camera's notes (EXIF).
FOCAL_LENGTH, F_NUMBER, TAKEN, FULL_WIDTH, FULL_HEIGHT = 0x920A, 0x829D, 0x9003, 0xA002, 0xA003
NOTES = 0x8769


class PictureError(ValueError):
    """A file that is no picture this program can use; ``message`` and ``remedy`` are sentences."""

    def __init__(self, message, remedy):
        super().__init__(f"{message} {remedy}")
        self.message = message
        self.remedy = remedy


class Picture(NamedTuple):
    """A photograph the right way up."""

    brightness: np.ndarray
    """(h, w) uint8: as it is in the file, so that a large picture takes no more room than it must."""
    facts: PictureFacts


class Unpacked(NamedTuple):
    """A photograph unpacked, turned the right way up."""

    image: Image.Image
    kind: str
    notes: dict
    """What the camera noted, as far as it can be."""


def unpack(content):
    """The pixels of a photograph from the bytes of its file.

    Raises
    ------
    PictureError   Empty, no picture, of another kind, too large to unpack, too small to use, or cut short.
    """
    if not content:
        raise PictureError("The file is empty.", "Choose a photograph: JPEG, PNG or TIFF.")
    try:
        opened = Image.open(io.BytesIO(content), formats=KINDS)
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, OverflowError, EOFError) as error:
        raise PictureError(
            "This file is no picture that the program can read.", "Choose a JPEG, PNG or TIFF photograph."
        ) from error
    with opened:
        width, height = opened.size
        if width * height > MOST_PIXELS:
            raise PictureError(
                f"This picture has {width * height / 1e6:,.0f} megapixels; the program unpacks up to "
                f"{MOST_PIXELS / 1e6:.0f}.",
                "Save it smaller, whole frame and uncropped: the size on the sensor comes out the same.",
            )
        if min(width, height) < SMALLEST_SIDE:
            raise PictureError(
                f"This picture is only {width} × {height} pixels.",
                f"{SMALLEST_SIDE} pixels each way are needed; send the photograph itself, not its thumbnail.",
            )
        if width * height / 1e6 > PLAIN_UP_TO and len(content) < width * height / 1e6 * LEAST_BYTES_A_MEGAPIXEL:
            raise PictureError(
                f"This file of {len(content) / 1000:,.0f} kB says that it holds "
                f"{width * height / 1e6:,.0f} megapixels: no photograph is so small.",
                "Send the photograph as the camera wrote it.",
            )
        passes = content.count(START_OF_SCAN) if opened.format in ("JPEG", "MPO") else 0
        if passes > MOST_PASSES:
            raise PictureError(
                f"This JPEG is drawn in {passes:,} passes over the whole picture, and each takes its time; cameras "
                "write one, or a dozen.",
                "Send the photograph as the camera wrote it.",
            )
        kind = "JPEG" if opened.format == "MPO" else str(opened.format)
        notes = _notes(opened)
        try:
            upright = ImageOps.exif_transpose(opened)
            upright.load()
        except (
            OSError,
            ValueError,
            SyntaxError,
            EOFError,
            MemoryError,
            TypeError,
            KeyError,
            ZeroDivisionError,
        ) as error:
            raise PictureError(
                "The picture is cut short or damaged: its pixels cannot be read.", "Copy it from the camera again."
            ) from error
    return Unpacked(upright, kind, notes)


def read_picture(content):
    """The brightness of a photograph, a preview and the camera's notes. Raises PictureError as :func:`unpack`."""
    unpacked = unpack(content)
    gray = _gray(unpacked.image)
    facts = PictureFacts(
        width_px=gray.width,
        height_px=gray.height,
        kind=unpacked.kind,
        preview=_preview(gray),
        **unpacked.notes,
    )
    return Picture(np.asarray(gray), facts)


def _gray(image):
    return flattened(image).convert("L")


def flattened(image):
    """Eight bits a channel, on white paper; of a deeper picture its own range, so that a dark one is not black."""
    if image.mode in ("I;16", "I;16B", "I;16L", "I", "F"):
        values = np.asarray(image, dtype=np.float64)
        low, high = float(values.min()), float(values.max())
        scaled = (values - low) / (high - low) * 255 if high > low else np.zeros_like(values)
        return Image.fromarray(scaled.astype(np.uint8))
    if image.mode in ("RGBA", "LA", "PA", "P"):
        image = image.convert("RGBA")
        paper = Image.new("RGBA", image.size, "white")
        image = Image.alpha_composite(paper, image)
    return image


def _preview(gray):
    small = gray.copy()
    small.thumbnail((PREVIEW_SIDE, PREVIEW_SIDE))
    content = io.BytesIO()
    small.save(content, "JPEG", quality=82)
    return "data:image/jpeg;base64," + base64.b64encode(content.getvalue()).decode("ascii")


def _notes(image):
    """What the camera noted, as far as it can be: a number that cannot be is left out."""
    try:
        exif = image.getexif()
        notes = {**dict(exif), **dict(exif.get_ifd(NOTES))}
    except Exception:  # a broken block of notes is no reason to refuse the picture, whatever is broken in it
        notes = {}
    taken = notes.get(TAKEN)
    across = [_number(notes.get(name), 1, 1_000_000) for name in (FULL_WIDTH, FULL_HEIGHT)]
    known = [side for side in across if side is not None]
    return {
        "focal_length_mm": _number(notes.get(FOCAL_LENGTH), 1, 10_000),
        "f_number": _number(notes.get(F_NUMBER), 0.5, 256),
        "taken": taken.strip("\0 ")[:40] if isinstance(taken, str) and taken.isprintable() else "",
        "full_width_px": int(max(known)) if known else None,
    }


def _number(value, least, most):
    try:
        number = float(value)
    except (TypeError, ValueError, ZeroDivisionError, OverflowError):
        return None
    return number if least <= number <= most else None
