"""Trials from folders and from the shell: notes that are there, missing, or untrue, and frames that do not belong."""

import json

import numpy as np
import pytest
from PIL import Image
from pydantic import ValidationError

from just_plane.cli import main
from just_plane.contract.trial import TrialAsked
from just_plane.frames.trials import run_trial
from trials.made import PITCH, Lens, coded, pair, slope_stack, texture

STOPS = (2.8, 4, 5.6, 8, 11, 16)


def save(path, light, f_number=None, shutter=1 / 60, iso=100, taken=None, camera="bench", part=None):
    exif = Image.Exif()
    exif[272] = camera
    notes = exif.get_ifd(0x8769)
    notes.update({33434: shutter, 34855: iso} | ({33437: f_number} if f_number else {}))
    notes.update(({36867: taken} if taken else {}) | ({37521: part} if part else {}))
    Image.fromarray(coded(light)).convert("RGB").save(path, quality=96, subsampling=0, exif=exif.tobytes())


def shutter_at(n):
    return n * n / 64 / 60


@pytest.fixture(scope="module")
def lens():
    return Lens(3)


def shoot(folder, lens, *, noted=True, change=None, stops=STOPS):
    folder.mkdir(exist_ok=True)
    made, scene = np.random.default_rng(8), texture("printed", (300, 400), 6)
    for k, n in enumerate(stops):
        for turn, light in enumerate(pair(lens, n, scene, 0.01, made)):
            light = light if change is None else change(n, turn, light)
            if light is not None:
                save(folder / f"S_{2 * k + turn:03d}.jpg", light, n if noted else None, shutter_at(n))
    return folder


def asked(folder, **more):
    return TrialAsked(kind="stops", folder=str(folder), pixel_pitch_mm=PITCH, c_mm=0.03, magnification=1.0, **more)


def test_a_folder_tells_the_best_stop_and_the_spread_of_each(tmp_path, lens):
    result = run_trial(asked(shoot(tmp_path / "t", lens), name="90 mm macro"))
    true, values = lens.best(1 / 0.03, STOPS)
    assert not result.refused
    assert result.stops.best_f_number == true
    assert result.sentence.startswith(f"f/{true:g} is the best stop of 90 mm macro at 1×.")
    assert result.used == 12
    assert result.frames == []
    wide = result.stops.stops[0].spread_mm
    assert wide == pytest.approx(np.hypot(lens.sigma, lens.rest), rel=0.15)
    measured = np.array([stop.contrast for stop in result.stops.stops])
    assert measured == pytest.approx(values / values.max(), abs=0.06)


def test_sharpness_wider_than_what_is_compared_is_refused_in_words(tmp_path, lens):
    """A circle of 10 mm on pixels of 6 um: given in the wrong unit."""
    told = run_trial(asked(shoot(tmp_path / "s", lens)).model_copy(update={"c_mm": 10.0}))
    assert told.refused
    assert "wider than the 128 px" in told.sentence
    assert "in millimetres" in told.sentence


@pytest.mark.parametrize(
    "number", ["pixel_pitch_mm", "c_mm", "per_step", "interval_s", "magnification", "step_mm", "tick_mm", "tick_px"]
)
def test_what_is_nearly_nothing_is_no_measure_of_a_trial(number):
    with pytest.raises(ValidationError, match=number):
        TrialAsked(kind="steps", folder="frames", **{number: 5e-324})


def test_where_the_files_say_no_stop_it_is_asked_for(tmp_path, lens):
    folder = shoot(tmp_path / "t", lens, noted=False)
    assert "give the stops in the order" in run_trial(asked(folder)).sentence
    given = run_trial(asked(folder, f_numbers=list(STOPS)))
    assert given.stops.best_f_number == lens.best(1 / 0.03, STOPS)[0]
    assert "5 stops were given for 12 frames" in run_trial(asked(folder, f_numbers=list(STOPS[:5]))).sentence


def test_a_lens_that_tells_no_stop_is_seen(tmp_path, lens):
    folder = tmp_path / "t"
    folder.mkdir()
    for k in range(8):
        save(folder / f"{k}.jpg", texture("printed", (300, 400), 1), 5.6)
    assert "the lens does not tell its stop" in run_trial(asked(folder)).sentence


