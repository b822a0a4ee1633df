"""The made-up chocolate maker's catalogue: shots that this version can compute in full, as shot files."""

from importlib.resources import files

from just_plane.contract.shot_file import read_shot


def demo_shots():
    """The demo's shots, in catalogue order."""
    folder = files("just_plane.demo") / "shots"
    names = ("cut-pod", "praline-section", "ganache-drip", "foil-wrapper")
    return [read_shot((folder / f"{name}.json").read_bytes()) for name in names]


def fill(shots):
    """Put the demo's shots into an empty store; leave one that has shots as it is. Returns how many were added."""
    if shots.count():
        return 0
    catalogue = demo_shots()
    for shot in reversed(catalogue):  # last added is listed first
        shots.add(shot)
    return len(catalogue)
