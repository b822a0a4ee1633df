"""Drills: reachable, fair to a good hand, worth little to a blind one; judged by blur that rays give."""

import math

import numpy as np
import pytest

from just_plane.core.contrast import contrast
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane import wedge_blur
from just_plane.core.plane.tilt import TiltSetting
from just_plane.core.practice.drill import (
    CIRCLE,
    FOCAL,
    KINDS,
    RAIL_CLICK,
    STOPS,
    Setting,
    held,
    make_drill,
    start_of,
    tilt_toward,
)
from just_plane.core.practice.hands import as_asked, best_setting, near_then_far, par_of
from just_plane.core.practice.score import ends_of, judge, score
from just_plane.core.practice.seeing import JUDGED, raster_of, set_of, works_as, worst_blur, worst_contrast_at
from just_plane.core.practice.words import hint, saw

TILTS = ("tilt", "tilt_and_turn", "limits")
SEEDS = range(30)


@pytest.mark.parametrize("kind", ["stop", "tilt"])
def test_the_page_of_a_drill_is_the_same_for_the_same_seed_and_another_for_another(kind):
    drill = make_drill(kind, 4)
    once, again, other = (set_of(one).light for one in (drill, drill, drill._replace(seed=5)))
    assert np.array_equal(once, again)
    assert not np.array_equal(once, other)


@pytest.mark.parametrize("kind", ["stop", *TILTS])
def test_the_page_reaches_past_the_frame_whatever_its_slope(kind):
    for seed in range(8):
        drill = make_drill(kind, seed)
        m = drill.image_distance / drill.distance
        assert 1 / drill.distance + 1 / drill.image_distance == pytest.approx(1 / FOCAL)
        (rows, columns), texel = raster_of(drill)
        width, height = (side / m for side in drill.gear.sensor)
        # A slope's far side shows as much more of it as it lies farther away: half a frame over the distance.
        far = 1 + abs(drill.slope[0]) * width / 2 / drill.distance + abs(drill.slope[1]) * height / 2 / drill.distance
        assert columns * texel >= far * width
        assert rows * texel >= far * height


@pytest.mark.parametrize("kind", ["ends", "magnifier", "rock"])
def test_where_nothing_is_set_for_good_the_best_setting_is_the_one_to_begin_with(kind):
    drill = make_drill(kind, 4)
    assert best_setting(drill) == start_of(drill)


@pytest.mark.parametrize("kind", TILTS)
def test_blur_is_that_of_points_on_the_page_seen_through_the_tilted_lens(kind):
    drill = make_drill(kind, 4)
    setting = start_of(drill)._replace(tilt=5, focus=11)
    clicks = {knob.name: knob.click for knob in drill.knobs}
    tilt = 5 * clicks["tilt"]
    azimuth = math.pi / 2 if "turn" not in clicks else setting.turn * clicks["turn"]
    # The node swings about the pivot behind it, toward where the lens faces: opposite to where the plane recedes.
    faces = np.array([-math.cos(azimuth), -math.sin(azimuth)])
    node = np.append(drill.gear.pivot * math.sin(tilt) * faces, drill.gear.pivot * (math.cos(tilt) - 1))
    middle = FOCAL * drill.distance / (drill.distance - FOCAL)
    image = middle + 11 * clicks["focus"] + node[2]
    rows, columns = JUDGED
    # Places of the sensor, shown as if it had grown no larger by focusing; rays through the node meet the page.
    across, up = np.meshgrid((np.arange(columns) - 9) * 36 / 19, -(np.arange(rows) - 6) * 36 / 19)
    rays = np.stack([across / middle + node[0] / image, up / middle + node[1] / image], axis=-1)
    slope = np.array(drill.slope)
    z = (drill.distance + slope @ node[:2] - node[2]) / (1 - rays @ slope)
    points = np.concatenate([rays * z[..., np.newaxis], z[..., np.newaxis]], axis=-1).reshape(-1, 3)
    expected = wedge_blur(FOCAL, 5.6, TiltSetting(tilt, azimuth, image), points).max()
    assert worst_blur(drill, setting) == pytest.approx(expected, rel=1e-4)


@pytest.mark.parametrize("kind", ["tilt", "tilt_and_turn"])
def test_every_drill_can_be_made_sharp_but_those_with_limits(kind):
    for seed in SEEDS:
        assert worst_blur(make_drill(kind, seed), best_setting(make_drill(kind, seed))) <= CIRCLE


def test_no_setting_is_sharper_than_what_is_called_the_best():
    for kind in TILTS:
        drill = make_drill(kind, 7)
        least = worst_blur(drill, best_setting(drill))
        made = np.random.default_rng(1)
        knobs = {knob.name: knob for knob in drill.knobs}
        for _ in range(4000):
            tried = Setting(**{name: int(made.integers(knob.low, knob.high + 1)) for name, knob in knobs.items()})
            assert worst_blur(drill, held(drill, tried)) >= least - 1e-3


