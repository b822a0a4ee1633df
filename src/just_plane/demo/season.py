"""A season in the made-up chocolate maker's notebook: entries from before the demo was opened."""

import json
from importlib.resources import files
from typing import NamedTuple

from just_plane.contract.log import LogNote, LogOut
from just_plane.planning.log.entry import done_of, set_of
from just_plane.planning.plan import plan_shot
from just_plane.planning.ways.step_table import step_rows
from just_plane.runs.replay import replay
from just_plane.runs.steps import run_plan


class _Then(NamedTuple):
    """A run of which only the entry is left."""

    run_id: None
    document_id: str
    revision: int
    started_at: str


def fill_notebook(store):
    """Write the season into an empty notebook. Returns entries added.

    Parameters
    ----------
    store : Store   With the demo's shots in it.
    """
    if store.log.list():
        return 0
    shots = {kept.body.name: kept for kept in store.shots.list()}
    added = 0
    season = json.loads((files("just_plane.demo") / "season.json").read_text(encoding="utf-8"))
    for entry in season:
        kept = next((each for title, each in shots.items() if title.startswith(entry["shot"])), None)
        if kept is None:
            continue
        plan = plan_shot(kept.body)
        way = next((each for each in plan.ways if each.id == kept.body.chosen_way), None)
        way = way or next((each for each in plan.ways if each.recommended), None)
        if way is None or not way.frames or plan.reach is None:
            continue
        made = run_plan(kept.body, plan, way, step_rows(way, plan.reach.magnification))
        done = done_of(replay(made, []), entry["began"], None).model_copy(
            update={"state": "finished", "frames_taken": len(made.steps), "time_s": float(entry["took_s"])}
        )
        out = LogOut(
            job_id="",
            may_come_down=entry["answer"].startswith("Yes"),
            answer=entry["answer"],
            findings=entry["findings"],
            frames_used=len(made.steps),
            frames=len(made.steps),
            proofs=[],
        )
        store.log.add(
            _Then(None, kept.document_id, kept.revision, f"{entry['began']}.000+00:00"),
            set_of(kept.body, made).model_dump_json(),
            done.model_dump_json(),
            LogNote(good=entry["good"], wrong=entry["wrong"], next_time=entry["next_time"]).model_dump_json(),
            out.model_dump_json() if entry["answer"] else None,
        )
        added += 1
    return added
