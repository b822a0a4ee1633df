"""The built page in Debian's Chromium, on a real server over a real database."""

import os
import re
import signal
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest
from playwright.sync_api import expect, sync_playwright

from just_plane.store.places import FILE

ROOT = Path(__file__).parents[2]
CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium")
PATIENCE_MS = 20_000
"""For what comes at once on a quiet machine: both cores may be busy with something else."""
WORK_MS = 240_000
"""For what is worked out or done by the simulated devices meanwhile: frames taken, looked through, measured, drawn."""
expect.set_options(timeout=PATIENCE_MS)
SWITCHED_OFF = [
    # The address bar's own pages: begun anew with every context, for twice the work of opening our page.
    "WebUIOmniboxPopup",
    "WebUIOmniboxAimPopup",
    # What Playwright switches off besides: of two such lists, Chromium takes the last.
    "DestroyProfileOnBrowserClose",
    "HttpsFirstBalancedModeAutoEnable",
    "HttpsUpgrades",
    "MediaRouter",
    "NetworkTimeServiceQuerying",
    "OptimizationHints",
    "PaintHolding",
    "PreconnectToSearch",
    "ThirdPartyStoragePartitioning",
]
FLAGS = [
    "--no-sandbox",
    # Drawn by the processor in any case: through a made-up graphics card it takes a tenth longer.
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    f"--disable-features={','.join(SWITCHED_OFF)}",
]


def pytest_collection_modifyitems(items):
    for item in items:
        if "browser" in item.path.parts:
            item.add_marker(pytest.mark.browser)


class Server:
    """A server process that can be stopped and started again on the same port and data."""

    def __init__(self, folder, command="demo", *more):
        self.folder, self.command, self.port, self.more = folder, command, "0", more
        self.start()

    def start(self):
        self.process = subprocess.Popen(
            [sys.executable, "-m", "just_plane.cli", self.command, "--data", str(self.folder), "--port", self.port,
             *self.more],
            stdout=subprocess.PIPE,
            text=True,
        )  # fmt: skip
        said = self.process.stdout.readline()
        self.address = re.search(r"http://\S+/", said).group()
        self.port = self.address.rsplit(":", 1)[1].strip("/")

    def kill(self):
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()
        self.process.stdout.close()


@pytest.fixture(scope="session")
def chromium():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def shared_server(tmp_path_factory):
    """One server a worker, on the demo's data, and a copy of that data as it was filled."""
    folder = tmp_path_factory.mktemp("shared")
    running = Server(folder)
    as_filled = folder / "as-filled.sqlite3"
    copy_database(folder / FILE, as_filled)
    yield running, as_filled
    running.kill()


@pytest.fixture
def server(shared_server):
    """The worker's server, its data as the demo fills it: nothing of the test before is left."""
    running, as_filled = shared_server
    if running.process.poll() is not None:
        running.start()
    copy_database(as_filled, running.folder / FILE)
    return running


def copy_database(source, destination):
    with closing(sqlite3.connect(source, timeout=20)) as old, closing(sqlite3.connect(destination, timeout=20)) as new:
        old.backup(new)


@pytest.fixture(scope="session")
def still_server(tmp_path_factory):
    """One server for all tests that only look."""
    running = Server(tmp_path_factory.mktemp("still"))
    yield running
    running.kill()


class Held:
    """What a page, or every page of a context, asks at an address: held back until it is let go, or answered here."""

    def __init__(self, routed, address):
        self.waiting = []
        self.released = None
        routed.route(address, self.asked)

    def asked(self, route):
        if self.released:
            self.released(route)
        else:
            self.waiting.append(route)

    def release(self, how=lambda route: route.continue_()):
        """Also what is asked from now on: on busy cores a page may ask for the first time only then."""
        self.released = how
        for route in self.waiting:
            how(route)


@pytest.fixture
def context(chromium):
    made = chromium.new_context(
        viewport={"width": 1280, "height": 800}, device_scale_factor=1, reduced_motion="reduce", accept_downloads=True
    )
    made.set_default_timeout(PATIENCE_MS)
    yield made
    # A page may ask for something as it is closed: what a test's own answer then meets is no fault of the next test.
    for routed in (*made.pages, made):
        routed.unroute_all(behavior="ignoreErrors")
    made.close()


@pytest.fixture
def complaints():
    """What the console said that it should not have; a test that expects some takes them out."""
    return []


@pytest.fixture
def open_page(context, complaints):
    """A function that opens a page and listens to its console."""

    def open_at(address):
        page = context.new_page()
        page.on(
            "console",
            lambda message: complaints.append(message.text) if message.type in ("error", "warning") else None,
        )
        page.on("pageerror", lambda error: complaints.append(str(error)))
        page.goto(address)
        return page

    yield open_at
    assert complaints == []


@pytest.fixture
def page(open_page, server):
    return open_page(server.address)
