import pytest

from just_plane.demo.catalogue import demo_kit, demo_shots, fill
from just_plane.store.errors import ConflictError, NotFoundError
from just_plane.store.folder import open_store


def renamed(shot, name):
    return shot.model_copy(update={"name": name})


def test_undo_and_redo_outlive_a_restart(tmp_path, pod):
    shots = open_store(tmp_path).shots
    kept = shots.add(pod)
    for name in ("one", "two", "three"):
        kept = shots.save(kept.document_id, renamed(pod, name), kept.revision)
    kept = shots.undo(kept.document_id, kept.revision)
    kept = open_store(tmp_path).shots.undo(kept.document_id, kept.revision)
    assert (kept.body.name, kept.can_undo, kept.can_redo) == ("one", True, True)
    kept = open_store(tmp_path).shots.redo(kept.document_id, kept.revision)
    assert kept.body.name == "two"


def test_undo_stops_at_the_beginning_and_redo_at_the_end(shots, pod):
    kept = shots.add(pod)
    assert not kept.can_undo
    assert shots.undo(kept.document_id, kept.revision) == kept
    assert shots.redo(kept.document_id, kept.revision) == kept


def test_a_change_after_undo_starts_a_new_line(shots, pod):
    kept = shots.add(pod)
    kept = shots.save(kept.document_id, renamed(pod, "left behind"), kept.revision)
    kept = shots.undo(kept.document_id, kept.revision)
    kept = shots.save(kept.document_id, renamed(pod, "new line"), kept.revision)
    assert not kept.can_redo
    kept = shots.undo(kept.document_id, kept.revision)
    assert kept.body.name == pod.name
    assert shots.redo(kept.document_id, kept.revision).body.name == "new line"


def test_saving_what_is_already_there_makes_no_revision(shots, pod):
    kept = shots.add(pod)
    assert shots.save(kept.document_id, pod, kept.revision).revision == kept.revision


def test_the_second_of_two_windows_is_refused_and_nothing_is_lost(shots, pod):
    opened = shots.add(pod)
    first = shots.save(opened.document_id, renamed(pod, "first window"), opened.revision)
    with pytest.raises(ConflictError, match="one undo away"):
        shots.save(opened.document_id, renamed(pod, "second window"), opened.revision)
    with pytest.raises(ConflictError):
        shots.undo(opened.document_id, opened.revision)
    second = shots.save(opened.document_id, renamed(pod, "second window"), first.revision)
    assert shots.undo(second.document_id, second.revision).body.name == "first window"


def test_a_removed_shot_can_be_brought_back_with_its_past(shots, pod):
    kept = shots.add(pod)
    kept = shots.save(kept.document_id, renamed(pod, "later"), kept.revision)
    shots.remove(kept.document_id)
    assert shots.list() == []
    assert [line.document_id for line in shots.list(removed=True)] == [kept.document_id]
    shots.bring_back(kept.document_id)
    assert shots.get(kept.document_id) == kept


def test_last_changed_is_listed_first(shots, catalogue):
    ids = [shots.add(shot).document_id for shot in catalogue.values()]
    oldest = shots.get(ids[0])
    shots.save(ids[0], renamed(oldest.body, "touched"), oldest.revision)
    assert [line.document_id for line in shots.list()] == [ids[0], *reversed(ids[1:])]


@pytest.mark.parametrize("work", ["get", "remove", "bring_back"])
def test_an_unknown_shot_is_said(shots, work):
    with pytest.raises(NotFoundError, match="no such shot"):
        getattr(shots, work)("0123456789ab")


def test_the_demo_fills_an_empty_store_once(store):
    assert fill(store) == len(demo_shots())
    assert fill(store) == 0
    assert store.kit.now().body == demo_kit()
    assert [line.body.name for line in store.shots.list()] == [shot.name for shot in demo_shots()]


def test_the_demo_leaves_a_store_with_work_alone(store, pod):
    store.shots.remove(store.shots.add(pod).document_id)
    assert fill(store) == 0
