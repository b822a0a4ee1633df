"""The kit as a file and as a table: what goes out comes in again, and what cannot be read is said."""

import csv
import io
import json
from pathlib import Path

import jsonschema
import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from just_plane.contract.gear import KINDS
from just_plane.contract.json_file import FileError
from just_plane.contract.kit import Kit, empty_kit
from just_plane.contract.kit_file import read_kit, write_kit
from just_plane.contract.kit_table import columns, read_table, write_table
from just_plane.shelf.starter import starter_shelf

ROOT = Path(__file__).parents[2]
HEAD = "kind,kit_id,name,carried,length_mm"


def test_a_kit_goes_out_and_comes_in_as_json_and_as_a_table():
    kit = starter_shelf()
    assert read_kit(write_kit(kit)) == kit
    assert read_table(write_table(kit)) == kit
    assert read_table(b"\xef\xbb\xbf" + write_table(kit).encode()) == kit


def test_an_empty_kit_is_a_kit():
    assert read_kit(write_kit(empty_kit())) == empty_kit()


def test_the_shelf_satisfies_the_published_schema():
    schema = json.loads((ROOT / "docs" / "kit-file.schema.json").read_text())
    jsonschema.validate(json.loads(write_kit(starter_shelf())), schema)


def test_every_member_of_every_kind_has_a_column_but_what_trials_wrote():
    by_trials = {"tried", "focus_units", "measured_times", "measured_by_hand", "measured_still"}
    there = set(columns())
    for model in KINDS.values():
        for name in model.model_fields:
            assert (name in there or f"{name}_focal_length_mm" in there) != (name in by_trials)


def test_a_hand_written_table_needs_only_what_it_says():
    kit = read_table("kind,name,length_mm,carried\ntube,my tube,12,no\n\ntube,,20.5,\n")
    first, second = kit.pieces
    assert (first.gear.name, first.gear.length_mm, first.carried) == ("my tube", 12.0, False)
    assert (second.gear.length_mm, second.carried, second.gear.contacts) == (20.5, True, True)
    assert first.gear.kit_id != second.gear.kit_id


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (b"\xff\xfe\x00binary\x00", "not text"),
        ("", "no rows, or no column called kind"),
        ("name,length_mm\nx,3", "no column called kind"),
        (f"{HEAD}\ntripod,a,b,yes,3", "Row 2: “tripod” is no kind of gear"),
        (f"{HEAD}\ntube,a,b,yes,12\ntube,c,d,yes,long", "Row 3, column length_mm: “long” is not a number"),
        (f"{HEAD}\ntube,a,b,yes,-3", "Row 2, column length_mm: Length must be more than 0 mm; got -3"),
        (f"{HEAD}\ntube,a,b,yes,", "Row 2, column length_mm: Length is missing"),
        (f"{HEAD},colour\ntube,a,b,yes,12,red", "column “colour” is not one of a kit"),
        (f"{HEAD}\ntube,a,b,yes,12\ntube,a,c,yes,20", "two pieces have the kit_id “a”"),
        (
            "kind,sensor_width_mm,sensor_height_mm,crop_modes\nbody,36,24,small",
            "column crop_modes: “small” cannot be read",
        ),
        (f"{HEAD}\ntube,a,b,yes,12,13", "Row 2 has 6 cells; the table has 5 columns"),
        (f"{HEAD},length_mm\ntube,a,b,yes,12,13", "column “length_mm” stands there twice"),
        (f"{HEAD}\ntube,a,b,yes,1_0", "Row 2, column length_mm: “1_0” is not a number"),
        (f'{HEAD}\ntube,a,b,yes,"12,5"', "Row 2, column length_mm: “12,5” is not a number"),
        (f"{HEAD}\ntube,a,b,yes,inf", "“inf” is not a number"),
        (f"{HEAD}\ntube,a,b,1,12", "Row 2, column carried: “1” is neither yes nor no"),
        (f"{HEAD},contacts\ntube,a,b,yes,12,maybe", "column contacts: “maybe” is neither yes nor no"),
        (f"{HEAD}\ntube,,,yes,12\ntube,,,yes,12", "Rows 2 and 3 are alike"),
        (f"{HEAD}\ntube,,ring,yes,12\ntube,,Ring!,yes,20", "Rows 2 and 3 are alike"),
    ],
)
def test_a_table_that_cannot_be_read_is_refused_with_its_row(text, words):
    with pytest.raises(FileError) as refusal:
        read_table(text)
    assert words in refusal.value.message


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"format": "just-plane/shot"}, "is not a kit"),
        ({"version": 3}, "version 3; this program reads up to version 1"),
        ({"pieces": [{"gear": {"kind": "tube", "length_mm": 3}}]}, "needs one"),
        ({"pieces": [{"gear": {"kind": "anvil"}}]}, "Gear must be one of"),
        ({"pieces": [{"gear": {"length_mm": 3.0}}]}, "must say which one it is, in 'kind'"),
    ],
)
def test_a_kit_file_that_is_none_is_refused(change, words):
    document = json.loads(write_kit(empty_kit())) | change
    with pytest.raises(FileError) as refusal:
        read_kit(json.dumps(document))
    assert words in refusal.value.message


