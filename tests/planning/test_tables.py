import csv
import io

import numpy as np
import pytest

from just_plane.core.contrast import contrast
from just_plane.planning.pictures.through_focus import SAMPLES, through_focus
from just_plane.planning.plan import plan_shot
from just_plane.planning.ways.step_table import HEADINGS, LISTS, step_csv
from just_plane.planning.words.numbers import Wording, count, f_stop, percent, seconds, times


def test_step_table_has_a_row_a_frame_and_moves_that_add_up(pod):
    plan = plan_shot(pod)
    way = next(each for each in plan.ways if each.id == "ring")
    rows = list(csv.reader(io.StringIO(step_csv(way, plan.reach.magnification))))
    assert tuple(rows[0]) == (*HEADINGS, *LISTS)
    assert len(rows) == way.frames + 1
    assert rows[1][2] == ""
    moved = sum(float(row[2]) for row in rows[2:])
    assert moved == pytest.approx(float(rows[-1][1]) - float(rows[1][1]), abs=1e-2)
    assert float(rows[1][5]) > float(rows[-1][5])


def test_step_table_of_one_frame_keeps_the_framing(pod):
    plan = plan_shot(pod)
    rows = list(csv.reader(io.StringIO(step_csv(plan.ways[0], plan.reach.magnification))))
    assert len(rows) == 2
    assert rows[1][5] == "0.5000"


def table(shot, way_id):
    plan = plan_shot(shot)
    way = next(each for each in plan.ways if each.id == way_id)
    text = step_csv(way, plan.reach.magnification, shot.plane.rail_counts)
    return way, list(csv.DictReader(io.StringIO(text)))


@pytest.mark.parametrize(("counts", "sign"), [("toward", 1), ("away", -1)])
def test_marks_of_the_rail_stand_in_the_table_where_points_were_read_on_it(tray, changed, counts, sign):
    points = tray.model_dump()["plane"]["points"]
    for point in points:
        point["depth"]["readings_mm"] = [sign * mark for mark in point["depth"]["readings_mm"]]
    shot = changed(tray, {"/plane/points": points, "/plane/rail_counts": counts})
    way, rows = table(shot, "rail")
    marks = [float(row["rail_mark_mm"]) for row in rows]
    assert marks[0] == pytest.approx(way.stack.first_rail_mm, abs=1e-4)
    assert np.diff(marks) == pytest.approx(sign * way.stack.step_mm, abs=2e-4)


def test_no_marks_are_made_up(pod, tray):
    assert {row["rail_mark_mm"] for row in table(pod, "rail")[1]} == {""}
    assert {row["rail_mark_mm"] for row in table(tray, "ring")[1]} == {""}
    assert {row["rail_mark_mm"] for row in table(tray, "tilt")[1]} == {""}


def test_standing_back_has_the_size_from_there(catalogue):
    way, rows = table(catalogue["ganache"], "back_off")
    assert float(rows[0]["magnification"]) == pytest.approx(way.back_off.magnification, abs=1e-4)


def test_map_of_stops_agrees_with_the_plain_contrast(pod):
    plan = plan_shot(pod)
    found = through_focus(pod, -10.0, 40.0)
    row = found.f_numbers.index(8.0)
    places = np.linspace(-10, 40, SAMPLES)
    stop = next(each for each in plan.aperture.stops if each.f_number == 8.0)
    offset = places - plan.focus_behind_nearest_mm
    pupil = plan.reach.entrance_pupil_mm
    blur = 0.25 / stop.effective_f_number * np.abs(offset) * pupil / (pupil + offset)
    expected = contrast(1000 / plan.sharpness.circle_um, stop.effective_f_number, blur)
    assert np.abs(np.array(found.contrast_percent[row]) - 100 * expected).max() <= 0.51


def test_map_reaches_behind_the_lens_without_breaking(pod):
    assert len(through_focus(pod, -5000.0, 5000.0).contrast_percent[0]) == SAMPLES


def test_no_map_without_apertures(pod, changed):
    assert through_focus(changed(pod, {"/framing": {"by": "magnification", "magnification": 9.0}}), 0, 1) is None


@pytest.mark.parametrize(
    ("said", "words"),
    [
        (Wording().length(0.045), "45 µm"),
        (Wording().length(12.3456), "12.3 mm"),
        (Wording().length(1234.5), "1,234 mm"),
        (Wording("in").length(25.4), "1 in"),
        (Wording("in").length(0.05), "50 µm"),
        (f_stop(5.6), "f/5.6"),
        (f_stop(142.3), "f/142"),
        (times(0.25), "0.25×"),
        (seconds(1 / 60), "1/60 s"),
        (seconds(0.5), "0.5 s"),
        (seconds(140.6), "2 min 21 s"),
        (seconds(59.7), "1 min"),
        (seconds(3599.0), "1 h"),
        (seconds(0.0), "0 s"),
        (percent(0.9999), "99 %"),
        (percent(1e-4), "under 1 %"),
        (percent(1.0), "100 %"),
        (count(1, "frame"), "1 frame"),
        (count(1200, "frame"), "1,200 frames"),
    ],
)
def test_numbers_are_spoken_as_at_the_table(said, words):
    assert said == words


def test_a_length_of_nothing_is_none_on_either_side():
    for mm in (0.0, -0.0, 1e-9, -3e-7):
        assert (Wording().length(mm), Wording("in").length(mm)) == ("0 mm", "0 in")
    assert Wording().length(-0.00001) == "-0.01 µm"
