"""What a drill says: of what was seen to change, of the next move, and of the end, by which end is how soft."""

import math

import numpy as np
import pytest

from just_plane.core.practice import hands, score, words
from just_plane.core.practice.drill import CIRCLE, RAIL_CLICK, Knob, Place, Setting, make_drill, start_of
from just_plane.core.practice.hands import best_setting, edges, ends_of_places
from just_plane.core.practice.score import ends_of, judge
from just_plane.core.practice.words import capital, ends_named, hint, saw, softest, steps_to

PAGE = make_drill("tilt_and_turn", 3)
NAMED = PAGE._replace(
    places=(Place("the bean", 0, 0, 210.0), Place("the rim", 4, 2, 260.0), Place("the foot", -9, 1, 190.0))
)
LEAST = CIRCLE / 3
"""What an eye at the magnifier tells from sharp."""


@pytest.fixture
def soft(monkeypatch):
    """A function that says how soft the near and the far end are at settings, and the worst place."""

    def set_to(by_setting, worst=None, best=None):
        told = {setting: max(ends) for setting, ends in by_setting.items()} | (worst or {})
        for module in (words, score):
            monkeypatch.setattr(module, "edges", lambda drill, setting: by_setting[setting])
            monkeypatch.setattr(module, "worst_blur", lambda drill, setting: told[setting])
            monkeypatch.setattr(module, "best_setting", lambda drill: best)

    return set_to


BEFORE, AFTER = Setting(), Setting(focus=5)


@pytest.mark.parametrize(
    ("was", "now", "said"),
    [
        ((0, 0), (1, 1), "Both edges went soft."),
        ((1, 1), (0, 0), "Both edges came up."),
        ((1, 0), (1, 1), "The far edge went soft."),
        ((0, 1), (1, 1), "The near edge went soft."),
        ((1, 1), (0, 1), "The near edge came up."),
        ((1, 1), (1, 0), "The far edge came up."),
        ((1, 1), (0, 2), "The near edge came up and the far edge went soft."),
        ((0, 1), (1, 0), "The near edge went soft and the far edge came up."),
        ((1, 1), (1.14, 1.14), "Hardly anything changed."),
        ((1, 1), (1.16, 1.16), "Both edges went soft."),
        ((1.16, 1.16), (1, 1), "Both edges came up."),
        ((1.14, 1.14), (1, 1), "Hardly anything changed."),
        # Less than an eye tells from sharp is sharp, before and after.
        ((0, 0), (0.38, 0.38), "Hardly anything changed."),
        ((0, 0), (0.39, 0.38), "The near edge went soft."),
        ((0.38, 0.39), (0, 0), "The far edge came up."),
    ],
)
def test_what_an_eye_would_see_change_is_said(soft, was, now, said):
    soft({BEFORE: np.multiply(was, CIRCLE), AFTER: np.multiply(now, CIRCLE)})
    assert saw(PAGE, BEFORE, AFTER) == said


@pytest.mark.parametrize(("words_", "said"), [("at the rim", "At the rim"), ("f/8", "F/8"), ("", ""), ("é", "É")])
def test_a_sentence_begins_with_one_capital(words_, said):
    assert capital(words_) == said


def test_ends_that_have_names_are_called_by_them(soft):
    assert ends_of_places(NAMED) == (2, 1)
    assert ends_named(NAMED) == ("the foot", "the rim")
    assert ends_named(PAGE) == ("the near edge", "the far edge")
    soft({BEFORE: (0, 0), AFTER: (1, 1)})
    assert saw(NAMED, BEFORE, AFTER) == "Both ends went soft."
    soft({BEFORE: (0, 0), AFTER: (1, 0)})
    assert saw(NAMED, BEFORE, AFTER) == "The foot went soft."


def test_nothing_is_seen_where_nothing_moved_or_no_edge_is_looked_at(soft):
    soft({BEFORE: (0, 0), AFTER: (1, 1)})
    assert saw(PAGE, BEFORE, BEFORE) == ""
    for kind in ("stop", "ends"):
        assert saw(make_drill(kind, 1), BEFORE, AFTER) == ""


