"""One frame for the screen."""

import io

import cv2
import numpy as np
from PIL import Image

from just_plane.pictures.frames import read_colour


def jpeg_bytes(picture, width=None):
    """A picture for the screen.

    Parameters
    ----------
    picture : (H, W, 3) array   uint8 or uint16; blue-green-red.
    width : int or None         px; smaller where it is wider.

    Returns
    -------
    bytes                       A JPEG.
    """
    if width is not None and picture.shape[1] > width:
        height = max(round(picture.shape[0] * width / picture.shape[1]), 1)
        picture = cv2.resize(picture, (width, height), interpolation=cv2.INTER_AREA)
    if picture.dtype == np.uint16:
        picture = (picture // 257).astype(np.uint8)
    content = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(picture[..., ::-1])).save(content, "JPEG", quality=90, subsampling=0)
    return content.getvalue()


def frame_preview(facts, to_reference, width, crop=None):
    """One frame as the reference would see it, for the screen: bytes of a JPEG.

    Parameters
    ----------
    facts : FrameFacts
    to_reference : list or None   2 x 3; as it is where there is none.
    width : int                   px.
    crop : tuple or None          Left, top, width, height in px of the reference frame.

    Raises
    ------
    PictureError                  Its pixels cannot be read.
    """
    return jpeg_bytes(laid_frame(facts, to_reference, crop), width)


def laid_frame(facts, to_reference, crop=None):
    """One frame as the reference would see it.

    Parameters
    ----------
    facts : FrameFacts
    to_reference : list or None   2 x 3; as it is where there is none.
    crop : tuple or None          Left, top, width, height in px of the reference frame.

    Returns
    -------
    (H, W, 3) array               uint8 or uint16, blue-green-red.
    """
    picture = read_colour(facts)
    if to_reference is not None:
        picture = cv2.warpAffine(picture, np.array(to_reference), picture.shape[1::-1], flags=cv2.INTER_LINEAR)
    if crop is not None:
        left, top, across, down = (round(value) for value in crop)
        picture = picture[top : top + down, left : left + across]
    return picture
