"""The list of shots: pages, and lines that are kept with the revision they were made from."""

from just_plane.store.shots import Asked, Place


def names(listed):
    return [each.shot.name for each in listed]


def test_pages_follow_each_other_and_miss_none(shots, pod):
    for number in range(7):
        shots.add(pod.model_copy(update={"name": f"shot {number}"}))
    first = shots.page("mm", "now", 3)
    second = shots.page("mm", "now", 3, before=Place(first[-1].saved_at, first[-1].revision))
    third = shots.page("mm", "now", 3, before=Place(second[-1].saved_at, second[-1].revision))
    assert names([*first, *second, *third]) == [f"shot {number}" for number in reversed(range(7))]


def test_a_line_is_there_until_the_shot_the_units_or_the_program_change(shots, pod):
    kept = shots.add(pod)
    shots.keep_lines("mm", "now", {kept.revision: '{"headline": "as kept"}'})
    (listed,) = shots.page("mm", "now", 5)
    assert listed.line_json == '{"headline": "as kept"}'
    assert listed.shot is None
    assert shots.page("in", "now", 5)[0].line_json is None
    assert shots.page("mm", "later", 5)[0].shot == pod
    changed = pod.model_copy(update={"name": "changed"})
    shots.save(kept.document_id, changed, kept.revision)
    assert shots.page("mm", "now", 5)[0].shot == changed


def test_a_later_program_s_line_takes_the_place_of_the_earlier_one_s(shots, pod):
    kept = shots.add(pod)
    shots.keep_lines("mm", "now", {kept.revision: '{"a": 1}'})
    shots.keep_lines("mm", "later", {kept.revision: '{"a": 2}'})
    assert shots.page("mm", "later", 5)[0].line_json == '{"a": 2}'
    assert shots.page("mm", "now", 5)[0].line_json is None


def test_what_was_put_away_is_listed_apart(shots, pod):
    kept = shots.add(pod)
    shots.remove(kept.document_id)
    assert shots.page("mm", "now", 5) == []
    assert [each.shot_id for each in shots.page("mm", "now", 5, removed=True)] == [kept.document_id]


def test_lines_that_find_no_room_are_not_kept_and_nothing_else_happens(shots, pod, fill_disk):
    kept = shots.add(pod)
    fill_disk()
    shots.keep_lines("mm", "now", {kept.revision: '{"a": "' + "x" * 900_000 + '"}'})
    assert shots.page("mm", "now", 5)[0].line_json is None


def kept(shots, pod, **changes):
    subject = pod.subject.model_copy(
        update={key: changes.pop(key) for key in ("hold_still_s", "depth_mm") & changes.keys()}
    )
    return shots.add(pod.model_copy(update={**changes, "subject": subject}))


def test_shots_are_found_by_words_as_they_stand(shots, pod):
    kept(shots, pod, name="Ganache 100% dark", notes="")
    kept(shots, pod, name="Ganache 1000 dark", notes="")
    kept(shots, pod, name="Bar", notes="on slate_grey")
    kept(shots, pod, name="Tray", heading="Tuesday", notes="")
    assert names(shots.found("mm", "now", 9, Asked(text="100%"))) == ["Ganache 100% dark"]
    assert names(shots.found("mm", "now", 9, Asked(text="GANACHE"))) == ["Ganache 1000 dark", "Ganache 100% dark"]
    assert names(shots.found("mm", "now", 9, Asked(text="slate_grey"))) == ["Bar"]
    assert names(shots.found("mm", "now", 9, Asked(text="tuesday"))) == ["Tray"]
    assert names(shots.found("mm", "now", 9, Asked(text="\\"))) == []


def test_a_heading_is_put_in_the_order_in_which_things_keep(shots, pod):
    for name, hold in (("for ever", None), ("ten minutes", 600.0), ("a second", 1.0)):
        kept(shots, pod, name=name, heading="Tuesday", hold_still_s=hold)
    kept(shots, pod, name="another day", heading="Wednesday", hold_still_s=0.1)
    found = shots.found("mm", "now", 9, Asked(heading="Tuesday", sort="hold"))
    assert names(found) == ["a second", "ten minutes", "for ever"]
    assert shots.headings() == ["Tuesday", "Wednesday"]


def test_found_in_pages_by_name_and_by_depth(shots, pod):
    for depth, name in enumerate(("b", "C", "a")):
        kept(shots, pod, name=name, depth_mm=1.0 + depth)
    by_name = [shots.found("mm", "now", 1, Asked(sort="name"), skip=skip) for skip in range(4)]
    assert [names(page) for page in by_name] == [["a"], ["b"], ["C"], []]
    assert names(shots.found("mm", "now", 9, Asked(sort="depth"))) == ["a", "C", "b"]


def test_headings_are_those_that_shots_stand_under_now(shots, pod):
    moved = kept(shots, pod, name="moved", heading="Monday")
    shots.save(moved.document_id, moved.body.model_copy(update={"heading": "Friday"}), moved.revision)
    away = kept(shots, pod, name="put away", heading="Sunday")
    shots.remove(away.document_id)
    damaged = kept(shots, pod, name="damaged", heading="Thursday")
    kept(shots, pod, name="under none", heading="")
    with shots.database.write() as connection:
        connection.execute("UPDATE revision SET body_json = '{}' WHERE revision_id = ?", (damaged.revision,))
    assert shots.headings() == ["Friday"]


def test_a_shot_that_is_saved_again_stands_first_and_once(shots, pod):
    first, _ = kept(shots, pod, name="first"), kept(shots, pod, name="second")
    assert [each.shot.name for each in shots.page("mm", "now", 9)] == ["second", "first"]
    shots.save(first.document_id, first.body.model_copy(update={"name": "again"}), first.revision)
    assert [each.shot.name for each in shots.page("mm", "now", 9)] == ["again", "second"]
    assert [each.shot.name for each in shots.page("mm", "now", 1)] == ["again"]
    shots.remove(first.document_id)
    assert [each.shot.name for each in shots.page("mm", "now", 9)] == ["second"]
    assert [each.shot.name for each in shots.page("mm", "now", 9, removed=True)] == ["again"]
