"""The kit file: JSON with everything, or a table (CSV) with one piece a row for people who keep lists.

The table's columns are the members of the pieces; a zoom's ends are ``short_`` and ``long_`` columns, crop modes are
``name=width x height`` with semicolons between. Cells that a kind has no use for stay empty. What was measured with
whole rigs is in the JSON file alone.
"""

import csv
import io
from typing import Any

from pydantic import ValidationError

from just_plane.contract.gear import KINDS, ZoomEnd
from just_plane.contract.json_file import FileError, decoded, read_document, write_document
from just_plane.contract.kit import FORMAT, VERSION, Kit, KitPiece
from just_plane.contract.words import first_problem

FIRST = ("kind", "kit_id", "name", "carried")
ENDS = ("short", "long")
YES, NO = "yes", "no"
TRIED = ("tried", "focus_units", "measured_times", "measured_by_hand", "measured_still")
"""What trials measured, with its day, stays with the kit file; a table has no cell for it."""


def read_kit(text):
    """A kit from the bytes or text of a JSON kit file. Raises FileError."""
    return read_document(text, noun="kit", file_format=FORMAT, version=VERSION, model=Kit)


def write_kit(kit):
    """The kit file's text."""
    return write_document(kit)


def columns():
    """The table's columns in order."""
    found = list(FIRST)
    for model in KINDS.values():
        for name in (each for each in model.model_fields if each not in TRIED):
            names = [f"{name}_{part}" for part in ZoomEnd.model_fields] if name in ENDS else [name]
            found += [each for each in names if each not in found]
    return found


def write_table(kit):
    """The kit as CSV text, a header first."""
    text = io.StringIO()
    writer = csv.DictWriter(text, columns(), restval="", lineterminator="\r\n")
    writer.writeheader()
    for piece in kit.pieces:
        row = {"carried": _cell(piece.carried)}
        for name, value in piece.gear.model_dump().items():
            if name in TRIED:
                continue
            if name in ENDS:
                row |= {f"{name}_{part}": _cell(each) for part, each in value.items()}
            elif name == "crop_modes":
                row[name] = "; ".join(f"{mode['name']}={mode['width_mm']:g} x {mode['height_mm']:g}" for mode in value)
            else:
                row[name] = _cell(value)
        writer.writerow(row)
    return text.getvalue()


def read_table(content):
    """A kit from the bytes or text of such a table.

    Raises
    ------
    FileError   Not text, no header with a ``kind`` column, a column nobody knows, or a row with a value that cannot be;
                the message names the row.
    """
    text = decoded(content)
    if text is None or "\0" in text:
        raise FileError("The file is not text.", "Choose the .csv file that was saved from a kit.")
    try:
        rows = list(csv.DictReader(io.StringIO(text, newline="")))
    except csv.Error as error:
        raise FileError(f"The table cannot be read: {error}.", "Save it as CSV with commas, in UTF-8.") from error
    header = [] if not rows else [name for name in rows[0] if name is not None]
    if "kind" not in header:
        raise FileError(
            "This is no table of a kit: it has no rows, or no column called kind.",
            "Its first line must name the columns, separated by commas; export a kit to see them.",
        )
    unknown = [name for name in header if name not in columns()]
    if unknown:
        raise FileError(
            f"The column “{unknown[0]}” is not one of a kit.", "Take it out, or name it as an exported kit does."
        )
    pieces = [_piece(number, row) for number, row in enumerate(rows, start=2) if any(row.values())]
    try:
        return Kit(format="just-plane/kit", version=1, pieces=pieces)
    except ValidationError as error:
        raise FileError(first_problem(error).message, "Give every row a kit_id of its own.") from error


def _cell(value):
    if value is None:
        return ""
    if isinstance(value, bool):
        return YES if value else NO
    return f"{value:.10g}" if isinstance(value, float) else str(value)


def _piece(number, row):
    kind = (row.get("kind") or "").strip()
    model = KINDS.get(kind)
    if model is None:
        raise FileError(f"Row {number}: “{kind}” is no kind of gear.", f"One of: {', '.join(KINDS)}.")
    values: dict = {}
    for name in model.model_fields:
        if name in ENDS:
            cells = {part: _value(row.get(f"{name}_{part}")) for part in ZoomEnd.model_fields}
            values[name] = {part: cell for part, cell in cells.items() if cell is not None}
        elif (cell := _value(row.get(name))) is not None:
            values[name] = _crop_modes(number, cell) if name == "crop_modes" else cell
    values.setdefault("kit_id", f"{kind.replace('_', '-')}-{number}")
    carried = (_value(row.get("carried")) or YES).lower() not in (NO, "false", "0")
    try:
        gear: Any = model.model_validate(values, strict=False)
        return KitPiece(carried=carried, gear=gear)
    except ValidationError as error:
        problem = first_problem(error)
        raise FileError(f"Row {number}: {problem.message}", "Mend that cell.", problem.field) from error


def _value(cell):
    return None if cell is None or not str(cell).strip() else str(cell).strip()


def _crop_modes(number, cell):
    modes = []
    for part in cell.split(";"):
        name, _, size = part.partition("=")
        width, _, height = size.partition("x")
        try:
            modes.append({"name": name.strip(), "width_mm": float(width), "height_mm": float(height)})
        except ValueError as error:
            raise FileError(
                f"Row {number}: the crop mode “{part.strip()}” cannot be read.", "Write it as name=24 x 16."
            ) from error
    return modes
