"""The frames of a run as a table."""

import csv
import io

HEADINGS = ("frame", "mark_mm", "focus_behind_nearest_mm", "sharp_from_mm", "sharp_to_mm", "added", "taken", "file")


def steps_csv(stand):
    """The table as CSV text (RFC 4180), numbers with a point and to a tenth of a micrometre.

    Parameters
    ----------
    stand : Stand

    Returns
    -------
    str
    """
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(HEADINGS)
    for step, times, file in zip(stand.plan.steps, stand.times_taken, stand.files, strict=True):
        numbers = (step.mark_mm, step.focus_mm, step.sharp_from_mm, step.sharp_to_mm)
        told = ("" if value is None else f"{value:.4f}" for value in numbers)
        writer.writerow([step.frame + 1, *told, "yes" if step.added else "no", times, file or ""])
    return text.getvalue()
