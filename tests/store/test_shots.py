import pytest

from just_plane.demo.catalogue import demo_shots, fill
from just_plane.store.errors import ConflictError, NotFoundError
from just_plane.store.folder import open_shots


def renamed(shot, name):
    return shot.model_copy(update={"name": name})


def test_undo_and_redo_outlive_a_restart(tmp_path, pod):
    shots = open_shots(tmp_path)
    kept = shots.add(pod)
    for name in ("one", "two", "three"):
        kept = shots.save(kept.shot_id, renamed(pod, name), kept.revision)
    kept = shots.undo(kept.shot_id, kept.revision)
    kept = open_shots(tmp_path).undo(kept.shot_id, kept.revision)
    assert (kept.shot.name, kept.can_undo, kept.can_redo) == ("one", True, True)
    kept = open_shots(tmp_path).redo(kept.shot_id, kept.revision)
    assert kept.shot.name == "two"


def test_undo_stops_at_the_beginning_and_redo_at_the_end(shots, pod):
    kept = shots.add(pod)
    assert not kept.can_undo
    assert shots.undo(kept.shot_id, kept.revision) == kept
    assert shots.redo(kept.shot_id, kept.revision) == kept


def test_a_change_after_undo_starts_a_new_line(shots, pod):
    kept = shots.add(pod)
    kept = shots.save(kept.shot_id, renamed(pod, "left behind"), kept.revision)
    kept = shots.undo(kept.shot_id, kept.revision)
    kept = shots.save(kept.shot_id, renamed(pod, "new line"), kept.revision)
    assert not kept.can_redo
    kept = shots.undo(kept.shot_id, kept.revision)
    assert kept.shot.name == pod.name
    assert shots.redo(kept.shot_id, kept.revision).shot.name == "new line"


def test_saving_what_is_already_there_makes_no_revision(shots, pod):
    kept = shots.add(pod)
    assert shots.save(kept.shot_id, pod, kept.revision).revision == kept.revision


def test_the_second_of_two_windows_is_refused_and_nothing_is_lost(shots, pod):
    opened = shots.add(pod)
    first = shots.save(opened.shot_id, renamed(pod, "first window"), opened.revision)
    with pytest.raises(ConflictError, match="one undo away"):
        shots.save(opened.shot_id, renamed(pod, "second window"), opened.revision)
    with pytest.raises(ConflictError):
        shots.undo(opened.shot_id, opened.revision)
    second = shots.save(opened.shot_id, renamed(pod, "second window"), first.revision)
    assert shots.undo(second.shot_id, second.revision).shot.name == "first window"


def test_a_removed_shot_can_be_brought_back_with_its_past(shots, pod):
    kept = shots.add(pod)
    kept = shots.save(kept.shot_id, renamed(pod, "later"), kept.revision)
    shots.remove(kept.shot_id)
    assert shots.list() == []
    assert [line.shot_id for line in shots.list(removed=True)] == [kept.shot_id]
    shots.bring_back(kept.shot_id)
    assert shots.get(kept.shot_id) == kept


def test_last_changed_is_listed_first(shots, catalogue):
    ids = [shots.add(shot).shot_id for shot in catalogue.values()]
    oldest = shots.get(ids[0])
    shots.save(ids[0], renamed(oldest.shot, "touched"), oldest.revision)
    assert [line.shot_id for line in shots.list()] == [ids[0], *reversed(ids[1:])]


@pytest.mark.parametrize("work", ["get", "remove", "bring_back"])
def test_an_unknown_shot_is_said(shots, work):
    with pytest.raises(NotFoundError, match="no such shot"):
        getattr(shots, work)("0123456789ab")


def test_the_demo_fills_an_empty_store_once(shots):
    assert fill(shots) == len(demo_shots())
    assert fill(shots) == 0
    assert [line.shot.name for line in shots.list()] == [shot.name for shot in demo_shots()]


def test_the_demo_leaves_a_store_with_work_alone(shots, pod):
    shots.remove(shots.add(pod).shot_id)
    assert fill(shots) == 0
