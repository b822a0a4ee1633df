"""What goes when it is asked for, and what stays: versions, undo, and what runs and entries were made from."""

import pytest

from just_plane.store.errors import NotFoundError
from just_plane.store.runs import Runs
from just_plane.store.tidying import old_revisions, put_away


def saved(shots, pod, count):
    kept = shots.add(pod)
    for number in range(count):
        named = pod.model_copy(update={"name": f"version {number}"})
        kept = shots.save(kept.document_id, named, kept.revision)
    return kept


def undone(shots, kept):
    """How often it can be undone."""
    steps = 0
    while kept.can_undo:
        kept, steps = shots.undo(kept.document_id, kept.revision), steps + 1
    return steps


def test_the_last_versions_stay_and_undo_walks_through_them(shots, pod):
    kept = saved(shots, pod, 9)
    assert old_revisions(shots.database, 4) == (1, 5)
    assert undone(shots, kept) == 9
    kept = shots.get(kept.document_id)
    while kept.can_redo:
        kept = shots.redo(kept.document_id, kept.revision)
    assert old_revisions(shots.database, 4, remove=True) == (1, 5)
    assert shots.get(kept.document_id).body.name == "version 8"
    assert undone(shots, shots.get(kept.document_id)) == 4
    assert old_revisions(shots.database, 4) == (0, 0)


def test_what_was_undone_stays_for_redo(shots, pod):
    kept = saved(shots, pod, 5)
    for _ in range(3):
        kept = shots.undo(kept.document_id, kept.revision)
    old_revisions(shots.database, 1, remove=True)
    for _ in range(3):
        kept = shots.redo(kept.document_id, kept.revision)
    assert kept.body.name == "version 4"


def test_what_a_run_was_made_from_stays_however_old(shots, pod):
    kept = shots.add(pod)
    first = kept.revision
    Runs(shots.database).begin(kept.document_id, kept.revision, "{}", lambda last: None)
    for number in range(5):
        kept = shots.save(kept.document_id, pod.model_copy(update={"name": f"v{number}"}), kept.revision)
    assert old_revisions(shots.database, 1, remove=True) == (1, 3)
    assert shots.at(kept.document_id, first) == pod
    with pytest.raises(NotFoundError):
        shots.at(kept.document_id, first + 1)


def test_put_away_goes_for_good_with_every_version_and_nothing_else(shots, pod):
    away, stays = saved(shots, pod, 3), saved(shots, pod, 2)
    shots.remove(away.document_id)
    assert put_away(shots.database, "shot") == (1, 4)
    assert shots.get(away.document_id).removed
    assert put_away(shots.database, "shot", remove=True) == (1, 4)
    with pytest.raises(NotFoundError):
        shots.get(away.document_id)
    assert undone(shots, shots.get(stays.document_id)) == 2
    assert put_away(shots.database, "shot") == (0, 0)


def test_changes_that_go_on_are_one_step_of_undo(shots, pod):
    kept = saved(shots, pod, 1)
    for word in ("a", "ab", "abc"):
        kept = shots.save(kept.document_id, pod.model_copy(update={"name": word}), kept.revision, continues=word != "a")
    assert undone(shots, kept) == 2
    back = shots.get(kept.document_id)
    assert back.body.name == pod.name
    # Redo goes to what the row of changes ended with.
    back = shots.redo(back.document_id, back.revision)
    assert shots.redo(back.document_id, back.revision).body.name == "abc"


def test_the_first_version_goes_on_with_nothing(shots, pod):
    kept = shots.add(pod)
    kept = shots.save(kept.document_id, pod.model_copy(update={"name": "next"}), kept.revision, continues=True)
    assert kept.can_undo
