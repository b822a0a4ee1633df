"""The wheel as a stranger installs it: an empty environment, no Node, a page and a plan."""

import os
import re
import subprocess
import sys
import urllib.request
import venv
import zipfile
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
pytestmark = pytest.mark.xdist_group("wheel")  # one environment for all
PAGE = ROOT / "src" / "just_plane" / "web" / "page" / "index.html"


@pytest.fixture(scope="module")
def wheel(tmp_path_factory):
    assert PAGE.is_file(), "build the page first: make build"
    folder = tmp_path_factory.mktemp("wheel")
    subprocess.run(
        [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(folder)],
        cwd=ROOT,
        check=True,
        capture_output=True,
    )
    return next(folder.glob("*.whl"))


@pytest.fixture(scope="module")
def installed(wheel, tmp_path_factory):
    """The bin folder of an environment with the wheel and what it needs, and nothing else."""
    folder = tmp_path_factory.mktemp("empty")
    venv.create(folder, with_pip=True)
    python = folder / "bin" / "python"
    for what in (["--require-hashes", "-r", str(ROOT / "requirements.txt")], ["--no-deps", str(wheel)]):
        subprocess.run([python, "-m", "pip", "install", "--quiet", "--no-compile", *what], check=True)
    return folder / "bin"


def test_the_wheel_carries_the_page_the_statements_and_the_demo(wheel):
    names = zipfile.ZipFile(wheel).namelist()
    for part in (
        "web/page/index.html",
        "store/sql/document_by_id.sql",
        "store/migrations/0001_shots.sql",
        "shelf/shelf.json",
    ):
        assert f"just_plane/{part}" in names
    assert any(name.endswith(".woff2") for name in names)
    assert not any("node_modules" in name or name.startswith("tests") for name in names)


def test_an_empty_environment_gets_a_plan(installed, tmp_path):
    shot = ROOT / "src" / "just_plane" / "demo" / "shots" / "cut-pod.json"
    done = subprocess.run(
        [installed / "just-plane", "plan", str(shot)], capture_output=True, text=True, cwd=tmp_path, check=True
    )
    assert '"way": "rail"' in done.stdout


def test_an_empty_environment_gets_a_page(installed, tmp_path):
    environment = {"PATH": "/usr/bin:/bin", "HOME": str(tmp_path), "LANG": os.environ.get("LANG", "C.UTF-8")}
    server = subprocess.Popen(
        [installed / "just-plane", "demo", "--port", "0"],
        stdout=subprocess.PIPE,
        text=True,
        cwd=tmp_path,
        env=environment,
    )
    try:
        address = re.search(r"http://\S+/", server.stdout.readline()).group()
        with urllib.request.urlopen(address) as page:
            assert b'<div id="root">' in page.read()
        with urllib.request.urlopen(f"{address}api/shots") as shots:
            assert b"Cut cocoa pod" in shots.read()
    finally:
        server.kill()
        server.wait()
        server.stdout.close()
    assert (tmp_path / ".local" / "share" / "just-plane-demo").is_dir() or sys.platform != "linux"