def test_frames_that_do_not_belong_are_named(tmp_path, lens):
    def change(n, turn, light):
        if n == 11:
            return np.roll(light, 5 * turn, axis=1)
        if n == 16 and turn == 1:
            return np.clip(light * 4, 0, 1)
        return light

    folder = shoot(tmp_path / "t", lens, change=change)
    save(folder / "S_900.jpg", texture("printed", (200, 200), 1), 8)
    (folder / "S_901.jpg").write_bytes(b"\xff\xd8\xff\xe0 nothing")
    result = run_trial(asked(folder))
    problems = {frame.file: frame.problem for frame in result.frames}
    assert "moved by 5.0 px" in problems["S_009.jpg"]
    assert "burnt out" in problems["S_011.jpg"]
    assert "another size" in problems["S_900.jpg"]
    assert "S_901.jpg" in problems
    assert result.stops.best_f_number == lens.best(1 / 0.03, STOPS[:4])[0]


def test_two_trials_in_one_folder_are_not_mixed(tmp_path, lens):
    folder = shoot(tmp_path / "t", lens)
    for k in range(3):
        save(folder / f"X_{k}.jpg", texture("printed", (300, 400), 2), 8, camera="another")
    problems = [frame.problem for frame in run_trial(asked(folder)).frames]
    assert sum("another camera" in problem for problem in problems) == 3


def test_a_press_too_many_a_missing_stop_and_light_that_changed_are_said(tmp_path, lens):
    folder = shoot(
        tmp_path / "t", lens, stops=(2.8, 4, 8, 11, 16), change=lambda n, turn, light: light * (0.6 if n == 11 else 1)
    )
    third = texture("printed", (300, 400), 6)
    save(folder / "S_999.jpg", third, 4, shutter_at(4))
    result = run_trial(asked(folder))
    assert any("two frames already" in frame.problem for frame in result.frames)
    assert any("Between f/4 and f/8 a stop is missing" in words for words in result.warnings)
    assert any("f/11 is 0.7 stops darker" in words for words in result.warnings)


def test_the_best_at_the_end_says_or_beyond(tmp_path):
    class Soft(Lens):
        def contrast(self, nu, n):
            return np.exp(-2 * (np.pi * nu * 0.03 / n) ** 2)

    result = run_trial(asked(shoot(tmp_path / "t", Soft(1), stops=(4, 5.6, 8))))
    assert "or beyond" in result.sentence
    assert any("smaller still" in words for words in result.warnings)


def test_steps_and_backlash_from_files(tmp_path):
    true, count = 0.1, 20
    places = -true * (count - 1) / 2 + true * np.arange(count)
    folder = tmp_path / "steps"
    folder.mkdir()
    for k, light in enumerate(slope_stack(places, seed=2, shape=(700, 160), phi_deg=40)):
        save(folder / f"{k:03d}.jpg", light.T)
    steps = {"folder": str(folder), "magnification": 1.0, "pixel_pitch_mm": PITCH, "angle_deg": 40.0}
    result = run_trial(TrialAsked(kind="steps", per_step=10, unit="division", **steps))
    assert result.steps.step_mm == pytest.approx(true, rel=0.005)
    assert result.steps.per_unit_mm == pytest.approx(true / 10, rel=0.005)
    assert "mm a division" in result.sentence
    assert "must be known" in run_trial(TrialAsked(kind="steps", folder=str(folder))).sentence
    for k, light in enumerate(slope_stack((places + 0.05)[::-1], seed=2, shape=(700, 160), phi_deg=40)):
        save(folder / f"{count + k:03d}.jpg", light.T)
    result = run_trial(TrialAsked(kind="backlash", folder=str(folder), step_mm=true))
    assert result.backlash.play_mm == pytest.approx(0.05, abs=0.003)
    assert "play" in result.sentence


def test_dark_frames_and_stillness_from_files(tmp_path):
    burst, still = tmp_path / "burst", tmp_path / "still"
    burst.mkdir()
    still.mkdir()
    at = 0.0
    for k, shutter in enumerate((1.0, 1.0, 2.0, 2.0, 4.0, 4.0)):
        taken = f"2026:05:03 10:00:{int(at):02d}"
        save(
            burst / f"{k}.jpg",
            texture("printed", (80, 100), 1),
            8,
            shutter,
            taken=taken,
            part=f"{int(at * 100) % 100:02d}",
        )
        at += 2 * shutter + 0.25
    result = run_trial(TrialAsked(kind="dark", folder=str(burst)))
    assert result.dark.doubled
    assert result.dark.write_s == pytest.approx(0.25, abs=0.02)
    made, scene = np.random.default_rng(2), texture("printed", (300, 400), 4)
    for k, shutter in enumerate((1 / 500, 1 / 250, 1 / 125, 1 / 60)):
        for turn in range(4):
            light = scene if shutter < 1 / 100 else (scene + np.roll(scene, 3, 1) + np.roll(scene, 6, 1)) / 3
            save(still / f"{k}{turn}.jpg", np.clip(light + made.normal(0, 0.01, light.shape), 0, 1), 8, shutter)
    result = run_trial(TrialAsked(kind="stillness", folder=str(still)))
    assert result.stillness.longest_s == pytest.approx(1 / 125)
    assert "1/125 s" in result.sentence


