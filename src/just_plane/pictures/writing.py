"""Made-up photographs as files."""

import io

import numpy as np
from PIL import Image

from just_plane.pictures.reading import F_NUMBER, FOCAL_LENGTH, NOTES


def jpeg(brightness, *, focal_length_mm=None, f_number=None):
    """A picture as the bytes of a JPEG file, with the camera's notes where they are given.

    Parameters
    ----------
    brightness : (h, w) array       0 to 1.
    focal_length_mm, f_number : float or None
    """
    image = Image.fromarray((np.clip(brightness, 0, 1) * 255).astype(np.uint8))
    exif = Image.Exif()
    notes = {FOCAL_LENGTH: focal_length_mm, F_NUMBER: f_number}
    exif.get_ifd(NOTES).update({name: value for name, value in notes.items() if value is not None})
    content = io.BytesIO()
    image.save(content, "JPEG", quality=90, exif=exif.tobytes())
    return content.getvalue()


def screen_jpeg(light):
    """Linear light, (h, w, 3) from 0 to 1, as a JPEG for screens (sRGB)."""
    light = np.clip(light, 0.0, 1.0)
    coded = np.where(light <= 0.0031308, 12.92 * light, 1.055 * np.power(light, 1 / 2.4) - 0.055)
    content = io.BytesIO()
    Image.fromarray((coded * 255 + 0.5).astype(np.uint8)).save(content, "JPEG", quality=92, subsampling=0)
    return content.getvalue()


def colour_jpeg(picture, quality=85):
    """A JPEG of a picture in colour, for the page.

    Parameters
    ----------
    picture : (H, W, 3) uint8 array   Red, green, blue.
    quality : int                     1 to 95.

    Returns
    -------
    bytes
    """
    content = io.BytesIO()
    Image.fromarray(picture).save(content, "JPEG", quality=quality, subsampling=0)
    return content.getvalue()
