"""Proofs, depth maps, points and contact sheets as files of open kinds, each written beside and then renamed."""

import json
import os
import zlib
from collections import deque
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import cv2
import numpy as np
import tifffile
from PIL import Image, ImageDraw, ImageFont

SOFTWARE = "Just Plane"
UNKNOWN = 0
MOST_COUNT = 65_535
_ICC, _MAKE, _EXPOSURE, _F_NUMBER, _ISO, _FOCAL = 34675, 271, 33434, 33437, 34855, 37386
PAPER, INK, BRICK = (247, 243, 234), (30, 46, 52), (165, 58, 42)
TIFF_ROWS, PACKING = 64, 1
"""Rows of a strip; how hard it is packed: more takes half as long again for a hundredth."""
PACKERS = min(os.cpu_count() or 1, 4)
THUMB = 240
"""Width of a frame on the contact sheet, px."""


class WriteError(OSError):
    """A file that could not be written; ``message`` and ``remedy`` are sentences."""

    def __init__(self, path, error):
        full = "No room is left on the disk." if error.errno == 28 else f"{error.strerror or error}."
        super().__init__(f"{path} could not be written. {full}")
        self.message = f"{path} could not be written. {full}"
        self.remedy = "Make room, or choose another folder."


def written(path, write):
    """Write a file beside its place and rename it there: it is whole, or as it was.

    Parameters
    ----------
    path : Path
    write : function   Called with the path to write to.

    Raises
    ------
    WriteError         Nothing is left behind.
    """
    path = Path(path)
    beside = path.with_name(f".tmp-{os.getpid()}-{path.name}")
    try:
        write(beside)
        os.replace(beside, path)
    except OSError as error:
        beside.unlink(missing_ok=True)
        raise WriteError(path, error) from error
    except BaseException:
        beside.unlink(missing_ok=True)
        raise


def proof_tiff(path, picture, facts, px_per_mm=None):
    """A proof: 16 bits a channel, never stretched, with profile and notes of the frame it is laid on.

    Parameters
    ----------
    path : Path
    picture : Picture       Of rows: uint16, blue-green-red, encoded.
    facts : FrameFacts      Of the reference frame.
    px_per_mm : float or None   In the subject.
    """
    tags = [(_ICC, 7, len(facts.icc), facts.icc, True)] if facts.icc else []
    for tag, value in ((_EXPOSURE, facts.exposure_s), (_F_NUMBER, facts.f_number), (_FOCAL, facts.focal_length_mm)):
        if value:
            tags.append((tag, 5, 1, _rational(value), True))
    if facts.iso:
        tags.append((_ISO, 3, 1, min(round(facts.iso), 65535), True))
    if facts.camera:
        tags.append((_MAKE, 2, 0, facts.camera, True))
    resolution: dict = {"resolution": (10 * px_per_mm,) * 2, "resolutionunit": "CENTIMETER"} if px_per_mm else {}
    written(
        path,
        lambda to: tifffile.imwrite(
            to,
            _all_packed(picture),
            shape=picture.shape,
            dtype=np.uint16,
            rowsperstrip=TIFF_ROWS,
            photometric="rgb",
            compression="zlib",
            predictor=True,
            software=SOFTWARE,
            datetime=_date(facts.taken),
            extratags=tags,
            metadata=None,
            **resolution,
        ),
    )


def _all_packed(picture):
    """Strips packed, several at a time: packing takes longer than all else of a file, and needs no lock.

    By hand, since tifffile packs pages that are held whole; strips that are packed already it takes one by one.
    """
    with ThreadPoolExecutor(PACKERS) as pool:
        coming: deque = deque()
        for strip in picture.strips(TIFF_ROWS):
            coming.append(pool.submit(_packed, strip))
            if len(coming) > 2 * PACKERS:
                yield coming.popleft().result()
        while coming:
            yield coming.popleft().result()


def _packed(strip):
    """A strip of a TIFF: red, green, blue, each less the one before it in its row, packed."""
    values = np.ascontiguousarray(strip[..., ::-1])
    values[:, 1:] -= values[:, :-1].copy()
    return zlib.compress(values.astype("<u2").tobytes(), PACKING)