def test_the_shell_says_it_and_ends_with_a_status(tmp_path, lens, capsys):
    folder, out = shoot(tmp_path / "t", lens), tmp_path / "result.json"
    known = ["--pixel-pitch-mm", str(PITCH), "--c-mm", "0.03", "--magnification", "1"]
    assert main(["trial", "stops", str(folder), *known, "--out", str(out)]) == 0
    assert "is the best stop" in capsys.readouterr().out
    assert json.loads(out.read_text())["stops"]["best_f_number"] == lens.best(1 / 0.03, STOPS)[0]
    assert main(["trial", "stops", str(tmp_path / "none")]) == 2
    assert main(["trial", "stops", str(folder), "--stops", "2.8,x"]) == 2
    assert main(["trial", "stops", str(folder), "--c-mm", "-1"]) == 2
    assert main(["trial", "steps", str(folder)]) == 3
    assert main(["trial", "dark", str(folder)]) == 3


def test_a_ruler_on_the_slope_gives_its_angle(tmp_path):
    """At 40 degrees from the axis a tick of 1 mm at 1x on 6 um pixels is seen 1/0.006 sin 40 = 107.1 px apart."""
    for k, light in enumerate(slope_stack(0.1 * np.arange(-10, 11), phi_deg=40.0, shape=(700, 200))):
        save(tmp_path / f"R_{k:03d}.jpg", light, 11)
    common = {"kind": "steps", "folder": str(tmp_path), "magnification": 1.0, "pixel_pitch_mm": PITCH}
    by_ruler = run_trial(TrialAsked(**common, angle_deg=30.0, tick_mm=1.0, tick_px=107.13))
    assert by_ruler.steps.step_mm == pytest.approx(0.1, rel=0.006)
    as_given = run_trial(TrialAsked(**common, angle_deg=30.0))
    assert as_given.steps.step_mm == pytest.approx(0.1 * np.tan(np.radians(40)) / np.tan(np.radians(30)), rel=0.01)
    wide = run_trial(TrialAsked(**common, tick_mm=1.0, tick_px=200.0))
    assert wide.refused
    assert "wider in the frame" in wide.sentence


def test_a_frame_left_out_of_a_burst_makes_those_after_it_no_sooner(tmp_path):
    """The swing of a rail read from thirty frames, and again with three of them burnt out: the same time."""
    made, scene = np.random.default_rng(4), texture("printed", (320, 420), 6)
    for k in range(30):
        right = 9.0 * np.exp(-0.07 * k / 0.35) * np.cos(2 * np.pi * 6 * 0.07 * k + 0.4)
        ramp = np.exp(-2j * np.pi * np.fft.rfftfreq(420)[None, :] * right)
        light = np.fft.irfft2(np.fft.rfft2(scene) * ramp, s=scene.shape) + 0.005 * made.standard_normal(scene.shape)
        save(tmp_path / f"B_{k:03d}.jpg", np.clip(light, 0, 1), 8)
    common = {"kind": "calm", "folder": str(tmp_path), "magnification": 1.0, "pixel_pitch_mm": PITCH}
    whole = run_trial(TrialAsked(**common, interval_s=0.07))
    for k in (1, 2, 3):
        save(tmp_path / f"B_{k:03d}.jpg", np.ones(scene.shape), 8)
    some = run_trial(TrialAsked(**common, interval_s=0.07))
    assert [frame.file for frame in some.frames] == ["B_001.jpg", "B_002.jpg", "B_003.jpg"]
    assert whole.calm.calms_s == pytest.approx(0.35, rel=0.3)
    assert some.calm.calms_s == pytest.approx(whole.calm.calms_s, rel=0.2)
    assert some.calm.swing_um == pytest.approx(whole.calm.swing_um, rel=0.3)
    assert "finely" in run_trial(TrialAsked(**common)).sentence  # the files say nothing of the time
