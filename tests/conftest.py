"""Shots to test with, and a store and an application over an empty folder."""

import functools
import gc
import os

import pytest
from hypothesis import settings

from just_plane.contract.shot import Shot
from just_plane.demo.catalogue import demo_shots
from just_plane.store.folder import open_store
from just_plane.web.app import create_app

# A landing tries the same examples every time; HYPOTHESIS_PROFILE=explore looks for new ones.
settings.register_profile("steady", derandomize=True, deadline=None)
settings.register_profile("explore", max_examples=400, deadline=None)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "steady"))


def pytest_sessionstart():
    """Nothing is remembered from a session before in the same process: `make mutants` runs many in copies of one."""
    for each in gc.get_objects():
        if isinstance(each, functools._lru_cache_wrapper):
            each.cache_clear()


@pytest.fixture(scope="session")
def catalogue():
    """The demo's shots by the first word of their names: cut, praline, ganache, sugar, foil, bonbon."""
    return {shot.name.split()[0].lower(): shot for shot in demo_shots()}


@pytest.fixture
def pod(catalogue):
    return catalogue["cut"]


@pytest.fixture
def changed():
    """A function: a shot with values put in by JSON pointer, ``changed(shot, {"/rig/0/gear/barrel_mm": 50.0})``.

    ``tubes_mm`` puts tubes of these lengths behind the first piece in place of what is there.
    """

    def change(shot, values):
        document = shot.model_dump()
        for pointer, value in values.items():
            if pointer == "tubes_mm":
                tubes = [{"gear": {"kind": "tube", "length_mm": length}} for length in value]
                document["rig"] = [document["rig"][0], *tubes]
                continue
            *path, last = pointer.strip("/").split("/")
            place = document
            for part in path:
                place = place[int(part) if isinstance(place, list) else part]
            place[last] = value
        return Shot.model_validate(document)

    return change


@pytest.fixture
def square_foil(catalogue, changed):
    """Flat foil square to the camera: one frame holds it, no points."""
    return changed(catalogue["foil"], {"/plane/points": [], "/subject/depth_mm": 1.6})


@pytest.fixture
def tray(catalogue):
    return catalogue["bonbon"]


@pytest.fixture
def store(tmp_path):
    return open_store(tmp_path / "data")


@pytest.fixture
def shots(store):
    return store.shots


@pytest.fixture
def client(store):
    return create_app(store).test_client()
