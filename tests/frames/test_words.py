"""What a finding says, what to do about it, and what it costs: by whether the frames beside it cover what it held."""

import pytest

from just_plane.core.frames.check.findings import Found
from just_plane.frames.words import PICTURE, WORD, WORK, at_places, lengths, number, spoken

NAMES = ["a.jpg", "b.jpg", "c.jpg", "d.jpg", "e.jpg", "f.jpg"]
AT = {2: ", at 0.30 mm behind the nearest point"}


def said(found, *, covered, places=AT):
    return spoken(found, NAMES, places, covered)


@pytest.mark.parametrize(
    ("found", "covered", "message", "remedy", "cost"),
    [
        (
            Found("foreign_frame", 2, 1.0, "frames", frames=(2,)),
            True,
            "c.jpg does not belong to this stack: nothing in it fits the frames beside it.",
            "It is left out, and nothing is missing.",
            WORD,
        ),
        (
            Found("foreign_frame", 2, 1.0, "frames", frames=(2,)),
            False,
            "c.jpg does not belong to this stack: nothing in it fits the frames beside it.",
            "It is left out. Look for the frame that belongs there, or take it again.",
            PICTURE,
        ),
        (
            Found("duplicate", 2, 0.0, "steps", before=1, frames=(2,)),
            True,
            "c.jpg is the same picture as b.jpg.",
            "It is left out, and nothing is missing.",
            WORD,
        ),
        (
            Found("duplicate", 2, 0.0, "steps", before=0, frames=(2, 3, 4, 5)),
            False,
            "c.jpg and 3 more are copies of frames that are here already, c.jpg of a.jpg: the same pictures again.",
            "They are left out, and nothing is lost by it.",
            WORD,
        ),
        (
            Found("taken_again", 1, 5.0, "frames", before=0, frames=(1, 2, 3, 4, 5)),
            True,
            "b.jpg to f.jpg, 5 frames, show again what a.jpg and those beside it show: it was taken twice.",
            "The longer take is judged, of two as long the later; these are left out. "
            "To have these judged, put them into a folder of their own.",
            WORD,
        ),
        (
            Found("duplicate", 2, 0.0, "steps", before=1),
            True,
            "c.jpg stands where b.jpg stood: the rail was not moved between them.",
            "Nothing is missing because of it.",
            WORD,
        ),
        (
            Found("duplicate", 2, 0.2, "steps", before=1),
            False,
            "c.jpg stands where b.jpg stood: the rail was not moved between them.",
            "Look for the step that was missed, at 0.30 mm behind the nearest point.",
            WORD,
        ),
        (
            Found("skipped_step", 2, 1.0, "steps", before=1),
            True,
            "One step is missing between b.jpg and c.jpg.",
            "It is still covered, just.",
            WORK,
        ),
        (
            Found("skipped_step", 2, 1.0, "steps", before=1),
            False,
            "One step is missing between b.jpg and c.jpg.",
            "Take one more frame between them, at 0.30 mm behind the nearest point.",
            PICTURE,
        ),
        (
            Found("dead_flash", 2, -2.04, "EV"),
            False,
            "c.jpg is 2 stops darker than the frames beside it: the light did not come.",
            "Take it again, at 0.30 mm behind the nearest point.",
            PICTURE,
        ),
        (
            Found("shake", 2, 0.4, "share"),
            True,
            "c.jpg is shaken: it lost detail that the frames beside it hold.",
            "The frames beside it cover what it held: it is left out, and nothing is missing.",
            WORD,
        ),
        (
            Found("bump", 2, 12.4, "px", before=1),
            True,
            "Between b.jpg and c.jpg the view jumped by 12 px.",
            "It is laid straight again. Look that nothing else moved, and that the view still holds all of it.",
            WORK,
        ),
        (
            Found("rotation", 2, -0.123, "deg", before=1),
            True,
            "Between b.jpg and c.jpg the view turned by 0.12°.",
            "It is turned back. Tighten the camera before the next frame.",
            WORK,
        ),
        (
            Found("light_jump", 2, -0.31, "EV", before=1),
            True,
            "From c.jpg on the frames are 0.31 stops darker.",
            "Merging evens it out. Lock exposure, and look at lamps and windows.",
            WORD,
        ),
        (
            Found("light_drift", None, 0.21, "EV"),
            True,
            "The light drifts: 0.21 stops lighter over the stack.",
            "Merging evens it out. Let lamps warm up, shut the daylight out.",
            WORD,
        ),
        (
            Found("moved", 2, 3.3, "px", before=1),
            True,
            "A part of the subject moved by 3.3 px between b.jpg and c.jpg.",
            "A merge will show it twice. Take the stack again from there, or from the start.",
            PICTURE,
        ),
        (
            Found("sensor_dust", None, 0.154, "share"),
            True,
            "Dust on the sensor: a spot at one place of every frame takes 15 % of the light.",
            "A merge draws it out into a line. Clean the sensor, or mend the line.",
            WORK,
        ),
    ],
)
def test_a_finding_is_said_with_what_to_do_and_what_it_costs(found, covered, message, remedy, cost):
    assert said(found, covered=covered) == (message, remedy, cost)


@pytest.mark.parametrize(("frames", "which"), [((2,), "c.jpg"), ((2, 3, 4), "c.jpg and 2 more")])
def test_frames_that_could_not_be_laid_are_counted(frames, which):
    message, remedy, cost = said(Found("registration_failed", 2, float(len(frames)), "frames"), covered=True)
    assert message == f"{which} could not be laid on the others: too little of the view is the same."
    assert "from that frame on" in remedy
    assert cost == PICTURE


@pytest.mark.parametrize(
    ("frames", "which"),
    [
        ((1, 2), "b.jpg, c.jpg are"),
        ((0, 1, 3, 5), "a.jpg, b.jpg, d.jpg, f.jpg are"),
        ((0, 1, 2, 3, 5), "a.jpg, b.jpg, c.jpg, d.jpg and more are"),
        ((1, 2, 3, 4, 5), "b.jpg to f.jpg, 5 frames, are"),
    ],
)
def test_frames_out_of_order_are_named_or_the_first_and_last_of_many(frames, which):
    message, _, cost = said(Found("wrong_order", frames[0], 1.0, "frames", frames=frames), covered=True)
    assert message == f"{which} not in the order of focus."
    assert cost == WORD


def test_without_a_plan_no_place_is_said():
    _, remedy, _ = said(Found("skipped_step", 2, 2.0, "steps", before=1), covered=False, places={})
    assert remedy == "Take 2 more frames between them."


@pytest.mark.parametrize(
    ("value", "digits", "words"), [(0.1234, 2, "0.12"), (9.96, 2, "10"), (12.4, 2, "12"), (1234.4, 2, "1,234")]
)
def test_numbers_have_no_exponent(value, digits, words):
    assert number(value, digits) == words


def test_places_are_told_apart_to_ten_micrometres_in_either_unit():
    assert lengths([0.254, 25.4], "mm") == ["0.25", "25.40"]
    assert lengths([0.254, 25.4], "in") == ["0.010", "1.000"]
    assert at_places([1.0], "mm") == "at 1.00 mm behind the nearest point"
    assert at_places([1.0, 2.0, 3.0], "mm") == "at 1.00, 2.00 and 3.00 mm behind the nearest point"
