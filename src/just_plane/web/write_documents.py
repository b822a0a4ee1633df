"""Writes the contract's documents under docs/: the OpenAPI document and the JSON Schemas of the files. ``make api``."""

import json
import sys
from pathlib import Path

from just_plane.contract.kit import Kit
from just_plane.contract.shot_file import ShotFile
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
    }


def _text(document):
    return json.dumps(document, indent=2, ensure_ascii=False, sort_keys=True) + "\n"


if __name__ == "__main__":
    for name, text in documents().items():
        (Path(sys.argv[1]) / name).write_text(text, encoding="utf-8")
