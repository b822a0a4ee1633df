"""The longest shutter against movement: of the subject, of the hand, of a rail that still swings."""

import math

from just_plane.core.domain import non_negative, positive


def longest_shutter_for_subject(speed, magnification, circle_of_confusion):
    """Longest exposure, s, in which movement across the view blurs by half the circle: c / (2 v m).

    Parameters
    ----------
    speed : float                 mm/s, >= 0; at 0, and where it is too small to be told from 0, the answer is inf.
    magnification : float         > 0.
    circle_of_confusion : float   mm, > 0.
    """
    non_negative("speed", speed, "mm/s")
    positive("magnification", magnification)
    positive("circle_of_confusion", circle_of_confusion, "mm")
    drift = 2 * speed * magnification
    return circle_of_confusion / drift if drift else math.inf


def longest_shutter_by_hand(focal_length, crop, magnification, stabiliser_stops=0.0):
    """Longest exposure held by hand, s: 2^stops / (f crop (1 + m)).

    A rule of experience, not of optics: one over the focal length in mm for a 36 mm wide sensor, shortened as the
    picture of any movement grows with 1 + m.

    Parameters
    ----------
    focal_length : float       mm, > 0.
    crop : float               36 mm / width of the sensor in use, > 0.
    magnification : float      >= 0.
    stabiliser_stops : float   >= 0.
    """
    positive("focal_length", focal_length, "mm")
    positive("crop", crop)
    non_negative("magnification", magnification)
    non_negative("stabiliser_stops", stabiliser_stops)
    return 2**stabiliser_stops / (focal_length * crop * (1 + magnification))


def settling_needed(swing, calms_in, magnification, circle_of_confusion):
    """How long to wait after a move, s, until the rail's swing blurs by no more than half the circle.

    Parameters
    ----------
    swing : float                 How far it swings to either side right after the move, mm, >= 0.
    calms_in : float              Time in which the swing falls to 1/e, s, > 0.
    magnification : float         > 0.
    circle_of_confusion : float   mm, > 0.

    Returns
    -------
    float                         s; 0 when it never swings too far.
    """
    non_negative("swing", swing, "mm")
    positive("calms_in", calms_in, "s")
    positive("magnification", magnification)
    positive("circle_of_confusion", circle_of_confusion, "mm")
    blur = 2 * swing * magnification
    return calms_in * math.log(2 * blur / circle_of_confusion) if blur > circle_of_confusion / 2 else 0.0
