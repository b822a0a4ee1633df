"""The made-up chocolate maker's catalogue: shots that this version can compute in full, as shot files."""

from importlib.resources import files

from just_plane.contract.shot_file import read_shot
from just_plane.demo.season import fill_notebook
from just_plane.pictures.framing import framing_photograph
from just_plane.pictures.writing import screen_jpeg
from just_plane.planning.pictures.preview import preview
from just_plane.shelf.starter import starter_shelf


def demo_shots():
    """The demo's shots, in catalogue order."""
    folder = files("just_plane.demo") / "shots"
    names = ("bonbon-tray", "cut-pod", "praline-section", "ganache-drip", "sugar-bloom", "foil-wrapper")
    return [read_shot((folder / f"{name}.json").read_bytes()) for name in names]


def demo_kit():
    """The chocolate maker's kit: everything on the generic shelf, some of it left at home today."""
    return starter_shelf()


def fill(store):
    """Put the demo's kit and shots into an empty store; leave one that has shots as it is. Returns shots added."""
    kept = store.kit.now()
    if not kept.body.pieces and not kept.can_undo and not kept.can_redo:
        store.kit.save(kept.document_id, demo_kit(), kept.revision)
    if store.shots.count():
        return 0
    catalogue = demo_shots()
    for shot in reversed(catalogue):  # last added is listed first
        store.shots.add(_with_photograph(store, shot))
    fill_notebook(store)
    return len(catalogue)


def _with_photograph(store, shot):
    """A shot with points gets its framing photograph: made up, as one frame without tilt would show it."""
    if not shot.plane.points:
        return shot
    made = preview(shot, "one", "frame", 0.5, 0.5)
    if isinstance(made, str):
        return shot
    taken = framing_photograph(screen_jpeg(made.light))
    kept = store.photographs.add(taken.jpeg, taken.width, taken.height)
    return shot.model_copy(update={"plane": shot.plane.model_copy(update={"photograph": kept})})
