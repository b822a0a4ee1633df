"""The OpenAPI document: what the framework derives from the models, completed by what it cannot know."""

import copy

PROBLEM = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
REFUSALS = {
    "400": "The request could not be read",
    "403": "From elsewhere than this machine's page",
    "413": "Too large",
    "415": "Not JSON",
    "422": "A value that cannot be",
    "500": "The program's own fault",
}
Kinds = dict[str, str | None]
PICTURE: Kinds = {"image/jpeg": None}
TABLE: Kinds = {"text/csv": None}
DOWNLOADS: dict[str, Kinds] = {
    "getShotFile": {"application/json": "ShotFile"},
    "getSteps": TABLE,
    "getKitFile": {"application/json": "Kit"},
    "getKitTable": TABLE,
    "practiceFrame": PICTURE,
    "getPhotograph": PICTURE,
    "picturePreview": PICTURE,
    "view": PICTURE,
    "fileOfLog": {"application/json": "LogList", **TABLE},
    "folderOfLog": {"application/zip": None},
    "pictureOfLog": PICTURE,
    "pictureOfRun": PICTURE,
    "viewInRun": PICTURE,
    "runFile": {"application/json": None},
    "runSteps": TABLE,
    "runCode": {"text/plain": None},
    "frameOfJob": PICTURE,
    "proofOfJob": PICTURE,
    "tileOfJob": PICTURE,
    "fileOfJob": {"application/octet-stream": None},
}
"""Answers that are not JSON of the page: by operation, the types of their content and the model, where there is one."""
SENT_AS_BYTES = {"addShotFromFile", "addKitFile", "findRuler", "keepPhotograph"}


def describe(document):
    """A copy of the framework's document with every refusal as problem+json, and downloads as what they are."""
    described = copy.deepcopy(document)
    for path in described["paths"].values():
        for operation in path.values():
            _complete(operation)
    return described


def _complete(operation):
    responses = operation["responses"]
    for status, response in responses.items():
        if int(status) >= 400:
            response["content"] = PROBLEM
    for status, words in REFUSALS.items():
        responses.setdefault(status, {"description": words, "content": PROBLEM})
    if operation["operationId"] in DOWNLOADS:
        content = {
            kind: {"schema": {"$ref": f"#/components/schemas/{model}"} if model else {}}
            for kind, model in DOWNLOADS[operation["operationId"]].items()
        }
        responses["200"] = {"description": "A file to save", "content": content}
    if operation["operationId"] in SENT_AS_BYTES:
        operation["requestBody"] = {
            "required": True,
            "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
        }
