"""The core and planning on their own."""

import time

import numpy as np
from hands import kit_of
from scipy.integrate import quad
from timing import median_s

from just_plane.contract.search import SearchAsked
from just_plane.core.contrast import contrast, contrast_through_focus
from just_plane.core.frames.ruler import find_ruler
from just_plane.core.frames.ruler_picture import ruler_picture
from just_plane.core.scene import render
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.kit.search import search
from just_plane.planning.pictures.preview import preview
from just_plane.planning.words.numbers import Wording
from just_plane.shelf.starter import starter_shelf


def contrast_against_quadrature():
    """Time a point (s): ours over an array, and scipy's adaptive quadrature to 1e-5."""
    rng = np.random.default_rng(1)
    ne, blur = rng.uniform(4, 25, 4000), rng.uniform(0, 0.06, 4000)
    ours = median_s(lambda: contrast(50.0, ne, blur), 20) / len(ne)

    def by_quadrature(index):
        s, a = 50.0 * 0.00055 * ne[index], np.pi * 50.0 * blur[index]
        return quad(lambda x: np.sqrt(max(1 - (x + s) ** 2, 0.0)) * np.cos(a * x), 0, 1 - s, epsabs=1e-5, epsrel=1e-5)

    theirs = median_s(lambda: [by_quadrature(index) for index in range(100)], 5) / 100
    return ours, theirs


def through_focus_map():
    """Time (s) of a map of 200 apertures by 400 depths."""
    ne = np.linspace(4, 30, 200)
    return median_s(lambda: contrast_through_focus(50.0, ne, 4 / ne / 400, 400), 20)


def search_of(pieces):
    """Times (s): the median of searches for three frames, each asked a little wider than the last, and the first of the
    kit, whose rows no search before has assembled; and rows tried."""
    kit, body = kit_of(pieces), starter_shelf().pieces[0].gear
    asked = [
        SearchAsked(body=body, frame_width_mm=width + 0.1 * turn, room_mm=room)
        for turn in range(3)
        for width, room in ((32, 60), (18, 30), (72, 100))
    ]
    rest = iter(asked)
    begun = time.perf_counter()
    tried = search(kit, asked[0].model_copy(update={"frame_width_mm": 31.7}), Wording()).tried
    first_s = time.perf_counter() - begun
    return median_s(lambda: search(kit, next(rest), Wording()), len(asked)), first_s, tried


def ruler_in_a_frame():
    """Median time (s) of finding the ticks in frames of 2400 by 1600 pixels, each another."""
    frames = iter([ruler_picture(2400, 1600, 41.7 + turn / 3, angle=0.1 - turn / 50) for turn in range(5)])
    return median_s(lambda: find_ruler(next(frames)), 5)


def preview_of_a_frame():
    """Medians (s): rendering 960 by 640 pixels alone, and a whole picture of the tilted tray."""
    rng = np.random.default_rng(2)
    texture, blur = rng.random((640, 960, 3)), np.tile(np.linspace(0, 0.04, 960), (640, 1))
    tray = demo_shots()[0]
    return (
        median_s(lambda: render(texture, blur, 10.0, 0.0044), 7),
        median_s(lambda: preview(tray, "tilt", "pixels", 0.5, 0.4), 7),
    )
