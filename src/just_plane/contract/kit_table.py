"""The kit as a table (CSV) with one piece a row, for people who keep lists.

The columns are the members of the pieces; a zoom's ends are ``short_`` and ``long_`` columns, crop modes are
``name=width x height`` with semicolons between. Cells that a kind has no use for stay empty. What was measured with
whole rigs or by trials is in the JSON file alone. Everything that is written is read back as it was.

Nothing is guessed: a cell that can be understood in two ways is refused with its row and column.
"""

import csv
import hashlib
import io
import re
from collections import Counter
from typing import Any, get_args
from urllib.parse import unquote

from pydantic import BaseModel, ValidationError

from just_plane.contract.gear import KINDS, ZoomEnd
from just_plane.contract.json_file import FileError, decoded
from just_plane.contract.kit import Kit, KitPiece
from just_plane.contract.words import first_problem

FIRST = ("kind", "kit_id", "name", "carried")
ENDS = ("short", "long")
YES, NO = "yes", "no"
TRIED = ("tried", "focus_units", "measured_times", "measured_by_hand", "measured_still")
"""What trials measured, with its day, stays with the kit file; a table has no cell for it."""
FORMULA = ("=", "+", "-", "@", "\t", "\r", "'")
"""Words that begin so would be worked out by a spreadsheet: they are written behind an apostrophe."""
NUMBER = re.compile(r"[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?")
COMMA_NUMBER = re.compile(r"[+-]?\d+,\d+")


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
                row[name] = _as_words("; ".join(map(_crop_mode, value)))
            else:
                row[name] = _cell(value)
        writer.writerow(row)
    return text.getvalue()


def read_table(content):
    """A kit from the bytes or text of such a table; separated by semicolons it may have decimal commas.

    Raises
    ------
    FileError   Not text, no header with a ``kind`` column, a column that nobody knows or that stands twice, a row with
                more cells than columns, or a cell that cannot be: the message names row and column.
    """
    text = decoded(content)
    if text is None or "\0" in text:
        raise FileError("The file is not text.", "Choose the .csv file that was saved from a kit.")
    header_line = text.partition("\n")[0]
    semicolons = header_line.count(";") > header_line.count(",")
    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=";" if semicolons else ","))
    except csv.Error as error:
        raise FileError(f"The table cannot be read: {error}.", "Save it as CSV with commas, in UTF-8.") from error
    header = [name.strip() for name in rows[0]] if rows else []
    _check_header(header)
    reader = _Reader(header, decimal_comma=semicolons)
    pieces = [
        reader.piece(number, cells) for number, cells in enumerate(rows[1:], start=2) if any(map(str.strip, cells))
    ]
    try:
        return Kit(format="just-plane/kit", version=1, pieces=pieces)
    except ValidationError as error:
        raise FileError(first_problem(error).message, "Give every row a kit_id of its own.") from error


def _check_header(header):
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
    twice = next((name for name, times in Counter(header).items() if times > 1), None)
    if twice is not None:
        raise FileError(f"The column “{twice}” stands there twice.", "Take one of the two out: which one counts?")


