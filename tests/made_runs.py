"""Runs to test with: six frames, half a millimetre apart, from a mark of 40 mm."""

from just_plane.contract.run import RunPlan, RunStep

COUNT = 6


def plan(count=COUNT, grows=1):
    steps = [
        RunStep(
            frame=k, focus_mm=k * 0.5, move_mm=0.5 if k else None, mark_mm=40 + grows * k * 0.5,
            sharp_from_mm=k * 0.5 - 0.3, sharp_to_mm=k * 0.5 + 0.3,
        )
        for k in range(count)
    ]  # fmt: skip
    return RunPlan(
        way="rail", title="Stack by rail, f/8", kind="rail", steps=steps, shutter_words="1/60 s", f_number=8, iso=100,
        settle_s=2.0, time_s=60.0, hold_still_s=None, mark_grows=grows, shutter_s=1 / 60,
    )  # fmt: skip
