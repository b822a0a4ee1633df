"""The history of a shot against a plain model of one, and many hands at once."""

import tempfile
import threading

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from just_plane.demo.catalogue import demo_shots
from just_plane.store.errors import ConflictError
from just_plane.store.folder import open_store

POD = demo_shots()[0]


def named(name):
    return POD.model_copy(update={"name": name})


class History(RuleBasedStateMachine):
    """Saves, undos, redos and restarts in any order; the model is a list and a place in it."""

    def __init__(self):
        super().__init__()
        self.folder = tempfile.TemporaryDirectory()
        self.shots = open_store(self.folder.name).shots
        self.kept = self.shots.add(named("start"))
        self.line, self.place = ["start"], 0

    @rule(name=st.text(alphabet="abc", min_size=1, max_size=3))
    def save(self, name):
        self.kept = self.shots.save(self.kept.document_id, named(name), self.kept.revision)
        if self.line[self.place] != name:
            self.line = [*self.line[: self.place + 1], name]
            self.place += 1

    @rule()
    def undo(self):
        self.kept = self.shots.undo(self.kept.document_id, self.kept.revision)
        self.place = max(self.place - 1, 0)

    @rule()
    def redo(self):
        self.kept = self.shots.redo(self.kept.document_id, self.kept.revision)
        self.place = min(self.place + 1, len(self.line) - 1)

    @rule()
    def restart(self):
        self.shots = open_store(self.folder.name).shots

    @invariant()
    def the_shot_is_where_the_model_says(self):
        kept = self.shots.get(self.kept.document_id)
        assert kept.body.name == self.line[self.place]
        assert kept.can_undo == (self.place > 0)
        assert kept.can_redo == (self.place < len(self.line) - 1)

    def teardown(self):
        self.folder.cleanup()


History.TestCase.settings = settings(max_examples=25, stateful_step_count=25, deadline=None)
TestHistory = History.TestCase


def test_of_many_saves_from_one_revision_exactly_one_is_kept(shots):
    opened = shots.add(POD)
    outcomes = []
    start = threading.Barrier(8)

    def save(number):
        start.wait()
        try:
            outcomes.append(shots.save(opened.document_id, named(f"hand {number}"), opened.revision).body.name)
        except ConflictError:
            outcomes.append(None)

    hands = [threading.Thread(target=save, args=(number,)) for number in range(8)]
    for hand in hands:
        hand.start()
    for hand in hands:
        hand.join()
    kept = [name for name in outcomes if name is not None]
    assert len(outcomes) == 8
    assert kept == [shots.get(opened.document_id).body.name]


def test_many_hands_at_many_shots_lose_nothing(shots):
    def work(number):
        kept = shots.add(named(f"shot {number}"))
        for change in range(5):
            kept = shots.save(kept.document_id, named(f"shot {number}, change {change}"), kept.revision)

    hands = [threading.Thread(target=work, args=(number,)) for number in range(6)]
    for hand in hands:
        hand.start()
    for hand in hands:
        hand.join()
    assert sorted(line.body.name for line in shots.list()) == [f"shot {number}, change 4" for number in range(6)]
