"""A step that frames show to be another than planned, kept as a trial of the rail: once, and not over one that knows
better."""

import pytest

from just_plane.demo.catalogue import demo_shots, fill
from just_plane.store.folder import open_store
from just_plane.web.app import create_app
from stacks.camera import write
from stacks.kept import FACTS, STEP_MM, stack_of
from web.waiting import ended

pytestmark = pytest.mark.xdist_group("stacks")
TURN_MM = 0.8
"""That a turn is said to go. The made-up frames lie a whole step apart where half was planned: it goes twice as far."""


@pytest.fixture(scope="module")
def served(tmp_path_factory):
    folder = tmp_path_factory.mktemp("kept")
    for name, seed in (("pod", 4), ("again", 5)):
        write(stack_of("dome", seed, jpeg=False), folder / name)
    store = open_store(folder / "data")
    fill(store)
    app = create_app(store)
    app.config["JUST_PLANE_RUNNER"].start()
    yield app.test_client(), folder, store
    app.config["JUST_PLANE_RUNNER"].stop()


def numbers(step):
    return {
        "kind": "rail",
        "magnification": 0.5,
        "effective_f_number": 12.0,
        "pixel_pitch_mm": 0.01,
        "c_mm": 0.03,
        "depth_of_field_mm": 2 * STEP_MM,
        "step_mm": step,
        "planned_frames": 12,
        "entrance_pupil_distance_mm": FACTS.pupil_distance,
    }


def looked_at(client, folder, step, shot_id=None):
    asked = {"folder": str(folder), "numbers": numbers(step), "methods": [], "shot_id": shot_id}
    return ended(client, f"/api/jobs/{client.post('/api/checks', json=asked).get_json()['job_id']}")


def rail(client):
    kit = client.get("/api/kit").get_json()["kit"]
    return next(each["gear"] for each in kit["pieces"] if each["gear"]["kind"] == "rail")


def shot_with(store, **stack):
    """A shot of the demo, its rail as given: its id."""
    shot = demo_shots()[0]
    return store.shots.add(shot.model_copy(update={"stack": shot.stack.model_copy(update=stack)})).document_id


def keep(client, job):
    return client.post(f"/api/jobs/{job['job_id']}/kept-step")


def test_a_step_twice_as_long_goes_into_the_rail_once(served):
    client, folder, store = served
    mine = rail(client)
    shot_id = shot_with(store, rail_kit_id=mine["kit_id"], rail_name=mine["name"], rail_mm_per_turn=TURN_MM)
    job = looked_at(client, folder / "pod", STEP_MM / 2, shot_id)
    told = job["report"]["step_measured"]
    assert told["step_mm"] == pytest.approx(STEP_MM, rel=0.2)
    assert told["pairs"] == 11
    kept = keep(client, job).get_json()
    assert kept["believed"]
    assert kept["result"]["steps"]["per_unit_mm"] == pytest.approx(2 * TURN_MM, rel=0.2)
    assert kept["used_in"] == f"{mine['name']}, in the kit"
    learnt = rail(client)["measured_mm_per_turn"]
    assert learnt == pytest.approx(kept["result"]["steps"]["per_unit_mm"], rel=1e-5)
    # The same frames again are the same trial, though the shot may count by the new figure now.
    anew = shot_with(store, rail_kit_id=mine["kit_id"], rail_name=mine["name"], rail_mm_per_turn=learnt)
    assert keep(client, looked_at(client, folder / "pod", STEP_MM / 2, anew)).get_json()["trial_id"] == kept["trial_id"]
    assert keep(client, job).get_json()["trial_id"] == kept["trial_id"]
    # Other frames that say another thing are kept, and do not take its place unasked.
    slower = shot_with(store, rail_kit_id=mine["kit_id"], rail_name=mine["name"], rail_mm_per_turn=3 * TURN_MM)
    other = keep(client, looked_at(client, folder / "again", STEP_MM / 2, slower)).get_json()
    assert other["trial_id"] != kept["trial_id"]
    assert not other["believed"]
    assert rail(client)["measured_mm_per_turn"] == learnt


def test_frames_as_planned_and_a_rail_that_is_not_known_keep_nothing(served):
    client, folder, store = served
    as_planned = looked_at(client, folder / "pod", STEP_MM)
    assert as_planned["report"]["step_measured"] is None
    refused = keep(client, as_planned)
    assert refused.status_code == 422
    assert "do not say" in refused.get_json()["detail"]
    for shot_id in (None, shot_with(store, rail_kit_id=None, rail_mm_per_turn=None)):
        refused = keep(client, looked_at(client, folder / "pod", STEP_MM / 2, shot_id))
        assert refused.status_code == 422
        assert "rail" in refused.get_json()["detail"]
    assert keep(client, {"job_id": "0" * 32}).status_code == 404
