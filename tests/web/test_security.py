import pytest

from just_plane.contract.shot_file import LARGEST_BYTES
from just_plane.web.security import LARGEST_BODY


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "localhost.evil.example:80", "192.168.1.7"])
def test_a_foreign_host_is_refused(client, host):
    answer = client.get("/api/shots", headers={"Host": host})
    assert (answer.status_code, answer.json["code"]) == (403, "host.foreign")


@pytest.mark.parametrize("host", ["127.0.0.1:8765", "localhost", "[::1]:8765"])
def test_this_machine_is_answered(client, host):
    assert client.get("/api/alive", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://evil.example"},
        {"Origin": "null"},
        {"Origin": "http://localhost:9999"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
)
def test_another_site_cannot_write(client, headers):
    answer = client.post("/api/shots/from-file", data="{}", headers=headers)
    assert (answer.status_code, answer.json["code"]) == (403, "origin.foreign")


def test_the_page_itself_can_write(client):
    answer = client.post(
        "/api/shots/from-file",
        data="{}",
        headers={"Origin": "http://localhost", "Sec-Fetch-Site": "same-origin"},
    )
    assert answer.json["code"] == "file.refused"


@pytest.mark.parametrize(
    ("to", "most"),
    [("/api/plan", LARGEST_BODY), ("/api/shots/from-file", LARGEST_BYTES)],
)
def test_a_huge_body_is_refused(client, to, most):
    answer = client.post(to, data=b"x" * (most + 1), content_type="application/json")
    assert (answer.status_code, answer.json["code"]) == (413, "http.413")


def test_the_page_loads_nothing_from_elsewhere_and_no_inline_script(client):
    policy = client.get("/").headers["Content-Security-Policy"]
    rules = dict(rule.strip().split(" ", 1) for rule in policy.split(";"))
    assert rules["default-src"] == "'none'"
    assert rules["script-src"] == "'self'"
    assert "unsafe" not in policy
    assert "http" not in policy


def test_the_nonce_is_new_each_time_and_in_the_page(client):
    pages = [client.get("/shots/abc") for _ in range(2)]
    nonces = {page.headers["Content-Security-Policy"].split("'nonce-")[1].split("'")[0] for page in pages}
    assert len(nonces) == 2
    if pages[0].status_code == 200:
        assert "{{nonce}}" not in pages[0].text


def test_a_path_out_of_the_page_folder_is_refused(client):
    assert client.get("/assets/../app.py").status_code == 404
    assert client.get("/assets/%2e%2e/%2e%2e/app.py").status_code == 404
