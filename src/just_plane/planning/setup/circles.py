"""The largest acceptable blur by each school of what counts as sharp."""

from just_plane.core.errors import OpticsError
from just_plane.core.sharpness import circle_for_pixel, circle_for_sensor, circle_for_viewing, pixel_pitch


def circles(picture, pixel_factor, area):
    """Blur diameter on the sensor by each school.

    Parameters
    ----------
    picture : contract Picture
    pixel_factor : float          Pixels across the blur, for the pixel school.
    area : Sensor                 In use.

    Returns
    -------
    dict                          {school: mm, or the OpticsError by which it has no answer}.
    """
    used = area.width * picture.share_of_frame
    schools = {
        "viewing": lambda: circle_for_viewing(picture.viewing_distance_mm, picture.width_mm / used),
        "sensor": lambda: circle_for_sensor(used, area.height * picture.share_of_frame),
        "pixel": lambda: circle_for_pixel(pixel_pitch(area.width, area.pixels_across), pixel_factor),
    }
    return {school: _or_refusal(work) for school, work in schools.items()}


def _or_refusal(work):
    try:
        return work()
    except OpticsError as error:
        return error
