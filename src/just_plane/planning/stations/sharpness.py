"""What counts as sharp in this shot: the chosen school, and what the others would say."""

from just_plane.contract.plan import Sharpness, SharpnessSchool
from just_plane.core.errors import OpticsError
from just_plane.core.units import UM_PER_MM
from just_plane.planning.words.findings import Answered


def sharpness(framed):
    """The sharpness section of a plan.

    Parameters
    ----------
    framed : Framed

    Returns
    -------
    Answered          Of contract Sharpness; None where the chosen school has no answer.
    """
    shot, chosen = framed.shot, framed.circles[framed.shot.sharp.school]
    if isinstance(chosen, OpticsError):
        return Answered(None)
    return Answered(
        Sharpness(
            school=shot.sharp.school,
            circle_um=chosen * UM_PER_MM,
            smallest_detail_um=chosen / framed.rigged.imaging.magnification * UM_PER_MM,
            schools=[
                SharpnessSchool(
                    school=school,
                    circle_um=None if isinstance(circle, OpticsError) else circle * UM_PER_MM,
                    why=str(circle) if isinstance(circle, OpticsError) else _why(school, shot, framed.wording),
                )
                for school, circle in framed.circles.items()
            ],
        )
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
