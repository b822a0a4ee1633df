"""The notebook as a table."""

import csv
import io

HEADINGS = (
    *("made_at", "shot", "subject", "rig", "magnification", "f_number", "works_as", "shutter", "iso", "way"),
    *("frames_planned", "frames_taken", "time_s", "state", "came_out", "findings", "good", "wrong", "next_time"),
)


def log_csv(entries):
    """Entries as CSV text (RFC 4180).

    Parameters
    ----------
    entries : list of LogEntry

    Returns
    -------
    str
    """
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(HEADINGS)
    for entry in entries:
        was, done, out, note = entry.set, entry.done, entry.out, entry.note
        values = [
            *(entry.made_at, was.shot_name, was.subject, " + ".join(was.rig), _number(was.magnification)),
            *(_number(was.f_number), _number(was.works_as), was.shutter_words, _number(was.iso), was.way),
            *(was.frames_planned, done.frames_taken, done.time_s, done.state, out.answer if out else ""),
            *(" ".join(out.findings) if out else "", note.good or "", "; ".join(note.wrong), note.next_time),
        ]
        writer.writerow([_plain(value) for value in values])
    return text.getvalue()


def _number(value):
    return "" if value is None else f"{value:.6g}"


def _plain(value):
    """Text that a spreadsheet does not take for a formula."""
    return f"'{value}" if isinstance(value, str) and value[:1] in ("=", "+", "-", "@") else value