BEST = Setting(focus=9, tilt=6, turn=2)


@pytest.mark.parametrize(
    ("setting", "near", "far", "said"),
    [
        (BEST, 0.5, 0.9, "It is sharp enough: press."),
        (BEST._replace(tilt=1), 1.5, 1.2, "Focus on the near edge."),
        (BEST._replace(tilt=1), 0.34, 1.2, "Focus on the near edge."),
        (BEST._replace(tilt=1), 0.33, 1.2, "Tilt until the far edge is sharp."),
        (BEST._replace(tilt=-7), 0.3, 1.2, "A little less tilt."),
        (BEST._replace(tilt=9), 0.3, 1.2, "A little less tilt."),
        (BEST._replace(focus=1), 0.3, 1.2, "Focus between the near edge and the far edge."),
        (BEST._replace(turn=0), 1.5, 1.2, "Turn the tilt to 30°: the slope runs that way."),
    ],
)
def test_the_next_move_of_a_good_hand(soft, setting, near, far, said):
    soft({setting: (near * CIRCLE, far * CIRCLE)}, worst={BEST: 0.4 * CIRCLE}, best=BEST)
    assert hint(PAGE, setting) == said


def test_where_the_lens_can_do_no_more_it_is_said(soft):
    there = BEST._replace(focus=10)
    for worst, said in ((2.03, "This lens can do no more here: press."), (2.05, "Focus on the near edge.")):
        soft({there: (CIRCLE, CIRCLE)}, worst={BEST: 2 * CIRCLE, there: worst * CIRCLE}, best=BEST)
        assert hint(PAGE, there) == said


@pytest.mark.parametrize(("turn", "said"), [(0, "30° anticlockwise"), (5, "45° clockwise")])
def test_a_set_that_falls_another_way_is_told_which_way_to_turn(soft, turn, said):
    there = BEST._replace(turn=turn)
    soft({there: (CIRCLE, 2 * CIRCLE)}, worst={BEST: 0.1 * CIRCLE}, best=BEST)
    assert PAGE.knob("turn").click == pytest.approx(math.radians(15))
    assert hint(NAMED, there) == f"Turn the tilt {said}: the set falls that way."


def test_a_turn_that_hardly_matters_is_not_worth_a_word(soft):
    fine = NAMED._replace(
        knobs=tuple(Knob("turn", -90, 90, 0, math.radians(1)) if knob.name == "turn" else knob for knob in NAMED.knobs)
    )
    for off, said in ((2, "Focus on the foot."), (3, "Turn the tilt 3° clockwise: the set falls that way.")):
        there = BEST._replace(turn=BEST.turn + off)
        soft({there: (CIRCLE, 2 * CIRCLE)}, worst={BEST: 0.1 * CIRCLE}, best=BEST)
        assert hint(fine, there) == said


def test_a_page_is_told_in_degrees_where_to_turn_however_fine_the_clicks(soft):
    fine = PAGE._replace(
        knobs=tuple(Knob("turn", -90, 90, 0, math.radians(4)) if knob.name == "turn" else knob for knob in PAGE.knobs)
    )
    best, there = BEST._replace(turn=-7), BEST._replace(turn=0)
    soft({there: (CIRCLE, 2 * CIRCLE)}, worst={best: 0.1 * CIRCLE}, best=best)
    assert hint(fine, there) == "Turn the tilt to -28°: the slope runs that way."


def test_without_a_tilt_the_focus_is_shared(soft):
    plain = PAGE._replace(knobs=tuple(knob for knob in PAGE.knobs if knob.name == "focus"))
    soft({BEFORE: (CIRCLE, 2 * CIRCLE)}, worst={BEST: 0.1 * CIRCLE}, best=BEST)
    assert hint(plain, BEFORE) == "Focus between the near edge and the far edge."