class _Reader:
    """Rows of one table, read one after another; ids made from names must not meet."""

    def __init__(self, header, *, decimal_comma):
        self.header = header
        self.decimal_comma = decimal_comma
        self.made_ids: dict = {}

    def piece(self, number, cells):
        """One row as a piece (its number in the table, its cells): KitPiece."""
        if len(cells) > len(self.header):
            raise FileError(
                f"Row {number} has {len(cells)} cells; the table has {len(self.header)} columns.",
                "Is a name with a comma in it not in quotes?",
            )
        row = {name: _from_words(cell) for name, cell in zip(self.header, cells, strict=False)}
        kind = row.get("kind", "").strip()
        model = KINDS.get(kind)
        if model is None:
            raise FileError(f"Row {number}: “{kind}” is no kind of gear.", f"One of: {', '.join(KINDS)}.")
        values = self._values(number, row, model)
        if "kit_id" not in values:
            values["kit_id"] = self._id_of_its_own(number, kind, values)
        carried = _yes_or_no(number, "carried", row.get("carried", "").strip() or YES)
        try:
            gear: Any = model.model_validate(values)
            return KitPiece(carried=carried, gear=gear)
        except ValidationError as error:
            problem = first_problem(error)
            column = problem.field.strip("/").replace("/", "_")
            raise FileError(
                f"Row {number}, column {column}: {problem.message}", "Mend that cell.", problem.field
            ) from error

    def _values(self, number, row, model):
        values: dict = {}
        for name, field in model.model_fields.items():
            if name in ENDS:
                values[name] = {
                    part: value
                    for part, of_end in ZoomEnd.model_fields.items()
                    if (value := self._value(number, f"{name}_{part}", row, of_end)) is not None
                }
            elif name == "crop_modes":
                if row.get(name, "").strip():
                    values[name] = _crop_modes(number, row[name])
            elif name not in TRIED and (value := self._value(number, name, row, field)) is not None:
                values[name] = value
        return values

    def _value(self, number, column, row, field):
        """What stands in a cell, as its field has it; None for an empty one."""
        cell = row.get(column, "")
        if not cell.strip():
            return None
        kinds = _kinds(field.annotation)
        if bool in kinds:
            return _yes_or_no(number, column, cell.strip())
        if not kinds & {int, float}:
            return cell if column == "name" else cell.strip()
        text = cell.strip()
        if self.decimal_comma and COMMA_NUMBER.fullmatch(text):
            text = text.replace(",", ".")
        if not NUMBER.fullmatch(text):
            comma = COMMA_NUMBER.fullmatch(text) is not None
            raise FileError(
                f"Row {number}, column {column}: “{text}” is not a number.",
                "Write a point, or separate the columns by semicolons."
                if comma
                else "Write it in digits, such as 24.5.",
            )
        return int(text) if text.lstrip("+-").isdigit() else float(text)

    def _id_of_its_own(self, number, kind, values):
        """From the name, else from the numbers: the same piece has the same id in whichever row it stands."""
        own = re.sub("[^0-9a-z]+", "-", values.get("name", "").lower()).strip("-")
        if not own:
            own = hashlib.blake2b(repr(sorted(values.items())).encode(), digest_size=4).hexdigest()
        made = f"{kind.replace('_', '-')}-{own}"[:40].strip("-")
        other = self.made_ids.setdefault(made, number)
        if other != number:
            raise FileError(
                f"Rows {other} and {number} are alike, and neither has a kit_id.",
                "Give them names that differ, or a kit_id each.",
            )
        return made


def _kinds(annotation):
    """The plain types that an annotation allows: set."""
    found, parts = set(), [annotation]
    while parts:
        part = parts.pop()
        if isinstance(part, type) and not issubclass(part, BaseModel):
            found.add(part)
        parts += [each for each in get_args(part) if not isinstance(each, str)]
    return found


def _yes_or_no(number, column, text):
    if text.lower() not in (YES, NO):
        raise FileError(f"Row {number}, column {column}: “{text}” is neither yes nor no.", "Write yes or no.")
    return text.lower() == YES


def _cell(value):
    if value is None:
        return ""
    if isinstance(value, bool):
        return YES if value else NO
    if isinstance(value, float):
        return repr(value) if value != int(value) or abs(value) >= 1e15 else str(int(value))
    return _as_words(value) if isinstance(value, str) else str(value)


def _as_words(text):
    """Words that a spreadsheet shows as they are."""
    return f"'{text}" if text.startswith(FORMULA) else text


def _from_words(cell):
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(FORMULA) else cell


def _crop_mode(mode):
    # What separates modes and sizes is marked, and so are spaces at either end.
    name = "".join(f"%{ord(each):02X}" if each in "%;=" else each for each in mode["name"])
    inner = name.strip(" ")
    start = len(name) - len(name.lstrip(" "))
    name = "%20" * start + inner + "%20" * (len(name) - start - len(inner))
    return f"{name}={_cell(mode['width_mm'])} x {_cell(mode['height_mm'])}"


def _crop_modes(number, cell):
    modes = []
    for part in cell.split(";"):
        name, _, size = part.partition("=")
        width, _, height = size.partition("x")
        if not (NUMBER.fullmatch(width.strip()) and NUMBER.fullmatch(height.strip())):
            raise FileError(
                f"Row {number}, column crop_modes: “{part.strip()}” cannot be read.", "Write it as name=24 x 16."
            )
        modes.append({"name": unquote(name.strip()), "width_mm": float(width), "height_mm": float(height)})
    return modes