@pytest.mark.parametrize(
    ("kind", "seed"), [("tilt", 19), ("tilt", 43), ("tilt_and_turn", 17), ("tilt_and_turn", 153), ("limits", 3)]
)
def test_the_best_is_the_sharpest_of_all_clicks_around_what_the_set_asks_for(kind, seed):
    """Every click of focus, three of tilt and one of turn to either side: by whole clicks one beside may be sharper."""
    drill = make_drill(kind, seed)
    knobs = {knob.name: knob for knob in drill.knobs}
    tilt, turn = tilt_toward(drill, *drill.asked)
    turns = [turn + more for more in (-1, 0, 1)] if "turn" in knobs else [turn]
    least = min(
        worst_blur(drill, held(drill, start_of(drill)._replace(tilt=tilt + lean, turn=turned, focus=focus)))
        for lean in range(-3, 4)
        for turned in turns
        for focus in range(knobs["focus"].low, knobs["focus"].high + 1)
    )
    assert worst_blur(drill, best_setting(drill)) == pytest.approx(least, rel=1e-9)
    asked = worst_blur(drill, as_asked(drill))
    assert (least < 0.99 * asked) == (kind != "limits")


@pytest.mark.parametrize("kind", TILTS)
def test_a_good_hand_reaches_par_and_a_good_score_on_every_seed(kind):
    for seed in SEEDS:
        drill = make_drill(kind, seed)
        moves, end = near_then_far(drill)
        assert abs(len(moves) - par_of(drill)) <= 1
        assert judge(drill, [end], len(moves)).score >= 70


@pytest.mark.parametrize("kind", TILTS)
def test_a_blind_hand_scores_little(kind):
    scores = []
    for seed in SEEDS:
        drill, made = make_drill(kind, seed), np.random.default_rng(100 + seed)
        setting = start_of(drill)
        for _ in range(10):
            knob = drill.knobs[made.integers(len(drill.knobs))]
            setting = setting._replace(**{knob.name: int(made.integers(knob.low, knob.high + 1))})
        scores.append(judge(drill, [setting], 10).score)
    assert np.mean(scores) < 20


@pytest.mark.parametrize(
    ("reached", "moves", "worth"),
    [(0.005, 5, 100), (0.0075, 5, 100), (0.6, 5, 0), (0.9, 5, 0), (0.0671, 5, 50), (0.0075, 20, 90)],
)
def test_the_score_is_by_the_logarithm_of_blur_and_a_fifth_by_moves(reached, moves, worth):
    # From 600 to 7.5 um, a quarter of the circle: half way in the logarithm is 67 um; four times par halves a fifth.
    assert score(0.6, reached, 0.002, moves, 5) == pytest.approx(worth, abs=0.2)


def test_the_best_stop_is_the_one_with_most_contrast_at_the_softest_place():
    found = set()
    for seed in SEEDS:
        drill = make_drill("stop", seed)
        best = best_setting(drill)
        values = [
            contrast(1 / CIRCLE, works_as(drill, Setting(stop=k)), worst_blur(drill, Setting(stop=k))) for k in range(7)
        ]
        assert best.stop == int(np.argmax(values))
        assert judge(drill, [best], 1).score == pytest.approx(100)
        found.add(best.stop)
    assert len(found) >= 4  # none of them is always right


def test_a_blind_hand_is_worth_little_at_stops_and_at_ends_too():
    stops, ends = [], []
    for seed in SEEDS:
        made = np.random.default_rng(500 + seed)
        stops += [judge(make_drill("stop", seed), [Setting(stop=stop)], 1).score for stop in range(len(STOPS))]
        drill = make_drill("ends", seed)
        rail = drill.knob("rail")
        for pair in made.integers(rail.low, rail.high + 1, (20, 2)):
            ends.append(judge(drill, [Setting(rail=int(at)) for at in pair], 2).score)
    assert np.mean(stops) < 20
    assert np.mean(ends) < 20


def test_a_stop_on_either_side_is_told_which_way_it_is_wrong():
    drill = make_drill("stop", 1)
    best = best_setting(drill).stop
    assert "Too wide" in judge(drill, [Setting(stop=0)], 1).said or best == 0
    assert "Narrower" in judge(drill, [Setting(stop=len(STOPS) - 1)], 1).said or best == len(STOPS) - 1
    assert worst_contrast_at(drill, Setting(stop=0)) < worst_contrast_at(drill, Setting(stop=best))


def test_the_first_frame_is_sharp_on_the_nearest_part_and_what_is_cut_off_costs():
    drill = make_drill("ends", 2)
    near, far = ends_of(drill)
    exact = [Setting(rail=math.floor(near)), Setting(rail=math.ceil(far))]
    assert judge(drill, exact, 2).score > 95
    late = [Setting(rail=round(near + 0.2 * drill.depth)), exact[1]]
    early = [Setting(rail=round(near - 0.1 * drill.depth)), exact[1]]
    assert judge(drill, late, 2).score < 70 < judge(drill, early, 2).score
    assert "cut off" in judge(drill, late, 2).said
    assert judge(drill, [exact[0]], 1).score == 0


