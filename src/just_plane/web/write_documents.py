"""Writes the contract's documents under docs/: the OpenAPI document and the JSON Schemas of the files. ``make api``."""

import json
import sys
from pathlib import Path

from just_plane.contract.check import CheckReport
from just_plane.contract.fields import page_fields, page_kinds
from just_plane.contract.kit import Kit
from just_plane.contract.log import LogList
from just_plane.contract.run_file import RunFile
from just_plane.contract.shot_file import ShotFile
from just_plane.core.shutters import MARKS
from just_plane.web.app import create_app, document


def documents():
    """The documents by file name, as text."""
    return {
        "openapi.json": _text(document(create_app(None))),
        "shot-file.schema.json": _text(
            {"$schema": "https://json-schema.org/draft/2020-12/schema"} | ShotFile.model_json_schema()
        ),
        "kit-file.schema.json": _text(
            {"$schema": "https://json-schema.org/draft/2020-12/schema"} | Kit.model_json_schema()
        ),
        "check-report.schema.json": _text(
            {"$schema": "https://json-schema.org/draft/2020-12/schema"}
            | CheckReport.model_json_schema(mode="serialization")
        ),
        "notebook.schema.json": _text(
            {"$schema": "https://json-schema.org/draft/2020-12/schema"}
            | LogList.model_json_schema(mode="serialization")
        ),
        "run-file.schema.json": _text(
            {"$schema": "https://json-schema.org/draft/2020-12/schema"}
            | RunFile.model_json_schema(mode="serialization")
        ),
    }


def _text(document):
    return json.dumps(document, indent=2, ensure_ascii=False, sort_keys=True) + "\n"


def fields_document():
    """What the page knows of the contract's fields, as text."""
    known = page_fields() | {"kinds": page_kinds(), "shutters": [list(mark) for mark in MARKS]}
    return json.dumps(known, ensure_ascii=False, sort_keys=True) + "\n"


if __name__ == "__main__":
    folder, fields = map(Path, sys.argv[1:])
    for name, text in documents().items():
        (folder / name).write_text(text, encoding="utf-8")
    fields.write_text(fields_document(), encoding="utf-8")
