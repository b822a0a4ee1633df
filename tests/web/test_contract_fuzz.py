"""Every operation of the OpenAPI document keeps its word, whatever is sent."""

import tempfile

import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from just_plane.store.folder import open_store
from just_plane.web.app import create_app

CHECKS = [not_a_server_error, response_schema_conformance, content_type_conformance, status_code_conformance]
# A shot has some four thousand edges and ways to be none. What they meet is the same model wherever a shot is sent, so
# planning and keeping are sent all of them; the others are sent drawn ones, as is what takes pictures at every call.
DRAWN_ONLY = [
    "/api/plan/blur-maps",
    "/api/plan/steps",
    "/api/plan/through-focus",
    "/api/preview",
    "/api/ruler/practice",
    "/api/ruler/size",
    "/api/shots",
    "/api/trials/practice-frames",
]
_operations = [
    {"include-path": path, "include-method": "POST", "phases": {"coverage": {"enabled": False}}} for path in DRAWN_ONLY
]
_folder = tempfile.TemporaryDirectory()
schema = schemathesis.openapi.from_wsgi(
    "/api/openapi.json",
    create_app(open_store(_folder.name)),
    config=schemathesis.Config.from_dict({"operations": _operations}),
)


@schema.parametrize()
@settings(max_examples=20, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))
def test_what_is_described_is_what_is_done(case):
    case.call_and_validate(checks=CHECKS)


def test_every_operation_is_described():
    assert len(list(schema.get_all_operations())) >= 27


def test_every_operation_describes_what_it_answers_when_all_is_well():
    without = [
        each.ok().definition.raw["operationId"]
        for each in schema.get_all_operations()
        if not any(status.startswith("2") for status in each.ok().definition.raw["responses"])
    ]
    assert without == []
