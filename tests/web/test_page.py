"""The built page as it is served."""

import re

import pytest

from just_plane.web.blueprints import page
from just_plane.web.server import HOST, listen

built = pytest.mark.skipif(not (page.PAGE / "index.html").is_file(), reason="the page is not built: make build")


@built
@pytest.mark.parametrize("address", ["/", "/shots/0123456789ab/stack", "/anything/else"])
def test_every_address_gets_the_one_document(client, address):
    answer = client.get(address)
    assert answer.status_code == 200
    assert answer.mimetype == "text/html"
    assert '<div id="root">' in answer.text
    assert answer.headers["Cache-Control"] == "no-store"


@built
def test_everything_the_document_asks_for_is_there_and_kept(client):
    asked = re.findall(r'(?:src|href)="(/[^"]+)"', client.get("/").text)
    assert any(name.endswith(".js") for name in asked)
    for name in asked:
        answer = client.get(name)
        assert answer.status_code == 200, name
        if name.startswith("/assets/"):
            assert "immutable" in answer.headers["Cache-Control"]
        assert answer.headers["X-Content-Type-Options"] == "nosniff"


@built
def test_the_document_has_no_script_of_its_own(client):
    for script in re.findall(r"<script[^>]*>(.*?)</script>", client.get("/").text, re.S):
        assert script.strip() == ""


def test_without_a_built_page_the_way_out_is_said(client, monkeypatch, tmp_path):
    monkeypatch.setattr(page, "PAGE", tmp_path)
    answer = client.get("/")
    assert answer.status_code == 503
    assert "make build" in answer.text


@pytest.mark.parametrize("address", ["/api", "/api/", "/api/none", "/assets/none.js"])
def test_what_is_not_there_is_a_problem_not_the_page(client, address):
    answer = client.get(address)
    assert answer.status_code == 404
    assert answer.content_type == "application/problem+json"


def test_the_server_listens_on_this_machine_only():
    listener, address = listen(0)
    with listener:
        assert listener.getsockname()[0] == HOST == "127.0.0.1"
        assert address == f"http://127.0.0.1:{listener.getsockname()[1]}/"
        with pytest.raises(OSError, match="in use"):
            listen(listener.getsockname()[1])


def test_alive_says_whether_it_is_the_demo(store):
    from just_plane.web.app import create_app

    for demo in (True, False):
        assert create_app(store, demo=demo).test_client().get("/api/alive").json["demo"] is demo


def test_the_shelf_is_served_as_it_ships(client):
    from just_plane.shelf.starter import starter_shelf

    assert client.get("/api/shelf").json == starter_shelf().model_dump(mode="json")
