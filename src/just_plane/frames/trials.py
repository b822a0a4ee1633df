"""A trial of whatever kind, from a folder."""

from pathlib import Path

from just_plane.frames.trial_intake import trial_frames
from just_plane.frames.trial_moving import calm_trial, sway_trial
from just_plane.frames.trial_rail import backlash_trial, steps_trial
from just_plane.frames.trial_stops import stops_trial
from just_plane.frames.trial_time import dark_trial, stillness_trial

TRIALS = {
    "stops": stops_trial,
    "steps": steps_trial,
    "backlash": backlash_trial,
    "calm": calm_trial,
    "stillness": stillness_trial,
    "sway": sway_trial,
    "dark": dark_trial,
}


def run_trial(asked, progress=None):
    """Measure.

    Parameters
    ----------
    asked : TrialAsked
    progress : function or None   Called with (frames done, frames in all, name); what it raises stops the trial.

    Returns
    -------
    TrialResult

    Raises
    ------
    FolderError
    """
    return TRIALS[asked.kind](trial_frames(Path(asked.folder)), asked, progress)
