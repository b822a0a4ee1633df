"""Pictures too large to hold: their rows in plain files, 16 bits, blue-green-red, read a few at a time."""

import os
from pathlib import Path
from typing import Any, NamedTuple

import numpy as np
from numpy.lib import format as npy

from just_plane.pictures.frames_out import WriteError

AT_ONCE = 64
"""Rows that are read at once."""


class RowsFile:
    """Writes pictures of one size, one after the other, into a file that is there when the last is whole.

    Parameters
    ----------
    path : Path
    count : int   Pictures.
    """

    def __init__(self, path, count):
        self._path, self._count = Path(path), count
        self._beside = self._path.with_name(f".tmp-{os.getpid()}-{self._path.name}")
        self._file: Any = None

    def __enter__(self):
        return self

    def begin(self, shape):
        """Begin the next picture.

        Parameters
        ----------
        shape : (int, int, int)   Rows, columns, 3; the same of all.

        Returns
        -------
        function                  Takes rows from the top, (n, W, 3) uint16. Raises WriteError.
        """
        try:
            if self._file is None:
                self._file = self._beside.open("wb")
                about = {"descr": "<u2", "fortran_order": False, "shape": (self._count, *shape)}
                npy.write_array_header_1_0(self._file, about)
        except OSError as error:
            raise WriteError(self._path, error) from error
        return self._take

    def _take(self, rows):
        try:
            self._file.write(np.ascontiguousarray(rows, "<u2").data)
        except OSError as error:
            raise WriteError(self._path, error) from error

    def __exit__(self, kind, error, trace):
        try:
            if self._file is not None:
                self._file.flush()
                self._file.close()
                if kind is None:
                    os.replace(self._beside, self._path)
        except OSError as refused:
            raise WriteError(self._path, refused) from refused
        finally:
            self._beside.unlink(missing_ok=True)


class Rows(NamedTuple):
    """One picture of such a file."""

    path: Path
    start: int
    shape: tuple

    def read(self, first, last):
        """Some rows: (n, W, 3) uint16."""
        width = self.shape[1] * 3
        count = (min(last, self.shape[0]) - first) * width
        values = np.fromfile(self.path, "<u2", count, offset=self.start + first * width * 2)
        return values.reshape(-1, *self.shape[1:])


def pictures_of(path):
    """The pictures of a file of rows.

    Parameters
    ----------
    path : Path

    Returns
    -------
    list of Rows
    """
    with Path(path).open("rb") as file:
        npy.read_magic(file)
        (count, *shape), _, _ = npy.read_array_header_1_0(file)
        start = file.tell()
    size = 2 * int(np.prod(shape))
    return [Rows(Path(path), start + size * place, tuple(shape)) for place in range(count)]


class Picture:
    """A picture in one or several files, one above the other.

    Parameters
    ----------
    pieces : list of Rows   From the top, of one width.
    """

    def __init__(self, pieces):
        self._pieces = pieces
        self.shape = (sum(piece.shape[0] for piece in pieces), *pieces[0].shape[1:])

    def strips(self, rows=AT_ONCE):
        """Its rows, a few at a time.

        Parameters
        ----------
        rows : int   At once; all but the last strip have as many.

        Yields
        ------
        (n, W, 3) uint16 array
        """
        for first in range(0, self.shape[0], rows):
            yield self.read(first, min(first + rows, self.shape[0]))

    def read(self, first, last):
        """Some rows.

        Parameters
        ----------
        first, last : int   One past the last.

        Returns
        -------
        (n, W, 3) uint16 array
        """
        found, top = [], 0
        for piece in self._pieces:
            bottom = top + piece.shape[0]
            if first < bottom and last > top:
                found.append(piece.read(max(first - top, 0), min(last, bottom) - top))
            top = bottom
        return np.concatenate(found)