@pytest.mark.parametrize(
    ("row", "column", "name"),
    [
        (0, 0, "the top left"),
        (0, 9, "the top"),
        (4, 18, "the top right"),
        (5, 0, "the left"),
        (6, 9, "the middle"),
        (8, 12, "the middle"),
        (8, 13, "the right"),
        (9, 6, "the bottom left"),
        (12, 7, "the bottom"),
        (12, 18, "the bottom right"),
    ],
)
def test_the_softest_of_thirteen_rows_and_nineteen_columns_has_a_name(monkeypatch, row, column, name):
    there = np.zeros((13, 19))
    there[row, column] = 1
    monkeypatch.setattr(words, "blurs", lambda drill, setting: there)
    assert softest(PAGE, BEFORE) == name
    monkeypatch.setattr(words, "blurs", lambda drill, setting: np.array([0.1, 0.3, 0.2]))
    assert softest(NAMED, BEFORE) == "the rim"


def test_a_hand_that_knows_turns_one_knob_after_the_other_and_focuses_last():
    start = start_of(PAGE)
    goal = start._replace(focus=start.focus + 7, tilt=start.tilt + 4, turn=start.turn + 3)
    turned = start._replace(turn=goal.turn)
    assert steps_to(PAGE, goal) == [("turn", turned), ("tilt", turned._replace(tilt=goal.tilt)), ("focus", goal)]
    assert steps_to(PAGE, start) == []
    ends = make_drill("ends", 1)
    away = start_of(ends)._replace(rail=start_of(ends).rail + 5, tilt=3)
    assert [name for name, _ in steps_to(ends, away)] == ["rail"]


@pytest.mark.parametrize(
    ("near", "far", "worst", "least", "page", "named"),
    [
        (0.2, 0.9, 1.0, 0.1, "Sharp from the near edge to the far one.", "All that must be sharp is."),
        (2.0, 2.0, 2.1, 2.0, "As sharp as this lens can be here.", "As sharp as this lens can be here."),
        (
            1.1, 1.1, 2.0, 0.5,
            "Near and far are sharp; a corner is not: the tilt leans the wrong way across.",
            "The nearest and the farthest are sharp; the rim is not.",
        ),
        (
            2.0, 1.0, 2.0, 0.5,
            "The near edge is what is soft: focus on it once more.",
            "The foot is what is soft: focus on it once more.",
        ),
        (
            1.0, 2.0, 2.0, 0.5,
            "The far edge is what is soft: focus near, and tilt until it comes up.",
            "The rim is what is soft: focus near, and tilt until it comes up.",
        ),
    ],
)  # fmt: skip
def test_at_the_end_it_is_said_what_is_soft_and_what_would_have_helped(
    soft, monkeypatch, near, far, worst, least, page, named
):
    at = BEST._replace(focus=1)
    start = start_of(PAGE)
    for module in (score, words):
        monkeypatch.setattr(module, "softest", lambda drill, setting: "the rim")
    monkeypatch.setattr(score, "par_of", lambda drill: 4)
    told = {at: (near * CIRCLE, far * CIRCLE), start: (9 * CIRCLE, 9 * CIRCLE)}
    soft(told, worst={at: worst * CIRCLE, BEST: least * CIRCLE}, best=BEST)
    for drill, said in ((PAGE, page), (NAMED, named)):
        result = judge(drill, [at], 4)
        assert (result.said, result.softest) == (said, "the rim")
        assert result.sharp_enough == (worst <= 1)
        assert (result.moves, result.par) == (4, 4)


def test_without_a_tilt_a_soft_far_end_is_cured_by_focus(soft, monkeypatch):
    plain = PAGE._replace(knobs=tuple(knob for knob in PAGE.knobs if knob.name == "focus"))
    monkeypatch.setattr(score, "par_of", lambda drill: 1)
    soft({AFTER: (CIRCLE, 2 * CIRCLE), start_of(plain): (9, 9)}, worst={BEST: 0.5 * CIRCLE}, best=BEST)
    assert judge(plain, [AFTER], 1).said == "The far edge is what is soft: focus a little farther."


@pytest.mark.parametrize(
    ("reached", "moves", "expected"),
    [
        (1.0, 4, 0.0),
        (0.1, 4, 100.0),
        (0.05, 4, 100.0),
        (math.sqrt(0.1), 4, 50.0),
        (2.0, 4, 0.0),
    ],
)
def test_a_score_goes_by_the_logarithm_of_blur_from_the_start_to_the_best(reached, moves, expected):
    assert score.score(1.0, reached, 0.1, moves, 4) == pytest.approx(expected)


