"""What is known of fields: titles in refusals, bounds and defaults for the page, and nothing of it stale."""

from pathlib import Path

import pytest
from pydantic import ValidationError

from just_plane.contract.fields import page_fields
from just_plane.contract.http import ShotPath
from just_plane.contract.jobs import CheckAsked
from just_plane.contract.network import EnterAsked
from just_plane.contract.run import GreyAsked
from just_plane.contract.shot import Shot
from just_plane.contract.trial import TrialAsked
from just_plane.contract.words import problems
from just_plane.web.write_documents import fields_document

ROOT = Path(__file__).parents[2]
SHOT = page_fields()["shot"]["shot"]


def test_the_page_s_copy_is_not_stale():
    assert (ROOT / "frontend/src/api/fields.json").read_text(encoding="utf-8") == fields_document()


@pytest.mark.parametrize(
    ("pointer", "facts"),
    [
        ("/stack/settle_s", {"title": "Settle after a move", "kind": "time", "default": 2.0, "least": 0.0}),
        ("/subject/hold_still_s", {"kind": "time", "empty": True}),
        ("/stack/overlap", {"kind": "percent", "most": 0.9, "default": 0.5}),
        ("/aperture/f_number", {"kind": "fNumber", "least": 0.5, "most": 256.0}),
        ("/stack/spare_before", {"kind": "count", "default": 1, "most": 100.0}),
        ("/camera_on_its_side", {"kind": "yes", "default": False}),
        ("/light/meter", {"options": ["through_lens", "hand_held"]}),
        ("/name", {"kind": "words", "longest": 120}),
        ("/on_set", {"title": "On set", "kind": "rows", "longest": 16}),
        ("/pinned", {"longest": 4}),
    ],
)
def test_facts_of_a_field_are_those_of_the_contract(pointer, facts):
    assert facts.items() <= SHOT[pointer].items()


def test_a_field_that_may_not_be_empty_does_not_say_so():
    assert "empty" not in SHOT["/subject/depth_mm"]


@pytest.mark.parametrize(
    ("pointer", "value", "sentence"),
    [
        ("/stack/settle_s", -1.0, "Settle after a move must be 0 s or more; got -1 s."),
        ("/rig/0/gear/minimum_focus_distance_mm", 0.0, "Closest focus must be more than 0 mm; got 0 mm."),
        ("/steadiness/rail_swings_um", -3.0, "Rail swings by, µm must be more than 0; got -3."),
        ("/picture/width_mm", 0.0, "Picture width must be more than 0 mm; got 0 mm."),
        # The least that a float holds is no length: quotients of such numbers would be 0.
        ("/picture/width_mm", 5e-324, "Picture width must be more than 0 mm; got 0 mm."),
        ("/stack/rail_name", "x" * 121, "Rail name may have at most 120 characters."),
    ],
)
def test_a_refusal_calls_the_field_what_the_page_calls_it(pod, changed, pointer, value, sentence):
    with pytest.raises(ValidationError) as refused:
        changed(pod, {pointer: value})
    (said,) = problems(refused.value)
    assert (said.field, said.message) == (pointer, sentence)


def test_every_field_that_a_person_fills_in_has_a_title_of_its_own():
    by_key = {name: facts["title"] for name, facts in SHOT.items()}
    assert by_key["/light/metered_f_number"] == "Meter said"
    assert Shot.model_fields["focus_behind_nearest_mm"].title == "Focus behind nearest"


@pytest.mark.parametrize(
    ("model", "body", "sentence"),
    [
        (CheckAsked, {"folder": "a\0b"}, "No file or folder has the sign with the number 0 in its name."),
        (CheckAsked, {"folder": ""}, "Folder needs at least one character."),
        (CheckAsked, {"folder": "x" * 4001}, "Folder may have at most 4000 characters."),
        (
            GreyAsked,
            {"number": 1, "press": "a" * 32, "folder": "there", "file": "x" * 401},
            "File may have at most 400 characters.",
        ),
        (TrialAsked, {"kind": "stops"}, "Which folder are the frames in?"),
        (ShotPath, {"shot_id": "mistyped"}, "There is nothing at this address: no shot has the id “mistyped”."),
        (ShotPath, {"shot_id": "ab"}, "There is nothing at this address: no shot has the id “ab”."),
        (EnterAsked, {"digits": "12"}, "Code cannot be “12”: it does not have the form that it must have."),
        (
            GreyAsked,
            {"number": 1, "press": "a", "folder": "there", "file": "x"},
            "Press needs at least 8 characters.",
        ),
    ],
)
def test_a_folder_that_cannot_be_is_refused_in_a_sentence(model, body, sentence):
    with pytest.raises(ValidationError) as refused:
        model.model_validate(body)
    assert sentence in [said.message for said in problems(refused.value)]
