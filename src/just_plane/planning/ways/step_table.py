"""The step table of a way, as rows and as CSV with units in the headings."""

import csv
import io

from just_plane.planning.setup.rail_marks import TOWARD

HEADINGS = (
    "frame",
    "focus_behind_nearest_mm",
    "move_from_last_mm",
    "sharp_from_mm",
    "sharp_to_mm",
    "magnification",
    "rail_mark_mm",
)


def step_rows(way, magnification, rail_counts="toward"):
    """Rows of the table, in shooting order: frame counted from 1, places in mm behind the nearest point.

    ``magnification`` is that of the framing, for ways that keep it; ``rail_counts`` says whether the rail's marks grow
    ``toward`` the subject or ``away`` from it. Marks are there where points were read on the rail.
    """
    if way.back_off is not None:
        magnification = way.back_off.magnification
    sizes = way.stack.magnifications if way.stack else [magnification]
    starts_at = way.stack.first_rail_mm if way.stack else None
    rows, last = [], None
    for index, (focus, band) in enumerate(zip(way.focuses_mm, way.bands_mm, strict=True)):
        moved = None if last is None else focus - last
        size = sizes[index] if len(sizes) > 1 else sizes[0]
        mark = None if starts_at is None else starts_at + TOWARD[rail_counts] * (focus - way.focuses_mm[0])
        rows.append((index + 1, focus, moved, band[0], band[1], size, mark))
        last = focus
    return rows


def step_csv(way, magnification, rail_counts="toward"):
    """The table as CSV text (RFC 4180), numbers with a point and to a tenth of a micrometre; as :func:`step_rows`."""
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(HEADINGS)
    for row in step_rows(way, magnification, rail_counts):
        writer.writerow([row[0], *("" if value is None else f"{value:.4f}" for value in row[1:])])
    return text.getvalue()