def test_a_kit_keeps_what_was_measured_with_its_rigs():
    measured = {"rig": ["~a", "b"], "magnification": 1.2, "uncertainty": 0.001, "modelled": 1.18}
    kit = Kit.model_validate({"format": "just-plane/kit", "version": 1, "measured_rigs": [measured]})
    assert read_kit(write_kit(kit)).measured_rigs == kit.measured_rigs


names = (
    st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), min_size=1, max_size=60)
    .map(str.strip)
    .filter(bool)
)
lengths = st.floats(0.001, 1000, allow_nan=False)


@given(
    st.lists(st.tuples(names, lengths, st.booleans(), st.one_of(st.none(), st.floats(1, 9000))), max_size=6),
    st.booleans(),
)
def test_whatever_pieces_are_called_and_measure_the_table_gives_them_back(rows, carried):
    pieces = [
        {
            "carried": carried,
            "gear": {
                "kind": "tube",
                "kit_id": f"tube-{number}",
                "name": name,
                "length_mm": length,
                "contacts": contacts,
                "carries_g": carries,
            },
        }
        for number, (name, length, contacts, carries) in enumerate(rows)
    ]
    kit = Kit.model_validate({"format": "just-plane/kit", "version": 1, "pieces": pieces})
    again = read_table(write_table(kit)) if pieces else kit
    for before, after in zip(kit.pieces, again.pieces, strict=True):
        assert after.gear.length_mm == pytest.approx(before.gear.length_mm, rel=1e-9)
        assert (after.gear.name, after.gear.contacts, after.carried) == (
            before.gear.name,
            before.gear.contacts,
            before.carried,
        )


def test_a_table_with_semicolons_has_decimal_commas():
    kit = read_table("kind;name;length_mm;carried\ntube;my tube;12,5;yes\ntube;other;20.5;no\n")
    assert [piece.gear.length_mm for piece in kit.pieces] == [12.5, 20.5]


def test_an_id_goes_with_the_piece_and_not_with_its_row():
    rows = ["tube,12 mm,12", "tube,,20.5", "tube,,36"]
    there, back = (read_table("kind,name,length_mm\n" + "\n".join(each)) for each in (rows, rows[::-1]))
    assert [p.gear.kit_id for p in there.pieces] == [p.gear.kit_id for p in back.pieces[::-1]]


@pytest.mark.parametrize("name", ["=1+1", "@sum", "+4", "-x", "'quoted", "\ttab", "plain"])
def test_words_that_look_like_a_formula_are_shown_as_text_and_come_back(name):
    tube = {"kind": "tube", "kit_id": "t", "name": name, "length_mm": 12.0}
    kit = Kit.model_validate({"format": "just-plane/kit", "version": 1, "pieces": [{"gear": tube}]})
    text = write_table(kit)
    row = next(csv.DictReader(io.StringIO(text, newline="")))
    assert not row["name"].startswith(("=", "+", "-", "@", "\t"))
    assert read_table(text).pieces[0].gear.name == name


words = st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), min_size=1, max_size=30)
sides = st.tuples(lengths, st.floats(0.2, 5)).map(lambda drawn: (drawn[0], drawn[0] * drawn[1]))


@example([("100%3B; a=b %", (24.0, 16.0))])
@given(st.lists(st.tuples(words, sides), max_size=4))
def test_crop_modes_come_back_whatever_they_are_called_with_all_their_digits(modes):
    body = {
        "kind": "body", "kit_id": "b", "sensor_width_mm": 36.0, "sensor_height_mm": 24.0,
        "crop_modes": [{"name": name, "width_mm": wide, "height_mm": high} for name, (wide, high) in modes],
    }  # fmt: skip
    kit = Kit.model_validate({"format": "just-plane/kit", "version": 1, "pieces": [{"gear": body}]})
    assert read_table(write_table(kit)) == kit