def proof_jpeg(path, picture):
    """A proof for the screen.

    Parameters
    ----------
    path : Path
    picture : Picture
    """
    small = np.concatenate([(strip // 257).astype(np.uint8)[..., ::-1] for strip in picture.strips()])
    written(path, lambda to: Image.fromarray(small).save(to, "JPEG", quality=90, subsampling=0))


def _rational(value):
    return (round(value * 1_000_000), 1_000_000) if value < 2000 else (round(value), 1)


def _date(taken):
    return taken[:19] if len(taken) >= 19 and taken[4] == ":" else None


def count_scale(values):
    """What whole numbers of depth mean.

    Parameters
    ----------
    values : array   All that are known, mm or steps; may be empty.

    Returns
    -------
    (float, float)   Value at count 0; value of one count.
    """
    low, high = (float(values.min()), float(values.max())) if values.size else (0.0, 0.0)
    scale = max((high - low) / (MOST_COUNT - 1), 1e-6)
    return low - scale, scale


def depth_counts(values, known, zero, scale):
    """Depth as whole numbers.

    Parameters
    ----------
    values : (H, W) array        mm, or steps.
    known : (H, W) bool array
    zero, scale : float          As :func:`count_scale` gives them.

    Returns
    -------
    (H, W) uint16 array          From 1; 0 where not known.
    """
    counts = np.clip(np.rint((values - zero) / scale), 1, MOST_COUNT)
    return np.where(known, counts, UNKNOWN).astype(np.uint16)


def depth_files(stem, counts, zero, scale, unit):
    """A depth map as TIFF and PNG, 16 bits.

    Parameters
    ----------
    stem : Path           ``NAME-depth`` without its ending.
    counts : (H, W) uint16 array
    zero, scale : float   value = zero + count x scale.
    unit : str            mm or steps.
    """
    about = json.dumps({"zero": zero, "scale": scale, "unknown": UNKNOWN, "unit": unit})
    written(
        stem.with_name(stem.name + ".tif"),
        lambda to: tifffile.imwrite(
            to, counts, compression="zlib", software=SOFTWARE, description=about, metadata=None
        ),
    )

    def png(to):
        done, packed = cv2.imencode(".png", counts)
        if not done:
            raise OSError("the picture could not be packed")
        to.write_bytes(packed.tobytes())

    written(stem.with_name(stem.name + ".png"), png)


def points_ply(path, points, colours):
    """A cloud of points: binary, x right, y up, z away from the camera, mm.

    Parameters
    ----------
    path : Path
    points : (N, 3) float array
    colours : (N, 3) uint8 array   Red, green, blue.
    """
    kinds = [("x", "<f4"), ("y", "<f4"), ("z", "<f4"), ("red", "u1"), ("green", "u1"), ("blue", "u1")]
    rows = np.zeros(len(points), dtype=kinds)
    for place, name in enumerate("xyz"):
        rows[name] = points[:, place]
    for place, name in enumerate(("red", "green", "blue")):
        rows[name] = colours[:, place]
    names = {"<f4": "float", "u1": "uchar"}
    header = ["ply", "format binary_little_endian 1.0", f"comment {SOFTWARE}, mm", f"element vertex {len(rows)}"]
    header += [f"property {names[kind]} {name}" for name, kind in kinds] + ["end_header", ""]
    written(path, lambda to: to.write_bytes("\n".join(header).encode() + rows.tobytes()))


def contact_sheet(path, thumbs, captions, marked):
    """Every frame small, with its number and what is known of it; those with a finding framed.

    Parameters
    ----------
    path : Path
    thumbs : list of (h, w, 3) uint8 array   Red, green, blue.
    captions : list of (str, str)            First and second line below each.
    marked : set of int                      Frames with a finding.
    """
    across = min(6, max(len(thumbs), 1))
    height = max((thumb.shape[0] for thumb in thumbs), default=THUMB)
    cell = (THUMB + 24, height + 64)
    sheet = Image.new("RGB", (across * cell[0] + 24, -(-len(thumbs) // across) * cell[1] + 24), PAPER)
    draw, font = ImageDraw.Draw(sheet), ImageFont.load_default(15)
    for place, (thumb, lines) in enumerate(zip(thumbs, captions, strict=True)):
        x, y = 24 + place % across * cell[0], 24 + place // across * cell[1]
        if place in marked:
            draw.rectangle((x - 6, y - 6, x + thumb.shape[1] + 5, y + thumb.shape[0] + 5), outline=BRICK, width=4)
        sheet.paste(Image.fromarray(thumb), (x, y))
        draw.text((x, y + thumb.shape[0] + 8), lines[0], fill=BRICK if place in marked else INK, font=font)
        draw.text((x, y + thumb.shape[0] + 28), lines[1], fill=INK, font=font)
    written(path, lambda to: sheet.save(to, "JPEG", quality=88))
