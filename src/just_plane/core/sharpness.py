"""What counts as sharp: three schools, each giving the largest blur diameter on the sensor that still passes."""

import math

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError

SCHOOLS = ("viewing", "sensor", "pixel")

EYE_DETAIL = 0.2
"""Smallest detail an eye resolves at ``EYE_DISTANCE``, mm (about 3 minutes of arc)."""
EYE_DISTANCE = 250.0
"""The distance at which ``EYE_DETAIL`` holds, mm: the conventional near point."""
SENSOR_DIVISOR = 1500.0
"""Parts of the sensor diagonal in one blur diameter, by the sensor school."""


def circle_for_sensor(sensor_width, sensor_height):
    """Sensor school: diagonal / 1500.

    Parameters
    ----------
    sensor_width, sensor_height : float   mm, > 0; the part of the sensor that is used.

    Returns
    -------
    float                                 Blur diameter on the sensor, mm.

    Raises
    ------
    OutOfDomainError                      A side is not finite or not positive.
    """
    positive("sensor_width", sensor_width, "mm")
    positive("sensor_height", sensor_height, "mm")
    return math.hypot(sensor_width, sensor_height) / SENSOR_DIVISOR


def circle_for_viewing(viewing_distance, enlargement, eye_detail=EYE_DETAIL):
    """Viewing school: what the eye resolves in the finished picture, brought back to the sensor.

    Parameters
    ----------
    viewing_distance : float   mm, > 0, from the eye to the print or screen.
    enlargement : float        Picture width / width of the sensor used after cropping, > 0.
    eye_detail : float         mm at 250 mm, > 0.

    Returns
    -------
    float                      Blur diameter on the sensor, mm.

    Raises
    ------
    OutOfDomainError           An input is not finite or not positive.

    Examples
    --------
    >>> circle_for_viewing(250.0, 10.0)
    0.02
    """
    positive("viewing_distance", viewing_distance, "mm")
    positive("enlargement", enlargement)
    positive("eye_detail", eye_detail, "mm")
    return eye_detail * viewing_distance / EYE_DISTANCE / enlargement


def circle_for_pixel(pixel_pitch, factor=2.0):
    """Pixel school: ``factor`` pixels, for those who inspect at 100 %.

    Parameters
    ----------
    pixel_pitch : float   mm, > 0.
    factor : float        Pixels across the blur, > 0.

    Returns
    -------
    float                 Blur diameter on the sensor, mm.

    Raises
    ------
    OutOfDomainError      An input is not finite or not positive.
    """
    positive("pixel_pitch", pixel_pitch, "mm", "Give the sensor's pixel count, or choose another school.")
    positive("factor", factor)
    return factor * pixel_pitch


def pixel_pitch(sensor_width, pixels_across):
    """Distance between pixel centres, mm, from the sensor's width (mm) and its pixel count.

    Parameters
    ----------
    sensor_width : float     mm, > 0.
    pixels_across : int or None   Along that side.

    Returns
    -------
    float                    mm.

    Raises
    ------
    OutOfDomainError   Width or count is not positive, or the count is unknown.
    """
    positive("sensor_width", sensor_width, "mm")
    if not pixels_across:
        raise OutOfDomainError(
            "pixels_across.unknown",
            quantity="pixels_across",
            value=pixels_across,
            message="The sensor's pixel count is not known, so the size of a pixel is not either.",
            remedy="Give the pixel count, or choose the viewing or the sensor school.",
        )
    positive("pixels_across", pixels_across)
    return sensor_width / pixels_across
