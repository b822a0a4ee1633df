"""How a picture is cut for merging: strips of rows that know nothing of each other, and of a strip the parts at work.

Around a strip a margin is worked on that is thrown away after it. What comes out of a strip depends on nothing but its
frames: whichever process works on it, however many strips it was given, the bytes are the same.
"""

from typing import NamedTuple

import numpy as np

LOW, TALL = 512, 1024
"""Rows of a picture that is not cut; rows of a strip, about."""
COLUMNS = 256
"""Columns that are worked on together; of a strip only those in which a frame has a part."""
MOST_BLOCKS = 4
"""So many times as many at most: what is worked on stays near the processor."""
MARGIN = 64
"""Rows and columns around a place on which its own detail depends, by the energy beside it."""
BELOW = 32
"""Rows around a place that its picture is put together from, by its coarser levels."""
UNIT = 16
"""Px of a pixel of the coarsest level; strips and parts begin on it."""


class Strip(NamedTuple):
    """Rows of a picture: those from ``first`` to ``last`` are made, merges keep those from ``top`` to ``bottom``."""

    first: int
    last: int
    top: int
    bottom: int
    width: int
    """Columns of the picture."""

    @property
    def shape(self):
        """Rows and columns that merges keep.

        Returns
        -------
        (int, int)
        """
        return self.bottom - self.top, self.width

    @property
    def made(self):
        """Of the rows that merges keep those that are made.

        Returns
        -------
        slice
        """
        return slice(self.first - self.top, self.last - self.top)


class Part(NamedTuple):
    """A rectangle of a strip. Columns and rows from the strip's top; ends are one past."""

    first: int
    last: int
    upper: int
    lower: int
    """What is taken."""
    left: int
    right: int
    top: int
    bottom: int
    """What is looked at: a margin more, where there is picture. ``top`` may be above the strip's own."""

    def places(self, level=0):
        """Rows and columns that are taken.

        Parameters
        ----------
        level : int   Times that the pixels were halved each way.

        Returns
        -------
        ((slice, slice), (slice, slice))   In the strip; in what is looked at.
        """
        whole, piece = [], []
        for start, stop, edge in ((self.upper, self.lower, self.top), (self.first, self.last, self.left)):
            first, last = start >> level, (stop + (1 << level) - 1) >> level
            whole.append(slice(first, last))
            piece.append(slice(first - (edge >> level), last - (edge >> level)))
        return tuple(whole), tuple(piece)


def strips(height, width, below=BELOW):
    """Cut a picture.

    Parameters
    ----------
    height, width : int   px.
    below : int           Rows on either side that merges keep with a strip; a multiple of 16.

    Returns
    -------
    list of Strip         From the top; two, four, six ... of about the same height, or one of a low picture.
    """
    count = 1 if height <= LOW else 2 * -(-height // (2 * TALL))
    rows = -(-height // (count * UNIT)) * UNIT
    return [
        Strip(top, min(top + rows, height), max(top - below, 0), min(top + rows + below, height), width)
        for top in range(0, height, rows)
    ]


def shares(count, workers):
    """Divide strips among workers.

    Parameters
    ----------
    count : int     Strips.
    workers : int

    Returns
    -------
    list of (int, int)   First and past the last of each; no more than there are strips.
    """
    parts = max(min(count, workers), 1)
    edges = [round(count * part / parts) for part in range(parts + 1)]
    return [(edges[part], edges[part + 1]) for part in range(parts)]


def parts(wanted, strip, height):
    """Rectangles of a strip that hold all that is wanted.

    Parameters
    ----------
    wanted : (h, w) bool array   By 16 px each way, from the top of what the strip's merges keep.
    strip : Strip
    height : int                 Of the picture, px.

    Returns
    -------
    list of Part                 Beside each other; as high as what is wanted there.
    """
    count = -(-strip.width // COLUMNS)
    a_block = COLUMNS // UNIT
    columns = np.zeros((count + 1) * a_block, bool)
    columns[: wanted.shape[1]] = wanted.any(axis=0)
    busy = columns.reshape(-1, a_block).any(axis=1)
    edges = np.flatnonzero(np.diff(np.concatenate([[False], busy]).astype(np.int8)))
    found = []
    for start, stop in _no_wider(zip(edges[::2], edges[1::2], strict=True)):
        rows = np.flatnonzero(wanted[:, start * a_block : stop * a_block].any(axis=1))
        upper, lower = int(rows[0]) * UNIT, min((int(rows[-1]) + 1) * UNIT, strip.shape[0])
        first, last = int(start) * COLUMNS, min(int(stop) * COLUMNS, strip.width)
        found.append(
            Part(
                first,
                last,
                upper,
                lower,
                max(first - MARGIN, 0),
                min(last + MARGIN, strip.width),
                max(upper - MARGIN, -strip.top),
                min(lower + MARGIN, height - strip.top),
            )
        )
    return found


def _no_wider(runs):
    for start, stop in runs:
        for first in range(start, stop, MOST_BLOCKS):
            yield first, min(first + MOST_BLOCKS, stop)
