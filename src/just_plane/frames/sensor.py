"""How much of the sensor frames show, and where the points of a plan lie in them."""

import numpy as np

WHOLE = 0.03
"""Frames as wide as the sensor within this share show all of it."""


def crop_of(numbers, width):
    """How many times wider the sensor is than what the frames show of it, around the middle.

    Parameters
    ----------
    numbers : StackNumbers   With the pitch of the frames' pixels.
    width : int              Of the frames, px.

    Returns
    -------
    float                    1 where they show all of it, or one of the two is not known.
    """
    if numbers.sensor_width_mm is None or numbers.pixel_pitch_mm is None:
        return 1.0
    times = numbers.sensor_width_mm / (numbers.pixel_pitch_mm * width)
    return 1.0 if abs(times - 1) < WHOLE else times


def places_of(numbers, width, height):
    """Where the named points lie in the frames.

    Parameters
    ----------
    numbers : StackNumbers
    width, height : int      Of the frames, px.

    Returns
    -------
    (N, 2) array             x, y in px; outside of the frame where it shows less than the sensor.
    """
    shares = np.array([[one.from_left, one.from_top] for one in numbers.points])
    return (0.5 + (shares - 0.5) * crop_of(numbers, width)) * np.array([width, height]) - 0.5


def shown(numbers, width):
    """What is said of frames that show a part of the sensor alone: list of str."""
    times = crop_of(numbers, width)
    if times == 1:
        return []
    return [
        f"By the camera's notes of its pixels these frames show the middle {100 / times:.0f} % of the sensor's width."
    ]