def test_hints_lead_a_hand_that_follows_them_to_a_sharp_page():
    for seed in range(6):
        drill = make_drill("tilt", seed)
        setting = start_of(drill)
        best = best_setting(drill)
        for _ in range(12):
            words = hint(drill, setting)
            if "press" in words:
                break
            if "near edge" in words:
                setting = min(
                    (setting._replace(focus=at) for at in range(-160, 161)),
                    key=lambda one: _edges(drill, one)[0],
                )
            elif "tilt" in words.lower():
                setting = setting._replace(tilt=best.tilt)
            else:
                setting = min(
                    (setting._replace(focus=at) for at in range(-160, 161)), key=lambda one: worst_blur(drill, one)
                )
        assert worst_blur(drill, setting) <= CIRCLE


def _edges(drill, setting):
    from just_plane.core.practice.hands import edges

    return edges(drill, setting)


def test_what_was_seen_is_said():
    drill = make_drill("tilt", 3)
    start, best = start_of(drill), best_setting(drill)
    assert saw(drill, start, start) == ""
    assert "came up" in saw(drill, start._replace(focus=120), best)
    assert "went soft" in saw(drill, best, best._replace(focus=best.focus + 40))


def test_the_same_seed_is_the_same_drill_and_knobs_do_not_turn_past_their_ends():
    for kind in KINDS:
        drill = make_drill(kind, 11)
        assert drill == make_drill(kind, 11)
        wild = Setting(focus=9999, tilt=-9999, turn=9999, stop=99, rail=-9999)
        tamed = held(drill, wild)
        for knob in drill.knobs:
            assert knob.low <= getattr(tamed, knob.name) <= knob.high
        for name in set(Setting()._fields) - {knob.name for knob in drill.knobs}:
            assert getattr(tamed, name) == getattr(Setting(), name)
    with pytest.raises(OutOfDomainError):
        make_drill("juggling", 1)


@pytest.mark.parametrize("seed", range(4))
def test_the_word_at_a_stop_is_toward_the_best_and_at_it_to_leave_it(seed):
    drill = make_drill("stop", seed)
    best = best_setting(drill).stop
    for stop in range(len(STOPS)):
        said = hint(drill, Setting()._replace(stop=stop))
        assert said == ("Leave it there." if stop == best else "Stop down." if stop < best else "Open up.")


@pytest.mark.parametrize("seed", range(4))
def test_a_tilt_that_runs_the_wrong_way_is_told_to_turn_and_how_far(seed):
    drill = make_drill("tilt_and_turn", seed)
    best = best_setting(drill)
    for off in (-2, 2):
        assert hint(drill, best._replace(turn=best.turn + off)) == (
            f"Turn the tilt to {15 * best.turn}°: the slope runs that way."
        )
    assert "Turn" not in hint(drill, best)


@pytest.mark.parametrize(
    ("begun", "ended", "said", "enough"),
    [
        (0.0, 0.0, "First and last frame hold all of it.", True),
        (-0.12, 0.12, "First and last frame hold all of it.", True),
        (-0.2, 0.2, "Nothing is missing, but many frames show nothing that must be sharp.", True),
        (0.12, 0.0, "The stack begins too late or ends too soon: what is cut off there is sharp in no frame.", False),
        (0.0, -0.12, "The stack begins too late or ends too soon: what is cut off there is sharp in no frame.", False),
    ],
)
def test_what_is_said_of_first_and_last_frame(begun, ended, said, enough):
    """More than a twentieth of the depth cut off is too much; more than three tenths beyond it is waste."""
    drill = make_drill("ends", 2)
    near, far = ends_of(drill)
    pressed = [round((end + by * drill.depth) / RAIL_CLICK) for end, by in ((near, begun), (far, ended))]
    result = judge(drill, [Setting(rail=at) for at in pressed], 2)
    assert (result.said, result.sharp_enough) == (said, enough)


def test_the_rail_starts_anywhere_within_a_third_of_its_travel():
    """None of a hundred seeds starts past a third of it, to a click; some beyond 0.29 of it, to either side."""
    rails = [make_drill("ends", seed).knobs[0] for seed in range(100)]
    assert all(abs(rail.start) <= rail.high / 3 + 1 for rail in rails)
    shares = [rail.start / rail.high for rail in rails]
    assert min(shares) < -0.29
    assert max(shares) > 0.29


def test_the_ends_lie_as_far_before_the_plane_as_behind_it_and_a_depth_apart():
    for seed in range(5):
        drill = make_drill("ends", seed)
        near, far = ends_of(drill)
        assert near == -far < 0
        assert far - near == pytest.approx(drill.depth)
