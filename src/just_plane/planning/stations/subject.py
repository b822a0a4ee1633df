"""The Subject station: a depth that can hardly be meant, a subject that moves before one frame is done."""

from just_plane.core.units import MM_PER_NM, UM_PER_MM
from just_plane.planning.words.findings import caution, trouble
from just_plane.planning.words.numbers import seconds, shutter_words


def subject(depth, sharp):
    """What there is to say of the depth that must be sharp.

    Parameters
    ----------
    depth : float           mm.
    sharp : contract Sharp  For the wavelength.

    Returns
    -------
    tuple of Finding
    """
    wavelength = sharp.wavelength_nm * MM_PER_NM
    if depth == 0:
        return (
            caution(
                "depth.zero",
                "/subject/depth_mm",
                "A depth of 0 leaves no room for an error of focus.",
                "Give how far the nearest and the farthest point lie apart; even a flat print has some tenths of a mm.",
            ),
        )
    if depth < wavelength:
        return (
            caution(
                "depth.below_wavelength",
                "/subject/depth_mm",
                f"A depth of {depth * UM_PER_MM:.3g} µm is less than one wavelength of light "
                f"({wavelength * UM_PER_MM:.3g} µm): no lens can tell its ends apart.",
                "Is the unit right? Type it with the value, such as 450um or 0.2mm.",
            ),
        )
    return ()


def hold_still(setup, ways):
    """What there is to say of how long the subject keeps still against the quickest single frame.

    Parameters
    ----------
    setup : Setup
    ways : sequence of WayAnswer

    Returns
    -------
    tuple of Finding
    """
    hold = setup.shot.subject.hold_still_s
    single = min((way.hold_s for way in ways if way.frames == 1), default=0.0)
    if hold is None or single <= hold or not setup.shot.light.read:
        return ()
    return (
        trouble(
            "hold_still.shorter_than_a_frame",
            "/subject/hold_still_s",
            f"The subject holds still for {seconds(hold)}; one exposure alone takes {shutter_words(single)}.",
            "Add light, raise the sensitivity, or open up.",
        ),
    )
