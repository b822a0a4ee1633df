"""The OpenAPI document is made when asked for: before, no schema stands; after, every application has all of it."""

import re

from just_plane.web.app import BLUEPRINTS, create_app, document


def test_two_applications_tell_the_same(store):
    one, other = create_app(store), create_app(store)
    first, second = document(one), document(other)
    assert first["paths"].keys() == second["paths"].keys()
    assert first["components"]["schemas"].keys() == second["components"]["schemas"].keys()
    assert document(one) == first


def test_every_route_of_a_blueprint_is_told(store):
    app = create_app(store)
    routed = {
        re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", rule.rule)
        for rule in app.url_map.iter_rules()
        if rule.endpoint.split(".")[0] in {blueprint.name for blueprint in BLUEPRINTS}
    }
    told = set(document(app)["paths"])
    assert len(routed) > 20
    assert told == routed
