"""What counts as sharp in this shot: the chosen school, and what the others would say."""

from just_plane.contract.plan import Sharpness, SharpnessSchool
from just_plane.core.errors import OpticsError
from just_plane.core.sharpness import circle_for_pixel, circle_for_sensor, circle_for_viewing, pixel_pitch
from just_plane.core.units import UM_PER_MM
from just_plane.planning.rigging import sensor


def circles(shot):
    """Blur diameter by each school, mm, or the refusal: {school: float | OpticsError}."""
    picture, sharp, area = shot.picture, shot.sharp, sensor(shot)
    used = area.width * picture.share_of_frame

    def by_pixel():
        return circle_for_pixel(pixel_pitch(area.width, area.pixels_across), sharp.pixel_factor)

    ways = {
        "viewing": lambda: circle_for_viewing(picture.viewing_distance_mm, picture.width_mm / used),
        "sensor": lambda: circle_for_sensor(used, area.height * picture.share_of_frame),
        "pixel": by_pixel,
    }
    return {school: _try(way) for school, way in ways.items()}


def sharpness(shot, magnification, findings, wording):
    """The sharpness section of a plan, or None after saying why the chosen school has no answer."""
    answers = circles(shot)
    chosen = answers[shot.sharp.school]
    if isinstance(chosen, OpticsError):
        findings.refused(chosen, "/body/pixels_across")
        return None
    return Sharpness(
        school=shot.sharp.school,
        circle_um=chosen * UM_PER_MM,
        smallest_detail_um=chosen / magnification * UM_PER_MM,
        schools=[
            SharpnessSchool(
                school=school,
                circle_um=None if isinstance(circle, OpticsError) else circle * UM_PER_MM,
                why=str(circle) if isinstance(circle, OpticsError) else _why(school, shot, wording),
            )
            for school, circle in answers.items()
        ],
    )


def _why(school, shot, wording):
    if school == "viewing":
        picture = shot.picture
        return (
            f"an eye at {wording.length(picture.viewing_distance_mm)} "
            f"from a picture {wording.length(picture.width_mm)} wide"
        )
    if school == "sensor":
        return "1/1500 of the diagonal of the sensor used"
    return f"{shot.sharp.pixel_factor:g} pixels, looked at one to one"


def _try(way):
    try:
        return way()
    except OpticsError as error:
        return error
