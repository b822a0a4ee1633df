"""Tasks of a merge: where each place is sharp, depth as it is filled, and the pictures; each by shares of strips."""

import numpy as np

from just_plane.core.frames.proof.brush import Brush
from just_plane.core.frames.proof.focus_map import FocusMap
from just_plane.frames.taking import judged, merger_of, write_arrays
from just_plane.pictures.frames_out import written
from just_plane.pictures.rows import RowsFile


def focus(order, needs, out, progress):
    """Where places are sharp, in share ``part[0]`` of ``part[1]``; needs what was judged."""
    merger = merger_of(order, judged(needs[0])[0])
    share = None if merger is None else _share(merger.shares(order["part"][1], focus=True), order["part"][0])
    write_arrays(out, {} if share is None else merger.focus(share, progress)._asdict())


def _share(shares, place):
    """A low picture is cut into fewer strips than there are workers: what is past them is nothing."""
    return shares[place] if place < len(shares) else None


def depth(order, needs, out, progress):
    """Depth of the whole picture; needs what was judged and every share of :func:`focus`."""
    progress(0, 1, "")
    merger = merger_of(order, judged(needs[0])[0])
    if merger is None:
        write_arrays(out, {})
        return
    keep_depth(out, merger, _joined(needs[1:]))


def keep_depth(path, merger, found):
    """Depth filled, and where the brush is needed, in a file.

    Parameters
    ----------
    path : Path
    merger : Merger
    found : FocusMap   Of the whole picture.
    """
    filled = merger.depth(found)
    brush = merger.brush(filled)
    told = {"mask": np.packbits(brush.mask), "share": np.array(brush.share), "method": np.array(brush.method)}
    write_arrays(path, {"filled": filled, "depth": found.depth, "confidence": found.confidence} | told)


def _joined(paths):
    maps = []
    for path in paths:
        with np.load(path) as kept:
            if kept.files:
                maps.append(FocusMap(kept["depth"], kept["confidence"], kept["luma"]))
    return FocusMap(*(np.concatenate(planes) for planes in zip(*maps, strict=True)))


class Deep:
    """What :func:`depth` left."""

    def __init__(self, path):
        with np.load(path) as kept:
            self.filled = kept["filled"]
            self.found = FocusMap(kept["depth"], kept["confidence"], kept["depth"])
            mask = np.unpackbits(kept["mask"], count=self.filled.size).reshape(self.filled.shape).astype(bool)
            self.brush = Brush(mask, float(kept["share"]), str(kept["method"]))


def merge(order, needs, out, progress):
    """Proofs by ``methods``, in share ``part[0]`` of ``part[1]``; needs what was judged, and depth."""
    merger = merger_of(order, judged(needs[0])[0])
    share = None if merger is None else _share(merger.shares(order["part"][1]), order["part"][0])
    if share is None:
        _nothing(out)
        return
    with RowsFile(out, len(order["methods"])) as file:
        filled = Deep(needs[1]).filled
        merger.pictures(order["methods"], filled, lambda _method, shape: file.begin(shape), share, progress)


def slab(order, needs, out, progress):
    """Slab ``part`` of ``slabs`` (frames, shared) by itself, by detail; needs what was judged."""
    merger = merger_of(order, judged(needs[0])[0])
    frames = None if merger is None else _share(merger.slabs(*order["slabs"]), order["part"])
    if frames is None:
        _nothing(out)
        return
    with RowsFile(out, 1) as file:
        merger.only(frames).pictures(("pyramid",), None, lambda _method, shape: file.begin(shape), None, progress)


def _nothing(out):
    written(out, lambda to: to.write_bytes(b""))
