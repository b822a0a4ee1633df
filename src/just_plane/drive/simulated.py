"""The simulated rail and camera of a run, before the made-up set of its shot, with what may go wrong."""

from just_plane.devices.clock import FastClock, RealClock
from just_plane.devices.simulated_camera import CameraFaults, Set, SimulatedCamera
from just_plane.devices.simulated_rail import HandRail, RailFaults, SimulatedRail
from just_plane.drive.driver import Devices
from just_plane.planning.pictures.made_set import made_set
from just_plane.runs.marks import direction, reading_of

PLAY_MM, SWING_MM = 0.06, 0.02
SIDEWAYS = 0.004
DRIFT_EV_PER_FRAME, CREEP_PX_PER_FRAME = 0.006, 0.05
"""Of what drifts, per frame: an hour of the set is as long as its frames take."""


class NoSetError(Exception):
    """There is nothing that could be photographed; ``message`` is a sentence."""

    def __init__(self, message):
        super().__init__(message)
        self.message = message


def simulated(shot, stand, folder):
    """Devices for a run.

    Parameters
    ----------
    shot : Shot            As the run was made from it.
    stand : Stand
    folder : Path          That the camera writes to; made if missing.

    Returns
    -------
    Devices

    Raises
    ------
    NoSetError
    """
    plan, devices = stand.plan, stand.devices
    made = made_set(shot, plan.way)
    if isinstance(made, str):
        raise NoSetError(made)
    taken = sum(stand.times_taken)
    clock = RealClock() if devices.in_real_time else FastClock(start=taken * plan.time_s / len(plan.steps))
    first = plan.steps[0]
    start = stand.reading if stand.reading is not None else reading_of(first) - direction(plan) * 1.0
    hand = HandRail(start, devices.seed)
    rail = SimulatedRail(clock, rail_faults(plan, devices), start=start, seed=devices.seed)
    mover = rail if devices.rail == "simulated" else None

    def placed(step):
        hand.move_to(reading_of(step))

    if devices.camera != "simulated":
        return Devices(mover, None, clock, placed)
    folder.mkdir(parents=True, exist_ok=True)
    seen = Set(
        light=lambda along, right, down: made.light(focus_at(plan, along), right, down),
        pitch=made.pitch,
        across_px=made.across_px,
        blur_mm=made.still_mm,
    )
    camera = SimulatedCamera(
        seen,
        mover or hand,
        clock,
        folder,
        camera_faults(plan, devices),
        dng=devices.raw_too,
        seed=devices.seed,
        taken=taken,
        first=len([path for path in folder.iterdir() if path.suffix == ".jpg"]) + 1,
    )
    camera.set(plan.shutter_s or 1 / 60, plan.f_number, plan.iso)
    return Devices(mover, camera, clock, placed)


def focus_at(plan, reading):
    """Where a frame is sharp when the rail reads so, mm behind the nearest point.

    Parameters
    ----------
    plan : RunPlan
    reading : float   mm.

    Returns
    -------
    float
    """
    first = plan.steps[0]
    grows = plan.mark_grows if first.mark_mm is not None else 1
    return first.focus_mm + grows * (reading - reading_of(first))


def rail_faults(plan, devices):
    """What a rail does wrong in a run.

    Parameters
    ----------
    plan : RunPlan
    devices : Devices

    Returns
    -------
    RailFaults
    """
    asked = set(devices.faults)
    third = len(plan.steps) // 3
    step = abs(reading_of(plan.steps[1]) - reading_of(plan.steps[0])) if len(plan.steps) > 1 else 0.0
    return RailFaults(
        backlash_mm=PLAY_MM if "rail_play" in asked else 0.0,
        slips_at=third + 2 if "rail_slips" in asked else None,
        slip_mm=step if "rail_slips" in asked else 0.0,
        drift_right=SIDEWAYS if "rail_drifts_sideways" in asked else 0.0,
        swing_mm=SWING_MM if "rail_swings" in asked else 0.0,
        gone_at=third + 3 if "rail_gone" in asked else None,
    )


def camera_faults(plan, devices):
    """What a camera, its light and the set do wrong in a run.

    Parameters
    ----------
    plan : RunPlan
    devices : Devices

    Returns
    -------
    CameraFaults
    """
    asked = set(devices.faults)
    count = len(plan.steps)
    hours = max(plan.time_s, 1.0) / 3600
    return CameraFaults(
        misfire_at=count // 2 if "flash_misfires" in asked else None,
        bump_at=2 * count // 3 if "bump" in asked else None,
        light_per_hour_ev=-DRIFT_EV_PER_FRAME * count / hours if "light_drifts" in asked else 0.0,
        creep_px_per_hour=CREEP_PX_PER_FRAME * count / hours if "set_creeps" in asked else 0.0,
        hang_at=count // 4 if "camera_hangs" in asked else None,
        missed_at=count // 5 if "frame_missed" in asked else None,
        card_frames=max(2 * count // 3, 1) if "card_full" in asked else None,
        battery_frames=max(3 * count // 4, 1) if "battery_flat" in asked else None,
        dust="dust" in asked,
    )
