"""Shots to test with, and a store and an application over an empty folder."""

import os

import pytest
from hypothesis import settings

from just_plane.contract.shot import Shot
from just_plane.demo.catalogue import demo_shots
from just_plane.store.folder import open_shots
from just_plane.web.app import create_app

# A landing tries the same examples every time; HYPOTHESIS_PROFILE=explore looks for new ones.
settings.register_profile("steady", derandomize=True, deadline=None)
settings.register_profile("explore", max_examples=400, deadline=None)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "steady"))


@pytest.fixture(scope="session")
def catalogue():
    """The demo's shots by the first word of their names: cut, praline, ganache, foil."""
    return {shot.name.split()[0].lower(): shot for shot in demo_shots()}


@pytest.fixture
def pod(catalogue):
    return catalogue["cut"]


@pytest.fixture
def changed():
    """A function: a shot with values put in by JSON pointer, ``changed(shot, {"/lens/focal_length_mm": 50.0})``."""

    def change(shot, values):
        document = shot.model_dump()
        for pointer, value in values.items():
            *path, last = pointer.strip("/").split("/")
            place = document
            for part in path:
                place = place[part]
            place[last] = value
        return Shot.model_validate(document)

    return change


@pytest.fixture
def shots(tmp_path):
    return open_shots(tmp_path / "data")


@pytest.fixture
def client(shots):
    return create_app(shots).test_client()
