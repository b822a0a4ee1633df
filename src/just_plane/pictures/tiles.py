"""A large picture cut into tiles at full size, half, a quarter and so on, all in one file: to be looked at closely."""

import zipfile
from pathlib import Path

import cv2
import numpy as np

from just_plane.pictures.frames_out import written

SIDE = 512
"""Px of a tile; those at the right and at the bottom are what is left."""
QUALITY = 92


def level_count(width, height):
    """How many sizes there are.

    Parameters
    ----------
    width, height : int   px.

    Returns
    -------
    int                   The last one fits into one tile.
    """
    count = 1
    while max(width, height) > SIDE:
        width, height, count = (width + 1) // 2, (height + 1) // 2, count + 1
    return count


def write_tiles(path, picture):
    """Cut a picture.

    Parameters
    ----------
    path : Path
    picture : object   With ``shape`` and ``strips(rows)``: (n, W, 3) arrays of uint8 or uint16, blue-green-red.

    Raises
    ------
    WriteError
    """
    height, width = picture.shape[:2]

    def write(to):
        with zipfile.ZipFile(to, "w", zipfile.ZIP_STORED) as zipped:
            level = _Level(zipped, level_count(width, height), 0)
            for strip in picture.strips(SIDE):
                level.take(strip if strip.dtype == np.uint8 else (strip // 257).astype(np.uint8))
            level.end()

    written(Path(path), write)


class _Level:
    """One size; rows come from the top, what is full is written, halves go to the next size."""

    def __init__(self, zipped, count, number):
        self._zipped, self._number = zipped, number
        self._smaller = _Level(zipped, count, number + 1) if number + 1 < count else None
        self._rows = []
        self._row = 0

    def take(self, strip):
        self._rows.append(strip)
        if sum(len(rows) for rows in self._rows) >= SIDE:
            self._write()

    def end(self):
        if self._rows:
            self._write()
        if self._smaller is not None:
            self._smaller.end()

    def _write(self):
        strip = np.concatenate(self._rows)
        self._rows = []
        for column, left in enumerate(range(0, strip.shape[1], SIDE)):
            tile = np.ascontiguousarray(strip[:, left : left + SIDE])
            how = [cv2.IMWRITE_JPEG_QUALITY, QUALITY, cv2.IMWRITE_JPEG_SAMPLING_FACTOR, 0x111111]
            done, packed = cv2.imencode(".jpg", tile, how)
            if not done:
                raise OSError("a tile could not be packed")
            # Of no date: the same picture gives the same bytes.
            self._zipped.writestr(zipfile.ZipInfo(f"{self._number}/{column}-{self._row}.jpg"), packed.tobytes())
        self._row += 1
        if self._smaller is not None:
            even = cv2.copyMakeBorder(strip, 0, len(strip) % 2, 0, strip.shape[1] % 2, cv2.BORDER_REPLICATE)
            size = even.shape[1] // 2, even.shape[0] // 2
            self._smaller.take(cv2.resize(even, size, interpolation=cv2.INTER_AREA))


def tile_of(path, level, column, row):
    """One tile.

    Parameters
    ----------
    path : Path
    level, column, row : int   Level 0 is full size; columns and rows of tiles.

    Returns
    -------
    bytes or None              A JPEG; None where there is none.

    Raises
    ------
    OSError                    The file is not there.
    """
    with zipfile.ZipFile(path) as zipped:
        try:
            return zipped.read(f"{level}/{column}-{row}.jpg")
        except KeyError:
            return None


class Held:
    """A picture in memory, as :func:`write_tiles` takes it.

    Parameters
    ----------
    picture : (H, W, 3) array   uint8 or uint16, blue-green-red.
    """

    def __init__(self, picture):
        self._picture = picture
        self.shape = picture.shape

    def strips(self, rows):
        """Its rows, so many at a time."""
        for first in range(0, self.shape[0], rows):
            yield self._picture[first : first + rows]
