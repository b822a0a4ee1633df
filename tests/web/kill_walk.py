"""Walks a run through all its presses in processes that are killed at any moment; looks after each what is there.

    python kill_walk.py FOLDER RUN_ID ROUNDS SEED

Prints the rounds walked and, of each kind of event, how many were kept. Fails at the first thing that is lost, counted
twice or resumed at another frame than a count by hand says.
"""

import json
import os
import random
import signal
import sys
import time
from collections import Counter

from just_plane.contract.run import RunEvent
from just_plane.drive.journal import stand_of
from just_plane.runs.replay import RefusedEventError, after
from just_plane.store.folder import open_store

LONGEST_S = 0.012
"""That a process lives after its first press: some are killed in the middle of one, some after several.

At first: where a busy machine keeps hardly a press in it, they live longer.
"""


def any_event(chance, run, stand):
    """A press that a person, a watched folder or a driver could send now."""
    frames = len(stand.times_taken)
    near = stand.next_frame if stand.next_frame is not None else chance.randrange(frames)
    kind = chance.choice(
        ["taken"] * 6 + ["set", "skipped", "once_more", "paused", "went_on", "trouble", "passed", "watching", "added"]
    )
    event = {"kind": kind}
    if kind in ("taken", "set", "skipped"):
        event["frame"] = near
    if kind == "once_more":
        event["frame"] = max(near - 1, 0)
    if kind == "taken" and stand.folder:
        event["file"] = f"F_{len(run.events):05d}.jpg"
    if kind == "set":
        event["reading_mm"] = 40.0 + near
    if kind == "added":
        event["focuses_mm"] = [float(chance.randrange(9)) for _ in range(chance.randrange(1, 4))]
    if kind == "watching":
        event |= {"folder": "/camera", "there_before": ["old.jpg"]}
    if kind == "passed":
        event["there_before"] = [f"passed-{len(run.events)}.jpg"]
    if kind == "trouble":
        event["words"] = "The rail does not answer."
    return event


def press_on(folder, run_id, seed, log):
    """Press and press until killed: each press is written to the log before it is sent, and after it was kept."""
    chance = random.Random(seed)
    runs = open_store(folder).runs
    while True:
        run = runs.get(run_id)
        event = RunEvent.model_validate(any_event(chance, run, stand_of(run)))
        text = event.model_dump_json()
        os.write(log, (json.dumps(["sent", len(run.events), text]) + "\n").encode())
        try:
            runs.add(
                run_id,
                len(run.events),
                f"press-{seed}-{len(run.events)}",
                text,
                lambda r, e=event: after(stand_of(r), e),
            )
        except RefusedEventError:
            os.write(log, b'["refused"]\n')
        else:
            os.write(log, b'["kept"]\n')


def counted_by_hand(count, events):
    """Frames taken and skipped, by counting alone: (list of int, set)."""
    taken, skipped = [0] * count, set()
    for event in events:
        if event["kind"] == "added":
            taken += [0] * len(event["focuses_mm"])
        if event["kind"] in ("taken", "once_more"):
            taken[event["frame"]] += 1
            skipped.discard(event["frame"])
        if event["kind"] == "skipped":
            skipped.add(event["frame"])
    return taken, skipped


def main(folder, run_id, rounds, seed):
    chance = random.Random(seed)
    kept: list = []
    longest = LONGEST_S
    for number in range(rounds):
        reading, writing = os.pipe()
        child = os.fork()
        if child == 0:
            press_on(folder, run_id, seed * 100_000 + number, writing)
        os.close(writing)
        pipe = os.fdopen(reading, "rb")
        first = pipe.readline()
        time.sleep(chance.random() * longest)
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        lines = [json.loads(line) for line in (first + pipe.read()).splitlines() if line.endswith(b"]")]
        pipe.close()
        longest = max(LONGEST_S, longest * (0.97 if ["kept"] in lines else 1.03))
        last = None
        for line in lines:
            if line[0] == "sent":
                last = line[2]
            else:
                kept += [last] if line[0] == "kept" else []
                last = None
        run = open_store(folder).runs.get(run_id)
        there = [event for _, event in run.events]
        if there != kept:
            # Only the press that nobody heard of may be there as well.
            assert there == [*kept, last], f"round {number}: {len(there)} events are there, {len(kept)} were answered"
            kept = there
        events = [json.loads(event) for event in there]
        stand = stand_of(run)
        taken, skipped = counted_by_hand(len(json.loads(run.plan_json)["steps"]), events)
        assert list(stand.times_taken) == taken, f"round {number}: a frame is counted wrong"
        wanted = next((k for k, times in enumerate(taken) if not times and k not in skipped), None)
        assert stand.next_frame == wanted, f"round {number}: goes on with {stand.next_frame}, not with {wanted}"
        once_more = Counter(event["frame"] for event in events if event["kind"] == "once_more")
        assert all(times <= 1 + once_more[k] for k, times in enumerate(taken)), f"round {number}: counted twice"
    print(json.dumps({"rounds": rounds, "events": Counter(json.loads(event)["kind"] for event in kept)}))


if __name__ == "__main__":
    main(sys.argv[1], sys.argv[2], int(sys.argv[3]), int(sys.argv[4]))
