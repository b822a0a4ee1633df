"""G-code of a run: what a controller would do with it, read line by line."""

import re
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.runs.code import CodeError, Controller, run_code, trial_code
from made_runs import plan


def words(code):
    return [line for line in code.splitlines() if not line.startswith("(")]


@pytest.mark.parametrize("grows", [1, -1])
def test_it_takes_up_the_play_and_then_only_goes_on(grows):
    places = [float(line.split()[1][1:]) for line in words(run_code(plan(grows=grows), "Pod")) if line.startswith("G1")]
    assert len(places) == 7
    assert all((later - earlier) * grows > 0 for earlier, later in pairwise(places))
    assert places[1:] == pytest.approx([40 + grows * 0.5 * k for k in range(6)])


def test_every_frame_closes_and_opens_the_contact_once():
    lines = words(run_code(plan(), "Pod"))
    assert (lines.count("M8"), lines.count("M9"), lines[-1]) == (6, 6, "M2")
    assert lines[:3] == ["G21", "G90", "G94"]


@pytest.mark.parametrize(
    ("wait", "settle"), [("P_seconds", "G4 P2.000"), ("P_milliseconds", "G4 P2000.000"), ("S_seconds", "G4 S2.000")]
)
def test_a_wait_is_written_as_the_controller_counts(wait, settle):
    assert settle in words(run_code(plan(), "Pod", Controller(wait)))
    value = float(re.search(r"G4 [PS]([\d.]+)", trial_code(wait, 5.0)).group(1))
    assert value == (5000 if wait == "P_milliseconds" else 5)


def test_by_hand_it_stops_for_a_person():
    lines = words(run_code(plan(), "Pod", Controller(contact="hand")))
    assert lines.count("M0") == 6
    assert "M8" not in lines


@given(name=st.text(max_size=80), wait=st.sampled_from(["P_seconds", "P_milliseconds", "S_seconds"]))
def test_no_name_lets_words_in(name, wait):
    code = run_code(plan(), name, Controller(wait))
    assert code.isascii()
    for line in code.splitlines():
        assert re.fullmatch(r"\([A-Za-z0-9 .,:\-]*\)|G(1|4|21|90|94)( [XFPS]-?\d+\.\d+)*|M(2|8|9)", line), line
    assert not re.search(r"[eE][+-]?\d", "".join(words(code)))


def test_what_turns_back_or_leaves_the_travel_is_refused():
    made = plan()
    back = made.model_copy(update={"steps": [*made.steps, made.steps[1]]})
    with pytest.raises(CodeError, match="one direction"):
        run_code(back, "Pod")
    with pytest.raises(CodeError, match=r"39\.800 to 42\.500"):
        run_code(made, "Pod", Controller(travel=(0.0, 42.0)))
    with pytest.raises(CodeError, match="by rail"):
        run_code(made.model_copy(update={"kind": "ring"}), "Pod")
