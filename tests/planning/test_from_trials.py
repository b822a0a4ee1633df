"""What a believed trial writes into a piece of the kit, and that it can be taken out again."""

import pytest

from just_plane.contract.trial import (
    BacklashFound,
    CalmFound,
    DarkFound,
    StepsFound,
    StillnessFound,
    StopsFound,
    TrialAsked,
    TrialResult,
    TriedStop,
)
from just_plane.planning.kit.from_trials import believed, fits, forgotten
from just_plane.planning.kit.rival_trials import disagreement, replaces
from just_plane.planning.words.days import day_in_words
from just_plane.shelf.starter import starter_shelf

MOMENT = "2026-05-03T10:00:00.000+00:00"


def piece(kind):
    return next(each.gear for each in starter_shelf().pieces if each.gear.kind == kind)


def stops(spreads=(0.004, 0.001), refused=False):
    tried = [
        TriedStop(f_number=n, contrast=0.5, doubt=0.01, model=0.6, spread_mm=spread)
        for n, spread in zip((4.0, 8.0), spreads, strict=True)
    ]
    found = StopsFound(
        best_f_number=8, alike=[8], could_be=[8], at_end=False, frequency_per_px=0.2, frequency_per_mm=33, stops=tried
    )
    return TrialResult(kind="stops", refused=refused, sentence="", warnings=[], frames=[], used=4, stops=found)


def steps(per_unit):
    found = StepsFound(step_mm=0.1, doubt_mm=1e-5, per_unit_mm=per_unit, unit="", fine=True, rows_agree=0.9)
    return TrialResult(kind="steps", refused=False, sentence="", warnings=[], frames=[], used=20, steps=found)


def asked(kind="stops", **more):
    return TrialAsked(kind=kind, folder="/cards", **({"magnification": 1.0} | more))


def test_a_day_is_named_as_people_name_it():
    assert day_in_words(MOMENT) == "3 May 2026"
    assert day_in_words("2026-12-31T23:59:59Z") == "31 December 2026"


def test_only_pieces_that_take_it_are_offered():
    assert fits(piece("lens"), asked())
    assert not fits(piece("rail"), asked())
    assert fits(piece("rail"), asked("backlash"))
    assert fits(piece("rail"), asked("steps", unit="turn"))
    assert not fits(piece("lens"), asked("steps", unit="turn"))
    assert fits(piece("lens"), asked("steps", unit="camera unit"))
    assert not fits(piece("rail"), asked("steps", unit="camera unit"))
    assert fits(piece("body"), asked("stillness", held="hand"))
    assert fits(piece("support"), asked("stillness"))
    assert fits(piece("body"), asked("dark"))
    assert not any(fits(each.gear, asked("sway")) for each in starter_shelf().pieces)


def test_a_lens_keeps_one_trial_a_size_the_newer_one_and_up_to_eight():
    lens = piece("lens")
    for k, size in enumerate((1.0, 1.02, 0.5, 2.0)):
        lens = believed(lens, f"trial-{k}", asked(magnification=size), stops(), MOMENT)
    assert [one.trial_id for one in lens.tried] == ["trial-1", "trial-2", "trial-3"]
    assert lens.tried[0].measured_on == "3 May 2026"
    for k in range(12):
        lens = believed(lens, f"more-{k}", asked(magnification=3 * 1.3**k), stops(), MOMENT)
    assert len(lens.tried) == 8
    assert forgotten(lens, "more-11", stops()).tried == lens.tried[:-1]


@pytest.mark.parametrize(
    ("result", "more", "said"),
    [
        (stops(refused=True), {}, "measured nothing"),
        (stops(), {"magnification": None}, "which size"),
        (stops((None, None)), {}, "which size"),
    ],
)
def test_what_cannot_be_used_says_why(result, more, said):
    assert said in believed(piece("lens"), "t", asked(**more), result, MOMENT)


def test_a_rail_learns_a_turn_from_turns_or_from_divisions():
    rail = piece("rail").model_copy(update={"divisions": 50, "mm_per_turn": 1.0})
    by_turn = believed(rail, "t", asked("steps", unit="turn"), steps(1.02), MOMENT)
    assert by_turn.measured_mm_per_turn == pytest.approx(1.02)
    by_division = believed(rail, "t", asked("steps", unit="division"), steps(0.0203), MOMENT)
    assert by_division.measured_mm_per_turn == pytest.approx(1.015)
    assert forgotten(by_turn, "t", steps(1.02)).measured_mm_per_turn is None
    unknown = rail.model_copy(update={"divisions": None})
    assert "divisions" in believed(unknown, "t", asked("steps", unit="division"), steps(0.02), MOMENT)
    assert "turn or a division" in believed(rail, "t", asked("steps", unit="camera unit"), steps(0.02), MOMENT)


def test_a_rail_learns_its_play_and_forgets_it():
    found = BacklashFound(play_mm=0.0512, doubt_mm=0.001, seen=True, take_up_mm=0.077)
    result = TrialResult(kind="backlash", refused=False, sentence="", warnings=[], frames=[], used=40, backlash=found)
    rail = believed(piece("rail"), "t", asked("backlash"), result, MOMENT)
    assert rail.backlash_mm == 0.0512
    assert forgotten(rail, "t", result).backlash_mm == 0