def test_moves_beyond_par_cost_by_the_root_of_how_many_and_fewer_are_worth_no_more():
    full, twice, fewer = (score.score(1.0, 0.1, 0.1, moves, 4) for moves in (4, 16, 1))
    assert (full, fewer) == (100, 100)
    assert twice == pytest.approx(100 * (1 - score.MOVES_SHARE / 2))
    assert score.score(0.001, 5.0, 0.1, 30, 4) == 100


@pytest.mark.parametrize(
    ("slope", "near", "far"),
    [
        ((0.1, 0.5), (12, 9), (0, 9)),
        ((0.1, -0.5), (0, 9), (12, 9)),
        ((0.5, 0.1), (6, 0), (6, 18)),
        ((-0.5, 0.1), (6, 18), (6, 0)),
    ],
)
def test_the_edges_of_a_page_are_the_middles_of_the_sides_that_it_slopes_to(monkeypatch, slope, near, far):
    """Away from the camera to the top, the bottom, the right or the left of a picture of 13 rows and 19 columns."""
    there = np.arange(13 * 19, dtype=float).reshape(13, 19)
    monkeypatch.setattr(hands, "blurs", lambda drill, setting: there)
    assert edges(PAGE._replace(slope=slope), BEFORE) == (there[near], there[far])
    monkeypatch.setattr(hands, "blurs", lambda drill, setting: np.array([0.1, 0.3, 0.2]))
    assert edges(NAMED, BEFORE) == (0.2, 0.3)


def test_of_ends_it_is_told_how_much_is_cut_off_and_one_frame_holds_nothing():
    drill = make_drill("ends", 2)
    near, far = ends_of(drill)
    clicks = [round(end / RAIL_CLICK) for end in (near, far)]
    none = judge(drill, [Setting(rail=clicks[0])], 1)
    assert (none.score, none.sharp_enough, none.reached, none.best) == (0.0, False, drill.depth, 0.0)
    tenth = round(0.1 * drill.depth / RAIL_CLICK)
    short = judge(drill, [Setting(rail=clicks[0] + tenth), Setting(rail=clicks[1])], 2)
    assert short.reached == pytest.approx((clicks[0] + tenth) * RAIL_CLICK - near)
    assert (short.sharp_enough, short.best) == (False, 0.0)
    whole = judge(drill, [Setting(rail=clicks[0] - 1), Setting(rail=clicks[1] + 1)], 2)
    assert (whole.reached, whole.sharp_enough, whole.best) == (0.0, True, 0.0)


def test_a_turn_past_its_end_comes_in_at_the_other():
    turn = Knob("turn", 0, 23, 12, 0.1)
    assert [hands._round(turn, clicks) for clicks in (-1, 0, 23, 24, 25)] == [23, 0, 23, 0, 1]
    assert hands._round(Knob("turn", -6, 5, 0, 0.1), 6) == -6
    assert hands._round(None, 99) == 99


@pytest.mark.parametrize("seed", range(4))
def test_of_drills_with_too_little_tilt_the_lens_has_a_pivot_and_less_tilt_than_is_asked(seed):
    limits, plain = make_drill("limits", seed), make_drill("tilt", seed)
    assert 20 <= limits.gear.pivot <= 60
    assert plain.gear.pivot == 0
    tilt = limits.knob("tilt")
    assert limits.asked[0] == pytest.approx(tilt.high * tilt.click)


def test_the_best_of_the_stops_lies_anywhere_among_them():
    drills = [make_drill("stop", seed) for seed in range(30)]
    assert len({best_setting(drill).stop for drill in drills}) >= 5
    # Nothing but the stop can be turned.
    assert {tuple((knob.name, knob.low, knob.high) for knob in drill.knobs) for drill in drills} == {
        (("stop", 0, len(drills[0].gear.stops) - 1),)
    }
    # For which the set is from nearly flat to an eighth steep.
    steep = [math.hypot(*drill.slope) for drill in drills]
    assert min(steep) < 0.02
    assert 0.08 < max(steep) < 0.126
