"""Bodies that are sent half and then nothing: the others are answered all the same."""

import json
import re
import socket
import subprocess
import sys
import urllib.request

import pytest

STALLED = 24
"""More than the server has threads."""


@pytest.fixture
def port(tmp_path):
    server = subprocess.Popen(
        [sys.executable, "-m", "just_plane.cli", "serve", "--data", str(tmp_path), "--port", "0"],
        stdout=subprocess.PIPE,
        text=True,
    )
    try:
        yield int(re.search(r":(\d+)/", server.stdout.readline()).group(1))
    finally:
        server.kill()
        server.wait()
        server.stdout.close()


def test_half_sent_bodies_stop_nobody_else(port):
    head = (
        f"POST /api/ruler/find HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\n"
        "Content-Type: application/octet-stream\r\nContent-Length: 5000000\r\n\r\n"
    )
    stalled = []
    try:
        for _ in range(STALLED):
            one = socket.create_connection(("127.0.0.1", port), timeout=20)
            one.sendall(head.encode() + b"x" * 1000)
            stalled.append(one)
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/alive", timeout=30) as answer:
            assert json.load(answer)["version"]
    finally:
        for one in stalled:
            one.close()