def result(kind, **found):
    return TrialResult(kind=kind, refused=False, sentence="", warnings=[], frames=[], used=20, **found)


def test_times_of_a_body_are_kept_with_the_day_and_taken_out_again():
    dark = result("dark", dark=DarkFound(doubled=True, write_s=0.8))
    body = believed(piece("body"), "t", asked("dark"), dark, MOMENT)
    assert body.measured_times.dark_frame
    assert (body.measured_times.write_s, body.measured_times.measured_on) == (0.8, "3 May 2026")
    assert forgotten(body, "t", dark).measured_times is None


@pytest.mark.parametrize(("held", "kind"), [("hand", "body"), ("support", "support")])
def test_the_longest_shutter_belongs_to_what_held_the_camera(held, kind):
    still = result("stillness", stillness=StillnessFound(longest_s=0.25, fails_at_s=0.5, tried=[]))
    how = asked("stillness", held=held, focal_length_mm=100.0)
    gear = believed(piece(kind), "t", how, still, MOMENT)
    kept = gear.measured_by_hand if held == "hand" else gear.measured_still
    assert (kept.shutter_s, kept.magnification) == (0.25, 1.0)
    assert kept.focal_length_mm == (100.0 if held == "hand" else None)
    assert forgotten(gear, "t", still) == piece(kind)
    assert "which size" in believed(piece(kind), "t", asked("stillness", magnification=None), still, MOMENT)
    none = result("stillness", stillness=StillnessFound(longest_s=None, fails_at_s=0.01, tried=[]))
    assert "nothing to use" in believed(piece(kind), "t", how, none, MOMENT)


def calm(calms, seen=True):
    found = CalmFound(swing_um=40.0, calms_s=calms, doubt_s=0.02, wait_s=1.0, seen=seen)
    return result("calm", calm=found)


def test_a_rail_learns_its_swing_and_one_that_is_calm_at_once_has_none():
    rail = believed(piece("rail"), "t", asked("calm"), calm(0.3), MOMENT)
    assert (rail.measured_swing_um, rail.measured_calms_s) == (40.0, 0.3)
    assert forgotten(rail, "t", calm(0.3)) == piece("rail")
    assert believed(rail, "t", asked("calm"), calm(0.0, seen=False), MOMENT).measured_swing_um is None


def test_a_lens_keeps_camera_units_by_size_and_stop():
    lens = piece("lens")
    for k, (size, stop) in enumerate([(1.0, 4.0), (1.0, 8.0), (0.5, 4.0), (1.01, 4.0)]):
        how = asked("steps", unit="camera unit", magnification=size, f_numbers=[stop])
        lens = believed(lens, f"t{k}", how, steps(0.01 * (k + 1)), MOMENT)
    assert [(one.trial_id, one.mm) for one in lens.focus_units] == [("t1", 0.02), ("t2", 0.03), ("t3", 0.04)]
    assert [one.trial_id for one in forgotten(lens, "t1", steps(1)).focus_units] == ["t2", "t3"]


def test_two_trials_of_one_rail_disagree_when_they_lie_apart_by_more_than_their_doubts():
    # 1e-5 of 0.1 mm a step: 1e-4 of the answer; one part in a hundred is far outside, one in a thousand is not told.
    assert "1.02 mm a  now, 1 mm before" in disagreement(steps(1.02), steps(1.0))
    assert disagreement(steps(1.001), steps(1.0)) == ""
    play = [
        result("backlash", backlash=BacklashFound(play_mm=p, doubt_mm=0.002, seen=True, take_up_mm=0.1))
        for p in (0.05, 0.08, 0.052)
    ]
    assert "50 µm of play now, 80 µm before" in disagreement(play[0], play[1])
    assert disagreement(play[0], play[2]) == ""
    dark = [result("dark", dark=DarkFound(doubled=doubled, write_s=1)) for doubled in (True, False)]
    assert "takes a dark frame now" in disagreement(*dark)
    assert "calm in 0.6" in disagreement(calm(0.6), calm(0.3))
    still = [result("stillness", stillness=StillnessFound(longest_s=t, fails_at_s=None, tried=[])) for t in (0.1, 0.5)]
    assert "stays sharp now" in disagreement(*still)


def test_best_stops_disagree_only_when_noise_tells_them_apart():
    def at(best, could_be):
        found = stops().stops.model_copy(update={"best_f_number": best, "alike": [best], "could_be": could_be})
        return result("stops", stops=found)

    assert "best at f/5.6 now, at f/11 before" in disagreement(at(5.6, [5.6]), at(11, [11]))
    assert disagreement(at(5.6, [5.6, 8]), at(11, [11, 8])) == ""
    assert disagreement(at(5.6, [5.6]), at(6.3, [6.3])) == ""


def test_a_trial_takes_the_place_of_another_of_the_same():
    assert replaces(asked("backlash", kit_id="r"), asked("backlash", kit_id="r"))
    assert not replaces(asked("backlash", kit_id="r"), asked("backlash", kit_id="s"))
    assert not replaces(asked("backlash", kit_id="r"), asked("calm", kit_id="r"))
    assert replaces(asked(kit_id="l"), asked(kit_id="l", magnification=1.02))
    assert not replaces(asked(kit_id="l"), asked(kit_id="l", magnification=2.0))
