"""A few frames from the hand, leaning in: what they hold on the average, and how often to do it."""

from dataclasses import replace

from just_plane.contract.plan import StackAnswer
from just_plane.core.depth import limits_from_pupil
from just_plane.core.hand_series import ENOUGH, MOST_SERIES, frames_by_hand, hand_places, hand_series
from just_plane.core.stack import Stack
from just_plane.core.ways import FramesView, stacked
from just_plane.planning.setup.hands import sway_of
from just_plane.planning.setup.measured import ASSUMED_RECOVERY_S
from just_plane.planning.setup.own_steps import left_open
from just_plane.planning.ways.compared import Compared, impossible
from just_plane.planning.words.numbers import f_stop, percent

BURST_S = 0.2
"""From one frame of a burst to the next."""
NEARLY_ALWAYS = 0.95
"""Share of the series that hold all of it, from which it counts as held."""
SURE = 0.99
"""The most that is said of what is not sure."""


def hand_way(setup):
    """A series from the hand at the stop in use (Setup): Compared."""
    shot, stop = setup.shot, setup.stop
    title = f"Series from the hand, {f_stop(stop.f_number)}"
    if stop.blur == 0 or setup.depth == 0:
        why = "no depth in any frame at this stop: open up" if stop.blur == 0 else "there is no depth to lean through"
        return impossible(setup, "hand", "hand", title, why)
    view = setup.view
    scale = view.magnification**2 * view.pupil_distance / stop.effective_f_number
    near, far = limits_from_pupil(view.pupil_distance, scale, stop.blur)
    frames = shot.stack.own_frames or frames_by_hand(setup.depth, near + far)
    places = hand_places(setup.depth, frames)
    step = setup.depth / frames
    if setup.rigged.working_distance < places[-1]:
        return impossible(setup, "hand", "hand", title, "the lens would touch the subject before the last frame")
    sway, assumed = sway_of(shot)
    held = hand_series(setup.depth, near, far, frames, sway)
    frames_view = FramesView(
        view.magnification, view.pupil_distance, stop.effective_f_number, stop.blur, stop.lens_share
    )
    stack = Stack(frames - 1, frames, places, frames, step, step)
    way = stacked(view, "hand", stop.f_number, frames_view, stack, stop.shutter, _burst(setup))
    meant = left_open(way.bands, setup.depth)
    sure = held.whole >= NEARLY_ALWAYS
    cover = 1.0 if sure else min(held.cover, SURE)
    return Compared(
        "hand",
        replace(way, cover=cover),
        title,
        _note(setup, held, f"{setup.wording.length(sway)}{', assumed' if assumed else ''}", step, sure),
        stack=StackAnswer(
            step_mm=step,
            largest_step_mm=step,
            steps=frames - 1,
            frames=frames,
            covering_frames=frames,
            first_mm=places[0],
            last_mm=places[-1],
            frames_per_depth=min((near + far) / step, 1e6),
            crop=0.0,
            magnifications=[view.magnification],
            slabs=[],
            kept_frames=frames,
            kept_overlap=1 - step / (near + far),
            camera_words="",
            own=shot.stack.own_frames is not None,
            gaps_mm=meant,
            series=held.series,
            whole_share=held.whole,
        ),
    )


def _burst(setup):
    """What each frame takes of a series that is held down: no settling, and writing goes on meanwhile. A flash that
    must recharge, and a time that was typed, count all the same: Pace."""
    options = setup.shot.stack
    waits = setup.shot.light.flash_guide_number_m is not None or options.recovery_s != ASSUMED_RECOVERY_S
    return replace(setup.pace, settle=0.0, recovery=setup.pace.recovery if waits else BURST_S)


def _note(setup, held, sway, step, sure):
    length = setup.wording.length
    said = f"lean in with a burst, a frame every {length(step)}; hands sway {sway}"
    if sure:
        return f"{said}: {percent(min(held.whole, SURE))} of such series hold all of it"
    if held.series == 1:
        return f"{said}: one series holds {percent(min(held.cover, SURE))} on the average"
    several = (
        f"{held.series} series merged hold {percent(ENOUGH)}"
        if held.series is not None
        else f"even {MOST_SERIES} series merged hold less than {percent(ENOUGH)}"
    )
    return f"{said}: one series holds {percent(min(held.cover, SURE))} on the average, {several}"
