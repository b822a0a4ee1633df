"""Stages kept by what they depend on: the same is not worked out twice, another never gets the wrong answer."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.kept import Kept
from just_plane.planning.plan import plan_shot


def counted(most=3):
    asked = []
    return Kept(lambda *inputs: asked.append(inputs) or [inputs], most), asked


def test_the_same_inputs_give_back_the_same_object():
    stage, asked = counted()
    assert stage(1.0, "a") is stage(1.0, "a")
    assert asked == [(1.0, "a")]


def test_other_inputs_are_worked_out():
    stage, asked = counted()
    assert stage(1.0, "a") == [(1.0, "a")]
    assert stage(1.0, "b") == [(1.0, "b")]
    assert len(asked) == 2


def test_the_oldest_of_too_many_is_worked_out_again():
    stage, asked = counted(most=3)
    for value in (1, 2, 3, 4, 4, 3, 2):
        stage(value)
    assert asked == [(1,), (2,), (3,), (4,)]
    stage(1)
    assert len(asked) == 5


def test_what_was_refused_is_asked_again():
    tried = []

    def refusing(value):
        tried.append(value)
        raise ValueError(value)

    stage = Kept(refusing)
    for _ in range(2):
        with pytest.raises(ValueError, match="7"):
            stage(7)
    assert tried == [7, 7]


@given(st.lists(st.integers(0, 9), max_size=40), st.integers(1, 5))
def test_whatever_was_asked_before_the_answer_is_that_of_the_work_alone(values, most):
    stage = Kept(lambda value: value * value, most)
    assert [stage(value) for value in values] == [value * value for value in values]
    assert len(stage.entries) <= most


def test_plans_do_not_depend_on_what_was_planned_before(catalogue):
    """Each shot's plan is the same after another shot, and after itself at another depth."""
    first = {name: plan_shot(shot).model_dump_json() for name, shot in catalogue.items()}
    for name, shot in reversed(catalogue.items()):
        deeper = shot.subject.model_copy(update={"depth_mm": shot.subject.depth_mm * 1.5})
        plan_shot(shot.model_copy(update={"subject": deeper}))
        assert plan_shot(shot).model_dump_json() == first[name], name
