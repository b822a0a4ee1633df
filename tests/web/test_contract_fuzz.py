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
# A shot has some 1,400 edges to be set to and 2,500 ways to be none. What is none is refused by the same model wherever
# it is sent, so only planning is sent all of it; the others are sent the edges.
EDGES_ONLY = [
    "/api/plan/blur-maps",
    "/api/plan/steps",
    "/api/plan/through-focus",
    "/api/preview",
    "/api/ruler/practice",
    "/api/ruler/size",
    "/api/shots",
]
# Every call of it takes pictures.
RANDOM_ONLY = ["/api/trials/practice-frames"]
_operations = [
    *({"include-path": path, "generation": {"mode": "positive"}} for path in EDGES_ONLY),
    *({"include-path": path, "phases": {"coverage": {"enabled": False}}} for path in RANDOM_ONLY),
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
