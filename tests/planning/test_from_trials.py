"""What a believed trial writes into a piece of the kit, and that it can be taken out again."""

import pytest

from just_plane.contract.trial import BacklashFound, StepsFound, StopsFound, TrialAsked, TrialResult, TriedStop
from just_plane.planning.kit.from_trials import believed, day_in_words, fits, forgotten
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
    assert fits(piece("lens"), "stops")
    assert not fits(piece("rail"), "stops")
    assert fits(piece("rail"), "backlash")
    assert not fits(piece("lens"), "steps")


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
